package stativex.desk.live;

import java.time.ZoneId;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.IntConsumer;
import stativex.demo.Demo;
import stativex.desk.chart.ChartLink;
import stativex.desk.run.RunStage;
import stativex.engine.Command;
import stativex.files.ForwardDays;
import stativex.files.BadInput;
import stativex.files.TrialFolder;
import stativex.link.LiveDay;
import stativex.trial.Inputs;

/** A live day in the window: the Run stage on it, the bar below, and the sheet before a strategy is engaged. */
public final class LivePart implements AutoCloseable {
    private final LiveDay day;
    private final ZoneId own;
    private final Inputs inputs;
    private final RunStage stage;
    private final LiveBar bar;
    private final IntConsumer go;
    private Optional<EngageSheet> sheet = Optional.empty();

    /**
     * @param own the person's zone
     * @param link of the charts that follow each other
     * @param go goes to a stage
     * @param ends ends it
     */
    public LivePart(LiveDay day, ZoneId own, ChartLink link, IntConsumer go, Runnable ends) {
        this.day = day;
        this.own = own;
        this.go = go;
        this.inputs = day.inputs();
        bar = new LiveBar(own, this::send, ends);
        stage = new RunStage(inputs, own, day.latest(), link, this::send, bar, Optional.of(this::engages));
    }

    /** The person's command; an entry of theirs is not sent either while orders are held back. */
    public void send(Command command) {
        if (command instanceof Command.Enter && !bar.sends()) {
            day.note("your order was not sent: orders are held back");
            bar.points();
            return;
        }
        day.command(command);
    }

    /** The day itself. */
    public LiveDay day() {
        return day;
    }

    /** The Run stage on it. */
    public RunStage stage() {
        return stage;
    }

    /** Whether orders are sent. */
    public boolean sends() {
        return bar.sends();
    }

    private void engages(int index) {
        sheet = Optional.of(new EngageSheet(day, inputs, index, own, bar::sends, () -> evidence(index),
                new EngageSheet.Acts() {
                    @Override
                    public void go(int to) {
                        go.accept(to);
                    }

                    @Override
                    public void closed() {
                        sheet = Optional.empty();
                        stage.instead(Optional.empty(), index);
                        stage.requestFocus();
                    }
                }));
        stage.instead(Optional.of(sheet.get()), index);
        sheet.get().requestFocus();
    }

    /** What the disk knows of the version that is to be engaged. */
    private EngageSheet.Evidence evidence(int index) {
        String version = inputs.strategies().get(index).version();
        OptionalInt trial = TrialFolder.own().list().stream().filter(kept -> kept.versions().contains(version))
                .mapToInt(TrialFolder.Kept::number).max();
        int days;
        try {
            days = ForwardDays.recorded(version, Demo::tape).days().size();
        } catch (BadInput e) {
            days = 0;
        }
        return new EngageSheet.Evidence(trial, days);
    }

    /** Shows what the day has come to. */
    public void show(LiveDay.View view) {
        stage.show(view);
        bar.show(view);
        sheet.ifPresent(EngageSheet::show);
    }

    @Override
    public void close() {
        day.close();
    }
}
