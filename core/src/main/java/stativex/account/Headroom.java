package stativex.account;

import java.util.Optional;

/**
 * What is left before a line, three ways. Source: SEMANTICS, "Account rulebooks".
 *
 * @param money ten-thousandths between equity and the line, negative beyond it
 * @param ticks floor(money ÷ (tick value × quantity))
 * @param tenthsOfStopOuts tenths of a full stop-out, rounded down; empty without a stop
 * @param near below so much of the allowance, or below so many full stop-outs
 */
public record Headroom(Line line, long money, long ticks, Optional<Long> tenthsOfStopOuts, boolean near) {

    /**
     * @param quantity the position's contracts, or the plan's when flat; at least 1
     * @param nearAt from when on it is near
     * @param stopOut money that a full stop-out of one contract costs: initial stop + slippage once + fees both sides
     */
    public static Headroom of(Line line, long equity, long tickValue, long quantity, Optional<Long> stopOut,
            ForThePerson.Near nearAt) {
        long money = line.below() ? equity - line.money() : line.money() - equity;
        long ticks = Math.floorDiv(money, Math.multiplyExact(tickValue, quantity));
        Optional<Long> tenths = stopOut
                .map(cost -> Math.floorDiv(Math.multiplyExact(money, 10L), Math.multiplyExact(cost, quantity)));
        boolean near = line.below()
                && (Math.multiplyExact(money, 100L) < Math.multiplyExact(line.allowance(), (long) nearAt.percent())
                        || tenths.orElse(Long.MAX_VALUE) < nearAt.tenths());
        return new Headroom(line, money, ticks, tenths, near);
    }
}
