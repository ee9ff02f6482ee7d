package stativex.account;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/**
 * An account as its document states it.
 *
 * @param start starting balance
 * @param fees money per contract and side, by contract symbol; where prints of several contracts come at one instant, in this order
 * @param dayLoss own day loss: at day result ≤ −amount everything is left and the day locked; empty: off
 * @param dayProfit own day profit, likewise at day result ≥ amount; empty: off
 * @param giveBack of the day's best; empty: off
 * @param losingRun after which entries pause; empty: off
 * @param quietTimes around releases
 */
public record Account(String name, String currency, long start, Map<String, Long> fees, Optional<DayLoss> dayLoss,
        Optional<Long> dayProfit, Optional<GiveBack> giveBack, Optional<LosingRun> losingRun, QuietTimes quietTimes,
        Rulebook rulebook) {

    /**
     * @param amount money, above 0
     * @param guard acts already when the cost of closing everything would cross the line
     */
    public record DayLoss(long amount, Guard guard) {
        public DayLoss {
            if (amount <= 0) {
                throw new IllegalArgumentException("expected a day loss above 0");
            }
        }

        /** @param guard without a margin, or none */
        public DayLoss(long amount, boolean guard) {
            this(amount, guard ? Guard.ON : Guard.OFF);
        }
    }

    /** An account without give-back and losing run. */
    public Account(String name, String currency, long start, Map<String, Long> fees, Optional<DayLoss> dayLoss,
            Optional<Long> dayProfit, Rulebook rulebook) {
        this(name, currency, start, fees, dayLoss, dayProfit, Optional.empty(), Optional.empty(), QuietTimes.NONE,
                rulebook);
    }

    public Account {
        fees = Collections.unmodifiableMap(new LinkedHashMap<>(fees));
        if (start <= 0) {
            throw new IllegalArgumentException("expected a starting balance above 0");
        }
        dayProfit.ifPresent(amount -> {
            if (amount <= 0) {
                throw new IllegalArgumentException("expected a day profit above 0");
            }
        });
        rulebook.of(Rulebook.DrawdownFloor.class).forEach(rule -> new FloorJudge(rule, start));
    }

    /** The same with another rulebook and own lines of a day. */
    public Account with(Optional<DayLoss> loss, Optional<Long> profit, Rulebook book) {
        return new Account(name, currency, start, fees, loss, profit, giveBack, losingRun, quietTimes, book);
    }

    /** @throws IllegalArgumentException when the account states no fee for the contract */
    public long fee(String symbol) {
        Long fee = fees.get(symbol);
        if (fee == null) {
            throw new IllegalArgumentException("account \"" + name + "\" states no fee for contract " + symbol);
        }
        return fee;
    }
}
