package stativex.files;

import stativex.market.Tape;

/** Knows how variants are tried on other machines; found with {@link java.util.ServiceLoader} where that part is there. */
public interface SearchElsewhere {
    /** Other machines, at work for one search. */
    interface Machines extends SearchWorkers, AutoCloseable {
        @Override
        void close();
    }

    /**
     * Asks for them.
     *
     * @param master such as {@code spark://HOST:PORT}
     * @throws BadInput when nobody answers there
     */
    Machines open(String master, SearchSpec spec, Tape tape);
}
