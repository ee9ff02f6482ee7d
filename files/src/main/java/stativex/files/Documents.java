package stativex.files;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.CRC32C;
import stativex.account.Account;
import stativex.account.Guard;
import stativex.account.QuietTimes;
import stativex.account.Rulebook;
import stativex.engine.Strategy;
import stativex.exit.ExitPlan;
import stativex.market.Contract;
import stativex.market.Decimals;
import stativex.market.Session;
import stativex.market.SessionCalendar;
import stativex.market.TapeTime;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Reads JSON documents. A document is kept beside what was read from it, with the documents it names put in, so that it
 * can be recorded as a whole. Every method throws {@link BadInput} with file, JSON path, what was expected and found.
 */
public final class Documents {
    private static final Pattern SHARE = Pattern.compile("(\\d{1,6})(?:/(\\d{1,6}))?");
    private static final long MINUTE = 60 * TapeTime.SECOND;

    /** What was read, and its document with named documents put in. */
    public record Read<T>(T value, JsonNode document) {}

    private Documents() {}

    public static Read<Contract> contract(Path file) {
        return contract(Json.read(file), file.toString());
    }

    public static Read<Account> account(Path file) {
        return account(Json.read(file), file.toString(), name -> beside(file, name));
    }

    public static Read<Strategy> strategy(Path file) {
        return strategy(Json.read(file), file.toString(), name -> beside(file, name));
    }

    /** A document that another one names: it stays inside that one's folder, links followed. */
    static JsonNode beside(Path file, String name) {
        Path folder = file.toAbsolutePath().normalize().getParent();
        Path other;
        boolean inside;
        try {
            other = folder.resolve(name).normalize();
            inside = !Path.of(name).isAbsolute() && other.startsWith(folder)
                    && (!Files.exists(other) || other.toRealPath().startsWith(folder.toRealPath()));
        } catch (InvalidPathException | IOException e) {
            throw new BadInput(file + ": the document named \"" + Causes.found(name) + "\" cannot be read", e);
        }
        if (!inside) {
            throw new BadInput(file + ": expected the name of a document inside its own folder, found \""
                    + Causes.found(name) + "\"");
        }
        return ReleaseCalendar.is(name) ? ReleaseCalendar.read(other) : Json.read(other);
    }

    /** @param name said in messages */
    public static Read<Contract> contract(String text, String name) {
        return contract(Json.parse(text, name), name);
    }

    /** @param named gives the text of a document that this one names */
    public static Read<Account> account(String text, String name, Function<String, String> named) {
        return account(Json.parse(text, name), name,
                (String other) -> ReleaseCalendar.is(other)
                        ? ReleaseCalendar.read(named.apply(other), other)
                        : Json.parse(named.apply(other), other));
    }

    /** @param named gives the text of a document that this one names */
    public static Read<Strategy> strategy(String text, String name, Function<String, String> named) {
        return strategy(Json.parse(text, name), name, (String other) -> Json.parse(named.apply(other), other));
    }

    static Read<Contract> contract(JsonNode document, String file) {
        Schemas.check(Schemas.Kind.CONTRACT, document, file);
        Field root = Field.root(file, document);
        Contract contract = root.checked(() -> new Contract(root.at("symbol").text(), root.at("name").text(),
                root.at("currency").text(), root.at("tickSize").as(Decimals::plain), root.at("tickValue").money(),
                root.at("slippageTicks").integer(), calendar(root.at("calendar")),
                listing(root)));
        return new Read<>(contract, document);
    }

    private static Contract.Listing listing(Field root) {
        List<Contract.Month> months = root.items("months").stream()
                .map(month -> new Contract.Month(month.at("month").text(), month.at("lastTradingDay").date())).toList();
        Optional<Long> margin = root.maybe("margin").map(Field::money);
        return new Contract.Listing(root.maybe("lastTradingDay").map(Field::date),
                margin.map(OptionalLong::of).orElseGet(OptionalLong::empty), months);
    }

    /** The contract of one of a root's months: with that month's last trading day. */
    public static Read<Contract> month(Read<Contract> root, LocalDate lastTradingDay) {
        ObjectNode document = (ObjectNode) root.document().deepCopy();
        document.put("lastTradingDay", lastTradingDay.toString());
        return contract(document, root.value().symbol());
    }

