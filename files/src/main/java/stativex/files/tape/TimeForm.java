package stativex.files.tape;

/** How a tick file writes times. */
public enum TimeForm {
    YEAR_FIRST("2026-09-24 09:45:00.125", 0), DAY_FIRST("24.09.2026 09:45:00.125", 0), MONTH_FIRST(
            "09/24/2026 09:45:00.125", 0), SECONDS("seconds since 1970", 1_000_000_000), MILLISECONDS(
                    "milliseconds since 1970", 1_000_000), MICROSECONDS("microseconds since 1970",
                            1000), NANOSECONDS("nanoseconds since 1970", 1);

    private final String example;
    private final long unit;

    TimeForm(String example, long unit) {
        this.example = example;
        this.unit = unit;
    }

    /** An example, or what is counted. */
    public String example() {
        return example;
    }

    /** Nanoseconds of what is counted since 1970; 0 for dates and times of day. */
    long unit() {
        return unit;
    }
}
