package stativex.files.tape;

import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import stativex.market.TapeTime;

/** Times and lengths of time in words, for findings. */
public final class Words {
    private static final DateTimeFormatter LOCAL = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss", Locale.ROOT);

    private Words() {}

    /** A local time with its zone's city. */
    public static String at(long nanos, ZoneId zone) {
        String name = zone.getId();
        return LOCAL.format(TapeTime.in(zone, nanos)) + " " + name.substring(name.lastIndexOf('/') + 1);
    }

    public static String length(long nanos) {
        long seconds = nanos / TapeTime.SECOND;
        if (seconds < 120) {
            return seconds + " s";
        }
        long minutes = seconds / 60;
        return minutes < 120 ? minutes + " min" : minutes / 60 + " h " + minutes % 60 + " min";
    }
}
