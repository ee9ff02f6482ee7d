package stativex.desk.tape;

import java.time.ZoneId;
import java.util.function.Consumer;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import stativex.desk.look.Format;
import stativex.files.tape.Finding;
import stativex.files.tape.Findings;
import stativex.files.tape.TapeInfo;
import stativex.files.tape.Words;
import stativex.market.Contract;
import stativex.market.Join;
import stativex.market.Money;
import stativex.market.Tape;

/** What is known of a tape: contract, extent, source, what was found at import, rolls of a join. */
final class TapeFacts extends VBox {
    private final Consumer<Boolean> adjust;

    /** @param adjust told whether a join is to be shown back-adjusted */
    TapeFacts(Consumer<Boolean> adjust) {
        super(6);
        this.adjust = adjust;
        getStyleClass().add("facts");
    }

    void show(Shown shown, boolean adjusted) {
        getChildren().clear();
        Contract contract = shown.contract();
        Tape tape = shown.tape();
        heading("Contract");
        line(contract.symbol() + " · " + contract.name());
        muted("tick " + contract.tickSize().toPlainString() + " worth " + Money.text(contract.tickValue()) + " "
                + contract.currency() + contract.lastTradingDay().map(day -> ", last trading day " + day).orElse(""));
        heading("Tape");
        line(Format.grouped(Integer.toString(tape.count())) + " prints");
        ZoneId zone = contract.calendar().zone();
        if (tape.count() > 0) {
            muted("from " + Words.at(tape.time(0), zone));
            muted("to " + Words.at(tape.time(tape.count() - 1), zone));
        }
        shown.stored().ifPresent(stored -> {
            TapeInfo info = stored.info();
            muted(Format.grouped(Long.toString(stored.bytes() / 1000)) + " kB on disk, "
                    + Format.decimal((double) stored.bytes() / tape.count(), 1) + " bytes a print");
            heading("Source");
            Label source = add(java.nio.file.Path.of(info.source()).getFileName().toString(), "fact");
            source.setTooltip(new javafx.scene.control.Tooltip(info.source()));
            info.layout().ifPresent(layout -> muted(layout.words()));
            if (!info.closing().incomplete().isEmpty()) {
                heading("Sessions that lack prints");
                muted("Signals in them are declined.");
                info.closing().incomplete().stream().sorted().forEach(name -> muted(name.text()));
            }
            findings(info.closing().findings(), true);
        });
        shown.join().ifPresent(join -> rolls(join, adjusted));
        if (shown.stored().isEmpty() && shown.join().isEmpty()) {
            muted("Made by the demo's market simulator, the same on every machine.");
        }
    }

    /** Counts by kind with the first places; also used while importing. */
    void findings(Findings findings, boolean kept) {
        heading("Found at import");
        boolean any = false;
        for (Finding kind : Finding.values()) {
            if (findings.count(kind) > 0) {
                any = true;
                Label count = line(kind.words() + ": " + Format.grouped(Long.toString(findings.count(kind)))
                        + (kind.bad() && kept ? ", left out" : ""));
                if (kind.bad()) {
                    count.getStyleClass().add("warn");
                }
                findings.places(kind).stream().limit(3)
                        .forEach(place -> muted("line " + Format.grouped(Long.toString(place.line())) + ": "
                                + place.words()));
                if (findings.count(kind) > 3) {
                    muted("and " + Format.grouped(Long.toString(findings.count(kind) - 3)) + " more");
                }
            }
        }
        if (!any) {
            muted("Nothing odd.");
        }
    }

    private void rolls(Join join, boolean adjusted) {
        heading("Rolls");
        muted("begins with " + join.months().getFirst().name());
        for (Join.Roll roll : join.rolls()) {
            line(roll.date() + "  " + roll.from() + " → " + roll.to());
            muted(roll.adjustment().map(ticks -> "adjustment " + Format.ticks(ticks) + " ("
                    + join.contract().text(ticks) + ")").orElse("no adjustment: no print before the roll"));
        }
        CheckBox box = new CheckBox("Back-adjusted");
        box.setId("back-adjusted");
        box.setSelected(adjusted);
        box.setDisable(join.rolls().stream().anyMatch(roll -> roll.adjustment().isEmpty()));
        box.setOnAction(e -> adjust.accept(box.isSelected()));
        getChildren().add(box);
        muted("Earlier months moved to the newest one, for looking only. Orders and results use each month's real prices.");
    }

    private void heading(String text) {
        add(text, "heading");
    }

    private Label line(String text) {
        return add(text, "fact");
    }

    private void muted(String text) {
        add(text, "muted");
    }

    private void warn(String text) {
        add(text, "warn");
    }

    private Label add(String text, String style) {
        Label label = new Label(text);
        label.getStyleClass().add(style);
        label.setWrapText(true);
        label.setMinHeight(USE_PREF_SIZE);
        getChildren().add(label);
        return label;
    }
}
