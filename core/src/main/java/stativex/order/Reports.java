package stativex.order;

/** What an exchange tells about orders. */
public interface Reports {
    /** Contracts were filled; the order and its bracket already count them. */
    void filled(Order order, Fill fill);

    /** The exchange refused the order. */
    void rejected(Order order, String why);

    /** An entry ended without (all of) it being filled. */
    void ended(Order order);
}
