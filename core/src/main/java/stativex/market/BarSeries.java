package stativex.market;

import java.time.LocalDate;
import java.util.Optional;

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
    private final LongColumn firstPart = new LongColumn();
    private final LongColumn closedAt = new LongColumn();
    private final LongColumn stretchHigh = new LongColumn();
    private final LongColumn stretchLow = new LongColumn();
    private final LongColumn stretchVolume = new LongColumn();
    private int begin;
    private Optional<Filter> filter = Optional.empty();
    private Optional<Bar> forming = Optional.empty();

    /** Bars whose extremes are kept together. */
    private static final int STRETCH = 256;

    /** Which prints make bars. */
    private record Filter(SessionCalendar calendar, BarSettings settings) {}

    public BarSeries(Tape tape) {
        this.tape = tape;
    }

    /** The first print that was looked at: earlier ones on the tape are as if they were not there. */
    public int begin() {
        return begin;
    }

    /** Prints before {@code time} are left out, nanoseconds. */
    void since(long time) {
        begin = time == Long.MIN_VALUE ? 0 : tape.firstAt(time);
    }

    /** Whether there is a print at all, and the first came too late after {@code open}. */
    public boolean joinedLate(long open) {
        return begin >= tape.count() || calendar().late(open, tape.time(begin));
    }

    public Tape tape() {
        return tape;
    }

    /** The tape ended while this bar was forming. */
    void forming(Bar bar) {
        forming = Optional.of(bar);
    }

    /** The bar that was forming when the tape ended; a whole history has one, unless a bar closed with the last print. */
    public Optional<Forming> forming() {
        return forming.map(Forming::of);
    }

    /** Only prints inside sessions that the settings use make bars; others may lie between a bar's first and last. */
    void from(SessionCalendar calendar, BarSettings settings) {
        filter = Optional.of(new Filter(calendar, settings));
    }

    /**
     * The calendar the bars were made by.
     *
     * @throws java.util.NoSuchElementException when they were made of whole prints without one
     */
    public SessionCalendar calendar() {
        return filter.orElseThrow().calendar();
    }

    /** The session that contains {@code time}, or the next one. */
    Optional<Session> session(long time) {
        return filter.orElseThrow().calendar().current(time);
    }

    boolean uses(Session session) {
        return filter.orElseThrow().settings().uses(session);
    }

    /** Whether these are bricks, which say where the next one would close. */
    public boolean isRenko() {
        return filter.isPresent() && filter.get().settings().type() instanceof BarType.Renko;
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

    /** Contracts that the bar has of its first print; the rest of a split one belongs to bars before it. */
    long firstPart(int bar) {
        return firstPart.get(bar);
    }

    /** When the clock closed the bar, nanoseconds; {@link Tape#NONE} when a print closed it. */
    public long closedAt(int bar) {
        return closedAt.get(bar);
    }

    /**
     * The print that closed the bar: its last one, of a range bar the one that broke it.
     *
     * @throws IllegalStateException when the clock closed it
     */
    public int closingPrint(int bar) {
        if (closedAt(bar) != Tape.NONE) {
            throw new IllegalStateException("no print closed bar " + bar);
        }
        int print = last(bar);
        if (filter.isPresent() && filter.get().settings().type() instanceof BarType.Range) {
            print++;
            for (long time = tape.time(print); !makesBars(time); time = tape.time(print)) {
                print = Math.max(print + 1, tape.firstAt(session(time).map(Session::open).orElse(time)));
            }
        }
        return print;
    }

    private boolean makesBars(long time) {
        return session(time).filter(s -> s.contains(time) && uses(s)).isPresent();
    }

    /** Prints that had been taken when a bar closed: its evaluation knows no later one. */
    public int printsTaken(int bar) {
        return closedAt(bar) == Tape.NONE ? closingPrint(bar) + 1 : tape.firstAt(closedAt(bar));
    }

    /** Time of the moment at which a bar closed: that of the print, or of the clock. */
    public long moment(int bar) {
        return closedAt(bar) == Tape.NONE ? tape.time(closingPrint(bar)) : closedAt(bar);
    }

    /** Every contract of a closed bar, print by print. */
    public void contracts(int bar, ContractSink sink) {
        if (volume(bar) > 0) {
            contracts(first(bar), last(bar), firstPart(bar), volume(bar), sink);
        }
    }

    /** Every contract of a bar that is not closed yet. */
    public void contracts(Forming bar, ContractSink sink) {
        if (bar.volume() > 0) {
            contracts(bar.first(), bar.last(), bar.firstPart(), bar.volume(), sink);
        }
    }

    private void contracts(int from, int to, long part, long contracts, ContractSink sink) {
        sink.take(from, part);
        long left = contracts - part;
        int print = from + 1;
        if (print < to && filter.isPresent()
                && session(tape.time(from)).filter(s -> s.contains(tape.time(to))).isPresent()) {
            // all in one session, as most bars are
            sink.takeWhole(tape, print, to);
            left = filter.get().settings().type() instanceof BarType.Volume
                    ? left - tape.contracts(print, to)
                    : tape.size(to);
            print = to;
        }
        while (print < to) {
            // prints of sessions that make no bars may lie in between
            Optional<Session> session = filter.isPresent() ? session(tape.time(print)) : Optional.empty();
            int end = session.isPresent() ? Math.min(to, tape.firstAt(session.get().close())) : to;
            int begin = session.isPresent()
                    ? Math.min(end, Math.max(print, tape.firstAt(session.get().open())))
                    : print;
            if (begin < end && (session.isEmpty() || uses(session.get()))) {
                sink.takeWhole(tape, begin, end);
                left -= tape.contracts(begin, end);
            }
            print = end;
        }
        if (to > from) {
            sink.take(to, left);
        }
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
        if (count() % STRETCH == 0) {
            keepExtremes(count() - STRETCH);
        }
    }

    private void keepExtremes(int from) {
        long highest = Long.MIN_VALUE;
        long lowest = Long.MAX_VALUE;
        long most = 0;
        for (int bar = from; bar < from + STRETCH; bar++) {
            highest = Math.max(highest, high.get(bar));
            lowest = Math.min(lowest, low.get(bar));
            most = Math.max(most, volume.get(bar));
        }
        stretchHigh.add(highest);
        stretchLow.add(lowest);
        stretchVolume.add(most);
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
        firstPart.add(bar.firstPart);
        closedAt.add(bar.closedAt);
    }

    /** An immutable view of the closed bars, safe to hand to another thread. */
    public View view() {
        return view(count());
    }

    /** The same of the first {@code bars} of them. */
    public View view(int bars) {
        int stretches = bars / STRETCH;
        return new View(open.prefix(bars), high.prefix(bars), low.prefix(bars), close.prefix(bars), volume.prefix(bars),
                buyVolume.prefix(bars), sellVolume.prefix(bars), first.prefix(bars), last.prefix(bars),
                day.prefix(bars),
                cut.prefix(bars), start.prefix(bars), end.prefix(bars), marks.prefix(bars),
                stretchHigh.prefix(stretches), stretchLow.prefix(stretches), stretchVolume.prefix(stretches));
    }

    /**
     * See {@link BarSeries#view()}.
     *
     * @param stretchHigh highest price of each {@value #STRETCH} bars, for looking at many at once; likewise lowest price
     *        and largest volume
     */
    public record View(LongColumn.Prefix open, LongColumn.Prefix high, LongColumn.Prefix low, LongColumn.Prefix close,
            LongColumn.Prefix volume, LongColumn.Prefix buyVolume, LongColumn.Prefix sellVolume,
            LongColumn.Prefix first, LongColumn.Prefix last, LongColumn.Prefix day, LongColumn.Prefix cut,
            LongColumn.Prefix start, LongColumn.Prefix end, LongColumn.Prefix marks, LongColumn.Prefix stretchHigh,
            LongColumn.Prefix stretchLow, LongColumn.Prefix stretchVolume) {
        public int count() {
            return close.count();
        }

        /** Whether the series began anew with this bar. */
        public boolean fresh(int bar) {
            return (marks.get(bar) & Bar.FRESH) != 0;
        }

        /** The highest price of the bars {@code from} to {@code to}, the last one not included; at least one. */
        public long highest(int from, int to) {
            return largest(high, stretchHigh, from, to);
        }

        /** The largest volume, likewise. */
        public long mostVolume(int from, int to) {
            return largest(volume, stretchVolume, from, to);
        }

        /** The lowest price, likewise. */
        public long lowest(int from, int to) {
            long lowest = Long.MAX_VALUE;
            int bar = from;
            while (bar < to) {
                if (bar % STRETCH == 0 && bar + STRETCH <= to) {
                    lowest = Math.min(lowest, stretchLow.get(bar / STRETCH));
                    bar += STRETCH;
                } else {
                    lowest = Math.min(lowest, low.get(bar++));
                }
            }
            return lowest;
        }

        private static long largest(LongColumn.Prefix column, LongColumn.Prefix stretches, int from, int to) {
            long largest = Long.MIN_VALUE;
            int bar = from;
            while (bar < to) {
                if (bar % STRETCH == 0 && bar + STRETCH <= to) {
                    largest = Math.max(largest, stretches.get(bar / STRETCH));
                    bar += STRETCH;
                } else {
                    largest = Math.max(largest, column.get(bar++));
                }
            }
            return largest;
        }
    }

    /**
     * A bar as its prints make it, not closed yet. Prices in ticks, volumes in contracts.
     *
     * @param firstPart contracts it has of its first print
     * @param start see {@link BarSeries#start}
     */
    public record Forming(int first, int last, long open, long high, long low, long close, long volume, long buyVolume,
            long sellVolume, int trades, long firstPart, LocalDate tradingDate, long start) {

        static Forming of(Bar bar) {
            return new Forming(bar.first, bar.last, bar.open, bar.high, bar.low, bar.close, bar.volume, bar.bought,
                    bar.sold, bar.trades, bar.firstPart, bar.date, bar.start);
        }
    }
}
