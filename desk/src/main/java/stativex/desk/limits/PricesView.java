package stativex.desk.limits;

import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.evidence.InterlockPrice;
import stativex.files.ResultWords;

/** What each interlock saved or cost on past days, in rows. */
final class PricesView extends VBox {
    PricesView() {
        super(3);
        setId("interlock-prices");
    }

    void show(List<InterlockPrice> prices) {
        getChildren().clear();
        Label heading = new Label("What each interlock saved or cost");
        heading.getStyleClass().add("heading");
        getChildren().add(heading);
        prices.forEach(price -> {
            Region gap = new Region();
            HBox.setHgrow(gap, Priority.ALWAYS);
            Label words = new Label(ResultWords.of(price.reason()));
            Label declined = Form.muted(price.declined() + " declined");
            declined.setPrefWidth(92);
            Label saved = new Label(Format.signedMoney(price.saved()));
            saved.getStyleClass().add("fact");
            HBox row = Form.row(words, gap, declined, saved);
            row.setAccessibleText(words.getText() + ": " + declined.getText() + ", "
                    + (price.saved() < 0 ? "cost " : "saved ") + Format.money(Math.abs(price.saved())));
            getChildren().add(row);
        });
        getChildren().add(Form.muted(prices.isEmpty()
                ? "Nothing was declined."
                : "saved +, cost −: would-be trades at the same realism"));
        setAccessibleText("What each interlock saved or cost: " + prices.size() + " rows");
    }
}
