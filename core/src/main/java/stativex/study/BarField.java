package stativex.study;

import java.util.Locale;
import stativex.market.BarSeries;

/** The figures that every bar has, under the names that rules use. */
public enum BarField {
    OPEN(Unit.LEVEL, Mirror.NEGATIVE, "first price of the bar"), //
    HIGH(Unit.LEVEL, Mirror.NEGATIVE, "highest price of the bar"), //
    LOW(Unit.LEVEL, Mirror.NEGATIVE, "lowest price of the bar"), //
    CLOSE(Unit.LEVEL, Mirror.NEGATIVE, "last price of the bar"), //
    TYPICAL(Unit.LEVEL, Mirror.NEGATIVE, "(high + low + close) ÷ 3"), //
    MIDDLE(Unit.LEVEL, Mirror.NEGATIVE, "(high + low) ÷ 2"), //
    VOLUME(Unit.NUMBER, Mirror.SAME, "contracts traded in the bar"), //
    BOUGHT(Unit.NUMBER, Mirror.SAME, "contracts of the bar whose aggressor bought"), //
    SOLD(Unit.NUMBER, Mirror.SAME, "contracts of the bar whose aggressor sold"), //
    DELTA(Unit.NUMBER, Mirror.NEGATIVE, "bought less sold contracts; unknown ones count in neither"), //
    TRADES(Unit.NUMBER, Mirror.SAME, "prints in the bar"), //
    NEXT_UP(Unit.LEVEL, Mirror.NEGATIVE, "renko: where the next brick would close upward"), //
    NEXT_DOWN(Unit.LEVEL, Mirror.NEGATIVE, "renko: where the next brick would close downward");

    private final Unit unit;
    private final Mirror mirror;
    private final String help;

    BarField(Unit unit, Mirror mirror, String help) {
        this.unit = unit;
        this.mirror = mirror;
        this.help = help;
    }

    /** The name used in rules: {@code close}. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** Whether a bar has a figure of that name. */
    public static boolean isOne(String name) {
        for (BarField field : values()) {
            if (field.word().equals(name)) {
                return true;
            }
        }
        return false;
    }

    /** One line of help. */
    public String help() {
        return help;
    }

    OutputColumn.Shape shape() {
        String counterpart = switch (this) {
            case HIGH -> "low";
            case LOW -> "high";
            case BOUGHT -> "sold";
            case SOLD -> "bought";
            case NEXT_UP -> "next_down";
            case NEXT_DOWN -> "next_up";
            default -> word();
        };
        return new OutputColumn.Shape(word(), unit, false, mirror, counterpart);
    }

    /** Fills the rows {@code from} to {@code to} from closed bars. */
    void fill(double[] column, BarSeries bars, int from, int to) {
        for (int bar = from; bar < to; bar++) {
            column[bar] = switch (this) {
                case OPEN -> bars.open(bar);
                case HIGH -> bars.high(bar);
                case LOW -> bars.low(bar);
                case CLOSE -> bars.close(bar);
                case TYPICAL -> typical(bars.high(bar), bars.low(bar), bars.close(bar));
                case MIDDLE -> middle(bars.high(bar), bars.low(bar));
                case VOLUME -> bars.volume(bar);
                case BOUGHT -> bars.buyVolume(bar);
                case SOLD -> bars.sellVolume(bar);
                case DELTA -> bars.delta(bar);
                case TRADES -> bars.trades(bar);
                case NEXT_UP -> bars.isRenko() ? bars.nextUp(bar) : Double.NaN;
                case NEXT_DOWN -> bars.isRenko() ? bars.nextDown(bar) : Double.NaN;
            };
        }
    }

    /** The figure of a bar that is not closed. */
    double of(BarSeries.Forming bar) {
        return switch (this) {
            case OPEN -> bar.open();
            case HIGH -> bar.high();
            case LOW -> bar.low();
            case CLOSE -> bar.close();
            case TYPICAL -> typical(bar.high(), bar.low(), bar.close());
            case MIDDLE -> middle(bar.high(), bar.low());
            case VOLUME -> bar.volume();
            case BOUGHT -> bar.buyVolume();
            case SOLD -> bar.sellVolume();
            case DELTA -> bar.buyVolume() - bar.sellVolume();
            case TRADES -> bar.trades();
            case NEXT_UP, NEXT_DOWN -> Double.NaN;
        };
    }

    private static double typical(double high, double low, double close) {
        return (high + low + close) / 3;
    }

    private static double middle(double high, double low) {
        return (high + low) / 2;
    }
}
