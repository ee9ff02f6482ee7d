package stativex.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.Test;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.engine.Snapshot;
import stativex.files.DataFolder;
import stativex.files.Documents;
import stativex.files.tape.TapeStore;
import stativex.link.LiveDay;
import stativex.link.fix.StandIn;
import stativex.link.fix.Wish;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Order;
import stativex.order.Terms;

/** A live day at the stand-in in the real window: linked, looked over, engaged, cut off, settled, flattened. */
public class LiveStoryTest extends DeskTest {
    private StandIn venue;

    @AfterMethod(alwaysRun = true)
    public void endVenue() {
        fx(() -> {
            window.endLive();
            return null;
        });
        if (venue != null) {
            venue.close();
        }
    }

    /** A strategy that trades every few bars. */
    @Override
    void begin() throws Exception {
        workspace = Workspace.demo(Optional.empty()).withFirst(Documents.strategy("""
                {"document":"strategy","version":1,"name":"Often","contract":"TDL","signal":{"bars":"tick","size":40},
                 "long":{"rule":"close > open"},"short":{"rule":"close < open"},
                 "entry":{"order":"market","quantity":1},
                 "exit":{"document":"exit plan","version":1,"name":"Near","stop":{"ticks":60},
                         "targets":[{"quantity":1,"ticks":60}]}}
                """, "often", other -> other));
        workspace.replay().await();
        show(() -> new DeskWindow(workspace, picker));
    }