    private static SessionCalendar calendar(Field field) {
        Map<DayOfWeek, Field.Placed<List<SessionCalendar.Hours>>> week = new EnumMap<>(DayOfWeek.class);
        for (Field entry : field.items("week")) {
            List<SessionCalendar.Hours> sessions = sessions(entry);
            entry.days("days").forEach(day -> entry.putOnce(week, day, sessions,
                    day.getDisplayName(TextStyle.FULL, Locale.ENGLISH)));
        }
        Map<LocalDate, Field.Placed<List<SessionCalendar.Hours>>> exceptions = new LinkedHashMap<>();
        for (Field entry : field.items("exceptions")) {
            LocalDate date = entry.at("date").date();
            entry.putOnce(exceptions, date, sessions(entry), "the date " + date);
        }
        return field.checked(() -> new SessionCalendar(field.at("zone").zone(), values(week), values(exceptions),
                field.maybe("lateSeconds").map(f -> f.integer() * TapeTime.SECOND).orElse(Session.LATE)));
    }

    static <K, V> Map<K, V> values(Map<K, Field.Placed<V>> placed) {
        // in the order of the document: that of an account's contracts counts
        Map<K, V> values = new LinkedHashMap<>();
        placed.forEach((key, value) -> values.put(key, value.value()));
        return values;
    }

    private static List<SessionCalendar.Hours> sessions(Field field) {
        Map<String, Field.Placed<SessionCalendar.Hours>> sessions = new LinkedHashMap<>();
        for (Field s : field.items("sessions")) {
            String name = s.at("name").text();
            s.putOnce(sessions, name, new SessionCalendar.Hours(name, s.at("open").time(),
                    s.maybe("openDay").map(Field::integer).orElse(0), s.at("close").time(),
                    s.maybe("closeDay").map(Field::integer).orElse(0)), "the session name \"" + name + "\"");
        }
        return sessions.values().stream().map(Field.Placed::value).toList();
    }

    static Read<Account> account(JsonNode document, String file, Function<String, JsonNode> named) {
        eitherOr(document, "rulebook", "rulebookFile", file);
        Schemas.check(Schemas.Kind.ACCOUNT, document, file);
        JsonNode whole = withReleases(putIn(document, "rulebook", "rulebookFile", file, named), file, named);
        Field root = Field.root(file, whole);
        Map<String, Field.Placed<Long>> fees = new LinkedHashMap<>();
        for (Field fee : root.items("fees")) {
            String contract = fee.at("contract").text();
            if (fee.at("perSide").money() < 0) {
                throw fee.problem("expected a fee of 0 or more, found " + fee.at("perSide").text());
            }
            fee.putOnce(fees, contract, fee.at("perSide").money(), "the fee of " + contract);
        }
        Rulebook rulebook = rulebook(root.at("rulebook"));
        QuietTimes quiet = quietTimes(root, rulebook);
        Account account = root.checked(() -> new Account(root.at("name").text(), root.at("currency").text(),
                root.at("start").money(), values(fees), LimitsDocument.read(root, quiet, fees::containsKey), rulebook));
        return new Read<>(account, whole);
    }

    /** The same of a text. @param name what messages call it */
    public static Rulebook rulebook(String text, String name) {
        return rulebook(Field.root(name, Json.parse(text, name)));
    }

    /** A rulebook document by itself. */
    public static Rulebook rulebook(Path file) {
        return rulebookDocument(file).value();
    }

    static Read<Rulebook> rulebookDocument(Path file) {
        JsonNode document = Json.read(file);
        return new Read<>(rulebook(Field.root(file.toString(), document)), document);
    }

    /** The same of a text. @param name what messages call it */
    public static Read<Rulebook> rulebookDocument(String text, String name) {
        JsonNode document = Json.parse(text, name);
        return new Read<>(rulebook(Field.root(name, document)), document);
    }

