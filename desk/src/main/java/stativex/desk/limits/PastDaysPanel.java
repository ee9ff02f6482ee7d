package stativex.desk.limits;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.account.Account;
import stativex.account.Rulebook;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.desk.look.Latest;
import stativex.evidence.BookReading;
import stativex.evidence.InterlockPrice;
import stativex.evidence.Odds;
import stativex.files.OddsWords;
import stativex.files.StrategyDraft;
import stativex.trial.Inputs;

/** Past days of a strategy against an account: the picture, the odds, and how far the work on them is. */
final class PastDaysPanel extends VBox {
    private final PastDays past;
    private final Runnable fresh;
    private final Latest job = new Latest("limits");
    private final AccountPathView path = new AccountPathView();
    private final OddsView odds = new OddsView();
    private final Label pathSaid = new Label();
    private final Label oddsSaid = new Label();
    private final Button cancel = new Button("Cancel");
    private final ComboBox<String> strategies = Form.choice("limits-strategy",
            "Strategy whose past days are looked at");
    private final Supplier<String> seal;
    private Optional<BookReading> reading = Optional.empty();
    private Optional<List<InterlockPrice>> prices = Optional.empty();
    private boolean showing;

    /**
     * @param chosen told of the strategy that is to be looked at
     * @param fresh told when something else is known
     */
    PastDaysPanel(Inputs inputs, Supplier<String> seal, Consumer<String> chosen, Runnable fresh) {
        this.seal = seal;
        this.past = new PastDays(inputs);
        this.fresh = fresh;
        pathSaid.setId("limits-path-said");
        strategies.setMaxWidth(170);
        strategies.setOnAction(e -> {
            if (!showing && strategies.getValue() != null) {
                chosen.accept(strategies.getValue());
            }
        });
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox pathHead = head("Past days", pathSaid, gap, Form.muted("of"), strategies);
        HBox.setHgrow(strategies, Priority.NEVER);
        path.setId("limits-path");
        path.setPrefHeight(220);
        VBox.setVgrow(path, Priority.ALWAYS);
        oddsSaid.setId("limits-odds-said");
        cancel.setId("limits-cancel");
        cancel.getStyleClass().add("small");
        cancel.setOnAction(e -> {
            job.cancel();
            busy("", false);
            odds.say("Not drawn: cancelled.");
        });
        odds.setId("limits-odds");
        odds.setPrefHeight(170);
        odds.setMinHeight(170);
        Region rule = new Region();
        rule.getStyleClass().add("rule");
        getChildren().addAll(pathHead, path, rule, head("Odds", oddsSaid, cancel), odds);
    }

    private static HBox head(String words, Label said, javafx.scene.Node... rest) {
        Label title = new Label(words);
        title.getStyleClass().add("title");
        title.setMinWidth(USE_PREF_SIZE);
        said.getStyleClass().add("muted");
        HBox head = new HBox(10, title, said);
        head.getChildren().addAll(rest);
        head.setAlignment(Pos.CENTER_LEFT);
        head.getStyleClass().add("chart-head");
        return head;
    }

    /** Which strategies there are. @param open the one that is looked at */
    void strategies(List<String> all, String open) {
        showing = true;
        strategies.getItems().setAll(all);
        strategies.setValue(open);
        showing = false;
    }

    /** Looks at a strategy's past days under a book. */
    void judge(StrategyDraft draft, Account account, Rulebook book, boolean complete) {
        Account of;
        try {
            of = account.with(book);
        } catch (IllegalArgumentException e) {
            nothing(book.name() + " does not fit a start of " + Format.money(account.start()) + ": " + e.getMessage());
            return;
        }
        if (!complete) {
            nothing(draft.name() + " is not complete yet: finish it in Rules.");
            return;
        }
        busy("working …", true);
        job.<PastDays.Known>ask((told, stop) -> past.work(draft.strategy().value(), of, Odds.Settings.DEFAULT, told,
                stop), known -> known(of, known), this::nothing);
    }

    private void nothing(String why) {
        job.cancel();
        reading = Optional.empty();
        prices = Optional.empty();
        path.say(why);
        odds.say("");
        busy("", false);
    }

    private void known(Account of, PastDays.Known known) {
        boolean other = !reading.equals(Optional.of(known.reading())) || !prices.equals(known.prices());
        reading = Optional.of(known.reading());
        prices = known.prices();
        path.show(known.reading(), known.curve());
        pathSaid.setText(of.rulebook().name() + ", print by print, " + AccountPathView.words(known.reading()));
        if (known.odds().isPresent()) {
            odds.show(known.odds().get(), Odds.Settings.DEFAULT.mostDays(), known.sizes(),
                    OddsWords.notWorked(of).orElse(""));
        } else {
            odds.say(known.busy());
        }
        busy(known.busy(), !known.busy().isEmpty());
        if (known.busy().isEmpty()) {
            oddsSaid.setText("from these " + known.curve().size() + " days, " + seal.get() + ", seed "
                    + Odds.Settings.DEFAULT.seed());
        }
        if (other) {
            fresh.run();
        }
    }

    private void busy(String words, boolean going) {
        oddsSaid.setText(words);
        Form.show(cancel, going);
    }

    /** What the book would have said, as far as that is known. */
    Optional<BookReading> reading() {
        return reading;
    }

    /** What each interlock saved or cost, likewise. */
    Optional<List<InterlockPrice>> prices() {
        return prices;
    }

    boolean isBusy() {
        return job.isBusy();
    }
}
