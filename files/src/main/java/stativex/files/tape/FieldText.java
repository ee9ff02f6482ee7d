package stativex.files.tape;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.zone.ZoneOffsetTransition;
import java.util.Optional;
import stativex.market.Contract;
import stativex.market.TapeTime;

/**
 * Reads the fields of tick files from bytes, without an object per field. What does not read is {@link #BAD}; the caller
 * says what was expected. Not safe for several threads.
 */
final class FieldText {
    static final long BAD = Long.MIN_VALUE + 1;
    static final long OFF_GRID = Long.MIN_VALUE + 2;
    private static final long DAY = 86_400;
    /** Days from 1970 that nanoseconds surely reach. */
    private static final long LAST_DAY = 106_000;
    private static final int MEMO_BITS = 10;
    private static final int NO_OFFSET = Integer.MAX_VALUE;

    private final TimeForm form;
    private final Optional<ZoneId> zone;
    private final boolean loose;
    private final byte mark;
    private final int scale;
    private final long unit;
    private final long[] memoKeys = new long[1 << MEMO_BITS];
    private final byte[] memoLengths = new byte[1 << MEMO_BITS];
    private final long[] memoValues = new long[1 << MEMO_BITS];
    /** The bytes of the last ten-byte date that was read, and its day. */
    private long dateHead;
    private short dateTail;
    private long dateDay = BAD;
    private long lastDate = -1;
    private long lastDay;
    /** Offset found behind a time of day, seconds. */
    private int offset;
    /** Local seconds between which the zone's offset is {@link #knownOffset} beyond doubt. */
    private long knownFrom;
    private long knownTo;
    private long knownOffset;

    FieldText(TickLayout layout, Contract contract) {
        this.form = layout.times();
        this.zone = layout.zone();
        this.loose = layout.loose();
        this.mark = (byte) layout.decimalMark();
        BigDecimal tick = contract.tickSize();
        this.scale = Math.max(0, tick.scale());
        this.unit = tick.setScale(scale).unscaledValue().longValueExact();
    }

    /** A whole number of at most nine digits. */
    static long whole(byte[] b, int from, int to) {
        if (from >= to || to - from > 9) {
            return BAD;
        }
        return digits(b, from, to);
    }

    private static long digits(byte[] b, int from, int to) {
        long value = 0;
        for (int i = from; i < to; i++) {
            int digit = b[i] - '0';
            if (digit < 0 || digit > 9) {
                return BAD;
            }
            value = value * 10 + digit;
        }
        return value;
    }

    /** A price in ticks, {@link #BAD} or {@link #OFF_GRID}. Prices come again and again: short ones are remembered. */
    long price(byte[] b, int from, int to) {
        int length = to - from;
        if (length > 8 || length < 1 || from + 8 > b.length) {
            return freshPrice(b, from, to);
        }
        long key = EightBytes.key(b, from, length);
        int slot = (int) (key * 0x9E3779B97F4A7C15L >>> 64 - MEMO_BITS);
        if (memoKeys[slot] != key || memoLengths[slot] != length) {
            memoValues[slot] = freshPrice(b, from, to);
            memoKeys[slot] = key;
            memoLengths[slot] = (byte) length;
        }
        return memoValues[slot];
    }

    private long freshPrice(byte[] b, int from, int to) {
        int at = from;
        boolean negative = at < to && b[at] == '-';
        if (negative || at < to && b[at] == '+') {
            at++;
        }
        long value = 0;
        int begin = at;
        while (at < to && b[at] >= '0' && b[at] <= '9') {
            value = value * 10 + (b[at++] - '0');
        }
        int whole = at - begin;
        int fraction = 0;
        boolean off = false;
        if (at < to && b[at] == mark) {
            int dot = ++at;
            while (at < to && b[at] >= '0' && b[at] <= '9') {
                if (at - dot < scale) {
                    value = value * 10 + (b[at] - '0');
                    fraction++;
                } else {
                    off |= b[at] != '0';
                }
                at++;
            }
            if (at == dot || at - dot > 18) {
                return BAD;
            }
        }
        if (at != to || whole == 0 || whole + fraction > 17) {
            return BAD;
        }
        for (; fraction < scale; fraction++) {
            if (value > Long.MAX_VALUE / 10) {
                return BAD;
            }
            value *= 10;
        }
        if (off || value % unit != 0) {
            return OFF_GRID;
        }
        return negative ? -value / unit : value / unit;
    }

