package stativex.rule;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.market.BarSettings;
import stativex.market.ContractTape;
import stativex.market.Drawing;
import stativex.market.SessionCalendar;
import stativex.study.StudyDefinition;

/**
 * What rules can speak of: the studies of a strategy, the further series they may sit on, what is drawn.
 *
 * @param tickSize turns prices written in rules into ticks
 * @param calendar of the contract whose signal series it is
 * @param others further contracts that series name, by symbol
 * @param since prints before this time are as if they were not there, nanoseconds
 */
public record Blueprint(BigDecimal tickSize, SessionCalendar calendar, List<SeriesDefinition> series,
        List<StudyDefinition> studies, List<Drawing> drawings, Map<String, ContractTape> others, long since) {

    /**
     * A further series beside the signal series.
     *
     * @param contract empty: the strategy's own
     */
    public record SeriesDefinition(String name, BarSettings bars, Optional<String> contract) {}

    /** Of whole tapes. */
    public Blueprint(BigDecimal tickSize, SessionCalendar calendar, List<SeriesDefinition> series,
            List<StudyDefinition> studies, List<Drawing> drawings, Map<String, ContractTape> others) {
        this(tickSize, calendar, series, studies, drawings, others, Long.MIN_VALUE);
    }

    /** The same of tapes that begin at {@code time}. */
    public Blueprint since(long time) {
        return new Blueprint(tickSize, calendar, series, studies, drawings, others, time);
    }

    public Blueprint {
        series = List.copyOf(series);
        studies = List.copyOf(studies);
        drawings = List.copyOf(drawings);
        others = Map.copyOf(others);
    }
}
