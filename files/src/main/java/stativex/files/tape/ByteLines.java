package stativex.files.tape;

import java.io.IOException;
import java.io.InputStream;
import java.util.Arrays;

/** Hands out the lines of a file as stretches of one byte array, counted from 1. Not safe for several threads. */
final class ByteLines implements AutoCloseable {
    private static final long LINE_ENDS = EightBytes.all('\n');
    private static final int BLOCK = 1 << 18;
    private static final int LONGEST = 1 << 22;

    private final InputStream in;
    /** The last eight stay free, so that eight bytes can be read from anywhere in a line. */
    private byte[] bytes = new byte[BLOCK];
    private int filled;
    private int next;
    private boolean ended;
    private int from;
    private int to;
    private long number;
    private long read;

    ByteLines(InputStream in) {
        this.in = in;
    }

    /** Goes to the next line. Returns whether there is one. */
    boolean next() throws IOException {
        int at = next;
        while (true) {
            at = lineEnd(at);
            if (at < filled) {
                break;
            }
            if (ended) {
                if (next == filled) {
                    return false;
                }
                break;
            }
            at -= fill();
        }
        from = next;
        next = Math.min(filled, at + 1);
        to = at > from && bytes[at - 1] == '\r' ? at - 1 : at;
        number++;
        if (number == 1 && to - from >= 3 && bytes[from] == (byte) 0xEF && bytes[from + 1] == (byte) 0xBB
                && bytes[from + 2] == (byte) 0xBF) {
            from += 3;
        }
        return true;
    }

    /** The place of the next line end, or where the bytes end. */
    private int lineEnd(int from) {
        int at = from;
        while (at + 8 <= filled) {
            long found = EightBytes.equal(EightBytes.at(bytes, at), LINE_ENDS);
            if (found != 0) {
                return at + EightBytes.first(found);
            }
            at += 8;
        }
        while (at < filled && bytes[at] != '\n') {
            at++;
        }
        return at;
    }

    /** Reads more behind what is there; returns by how much the bytes moved to the front. */
    private int fill() throws IOException {
        int moved = next;
        System.arraycopy(bytes, next, bytes, 0, filled - next);
        filled -= next;
        next = 0;
        if (filled == bytes.length - 8) {
            if (filled >= LONGEST) {
                throw new IOException("line " + (number + 1) + " is longer than four million bytes");
            }
            bytes = Arrays.copyOf(bytes, filled * 2);
        }
        int got = in.read(bytes, filled, bytes.length - 8 - filled);
        if (got < 0) {
            ended = true;
        } else {
            filled += got;
            read += got;
        }
        return moved;
    }

    byte[] bytes() {
        return bytes;
    }

    /** First byte of the line. */
    int from() {
        return from;
    }

    /** Behind its last byte, the line end left out. */
    int to() {
        return to;
    }

    /** Physical line number. */
    long number() {
        return number;
    }

    /** Bytes handed out so far. */
    long position() {
        return read - (filled - next);
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
