package stativex.engine;

import java.util.List;
import java.util.Optional;
import stativex.exit.ExitPlan;
import stativex.interlock.SessionWindow;
import stativex.order.Order;
import stativex.study.StudyDefinition;

/**
 * A strategy as its document states it. It evaluates at bar close, on confirmed signals.
 *
 * @param version a fingerprint of its document with its exit plan, carried by every result
 * @param contract symbol of the contract it trades
 * @param ticksPerBar size of its signal series' tick bars, which restart at each session open
 * @param longSide empty: the side does not exist
 * @param maximumPosition most contracts, open and resting entries together
 * @param adds whether a further entry may join an open trade
 * @param windows empty: every hour
 * @param tradesADay empty: no limit
 * @param once a side switches itself off after its entry fills
 * @param historyDays trading days of the tape that only feed the studies before the first evaluated one
 */
public record Strategy(String name, String version, String contract, int ticksPerBar, List<StudyDefinition> studies,
        Optional<SideRule> longSide, Optional<SideRule> shortSide, Entry entry, int maximumPosition, boolean adds,
        ExitPlan plan, List<SessionWindow> windows, Optional<Integer> tradesADay, boolean once, int historyDays) {

    /**
     * @param rule condition in the rule language
     * @param price price of a limit or stop entry in the rule language
     */
    public record SideRule(String rule, Optional<String> price) {}

    /**
     * @param type market, limit or stop
     * @param quantity contracts
     * @param goodFor how long a resting entry stays
     */
    public record Entry(Order.Type type, int quantity, GoodFor goodFor) {
        public Entry {
            if (quantity < 1) {
                throw new IllegalArgumentException("expected an entry quantity of 1 or more, found " + quantity);
            }
        }
    }

    /** How long a resting entry stays. */
    public sealed interface GoodFor {
        /** Until the last session's close of its trading day. */
        record Day() implements GoodFor {}

        record UntilCancelled() implements GoodFor {}

        /** Dies at the n-th bar close after it was sent. */
        record Bars(int n) implements GoodFor {
            public Bars {
                if (n < 1) {
                    throw new IllegalArgumentException("expected an entry good for 1 bar or more, found " + n);
                }
            }
        }
    }

    public Strategy {
        studies = List.copyOf(studies);
        windows = List.copyOf(windows);
        if (longSide.isEmpty() && shortSide.isEmpty()) {
            throw new IllegalArgumentException("expected a rule for long, short or both, found none");
        }
        if (maximumPosition < entry.quantity()) {
            throw new IllegalArgumentException("expected a maximum position of at least the entry's " + entry.quantity()
                    + " contracts, found " + maximumPosition);
        }
        tradesADay.ifPresent(most -> {
            if (most < 1) {
                throw new IllegalArgumentException("expected trades a day of 1 or more, found " + most);
            }
        });
        if (historyDays < 0) {
            throw new IllegalArgumentException("expected history of 0 days or more, found " + historyDays);
        }
    }

    Optional<SideRule> side(stativex.market.Side side) {
        return side == stativex.market.Side.LONG ? longSide : shortSide;
    }
}
