package stativex.link;

import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.SecureRandom;
import java.time.LocalDate;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import stativex.account.AccountState;
import stativex.engine.Command;
import stativex.engine.Snapshot;
import stativex.files.BadInput;
import stativex.files.DiskReserve;
import stativex.files.Documents;
import stativex.files.LiveJournal;
import stativex.files.LiveLog;
import stativex.files.SessionFile;
import stativex.files.VenueAccount;
import stativex.link.fix.FixLink;
import stativex.trial.Inputs;
import stativex.trial.LiveRun;
import stativex.order.Terms;

/**
 * A live day with its journal and its link: begun, or gone on with where a journal is there. It works on the thread that calls
 * {@link #work}, or on one of its own. Commands come, and pictures are taken, from any thread.
 */
public final class LiveDay implements AutoCloseable {
    /** Sentences that a watcher is shown. */
    private static final int KEPT = 200;
    /** Nanoseconds between two looks at how the account stands. */
    private static final long KEEP = 1_000_000_000L;
    /** Whether code for orders has been run once in this process. */
    private static final AtomicBoolean WARM = new AtomicBoolean();

    /**
     * What it is made of.
     *
     * @param venue where it listens
     * @param inStep whether it keeps step with us
     * @param journal where everything that comes in is kept; one that is there is gone on with
     * @param onAlarm a program of the person's own that is run with the words of each alarm
     */
    public record Setup(SessionFile.Set documents, InetSocketAddress venue, boolean inStep, Path journal,
            Optional<Path> onAlarm) {}

    /** Something that was said. @param wall nanoseconds since 1970 UTC */
    public record Said(long wall, String words) {}

    /**
     * What a watcher sees.
     *
     * @param clock time at the venue, nanoseconds
     * @param standing how it stands with its venue
     * @param said about the link, the newest first
     * @param prints that were received
     * @param over whether the venue has nothing more to tell
     */
    public record View(Snapshot snapshot, long clock, LiveStanding standing, List<Said> said, int prints, boolean over,
            Optional<String> problem) implements RunView {
        public View {
            said = List.copyOf(said);
        }
    }

    private final Setup setup;
    private final int before;
    private final LiveRun run;
    private final VenueAccount account;
    private final LiveJournal journal;
    private final FixLink link;
    private final LiveSession session;
    private final LiveLog log;
    private final Optional<AlarmProgram> program;
    private final LiveSession.Watcher also;
    private final Deque<Said> said = new ArrayDeque<>();
    private Optional<Thread> thread = Optional.empty();
    private volatile boolean wanted = true;
    private volatile boolean over;
    private volatile View latest;
    private AccountState kept;
    private long keptAt = System.nanoTime();

    /**
     * @param also is told what is said, on the day's own thread
     * @throws BadInput when the journal is one of other documents, cannot be read or written, or the link cannot be set up
     */
    public LiveDay(Setup setup, LiveSession.Watcher also) {
        this.setup = setup;
        this.also = also;
        SessionFile.Set documents = setup.documents();
        program = setup.onAlarm().map(path -> new AlarmProgram(path, this::said));
        log = new LiveLog(setup.journal());
        account = VenueAccount.own(setup.venue().getAddress().getHostAddress() + ":" + setup.venue().getPort(),
                setup.journal());
        LiveJournal.Worked worked;
        LiveSession.Going going = LiveSession.Going.on(setup.inStep()).comparing(new LiveSession.Figures(
                !documents.account().value().rulebook().rules().isEmpty(), account.confirmed()));
        try {
            if (Files.exists(setup.journal())) {
                account.checkNewest(setup.journal());
                LiveJournal.Recorded recorded = same(LiveJournal.read(setup.journal()), setup);
                before = recorded.inputs().size();
                worked = recorded.again();
                going = going.after(recorded.reports(), recorded.steps());
                journal = LiveJournal.onto(recorded).reserving(reserve());
            } else {
                before = 0;
                String name = fresh();
                AccountState state = account.left(documents.account().value());
                worked = new LiveJournal.Worked(new LiveRun(LiveJournal.start(documents, name, state)), List.of());
                journal = LiveJournal.begin(setup.journal(), documents, name, state).reserving(reserve());
            }
            run = worked.run();
            account.begins(setup.journal(), run.engine().accountState());
        } catch (BadInput | IllegalArgumentException e) {
            account.close();
            throw e;
        }
        try {
            link = new FixLink(documents.contract().value(), setup.venue(), worked.sent());
        } catch (BadInput e) {
            journal.close();
            account.close();
            throw e;
        }
        session = new LiveSession(run, link, journal, going, new LiveSession.Watcher() {
            @Override
            public void says(String sentence) {
                said(sentence);
            }

            @Override
            public void alarm(Alarm alarm, boolean raised) {
                LiveSession.Watcher.super.alarm(alarm, raised);
                if (raised) {
                    program.ifPresent(one -> one.run(alarm));
                }
                also.alarm(alarm, raised);
            }

            @Override
            public void confirmed(LocalDate day) {
                said("the firm shows the same balance and floor on " + day);
                try {
                    account.confirm(day);
                } catch (BadInput e) {
                    said(e.getMessage());
                }
            }

            @Override
            public void worked() {
                look();
            }
        });
        kept = run.engine().accountState();
        latest = view(Optional.empty());
    }

