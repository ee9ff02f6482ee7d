package stativex.engine;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import stativex.account.Account;
import stativex.account.QuietTimes;
import stativex.account.Rulebook;
import stativex.market.SessionCalendar;
import stativex.market.TapeTime;

/** When the account's rules ask for something by the clock of a contract: flat by, and quiet times around releases. */
final class RuleClock {
    private final SessionCalendar calendar;
    private final Optional<Rulebook.FlatBy> byTheBook;
    private final Optional<Rulebook.NoOvernight> overnight;
    /** What keeps everything flat today, by the rulebook's time or before the day's last close. */
    private Optional<Rulebook.FlatBy> flatBy;
    private final List<QuietTimes.Quiet> quiet;
    private final QuietTimes.Action action;
    private long nextFlat = TapeTime.NEVER;
    private boolean flat;
    /** Quiet times that have begun, and when the last of them ends. */
    private int begun;
    private Optional<QuietTimes.Quiet> last = Optional.empty();

    RuleClock(Account account, SessionCalendar calendar) {
        this.calendar = calendar;
        this.byTheBook = account.rulebook().of(Rulebook.FlatBy.class).findFirst();
        this.overnight = account.rulebook().of(Rulebook.NoOvernight.class).findFirst();
        this.flatBy = byTheBook;
        this.quiet = account.own().quietTimes().times();
        this.action = account.own().quietTimes().action();
    }

    /** A first event: what began before it holds, and does nothing any more. */
    void start(long time) {
        while (begun < quiet.size() && quiet.get(begun).acts() < time) {
            begins();
        }
    }

    private void begins() {
        QuietTimes.Quiet next = quiet.get(begun++);
        last = last.filter(before -> before.to() >= next.to()).or(() -> Optional.of(next));
    }

    /** A trading day of the contract begins. */
    void dayBegins(long at, Optional<LocalDate> date) {
        flat = false;
        nextFlat = byTheBook.map(rule -> rule.actsFrom(at)).orElse(TapeTime.NEVER);
        flatBy = byTheBook;
        if (overnight.isPresent() && date.isPresent()) {
            long close = calendar.sessions(date.get()).getLast().close();
            long acts = Math.max(at, close - overnight.get().lead());
            if (acts < nextFlat) {
                nextFlat = acts;
                flatBy = Optional.of(new Rulebook.FlatBy(TapeTime.in(calendar.zone(), close).toLocalTime(),
                        calendar.zone(), overnight.get().lead()));
            }
        }
    }

    /** The next moment that anything begins. */
    long next() {
        return Math.min(nextFlat, begun < quiet.size() ? quiet.get(begun).acts() : TapeTime.NEVER);
    }

    /** Flat by acts now, from now on until the next trading day. Returns whether it does. */
    boolean flatBegins(long at) {
        if (nextFlat != at) {
            return false;
        }
        nextFlat = TapeTime.NEVER;
        flat = true;
        return true;
    }

    /** Quiet times that begin now have begun. Returns what is to be done; empty: none begins, or nothing but that. */
    Optional<QuietTimes.Action> quietBegins(long at) {
        int before = begun;
        while (begun < quiet.size() && quiet.get(begun).acts() == at) {
            begins();
        }
        return begun > before && action != QuietTimes.Action.NO_ENTRIES ? Optional.of(action) : Optional.empty();
    }

    /** The rule that keeps everything flat, if it does now. */
    Optional<Rulebook.FlatBy> flatBy() {
        return flat ? flatBy : Optional.empty();
    }

    /** The quiet time that holds; of several the one that ends last. */
    Optional<QuietTimes.Quiet> quietAt(long time) {
        return last.filter(now -> time < now.to());
    }

    /** The next that begins; empty when the calendar of releases lies behind. */
    Optional<QuietTimes.Quiet> nextQuiet() {
        return begun < quiet.size() ? Optional.of(quiet.get(begun)) : Optional.empty();
    }

    /** Whether a quiet time wants everything flat. */
    boolean quietFlat(long time) {
        return action == QuietTimes.Action.FLATTEN && quietAt(time).isPresent();
    }

    /** The rule, whether or not it keeps everything flat now. */
    Optional<Rulebook.FlatBy> flatRule() {
        return flatBy;
    }

    boolean hasQuiet() {
        return !quiet.isEmpty();
    }
}
