package stativex.interlock;

/** Why feed and broker are not in step with us: nothing is entered then, exits always work. */
public enum OutOfStep {
    /** One of the venue's sides does not answer. */
    LINK_LOST,
    /** Of some order nobody knows whether the broker has it. */
    ORDERS_IN_DOUBT
}
