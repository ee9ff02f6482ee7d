package stativex.trial;

import java.time.LocalDate;
import java.util.ArrayDeque;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import stativex.account.Account;
import stativex.account.AccountState;
import stativex.engine.Engine;
import stativex.engine.Setup;
import stativex.engine.Strategy;
import stativex.market.Contract;
import stativex.market.GrowingTape;
import stativex.market.Rolls;
import stativex.market.Session;
import stativex.market.Tape;
import stativex.order.BrokerVenue;
import stativex.order.FromBroker;
import stativex.order.Terms;
import stativex.order.ToBroker;

/**
 * A live day: the engine of every trial, fed with prints as they come, with what a broker tells, and with the person's commands. Each
 * input leads to messages that are to be sent. It reads no clock and keeps no secret: the same inputs in the same order, given to another
 * one with the same documents, come to the same, which is how a day goes on after a kill. One contract.
 */
public final class LiveRun {
    private final GrowingTape tape;
    private final BrokerVenue broker;
    private final Engine engine;
    private final Contract contract;
    private final Map<String, String> foreign = new TreeMap<>();
    /** What was filled elsewhere before there was a print to book it at. */
    private final ArrayDeque<Early> early = new ArrayDeque<>();
    private int late;

    /**
     * What it is made of.
     *
     * @param before prints of earlier days; an empty tape where there are none
     * @param firstDay first evaluated trading day; empty: as early as each strategy's history allows
     * @param run what the names of its messages begin with, unlike any other's
     */
    public record Start(Contract contract, Account account, List<Strategy> strategies, Tape before,
            Optional<LocalDate> firstDay, AccountState state, String run) {
        public Start {
            strategies = List.copyOf(strategies);
        }
    }

    private record Early(FromBroker.Elsewhere fill, boolean corrects) {}

    /** @throws IllegalArgumentException when the documents do not fit one another */
    public LiveRun(Start start) {
        contract = start.contract();
        tape = new GrowingTape(start.before());
        broker = new BrokerVenue(tape.tape(), start.run());
        engine = new Engine(new Setup(tape.tape(), start.contract(), Map.of(), start.account(), start.strategies(),
                Terms.DEFAULT, start.firstDay(), Optional.empty(), Rolls.NONE)
                .with(Map.of(start.contract().symbol(), broker)), start.state());
        for (int print = 0; print < start.before().count(); print++) {
            engine.print(print);
        }
    }

    /**
     * Works one input.
     *
     * @return what is to be sent because of it, in order
     * @throws IllegalArgumentException when a print cannot be one; nothing was worked then
     */
    public List<ToBroker> take(LiveInput input) {
        switch (input) {
            case LiveInput.Print print -> print(print);
            case LiveInput.Heartbeat beat -> {
                receive(beat.told());
                engine.heartbeat(beat.time());
                elsewhere(beat.told());
            }
            case LiveInput.Told told -> {
                receive(told.told());
                engine.told(0, told.time());
                elsewhere(told.told());
            }
            case LiveInput.Linked linked -> engine.linked(linked.why(), linked.cancels());
            case LiveInput.Again again -> broker.askAgain(again.time());
            case LiveInput.Gap gap -> gap(gap.time());
            case LiveInput.Holds holds -> engine.holds(holds.contracts());
            case LiveInput.Asked asked -> engine.command(asked.command());
        }
        return broker.outgoing();
    }

    private void receive(List<FromBroker> told) {
        told.stream().filter(this::isOurs).forEach(broker::receive);
    }

    private boolean isOurs(FromBroker told) {
        return !(told instanceof FromBroker.Elsewhere || told instanceof FromBroker.Foreign
                || told instanceof FromBroker.Corrected && !broker.sent(told.order()));
    }

    /** What somebody else does on the account; each fill once. */
    private void elsewhere(List<FromBroker> told) {
        for (FromBroker one : told) {
            if (one instanceof FromBroker.Elsewhere elsewhere && broker.isNew(elsewhere)) {
                early.add(new Early(elsewhere, false));
                if (elsewhere.done()) {
                    foreign.remove(elsewhere.order());
                }
            } else if (one instanceof FromBroker.Corrected corrected && !broker.sent(corrected.order())) {
                broker.elsewhere(corrected).forEach(fill -> early.add(new Early(fill, true)));
            } else if (one instanceof FromBroker.Foreign other && other.over()) {
                foreign.remove(other.order());
            } else if (one instanceof FromBroker.Foreign other) {
                foreign.put(other.order(), other.words());
            }
        }
        while (!early.isEmpty() && engine.elsewhere(0, early.peek().fill(), early.peek().corrects())) {
            early.remove();
        }
    }

    /** Orders that the broker has and nobody here sent, with the broker's words; the person's. */
    public Map<String, String> foreign() {
        return Collections.unmodifiableMap(foreign);
    }

    /** Names of orders that are alive as far as anybody here knows, and of which the broker has told something. */
    public List<String> known() {
        return broker.known();
    }

    private void gap(long until) {
        long from = tape.tape().count() == 0 ? until : tape.lastTime();
        Optional<Session> session = contract.calendar().current(from);
        while (session.isPresent() && session.get().open() <= until) {
            tape.lacks(session.get());
            session = contract.calendar().after(session.get());
        }
    }

    private void print(LiveInput.Print print) {
        // the clock may have come further than a print that was on its way: it is worked as if it came now
        long worked = Math.max(print.time(), Math.max(tape.lastTime(), engine.lastTime()));
        int place = tape.add(worked, print.price(), print.size(), print.bid(),
                print.ask(), print.bidSize(), print.askSize(), print.aggressor());
        late += print.time() < worked ? 1 : 0;
        print.told().stream().filter(this::isOurs).forEach(broker::receiveWithPrint);
        engine.print(place);
        elsewhere(print.told());
    }

    /** Prints so far that were stamped before one already worked. */
    public int latePrints() {
        return late;
    }

    /** What the broker told that does not fit what stands. */
    public List<String> contradictions() {
        return broker.contradictions();
    }

    public Engine engine() {
        return engine;
    }

    /** Names of orders that were placed, and of which the broker has told nothing yet. */
    public List<String> unheard() {
        return broker.unheard();
    }

    /** Every print so far, as a tape to be kept. */
    public Tape received() {
        return tape.kept();
    }

    /** Every print so far. */
    public Tape tape() {
        return tape.tape();
    }
}
