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
 */
public record Account(String name, String currency, long start, Map<String, Long> fees, OwnLimits own,
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

        DayLoss tightenedBy(DayLoss next) {
            return new DayLoss(Math.min(amount, next.amount), guard.tightenedBy(next.guard));
        }
    }

    public Account {
        fees = Collections.unmodifiableMap(new LinkedHashMap<>(fees));
        if (start <= 0) {
            throw new IllegalArgumentException("expected a starting balance above 0");
        }
        rulebook.of(Rulebook.DrawdownFloor.class).forEach(rule -> new FloorJudge(rule, start));
    }

    /** The same with other own limits. */
    public Account with(OwnLimits limits) {
        return new Account(name, currency, start, fees, limits, rulebook);
    }

    /** The same with another rulebook. */
    public Account with(Rulebook book) {
        return new Account(name, currency, start, fees, own, book);
    }

    /** The same with other fees. */
    public Account with(Map<String, Long> others) {
        return new Account(name, currency, start, others, own, rulebook);
    }

    /** Own limits of a contract. */
    public ContractLimits limits(String symbol) {
        return own.contracts().getOrDefault(symbol, ContractLimits.NONE);
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
