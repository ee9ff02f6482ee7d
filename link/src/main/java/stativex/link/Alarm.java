package stativex.link;

/**
 * Something that a person should know at once.
 *
 * @param words one sentence
 */
public record Alarm(Kind kind, String words) {
    /** What it is about, the most urgent first. */
    public enum Kind {
        /** The broker has no stop for an open position. */
        STOP_MISSING("stop missing"),
        /** Everything is to leave, and the broker is away. */
        FLATTEN_WAITS("flatten waits"),
        /** The broker holds another position than all owners together. */
        POSITIONS_DIFFER("positions differ"),
        /** Of an order nobody knows whether the broker has it. */
        ORDER_IN_DOUBT("order in doubt"),
        /** The broker has an order that nobody here sent. */
        FOREIGN_ORDER("order from elsewhere"),
        /** One of the venue's sides, or both, do not answer. */
        LINK_LOST("link lost"),
        /** A session is open and no print comes. */
        FEED_SILENT("feed silent"),
        /** Prints come late. */
        CATCHING_UP("feed late"),
        /** Our clock and the venue's are apart. */
        CLOCK_APART("clock"),
        /** The journal cannot be written. */
        JOURNAL_STOPPED("journal"),
        /** Something is to trade, and nobody has compared the firm's figures today. */
        NOT_CONFIRMED("compare with the firm"),
        /** There is little room on the disk. */
        DISK_NEARLY_FULL("disk"),
        /** A line that ends the day is near. */
        LINE_NEAR("line near"),
        /** The broker has told what does not fit what stands. */
        CONTRADICTION("contradiction");

        private final String word;

        Kind(String word) {
            this.word = word;
        }

        /** Such as {@code feed silent}. */
        public String word() {
            return word;
        }
    }
}
