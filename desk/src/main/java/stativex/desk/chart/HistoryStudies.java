package stativex.desk.chart;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import stativex.engine.Snapshot;
import stativex.market.BarSeries;
import stativex.rule.Blueprint;
import stativex.rule.Program;
import stativex.study.StudyDefinition;

/**
 * What studies show over a whole history, as a live strategy computes them bar by bar.
 *
 * @param lines their values; {@code marks} what they have marked
 */
public record HistoryStudies(List<Snapshot.StudyView> lines, List<Snapshot.MarkView> marks) {
    /** @throws IllegalArgumentException naming the study that is wrong */
    public static HistoryStudies of(List<StudyDefinition> definitions, BarSeries bars, BigDecimal tickSize) {
        Program program = new Program(
                new Blueprint(tickSize, bars.calendar(), List.of(), definitions, List.of(), Map.of()), bars);
        program.take();
        return new HistoryStudies(Snapshot.StudyView.shown(program.studies(""), program.rows()),
                Snapshot.MarkView.shown(program.marks(), program.rows(), false));
    }
}
