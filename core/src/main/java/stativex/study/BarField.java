package stativex.study;

import stativex.market.BarSeries;

/** The figures that every bar has, under the names that rules use. */
public enum BarField {
    OPEN(Unit.LEVEL), HIGH(Unit.LEVEL), LOW(Unit.LEVEL), CLOSE(Unit.LEVEL), VOLUME(Unit.NUMBER), DELTA(
            Unit.NUMBER), TRADES(Unit.NUMBER);

    private final Unit unit;

    BarField(Unit unit) {
        this.unit = unit;
    }

    /** The name used in rules: {@code close}. */
    public String word() {
        return name().toLowerCase(java.util.Locale.ROOT);
    }

    /** This figure of every bar of a series. */
    public Output of(BarSeries bars) {
        return new Output() {
            @Override
            public Unit unit() {
                return unit;
            }

            @Override
            public double at(int bar) {
                return switch (BarField.this) {
                    case OPEN -> bars.open(bar);
                    case HIGH -> bars.high(bar);
                    case LOW -> bars.low(bar);
                    case CLOSE -> bars.close(bar);
                    case VOLUME -> bars.volume(bar);
                    case DELTA -> bars.delta(bar);
                    case TRADES -> bars.trades(bar);
                };
            }
        };
    }
}
