package stativex.interlock;

/** What a tape lacks of a session. */
public enum Lacking {
    /** Its first print came late. */
    JOINED_LATE,
    /** Prints are missing, by the one who recorded or imported it. */
    PRINTS
}
