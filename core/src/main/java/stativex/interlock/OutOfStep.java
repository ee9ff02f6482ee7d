package stativex.interlock;

/** Why feed and broker are not in step with us: nothing is entered then, exits always work. */
public enum OutOfStep {
    /** One of the venue's sides does not answer. */
    LINK_LOST,
    /** Nothing can be written down any more: what came would be forgotten by a restart. */
    JOURNAL_STOPPED,
    /** This computer's clock and the venue's sending times are 2 s apart or more, or what was sent comes so late. */
    CLOCK_APART,
    /** Prints are more than 2 s older than the message that brings them. */
    CATCHING_UP,
    /** A session is open, and no print comes any more. */
    FEED_SILENT,
    /** Of some order nobody knows whether the broker has it. */
    ORDERS_IN_DOUBT,
    /** The broker holds another position than all owners together. */
    POSITIONS_DIFFER,
    /** Of an account that is held to a rulebook nobody has said today that the firm shows the same balance and floor. */
    NOT_CONFIRMED
}