    /** A time in nanoseconds since 1970, date and time of day in one field. */
    long time(byte[] b, int from, int to) {
        if (form.unit() > 0) {
            return counted(b, from, to);
        }
        long quick = quickTime(b, from, to);
        if (quick != BAD) {
            return quick;
        }
        int split = from;
        while (split < to && b[split] != 'T' && (b[split] != ' ' || !loose)) {
            split++;
        }
        return split == to ? BAD : time(b, from, split, split + 1, to);
    }

    /**
     * The form most files have, {@code 2026-09-24T09:45:00[.123456789]Z}, eight bytes at a time; {@link #BAD} for any other,
     * which is then read the long way.
     */
    private long quickTime(byte[] b, int from, int to) {
        int length = to - from;
        if (length < 20 || length > 30 || b[to - 1] != 'Z' || b[from + 10] != 'T' || form != TimeForm.YEAR_FIRST
                || from + 30 > b.length || length > 20 && (b[from + 19] != '.' || length == 21)) {
            return BAD;
        }
        long day = date(b, from, from + 10);
        // nine, colon, forty-five, colon, nought: digits become their values, colons nought
        long clock = EightBytes.at(b, from + 11) ^ EightBytes.CLOCK;
        if (day == BAD || (EightBytes.notDigits(clock) | clock & EightBytes.COLONS) != 0) {
            return BAD;
        }
        long hour = (clock & 0xFF) * 10 + (clock >>> 8 & 0xFF);
        long minute = (clock >>> 24 & 0xFF) * 10 + (clock >>> 32 & 0xFF);
        long second = (clock >>> 48 & 0xFF) * 10 + (clock >>> 56);
        long nanos = 0;
        int digits = length - 21;
        if (digits > 0) {
            long eight = EightBytes.fraction(b, from + 20, Math.min(8, digits));
            int ninth = digits == 9 ? b[from + 28] - '0' : 0;
            if (eight < 0 || ninth < 0 || ninth > 9) {
                return BAD;
            }
            nanos = eight * 10 + ninth;
        }
        if (hour > 23 || minute > 59 || second > 59 || Math.abs(day) > LAST_DAY) {
            return BAD;
        }
        return (day * DAY + hour * 3600 + minute * 60 + second) * TapeTime.SECOND + nanos;
    }

    /** Date and time of day in two fields. */
    long time(byte[] b, int from, int to, int clockFrom, int clockTo) {
        long day = date(b, from, to);
        long clock = clock(b, clockFrom, clockTo);
        if (day == BAD || clock == BAD) {
            return BAD;
        }
        long second = day * DAY + Math.floorDiv(clock, TapeTime.SECOND);
        long nanos = Math.floorMod(clock, TapeTime.SECOND);
        long utc = offset != NO_OFFSET ? second - offset : local(second);
        if (utc == BAD || utc < -9_223_372_036L || utc > 9_223_372_035L) {
            return BAD;
        }
        return utc * TapeTime.SECOND + nanos;
    }

    private long counted(byte[] b, int from, int to) {
        boolean negative = from < to && b[from] == '-';
        int at = negative ? from + 1 : from;
        int dot = at;
        while (dot < to && b[dot] != mark) {
            dot++;
        }
        if (dot == at || dot - at > 19) {
            return BAD;
        }
        long value = digits(b, at, dot);
        if (value < 0 || value > Long.MAX_VALUE / form.unit() - 1) {
            return BAD;
        }
        long nanos = value * form.unit();
        if (dot < to) {
            long part = form.unit();
            for (int i = dot + 1; i < to; i++) {
                int digit = b[i] - '0';
                if (digit < 0 || digit > 9 || part % 10 != 0 && digit != 0) {
                    return BAD;
                }
                part /= 10;
                nanos += part * digit;
            }
            if (dot + 1 == to) {
                return BAD;
            }
        }
        return negative ? -nanos : nanos;
    }

