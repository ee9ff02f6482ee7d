package stativex.files;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.market.Rolls;
import stativex.market.Tape;
import stativex.market.TapeTime;

/** The rolls of a joined tape in the header of a session file, in figures: the same session again needs no join. */
final class RollLines {
    private static final long MOST_TICKS = 2_000_000_000L;

    private RollLines() {}

    static void write(Rolls rolls, Map<String, Object> header) {
        if (rolls.legs().size() < 2) {
            return;
        }
        Map<String, Object> of = new LinkedHashMap<>();
        of.put("leadNanos", rolls.lead());
        of.put("month", rolls.legs().getFirst().name());
        rolls.legs().getFirst().lastTradingDay().ifPresent(date -> of.put("lastTradingDay", date.toString()));
        List<Map<String, Object>> changes = new ArrayList<>();
        for (Rolls.Change change : rolls.changes()) {
            Map<String, Object> line = new LinkedHashMap<>();
            line.put("month", change.name());
            line.put("date", change.date().toString());
            line.put("open", TapeTime.instant(change.open()).toString());
            line.put("firstPrint", change.print());
            line.put("adjustmentTicks", change.adjustment());
            line.put("beforeTicks", change.before());
            change.lastTradingDay().ifPresent(date -> line.put("lastTradingDay", date.toString()));
            changes.add(line);
        }
        of.put("changes", changes);
        header.put("rolls", of);
    }

    static Rolls read(Field header, Tape tape) {
        if (!header.has("rolls")) {
            return Rolls.NONE;
        }
        Field of = header.at("rolls");
        List<Rolls.Change> changes = new ArrayList<>();
        for (Field line : of.list("changes")) {
            changes.add(new Rolls.Change(line.at("month").text(), line.at("date").date(), line.at("open").instant(),
                    (int) line.at("firstPrint").longInteger(1, tape.count()), ticks(line.at("adjustmentTicks")),
                    ticks(line.at("beforeTicks")), day(line)));
        }
        return of.checked(() -> Rolls.of(tape, of.at("month").text(), day(of), changes,
                of.at("leadNanos").longInteger(0, 86_400 * TapeTime.SECOND)));
    }

    private static Optional<LocalDate> day(Field of) {
        return of.maybe("lastTradingDay").map(Field::date);
    }

    private static long ticks(Field field) {
        return field.longInteger(-MOST_TICKS, MOST_TICKS);
    }
}