    private static Rulebook rulebook(Field field) {
        Schemas.check(Schemas.Kind.RULEBOOK, field.node(), field.file() + " (its rulebook)");
        List<Rulebook.Rule> rules = new ArrayList<>();
        Map<String, Field.Placed<Field>> kinds = new LinkedHashMap<>();
        for (Field rule : field.items("rules")) {
            String kind = rule.at("rule").text();
            rule.putOnce(kinds, kind, rule, "the rule \"" + kind + "\"");
            rules.add(rule.checked(() -> switch (kind) {
                case "day loss" -> bookDayLoss(rule);
                case "flat by" -> flatBy(rule);
                case "size" -> size(rule);
                case "profit target" -> new Rulebook.ProfitTarget(rule.at("amount").money());
                case "fewest days" -> new Rulebook.FewestDays((int) rule.at("days").longInteger(1, 10_000));
                case "consistency" -> new Rulebook.Consistency(rule.at("percent").decimal());
                case "no overnight" -> new Rulebook.NoOvernight(lead(rule));
                case "stop to target" -> new Rulebook.StopToTarget(rule.at("ratio").decimal());
                case "holding time" -> new Rulebook.HoldingTime(
                        rule.at("seconds").longInteger(1, 1_000_000) * TapeTime.SECOND, rule.at("percent").decimal());
                case "quiet times" -> new Rulebook.Quiet(rule.at("minutesBefore").longInteger(0, 1440) * MINUTE,
                        rule.at("minutesAfter").longInteger(0, 1440) * MINUTE);
                case "payout" -> new Rulebook.Payout(rule.at("buffer").money(),
                        (int) rule.at("winningDays").longInteger(0, 10_000), rule.at("winningDay").money(),
                        rule.maybe("cap").map(Field::money));
                default -> floor(rule);
            }));
        }
        return new Rulebook(field.at("name").text(), rules);
    }

    private static Rulebook.Rule floor(Field rule) {
        return new Rulebook.DrawdownFloor(rule.at("kind").word(Rulebook.Trails.class), rule.at("allowance").money(),
                rule.maybe("lockAt").map(Field::money), guard(rule, Guard.OFF));
    }

    private static Rulebook.Rule flatBy(Field rule) {
        return new Rulebook.FlatBy(rule.at("time").time(), rule.at("zone").zone(), lead(rule));
    }

    private static long lead(Field rule) {
        return rule.has("leadSeconds")
                ? rule.at("leadSeconds").longInteger(0, 86_400) * TapeTime.SECOND
                : Rulebook.FlatBy.LEAD;
    }

    private static Rulebook.Rule size(Field rule) {
        List<Rulebook.Size.Tier> tiers = rule.items("tiers").stream().map(tier -> tier.checked(
                () -> new Rulebook.Size.Tier(tier.at("fromProfit").money(), tier.at("most").integer()))).toList();
        Map<String, Field.Placed<Rulebook.Share>> micros = new LinkedHashMap<>();
        for (Field micro : rule.items("micros")) {
            String symbol = micro.at("contract").text();
            micro.putOnce(micros, symbol, share(micro.at("counts")), "what " + symbol + " counts");
        }
        return new Rulebook.Size(rule.at("most").integer(), tiers, values(micros));
    }

    private static Rulebook.Share share(Field field) {
        Matcher m = SHARE.matcher(field.text().strip());
        if (!m.matches()) {
            throw field.problem("expected a part of one contract such as 1/8, found " + Causes.found(field.text()));
        }
        return field.checked(() -> new Rulebook.Share(Integer.parseInt(m.group(1)),
                m.group(2) == null ? 1 : Integer.parseInt(m.group(2))));
    }

    /** Of the releases those that the filters let through. */
    private static QuietTimes quietTimes(Field account, Rulebook book) {
        Optional<Rulebook.Quiet> rule = book.of(Rulebook.Quiet.class).findFirst();
        if (!account.has("quietTimes") || !account.at("quietTimes").at("on").flag()) {
            if (rule.isPresent()) {
                throw account
                        .problem("its rulebook forbids trading in quiet times: expected quietTimes that are on, with"
                                + " releases, found none");
            }
            return QuietTimes.NONE;
        }
        Field quiet = account.at("quietTimes");
        List<String> countries = words(quiet, "countries");
        List<String> impacts = words(quiet, "impacts");
        List<String> titles = words(quiet, "titles");
        List<QuietTimes.Release> releases = new ArrayList<>();
        for (Field one : quiet.items("releases")) {
            QuietTimes.Release release = new QuietTimes.Release(one.at("time").instant(), one.at("title").text(),
                    one.maybe("country").map(Field::text).orElse(""), one.maybe("impact").map(Field::text).orElse(""));
            boolean taken = (countries.isEmpty() || countries.contains(lower(release.country())))
                    && (impacts.isEmpty() || impacts.contains(lower(release.impact())))
                    && (titles.isEmpty() || titles.stream().anyMatch(lower(release.title())::contains));
            if (taken) {
                releases.add(release);
            }
        }
        // what the rulebook forbids holds whatever the account's own figures are
        return quiet.checked(() -> new QuietTimes(releases,
                Math.max(quiet.at("minutesBefore").longInteger(0, 1440) * MINUTE,
                        rule.map(Rulebook.Quiet::before).orElse(0L)),
                Math.max(quiet.at("minutesAfter").longInteger(0, 1440) * MINUTE,
                        rule.map(Rulebook.Quiet::after).orElse(0L)),
                rule.isPresent() ? QuietTimes.Action.FLATTEN : quiet.at("action").word(QuietTimes.Action.class),
                (quiet.has("leadSeconds") ? quiet.at("leadSeconds").longInteger(0, 86_400) : 30) * TapeTime.SECOND));
    }

