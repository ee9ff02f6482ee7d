package stativex.link.fix;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.Test;
import stativex.account.AccountState;
import stativex.demo.Demo;
import stativex.engine.Command;
import stativex.engine.Decision;
import stativex.engine.Mode;
import stativex.files.SessionFile;
import stativex.files.Documents;
import stativex.files.LiveRecord;
import stativex.link.LiveSession;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Terms;
import stativex.trial.Inputs;
import stativex.trial.LiveRun;
import stativex.trial.Run;

/** A day at the stand-in over loopback, in step: the trial of its tape gives the same. */
public class InStepTest {
    static InetSocketAddress free() throws IOException {
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            return new InetSocketAddress(InetAddress.getLoopbackAddress(), socket.getLocalPort());
        }
    }

    /** The demo's market and account with a strategy that trades often on a thinned tape: entries that rest, a moving stop, two targets. */
    static SessionFile.Set documents() {
        SessionFile.Set all = Demo.documents();
        return new SessionFile.Set(all.contract(), all.account(), List.of(Documents.strategy("""
                {"document":"strategy","version":1,"name":"often","contract":"TDL","signal":{"bars":"tick","size":20},
                 "studies":[{"name":"drift","study":"ema","of":"close","length":9}],
                 "long":{"rule":"close rises through drift","price":"close + 2 ticks"},
                 "short":{"rule":"close falls through drift","price":"close - 2 ticks"},
                 "entry":{"order":"stop","quantity":2,"goodFor":"until cancelled"},
                 "exit":{"document":"exit plan","version":1,"name":"steps","stop":{"ticks":24},
                         "targets":[{"quantity":1,"ticks":14},{"quantity":1,"ticks":36}],
                         "breakeven":{"afterTicks":12,"offsetTicks":1},
                         "trail":[{"activateTicks":16,"distanceTicks":12,"stepTicks":4}]}}
                """, "often", other -> other)));
    }

    /** Every so manyth print, so that five days go over the wire in seconds. */
    static Tape thinned(Tape whole, int every) {
        TapeBuilder thin = new TapeBuilder(whole.count() / every + 1);
        for (int print = 0; print < whole.count(); print += every) {
            thin.add(whole.time(print), whole.price(print), whole.size(print), whole.bid(print), whole.ask(print),
                    whole.bidSize(print), whole.askSize(print), Optional.of(whole.aggressor(print)));
        }
        return thin.build();
    }

    @Test(timeOut = 180_000)
    public void aDayOverFixInStepIsTheTrialOfItsTape() throws Exception {
        SessionFile.Set documents = documents();
        Contract contract = documents.contract().value();
        Tape tape = thinned(Demo.tape(contract), 80);
        Inputs inputs = documents.inputs(tape, Terms.DEFAULT);
        Run trial = Run.trial(inputs);
        InetSocketAddress at = free();
        LiveRun live = new LiveRun(new LiveRun.Start(contract, inputs.account(), inputs.strategies(),
                new TapeBuilder(1).build(), Optional.empty(), AccountState.fresh(inputs.account()), "c1"));
        try (StandIn venue = new StandIn(new StandIn.Setup(contract, tape, Terms.DEFAULT, Optional.empty(), "v1"), at);
                FixLink link = new FixLink(contract, at, List.of())) {
            List<String> said = new ArrayList<>();
            LiveSession session = new LiveSession(live, link, LiveRecord.NONE, LiveSession.Going.on(true), said::add);
            session.command(new Command.SetMode(0, Mode.ENGAGED));
            session.run();
            assertEquals(said.getFirst(), "linked to the venue");
            // a line may be near; nothing else is said
            assertTrue(said.stream().skip(1).allMatch(one -> one.contains("day loss is")), said.toString());
            assertEquals(live.engine().net(), venue.net());
        }
        live.engine().finish();
        assertEquals(live.tape().checksum(), tape.checksum());
        assertEquals(live.engine().log().fills(), trial.engine().log().fills());
        assertEquals(live.engine().log().trades().toString(), trial.engine().log().trades().toString());
        assertEquals(live.engine().log().decisions().stream().map(Decision::outcome).toList(),
                trial.engine().log().decisions().stream().map(Decision::outcome).toList());
        assertTrue(!trial.engine().log().fills().isEmpty());
    }
}
