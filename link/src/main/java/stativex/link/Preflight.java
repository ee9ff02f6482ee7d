package stativex.link;

import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.function.LongFunction;
import stativex.account.Account;
import stativex.account.Headroom;
import stativex.account.LineKind;
import stativex.account.QuietTimes;
import stativex.account.Rulebook;
import stativex.engine.Snapshot;
import stativex.engine.Strategy;
import stativex.exit.ExitTerms;
import stativex.files.CheckSettings;
import stativex.files.ResultWords;
import stativex.files.Sentences;
import stativex.interlock.OutOfStep;
import stativex.interlock.WindowSchedule;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.market.TapeTime;

/** What is looked at before a strategy is engaged at a venue: each with how it stands, in a sentence, and what follows if it is not clear. */
public final class Preflight {
    private static final DateTimeFormatter MINUTE = DateTimeFormatter.ofPattern("HH:mm");
    /** Tenths of a stop-out that the nearest line is to be worth at least. */
    private static final long WORTH = 20;
    /** Days that a version is to be watched before it is engaged. */
    static final int DAYS = 30;

    /** What is looked at, in this order. */
    public enum Item {
        ORDERS("Orders", 6, true), ACCOUNT("Account", 4, true), CONTRACT("Contract and plan", 3, true), STOP("Stop", 3,
                true), SIZE("Size", 4, true), WINDOWS("Windows today", 4, false), RELEASES("Releases today", 4,
                        false), LIMITS("Own limits", 4, false), FEED("Feed", 1, true), BROKER("Broker", 6, true), CLOCK(
                                "Clock", 6, true), TESTED("Tested version", 5, false), GATE("30-day gate", 5, false);

        private final String words;
        private final int stage;
        private final boolean always;

        Item(String words, int stage, boolean always) {
            this.words = words;
            this.stage = stage;
            this.always = always;
        }

        /** Such as {@code Own limits}. */
        public String words() {
            return words;
        }

        /** Number of the stage in which it is mended. */
        public int stage() {
            return stage;
        }

        /** Whether it blocks whatever anybody sets. */
        public boolean always() {
            return always;
        }
    }

    /** What follows when one is not clear. */
    public enum Response {
        /** Nothing is engaged. */
        BLOCK("blocks"),
        /** The person says that they go on all the same, which is kept. */
        ASK("asks"),
        /** It is said. */
        INFORM("informs");

        private final String word;

        Response(String word) {
            this.word = word;
        }

        /** Such as {@code blocks}. */
        public String word() {
            return word;
        }
    }

    /**
     * One of them.
     *
     * @param clear nothing is wrong
     * @param lines one or two sentences
     * @param then what follows when it is not clear
     * @param compares the person is to compare its figures with what the firm shows, and to say so
     */
    public record Check(Item item, boolean clear, List<String> lines, Response then, boolean compares) {
        public Check {
            lines = List.copyOf(lines);
        }

        /** Whether nothing can be engaged because of it. */
        public boolean blocks() {
            return !clear && then == Response.BLOCK;
        }

        /** Whether the person has to say that they go on. */
        public boolean asks() {
            return !clear && then == Response.ASK;
        }
    }

    /**
     * What only the window, or the disk, knows.
     *
     * @param sends orders are not held back
     * @param confirmed the person has compared balance and floor with what the firm shows today
     * @param trial number of the newest kept trial of this very version
     * @param days on which the version was engaged or watched as a whole
     */
    public record Facts(boolean sends, boolean confirmed, OptionalInt trial, int days) {}

    private final Contract contract;
    private final Account account;
    private final Snapshot snapshot;
    private final Snapshot.StrategyView view;
    private final Strategy strategy;
    private final LiveStanding standing;
    private final Facts facts;
    private final CheckSettings settings;
    private final ZoneId own;
    private final LongFunction<String> money;
    private final long now;
    private final List<Check> checks = new ArrayList<>();

    private Preflight(Contract contract, Account account, LiveDay.View view, int index, Facts facts,
            CheckSettings settings, Reader reader) {
        this.contract = contract;
        this.account = account;
        this.snapshot = view.snapshot();
        this.view = snapshot.strategies().get(index);
        this.strategy = this.view.strategy();
        this.standing = view.standing();
        this.facts = facts;
        this.settings = settings;
        this.own = reader.zone();
        this.money = reader.money();
        this.now = view.clock();
    }

    /** Whoever reads it. @param zone their own; {@code money} how they read money */
    public record Reader(ZoneId zone, LongFunction<String> money) {}

    /** Every check, in order. @param index of the strategy */
    public static List<Check> of(Contract contract, Account account, LiveDay.View view, int index, Facts facts,
            CheckSettings settings, Reader reader) {
        return new Preflight(contract, account, view, index, facts, settings, reader).all();
    }