    private static List<String> words(Field field, String name) {
        return field.has(name) ? field.items(name).stream().map(Field::text).map(Documents::lower).toList() : List.of();
    }

    private static String lower(String text) {
        return text.strip().toLowerCase(Locale.ROOT);
    }

    private static Rulebook.Rule bookDayLoss(Field rule) {
        return new Rulebook.DayLoss(rule.at("amount").money(),
                rule.has("from") ? rule.at("from").word(Rulebook.From.class) : Rulebook.From.BALANCE,
                rule.maybe("breaks").map(Field::flag).orElse(false), guard(rule, Guard.OFF));
    }

    /** Of a line: a switch, or a switch with its margin in money, in ticks of what is open, or both. */
    static Guard guard(Field line, Guard silent) {
        if (!line.has("guard")) {
            return silent;
        }
        Field guard = line.at("guard");
        if (!guard.node().isObject()) {
            return guard.flag() ? Guard.ON : Guard.OFF;
        }
        return guard.checked(() -> new Guard(guard.at("on").flag(), guard.maybe("margin").map(Field::money).orElse(0L),
                guard.has("marginTicks") ? (int) guard.at("marginTicks").longInteger(0, 1_000_000) : 0));
    }

    static Read<Strategy> strategy(JsonNode document, String file, Function<String, JsonNode> named) {
        Schemas.check(Schemas.Kind.STRATEGY, document, file);
        JsonNode whole = putIn(document, "exit", "exitFile", file, named);
        Field root = Field.root(file, whole);
        Strategy strategy = StrategyReader.strategy(root, fingerprint(whole), exitPlan(root.at("exit")));
        return new Read<>(strategy, whole);
    }

    /** An exit plan from a file. @throws BadInput naming file, place, what was expected and what was found */
    public static Read<ExitPlan> exitPlan(Path file) {
        JsonNode whole = Json.read(file);
        return new Read<>(exitPlan(Field.root(file.toString(), whole)), whole);
    }

    /** An exit plan as a document of its own. */
    public static Read<ExitPlan> document(ExitPlan plan) {
        ObjectNode whole = Json.MAPPER.createObjectNode();
        ExitPlanDocument.write(whole, plan);
        return new Read<>(exitPlan(Field.root(plan.name(), whole)), whole);
    }

    static ExitPlan exitPlan(Field field) {
        Schemas.check(Schemas.Kind.EXIT_PLAN, field.node(), field.file() + " (its exit plan)");
        return ExitPlanDocument.read(field, fingerprint(field.node()));
    }

    /** CRC-32C of a document's text without its layout: tells versions of a document apart. */
    static String fingerprint(JsonNode document) {
        CRC32C sum = new CRC32C();
        sum.update(Json.line(document).getBytes(StandardCharsets.UTF_8));
        return String.format("%08x", sum.getValue());
    }

    private static void eitherOr(JsonNode document, String inside, String fileField, String file) {
        if (document.isObject() && document.has(inside) == document.has(fileField)) {
            throw BadInput.at(file, "$", "expected either " + inside + " or " + fileField + ", found "
                    + (document.has(inside) ? "both" : "neither"));
        }
    }

    /** With the releases of the file that its quiet times name in its place. */
    private static JsonNode withReleases(JsonNode document, String file, Function<String, JsonNode> named) {
        if (!document.has("quietTimes")) {
            return document;
        }
        JsonNode quiet = putIn(document.get("quietTimes"), "releases", "releasesFile", file + ", $.quietTimes", named);
        ObjectNode whole = (ObjectNode) document.deepCopy();
        whole.set("quietTimes", quiet);
        return whole;
    }

    /** Puts a named document in the place of its name. */
    private static JsonNode putIn(JsonNode document, String inside, String fileField, String file,
            Function<String, JsonNode> named) {
        eitherOr(document, inside, fileField, file);
        if (document.has(inside)) {
            return document;
        }
        ObjectNode whole = (ObjectNode) document.deepCopy();
        whole.set(inside, named.apply(document.get(fileField).asString()));
        whole.remove(fileField);
        return whole;
    }
}
