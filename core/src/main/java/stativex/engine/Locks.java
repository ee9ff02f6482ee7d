package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.function.LongSupplier;
import stativex.account.AccountWatch;
import stativex.order.Owner;

/** What locks of a run have come to. While nothing is locked it costs nothing. */
final class Locks {
    private final List<Kept> all = new ArrayList<>();
    private final List<Kept> standing = new ArrayList<>();

    /** A lock that may still change, as long as it stands. */
    private static final class Kept {
        final LongSupplier result;
        final BooleanSupplier stands;
        final long base;
        Lock lock;

        Kept(Lock lock, long base, LongSupplier result, BooleanSupplier stands) {
            this.lock = lock;
            this.base = base;
            this.result = result;
            this.stands = stands;
        }
    }

    /**
     * @param result equity, or the result of the part that is locked, whenever it is asked
     * @param stands whether it is still locked
     */
    void add(MarketRun market, Optional<Owner> owner, AccountWatch.Verdict verdict, LongSupplier result,
            BooleanSupplier stands) {
        long reached = result.getAsLong() - verdict.base();
        Kept kept = new Kept(new Lock(market.timeSaid(), owner, market.index, verdict.line(), verdict.guarded(),
                verdict.at(), reached, reached), verdict.base(), result, stands);
        all.add(kept);
        standing.add(kept);
    }

    /** Before lines are asked: what has been lifted meanwhile changes no more. */
    void lift() {
        if (!standing.isEmpty()) {
            standing.removeIf(kept -> !kept.stands.getAsBoolean());
        }
    }

    /** After a print's fills. */
    void take() {
        for (int i = 0; i < standing.size(); i++) {
            Kept kept = standing.get(i);
            long ended = kept.result.getAsLong() - kept.base;
            if (ended != kept.lock.ended()) {
                Lock l = kept.lock;
                kept.lock = new Lock(l.time(), l.owner(), l.market(), l.line(), l.guarded(), l.at(), l.reached(),
                        ended);
            }
        }
    }

    /** In order of their coming. */
    List<Lock> view() {
        return all.stream().map(kept -> kept.lock).toList();
    }
}
