package stativex.desk.trials;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.geometry.Insets;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.exit.ExitPlan;
import stativex.files.BadInput;
import stativex.files.DocumentFolder;
import stativex.files.Documents;
import stativex.files.SearchChoices;
import stativex.files.SearchFolder;
import stativex.files.SearchSpec;
import stativex.search.Method;
import stativex.search.Score;
import tools.jackson.databind.JsonNode;

/** The fields of a new search: numbers that are varied, choices that follow from the strategy, what ranks, how variants are chosen. */
final class SearchFields extends VBox {
    /** Ranges that a new search has room for. */
    private static final int RANGES = 3;

    private final SearchPane.Maker maker;
    private final JsonNode strategy;
    private final List<String> places;
    private final Map<String, JsonNode> numbers;
    private final List<ComboBox<String>> which = new ArrayList<>();
    private final List<TextField[]> figures = new ArrayList<>();
    private final List<Choice> choices = new ArrayList<>();
    private final TextField bars = field("search-bars", "Bars that are tried, such as tick 200, tick 400, minutes 2");
    private final ComboBox<String> score = Form.choice("search-score", "What variants are ranked by",
            Arrays.stream(Score.values()).map(Score::word).toArray(String[]::new));
    private final TextField least = field("search-least", "Fewest trades of a variant that counts");
    private final ComboBox<String> method = Form.choice("search-method", "How variants are chosen", "every one",
            "drawn at random", "halving");
    private final TextField drawn = field("search-drawn", "How many are drawn");
    private final TextField fit = field("search-fit", "Days of each fit part of a walk forward; empty: none is walked");
    private final TextField test = field("search-test", "Days of each test part of a walk forward");
    private final ComboBox<String> walk = Form.choice("search-walk", "How the fit part goes along", "rolling",
            "anchored");

    /** Something that is tried in several ways, if it is ticked. */
    private record Choice(CheckBox tick, Supplier<SearchSpec.Setting> setting) {}

    /** @param go gets the search; it throws {@link BadInput} where that cannot be begun */
    SearchFields(SearchPane.Maker maker, Consumer<SearchSpec> go) {
        super(5);
        this.maker = maker;
        this.strategy = maker.strategy();
        this.numbers = SearchFolder.numbers(strategy);
        this.places = List.copyOf(numbers.keySet());
        least.setText("30");
        drawn.setText("100");
        score.getSelectionModel().select(Score.NET_PER_TRADE.ordinal());
        method.getSelectionModel().select(0);
        walk.getSelectionModel().select(0);
        Form.show(drawn, false);
        method.setOnAction(e -> Form.show(drawn, method.getSelectionModel().getSelectedIndex() == 1));
        bars.setPromptText("tick 200, tick 400, minutes 2");
        bars.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(bars, Priority.ALWAYS);
        Label said = Form.wrapped("");
        said.setId("search-said");
        said.getStyleClass().setAll("label", "problem");
        said.managedProperty().bind(said.textProperty().isNotEmpty());
        Button start = new Button("Search");
        start.setId("search-start");
        start.setOnAction(e -> {
            try {
                said.setText("");
                go.accept(spec());
            } catch (NumberFormatException x) {
                said.setText("expected a whole number of trades, variants and days");
            } catch (BadInput | IllegalArgumentException x) {
                said.setText(x.getMessage().replaceFirst("^.*?\\$\\.?:? ?", ""));
            }
        });
        getChildren().addAll(heading("New search"),
                Form.wrapped("What of the open strategy is varied, and by how much."), ranges(), heading("Choices"),
                ways(), Form.row(Form.muted("Bars"), bars), heading("Ranked by"),
                Form.row(score, Form.muted("from"), least, Form.muted("trades on")), heading("Variants"),
                Form.row(method, drawn), heading("Walk forward"),
                Form.row(Form.muted("fit"), fit, Form.muted("days, then"), test, Form.muted("days,"), walk), start,
                said);
    }

    private VBox ranges() {
        VBox rows = new VBox(6);
        for (int i = 0; i < RANGES; i++) {
            List<String> words = new ArrayList<>(List.of("none"));
            places.forEach(place -> words.add(SearchFolder.words(strategy, place)));
            ComboBox<String> box = Form.choice("search-range-" + i, "Setting that is varied",
                    words.toArray(String[]::new));
            box.setMaxWidth(Double.MAX_VALUE);
            TextField[] fields = {field("search-from-" + i, "From"), field("search-to-" + i, "To"),
                    field("search-step-" + i, "In steps of")};
            box.valueProperty().addListener((o, before, now) -> offer(box, fields));
            which.add(box);
            figures.add(fields);
            box.getSelectionModel().select(0);
            rows.getChildren().addAll(box, Form.row(Form.muted("from"), fields[0], Form.muted("to"), fields[1],
                    Form.muted("by"), fields[2]));
        }
        places.stream().filter(place -> place.startsWith("/exit/") && !place.endsWith("/quantity")).limit(2)
                .forEach(place -> {
                    ComboBox<String> box = which.stream().filter(b -> b.getSelectionModel().getSelectedIndex() <= 0)
                            .findFirst().orElseThrow();
                    box.getSelectionModel().select(places.indexOf(place) + 1);
                });
        return rows;
    }

