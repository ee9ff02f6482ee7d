package stativex.desk.live;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.OverrunStyle;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.Format;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.engine.Snapshot;
import stativex.link.Alarm;
import stativex.link.LiveDay;
import stativex.link.LiveStanding;
import stativex.market.TapeTime;
import stativex.order.Owner;

/** The lower edge of a live day: whether orders are sent, how feed and broker stand, the most urgent alarm, what was said. */
public final class LiveBar extends HBox {
    private static final int SHOWN = 40;

    private final ZoneId zone;
    private final Consumer<Command> send;
    private final ToggleButton held = new ToggleButton("Held back");
    private final ToggleButton sent = new ToggleButton("Sent");
    private final Mark feedMark = new Mark();
    private final Label feed = new Label();
    private final Mark brokerMark = new Mark();
    private final Label broker = new Label();
    private final Label alarm = new Label();
    private final MenuButton settle = new MenuButton("Settle…");
    private final MenuButton said = new MenuButton("What was said");
    private final VBox lines = new VBox(3);
    private final Button end = new Button("End…");
    private final HBox question = new HBox(8);
    private boolean sends;
    private LiveDay.View view;

    /**
     * @param zone the person's own
     * @param send takes the person's commands
     * @param ends ends the live day
     */
    public LiveBar(ZoneId zone, Consumer<Command> send, Runnable ends) {
        this.zone = zone;
        this.send = send;
        getStyleClass().add("replay-bar");
        setAlignment(Pos.CENTER_LEFT);
        setSpacing(8);
        held.setId("orders-held");
        sent.setId("orders-sent");
        sent.getStyleClass().add("mode-engaged");
        sent.setTooltip(
                new Tooltip("Strategies can be engaged: what they decide goes to the broker. Off at every start."));
        held.setTooltip(
                new Tooltip("Nothing new is sent: every engaged strategy watches. Open trades keep their plan."));
        held.setOnAction(e -> orders(false));
        sent.setOnAction(e -> orders(true));
        HBox choice = new HBox(held, sent);
        choice.getStyleClass().add("choice");
        choice.setMinWidth(USE_PREF_SIZE);
        Label word = new Label("Orders");
        word.setMinWidth(USE_PREF_SIZE);
        feed.setId("feed-state");
        broker.setId("broker-state");
        alarm.setId("alarm");
        alarm.getStyleClass().add("alarm");
        alarm.setTextOverrun(OverrunStyle.ELLIPSIS);
        alarm.setMinWidth(0);
        feed.setMinWidth(USE_PREF_SIZE);
        broker.setMinWidth(USE_PREF_SIZE);
        ScrollPane scroll = new ScrollPane(lines);
        scroll.setPrefSize(520, 300);
        scroll.setFitToWidth(true);
        said.getItems().add(new CustomMenuItem(scroll, false));
        said.setId("said");
        said.setMinWidth(USE_PREF_SIZE);
        said.setOnShowing(e -> lines());
        settle.setId("settle");
        settle.setMinWidth(USE_PREF_SIZE);
        settle.setTooltip(
                new Tooltip("What of the position that only the broker has; nothing is entered until it is settled"));
        settle.setOnShowing(e -> settle.getItems().setAll(settlements()));
        // a menu without an item is never shown, and so never filled
        settle.getItems().add(new MenuItem("…"));
        settle.setVisible(false);
        settle.setManaged(false);
        end.setId("end-live");
        end.setMinWidth(USE_PREF_SIZE);
        end.setTooltip(new Tooltip("Unlinks from the venue; what is open stays open there with its stops."));
        end.setOnAction(e -> ask(true));
        Button yes = new Button("End the live day");
        yes.setId("end-live-yes");
        yes.setOnAction(e -> ends.run());
        Button no = new Button("Stay");
        no.setId("end-live-no");
        no.setOnAction(e -> ask(false));
        Label what = new Label("Unlink? What is open stays open at the broker.");
        question.setAlignment(Pos.CENTER_LEFT);
        question.getChildren().addAll(what, yes, no);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        getChildren().addAll(word, choice, feedMark, feed, brokerMark, broker, alarm, settle, gap, said, end);
        tick();
    }

    private void ask(boolean asked) {
        getChildren().remove(question);
        if (asked) {
            getChildren().add(getChildren().indexOf(said), question);
        }
    }

