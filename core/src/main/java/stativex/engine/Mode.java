package stativex.engine;

/** Whether a strategy evaluates and sends orders. */
public enum Mode {
    /** Nothing. A strategy loads like this. */
    OFF("off"),
    /** Evaluates and logs what it would have done; sends nothing. */
    WATCHING("watching"),
    /** Sends orders; only signals after engaging count. */
    ENGAGED("engaged");

    private final String word;

    Mode(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }
}
