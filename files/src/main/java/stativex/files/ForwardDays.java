package stativex.files;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import stativex.engine.Command;
import stativex.engine.Engine;
import stativex.engine.Lock;
import stativex.engine.Mode;
import stativex.evidence.ForwardGate;
import stativex.files.tape.TapeReference;
import stativex.files.tape.TapeStore;
import stativex.market.Session;
import stativex.market.SessionCalendar;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Owner;
import stativex.trial.Run;
import stativex.trial.TradeFacts;

/**
 * The whole trading days of a recorded session that the forward gate judges a version by. A day is whole where the version was engaged,
 * both sides on, from before the day's first open to its last close, nobody changed its plan or its state in between, and the tape has
 * no incomplete session of it. Source: SEMANTICS, "Searches and evidence" (forward gate).
 */
public final class ForwardDays {
    private ForwardDays() {}

    /**
     * What a session adds.
     *
     * @param left days on which the version was not engaged as a whole, which do not count
     */
    public record Found(List<ForwardGate.Day> days, List<LocalDate> left) {
        public Found {
            days = List.copyOf(days);
            left = List.copyOf(left);
        }
    }

    /** @param version of the strategy that is judged; @throws BadInput when the session has none of that version */
    public static Found of(SessionFile.Session session, String version) {
        int index = index(session, version);
        List<Change> changes = changes(session, index);
        Run run = session.run();
        Engine engine = run.engine();
        SessionCalendar calendar = run.inputs().accountCalendar();
        Optional<LocalDate> broken = engine.accountState().broken().isEmpty()
                ? Optional.empty()
                : engine.locks().stream().max(Comparator.comparingLong(Lock::time))
                        .flatMap(lock -> calendar.tradingDate(lock.time()));
        List<TradeFacts> trades = TradeFacts.of(run).stream()
                .filter(facts -> facts.trade().owner().equals(new Owner.Strategy(index)))
                .sorted(Comparator.comparingLong(facts -> facts.trade().entryTime())).toList();
        // sealed dates that this version has not opened are not looked at here, either
        Optional<SealBook.Seal> hidden = TapeReference.isStored(TapeStore.own(), session.tapeReference())
                ? SealBook.own().of(session.inputs().contract().symbol())
                        .filter(seal -> !SealBook.own().opened(seal, version))
                : Optional.empty();
        List<ForwardGate.Day> days = new ArrayList<>();
        List<LocalDate> left = new ArrayList<>();
        for (var day : engine.days().days()) {
            boolean broke = broken.equals(Optional.of(day.date()));
            if (hidden.filter(seal -> seal.holds(day.date())).isPresent()) {
                left.add(day.date());
            } else if (broke || isWhole(session, changes, day.date())) {
                days.add(new ForwardGate.Day(day.date(), trades.stream()
                        .filter(facts -> facts.tradingDay().equals(day.date())).map(facts -> facts.trade().net())
                        .toList(), broke));
            } else {
                left.add(day.date());
            }
        }
        return new Found(days, left);
    }

    /**
     * Every whole day of a version in the sessions of the person's data folder; of a day that was replayed more than once the first time
     * counts. Sessions that do not read, or have not that version, are passed over.
     */
    public static Found recorded(String version, SessionFile.TapeSource tapes) {
        Path folder = DataFolder.path().resolve("sessions");
        TreeMap<LocalDate, ForwardGate.Day> days = new TreeMap<>();
        TreeSet<LocalDate> left = new TreeSet<>();
        if (Files.isDirectory(folder)) {
            try (Stream<Path> files = Files.list(folder)) {
                for (Path file : files.filter(f -> f.getFileName().toString().endsWith(".session.jsonl")).sorted()
                        .toList()) {
                    try {
                        Found found = of(SessionFile.read(file, tapes), version);
                        found.days().forEach(day -> days.putIfAbsent(day.date(), day));
                        left.addAll(found.left());
                    } catch (BadInput e) {
                        // another version, or a tape that is gone
                        continue;
                    }
                }
            } catch (IOException e) {
                throw new BadInput(folder + ": cannot be read: " + Causes.of(e), e);
            }
        }
        left.removeAll(days.keySet());
        return new Found(List.copyOf(days.values()), List.copyOf(left));
    }

    private static int index(SessionFile.Session session, String version) {
        for (int i = 0; i < session.documents().strategies().size(); i++) {
            if (session.documents().strategies().get(i).value().version().equals(version)) {
                return i;
            }
        }
        throw new BadInput("expected a session with version " + version + ", found "
                + String.join(", ", session.documents().strategies().stream()
                        .map(one -> one.value().name() + " " + one.value().version()).toList()));
    }

    /** What the person changed about the strategy. @param time nanoseconds; before the first print: the least */
    private record Change(long time, Command command) {}

    private static List<Change> changes(SessionFile.Session session, int index) {
        Run run = new Run(session.inputs());
        return session.commands().stream().filter(placed -> concerns(placed.command(), index))
                .map(placed -> new Change(placed.place() == 0 ? Long.MIN_VALUE : time(run, placed.place()),
                        placed.command()))
                .toList();
    }

    /** The time of the input before a place. */
    private static long time(Run run, int place) {
        run.toPlace(place);
        return run.engine().lastTime();
    }

    private static boolean concerns(Command command, int index) {
        return switch (command) {
            case Command.SetMode set -> set.strategy() == index;
            case Command.SetSide set -> set.strategy() == index;
            case Command.SetOnce set -> set.strategy() == index;
            case Command.ChangePlan plan -> plan.strategy() == index;
            case Command.Breakeven one -> one.owner().equals(new Owner.Strategy(index));
            case Command.HalfOff one -> one.owner().equals(new Owner.Strategy(index));
            case Command.Flatten one -> one.owner().equals(new Owner.Strategy(index));
            case Command.HandOver over -> over.from().equals(new Owner.Strategy(index))
                    || over.to().equals(new Owner.Strategy(index));
            case Command.FlatAndLock ignored -> true;
            case Command.Cancel ignored -> true;
            case Command.Move ignored -> true;
            case Command.Enter ignored -> false;
            case Command.ChangeLimits ignored -> false;
            case Command.AttachPlan ignored -> false;
            case Command.Adopt ignored -> false;
        };
    }

    private static boolean isWhole(SessionFile.Session session, List<Change> changes, LocalDate date) {
        List<Session> sessions = session.inputs().contract().calendar().sessions(date);
        if (sessions.isEmpty() || !session.cameTo(sessions.getLast().close())) {
            return false;
        }
        long open = sessions.getFirst().open();
        long close = sessions.getLast().close();
        boolean complete = session.inputs().tape().incomplete().stream().map(Tape.SessionName::date)
                .noneMatch(date::equals);
        return complete && changes.stream().noneMatch(change -> change.time() >= open && change.time() < close)
                && isEngaged(changes, open);
    }

    /** The state that the changes before an instant left it in. */
    private static boolean isEngaged(List<Change> changes, long open) {
        Mode mode = Mode.OFF;
        Set<Side> off = EnumSet.noneOf(Side.class);
        boolean once = false;
        for (Change change : changes) {
            if (change.time() >= open) {
                break;
            }
            switch (change.command()) {
                case Command.SetMode set -> mode = set.mode();
                case Command.SetSide set when set.on() -> off.remove(set.side());
                case Command.SetSide set -> off.add(set.side());
                case Command.SetOnce set -> once = set.once();
                default -> {
                    // leaves the state as it is
                }
            }
        }
        return mode == Mode.ENGAGED && off.isEmpty() && !once;
    }
}
