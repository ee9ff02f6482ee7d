package stativex.files.tape;

/** What can be found in a tick file. */
public enum Finding {
    UNREADABLE("lines that cannot be read", true), OFF_GRID("prices off the tick grid", true), BACKWARDS(
            "times that go back", true), DUPLICATE("prints like the one before", false), GAP("gaps in a session",
                    false), NO_PRINTS("sessions without a print", false), OUTSIDE("prints outside every session",
                            false), NO_QUOTE("prints without bid or ask", false), CROSSED(
                                    "quotes with the bid at or above the ask",
                                    false), LATE("first session begun late", false);

    private final String words;
    private final boolean bad;

    Finding(String words, boolean bad) {
        this.words = words;
        this.bad = bad;
    }

    /** In words, plural. */
    public String words() {
        return words;
    }

    /** Whether such a line cannot be taken. */
    public boolean bad() {
        return bad;
    }
}
