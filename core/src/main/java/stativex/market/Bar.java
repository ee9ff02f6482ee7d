package stativex.market;

import java.time.LocalDate;

/** A bar while it forms: takes prints or parts of them. Prices in ticks, volumes in contracts. */
final class Bar {
    static final int CUT = 1;
    static final int ONE_TRADE = 2;
    static final int INCOMPLETE = 4;
    static final int FRESH = 8;

    int first = -1;
    int last;
    long start;
    long end;
    long open;
    long high;
    long low;
    long close;
    long volume;
    long bought;
    long sold;
    int trades;
    /** Contracts taken from the first print. */
    long firstPart;
    LocalDate date;
    int marks;
    long nextUp;
    long nextDown;
    /** When the clock closed it; {@link Tape#NONE} if a print did. */
    long closedAt = Tape.NONE;

    /** An empty bar of a trading date. */
    Bar(LocalDate date) {
        this.date = date;
    }

    boolean isEmpty() {
        return first < 0;
    }

    /** Takes {@code contracts} of a print; start and end follow the prints. */
    void take(Tape tape, int print, long contracts) {
        long price = tape.price(print);
        if (isEmpty()) {
            first = print;
            firstPart = contracts;
            start = tape.time(print);
            open = price;
            high = price;
            low = price;
        }
        high = Math.max(high, price);
        low = Math.min(low, price);
        close = price;
        last = print;
        end = tape.time(print);
        count(tape, print, contracts);
    }

    /** Takes whole prints {@code from} to {@code to}, the last one not included; at least one. */
    void takeAll(Tape tape, int from, int to) {
        if (isEmpty()) {
            first = from;
            firstPart = tape.size(from);
            start = tape.time(from);
            open = tape.price(from);
            high = open;
            low = open;
        }
        tape.gather(from, to, this);
        close = tape.price(to - 1);
        last = to - 1;
        end = tape.time(to - 1);
        trades += to - from;
    }

    /** Counts {@code contracts} of a print without its price. */
    void count(Tape tape, int print, long contracts) {
        volume = Math.addExact(volume, contracts);
        int who = tape.aggressorCode(print);
        bought += contracts & -(who & 1);
        sold += contracts & -(who >> 1);
        trades++;
    }
}
