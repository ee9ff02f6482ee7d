package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * Ichimoku: conversion and base are middles of the range of the last bars; lead A is their mean and lead B the middle of a
 * longer range, both as computed {@code shift} bars before, so that all values are those that stand at this bar; the lag
 * compares the close with the close {@code shift} bars before. Source: ta4j's Ichimoku indicators follow the same lines.
 */
final class Ichimoku extends Study {
    private static final String PRICE = "price";
    private static final String LINES = "lines";
    private static final String CLOUD = "cloud";
    private static final String LAG = "lag";

    static final StudyKind KIND = new StudyKind("ichimoku", "Ichimoku",
            "middles of ranges, a cloud of two of them, and conditions from chosen parts", Optional.empty(),
            List.of(StudyField.bars("conversion", 9, "range of the conversion line"),
                    StudyField.bars("base", 26, "range of the base line"),
                    StudyField.bars("long", 52, "range of lead B"),
                    StudyField.bars("shift", 26, "bars by which leads and lag are moved"),
                    new StudyField("parts", new StudyField.Some(List.of(PRICE, LINES, CLOUD, LAG)), "price+lines", "",
                            "what bullish and bearish ask for: price beyond the cloud, conversion beyond base, the cloud's own direction, the lag")),
            true,
            "`.conversion`, `.base`, `.lead_a`, `.lead_b` (as of `shift` bars before), `.top` and `.bottom` of the cloud, `.lag` close less close `shift` bars before; `.bullish`, `.bearish` all chosen parts; long + shift bars; as ta4j",
            Ichimoku::new);

    private final OutputColumn conversion = output("conversion", Unit.LEVEL, Mirror.NEGATIVE);
    private final OutputColumn base = output("base", Unit.LEVEL, Mirror.NEGATIVE);
    private final OutputColumn leadA = output("lead_a", Unit.LEVEL, Mirror.NEGATIVE);
    private final OutputColumn leadB = output("lead_b", Unit.LEVEL, Mirror.NEGATIVE);
    private final OutputColumn top = level("top", "bottom");
    private final OutputColumn bottom = level("bottom", "top");
    private final OutputColumn lag = output("lag", Unit.DISTANCE, Mirror.NEGATIVE);
    private final OutputColumn bullish = flag("bullish", "bearish");
    private final OutputColumn bearish = flag("bearish", "bullish");
    private final OutputColumn middle = memory();
    private final OutputColumn high;
    private final OutputColumn low;
    private final OutputColumn close;
    private final int conversionLength;
    private final int baseLength;
    private final int longLength;
    private final int shift;
    private final List<String> parts;

    Ichimoku(StudyInputs in) {
        this.high = in.field(BarField.HIGH);
        this.low = in.field(BarField.LOW);
        this.close = in.field(BarField.CLOSE);
        this.conversionLength = in.whole("conversion");
        this.baseLength = in.whole("base");
        this.longLength = in.whole("long");
        this.shift = in.whole("shift");
        this.parts = in.words("parts");
    }

    @Override
    void compute(int from, int to) {
        middles(from, to, conversionLength, conversion.values());
        middles(from, to, baseLength, base.values());
        middles(from, to, longLength, middle.values());
        for (int bar = from; bar < to; bar++) {
            int then = bar - shift;
            double a = then < 0 ? Double.NaN : (conversion.values()[then] + base.values()[then]) / 2;
            double b = then < 0 ? Double.NaN : middle.values()[then];
            leadA.values()[bar] = a;
            leadB.values()[bar] = b;
            top.values()[bar] = Math.max(a, b);
            bottom.values()[bar] = Math.min(a, b);
            lag.values()[bar] = then < 0 ? Double.NaN : close.values()[bar] - close.values()[then];
            bullish.values()[bar] = all(bar, 1);
            bearish.values()[bar] = all(bar, -1);
        }
    }

    /** Middle of highest and lowest of N bars; the cloud's edges hold them until they are known themselves. */
    private void middles(int from, int to, int length, double[] out) {
        double[] most = top.values();
        double[] least = bottom.values();
        Windows.highest(high.values(), from, to, length, most);
        Windows.lowest(low.values(), from, to, length, least);
        for (int bar = from; bar < to; bar++) {
            out[bar] = (most[bar] + least[bar]) / 2;
        }
    }

    /** Whether all chosen parts point up (1) or down (−1); absent if one is absent and none says no. */
    private double all(int bar, int way) {
        double held = 1;
        for (int i = 0; i < parts.size(); i++) {
            double away = way * switch (parts.get(i)) {
                case PRICE -> close.values()[bar] - (way > 0 ? top : bottom).values()[bar];
                case LINES -> conversion.values()[bar] - base.values()[bar];
                case CLOUD -> leadA.values()[bar] - leadB.values()[bar];
                default -> lag.values()[bar];
            };
            if (away <= 0) {
                return 0;
            }
            held = Double.isNaN(away) ? Double.NaN : held;
        }
        return held;
    }
}