    /** Days since 1970. The same date as before is told by its bytes. */
    private long date(byte[] b, int from, int to) {
        if (to - from != 10) {
            return freshDate(b, from, to);
        }
        long head = EightBytes.at(b, from);
        short tail = (short) (b[from + 8] << 8 | b[from + 9]);
        if (head != dateHead || tail != dateTail || dateDay == BAD) {
            dateDay = freshDate(b, from, to);
            dateHead = head;
            dateTail = tail;
        }
        return dateDay;
    }

    private long freshDate(byte[] b, int from, int to) {
        int one;
        int two;
        int three;
        if (to - from == 10 && form == TimeForm.YEAR_FIRST && (b[from + 4] == '-' || loose && isMark(b[from + 4]))
                && b[from + 7] == b[from + 4]) {
            one = number(b, from, from + 4);
            two = number(b, from + 5, from + 7);
            three = number(b, from + 8, to);
        } else if (!loose) {
            return BAD;
        } else if (to - from == 8 && digits(b, from, to) != BAD) {
            boolean year = form == TimeForm.YEAR_FIRST;
            one = number(b, from, from + (year ? 4 : 2));
            two = number(b, from + (year ? 4 : 2), from + (year ? 6 : 4));
            three = number(b, from + (year ? 6 : 4), to);
        } else {
            int first = mark(b, from, to);
            int second = mark(b, first + 1, to);
            if (first >= to || second >= to) {
                return BAD;
            }
            one = number(b, from, first);
            two = number(b, first + 1, second);
            three = number(b, second + 1, to);
        }
        if (one < 0 || two < 0 || three < 0) {
            return BAD;
        }
        return switch (form) {
            case DAY_FIRST -> day(three, two, one);
            case MONTH_FIRST -> day(three, one, two);
            default -> day(one, two, three);
        };
    }

    private static boolean isMark(byte b) {
        return b == '-' || b == '/' || b == '.';
    }

    private static int mark(byte[] b, int from, int to) {
        int at = from;
        while (at < to && !isMark(b[at])) {
            at++;
        }
        return at;
    }

    private static int number(byte[] b, int from, int to) {
        if (to <= from || to - from > 4) {
            return -1;
        }
        return (int) Math.max(-1, digits(b, from, to));
    }

    private long day(int year, int month, int day) {
        // each has at most four digits
        long key = (year * 10_000L + month) * 10_000 + day;
        if (key != lastDate) {
            if (year < 1600 || year > 9999) {
                return BAD;
            }
            try {
                lastDay = LocalDate.of(year, month, day).toEpochDay();
                lastDate = key;
            } catch (DateTimeException e) {
                return BAD;
            }
        }
        return lastDay;
    }

    private static int two(byte[] b, int at) {
        int tens = b[at] - '0';
        int ones = b[at + 1] - '0';
        return tens < 0 || tens > 9 || ones < 0 || ones > 9 ? -1000 : tens * 10 + ones;
    }