    private static LiveJournal.Recorded same(LiveJournal.Recorded before, Setup setup) {
        SessionFile.Set now = setup.documents();
        boolean same = before.documents().contract().document().equals(now.contract().document())
                && before.documents().account().document().equals(now.account().document())
                && before.documents().strategies().stream().map(Documents.Read::document).toList()
                        .equals(now.strategies().stream().map(Documents.Read::document).toList());
        if (!same) {
            throw new BadInput(setup.journal() + ": expected a journal of the same documents, found one of others:"
                    + " choose another file, or give the documents that it holds");
        }
        return before;
    }

    /** 128 random bits: no other run's messages have such names. */
    private static String fresh() {
        byte[] bits = new byte[16];
        new SecureRandom().nextBytes(bits);
        return HexFormat.of().formatHex(bits);
    }

    private DiskReserve reserve() {
        return DiskReserve.of(setup.journal().toAbsolutePath().getParent());
    }

    /** Inputs that the journal held when it was gone on with; 0 of a new one. */
    public int before() {
        return before;
    }

    /** What it is made of. */
    public Setup setup() {
        return setup;
    }

    /** Everything a chart needs of it; its tape grows. */
    public Inputs inputs() {
        return setup.documents().inputs(run.tape(), Terms.DEFAULT);
    }

    /** The day itself, once it does not work any more. */
    public LiveRun run() {
        return run;
    }

    /** The person's command; acts before the next event. */
    public void command(Command command) {
        session.command(command);
        wanted = true;
    }

    /** Somebody has compared balance and floor with what the firm shows: that holds for the trading day. */
    public void confirm() {
        session.confirm();
        wanted = true;
    }

    /** Something the person did that is no command, such as going past a check: it is said and kept like all else. */
    public void note(String sentence) {
        said(sentence);
        wanted = true;
    }

    /** The latest picture; asks for a newer one. */
    public View latest() {
        View view = latest;
        wanted = true;
        return view;
    }

    /** Works on the caller's thread until the venue has nothing more to tell, or it is closed. */
    public void work() throws InterruptedException {
        warmUp();
        session.run();
    }

    /** Before the first order of a day; a day that is gone on with has none of the time. */
    private void warmUp() {
        if (!setup.inStep() && before == 0 && WARM.compareAndSet(false, true)) {
            WarmUp.run(setup.documents());
        }
    }

    /** Works on a thread of its own. Call once. */
    public LiveDay start() {
        thread = Optional.of(Thread.ofPlatform().name("live day").daemon().start(() -> {
            try {
                warmUp();
                session.run();
                over = true;
                latest = view(Optional.empty());
            } catch (InterruptedException e) {
                // asked to end
            } catch (RuntimeException e) {
                latest = view(Optional.of("The live day stopped: " + e.getMessage()));
            }
        }));
        return this;
    }

    /** How the account stands, beside the journal, so that no copy of that one lifts a lock. */
    private void keep() {
        AccountState now = run.engine().accountState();
        boolean tells = !now.lock().equals(kept.lock()) || !now.broken().equals(kept.broken())
                || !now.day().equals(kept.day());
        if (tells) {
            kept = now;
            try {
                account.keep(now);
            } catch (BadInput e) {
                said(e.getMessage());
            }
        }
    }

    private void said(String sentence) {
        synchronized (said) {
            said.addFirst(new Said(System.currentTimeMillis() * 1_000_000, sentence));
            while (said.size() > KEPT) {
                said.removeLast();
            }
        }
        log.write(sentence);
        also.says(sentence);
    }

    private void look() {
        long now = System.nanoTime();
        if (now - keptAt > KEEP) {
            keptAt = now;
            keep();
        }
        if (wanted) {
            wanted = false;
            latest = view(Optional.empty());
        }
    }

    private View view(Optional<String> problem) {
        LiveStanding standing = session.standing();
        List<Said> words;
        synchronized (said) {
            words = new ArrayList<>(said);
        }
        long worked = Math.max(run.engine().lastTime(), standing.time().orElse(Long.MIN_VALUE));
        // before the first print nobody knows what time it is there
        long clock = worked == Long.MIN_VALUE ? System.currentTimeMillis() * 1_000_000 : worked;
        return new View(run.engine().snapshot(), clock, standing, words, run.tape().count(), over, problem);
    }

    /** Ends it after the event that is worked; what is open stays open at the broker. */
    @Override
    public void close() {
        session.end();
        thread.ifPresent(one -> {
            try {
                one.join();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        link.close();
        journal.close();
        account.close();
    }
}
