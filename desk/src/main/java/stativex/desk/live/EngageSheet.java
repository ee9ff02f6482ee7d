package stativex.desk.live;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.concurrent.CompletableFuture;
import java.util.function.BooleanSupplier;
import java.util.function.IntConsumer;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.RadioButton;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.Format;
import stativex.desk.look.HoldButton;
import stativex.engine.Strategy;
import stativex.files.BadInput;
import stativex.files.CheckSettings;
import stativex.link.Joining;
import stativex.link.LiveDay;
import stativex.link.Preflight;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.trial.Inputs;

/**
 * Before a strategy is engaged at a venue: every check on the left; on the right what is there already, how the strategy should join it, and
 * the orders that would be sent. Looked at anew while it is open, and once more when it is confirmed.
 */
public final class EngageSheet extends HBox {
    /** What the person may do with it. */
    public interface Acts {
        /** Goes to a stage. */
        void go(int stage);

        /** It is not shown any more. */
        void closed();
    }

    private final LiveDay day;
    private final Inputs inputs;
    private final int index;
    private final ZoneId own;
    private final BooleanSupplier sends;
    private final Acts acts;
    private final Map<Preflight.Item, CheckRow> rows = new EnumMap<>(Preflight.Item.class);
    private final Label counts = new Label();
    private final VBox found = new VBox(2);
    private final PriceLine line = new PriceLine();
    private final VBox ways = new VBox(8);
    private final Label not = new Label();
    private final HBox why = new HBox(8);
    private final HoldButton engage;
    private final ToggleGroup group = new ToggleGroup();
    private CheckSettings settings = CheckSettings.read();
    private OptionalInt trial = OptionalInt.empty();
    private int days;
    private List<Preflight.Check> checks = List.of();
    private List<Joining.Choice> choices = List.of();
    private Joining.Way way = Joining.Way.WAIT;
    private long apart;
    private long from;

