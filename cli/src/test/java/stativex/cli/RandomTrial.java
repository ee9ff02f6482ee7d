package stativex.cli;

import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import stativex.demo.Demo;
import stativex.files.Documents;
import stativex.files.ResultFiles;
import stativex.files.SessionFile;
import stativex.market.Contract;
import stativex.order.Realism;
import stativex.order.Terms;
import stativex.order.TrialMode;
import stativex.trial.Inputs;
import stativex.trial.Run;

/**
 * A trial of random documents on a random tape, all of it text as a person would give it, so that the same trial can be
 * made by any version of the program. Invented; the seed alone decides.
 */
final class RandomTrial {
    private static final List<String> DAYS = List.of("2026-09-25", "2026-09-28", "2026-09-29");
    private static final ZoneId ZONE = ZoneId.of("Pacific/Auckland");

    private final SplittableRandom dice;
    private final BigDecimal tick;
    final String contract;
    final String account;
    final List<String> strategies = new ArrayList<>();
    final String ticks;
    final Terms terms;
    private Inputs inputs;

    RandomTrial(long seed) {
        dice = new SplittableRandom(seed * 7919);
        tick = new BigDecimal(pick("0.25", "0.05", "1", "0.5"));
        contract = contract();
        account = account();
        int many = chance(25) ? 2 : 1;
        for (int i = 0; i < many; i++) {
            strategies.add(strategy(i));
        }
        ticks = ticks();
        Realism realism = Realism.values()[dice.nextInt(3)];
        terms = new Terms(realism, chance(60) ? 0 : dice.nextLong(15_000_000_000L),
                realism == Realism.QUEUE ? dice.nextInt(9) : 0);
    }

    private boolean chance(int percent) {
        return dice.nextInt(100) < percent;
    }

    private int from(int least, int most) {
        return dice.nextInt(least, most + 1);
    }

    private String pick(String... words) {
        return words[dice.nextInt(words.length)];
    }

    private String contract() {
        return """
                {"document":"contract","version":1,"symbol":"TDL","name":"Tidal Power index","currency":"NZD",
                 "tickSize":"%s","tickValue":"%s","slippageTicks":%d%s,
                 "calendar":{"zone":"Pacific/Auckland","week":[{"days":["Monday","Tuesday","Wednesday","Thursday","Friday"],
                  "sessions":[{"name":"Night","open":"05:00","close":"08:00"},{"name":"Day","open":"08:30","close":"12:00"}]}]%s}}
                """
                .formatted(tick, pick("6.25", "0.625", "5.00", "10.00"), from(0, 2),
                        chance(10) ? ",\"lastTradingDay\":\"2026-09-29\"" : "",
                        chance(15)
                                ? ",\"exceptions\":[{\"date\":\"2026-09-28\",\"sessions\":[{\"name\":\"Day\",\"open\":\"08:30\",\"close\":\"11:00\"}]}]"
                                : "");
    }

    private String account() {
        return """
                {"document":"account","version":1,"name":"Gannet Row 40K","currency":"NZD","start":"40000.00",
                 "fees":[{"contract":"TDL","perSide":"%s"}],
                 "dayLoss":{"on":%s,"amount":"%d.00","guard":%s},"dayProfit":{"on":%s,"amount":"%d.00"},
                 "rulebook":{"document":"rulebook","version":1,"name":"Gannet Row 40K","rules":[%s]}}
                """
                .formatted(pick("2.15", "0.35", "0", "4"), chance(50), from(150, 1500), chance(50), chance(40),
                        from(100, 1500),
                        chance(60)
                                ? "{\"rule\":\"drawdown floor\",\"kind\":\"intraday\",\"allowance\":\"%d.00\"%s}"
                                        .formatted(from(250, 2500), chance(50) ? ",\"lockAt\":\"40000.00\"" : "")
                                : "");
    }

    private String bars(boolean everyTrade) {
        return switch (dice.nextInt(everyTrade ? 5 : 7)) {
            case 0, 1 -> "\"bars\":\"tick\",\"size\":" + from(1, 9);
            case 2 -> "\"bars\":\"volume\",\"size\":" + from(3, 25);
            case 3 -> "\"bars\":\"range\",\"size\":" + from(2, 8);
            case 4 -> "\"bars\":\"seconds\",\"size\":" + pick("20", "60", "150", "900", "0.5");
            case 5 -> {
                int step = from(1, 4);
                yield "\"bars\":\"renko\",\"size\":" + step + ",\"turn\":" + step * from(1, 3);
            }
            default -> chance(30) ? "\"bars\":\"day\"" : "\"bars\":\"renko\",\"size\":2,\"turn\":4";
        } + (chance(25) ? ",\"restart\":\"" + pick("day", "week") + "\"" : "")
                + (chance(8) ? ",\"sessions\":[\"Day\"]" : "");
    }

