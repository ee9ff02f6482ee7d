package stativex.desk.chart;

import java.time.ZoneId;
import java.util.Optional;

/**
 * How a chart is drawn.
 *
 * @param flow bars opened up into buyer and seller volume at each price, where they are wide enough
 * @param ticks the price axis counts ticks from the newest price
 * @param delta a panel of buyer less seller volume
 * @param studyPanels studies that are no prices have panels of their own
 * @param own a second time axis in this zone
 */
public record ChartOptions(boolean flow, boolean ticks, boolean delta, boolean studyPanels, Optional<ZoneId> own) {
    /** Price and volume, exchange time. */
    public static final ChartOptions PLAIN = new ChartOptions(false, false, false, false, Optional.empty());

    public ChartOptions withFlow(boolean on) {
        return new ChartOptions(on, ticks, delta, studyPanels, own);
    }

    public ChartOptions withTicks(boolean on) {
        return new ChartOptions(flow, on, delta, studyPanels, own);
    }

    public ChartOptions withDelta(boolean on) {
        return new ChartOptions(flow, ticks, on, studyPanels, own);
    }

    public ChartOptions withStudyPanels(boolean on) {
        return new ChartOptions(flow, ticks, delta, on, own);
    }

    public ChartOptions withOwn(Optional<ZoneId> zone) {
        return new ChartOptions(flow, ticks, delta, studyPanels, zone);
    }
}