    private void orders(boolean on) {
        sends = on;
        if (!on && view != null) {
            for (Snapshot.StrategyView strategy : view.snapshot().strategies()) {
                if (strategy.mode() == Mode.ENGAGED) {
                    send.accept(new Command.SetMode(strategy.index(), Mode.WATCHING));
                }
            }
        }
        tick();
    }

    private void tick() {
        held.setSelected(!sends);
        sent.setSelected(sends);
    }

    /** Something was not sent because orders are held back: shows where that is switched. */
    void points() {
        sent.requestFocus();
        alarm.setVisible(true);
        alarm.setText("not sent: orders are held back");
    }

    /** Whether orders are sent; off at every start. */
    public boolean sends() {
        return sends;
    }

    /** Shows how the day stands. */
    public void show(LiveDay.View shown) {
        view = shown;
        LiveStanding standing = shown.standing();
        boolean late = standing.alarms().stream().anyMatch(one -> one.kind() == Alarm.Kind.FEED_SILENT
                || one.kind() == Alarm.Kind.CATCHING_UP);
        feedMark.set(!standing.data() ? Mark.State.WRONG : late ? Mark.State.NEAR : Mark.State.CLEAR);
        feed.setText(!standing.data()
                ? "feed away"
                : "feed " + Format.grouped(Integer.toString(shown.prints())) + " prints"
                        + (!shown.snapshot().inSession()
                                ? ", no session is open"
                                : standing.silence() > 10 * TapeTime.SECOND
                                        ? ", the last " + standing.silence() / TapeTime.SECOND + " s ago"
                                        : ""));
        boolean doubt = !standing.inDoubt().isEmpty() || standing.difference().isPresent();
        brokerMark.set(!standing.orders() ? Mark.State.WRONG : doubt ? Mark.State.NEAR : Mark.State.CLEAR);
        broker.setText(!standing.orders()
                ? "broker away"
                : standing.difference().isPresent()
                        ? "broker holds " + Format.signed(standing.held().getAsLong())
                        : standing.held().isPresent() ? "broker agrees" : "broker linked");
        settle.setVisible(standing.difference().isPresent());
        settle.setManaged(standing.difference().isPresent());
        Optional<Alarm> first = standing.alarms().stream().findFirst();
        alarm.setVisible(first.isPresent() || shown.problem().isPresent());
        alarm.setText(shown.problem().or(() -> first.map(Alarm::words)).orElse("")
                + (standing.alarms().size() > 1 ? "  (and " + (standing.alarms().size() - 1) + " more)" : ""));
        said.setText(shown.over() ? "The venue is done" : "What was said");
    }

    private List<MenuItem> settlements() {
        List<MenuItem> items = new ArrayList<>();
        view.standing().difference().ifPresent(apart -> {
            int contracts = Math.toIntExact(apart);
            long last = view.snapshot().lastPrice().orElse(0L);
            String what = (contracts > 0 ? "long " : "short ") + Math.abs(contracts);
            items.add(item("settle-mine", "The " + what + " is mine: sends nothing, has no stop",
                    new Command.Adopt(contracts, last)));
            if (view.snapshot().hand().position().isEmpty()) {
                items.add(item("settle-close", "Close the " + what + ": sends " + (contracts > 0 ? "SELL " : "BUY ")
                        + Math.abs(contracts) + " at the market", new Command.Adopt(contracts, last),
                        new Command.Flatten(Owner.PERSON)));
            }
        });
        return items;
    }

    private MenuItem item(String id, String words, Command... commands) {
        MenuItem item = new MenuItem(words);
        item.setId(id);
        item.setOnAction(e -> List.of(commands).forEach(send));
        return item;
    }

    private void lines() {
        List<Label> all = new ArrayList<>();
        for (LiveDay.Said one : view.said().subList(0, Math.min(SHOWN, view.said().size()))) {
            Label label = new Label(Format.clock(one.wall(), zone) + "  " + one.words());
            label.setWrapText(true);
            label.setMinHeight(USE_PREF_SIZE);
            all.add(label);
        }
        if (all.isEmpty()) {
            all.add(new Label("Nothing yet."));
        }
        lines.getChildren().setAll(all);
    }
}
