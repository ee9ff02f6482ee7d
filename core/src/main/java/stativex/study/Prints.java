package stativex.study;

import java.util.List;
import java.util.Optional;
import stativex.market.ContractSink;
import stativex.market.Tape;

/**
 * What a bar's prints say beside its prices: their sizes, the spread, how long they took. Of a print that was split
 * between bars each has its part. A bar that forms is counted anew at each print. Common practice, no source.
 */
final class Prints extends Study implements ContractSink {
    static final StudyKind KIND = new StudyKind("prints", "Prints", "size, spread and pace of a bar's prints",
            Optional.empty(), List.of(), false,
            "`.largest` contracts of the largest print, `.last` of the last one, absent in a bar without contracts; `.spread` best offer less best bid just before the last print, in ticks, absent without both; `.seconds` from the first print to the last; 1 bar; common practice",
            Prints::new);

    private final OutputColumn largest = output("largest", Unit.NUMBER, Mirror.SAME);
    private final OutputColumn last = output("last", Unit.NUMBER, Mirror.SAME);
    private final OutputColumn spread = output("spread", Unit.DISTANCE, Mirror.SAME);
    private final OutputColumn seconds = output("seconds", Unit.NUMBER, Mirror.SAME);
    private final Frame frame;
    private long most;
    private long latest;

    Prints(StudyInputs in) {
        this.frame = in.frame();
    }

    @Override
    public void take(int print, long contracts) {
        most = Math.max(most, contracts);
        latest = contracts;
    }

    @Override
    void compute(int from, int to) {
        Tape tape = frame.tape();
        for (int row = from; row < to; row++) {
            most = 0;
            frame.contracts(row, this);
            int print = frame.last(row);
            boolean any = most > 0;
            boolean quoted = any && tape.bid(print) != Tape.NONE && tape.ask(print) != Tape.NONE;
            largest.values()[row] = any ? most : Double.NaN;
            last.values()[row] = any ? latest : Double.NaN;
            spread.values()[row] = quoted ? tape.ask(print) - tape.bid(print) : Double.NaN;
            seconds.values()[row] = (tape.time(print) - tape.time(frame.first(row))) / 1e9;
        }
    }
}
