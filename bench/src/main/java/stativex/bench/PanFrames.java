package stativex.bench;

import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.stage.Stage;
import stativex.demo.Demo;
import stativex.desk.chart.ChartBars;
import stativex.desk.chart.ChartModel;
import stativex.desk.chart.ChartView;
import stativex.desk.chart.HistoryStudies;
import stativex.desk.chart.Viewport;
import stativex.desk.look.Look;
import stativex.market.BarSeries;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.SeriesBuilder;
import stativex.market.Session;
import stativex.market.TapeBuilder;
import stativex.study.StudyDefinition;

/**
 * Frames of a chart of a million bars at 1000 × 600 while it is panned: 1 500 bars in view, three studies, each frame another
 * range. Arguments: seconds (60), largest 95th percentile in milliseconds (16), bars in view (1500).
 */
final class PanFrames {
    private static final int BARS = 1_000_000;
    private static final int PRINTS = 3;

    private PanFrames() {}

    public static void main(String[] arguments) throws InterruptedException {
        int seconds = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 60;
        long most = arguments.length > 1 ? Long.parseLong(arguments[1]) : 16;
        int shown = arguments.length > 2 ? Integer.parseInt(arguments[2]) : 1500;
        PulseLog log = PulseLog.install();
        Contract contract = Demo.documents().contract().value();
        BarSeries series = series(contract);
        ChartModel model = new ChartModel(ChartBars.history(contract, series, false),
                HistoryStudies.of(List.of(StudyDefinition.of("fast", "ema", "length", "21"),
                        StudyDefinition.of("slow", "ema", "length", "89"), StudyDefinition.of("mean", "vwap")), series,
                        contract.tickSize())
                        .lines().stream().filter(study -> List.of("fast", "slow", "mean").contains(study.name()))
                        .toList(),
                Optional.empty(), Optional.empty());
        CountDownLatch done = new CountDownLatch(1);
        int[] frames = new int[1];
        Platform.startup(() -> {
            Look.load();
            Viewport viewport = new Viewport();
            ChartView chart = new ChartView(viewport);
            Scene scene = new Scene(chart, 1000, 600);
            Look.apply(scene);
            Stage stage = new Stage();
            stage.setScene(scene);
            stage.setX(0);
            stage.setY(0);
            stage.show();
            chart.show(model);
            SplittableRandom dice = new SplittableRandom(1);
            new AnimationTimer() {
                private double at = series.count();
                private double way = -shown / 40.0;

                @Override
                public void handle(long now) {
                    at += way;
                    if (frames[0]++ % 120 == 119) {
                        // somewhere else, and the other way
                        at = shown + dice.nextDouble(series.count() - 2.0 * shown);
                        way = -way;
                    }
                    viewport.show(shown, at);
                    chart.repaint();
                }
            }.start();
            Thread.ofPlatform().daemon().start(() -> {
                try {
                    TimeUnit.SECONDS.sleep(5);
                    log.count(true);
                    TimeUnit.SECONDS.sleep(seconds);
                    log.count(false);
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                }
                done.countDown();
            });
        });
        done.await();
        System.out.printf("%d bars, %d in view, %d pulses in %d s%n", series.count(), shown, log.count(), seconds);
        log.say(most);
        System.exit(log.count() > 10L * seconds && log.ninetyFifth() <= most ? 0 : 1);
    }

    private static BarSeries series(Contract contract) {
        SplittableRandom dice = new SplittableRandom(7);
        TapeBuilder tape = new TapeBuilder(BARS * PRINTS);
        Session session = contract.calendar().current(1_600_000_000_000_000_000L).orElseThrow();
        long time = session.open();
        long price = 5000;
        for (int i = 0; i < BARS * PRINTS; i++) {
            time += dice.nextLong(2_000_000_000L);
            if (time >= session.close()) {
                session = contract.calendar().after(session).orElseThrow();
                time = session.open();
            }
            price = Math.max(1000, price + dice.nextInt(-2, 3));
            tape.add(time, price, dice.nextInt(1, 9), price - 1, price + 1);
        }
        return SeriesBuilder.all(tape.build(), contract.calendar(), BarSettings.of(new BarType.Ticks(PRINTS)));
    }
}
