package stativex.desk.chart;

import java.util.List;
import stativex.desk.look.Format;
import stativex.engine.Snapshot;
import stativex.market.Contract;
import stativex.study.Unit;

/** Every value of one bar in words: of the bar under the crosshair, else of the newest one. */
public final class Readout {
    private Readout() {}

    private static int bar(ChartView chart, ChartModel m) {
        return chart.cursorBar().orElse(m.bars().count() - 1);
    }

    /** Open, high, low, close, volume and delta; empty without a bar. */
    public static String figures(ChartView chart, ChartModel m) {
        if (m.bars().count() == 0) {
            return "";
        }
        ChartBars b = m.bars();
        int bar = bar(chart, m);
        String prices = b.isHeikinAshi()
                ? text(b, "O ", b.drawnOpen(bar)) + text(b, "  H ", b.drawnHigh(bar)) + text(b, "  L ", b.drawnLow(bar))
                        + text(b, "  C ", b.drawnClose(bar))
                : "O " + Format.price(b.contract(), b.open(bar)) + "  H " + Format.price(b.contract(), b.high(bar))
                        + "  L " + Format.price(b.contract(), b.low(bar)) + "  C "
                        + Format.price(b.contract(), b.close(bar));
        double unknown = b.unknown(bar);
        return prices + "  V " + Format.grouped(Long.toString(b.volume(bar))) + "  Δ " + Format.signed(b.delta(bar))
                + (unknown > 0.05 ? " (" + Math.round(100 * unknown) + " % unknown)" : "");
    }

    private static String text(ChartBars bars, String name, double ticks) {
        return name + Format.price(bars.contract(), ticks);
    }

    /**
     * Every study value that does not stand beside the prices; a forming bar has none yet, those of the last closed bar
     * stand.
     */
    public static String studies(ChartView chart, ChartModel m) {
        List<Snapshot.StudyView> others = m.studies().stream().filter(study -> study.unit() != Unit.LEVEL).toList();
        if (m.bars().count() == 0 || others.isEmpty()) {
            return "";
        }
        int bar = bar(chart, m);
        StringBuilder text = new StringBuilder(bar >= m.bars().closed() ? "last closed:" : "");
        for (Snapshot.StudyView study : others) {
            int at = Math.min(bar, study.values().count() - 1);
            double value = at >= 0 ? study.values().get(at) : Double.NaN;
            text.append(text.isEmpty() ? "" : "  ").append(study.name()).append(' ').append(Double.isNaN(value)
                    ? "absent"
                    : value(m.bars().contract(), study.unit(), value));
        }
        return text.toString();
    }

    /** A value as it is read: a price, ticks with their unit, a plain number, yes or no; NaN is absent. */
    public static String value(Contract contract, Unit unit, double value) {
        if (Double.isNaN(value)) {
            return "absent";
        }
        return switch (unit) {
            case LEVEL -> Format.price(contract, value);
            case DISTANCE -> Format.decimal(value, 1) + " t";
            case NUMBER -> Format.decimal(value, value == Math.rint(value) ? 0 : 2);
            case FLAG -> value == 0 ? "no" : "yes";
        };
    }
}
