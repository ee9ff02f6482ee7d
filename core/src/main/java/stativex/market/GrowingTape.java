package stativex.market;

import java.util.Optional;

/**
 * A tape to which prints are added while it is read: that of a live day, behind what was kept of the days before. One thread adds; others
 * may read prints of which they have learned from it since.
 *
 * <p>Caveats: there is room for {@value #BLOCKS} blocks of {@value TapeBlock#FULL} prints behind the days before; what comes then is
 * refused. Joined, cut or incomplete tapes made of it hold what it had when they were made.
 */
public final class GrowingTape {
    private static final int BLOCKS = 4096;

    private final Tape tape;
    private final PrintCheck check = new PrintCheck();
    private TapeBlock forming;

    /** @param before prints of earlier days; an empty tape where there are none */
    public GrowingTape(Tape before) {
        tape = new Tape(before, BLOCKS);
        int last = before.count() - 1;
        int different = last;
        while (different > 0 && before.price(different) == before.price(last)) {
            different--;
        }
        // the last price, and the last one unlike it: what an aggressor is worked out from
        for (int print = different; print >= 0 && print <= last; print += Math.max(1, last - different)) {
            check.take(before.time(print), before.price(print), before.size(print), Tape.NONE, Tape.NONE,
                    before.price(print), Optional.of(before.aggressor(print)));
        }
    }

    /** The tape as it stands, and as it will. */
    public Tape tape() {
        return tape;
    }

    /** What it holds by now, as narrow as a tape that is kept. */
    public Tape kept() {
        TapeBuilder kept = new TapeBuilder(Math.max(1, tape.count()));
        for (int print = 0; print < tape.count(); print++) {
            kept.add(tape.time(print), tape.price(print), tape.size(print), tape.bid(print), tape.ask(print),
                    tape.bidSize(print), tape.askSize(print), Optional.of(tape.aggressor(print)));
        }
        return kept.build().withIncomplete(tape.incomplete());
    }

    /** Prints of a session were missed: it is incomplete from now on. */
    public void lacks(Session session) {
        tape.lacks(new Tape.SessionName(session.tradingDate(), session.name()));
    }

    /** Time of the last print; {@link Long#MIN_VALUE} before the first. */
    public long lastTime() {
        return check.lastTime();
    }

    /**
     * Adds a print.
     *
     * @param bid best bid just before it in ticks, or {@link Tape#NONE}; likewise {@code ask}
     * @param bidSize contracts at the best bid, or {@link Tape#NONE}; likewise {@code askSize}
     * @param given the aggressor the source states; empty works it out
     * @return its place
     * @throws IllegalArgumentException when time goes back, the size is below 1, a value is out of range, or there is no room; nothing
     *     is added then
     */
    public int add(long nanos, long ticks, long contracts, long bid, long ask, long bidSize, long askSize,
            Optional<Aggressor> given) {
        boolean next = forming == null || forming.count() == TapeBlock.FULL;
        if (next && tape.isFull()) {
            throw new IllegalArgumentException("expected at most " + tape.count() + " prints, found one more");
        }
        int code = check.take(nanos, ticks, contracts, bid, ask, next ? ticks : forming.base(ticks), given);
        if (next) {
            forming = TapeBlock.forming(tape.count());
        }
        forming.add(nanos, ticks, code, bid, ask, bidSize, askSize);
        if (next) {
            tape.begin(forming, nanos);
        }
        tape.grown();
        return tape.count() - 1;
    }
}
