package stativex.desk.chart;

import java.util.ArrayList;
import java.util.List;
import stativex.engine.Snapshot;
import stativex.market.BarSeries;
import stativex.market.Session;
import stativex.study.StudyDefinition;
import stativex.study.StudySet;

/** Studies over a whole history, as a live strategy computes them bar by bar. */
public final class HistoryStudies {
    private HistoryStudies() {}

    /** @throws IllegalArgumentException naming the study that is wrong */
    public static List<Snapshot.StudyView> of(List<StudyDefinition> definitions, BarSeries bars) {
        StudySet set = new StudySet(definitions, bars);
        long close = Long.MIN_VALUE;
        for (int bar = 0; bar < bars.count(); bar++) {
            if (bars.start(bar) >= close) {
                set.sessionOpens();
                close = bars.calendar().current(bars.start(bar)).map(Session::close).orElse(Long.MAX_VALUE);
            }
            set.take(bar);
        }
        List<Snapshot.StudyView> views = new ArrayList<>();
        set.columns().forEach((name, column) -> views
                .add(new Snapshot.StudyView(name, column.unit(), column.anchored(), column.view())));
        return views;
    }
}
