package stativex.engine;

/**
 * One interlock as it stands, for the person.
 *
 * @param text the reason or the figure in words
 */
public record Interlock(String name, State state, String text) {
    public enum State {
        CLEAR, NEAR, HELD, TRIPPED
    }
}