    private String strategy(int index) {
        boolean everyTrade = chance(15);
        String signal = bars(everyTrade);
        if (signal.contains("day\"") && signal.contains("\"bars\":\"day\"")) {
            signal = "\"bars\":\"day\"";
        }
        String order = pick("market", "market", "limit", "stop", "stop-limit");
        boolean simple = chance(60);
        String rise = simple
                ? "close > open"
                : pick("close rises through mean", "close > mean and close > open", "pull > 60",
                        "close > slow on any of the last 3 bars", "delta > 0", "close < band.lower and close > open",
                        "bars since (close > open) < 2 and close > close 2 bars before",
                        "open result > 2 ticks or close > open");
        String fall = simple
                ? "close < open"
                : pick("close falls through mean", "close < mean and close < open", "pull < 40",
                        "close < slow on any of the last 3 bars", "delta < 0", "close > band.upper and close < open",
                        "bars since (close < open) < 2 and close < close 2 bars before");
        String sign = order.equals("limit") ? "-" : "+";
        String other = order.equals("limit") ? "+" : "-";
        int away = from(0, 4);
        String prices = order.equals("market") ? "" : ",\"price\":\"close " + sign + " " + away + " ticks\"";
        String mirrored = order.equals("market") ? "" : ",\"price\":\"close " + other + " " + away + " ticks\"";
        int quantity = from(1, 4);
        return """
                {"document":"strategy","version":1,"name":"%s","contract":"TDL","signal":{%s},
                 "studies":[{"name":"mean","study":"vwap","deviations":1.5},{"name":"slow","study":"ema","of":"close","length":%d},
                  {"name":"pull","study":"rsi","of":"close","length":3},{"name":"band","study":"bollinger","of":"close","length":8,"deviations":1}],
                 "evaluate":"%s",%s%s
                 %s%s
                 "entry":{"order":"%s","quantity":%d%s},"adds":%s,"maximumPosition":%d,"once":%s,"historyDays":%d%s,
                 "windows":[%s],"exit":%s}
                """.formatted(index == 0 ? "Ebb fade" : "Slack water", signal, from(2, 30),
                everyTrade ? "every trade" : "bar close",
                chance(12) ? "\"confirmWithinBars\":" + from(1, 3) + "," : "",
                chance(20)
                        ? "\"signalsPerPeriod\":{\"most\":" + from(1, 4) + ",\"period\":\""
                                + pick("session", "trading day", "window") + "\"},"
                        : "",
                chance(90) ? "\"long\":{\"rule\":\"" + rise + "\"" + prices + "}," : "",
                "\"short\":{\"rule\":\"" + fall + "\"" + mirrored + "},", order, quantity,
                (order.equals("market")
                        ? ""
                        : pick("", ",\"goodFor\":\"until cancelled\"", ",\"goodForBars\":" + from(1, 4))
                                + (order.equals("stop-limit") ? ",\"limitTicks\":" + from(0, 3) : ""))
                        + pick("", "", "", "", ",\"riskMoney\":\"" + from(60, 1500) + ".50\"",
                                ",\"riskPercent\":\"7.5\"")
                        + (chance(15) ? ",\"riskCap\":\"" + from(80, 900) + "\"" : ""),
                chance(40), quantity * from(1, 3), chance(6), chance(20) ? 1 : 0,
                (chance(25) ? ",\"cut\":true" : "") + (chance(15) ? ",\"twoSided\":true" : "")
                        + (chance(25) ? ",\"tradesADay\":" + from(1, 8) : ""),
                windows(), plan());
    }

    private String windows() {
        List<String> windows = new ArrayList<>();
        if (chance(60)) {
            String days = "\"days\":[\"Monday\",\"Tuesday\",\"Wednesday\",\"Thursday\",\"Friday\",\"Saturday\",\"Sunday\"],\"zone\":\"Pacific/Auckland\"";
            windows.add("{\"name\":\"Early\"," + days
                    + ",\"from\":\"05:20\",\"to\":\"06:40\",\"end\":\"flatten\",\"leadSeconds\":45}");
            if (chance(60)) {
                windows.add("{\"name\":\"Next\"," + days + ",\"from\":\"06:40\",\"to\":\"07:30\",\"end\":\""
                        + pick("cancel", "stop entering", "flatten") + "\"}");
            }
            if (chance(60)) {
                windows.add(
                        "{\"name\":\"Late\"," + days + ",\"from\":\"09:00\",\"to\":\"" + pick("11:00", "12:10", "11:59")
                                + "\",\"end\":\"flatten\",\"leadSeconds\":" + pick("30", "600", "0") + "}");
            }
        }
        return String.join(",", windows);
    }

