package stativex.order;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;

/** Cancellations and changes on their way: they act when due, on a print after the event that caused them. */
final class Requests {
    private sealed interface Request {
        Order order();

        int sentAfter();

        long due();
    }

    private record Cancellation(Order order, int sentAfter, long due) implements Request {}

    private record Change(Order order, long price, String reason, int sentAfter, long due) implements Request {}

    private final List<Request> waiting = new ArrayList<>();

    void cancel(Order order, int sentAfter, long due) {
        waiting.add(new Cancellation(order, sentAfter, due));
    }

    /** A changed order is accepted anew, at the earliest when the change is due. */
    void change(Order order, long price, String reason, int sentAfter, long due) {
        waiting.add(new Change(order, price, reason, sentAfter, due));
    }

    boolean isEmpty() {
        return waiting.isEmpty();
    }

    /** Applies what is due at a print, in order of asking; an order that has ended or triggered is left alone. */
    void apply(int print, long time, Consumer<Order> end) {
        for (int i = 0; i < waiting.size();) {
            Request request = waiting.get(i);
            if (request.sentAfter() >= print || request.due() > time) {
                i++;
                continue;
            }
            waiting.remove(i);
            Order order = request.order();
            if (!order.state.live() || order.triggered) {
                continue;
            }
            switch (request) {
                case Cancellation c -> end.accept(order);
                case Change c -> {
                    order.price = c.price();
                    order.reason = c.reason();
                    order.accepted = Math.max(order.accepted, c.due());
                    order.met = false;
                }
            }
        }
    }
}
