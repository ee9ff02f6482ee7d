package stativex.link;

import java.util.Arrays;
import java.util.Optional;
import java.util.OptionalLong;
import stativex.interlock.OutOfStep;
import stativex.market.TapeTime;

/**
 * Whether the feed is in step with us: judged from when messages were sent, how old their prints are, and for how long none came. It reads
 * no clock; every time is given in nanoseconds, {@code now} of a clock that only goes forward, {@code wall} since 1970 UTC. Source:
 * SEMANTICS, "Live".
 */
final class StepWatch {
    /** Nanoseconds between our clock and a sending time from which on they are apart; likewise the age of a print that is late. */
    static final long APART = 2 * TapeTime.SECOND;
    /** Silence in nanoseconds that always passes. */
    static final long QUIET = 10 * TapeTime.SECOND;
    /** Median gaps that make a silence, of so many prints. */
    private static final int GAPS = 20;
    private static final int REMEMBERED = 200;

    private final long[] gaps = new long[REMEMBERED];
    private int counted;
    private long lastPrint = Long.MIN_VALUE;
    private boolean old;
    private long ahead;
    private Optional<VenueEvent.Sent> clock = Optional.empty();
    private long clockAt;

    /** A message came. @param sent by the venue's clock; {@code wall} ours */
    void heard(long sent, long wall) {
        ahead = wall - sent;
    }

    /** Prints came. @param last time of the newest; {@code count} of them since {@code first} */
    void prints(long first, long last, int count, VenueEvent.Sent sent, long wall, long now) {
        heard(sent.wall(), wall);
        clock = Optional.of(sent);
        clockAt = now;
        old = sent.venue() - first > scaled(APART);
        if (lastPrint != Long.MIN_VALUE) {
            long each = Math.max(0, last - lastPrint) / count;
            for (int i = 0; i < Math.min(count, REMEMBERED); i++) {
                gaps[counted++ % REMEMBERED] = each;
            }
        }
        lastPrint = Math.max(lastPrint, last);
    }

    /** How far our clock is ahead of the venue's at the last message, or how long that took, nanoseconds. */
    long ahead() {
        return ahead;
    }

    /** Prints are more than 2 s older than the message that brought them. */
    boolean catchingUp() {
        return old;
    }

    /** The time at the venue by now, nanoseconds; empty before the first print. */
    OptionalLong venueTime(long now) {
        return clock.isEmpty()
                ? OptionalLong.empty()
                : OptionalLong.of(clock.get().venue() + (long) ((now - clockAt) * clock.get().speed()));
    }

    /** Seconds at the venue that pass in one of ours. */
    double speed() {
        return clock.map(VenueEvent.Sent::speed).orElse(1.0);
    }

    /** For how long no print has come, nanoseconds at the venue; 0 before the first. */
    long silence(long now) {
        return lastPrint == Long.MIN_VALUE ? 0 : Math.max(0, venueTime(now).orElse(lastPrint) - lastPrint);
    }

    /** For how long none may come: 20 times the median gap of the last 200, at least 10 s. */
    long patience() {
        int known = Math.min(counted, REMEMBERED);
        if (known == 0) {
            return scaled(QUIET);
        }
        long[] sorted = Arrays.copyOf(gaps, known);
        Arrays.sort(sorted);
        return Math.max(scaled(QUIET), GAPS * sorted[known / 2]);
    }

    /** Where a tape is played faster than it was made, a delay here is so much longer there. */
    private long scaled(long nanos) {
        return (long) (nanos * Math.max(1, speed()));
    }

    /** The link is another: what was measured on the last one says nothing of it. */
    void anew() {
        ahead = 0;
        old = false;
        clock = Optional.empty();
    }

    /** Why the feed is not in step; empty: it is. @param inSession whether prints are to be expected */
    Optional<OutOfStep> why(long now, boolean inSession) {
        if (Math.abs(ahead) >= APART) {
            return Optional.of(OutOfStep.CLOCK_APART);
        }
        if (old) {
            return Optional.of(OutOfStep.CATCHING_UP);
        }
        long silent = inSession ? silence(now) : 0;
        return silent > scaled(QUIET) && silent > patience() ? Optional.of(OutOfStep.FEED_SILENT) : Optional.empty();
    }
}
