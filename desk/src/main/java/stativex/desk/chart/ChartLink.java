package stativex.desk.chart;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/** Charts of one contract that follow each other: the time under the crosshair of one is shown by all. */
public final class ChartLink {
    private final List<Consumer<Optional<Long>>> followers = new ArrayList<>();

    /** A link without charts. */
    public ChartLink() {}

    void join(Consumer<Optional<Long>> follower) {
        followers.add(follower);
    }

    void leave(Consumer<Optional<Long>> follower) {
        followers.remove(follower);
    }

    /** Tells all but one of a time; empty when the crosshair is gone. */
    void point(Consumer<Optional<Long>> from, Optional<Long> time) {
        for (Consumer<Optional<Long>> follower : List.copyOf(followers)) {
            if (follower != from) {
                follower.accept(time);
            }
        }
    }
}
