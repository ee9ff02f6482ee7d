package stativex.link;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import stativex.market.TapeTime;
import stativex.order.FromBroker;
import stativex.order.ToBroker;

/**
 * Messages that wait for an answer, and orders of which nobody knows whether the broker has them: a message that none came to for 3 s puts
 * its order in doubt. Only the answer <em>unknown</em>, given twice some seconds apart, means that the broker never had it; silence leaves
 * it in doubt. Times are of a clock that only goes forward, nanoseconds. Source: SEMANTICS, "Live".
 */
final class Doubts {
    /** Nanoseconds that an answer may take. */
    static final long PATIENCE = 3 * TapeTime.SECOND;

    private final long again;
    private final Map<String, Waiting> waiting = new LinkedHashMap<>();
    private final Map<String, Doubt> doubts = new LinkedHashMap<>();

    /** A message that was sent. @param order that it is about; {@code at} when */
    private record Waiting(String order, long at) {}

    /** @param unknown how often the broker has said that it does not know it; {@code next} when it is asked; empty: it is being asked */
    private record Doubt(int unknown, Optional<Long> next) {}

    /** @param again nanoseconds between two questions about an order */
    Doubts(long again) {
        this.again = again;
    }

    /** The link is another: of some orders nobody has heard, what was asked of others is asked anew. */
    void begin(Collection<String> unheard, long now) {
        waiting.clear();
        doubts.clear();
        unheard.forEach(order -> doubts.put(order, new Doubt(0, Optional.of(now))));
    }

    void sent(ToBroker message, long now) {
        waiting.put(message.name(), new Waiting(message.order(), now));
    }

    /** The broker has told something of an order: that answers every message about it that it names, or that is over with it. */
    void heard(FromBroker told) {
        String request = switch (told) {
            case FromBroker.Received received -> received.request();
            case FromBroker.Repriced repriced -> repriced.request();
            case FromBroker.Turned turned -> turned.request();
            case FromBroker.NotChanged not -> not.request();
            default -> told.order();
        };
        waiting.remove(request);
        if (told instanceof FromBroker.NotChanged) {
            // the broker may refuse it because it does not have the order: that is still to be found out
            return;
        }
        waiting.remove(told.order());
        doubts.remove(told.order());
        if (told instanceof FromBroker.Ended || told instanceof FromBroker.Refused
                || told instanceof FromBroker.Filled filled && filled.done()) {
            waiting.values().removeIf(one -> one.order().equals(told.order()));
        }
    }

    /** Orders that have come to be in doubt by now. */
    List<String> doubted(long now) {
        TreeSet<String> late = new TreeSet<>();
        waiting.values().removeIf(one -> {
            boolean over = now - one.at() >= PATIENCE;
            if (over) {
                late.add(one.order());
            }
            return over;
        });
        late.removeIf(order -> doubts.putIfAbsent(order, new Doubt(0, Optional.of(now))) != null);
        return List.copyOf(late);
    }

    /** Orders that the broker has not named among all that it has. */
    void suspect(Collection<String> orders, long now) {
        orders.forEach(order -> doubts.putIfAbsent(order, new Doubt(0, Optional.of(now))));
    }

    /** Orders that are to be asked about now; they count as asked. */
    List<String> ask(long now) {
        List<String> due = new ArrayList<>();
        doubts.replaceAll((order, doubt) -> {
            if (doubt.next().filter(next -> now - next >= 0).isEmpty()) {
                return doubt;
            }
            due.add(order);
            return new Doubt(doubt.unknown(), Optional.empty());
        });
        return due;
    }

    /** What an answer comes to: that the broker has the order, that it never had it, or nothing yet. */
    Optional<FromBroker> answered(String order, boolean known, long now) {
        Doubt doubt = doubts.get(order);
        if (doubt == null || doubt.next().isPresent()) {
            return Optional.empty();
        }
        if (known) {
            doubts.remove(order);
            return Optional.of(new FromBroker.Known(order));
        }
        if (doubt.unknown() == 0) {
            doubts.put(order, new Doubt(1, Optional.of(now + again)));
            return Optional.empty();
        }
        doubts.remove(order);
        return Optional.of(new FromBroker.NeverAccepted(order));
    }

    /** Orders in doubt, in the order in which they came to be. */
    List<String> orders() {
        return List.copyOf(doubts.keySet());
    }
}