    private VBox ways() {
        choice("search-filters", "Filters one by one, beside no filter", SearchChoices.filters(strategy));
        choice("search-sides", "Long and short apart", SearchChoices.sides(strategy));
        choice("search-conditions", "Each condition left out", SearchChoices.conditions(strategy));
        List<Documents.Read<ExitPlan>> plans = DocumentFolder.exitPlans().list().documents();
        choice("search-plans", plans.size() + " kept exit plans",
                plans.size() > 1 ? Optional.of(SearchChoices.plans(plans)) : Optional.empty());
        VBox box = new VBox(4);
        choices.forEach(one -> box.getChildren().add(one.tick()));
        if (choices.isEmpty()) {
            box.getChildren().add(Form.muted("none in this strategy"));
        }
        return box;
    }

    private void choice(String id, String words, Optional<SearchSpec.Setting> setting) {
        setting.ifPresent(found -> {
            CheckBox tick = new CheckBox(words + " (" + found.range().values().size() + ")");
            tick.setId(id);
            choices.add(new Choice(tick, () -> found));
        });
    }

    /** @throws NumberFormatException where a count is none */
    private SearchSpec spec() {
        List<SearchSpec.Setting> settings = new ArrayList<>();
        for (int i = 0; i < RANGES; i++) {
            int at = which.get(i).getSelectionModel().getSelectedIndex() - 1;
            if (at >= 0) {
                settings.add(SearchFolder.setting(strategy, places.get(at), figures.get(i)[0].getText(),
                        figures.get(i)[1].getText(), figures.get(i)[2].getText()));
            }
        }
        choices.stream().filter(choice -> choice.tick().isSelected()).forEach(c -> settings.add(c.setting().get()));
        if (!bars.getText().isBlank()) {
            settings.add(SearchChoices.bars(strategy, bars.getText()));
        }
        Method how = switch (method.getSelectionModel().getSelectedIndex()) {
            case 1 -> new Method.Random(Long.parseLong(drawn.getText().strip()), 1);
            case 2 -> new Method.Halving();
            default -> new Method.Grid();
        };
        Optional<SearchSpec.Walk> forward = fit.getText().isBlank()
                ? Optional.empty()
                : Optional.of(new SearchSpec.Walk(Integer.parseInt(fit.getText().strip()),
                        Integer.parseInt(test.getText().strip()), walk.getSelectionModel().getSelectedIndex() == 1));
        SearchSpec spec = maker.spec(settings, how, new SearchSpec.Ranked(
                Score.values()[score.getSelectionModel().getSelectedIndex()],
                Integer.parseInt(least.getText().strip()), 16, forward));
        spec.space();
        return spec;
    }

    /** Figures around the one that the strategy has. */
    private void offer(ComboBox<String> box, TextField[] fields) {
        int at = box.getSelectionModel().getSelectedIndex() - 1;
        for (TextField field : fields) {
            field.setDisable(at < 0);
        }
        if (at < 0) {
            return;
        }
        BigDecimal now = numbers.get(places.get(at)).decimalValue();
        boolean whole = now.stripTrailingZeros().scale() <= 0;
        BigDecimal step = whole
                ? BigDecimal.valueOf(Math.max(1, now.longValue() / 8))
                : now.divide(BigDecimal.valueOf(10), MathContext.DECIMAL32).abs();
        BigDecimal reach = step.multiply(BigDecimal.valueOf(4));
        BigDecimal from = now.subtract(reach);
        fields[0].setText(plain(whole ? from.max(BigDecimal.ONE.min(now)) : from));
        fields[1].setText(plain(now.add(reach)));
        fields[2].setText(plain(step));
    }

    private static String plain(BigDecimal number) {
        return number.stripTrailingZeros().toPlainString();
    }

    private static TextField field(String id, String words) {
        TextField field = new TextField();
        field.setId(id);
        field.setAccessibleText(words);
        field.setPrefColumnCount(4);
        return field;
    }

    static Label heading(String words) {
        Label heading = new Label(words);
        heading.getStyleClass().add("heading");
        heading.setPadding(new Insets(8, 0, 2, 0));
        return heading;
    }
}
