package stativex.market;

import java.time.LocalDate;

/**
 * Closed bars of one series, in columns, oldest first. Every bar remembers the prints it was made of, so that whatever
 * needs them (a VWAP, volume by price) reads the tape instead of keeping a copy.
 */
public final class BarSeries {
    private final Tape tape;
    private final LongColumn open = new LongColumn();
    private final LongColumn high = new LongColumn();
    private final LongColumn low = new LongColumn();
    private final LongColumn close = new LongColumn();
    private final LongColumn volume = new LongColumn();
    private final LongColumn buyVolume = new LongColumn();
    private final LongColumn sellVolume = new LongColumn();
    private final LongColumn first = new LongColumn();
    private final LongColumn last = new LongColumn();
    private final LongColumn day = new LongColumn();
    private final LongColumn cut = new LongColumn();
    private final LongColumn start = new LongColumn();
    private final LongColumn end = new LongColumn();
    private final LongColumn trades = new LongColumn();
    private final LongColumn marks = new LongColumn();
    private final LongColumn nextUp = new LongColumn();
    private final LongColumn nextDown = new LongColumn();

    public BarSeries(Tape tape) {
        this.tape = tape;
    }

    public Tape tape() {
        return tape;
    }

    /** Number of closed bars. */
    public int count() {
        return close.count();
    }

    /** Ticks; likewise {@link #high}, {@link #low} and {@link #close}. */
    public long open(int bar) {
        return open.get(bar);
    }

    public long high(int bar) {
        return high.get(bar);
    }

    public long low(int bar) {
        return low.get(bar);
    }

    public long close(int bar) {
        return close.get(bar);
    }

    /** Contracts. */
    public long volume(int bar) {
        return volume.get(bar);
    }

    public long buyVolume(int bar) {
        return buyVolume.get(bar);
    }

    public long sellVolume(int bar) {
        return sellVolume.get(bar);
    }

    /** Buyer minus seller volume; contracts of an unknown aggressor count in neither. */
    public long delta(int bar) {
        return buyVolume.get(bar) - sellVolume.get(bar);
    }

    /** Prints, of a split one each part; a renko brick that one print closed together with others may have none. */
    public int trades(int bar) {
        return (int) trades.get(bar);
    }

    /** Index of the first print on the tape. */
    public int first(int bar) {
        return (int) first.get(bar);
    }

    /** Index of the last print on the tape. */
    public int last(int bar) {
        return (int) last.get(bar);
    }

    /** Beginning: of a time bar its interval, of day and longer bars the first open, else the first print. */
    public long start(int bar) {
        return start.get(bar);
    }

    /** End: of a time bar its interval, of day and longer bars the last close, else the last print. */
    public long end(int bar) {
        return end.get(bar);
    }

    /** Whether one print closed several renko bricks, this one among them. */
    public boolean oneTrade(int bar) {
        return (marks.get(bar) & Bar.ONE_TRADE) != 0;
    }

    /** Whether a day or longer bar lacks prints at its beginning. */
    public boolean incomplete(int bar) {
        return (marks.get(bar) & Bar.INCOMPLETE) != 0;
    }

    /** Whether the series restarted with this bar. */
    public boolean fresh(int bar) {
        return (marks.get(bar) & Bar.FRESH) != 0;
    }

    /** Where the next renko brick would close upward, as it stood right after this one, in ticks. */
    public long nextUp(int bar) {
        return nextUp.get(bar);
    }

    /** Where the next renko brick would close downward, likewise. */
    public long nextDown(int bar) {
        return nextDown.get(bar);
    }

    public LocalDate tradingDate(int bar) {
        return LocalDate.ofEpochDay(day.get(bar));
    }

    /** Whether the bar was closed unfinished at a session's close. */
    public boolean cut(int bar) {
        return cut.get(bar) != 0;
    }

    /** Adds the bar made of the prints {@code from} to {@code to}, both included, none of them split or left out. */
    void append(int from, int to, LocalDate date, boolean wasCut) {
        Forming f = Forming.of(tape, from, to);
        append(from, to, f.open, f.high, f.low, f.close, f.volume, f.buyVolume, f.sellVolume, date, wasCut);
        start.add(tape.time(from));
        end.add(tape.time(to));
        trades.add(to - from + 1);
        marks.add(0);
        nextUp.add(0);
        nextDown.add(0);
    }

    private void append(int from, int to, long o, long h, long l, long c, long contracts, long bought, long sold,
            LocalDate date, boolean wasCut) {
        open.add(o);
        high.add(h);
        low.add(l);
        close.add(c);
        volume.add(contracts);
        buyVolume.add(bought);
        sellVolume.add(sold);
        first.add(from);
        last.add(to);
        day.add(date.toEpochDay());
        cut.add(wasCut ? 1 : 0);
    }

    /** Adds a bar as it was formed. */
    void append(Bar bar) {
        append(bar.first, bar.last, bar.open, bar.high, bar.low, bar.close, bar.volume, bar.bought, bar.sold, bar.date,
                (bar.marks & Bar.CUT) != 0);
        start.add(bar.start);
        end.add(bar.end);
        trades.add(bar.trades);
        marks.add(bar.marks);
        nextUp.add(bar.nextUp);
        nextDown.add(bar.nextDown);
    }

    /** An immutable view of the closed bars, safe to hand to another thread. */
    public View view() {
        return new View(open.prefix(), high.prefix(), low.prefix(), close.prefix(), volume.prefix(), buyVolume.prefix(),
                sellVolume.prefix(), first.prefix(), last.prefix(), day.prefix(), cut.prefix());
    }

    /** See {@link BarSeries#view()}. */
    public record View(LongColumn.Prefix open, LongColumn.Prefix high, LongColumn.Prefix low, LongColumn.Prefix close,
            LongColumn.Prefix volume, LongColumn.Prefix buyVolume, LongColumn.Prefix sellVolume,
            LongColumn.Prefix first, LongColumn.Prefix last, LongColumn.Prefix day, LongColumn.Prefix cut) {
        public int count() {
            return close.count();
        }
    }

    /** A bar as its prints make it, closed or not. Prices in ticks, volumes in contracts. */
    public record Forming(int first, int last, long open, long high, long low, long close, long volume, long buyVolume,
            long sellVolume) {

        /** The bar that the prints {@code from} to {@code to} make, both included. */
        public static Forming of(Tape tape, int from, int to) {
            Bar bar = new Bar(LocalDate.EPOCH);
            bar.takeAll(tape, from, to + 1);
            return new Forming(from, to, bar.open, bar.high, bar.low, bar.close, bar.volume, bar.bought, bar.sold);
        }
    }
}
