package stativex.interlock;

import java.util.List;
import java.util.Optional;
import stativex.account.Line;

/**
 * Would the worst that stops allow cross a line? Worst equity = equity − what open positions and working and proposed
 * entries lose at their stops, with slippage and fees, nothing netted; it must be strictly above every loss line. A gap
 * beyond a stop is outside this check. Source: SEMANTICS, "Interlocks".
 */
public final class LineCheck {
    private long loss;
    private boolean withoutStop;

    /** A check with nothing at risk yet. */
    public LineCheck() {}

    /**
     * Adds contracts that are open, resting or proposed.
     *
     * @param distance ticks to the broker-held stop, from the last price or from the worst entry price, counted as at
     *        least 0; empty without a stop
     * @param costs money per contract: exit slippage and the fees still to come
     */
    public LineCheck risk(long contracts, Optional<Long> distance, long tickValue, long costs) {
        if (distance.isEmpty()) {
            withoutStop = true;
        } else {
            long each = Math.addExact(Math.multiplyExact(Math.max(0, distance.get()), tickValue), costs);
            loss = Math.addExact(loss, Math.multiplyExact(contracts, each));
        }
        return this;
    }

    /** Adds the worse of two sides of which only one can come. */
    public LineCheck worse(LineCheck one, LineCheck other) {
        loss = Math.addExact(loss, Math.max(one.loss, other.loss));
        withoutStop |= one.withoutStop || other.withoutStop;
        return this;
    }

    /** Adds all of another one. */
    public LineCheck plus(LineCheck other) {
        loss = Math.addExact(loss, other.loss);
        withoutStop |= other.withoutStop;
        return this;
    }

    /** Money lost if every stop is reached. */
    public long loss() {
        return loss;
    }

    /** The first loss line that worst equity is not strictly above; without a stop any line that is on. */
    public Optional<Line> crossed(long equity, List<Line> lines) {
        for (Line line : lines) {
            if (line.below() && (withoutStop || Math.subtractExact(equity, loss) <= line.money())) {
                return Optional.of(line);
            }
        }
        return Optional.empty();
    }
}