    private InetSocketAddress exchange(double speed) throws Exception {
        Contract contract = workspace.inputs().contract();
        Tape whole = workspace.inputs().tape();
        int from = whole.firstAt(contract.calendar().current(workspace.begin()).orElseThrow().open());
        Tape day = Tape.joined(List.of(new Tape.Part(whole, from, whole.count(), 0)));
        InetSocketAddress at;
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            at = new InetSocketAddress(InetAddress.getLoopbackAddress(), socket.getLocalPort());
        }
        venue = new StandIn(new StandIn.Setup(contract, day, Terms.DEFAULT, Optional.of(speed), "v"), at);
        return at;
    }

    private void link(InetSocketAddress at) {
        robot.clickOn("#go-live");
        robot.clickOn("#venue").push(KeyCode.SHORTCUT, KeyCode.A).write("127.0.0.1:" + at.getPort());
        robot.clickOn("#link");
        until("it is linked", () -> window.live().isPresent() && live().standing().linked());
    }

    private LiveDay.View live() {
        return window.live().orElseThrow().day().latest();
    }

    private Snapshot.StrategyView often() {
        return live().snapshot().strategies().getFirst();
    }

    private boolean said(String words) {
        return live().said().stream().anyMatch(one -> one.words().contains(words));
    }

    private void tick(String id) {
        CheckBox box = robot.lookup(id).queryAs(CheckBox.class);
        fx(() -> {
            box.requestFocus();
            return null;
        });
        robot.push(KeyCode.SPACE);
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(box.isSelected(), id);
    }

    private void engages() {
        robot.clickOn("#engaged-0");
        until("the sheet is there", () -> robot.lookup("#engage-sheet").tryQuery().isPresent());
        robot.clickOn("#orders-sent");
        until("only balance and floor are missing", () -> robot.lookup("#not-possible").queryAs(Label.class).getText()
                .contains("compare balance and floor"));
        tick("#confirmed");
        for (String item : List.of("limits", "tested", "gate")) {
            if (robot.lookup("#anyway-" + item).tryQuery().isPresent()) {
                tick("#anyway-" + item);
            }
        }
        hold("#engage-live");
        until("it is engaged", () -> often().mode() == Mode.ENGAGED);
    }

    @Test
    public void engagedCutOffSettledAndFlattened() throws Exception {
        link(exchange(20));
        until("prints come, it watches", () -> live().prints() > 200 && often().mode() == Mode.WATCHING);
        assertTrue(text(".clock").startsWith("Live "), text(".clock"));
        robot.clickOn("#engaged-0");
        until("orders are held back at first", () -> robot.lookup("#not-possible").queryAs(Label.class).getText()
                .contains("Orders"));
        picture("engage-held-back");
        fx(() -> {
            window.live().orElseThrow().send(new Command.Enter(Side.LONG, Order.Type.MARKET, 1, Tape.NONE, Tape.NONE,
                    OptionalInt.empty(), true));
            return null;
        });
        until("an order by hand is held back, too", () -> said("your order was not sent"));
        assertTrue(live().snapshot().hand().position().isEmpty());
        robot.push(KeyCode.ESCAPE);
        WaitForAsyncUtils.waitForFxEvents();
        assertEquals(often().mode(), Mode.WATCHING);
        engages();
        assertTrue(said("Tested version (No kept trial"), live().said() + "");
        until("it is in a trade", () -> often().position().isPresent());
        picture("live-in-a-trade");

        venue.wish(new Wish.Drop());
        until("the link was lost", () -> said("the link to the venue is lost"));
        until("it is there again, in step", () -> live().standing().linked() && live().standing().apart().isEmpty());
        venue.wish(new Wish.Elsewhere(2));
        until("the broker holds more than we count", () -> live().standing().difference().isPresent());
        until("it is said in the bar", () -> robot.lookup("#alarm").queryAs(Label.class).getText()
                .contains("the broker holds"));
        picture("live-differs");
        robot.clickOn("#settle");
        robot.clickOn("#settle-mine");
        until("they agree", () -> live().standing().difference().isEmpty());
        assertEquals(live().snapshot().hand().position().orElseThrow().open(), 2);

        hold("#flat-and-lock");
        until("everything is flat",
                () -> often().position().isEmpty() && live().snapshot().hand().position().isEmpty());
        assertTrue(live().snapshot().account().lock().isPresent());
        until("the broker agrees", () -> live().standing().held().equals(java.util.OptionalLong.of(0))
                && live().standing().difference().isEmpty());
        assertFalse(said("contradiction"), live().said() + "");
        robot.clickOn("#end-live");
        robot.clickOn("#end-live-yes");
        until("the replay is there again", () -> window.live().isEmpty() && text(".clock").startsWith("Replay"));
        until("what was received is a tape", () -> TapeStore.own().list().stream()
                .anyMatch(entry -> entry.name().startsWith("TDL live ")));
        until("it is said", () -> text("#notice").startsWith("What was received is kept as the tape TDL live "));
    }

    @Test
    public void whatTheBrokerHoldsIsTakenOverAndADayThatWasBegunGoesOn() throws Exception {
        InetSocketAddress at = exchange(5);
        link(at);
        until("prints come", () -> live().prints() > 20);
        venue.wish(new Wish.Elsewhere(1));
        until("the broker holds more than we count", () -> live().standing().difference().isPresent());
        engages();
        until("it guards it", () -> often().position().flatMap(Snapshot.PositionView::stop).isPresent());
        assertEquals(often().position().orElseThrow().open(), 1);
        until("the stop is at the broker", () -> live().snapshot().orders().stream()
                .anyMatch(order -> order.role() == Order.Role.STOP
                        && order.state() == Order.State.WORKING));
        fx(() -> {
            window.endLive();
            return null;
        });
        try (var files = Files.list(DataFolder.path().resolve("live"))) {
            assertEquals(files.map(Path::getFileName).map(Path::toString).filter(n -> n.endsWith(".journal")).count(),
                    1);
        }
        robot.clickOn("#go-live");
        assertTrue(robot.lookup("#go-on").queryAs(CheckBox.class).isVisible());
        robot.clickOn("#venue").push(KeyCode.SHORTCUT, KeyCode.A).write("127.0.0.1:" + at.getPort());
        robot.clickOn("#link");
        until("it is linked", () -> window.live().isPresent() && live().standing().linked());
        assertEquals(often().position().orElseThrow().open(), 1, "its position is there again");
        until("it only watches", () -> often().mode() == Mode.WATCHING);
        hold("#flat-and-lock");
        until("it left", () -> often().position().isEmpty());
    }
}