    private List<Check> all() {
        add(Item.ORDERS, facts.sends(), facts.sends()
                ? "They are sent to the broker."
                : "They are held back: switch them on in the bar below.");
        account();
        contract();
        stop();
        size();
        windows();
        releases();
        limits();
        feed();
        broker();
        clock();
        add(Item.TESTED, facts.trial().isPresent(), facts.trial().isPresent()
                ? "The same rules, plan and bars as trial " + facts.trial().getAsInt() + "."
                : "No kept trial is of exactly these rules, this plan and these bars.");
        add(Item.GATE, facts.days() >= DAYS, facts.days() + " of " + DAYS + " days watched"
                + (facts.days() >= DAYS ? "." : ", " + (DAYS - facts.days()) + " to go."));
        return List.copyOf(checks);
    }

    private void add(Item item, boolean clear, String... lines) {
        checks.add(new Check(item, clear, List.of(lines), then(item, settings), false));
    }

    /** What follows when a check is not clear. */
    public static Response then(Item item, CheckSettings settings) {
        if (item.always()) {
            return Response.BLOCK;
        }
        String set = settings.responses().getOrDefault(item.name(), "");
        for (Response response : Response.values()) {
            if (response.name().equals(set)) {
                return response;
            }
        }
        return item == Item.WINDOWS || item == Item.RELEASES ? Response.INFORM : Response.ASK;
    }

    private void account() {
        Snapshot.AccountView a = snapshot.account();
        boolean held = !account.rulebook().rules().isEmpty();
        Optional<Headroom> floor = view.headroom().stream()
                .filter(h -> h.line().kind() == LineKind.DRAWDOWN_FLOOR).findFirst();
        String is = (held ? "Held to " + account.rulebook().name() : "No rulebook") + "; balance "
                + money.apply(a.balance())
                + floor.map(h -> ", floor " + money.apply(h.line().money())).orElse("") + ".";
        boolean over = a.broken() || a.lock().isPresent();
        List<String> lines = over
                ? List.of(is, a.broken()
                        ? "It is broken."
                        : "It is locked until the next trading day: " + ResultWords.of(a.lock().get()) + ".")
                : List.of(is);
        boolean compared = !held || standing.confirmed();
        checks.add(new Check(Item.ACCOUNT, !over && (compared || facts.confirmed()), lines, Response.BLOCK,
                !compared && !over));
    }

    private void contract() {
        boolean expired = contract.lastTradingDay().isPresent() && snapshot.session().isPresent()
                && contract.lastTradingDay().get().isBefore(snapshot.session().get().tradingDate());
        int most = Strategy.largest(strategy.sides(), strategy.entry());
        boolean fits = true;
        for (Side side : Side.values()) {
            int legs = strategy.plan().terms(side).targets().stream().mapToInt(ExitTerms.Target::quantity).sum();
            fits &= legs <= most || strategy.side(side).isEmpty();
        }
        add(Item.CONTRACT, !expired && fits,
                contract.symbol() + ", tick " + contract.tickSize().toPlainString() + " worth "
                        + money.apply(contract.money(1, 1)) + "; " + strategy.plan().name() + " for " + most + "."
                        + (expired ? " Its last trading day has passed." : "")
                        + (fits ? "" : " Its targets are for more contracts than an entry has."));
    }

    private void stop() {
        List<String> lines = new ArrayList<>();
        boolean all = true;
        for (Side side : Side.values()) {
            if (strategy.side(side).isEmpty()) {
                continue;
            }
            ExitTerms terms = strategy.plan().terms(side);
            all &= terms.stop().isPresent();
            String words = terms.stop().map(stop -> stop.distance().words() + " from the fill, "
                    + terms.local().map(local -> "held here; the broker holds one " + local.disaster()
                            + " t further out.")
                            .orElse("sent with the entry's fill, held at the broker."))
                    .orElse("None: nothing ends a loss.");
            if (!lines.contains(words)) {
                lines.add(words);
            }
        }
        add(Item.STOP, all, lines.toArray(new String[0]));
    }

    private void size() {
        int most = Strategy.largest(strategy.sides(), strategy.entry());
        long profit = snapshot.account().balance() - account.start();
        OptionalInt allowed = account.rulebook().of(Rulebook.Size.class).mapToInt(rule -> rule.at(profit)).min();
        boolean fits = allowed.isEmpty() || most <= allowed.getAsInt();
        add(Item.SIZE, fits, most + (allowed.isEmpty()
                ? "; the rulebook sets no size."
                : fits
                        ? ": inside the rulebook's " + allowed.getAsInt() + "."
                        : ": the rulebook allows " + allowed.getAsInt() + "."));
    }

    private void windows() {
        ZoneId zone = contract.calendar().zone();
        List<String> lines = new ArrayList<>();
        for (WindowSchedule.Occurrence one : view.dayOccurrences()) {
            lines.add(one.window().name() + " " + span(one.from(), one.to(), zone) + ", yours "
                    + span(one.from(), one.to(), own) + ".");
        }
        account.rulebook().of(Rulebook.FlatBy.class).findFirst().ifPresent(flat -> {
            long acts = flat.actsFrom(now) + flat.lead();
            lines.add("Flat by " + minute(acts, zone) + ", yours " + minute(acts, own) + ".");
        });
        boolean always = view.dayOccurrences().isEmpty();
        if (always) {
            lines.addFirst("None: every hour of the session is traded.");
        }
        add(Item.WINDOWS, !always, lines.toArray(new String[0]));
    }