    /**
     * @param index of the strategy
     * @param own the person's zone
     * @param sends whether orders are sent
     * @param watched works out the number of the newest trial of a version, and its days; asked away from the window
     */
    public EngageSheet(LiveDay day, Inputs inputs, int index, ZoneId own, BooleanSupplier sends,
            Supplier<Evidence> watched, Acts acts) {
        this.day = day;
        this.inputs = inputs;
        this.index = index;
        this.own = own;
        this.sends = sends;
        this.acts = acts;
        getStyleClass().add("engage-sheet");
        setId("engage-sheet");
        engage = new HoldButton("Hold to engage", "Engages the strategy; nothing is sent before.", this::confirm);
        engage.setId("engage-live");
        engage.getStyleClass().add("engage");
        engage.setMaxWidth(Double.MAX_VALUE);
        Region left = left();
        Region right = right();
        HBox.setHgrow(left, Priority.ALWAYS);
        left.setMinWidth(0);
        left.setPrefWidth(540);
        right.setPrefWidth(490);
        right.setMinWidth(430);
        getChildren().addAll(left, right);
        addEventHandler(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.ESCAPE) {
                acts.closed();
                e.consume();
            }
        });
        CompletableFuture.supplyAsync(watched).thenAccept(evidence -> Platform.runLater(() -> {
            trial = evidence.trial();
            days = evidence.days();
            show();
        }));
        show();
    }

    /** @param trial number of the newest kept trial of the version; {@code days} on which it was watched */
    public record Evidence(OptionalInt trial, int days) {}

    private Strategy strategy() {
        return inputs.strategies().get(index);
    }

    private Region left() {
        Label title = new Label("Engage " + strategy().name());
        title.getStyleClass().add("title");
        title.setMinWidth(Region.USE_PREF_SIZE);
        Label on = new Label("on " + inputs.account().name() + ", " + inputs.contract().symbol());
        on.getStyleClass().add("muted");
        HBox head = new HBox(16, title, on);
        head.setAlignment(Pos.BASELINE_LEFT);
        head.getStyleClass().add("sheet-head");
        VBox list = new VBox();
        for (Preflight.Item item : Preflight.Item.values()) {
            CheckRow row = new CheckRow(item, acts::go, this::set, this::show);
            rows.put(item, row);
            list.getChildren().add(row);
        }
        counts.getStyleClass().add("check-name");
        counts.setId("check-counts");
        Label again = new Label("looked at again while this is open");
        again.getStyleClass().add("muted");
        HBox foot = new HBox(24, counts, again);
        foot.setAlignment(Pos.BASELINE_LEFT);
        foot.getStyleClass().add("sheet-foot");
        ScrollPane scroll = new ScrollPane(list);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("cards");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        VBox box = new VBox(head, scroll, foot);
        box.getStyleClass().add("sheet-left");
        return box;
    }

    private Region right() {
        Label title = new Label("What will happen when I engage");
        title.getStyleClass().add("heading");
        Button close = new Button("Close");
        close.setId("sheet-close");
        close.getStyleClass().addAll("link", "small");
        close.setOnAction(e -> acts.closed());
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Label then = new Label("And then");
        then.getStyleClass().add("heading");
        int most = Strategy.largest(strategy().sides(), strategy().entry());
        Label what = new Label(strategy().name() + " enters by itself, inside its windows, up to " + most
                + (most == 1 ? " contract" : " contracts") + " at an entry. Flat & lock day ends it at once.");
        what.setWrapText(true);
        what.setMinHeight(Region.USE_PREF_SIZE);
        not.getStyleClass().add("tripped-text");
        not.setWrapText(true);
        not.setId("not-possible");
        Mark mark = new Mark();
        mark.set(Mark.State.WRONG);
        why.getChildren().addAll(mark, not);
        why.setAlignment(Pos.CENTER_LEFT);
        Label held = new Label("Held for half a second; nothing is sent before.");
        held.getStyleClass().add("muted");
        Button watch = new Button("go on watching");
        watch.setId("go-on-watching");
        watch.getStyleClass().addAll("link", "small");
        watch.setOnAction(e -> acts.closed());
        Region between = new Region();
        HBox.setHgrow(between, Priority.ALWAYS);
        Region space = new Region();
        VBox.setVgrow(space, Priority.ALWAYS);
        HBox foot = new HBox(held, between, watch);
        foot.setAlignment(Pos.BASELINE_LEFT);
        VBox box = new VBox(8, new HBox(title, gap, close), found, line, ways, then, what, space, why, engage, foot);
        box.getStyleClass().add("sheet-right");
        return box;
    }

    private void set(Preflight.Item item, Preflight.Response response) {
        settings = settings.with(item.name(), response.name());
        try {
            settings.keep();
        } catch (BadInput e) {
            day.note(e.getMessage());
        }
        show();
    }

    private List<Preflight.Check> look(LiveDay.View view) {
        return Preflight.of(inputs.contract(), inputs.account(), view, index,
                new Preflight.Facts(sends.getAsBoolean(), rows.get(Preflight.Item.ACCOUNT).isConfirmed(), trial, days),
                settings, new Preflight.Reader(own, Format::money));
    }

    /** Looks again. */
    public void show() {
        LiveDay.View view = day.latest();
        // a position that only the broker has counts from the price at which it was seen here first
        long difference = view.standing().difference().orElse(0);
        if (difference != apart) {
            apart = difference;
            from = view.snapshot().lastPrice().orElse(0L);
        }
        checks = look(view);
        checks.forEach(check -> rows.get(check.item()).show(check));
        counts.setText(Preflight.counts(checks).entrySet().stream().map(one -> one.getValue() + " " + one.getKey())
                .collect(Collectors.joining(" · ")));
        List<Joining.Choice> now = Joining.of(inputs.contract(), view, index, from);
        showFound(view);
        if (!now.equals(choices)) {
            choices = now;
            if (choices.stream().noneMatch(choice -> choice.way() == way)) {
                way = choices.getFirst().way();
            }
            showWays(view);
        }
        Optional<String> reason = impossible();
        not.setText(reason.orElse(""));
        why.setVisible(reason.isPresent());
        engage.setDisable(reason.isPresent());
    }

    private Optional<String> impossible() {
        List<Preflight.Check> blocking = checks.stream().filter(Preflight.Check::blocks).toList();
        if (!blocking.isEmpty()) {
            Preflight.Check first = blocking.getFirst();
            return Optional.of(first.compares()
                    ? "Not possible yet: compare balance and floor with what the firm shows today."
                    : "Not possible yet: " + first.item().words() + ". " + first.lines().getLast());
        }
        return checks.stream().filter(check -> check.asks() && !rows.get(check.item()).isAnyway()).findFirst()
                .map(check -> check.item().words() + " asks: tick that you go on all the same, or mend it.");
    }

    private void showFound(LiveDay.View view) {
        Optional<Joining.Found> there = Joining.found(view, from);
        List<Label> lines = new ArrayList<>();
        Contract contract = inputs.contract();
        if (there.isEmpty()) {
            lines.add(new Label("Nothing is open on " + contract.symbol() + "."));
            line.setVisible(false);
            line.setManaged(false);
        } else {
            Joining.Found f = there.get();
            double average = (double) f.averageSum() / f.averageQuantity();
            long last = view.snapshot().lastPrice().orElse(0L);
            Label head = new Label((f.counted() ? "Yours: " : "Found at the broker: ") + f.side().word() + " "
                    + f.contracts() + (f.counted() ? " @ " + Format.price(contract, average) : ""));
            head.getStyleClass().addAll("found", f.side() == Side.LONG ? "found-long" : "found-short");
            lines.add(head);
            long ticks = Math.round(f.side().sign() * (last - average) * f.contracts());
            lines.add(new Label(f.counted()
                    ? "now " + Format.signedMoney(contract.money(ticks, 1))
                    : "nobody here counts it; it would count from " + Format.price(contract, from)
                            + ", as first seen"));
            line.setVisible(true);
            line.setManaged(true);
            line.show(contract, f, last, choices.stream().filter(choice -> choice.way() == Joining.Way.TAKE_OVER)
                    .findFirst().map(Joining.Choice::sends).orElse(List.of()));
        }
        found.getChildren().setAll(lines);
    }

    private void showWays(LiveDay.View view) {
        ways.getChildren().clear();
        if (choices.size() == 1 && choices.getFirst().way() == Joining.Way.WAIT) {
            Label wait = new Label(strategy().name() + " waits for a signal of its own. Nothing is sent now.");
            wait.setWrapText(true);
            wait.setMinHeight(USE_PREF_SIZE);
            ways.getChildren().add(wait);
            return;
        }
        Label how = new Label("How should " + strategy().name() + " join it?");
        how.getStyleClass().add("heading");
        ways.getChildren().add(how);
        for (Joining.Choice choice : choices) {
            ways.getChildren().add(card(choice, view));
        }
    }

    private Region card(Joining.Choice choice, LiveDay.View view) {
        RadioButton pick = new RadioButton(title(choice.way()));
        pick.setId("way-" + choice.way().name().toLowerCase(java.util.Locale.ROOT).replace('_', '-'));
        pick.getStyleClass().add("check-name");
        pick.setToggleGroup(group);
        pick.setSelected(choice.way() == way);
        Label words = new Label(words(choice.way()));
        words.setWrapText(true);
        VBox sent = new VBox(1);
        if (choice.sends().isEmpty()) {
            sent.getChildren().add(new Label("nothing"));
        }
        for (Joining.Line one : choice.sends()) {
            Label order = new Label((one.buy() ? "BUY " : "SELL ") + one.quantity() + " " + one.kind()
                    + (one.price().isPresent() ? " " + Format.price(inputs.contract(), one.price().getAsLong()) : ""));
            order.getStyleClass().add("check-name");
            sent.getChildren().add(order);
        }
        worst(choice, view).ifPresent(money -> {
            Label least = new Label("worst case " + Format.signedMoney(money));
            least.getStyleClass().add("muted");
            sent.getChildren().add(least);
        });
        if (choice.way() == Joining.Way.LEAVE && view.snapshot().hand().position().flatMap(p -> p.stop()).isEmpty()) {
            Label bare = new Label("it stays without a stop");
            bare.getStyleClass().add("near");
            sent.getChildren().add(bare);
        }
        Label sends = new Label("sends");
        sends.getStyleClass().add("muted");
        sends.setMinWidth(48);
        VBox box = new VBox(3, pick, words, new HBox(sends, sent));
        box.getStyleClass().add("way");
        pick.selectedProperty().addListener((o, before, now) -> {
            if (now) {
                way = choice.way();
            }
            box.getStyleClass().remove("way-chosen");
            if (now) {
                box.getStyleClass().add("way-chosen");
            }
        });
        if (pick.isSelected()) {
            box.getStyleClass().add("way-chosen");
        }
        box.setOnMousePressed(e -> pick.setSelected(true));
        return box;
    }

    /** From the last price to the plan's stop, with slippage and the exit's fee. */
    private Optional<Long> worst(Joining.Choice choice, LiveDay.View view) {
        Contract contract = inputs.contract();
        return choice.sends().stream().filter(one -> one.kind().equals("stop") && one.price().isPresent()).findFirst()
                .map(stop -> {
                    long away = Math.abs(view.snapshot().lastPrice().orElse(0L) - stop.price().getAsLong());
                    return -stop.quantity() * (contract.money(away + contract.slippage(), 1)
                            + inputs.account().fee(contract.symbol()));
                });
    }

    private static String title(Joining.Way way) {
        return switch (way) {
            case WAIT -> "Wait";
            case TAKE_OVER -> "Take it over";
            case CLOSE_FIRST -> "Close it first";
            case LEAVE -> "Leave it to me";
        };
    }

    private String words(Joining.Way of) {
        String name = strategy().name();
        return switch (of) {
            case WAIT -> name + " waits for a signal of its own.";
            case TAKE_OVER -> name + " guards it from now on, with its plan.";
            case CLOSE_FIRST -> "Then " + name + " starts flat and waits for a signal of its own.";
            case LEAVE -> "It is yours, beside " + name + ".";
        };
    }

    /** Worked out once more: if it comes to something else than what is shown, it is shown anew, and asked again. */
    private void confirm() {
        LiveDay.View view = day.latest();
        List<Joining.Choice> now = Joining.of(inputs.contract(), view, index, from);
        Optional<Joining.Choice> chosen = now.stream().filter(choice -> choice.way() == way).findFirst();
        boolean same = chosen.isPresent() && choices.contains(chosen.get());
        checks = look(view);
        if (!same || impossible().isPresent()) {
            show();
            not.setText(impossible().orElse("It has changed: look at what would be sent now, and hold again."));
            why.setVisible(true);
            return;
        }
        String past = checks.stream().filter(Preflight.Check::asks)
                .map(check -> check.item().words() + " (" + check.lines().getLast() + ")")
                .collect(Collectors.joining(", "));
        day.note(strategy().name() + " " + strategy().version() + " is engaged, "
                + title(way).toLowerCase(java.util.Locale.ROOT)
                + (past.isEmpty() ? "" : "; gone on past: " + past));
        if (rows.get(Preflight.Item.ACCOUNT).isConfirmed()) {
            day.confirm();
        }
        chosen.get().commands().forEach(day::command);
        acts.closed();
    }
}
