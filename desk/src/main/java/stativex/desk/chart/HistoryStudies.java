package stativex.desk.chart;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import stativex.engine.Snapshot;
import stativex.market.BarSeries;
import stativex.rule.Blueprint;
import stativex.rule.Program;
import stativex.study.StudyDefinition;

/** Studies over a whole history, as a live strategy computes them bar by bar. */
public final class HistoryStudies {
    private HistoryStudies() {}

    /** @throws IllegalArgumentException naming the study that is wrong */
    public static List<Snapshot.StudyView> of(List<StudyDefinition> definitions, BarSeries bars, BigDecimal tickSize) {
        Program program = new Program(
                new Blueprint(tickSize, bars.calendar(), List.of(), definitions, List.of(), Map.of()), bars);
        program.take();
        return Snapshot.StudyView.shown(program.studies(""), program.rows());
    }
}
