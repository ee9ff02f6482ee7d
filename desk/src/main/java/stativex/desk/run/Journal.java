package stativex.desk.run;

import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.Format;
import stativex.engine.Decision;
import stativex.engine.Snapshot;
import stativex.files.ResultWords;
import stativex.files.Sentences;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Fill;
import stativex.order.Owner;

/** Last decisions, working orders with owner and state, and fills with their slippage; the newest first. */
final class Journal extends VBox {
    /** A row: what happened, and under it why. */
    private record Row(String time, String what, String why, boolean held) {}

    private enum Kind {
        DECISIONS("Decisions"), ORDERS("Orders"), FILLS("Fills");

        final String word;

        Kind(String word) {
            this.word = word;
        }
    }

    private static final int MOST = 200;
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("EEE d MMM", Locale.ENGLISH);

    private final Contract contract;
    private final List<String> names;
    private final ListView<Row> list = new ListView<>();
    private Kind kind = Kind.DECISIONS;
    private List<Row> rows = List.of();
    private Snapshot last;

    /** @param names of the strategies, by index */
    Journal(Contract contract, List<String> names) {
        this.contract = contract;
        this.names = names;
        ToggleGroup group = new ToggleGroup();
        HBox tabs = new HBox();
        tabs.getStyleClass().add("choice");
        for (Kind k : Kind.values()) {
            ToggleButton tab = new ToggleButton(k.word);
            tab.setId("journal-" + k.word.toLowerCase(java.util.Locale.ROOT));
            tab.setToggleGroup(group);
            tab.setSelected(k == kind);
            tab.setOnAction(e -> {
                tab.setSelected(true);
                kind = k;
                if (last != null) {
                    show(last);
                }
            });
            tabs.getChildren().add(tab);
        }
        list.setId("journal");
        list.setCellFactory(view -> new Cell(view));
        list.setPlaceholder(new Label("Nothing yet."));
        list.setAccessibleText("Decisions, orders or fills");
        VBox.setVgrow(list, Priority.ALWAYS);
        setSpacing(6);
        getChildren().addAll(tabs, list);
    }

    void show(Snapshot snapshot) {
        last = snapshot;
        List<Row> now = switch (kind) {
            case DECISIONS -> newest(snapshot.decisions(), this::row);
            case ORDERS -> snapshot.orders().stream().map(this::row).toList();
            case FILLS -> newest(snapshot.fills(), this::row);
        };
        if (!now.equals(rows) || list.getItems().size() != now.size()) {
            rows = now;
            list.getItems().setAll(now);
        }
    }

    private static <T> List<Row> newest(List<T> all, java.util.function.Function<T, Row> row) {
        List<Row> rows = new ArrayList<>();
        for (int i = all.size() - 1; i >= 0 && rows.size() < MOST; i--) {
            rows.add(row.apply(all.get(i)));
        }
        return rows;
    }

    private Row row(Decision d) {
        String price = d.price() == Tape.NONE ? "" : " @ " + Format.price(contract, d.price());
        String what = switch (d.kind()) {
            case TAKEN -> "took " + d.side().map(Side::word).orElse("") + price;
            case DECLINED -> "declined " + d.side().map(Side::word).orElse("");
            case WOULD_BE -> "would-be " + d.side().map(Side::word).orElse("");
            case REJECTED -> "rejected " + d.side().map(Side::word).orElse("");
            case LOCKED -> "locked";
            case CANCELLED -> "cancelled " + d.side().map(Side::word).orElse("");
            case BY_HAND -> "you: " + ResultWords.reason(d);
        };
        String who = d.owner().map(this::owner).orElse("account");
        String detail = new Sentences(contract.calendar().zone(), d.time()).decision(d);
        String why = switch (d.kind()) {
            case DECLINED -> ResultWords.reason(d) + ": " + detail;
            case WOULD_BE -> price.strip() + ", " + detail;
            case TAKEN, REJECTED -> detail;
            case LOCKED -> detail + cameTo(d);
            case BY_HAND -> detail + price;
            case CANCELLED -> ResultWords.reason(d) + ": " + detail;
        };
        return new Row(Format.clock(d.time(), contract.calendar().zone()), what, day(d.time()) + who + " · " + why,
                d.kind() != Decision.Kind.TAKEN && d.kind() != Decision.Kind.WOULD_BE
                        && d.kind() != Decision.Kind.BY_HAND);
    }

    /** By how much the result ended beyond the line that locked. */
    private String cameTo(Decision locked) {
        return last.account().locks().stream()
                .filter(lock -> lock.time() == locked.time() && locked.lockedFor(lock.line().lock())
                        && lock.owner().equals(locked.owner()))
                .findFirst().map(lock -> "; " + Sentences.lock(lock)).orElse("");
    }

    private String owner(Owner owner) {
        return switch (owner) {
            case Owner.Strategy strategy -> names.get(strategy.index());
            case Owner.Person ignored -> "by hand";
        };
    }

    /** Says the day of what happened on an earlier trading day. */
    private String day(long time) {
        var date = contract.calendar().tradingDate(time);
        var today = last.session().map(Session::tradingDate);
        return date.equals(today) ? "" : date.map(d -> d.format(DAY) + " · ").orElse("");
    }

    private Row row(Snapshot.OrderView o) {
        String price = o.price().map(p -> " @ " + Format.price(contract, p)).orElse("");
        return new Row("no " + o.number(),
                (o.buy() ? "buy " : "sell ") + o.rest() + " " + ResultWords.of(o.type()) + price,
                owner(o.owner()) + " · " + ResultWords.of(o.reason()) + " · " + ResultWords.of(o.state()), false);
    }

    private Row row(Fill f) {
        String gap = f.gap() == 0 ? "" : ", gap " + Format.ticks(f.gap());
        return new Row(Format.clock(f.time(), contract.calendar().zone()),
                (f.buy() ? "buy " : "sell ") + f.quantity() + " @ " + Format.price(contract, f.price()),
                day(f.time()) + owner(f.owner()) + " · " + ResultWords.of(f.reason()) + " · slippage " + f.slippage()
                        + " t" + gap
                        + " · fee "
                        + Format.money(f.fee()),
                false);
    }

    private static final class Cell extends ListCell<Row> {
        private final Label time = new Label();
        private final Label what = new Label();
        private final Label why = new Label();
        private final VBox box;

        Cell(ListView<Row> list) {
            time.getStyleClass().add("figures");
            time.setMinWidth(60);
            time.setMaxWidth(60);
            why.setWrapText(true);
            why.setMinHeight(Region.USE_PREF_SIZE);
            // the width decides how many lines the reason takes, so it must be known when the height is asked
            why.prefWidthProperty().bind(list.widthProperty().subtract(24));
            box = new VBox(1, new HBox(4, time, what), why);
        }

        @Override
        protected void updateItem(Row row, boolean empty) {
            super.updateItem(row, empty);
            if (empty || row == null) {
                setGraphic(null);
                return;
            }
            time.setText(row.time());
            what.setText(row.what());
            why.setText(row.why());
            setAccessibleText(row.time() + " " + row.what() + ", " + row.why());
            why.getStyleClass().setAll("label", row.held() ? "held" : "muted");
            setGraphic(box);
        }
    }
}
