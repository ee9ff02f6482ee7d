package stativex.files;

import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import stativex.evidence.LuckOfTheBest;
import stativex.files.tape.RowsParquet;
import stativex.market.Money;
import stativex.search.Control;
import stativex.search.Ranking;
import stativex.search.Score;
import stativex.search.Space;
import stativex.search.Tried;

/** Writes what a search came to: {@code variants.csv}, {@code variant-days.csv}, {@code search.json}. Columns: SEMANTICS, "Open files". */
public final class SearchFiles {
    /** So many of the best stand in {@code search.json}. */
    private static final int BEST = 20;

    private SearchFiles() {}

    /** Writes all of them or none. @throws BadInput when the folder cannot be written */
    public static void write(Path folder, SearchSpec spec, SearchRun.Found found, SearchRun.Judged judged) {
        write(folder, spec, found, judged, Optional.empty());
    }

    /** The same. @param unseen what variants made of dates that were opened for them; empty: not sealed */
    public static void write(Path folder, SearchSpec spec, SearchRun.Found found, SearchRun.Judged judged,
            Optional<SearchUnseen> unseen) {
        Map<Integer, Ranking.Ranked> ranked = new HashMap<>();
        judged.ranked().forEach(one -> ranked.put(one.entry().number(), one));
        Map<String, WholeFile.Content> files = new LinkedHashMap<>();
        files.put("variants.csv", out -> out.write(ResultFiles.text(variants(spec.space(), found, ranked))));
        files.put("variant-days.csv", out -> out.write(ResultFiles.text(days(found))));
        files.put("search.json", out -> out.write(Json.pretty(json(spec, found, judged, unseen))));
        WholeFolder.write(folder, files);
    }

    /** The same rows as Parquet, typed: {@code variants.parquet}, {@code variant-days.parquet}. @throws BadInput likewise */
    public static void parquet(Path folder, SearchSpec spec, SearchRun.Found found, SearchRun.Judged judged) {
        Map<Integer, Ranking.Ranked> ranked = new HashMap<>();
        judged.ranked().forEach(one -> ranked.put(one.entry().number(), one));
        RowsParquet.write(folder.resolve("variants.parquet"), variants(spec.space(), found, ranked));
        RowsParquet.write(folder.resolve("variant-days.parquet"), days(found));
    }

    /** Writes a walk forward: {@code walk-forward.csv}, {@code walk-forward-days.csv}. @throws BadInput likewise */
    public static void write(Path folder, SearchRun run, List<SearchRun.Step> steps, List<LocalDate> dates) {
        List<List<String>> rows = new ArrayList<>();
        rows.add(List.of("fit_from", "fit_to", "test_from", "test_to", "variant", "settings", "neighbours_score",
                "trades", "net"));
        List<List<String>> results = new ArrayList<>();
        results.add(List.of("trading_day", "result"));
        for (SearchRun.Step step : steps) {
            rows.add(List.of(step.fitFrom().toString(), step.fitTo().toString(), step.testFrom().toString(),
                    step.testTo().toString(),
                    step.best().map(one -> Integer.toString(one.entry().number())).orElse(""),
                    step.best().map(one -> run.space().words(run.space().places(one.entry().grid()))).orElse(""),
                    step.best().map(one -> text(one.neighbours())).orElse(""),
                    step.tried().map(t -> Integer.toString(t.trades())).orElse("0"),
                    Money.text(step.tried().map(t -> t.net()).orElse(0L))));
            long[] days = step.tried().map(t -> t.days()).orElse(new long[0]);
            int at = dates.indexOf(step.testFrom());
            for (int d = at; d <= dates.indexOf(step.testTo()); d++) {
                results.add(List.of(dates.get(d).toString(), Money.text(d - at < days.length ? days[d - at] : 0)));
            }
        }
        Map<String, WholeFile.Content> files = new LinkedHashMap<>();
        files.put("walk-forward.csv", out -> out.write(ResultFiles.text(rows)));
        files.put("walk-forward-days.csv", out -> out.write(ResultFiles.text(results)));
        WholeFolder.write(folder, files);
    }

    /** A row for each variant, in the order of their numbers. */
    static List<List<String>> variants(Space space, SearchRun.Found found, Map<Integer, Ranking.Ranked> ranked) {
        List<List<String>> rows = new ArrayList<>();
        rows.add(List.of("variant", "settings", "trades", "score", "neighbours_score", "sharpe", "days_evaluated"));
        for (VariantTrials.Outcome outcome : found.variants()) {
            Ranking.Ranked of = ranked.get(outcome.number());
            rows.add(List.of(Integer.toString(outcome.number()), space.words(space.places(outcome.grid())),
                    outcome.tried().map(t -> Integer.toString(t.trades())).orElse(""),
                    of == null ? "" : text(of.score()), of == null ? "" : text(of.neighbours()),
                    of == null ? "" : ResultRows.ratio(of.entry().tried().sharpe()),
                    outcome.tried().map(t -> Integer.toString(t.days().length)).orElse("0")));
        }
        return rows;
    }

    /** A score with six decimals at most; absent is empty. */
    public static String text(double score) {
        return score == Score.ABSENT
                ? ""
                : score == Score.NONE ? "none" : ResultRows.ratio(OptionalDouble.of(score));
    }

