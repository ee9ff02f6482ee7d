package stativex.files.tape;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;

/**
 * Works on eight bytes of text at once as one little-endian number: the usual bit tricks of fast parsers (each is explained
 * where it stands; from memory).
 */
final class EightBytes {
    private static final VarHandle LONG = MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
    private static final long SEVENS = 0x7F7F7F7F7F7F7F7FL;

    /** The text {@code 00:00:00}. */
    static final long CLOCK = text("00:00:00");
    /** Where its colons stand. */
    static final long COLONS = 0x0000FF0000FF0000L;

    private EightBytes() {}

    private static long text(String eight) {
        return at(eight.getBytes(StandardCharsets.US_ASCII), 0);
    }

    /** Eight bytes from {@code at} on; they must be there. */
    static long at(byte[] b, int at) {
        return (long) LONG.get(b, at);
    }

    /** A byte eight times. */
    static long all(int b) {
        return (b & 0xFF) * 0x0101010101010101L;
    }

    /** The highest bit of each byte of {@code word} that equals the byte {@code all} consists of; exact for every byte. */
    static long equal(long word, long all) {
        long different = word ^ all;
        // a byte is zero if neither its low seven bits carry into the eighth nor the eighth is set
        return ~((different & SEVENS) + SEVENS | different | SEVENS);
    }

    /** Which byte the lowest bit of a mask of {@link #equal} stands for. */
    static int first(long mask) {
        return Long.numberOfTrailingZeros(mask) >>> 3;
    }

    /** The first {@code length} bytes, 1 to 8, as a number that no other text of that length has. */
    static long key(byte[] b, int at, int length) {
        return at(b, at) << 64 - 8 * length;
    }

    /** The key of a word. */
    static long key(String word) {
        byte[] bytes = new byte[8];
        byte[] text = word.getBytes(StandardCharsets.US_ASCII);
        System.arraycopy(text, 0, bytes, 0, text.length);
        return key(bytes, 0, text.length);
    }

    /** The number that eight digits stand for; negative when one of the bytes is no digit. */
    static long digits(byte[] b, int at) {
        long word = at(b, at);
        return number(word ^ all('0'));
    }

    /** Of a fraction's first {@code length} digits, 1 to 8, as if noughts followed up to eight; negative likewise. */
    static long fraction(byte[] b, int at, int length) {
        long there = length == 8 ? -1 : (1L << 8 * length) - 1;
        return number((at(b, at) ^ all('0')) & there);
    }

    /** Not nought where a byte is above 9: adding 6 to a digit stays below 16, anything else sets one of the high four bits. */
    static long notDigits(long digits) {
        // what could carry into the next byte has a high bit itself
        return (digits | (digits & SEVENS) + all(6)) & all(0xF0);
    }

    private static long number(long values) {
        if (notDigits(values) != 0) {
            return -1;
        }
        long digits = values;
        // pairs, then fours, then all eight: the first digit lies lowest and counts most
        digits = digits * 10 + (digits >>> 8) & 0x00FF00FF00FF00FFL;
        digits = digits * 100 + (digits >>> 16) & 0x0000FFFF0000FFFFL;
        return digits * 10_000 + (digits >>> 32) & 0xFFFFFFFFL;
    }
}
