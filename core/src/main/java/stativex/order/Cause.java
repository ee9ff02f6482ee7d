package stativex.order;

/**
 * The event because of which something is asked: it meets the print after it at the earliest.
 *
 * @param print the last print that had arrived; −1 before the first
 * @param time of the event, nanoseconds
 */
public record Cause(int print, long time) {}
