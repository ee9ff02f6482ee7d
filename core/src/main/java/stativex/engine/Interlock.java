package stativex.engine;

/**
 * One interlock as it stands, for the person.
 *
 * @param text the reason or the figure in words
 */
public record Interlock(String name, State state, String text) {
    public enum State {
        /** Lets entries pass. */
        CLEAR,
        /** Lets entries pass, but not for long. */
        NEAR,
        /** Holds entries back because the person has switched it so. */
        SWITCHED_OFF,
        /** Holds entries back. */
        HELD,
        /** Holds entries back until the next trading day, or for good. */
        TRIPPED
    }
}
