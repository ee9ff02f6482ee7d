package stativex.engine;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.interlock.SignalPeriod;
import stativex.market.BarSettings;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.DrawnPoints;
import stativex.rule.Blueprint;
import stativex.study.StudyDefinition;

/**
 * What a strategy looks at and when it judges.
 *
 * @param bars its signal series
 * @param series further series beside it, by name
 * @param drawings what its rules may name, as they were drawn when they were written
 * @param filters further conditions; those switched on must hold as well
 * @param confirmWithin a signal counts only when one of so many next bars trades beyond its bar's close; empty: at once
 * @param evaluate at bar close, or on every trade
 * @param most most signals of a side in a period that may send an order; empty: no limit
 */
public record SignalPlan(BarSettings bars, List<Blueprint.SeriesDefinition> series, List<StudyDefinition> studies,
        List<DrawnPoints> drawings, List<Filter> filters, Optional<Integer> confirmWithin, Evaluate evaluate,
        Optional<Most> most) {

    /** When rules are judged. */
    public enum Evaluate {
        BAR_CLOSE("bar close"), EVERY_TRADE("every trade");

        private final String word;

        Evaluate(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /**
     * A condition beside the rules.
     *
     * @param longRule what must hold for a long entry; likewise for a short one; empty: nothing
     */
    public record Filter(String name, boolean on, Optional<String> longRule, Optional<String> shortRule) {
        public Optional<String> rule(stativex.market.Side side) {
            return side == stativex.market.Side.LONG ? longRule : shortRule;
        }
    }

    /**
     * @param signals at least 1
     * @param period session, trading day or window
     */
    public record Most(int signals, SignalPeriod period) {
        public Most {
            if (signals < 1) {
                throw new IllegalArgumentException("expected signals per period of 1 or more, found " + signals);
            }
        }
    }

    /** Studies on bars, judged at bar close, nothing else. */
    public static SignalPlan of(BarSettings bars, List<StudyDefinition> studies) {
        return new SignalPlan(bars, List.of(), studies, List.of(), List.of(), Optional.empty(), Evaluate.BAR_CLOSE,
                Optional.empty());
    }

    /**
     * What its rules can speak of.
     *
     * @param contract that is traded; a series that names it is as one that names none
     * @param others further contracts at hand, by symbol
     */
    public Blueprint blueprint(Contract contract, Map<String, ContractTape> others) {
        return new Blueprint(contract.tickSize(), contract.calendar(),
                series.stream()
                        .map(one -> new Blueprint.SeriesDefinition(one.name(), one.bars(),
                                one.contract().filter(symbol -> !symbol.equals(contract.symbol()))))
                        .toList(),
                studies, drawings.stream().map(drawn -> drawn.on(contract)).toList(), others);
    }

    /** Symbols of the further contracts that its series name. */
    public List<String> others(Contract contract) {
        return series.stream().flatMap(one -> one.contract().stream())
                .filter(symbol -> !symbol.equals(contract.symbol()))
                .distinct().toList();
    }

    public SignalPlan {
        series = List.copyOf(series);
        studies = List.copyOf(studies);
        drawings = List.copyOf(drawings);
        filters = List.copyOf(filters);
        confirmWithin.ifPresent(bars1 -> {
            if (bars1 < 1) {
                throw new IllegalArgumentException("expected confirmation within 1 bar or more, found " + bars1);
            }
        });
        if (evaluate == Evaluate.EVERY_TRADE && bars.type() instanceof stativex.market.BarType.Renko) {
            throw new IllegalArgumentException(
                    "bricks have no prices before they close: evaluate at bar close, not on every trade");
        }
    }
}
