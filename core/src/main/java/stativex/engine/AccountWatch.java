package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.account.Account;
import stativex.account.Floor;
import stativex.account.Ledger;
import stativex.account.Line;

/** Holds the account to its lines: own day loss and profit with their lock, and the drawdown floor. */
final class AccountWatch {
    /** A line was reached: everything is left for this reason. */
    record Verdict(String reason, String detail) {}

    private final Account account;
    private final Ledger ledger;
    private final long closingCost;
    private final Optional<Floor> floor;
    private long dayStart;
    private Optional<String> lock = Optional.empty();
    private boolean begun;
    private boolean broken;

    /** @param closingCost money that closing one contract costs: slippage and fee */
    AccountWatch(Account account, Ledger ledger, long closingCost) {
        this.account = account;
        this.ledger = ledger;
        this.closingCost = closingCost;
        this.floor = account.rulebook().floor().map(rule -> new Floor(rule, account.start()));
        this.dayStart = account.start();
    }

    /**
     * A trading day begins: its result counts from {@code equity}, and a lock of the day before ends. A lock set before
     * the first day began is a lock of that day.
     */
    void beginDay(long equity) {
        dayStart = equity;
        lock = begun ? Optional.empty() : lock;
        begun = true;
    }

    /** Takes the equity after a print's fills: peak and floor first, then the day limits. */
    List<Verdict> judge(long equity) {
        Optional<Verdict> verdict = Optional.empty();
        if (floor.isPresent() && floor.get().judge(equity) && !broken) {
            broken = true;
            verdict = Optional.of(new Verdict("drawdown floor", "equity reached the trailing floor"));
        } else if (lock.isEmpty() && !broken) {
            verdict = dayLimit(equity - dayStart);
            lock = verdict.map(Verdict::reason);
        }
        return verdict.map(List::of).orElse(List.of());
    }

    private Optional<Verdict> dayLimit(long result) {
        if (account.dayLoss().isPresent()) {
            Account.DayLoss loss = account.dayLoss().get();
            long closing = loss.guard() ? Math.multiplyExact(ledger.contractsOpen(), closingCost) : 0;
            if (result - closing <= -loss.amount()) {
                return Optional.of(new Verdict("day loss", result <= -loss.amount()
                        ? "the day loss was reached"
                        : "the guard acted: closing would have crossed the day loss"));
            }
        }
        if (account.dayProfit().isPresent() && result >= account.dayProfit().get()) {
            return Optional.of(new Verdict("day profit", "the day profit was reached"));
        }
        return Optional.empty();
    }

    /** The person locks the day. Returns whether it was open before. */
    boolean lockByHand() {
        if (lock.isPresent()) {
            return false;
        }
        lock = Optional.of("by hand");
        return true;
    }

    /** The lines as they stand with {@code equity} taken in. */
    List<Line> lines(long equity) {
        List<Line> lines = new ArrayList<>(3);
        account.dayLoss().ifPresent(
                loss -> lines.add(new Line("Own day loss", dayStart - loss.amount(), loss.amount(), true)));
        floor.ifPresent(f -> lines.add(new Line("Trailing floor", f.levelWith(equity), f.allowance(), true)));
        account.dayProfit().ifPresent(profit -> lines.add(new Line("Profit lock", dayStart + profit, profit, false)));
        return lines;
    }

    /** Why everything must be flat, if it must. */
    Optional<String> flatReason() {
        return broken ? Optional.of("drawdown floor") : lock;
    }

    /** Why the day is locked, if it is. */
    Optional<String> lock() {
        return lock;
    }

    /** Whether the account has reached its floor. */
    boolean broken() {
        return broken;
    }

    long dayStart() {
        return dayStart;
    }
}
