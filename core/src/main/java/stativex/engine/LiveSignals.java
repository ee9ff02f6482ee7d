package stativex.engine;

import java.util.Map;
import java.util.Optional;
import stativex.market.BarSeries;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.SeriesBuilder;
import stativex.market.Tape;
import stativex.rule.Program;

/** Bars made print by print, each judged when it closes: the plain way, and the only one where the rest of the tape is not known. */
final class LiveSignals extends Signals {
    private final SeriesBuilder builder;

    private LiveSignals(SeriesBuilder builder, Program program, Strategy strategy) {
        super(program, strategy);
        this.builder = builder;
    }

    /** @param from prints before this time are left out, nanoseconds */
    static LiveSignals of(Strategy strategy, Contract contract, Tape tape, Map<String, ContractTape> others,
            long from) {
        SeriesBuilder builder = new SeriesBuilder(tape, contract.calendar(), strategy.signals().bars(), from);
        return new LiveSignals(builder,
                new Program(strategy.signals().blueprint(contract, others).since(from), builder.series()), strategy);
    }

    @Override
    BarSeries series() {
        return builder.series();
    }

    @Override
    int closed() {
        return builder.series().count();
    }

    @Override
    int judged() {
        return program.rows();
    }

    @Override
    void judgeNext() {
        program.takeNext();
    }

    @Override
    void print(int print) {
        builder.print(print);
    }

    @Override
    void heartbeat(long time) {
        builder.heartbeat(time);
    }

    @Override
    void standAs(Signals before, int print, long time) {
        builder.prints(0, print + 1);
        builder.heartbeat(time);
        judgeAs(before);
    }

    @Override
    long nextClock(int expiry) {
        return builder.nextBar();
    }

    @Override
    int printAtNextClock(int expiry) {
        return builder.series().tape().firstAt(nextClock(expiry));
    }

    @Override
    int barHolding(int print) {
        int closed = closed();
        boolean inClosed = closed > 0 && series().last(closed - 1) == print;
        return inClosed && (series().isRenko() || builder.forming().isEmpty()) ? closed - 1 : closed;
    }

    @Override
    boolean givesUpForming() {
        return builder.begunAnew();
    }

    @Override
    Optional<BarSeries.Forming> forming(int lastPrint, long now) {
        return builder.forming();
    }

    @Override
    boolean judgeForming(long time) {
        Optional<BarSeries.Forming> forming = builder.forming();
        forming.ifPresent(bar -> program.takeForming(bar, time));
        return forming.isPresent();
    }

    @Override
    int nextPrintThatMatters(int expiry) {
        return 0;
    }

    @Override
    void catchUp(long time, int expiry, ClosedBars told) {
        // the clock tells of every bar
    }

    @Override
    void quiet(int last, long time, ClosedBars told) {
        throw new IllegalStateException("every print matters where the next bar is not known");
    }
}
