package stativex.market;

/**
 * Renko S:T. The first brick of a stretch opens at its first print and closes at open ± S; after an up close at C the next
 * closes are C + S and C − T, mirrored after a down close. A print at or beyond a level closes the brick at that level; a
 * jump makes several bricks, all marked one trade. Opens and jumped closes never traded.
 */
final class RenkoFormer extends BarFormer {
    private final long step;
    private final long turn;
    /** The forming brick counts its prints; its prices are set when it closes. */
    private Bar bar;
    private boolean begun;
    private long lastClose;
    private long up;
    private long down;
    /** Highest and lowest real price since the print that closed the brick before, its own included. */
    private long highest;
    private long lowest;

    RenkoFormer(Tape tape, BarType.Renko type) {
        super(tape);
        this.step = type.step();
        this.turn = type.turn();
    }

    @Override
    void take(int print, Session session) {
        long price = tape.price(print);
        if (!begun) {
            begun = true;
            lastClose = price;
            up = price + step;
            down = price - step;
            highest = price;
            lowest = price;
            bar = new Bar(session.tradingDate());
        }
        if (bar == null) {
            bar = new Bar(session.tradingDate());
        }
        if (bar.isEmpty()) {
            bar.date = session.tradingDate();
        }
        bar.take(tape, print, tape.size(print));
        boolean rises = price >= up;
        if (!rises && price > down) {
            highest = Math.max(highest, price);
            lowest = Math.min(lowest, price);
            return;
        }
        long bricks = 1 + (rises ? price - up : down - price) / step;
        refuse(bricks);
        for (long i = 0; i < bricks; i++) {
            brick(rises, print, session, bricks > 1);
        }
        highest = price;
        lowest = price;
        bar = null;
    }

    /** The same, all prints that close no brick at a time: a test holds it equal to {@link #take}. */
    @Override
    void takeRun(int from, int to, Session session) {
        int print = from;
        while (print < to) {
            if (bar == null || bar.isEmpty()) {
                take(print++, session);
                continue;
            }
            TapeBlock block = tape.holding(print);
            int end = Math.min(to, block.first() + block.count());
            int reaches = block.reaches(print, end, down, up);
            if (reaches > print) {
                bar.takeAll(tape, print, reaches);
                highest = Math.max(highest, bar.high);
                lowest = Math.min(lowest, bar.low);
            }
            if (reaches < end) {
                take(reaches, session);
                reaches++;
            }
            print = reaches;
        }
    }

    private void brick(boolean rises, int print, Session session, boolean oneTrade) {
        if (bar == null) {
            bar = new Bar(session.tradingDate());
            bar.first = print;
            bar.last = print;
            bar.start = tape.time(print);
            bar.end = bar.start;
        }
        long close = rises ? up : down;
        boolean continues = close == (rises ? lastClose + step : lastClose - step);
        bar.open = continues ? lastClose : rises ? close - step : close + step;
        bar.close = close;
        // the closing print reaches only up to the close
        bar.high = Math.max(Math.max(bar.open, close), highest);
        bar.low = Math.min(Math.min(bar.open, close), lowest);
        bar.marks |= oneTrade ? Bar.ONE_TRADE : 0;
        lastClose = close;
        up = close + (rises ? step : turn);
        down = close - (rises ? turn : step);
        highest = close;
        lowest = close;
        bar.nextUp = up;
        bar.nextDown = down;
        close(bar);
        bar = null;
    }

    @Override
    void closes(Session session, boolean restarts) {
        if (restarts) {
            begun = false;
            bar = null;
        }
    }
}
