package stativex.files.tape;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.function.Supplier;
import stativex.engine.SignalPlan;
import stativex.files.Documents;
import stativex.market.Contract;
import stativex.market.ContractTape;

/**
 * Tapes of the contracts that strategies may look at beside the one they trade: of each contract the stored tape that
 * reaches furthest, and what comes with the application. Safe for several threads; a tape is opened once.
 */
public final class FurtherTapes {
    private final TapeStore store;
    private final List<Offer> offers;
    private final Map<String, FurtherTape> opened = new HashMap<>();
    private final Map<String, FurtherTape> made = new HashMap<>();

    /** A tape that is there without being stored, made when it is asked for. */
    public record Offer(String reference, Documents.Read<Contract> contract, Supplier<stativex.market.Tape> tape) {}

    /** @param offers stand in for contracts that the store has no tape of */
    public FurtherTapes(TapeStore store, List<Offer> offers) {
        this.store = store;
        this.offers = List.copyOf(offers);
    }

    /** Contracts that there is a tape of, by symbol. */
    public List<Contract> contracts() {
        TreeSet<Contract> contracts = new TreeSet<>(Comparator.comparing(Contract::symbol));
        stored().forEach(one -> contracts.add(one.info().contract().value()));
        offers.forEach(offer -> contracts.add(offer.contract().value()));
        return new ArrayList<>(contracts);
    }

    /** Those of a contract that reach furthest come first. */
    private List<TapeStore.Stored> stored() {
        return store.list().stream().flatMap(entry -> entry.stored().stream())
                .filter(one -> one.tape().count() > 0)
                .sorted(Comparator.comparingLong(TapeStore.Stored::lastTime).reversed()).toList();
    }

    /** The tapes at hand of the further contracts that a strategy's series name, by symbol. */
    public Map<String, ContractTape> of(SignalPlan plan, Contract traded) {
        Map<String, ContractTape> found = new LinkedHashMap<>();
        plan.others(traded)
                .forEach(symbol -> open(symbol).ifPresent(tape -> found.put(symbol, tape.contractTape())));
        return found;
    }

    /** Looks anew which stored tape of each contract reaches furthest. */
    public synchronized void refresh() {
        opened.clear();
    }

    /** The tape of a contract; empty when there is none. */
    public synchronized Optional<FurtherTape> open(String symbol) {
        if (!opened.containsKey(symbol)) {
            stored().stream().filter(one -> one.info().contract().value().symbol().equals(symbol)).findFirst()
                    .map(one -> new FurtherTape(one.name(), one.info().contract(), one.tape()))
                    .or(() -> offers.stream().filter(offer -> offer.contract().value().symbol().equals(symbol))
                            .findFirst()
                            .map(offer -> made.computeIfAbsent(offer.reference(),
                                    name -> new FurtherTape(name, offer.contract(), offer.tape().get()))))
                    .ifPresent(found -> opened.put(symbol, found));
        }
        return Optional.ofNullable(opened.get(symbol));
    }
}
