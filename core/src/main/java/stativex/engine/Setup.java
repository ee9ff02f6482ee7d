package stativex.engine;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.account.Account;
import stativex.market.BarSteps;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.Histories;
import stativex.market.Rolls;
import stativex.market.Tape;
import stativex.order.Counterpart;
import stativex.order.Terms;
import stativex.rule.Worked;

/**
 * What an engine is made of: market, documents, terms.
 *
 * @param others further contracts that strategies look at or trade, by symbol
 * @param firstDay first evaluated trading day; empty: as early as each strategy's history allows
 * @param rolls months of a joined tape
 * @param steps the bars that are walked in place of the prints, in bar mode: {@link BarMode}
 * @param brokers who carries orders out, by the symbol of the contract; of others the exchange is simulated
 * @param ahead where the whole tape is there, and bars and rules may be worked before the run; empty: they are worked as prints come
 */
public record Setup(Tape tape, Contract contract, Map<String, ContractTape> others, Account account,
        List<Strategy> strategies, Terms terms, Optional<LocalDate> firstDay, Optional<Ahead> ahead, Rolls rolls,
        Optional<BarSteps> steps, Map<String, Counterpart> brokers) {

    /** A setup without a broker. */
    public Setup(Tape tape, Contract contract, Map<String, ContractTape> others, Account account,
            List<Strategy> strategies, Terms terms, Optional<LocalDate> firstDay, Optional<Ahead> ahead, Rolls rolls,
            Optional<BarSteps> steps) {
        this(tape, contract, others, account, strategies, terms, firstDay, ahead, rolls, steps, Map.of());
    }

    /** A setup of tick mode. */
    public Setup(Tape tape, Contract contract, Map<String, ContractTape> others, Account account,
            List<Strategy> strategies, Terms terms, Optional<LocalDate> firstDay, Optional<Ahead> ahead, Rolls rolls) {
        this(tape, contract, others, account, strategies, terms, firstDay, ahead, rolls, Optional.empty());
    }

    /** The same where brokers carry orders out. @param carriers by the symbol of the contract; of others the exchange is simulated */
    public Setup with(Map<String, Counterpart> carriers) {
        return new Setup(tape, contract, others, account, strategies, terms, firstDay, ahead, rolls, steps, carriers);
    }

    /**
     * Bars and study columns of whole tapes, shared by whoever wants the same.
     *
     * @param until the last moment of the run, nanoseconds
     */
    public record Ahead(Histories histories, Worked worked, long until) {}

    public Setup {
        others = Map.copyOf(others);
        strategies = List.copyOf(strategies);
        brokers = Map.copyOf(brokers);
    }

    /**
     * The contracts that are traded, each with its own tape and strategies: first the one that the run is of, then others that it has
     * strategies for, in the order in which the account lists them.
     */
    List<Setup> parts() {
        List<Setup> parts = new ArrayList<>();
        parts.add(of(contract.symbol(), tape, contract, others, rolls, steps));
        for (String symbol : account.fees().keySet()) {
            if (others.containsKey(symbol) && strategies.stream().anyMatch(s -> s.contract().equals(symbol))) {
                Map<String, ContractTape> beside = new HashMap<>(others);
                ContractTape own = beside.remove(symbol);
                beside.put(contract.symbol(), new ContractTape(contract, tape));
                parts.add(of(symbol, own.tape(), own.contract(), beside, Rolls.NONE, Optional.empty()));
            }
        }
        return parts;
    }

    private Setup of(String symbol, Tape own, Contract its, Map<String, ContractTape> beside, Rolls months,
            Optional<BarSteps> walk) {
        return new Setup(own, its, beside, account,
                strategies.stream().filter(s -> s.contract().equals(symbol)).toList(), terms, firstDay, ahead, months,
                walk, brokers);
    }

    /** What orders meet: the prints, or the steps of bars. */
    public Tape walked() {
        return steps.map(BarSteps::tape).orElse(tape);
    }

    /** When the first print of all came that {@code print} of what is walked stands for, nanoseconds. */
    long began(int print) {
        return steps.isPresent() ? steps.get().begins(print) : tape.time(print);
    }

    /** The tape as studies see it to begin with. */
    Tape seen() {
        return rolls.legs().isEmpty() ? tape : rolls.legs().getFirst().seen();
    }

    /** A strategy's signals on a tape as studies see it: known ahead where that can be, and only closed bars are looked at. */
    Signals signals(Strategy strategy, History history, Tape seen) {
        if (ahead.isPresent() && strategy.signals().evaluate() == SignalPlan.Evaluate.BAR_CLOSE) {
            return KnownSignals.of(strategy, contract, seen, others, ahead.get().histories(), ahead.get().worked(),
                    history.since(), ahead.get().until(), steps);
        }
        return LiveSignals.of(strategy, contract, seen, others, history.since());
    }
}