    private void releases() {
        ZoneId zone = contract.calendar().zone();
        QuietTimes quiet = account.own().quietTimes();
        if (quiet.releases().isEmpty()) {
            add(Item.RELEASES, false, "The account has no calendar of releases.");
            return;
        }
        LocalDate today = TapeTime.in(zone, now).toLocalDate();
        List<String> lines = new ArrayList<>();
        for (QuietTimes.Quiet one : quiet.times()) {
            if (TapeTime.in(zone, one.release().time()).toLocalDate().equals(today)) {
                lines.add(one.release().title() + " " + minute(one.release().time(), zone) + ", yours "
                        + minute(one.release().time(), own) + ": quiet " + span(one.acts(), one.to(), zone) + ".");
            }
        }
        boolean fresh = quiet.releases().getLast().time() >= now;
        boolean some = !lines.isEmpty();
        if (!some) {
            lines.add("None today" + (fresh ? "." : ": the calendar ends before it."));
        }
        add(Item.RELEASES, fresh || some, lines.toArray(new String[0]));
    }

    private void limits() {
        Optional<Headroom> nearest = view.headroom().stream().filter(h -> h.line().below())
                .min(Comparator.comparingLong(Headroom::money));
        if (nearest.isEmpty()) {
            add(Item.LIMITS, false, "No loss limit is on.");
            return;
        }
        Headroom h = nearest.get();
        String name = ResultWords.of(h.line().kind());
        String words = name.substring(0, 1).toUpperCase(Locale.ROOT) + name.substring(1) + " is "
                + money.apply(h.money()) + " away"
                + h.tenthsOfStopOuts().map(t -> ": worth " + t / 10 + "." + t % 10 + " stop-outs").orElse("") + ".";
        add(Item.LIMITS, h.tenthsOfStopOuts().orElse(WORTH) >= WORTH, words);
    }

    private void feed() {
        Optional<OutOfStep> apart = standing.apart().filter(why -> why == OutOfStep.FEED_SILENT
                || why == OutOfStep.CATCHING_UP);
        boolean clear = standing.data() && apart.isEmpty() && snapshot.print() >= 0;
        add(Item.FEED, clear, !standing.data()
                ? "The feed does not answer."
                : snapshot.print() < 0
                        ? "No print has come yet."
                        : apart.map(why -> sentence(Sentences.apart(why))).orElseGet(() -> contract.symbol()
                                + (snapshot.inSession()
                                        ? " prints arriving, the last " + seconds(standing.silence()) + " ago"
                                        : ": no session is open")
                                + (standing.late() > 0 ? ", " + standing.late() + " came late" : "") + "."));
    }

    private void broker() {
        boolean doubts = !standing.inDoubt().isEmpty();
        OptionalLong apart = standing.difference();
        if (standing.orders() && !doubts && apart.isPresent()) {
            // the way in which it is joined settles it
            checks.add(new Check(Item.BROKER, false, List.of("It holds " + standing.held().getAsLong() + ", we count "
                    + (standing.held().getAsLong() - apart.getAsLong()) + ": choose beside."), Response.INFORM, false));
            return;
        }
        add(Item.BROKER, standing.orders() && !doubts, !standing.orders()
                ? "The broker does not answer."
                : doubts
                        ? "Nobody knows yet whether it has " + String.join(", ", standing.inDoubt()) + "."
                        : "It answers; orders and position agree with the journal.");
    }

    private void clock() {
        boolean apart = standing.apart().equals(Optional.of(OutOfStep.CLOCK_APART));
        long millis = standing.clockAhead() / 1_000_000;
        add(Item.CLOCK, !apart, "This computer is " + Math.abs(millis) + " ms "
                + (millis < 0 ? "behind" : "ahead of") + " the venue's stamps.");
    }

    private static String sentence(String clause) {
        return clause.substring(0, 1).toUpperCase(Locale.ROOT) + clause.substring(1) + ".";
    }

    private static String seconds(long nanos) {
        long tenths = nanos / (TapeTime.SECOND / 10);
        return tenths / 10 + "." + tenths % 10 + " s";
    }

    private static String minute(long time, ZoneId zone) {
        return MINUTE.format(TapeTime.in(zone, time));
    }

    private static String span(long from, long to, ZoneId zone) {
        return minute(from, zone) + "–" + minute(to, zone);
    }

    /** How many are clear, informing, asking and blocking. */
    public static Map<String, Long> counts(List<Check> checks) {
        Map<String, Long> counts = new java.util.LinkedHashMap<>();
        counts.put("clear", checks.stream().filter(Check::clear).count());
        EnumMap<Response, Long> others = new EnumMap<>(Response.class);
        checks.stream().filter(check -> !check.clear()).forEach(check -> others.merge(check.then(), 1L, Long::sum));
        others.forEach((response, count) -> counts.put(response.word(), count));
        return counts;
    }
}