    /** Nanoseconds of the day; the offset behind it goes to {@link #offset}. */
    private long clock(byte[] b, int from, int to) {
        offset = NO_OFFSET;
        if (to - from < 5) {
            return BAD;
        }
        if (to - from >= 9 && b[from + 2] == ':' && b[from + 5] == ':') {
            // the usual form 09:45:00…: six digits tested at once, as in EightBytes
            int tens = b[from] - '0';
            int hours = b[from + 1] - '0';
            int tenMinutes = b[from + 3] - '0';
            int minutes = b[from + 4] - '0';
            int tenSeconds = b[from + 6] - '0';
            int seconds = b[from + 7] - '0';
            int bits = tens | tens + 6 | hours | hours + 6 | tenMinutes | tenMinutes + 6 | minutes | minutes + 6
                    | tenSeconds | tenSeconds + 6 | seconds | seconds + 6;
            int hour = tens * 10 + hours;
            if ((bits & ~15) != 0 || hour > 23 || tenMinutes > 5 || tenSeconds > 5) {
                return BAD;
            }
            return behind(b, from + 8, to, true,
                    hour * 3600 + (tenMinutes * 10 + minutes) * 60 + tenSeconds * 10 + seconds);
        }
        int at = from;
        boolean shortHour = loose && b[at + 1] == ':';
        int hour = shortHour ? b[at] - '0' : two(b, at);
        at += shortHour ? 1 : 2;
        boolean colons = b[at] == ':';
        at += colons ? 1 : 0;
        if (to - at < 2) {
            return BAD;
        }
        int minute = two(b, at);
        at += 2;
        int second = 0;
        if (at + 1 < to && (colons ? b[at] == ':' && at + 2 < to : b[at] >= '0' && b[at] <= '9')) {
            at += colons ? 1 : 0;
            second = two(b, at);
            at += 2;
        } else if (!loose && !colons) {
            return BAD;
        }
        if (hour < 0 || hour > 23 || minute < 0 || minute > 59 || second < 0 || second > 59 || !colons && !loose) {
            return BAD;
        }
        return behind(b, at, to, colons, hour * 3600 + minute * 60 + second);
    }

    /** Reads the fraction and the offset behind {@code second} of the day. */
    private long behind(byte[] b, int from, int to, boolean colons, int second) {
        int at = from;
        long nanos = 0;
        if (at < to && (b[at] == '.' || b[at] == ',' || b[at] >= '0' && b[at] <= '9' && !colons)) {
            at += b[at] >= '0' ? 0 : 1;
            int begin = at;
            if (at + 8 <= to) {
                long eight = EightBytes.digits(b, at);
                if (eight >= 0) {
                    nanos = eight;
                    at += 8;
                }
            }
            while (at < to && b[at] >= '0' && b[at] <= '9') {
                nanos = nanos * 10 + (b[at++] - '0');
            }
            if (at == begin || at - begin > 9) {
                return BAD;
            }
            for (int i = at - begin; i < 9; i++) {
                nanos *= 10;
            }
        }
        if (at < to && !offset(b, at, to)) {
            return BAD;
        }
        return second * TapeTime.SECOND + nanos;
    }

    /** {@code Z}, {@code +12}, {@code +12:00}, {@code +1200}. Returns whether it reads. */
    private boolean offset(byte[] b, int from, int to) {
        int length = to - from;
        if (b[from] == 'Z' || b[from] == 'z') {
            offset = 0;
            return length == 1;
        }
        if (b[from] != '+' && b[from] != '-' || length != 3 && length != 5 && length != 6) {
            return false;
        }
        int hours = two(b, from + 1);
        int minutes = length == 3 ? 0 : two(b, to - 2);
        if (hours < 0 || hours > 18 || minutes < 0 || minutes > 59 || length == 6 && b[from + 3] != ':') {
            return false;
        }
        offset = (b[from] == '-' ? -1 : 1) * (hours * 3600 + minutes * 60);
        return Math.abs(offset) <= ZoneOffset.MAX.getTotalSeconds();
    }

    /** Seconds UTC of a local time without offset. */
    private long local(long second) {
        if (zone.isEmpty()) {
            return BAD;
        }
        if (second >= knownFrom && second < knownTo) {
            return second - knownOffset;
        }
        long nanos = TapeTime.first(LocalDateTime.ofEpochSecond(second, 0, ZoneOffset.UTC), zone.get());
        long utc = Math.floorDiv(nanos, TapeTime.SECOND);
        var rules = zone.get().getRules();
        var instant = TapeTime.instant(nanos);
        ZoneOffsetTransition before = rules.previousTransition(instant.plusSeconds(1));
        ZoneOffsetTransition after = rules.nextTransition(instant);
        // a day away from every change of the zone's clock the offset is the same for all
        knownOffset = rules.getOffset(instant).getTotalSeconds();
        knownFrom = before == null ? Long.MIN_VALUE / 4 : before.toEpochSecond() + knownOffset + DAY;
        knownTo = after == null ? Long.MAX_VALUE / 4 : after.toEpochSecond() + knownOffset - DAY;
        return utc;
    }
}
