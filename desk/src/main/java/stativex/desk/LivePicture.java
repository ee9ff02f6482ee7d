package stativex.desk;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;
import javafx.application.Platform;
import javafx.scene.control.ButtonBase;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.files.SessionFile;
import stativex.link.LiveDay;
import stativex.link.fix.StandIn;
import stativex.link.fix.Wish;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.Terms;

/** Pictures of a live day at a stand-in of its own, which plays the demo's last day, quickly up to the story's moment and then as it was. */
final class LivePicture {
    private static final double QUICK = 6_000;

    private LivePicture() {}

    /** @param engage shows the sheet before a strategy is engaged, with a position found at the broker; else a day under way */
    static CompletableFuture<Void> take(DeskWindow window, Workspace workspace, Options options, boolean engage) {
        return CompletableFuture.runAsync(() -> {
            try {
                show(window, workspace, options, engage);
            } catch (IOException | InterruptedException e) {
                throw new IllegalStateException(e);
            }
        });
    }

    private static void show(DeskWindow window, Workspace workspace, Options options, boolean engage)
            throws IOException, InterruptedException {
        SessionFile.Set documents = workspace.documents();
        Contract contract = documents.contract().value();
        Session session = contract.calendar().current(workspace.begin()).orElseThrow();
        Tape whole = workspace.inputs().tape();
        // the day before feeds the studies
        Session before = contract.calendar()
                .before(contract.calendar().sessions(session.tradingDate()).getFirst().open())
                .orElseThrow();
        long from = contract.calendar().sessions(before.tradingDate()).getFirst().open();
        Tape day = Tape.joined(List.of(new Tape.Part(whole, whole.firstAt(from), whole.count(), 0)));
        InetSocketAddress at = free();
        // it is left running: the picture is the last thing that this program does
        StandIn venue = new StandIn(new StandIn.Setup(contract, day, Terms.DEFAULT, Optional.of(QUICK),
                UUID.randomUUID().toString()), at);
        Path journal = Files.createTempDirectory("live").resolve("picture.journal");
        SessionFile.Set one = new SessionFile.Set(documents.contract(), documents.account(),
                documents.strategies().stream().filter(s -> s.value().contract().equals(contract.symbol())
                        && s.value().signals().others(contract).isEmpty()).toList());
        CompletableFuture<Void> begun = new CompletableFuture<>();
        onWindow(() -> window.goLive(new LiveDay.Setup(one, at, false, journal, Optional.empty()))
                .whenComplete((done, problem) -> begun.complete(null)));
        begun.join();
        onWindow(() -> {
            if (!engage) {
                window.live().orElseThrow().day().command(new Command.SetMode(0, Mode.ENGAGED));
                press(window, "orders-sent");
            }
        });
        LiveDay live = window.live().orElseThrow().day();
        long moment = options.at(contract).orElse(workspace.begin());
        until(live, view -> view.prints() > 0 && view.clock() >= moment);
        venue.wish(new Wish.Speed(1));
        if (engage) {
            venue.wish(new Wish.Elsewhere(1));
            until(live, view -> view.standing().difference().isPresent());
            onWindow(() -> {
                press(window, "orders-sent");
                press(window, "engaged-0");
            });
        }
        // a few pictures more: what is worked out away from the window comes, fields take their size
        for (int i = 0; i < 40; i++) {
            TimeUnit.MILLISECONDS.sleep(50);
            onWindow(window::refresh);
        }
    }

    private static void press(DeskWindow window, String id) {
        ((ButtonBase) window.root().lookup("#" + id)).fire();
    }

    private static InetSocketAddress free() throws IOException {
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            return new InetSocketAddress(InetAddress.getLoopbackAddress(), socket.getLocalPort());
        }
    }

    private static void until(LiveDay day, Predicate<LiveDay.View> so) throws InterruptedException {
        for (int i = 0; i < 2_400 && !so.test(day.latest()); i++) {
            TimeUnit.MILLISECONDS.sleep(25);
        }
    }

    private static void onWindow(Runnable act) {
        CompletableFuture<Void> done = new CompletableFuture<>();
        Platform.runLater(() -> {
            act.run();
            done.complete(null);
        });
        done.join();
    }
}
