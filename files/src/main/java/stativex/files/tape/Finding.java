package stativex.files.tape;

/** What can be found in a tick file. */
public enum Finding {
    UNREADABLE("Lines that cannot be read", true), OFF_GRID("Prices off the tick grid", true), BACKWARDS(
            "Times that go back", true), DUPLICATE("Prints like the one before", false), GAP("Gaps in a session",
                    false), NO_PRINTS("Sessions without a print", false), OUTSIDE("Prints outside every session",
                            false), NO_QUOTE("Prints without bid or ask", false), CROSSED(
                                    "Quotes with the bid at or above the ask",
                                    false), LATE("First session begun late", false);

    private final String words;
    private final boolean bad;

    Finding(String words, boolean bad) {
        this.words = words;
        this.bad = bad;
    }

    /** In words, to be followed by a count. */
    public String words() {
        return words;
    }

    /** Whether such a line cannot be taken. */
    public boolean bad() {
        return bad;
    }
}
