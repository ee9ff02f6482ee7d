package stativex.desk.chart;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Charts that follow each other: the time under the crosshair of one is shown by all others of the same contract. */
public final class ChartLink {
    /** A chart in the link. */
    interface Follower {
        /** @param time under another chart's crosshair; empty when that is gone */
        void point(String contract, Optional<Long> time);
    }

    private final List<Follower> followers = new ArrayList<>();

    /** A link without charts. */
    public ChartLink() {}

    void join(Follower follower) {
        followers.add(follower);
    }

    void leave(Follower follower) {
        followers.remove(follower);
    }

    /** Tells all but one of a time on a chart of a contract. */
    void point(Follower from, String contract, Optional<Long> time) {
        for (Follower follower : List.copyOf(followers)) {
            if (follower != from) {
                follower.point(contract, time);
            }
        }
    }
}
