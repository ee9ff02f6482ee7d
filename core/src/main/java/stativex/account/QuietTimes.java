package stativex.account;

import java.util.Comparator;
import java.util.List;

/**
 * Times around releases at which nothing is entered. Source: SEMANTICS, "Interlocks".
 *
 * @param releases what is released when, in order of time
 * @param before nanoseconds before a release, {@code after} it
 * @param lead nanoseconds before a quiet time begins at which positions are flattened; only for {@link Action#FLATTEN}
 */
public record QuietTimes(List<Release> releases, long before, long after, Action action, long lead) {
    /** No releases. */
    public static final QuietTimes NONE = new QuietTimes(List.of(), 0, 0, Action.NO_ENTRIES, 0);

    /** What happens when a quiet time begins; nothing is entered in any case. */
    public enum Action {
        NO_ENTRIES, CANCEL, FLATTEN
    }

    /** @param time nanoseconds */
    public record Release(long time, String title, String country, String impact) {}

    /**
     * One quiet time.
     *
     * @param acts nanoseconds: nothing is entered from then on, what the action says happens then
     * @param to it ends, nanoseconds
     */
    public record Quiet(long acts, long to, Release release) {}

    public QuietTimes {
        releases = releases.stream().sorted(Comparator.comparingLong(Release::time)).toList();
        if (before < 0 || after < 0 || lead < 0 || before + after == 0 && !releases.isEmpty()) {
            throw new IllegalArgumentException(
                    "expected minutes before and after a release of 0 or more, and not both 0");
        }
    }

    /** The quiet times in order. */
    public List<Quiet> times() {
        long early = action == Action.FLATTEN ? Math.addExact(before, lead) : before;
        return releases.stream().map(release -> new Quiet(release.time() - early, release.time() + after, release))
                .toList();
    }
}
