package stativex.study;

import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.market.Period;

/** What a study is made of: the bars, the column it takes, and its checked settings. */
public final class StudyInputs {
    private final Frame frame;
    private final Optional<OutputColumn> of;
    private final Map<String, String> settings;

    /** @param settings a checked text for every field of the kind */
    StudyInputs(Frame frame, Optional<OutputColumn> of, Map<String, String> settings) {
        this.frame = frame;
        this.of = of;
        this.settings = Map.copyOf(settings);
    }

    Frame frame() {
        return frame;
    }

    OutputColumn of() {
        return of.orElseThrow();
    }

    OutputColumn field(BarField field) {
        return frame.field(field);
    }

    int whole(String field) {
        return Integer.parseInt(settings.get(field));
    }

    double number(String field) {
        return Double.parseDouble(settings.get(field));
    }

    String word(String field) {
        return settings.get(field);
    }

    List<String> words(String field) {
        return List.of(settings.get(field).split("\\+"));
    }

    /** Empty: the session's open. */
    Optional<LocalTime> time(String field) {
        return Optional.of(settings.get(field)).filter(text -> !text.equals("open")).map(LocalTime::parse);
    }

    ZoneId zone() {
        String text = settings.get("zone");
        return text.equals("exchange") ? frame.calendar().zone() : ZoneId.of(text);
    }

    Period period() {
        return Period.valueOf(settings.get("from").toUpperCase(java.util.Locale.ROOT));
    }
}
