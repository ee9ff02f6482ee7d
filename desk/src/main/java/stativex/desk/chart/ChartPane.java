package stativex.desk.chart;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.FilePicker;
import stativex.desk.look.Snapshots;

/** A chart with its head (what it shows, every value under the crosshair) and its tools. */
public final class ChartPane extends BorderPane {
    private final ChartView chart;
    private final FilePicker picker;
    private final Label title = new Label();
    private final Label figures = new Label();
    private final Label studies = new Label();
    private final Label said = new Label();
    private final TextField name = new TextField();
    private final TextField zone = new TextField();
    private final HBox headline;
    private ZoneId second;
    private final Map<String, ToggleButton> options = new LinkedHashMap<>();
    private Runnable optionsChanged = () -> {
    };
    private final ToggleButton level = tool("Level", ChartView.Tool.LEVEL, "A level line at the next click (L)");
    private final ToggleButton slope = tool("Slope", ChartView.Tool.SLOPE,
            "A straight line through the next two clicks (S)");
    private final ToggleButton marker = tool("Marker", ChartView.Tool.MARKER, "A marker at the next click (M)");

    /**
     * @param own the person's own zone, for the second time axis
     * @param tearOff opens a second window of the same chart
     */
    public ChartPane(ZoneId own, FilePicker picker, Consumer<ChartPane> tearOff) {
        this.chart = new ChartView(new Viewport());
        this.picker = picker;
        this.second = own;
        title.getStyleClass().add("title");
        title.setId("chart-title");
        title.setMinWidth(Region.USE_PREF_SIZE);
        figures.getStyleClass().add("figures");
        figures.setId("chart-figures");
        studies.getStyleClass().add("studies");
        zone.setText(own.getId());
        zone.setId("chart-zone");
        zone.setPrefWidth(126);
        zone.setMinWidth(126);
        zone.setAccessibleText("Zone of the second time axis");
        zone.setTooltip(new Tooltip("Zone of the second time axis, such as Europe/Helsinki"));
        zone.setOnAction(e -> chooseZone());
        zone.focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                chooseZone();
            }
        });
        Region between = new Region();
        HBox.setHgrow(between, Priority.ALWAYS);
        headline = new HBox(14, title, between, zone);
        headline.setAlignment(Pos.BASELINE_LEFT);
        VBox head = new VBox(2, headline, figures, studies);
        head.getStyleClass().addAll("chart-head", "tall");
        name.setPromptText("name");
        name.setId("drawing-name");
        name.setPrefColumnCount(6);
        name.setAccessibleText("Name of the selected drawing");
        name.setOnAction(e -> rename());
        name.focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                rename();
            }
        });
        Button remove = button("Delete", "Takes the selected drawing away (Delete)", () -> {
            chart.drawings().ifPresent(Drawings::remove);
            chart.repaint();
            refresh();
        });
        said.getStyleClass().add("muted");
        said.setMinWidth(0);
        said.setId("chart-said");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox tools = new HBox(4, option("Flow", "Opens wide bars up into buyer and seller volume at each price",
                o -> o.withFlow(!o.flow())),
                option("Ticks", "The price axis counts ticks from the newest price", o -> o.withTicks(!o.ticks())),
                option("Delta", "Buyer less seller volume in a panel", o -> o.withDelta(!o.delta())),
                option("Panels", "Studies that are no prices in panels of their own",
                        o -> o.withStudyPanels(!o.studyPanels())),
                option("Own time", "A second time axis, in the zone of the field above", o -> o.withOwn(
                        o.own().isPresent() ? Optional.empty() : Optional.of(second))),
                space(), level, slope, marker, name, remove, said, gap,
                button("Fit", "Price axis fits the bars again (double click on it)", chart::fitPrices),
                button("Picture…", "Keeps the chart as PNG or SVG", this::picture),
                button("Window", "The same chart again, in a window that follows this one's crosshair",
                        () -> tearOff.accept(this)));
        tools.setAlignment(Pos.CENTER_LEFT);
        tools.getStyleClass().add("chart-tools");
        setTop(new VBox(head, tools));
        setCenter(chart);
        getStyleClass().add("centre");
        chart.onMove(this::refresh);
    }

    private static Node space() {
        Region space = new Region();
        space.setMinWidth(8);
        return space;
    }

    private static Button button(String text, String tip, Runnable action) {
        Button button = new Button(text);
        button.getStyleClass().add("small");
        button.setTooltip(new Tooltip(tip));
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(e -> action.run());
        return button;
    }

    private ToggleButton option(String text, String tip, UnaryOperator<ChartOptions> change) {
        ToggleButton button = new ToggleButton(text);
        button.setId("option-" + text.toLowerCase(Locale.ROOT).replace(' ', '-'));
        button.getStyleClass().add("small");
        button.setTooltip(new Tooltip(tip));
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(e -> {
            chart.options(change.apply(chart.options()));
            refresh();
            optionsChanged.run();
        });
        options.put(text, button);
        return button;
    }

    private ToggleButton tool(String text, ChartView.Tool tool, String tip) {
        ToggleButton button = new ToggleButton(text);
        button.setId("tool-" + text.toLowerCase(Locale.ROOT));
        button.getStyleClass().add("small");
        button.setTooltip(new Tooltip(tip));
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(e -> {
            chart.tool(button.isSelected() ? tool : ChartView.Tool.NONE);
            refresh();
        });
        return button;
    }

    public ChartView chart() {
        return chart;
    }

    /** Sets an option as its button does. */
    public void press(String option) {
        ((ToggleButton) lookup("#option-" + option)).fire();
    }

    /** Puts something of the chart's owner at the right end of its head. */
    public void beside(Region node) {
        node.setMinWidth(Region.USE_PREF_SIZE);
        headline.getChildren().add(node);
    }

    /** Told when the person draws the chart in another way. */
    public void onOptions(Runnable told) {
        optionsChanged = told;
    }

    /** Draws the chart in another way; the buttons say so. */
    public void options(ChartOptions next) {
        next.own().ifPresent(shown -> {
            second = shown;
            zone.setText(shown.getId());
        });
        options.get("Flow").setSelected(next.flow());
        options.get("Ticks").setSelected(next.ticks());
        options.get("Delta").setSelected(next.delta());
        options.get("Panels").setSelected(next.studyPanels());
        options.get("Own time").setSelected(next.own().isPresent());
        chart.options(next);
        refresh();
    }

    /** Shows a model under a title. */
    public void show(String words, ChartModel model) {
        title.setText(words);
        chart.show(model);
        refresh();
    }

    public String title() {
        return title.getText();
    }

    private void refresh() {
        chart.model().ifPresent(model -> {
            figures.setText(Readout.figures(chart, model));
            studies.setText(Readout.studies(chart, model));
        });
        zone.setVisible(chart.options().own().isPresent());
        zone.setManaged(zone.isVisible());
        level.setSelected(chart.tool() == ChartView.Tool.LEVEL);
        slope.setSelected(chart.tool() == ChartView.Tool.SLOPE);
        marker.setSelected(chart.tool() == ChartView.Tool.MARKER);
        String selected = chart.drawings().flatMap(Drawings::selected).map(d -> d.name()).orElse("");
        if (!name.isFocused() && !name.getText().equals(selected)) {
            name.setText(selected);
            said.setText("");
        }
        name.setDisable(selected.isEmpty());
    }

    private void chooseZone() {
        try {
            second = ZoneId.of(zone.getText().strip());
            said.setText("");
            if (chart.options().own().isPresent()) {
                chart.options(chart.options().withOwn(Optional.of(second)));
                optionsChanged.run();
            }
        } catch (DateTimeException e) {
            said.setText("no zone of that name");
        }
    }

    private void rename() {
        said.setText(chart.drawings().flatMap(d -> d.rename(name.getText().strip())).orElse(""));
        chart.repaint();
    }

    private void picture() {
        picker.save("Keep the chart as a picture", "chart.png", "png", "svg").ifPresent(file -> {
            try {
                write(file);
                said.setText("kept in " + file.getFileName());
            } catch (IOException e) {
                said.setText("could not be kept: " + e.getMessage());
            }
        });
    }

    /** Writes the chart as SVG if the name ends so, else as PNG. */
    public void write(Path file) throws IOException {
        if (file.toString().toLowerCase(Locale.ROOT).endsWith(".svg")) {
            Files.writeString(file, chart.svg(), StandardCharsets.UTF_8);
        } else {
            Snapshots.write(chart.snapshot(null, null), file);
        }
    }
}
