package stativex.desk.rules;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import stativex.desk.chart.ChartLink;
import stativex.desk.chart.ChartModel;
import stativex.desk.chart.ChartView;
import stativex.desk.chart.Viewport;

/** A chart for each further series of a strategy, ending where the main chart ends, their crosshairs linked. */
final class OtherCharts extends VBox {
    private static final double HEIGHT = 132;

    private final ChartLink link;
    private final Map<String, ChartView> charts = new LinkedHashMap<>();

    OtherCharts(ChartLink link) {
        this.link = link;
        setId("other-charts");
    }

    /** Shows the series of a strategy, by name and bars. */
    void show(Map<String, ChartModel> models) {
        if (!charts.keySet().equals(models.keySet())) {
            charts.values().forEach(ChartView::unlink);
            charts.clear();
            getChildren().clear();
            models.keySet().forEach(this::add);
        }
        models.forEach((name, model) -> charts.get(name).show(model));
    }

    private void add(String name) {
        ChartView chart = new ChartView(new Viewport());
        chart.setId("other-" + name.split(" ")[0]);
        chart.setAccessibleText("Chart of the series " + name + ". Arrow keys move bar by bar.");
        chart.link(link);
        chart.setPrefHeight(HEIGHT);
        chart.setMinHeight(HEIGHT);
        charts.put(name, chart);
        Label title = new Label(name);
        title.getStyleClass().add("other-title");
        title.setMaxWidth(Double.MAX_VALUE);
        getChildren().addAll(title, chart);
    }

    /**
     * Ends every chart with the bar that lies under the main chart's last one. A chart of another contract is in no link
     * with it: the crosshair goes there too.
     */
    void follow(ChartModel main, Viewport viewport, Optional<Integer> cursor) {
        if (main.bars().count() == 0) {
            return;
        }
        int last = Math.clamp(viewport.barAt(viewport.plotWidth()), 0, main.bars().count() - 1);
        charts.forEach((name, chart) -> chart.model().filter(model -> model.bars().count() > 0).ifPresent(model -> {
            if (viewport.following()) {
                chart.viewport().follow();
            } else {
                chart.viewport().endWith(model.bars().barAt(main.bars().start(last)));
            }
            if (!model.bars().contract().equals(main.bars().contract())) {
                chart.pointAt(cursor.map(bar -> main.bars().end(bar)));
            }
            chart.repaint();
        }));
    }
}
