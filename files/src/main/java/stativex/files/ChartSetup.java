package stativex.files;

import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import stativex.market.BarSettings;
import stativex.study.StudyDefinition;

/**
 * How a chart is set up: its bars with their hours, what is computed on them, how it is drawn.
 *
 * @param bars with the sessions that make them, and where they begin anew
 * @param studies on them
 */
public record ChartSetup(BarSettings bars, boolean heikinAshi, List<StudyDefinition> studies, Drawn drawn) {
    /**
     * How it is drawn.
     *
     * @param flow bars opened up into buyer and seller volume
     * @param ticks the price axis counts ticks
     * @param delta a panel of buyer less seller volume
     * @param panels studies that are no prices have panels
     * @param zone of a second time axis
     */
    public record Drawn(boolean flow, boolean ticks, boolean delta, boolean panels, Optional<ZoneId> zone) {}

    public ChartSetup {
        studies = List.copyOf(studies);
    }
}
