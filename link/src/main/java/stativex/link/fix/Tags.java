package stativex.link.fix;

/**
 * Fields that the stand-in adds to FIX 4.4, in the range that the standard leaves to its users (5000 to 9999). A broker need not know any
 * of them: what is missing then is said in the guide.
 */
final class Tags {
    /** Orders of one bracket: entries, one stop, targets and leaves of a trade. */
    static final int GROUP = 5001;
    /** Group of the other half of a two-sided entry. */
    static final int PAIR = 5002;
    /** ENTRY, STOP, TARGET or LEAVE. */
    static final int ROLE = 5003;
    /** Y: a leave of all that is open when it fills. In a cancellation: as the venue's own doing. */
    static final int AT_ONCE = 5004;
    /** Nanoseconds since 1970 UTC of the event behind a message: the standard's own stamps are coarser. */
    static final int NANOS = 5005;
    /** What a replacement changes: PRICE, QUANTITY or MARKET. */
    static final int CHANGES = 5006;
    /** Ticks against us that a simulated fill has. */
    static final int SLIPPAGE = 5007;
    /** Y: a stop was reached. */
    static final int TRIGGERED = 5008;
    /** In step: how many messages the sender has sent on the order side so far. */
    static final int SENT = 5009;
    /** Who took the initiative in a trade: 0 nobody knows, 1 the buyer, 2 the seller. */
    static final int AGGRESSOR = 5010;
    /** Of a session of the venue: OPEN, CLOSE or LAST CLOSE, that of the trading day's last one. */
    static final int MOMENT = 5011;

    /** Of a report: its number in the day, from 1. Of a request for market data: how many were taken so far. */
    static final int REPORTS = 5012;

    /** Of market data: seconds at the venue that pass in one second; its own time is beside it. */
    static final int SPEED = 5013;

    /** Of market data: number of the first trade in the day, from 1, so that a gap and a repetition are noticed. */
    static final int NUMBER = 5014;

    private Tags() {}
}