    private String plan() {
        List<String> targets = new ArrayList<>();
        for (int i = dice.nextInt(4); i > 0; i--) {
            targets.add("{\"quantity\":" + from(1, 2) + ",\"ticks\":" + from(1, 30) + "}");
        }
        if (chance(20) && !targets.isEmpty()) {
            targets.add("{\"quantity\":1}");
        }
        boolean stop = !chance(5) || targets.isEmpty();
        int after = from(1, 15);
        List<String> trail = new ArrayList<>();
        if (stop && chance(55)) {
            int activate = from(0, 6);
            for (int i = from(1, 3); i > 0; i--) {
                trail.add("{\"activateTicks\":" + activate + ",\"distanceTicks\":" + from(1, 25) + ",\"stepTicks\":"
                        + from(1, 5) + "}");
                activate += from(1, 9);
            }
        }
        return "{\"document\":\"exit plan\",\"version\":1,\"name\":\"Two-step runner\""
                + (stop
                        ? ",\"stop\":" + (chance(20)
                                ? "{\"perContract\":\"" + from(20, 300) + ".00\"}"
                                : "{\"ticks\":" + from(2, 25) + "}")
                        : "")
                + ",\"targets\":[" + String.join(",", targets) + "]"
                + (stop && chance(55)
                        ? ",\"breakeven\":{\"afterTicks\":" + after + ",\"offsetTicks\":" + (after - from(1, 8)) + "}"
                        : "")
                + (trail.isEmpty() ? "" : ",\"trail\":[" + String.join(",", trail) + "]") + "}";
    }

    private String ticks() {
        boolean quotes = chance(70);
        boolean sides = chance(30);
        StringBuilder csv = new StringBuilder(
                "time,price,size" + (quotes ? ",bid,ask" : "") + (sides ? ",aggressor" : "") + "\n");
        long price = chance(12) ? from(-20, 20) : 1000;
        int pace = from(8, 60);
        for (String day : DAYS) {
            long time = nanos(day, "05:00")
                    + (day.equals(DAYS.getFirst()) && chance(20) ? 300 : from(-20, 50)) * 1_000_000_000L;
            long end = nanos(day, "12:00") + (chance(50) ? 60_000_000_000L : -900_000_000_000L);
            while (time < end) {
                int spread = from(1, 3);
                csv.append(Instant.ofEpochSecond(0, time)).append(',').append(text(price)).append(',')
                        .append(1 + dice.nextInt(5));
                if (quotes) {
                    boolean normal = !chance(8);
                    long bid = price - dice.nextInt(spread + 1);
                    csv.append(',').append(normal ? text(bid) : "").append(',')
                            .append(chance(94) ? text(bid + spread) : "");
                }
                csv.append(sides ? "," + pick("buyer", "seller", "unknown", "") : "").append('\n');
                price += dice.nextInt(-2, 3) + (chance(3) ? from(-20, 20) : 0);
                time += chance(25) ? 0 : dice.nextLong(2L * pace * 1_000_000_000L);
                if (chance(1)) {
                    time += 900_000_000_000L;
                }
            }
        }
        return csv.toString();
    }

    private static long nanos(String day, String time) {
        return LocalDate.parse(day).atTime(LocalTime.parse(time)).atZone(ZONE).toEpochSecond() * 1_000_000_000L;
    }

    private String text(long ticks) {
        return tick.multiply(BigDecimal.valueOf(ticks)).toPlainString();
    }

    /** Runs it and writes what came of it to a folder. */
    Run run(Path folder) throws java.io.IOException {
        Files.createDirectories(folder);
        Path tape = folder.resolve("ticks.csv");
        Files.writeString(tape, ticks);
        Documents.Read<Contract> read = Documents.contract(contract, "contract.json");
        SessionFile.Set documents = new SessionFile.Set(read, Documents.account(account, "account.json", name -> {
            throw new IllegalStateException(name);
        }), strategies.stream().map(text -> Documents.strategy(text, "strategy.json", name -> {
            throw new IllegalStateException(name);
        })).toList());
        inputs = documents.inputs(Demo.open(tape.toString(), java.util.Optional.of(read.value()), false).tape(), terms);
        Run run = Run.trial(inputs);
        ResultFiles.write(folder, run);
        return run;
    }

    /** The same once more in bar mode, after {@link #run}; empty where that is refused. */
    java.util.Optional<Run> inBarMode(Path folder) {
        try {
            Run run = Run.trial(inputs.under(terms.in(TrialMode.BAR)));
            ResultFiles.write(folder, run);
            return java.util.Optional.of(run);
        } catch (IllegalArgumentException e) {
            return java.util.Optional.empty();
        }
    }
}