    /** Day results, a column for each variant; days that a variant was not evaluated on are empty. */
    static List<List<String>> days(SearchRun.Found found) {
        List<List<String>> rows = new ArrayList<>();
        List<String> head = new ArrayList<>(List.of("trading_day"));
        found.variants().forEach(outcome -> head.add(Integer.toString(outcome.number())));
        rows.add(head);
        List<long[]> columns = found.variants().stream()
                .map(outcome -> outcome.tried().map(t -> t.days()).orElse(new long[0])).toList();
        List<LocalDate> days = found.days();
        for (int d = 0; d < days.size(); d++) {
            List<String> row = new ArrayList<>(List.of(days.get(d).toString()));
            for (long[] column : columns) {
                row.add(d < column.length ? Money.text(column[d]) : "");
            }
            rows.add(row);
        }
        return rows;
    }

    private static Map<String, Object> json(SearchSpec spec, SearchRun.Found found, SearchRun.Judged judged,
            Optional<SearchUnseen> unseen) {
        Map<String, Object> json = new LinkedHashMap<>();
        json.put("name", spec.name());
        json.put("engine", ResultFiles.engineVersion());
        json.put("fitFrom", found.days().getFirst().toString());
        json.put("fitTo", found.days().getLast().toString());
        json.put("days", found.days().size());
        unseen.ifPresent(of -> json.put("unseen", unseen(spec.space(), of, judged)));
        json.put("score", spec.ranked().score().word());
        json.put("leastTrades", spec.ranked().least());
        json.put("variants", found.variants().size());
        json.put("attempts", judged.attempts());
        List<Map<String, Object>> refused = found.variants().stream().filter(one -> one.tried().isEmpty()).map(one -> {
            Map<String, Object> row = new LinkedHashMap<>();
            row.put("variant", one.number());
            row.put("problem", one.problem());
            return row;
        }).toList();
        if (!refused.isEmpty()) {
            json.put("refused", refused);
        }
        number(json, "bestOfSoManyAtRandom", judged.bestAtRandom());
        judged.luck().ifPresent(luck -> json.put("chanceThatTheBestIsLuck", luck(luck, found)));
        int filters = Control.place(spec.space(), SearchChoices.FILTERS);
        if (filters >= 0) {
            json.put("againstNoFilter", Control.of(spec.space(), found.entries(), filters).stream()
                    .map(one -> control(spec.space(), one)).toList());
        }
        json.put("best", judged.ranked().stream().limit(BEST).map(one -> best(spec.space(), one)).toList());
        return json;
    }

    private static Map<String, Object> unseen(Space space, SearchUnseen of, SearchRun.Judged judged) {
        Map<String, Object> json = new LinkedHashMap<>();
        json.put("from", of.seal().from().toString());
        json.put("to", of.seal().to().toString());
        json.put("openings", of.openings());
        json.put("variants", judged.ranked().stream().filter(one -> of.of(one).isPresent()).map(one -> {
            Tried tried = of.of(one).orElseThrow();
            Map<String, Object> row = new LinkedHashMap<>();
            row.put("variant", one.entry().number());
            row.put("settings", space.words(space.places(one.entry().grid())));
            row.put("trades", tried.trades());
            row.put("net", Money.text(tried.net()));
            return row;
        }).toList());
        return json;
    }

    private static Map<String, Object> control(Space space, Control one) {
        Map<String, Object> json = new LinkedHashMap<>();
        json.put("variant", one.with().number());
        json.put("settings", space.words(space.places(one.with().grid())));
        json.put("control", one.without().number());
        json.put("tradesMore", one.trades());
        json.put("netMore", Money.text(one.net()));
        return json;
    }

    private static Map<String, Object> luck(LuckOfTheBest luck, SearchRun.Found found) {
        Map<String, Object> json = new LinkedHashMap<>();
        number(json, "chance", OptionalDouble.of(luck.chance()));
        number(json, "withoutSkill", OptionalDouble.of(luck.withoutSkill()));
        json.put("variants", luck.variants());
        json.put("othersLeftOut", found.variants().size() - luck.variants());
        json.put("choices", luck.choices());
        json.put("daysOfABlock", luck.days());
        json.put("daysLeftOut", luck.leftOut());
        return json;
    }

    private static Map<String, Object> best(Space space, Ranking.Ranked one) {
        Map<String, Object> json = new LinkedHashMap<>();
        json.put("variant", one.entry().number());
        json.put("settings", space.words(space.places(one.entry().grid())));
        json.put("trades", one.entry().tried().trades());
        json.put("net", Money.text(one.entry().tried().net()));
        json.put("score", text(one.score()));
        json.put("neighboursScore", text(one.neighbours()));
        number(json, "sharpeRatioPerDay", one.entry().tried().sharpe());
        number(json, "oneMinusDeflatedSharpeRatio", one.deflated().isPresent()
                ? OptionalDouble.of(1 - one.deflated().getAsDouble())
                : OptionalDouble.empty());
        if (!one.entry().tried().hasStop()) {
            json.put("withoutStop", true);
        }
        return json;
    }

    private static void number(Map<String, Object> json, String name, OptionalDouble value) {
        value.ifPresent(v -> json.put(name, Math.round(v * 1e6) / 1e6));
    }
}
