package stativex.link;

import java.util.ArrayDeque;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.SplittableRandom;
import stativex.account.Account;
import stativex.account.AccountState;
import stativex.account.OwnLimits;
import stativex.account.Rulebook;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.files.Documents;
import stativex.files.SessionFile;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.FromBroker;
import stativex.order.Order;
import stativex.order.Owner;
import stativex.order.SimulatedBroker;
import stativex.order.Terms;
import stativex.order.ToBroker;
import stativex.trial.LiveInput;
import stativex.trial.LiveRun;

/**
 * Works an invented day with the same documents before the real one, so that the first order of a day does not run through code that has
 * never run: a live day has few orders, and the first ones took ten times as long as later ones. Nothing of it is kept or sent.
 */
public final class WarmUp {
    private static final int PRINTS = 60_000;
    private static final int EACH = 12;

    private WarmUp() {}

    /** Takes a second or two. Returns how many orders were worked. */
    public static int run(SessionFile.Set documents) {
        Contract contract = documents.contract().value();
        Optional<Session> session = contract.calendar().current(0);
        if (session.isEmpty()) {
            return 0;
        }
        Tape tape = tape(session.get());
        // without limits, which would end the day after a few losses
        Account wide = documents.account().value().with(OwnLimits.NONE).with(new Rulebook("none", List.of()));
        LiveRun day = new LiveRun(new LiveRun.Start(contract, wide, documents.strategies().stream()
                .map(Documents.Read::value).toList(), new TapeBuilder(1).build(), Optional.empty(),
                AccountState.fresh(wide), "warm"));
        SimulatedBroker broker = new SimulatedBroker(tape, contract, Terms.DEFAULT);
        ArrayDeque<ToBroker> sent = new ArrayDeque<>();
        int orders = 0;
        for (int i = 0; i < documents.strategies().size(); i++) {
            sent.addAll(day.take(new LiveInput.Asked(new Command.SetMode(i, Mode.ENGAGED))));
        }
        for (int print = 0; print < tape.count(); print++) {
            broker.print(print);
            sent.addAll(day.take(new LiveInput.Print(tape.time(print), tape.price(print), 1, Tape.NONE, Tape.NONE,
                    Tape.NONE, Tape.NONE, Optional.empty(), List.of())));
            if (print % EACH == 0) {
                boolean enters = print / EACH % 2 == 0;
                sent.addAll(day.take(new LiveInput.Asked(enters
                        ? new Command.Enter(print % 3 == 0 ? Side.LONG : Side.SHORT, Order.Type.MARKET, 1, Tape.NONE,
                                Tape.NONE, documents.strategies().isEmpty() ? OptionalInt.empty() : OptionalInt.of(0),
                                true)
                        : new Command.Flatten(Owner.PERSON))));
            }
            orders += sent.size();
            while (!sent.isEmpty()) {
                broker.take(sent.poll());
            }
            List<FromBroker> told = broker.told();
            if (!told.isEmpty()) {
                sent.addAll(day.take(new LiveInput.Told(tape.time(print), told)));
            }
        }
        return orders;
    }

    private static Tape tape(Session session) {
        SplittableRandom dice = new SplittableRandom(1);
        TapeBuilder tape = new TapeBuilder(PRINTS);
        long step = Math.max(1, (session.close() - session.open()) / (PRINTS + 2L));
        long price = 5_000;
        for (int i = 1; i <= PRINTS; i++) {
            price += dice.nextInt(3) - 1;
            tape.add(session.open() + i * step, price, 1, Tape.NONE, Tape.NONE);
        }
        return tape.build();
    }
}
