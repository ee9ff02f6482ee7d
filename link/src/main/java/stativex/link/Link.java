package stativex.link;

import java.util.List;
import java.util.Optional;
import stativex.order.ToBroker;

/** A venue at the other end: what it tells is asked for by one thread, in the order in which it came. */
public interface Link extends AutoCloseable {
    /** The next event; empty when none came in so many nanoseconds. */
    Optional<VenueEvent> next(long nanos) throws InterruptedException;

    /**
     * Asks for market data from now on, and for reports that were missed.
     *
     * @param reports that have been taken so far
     */
    void subscribe(int reports);

    /** Asks whether the broker knows an order. */
    void ask(String order);

    /** Asks for every order that the broker has. */
    void askAll();

    /** Asks how many contracts the broker says are held. */
    void askPosition();

    /** Sends messages in order. Whoever calls has written down what led to them. */
    void send(List<ToBroker> messages);

    /** In step: everything has been taken, and all that it led to was sent. @param number of the step that is wanted next, from 1 */
    void step(int number);

    @Override
    void close();
}
