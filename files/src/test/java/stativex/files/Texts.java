package stativex.files;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;

/** Small documents for tests. */
public final class Texts {
    public static final String CONTRACT = """
            {
              "document": "contract", "version": 1, "symbol": "TDL", "name": "Tidal Power index", "currency": "NZD",
              "tickSize": "0.25", "tickValue": "6.25", "slippageTicks": 1,
              "calendar": {
                "zone": "Pacific/Auckland",
                "week": [{"days": ["Monday", "Tuesday"], "sessions": [{"name": "Day", "open": "08:30", "close": "17:00"}]}]
              }
            }
            """;
    static final String RULEBOOK = """
            {
              "document": "rulebook", "version": 1, "name": "Gannet Row 40K",
              "rules": [{"rule": "drawdown floor", "kind": "intraday", "allowance": "1700.00", "lockAt": "40000.00"}]
            }
            """;
    static final String ACCOUNT = """
            {
              "document": "account", "version": 1, "name": "Gannet Row 40K", "currency": "NZD", "start": "40000.00",
              "fees": [{"contract": "TDL", "perSide": "2.15"}],
              "dayLoss": {"on": true, "amount": "520.00"},
              "dayProfit": {"on": false, "amount": "1040.00"},
              "rulebookFile": "rules.json"
            }
            """;
    static final String PLAN = """
            {
              "document": "exit plan", "version": 1, "name": "Two steps",
              "stop": {"ticks": 16},
              "targets": [{"quantity": 1, "ticks": 14}, {"quantity": 1}],
              "breakeven": {"afterTicks": 12, "offsetTicks": 1},
              "trail": [{"activateTicks": 16, "distanceTicks": 12, "stepTicks": 4}]
            }
            """;
    static final String STRATEGY = """
            {
              "document": "strategy", "version": 1, "name": "Ebb fade", "contract": "TDL",
              "signal": {"bars": "tick", "size": 2},
              "studies": [{"name": "drift", "study": "ema", "of": "close", "length": 2}],
              "long": {"rule": "close > open"},
              "entry": {"order": "market", "quantity": 2},
              "windows": [{"name": "Morning", "days": ["Monday"], "from": "09:45", "to": "11:30",
                           "zone": "Pacific/Auckland", "end": "flatten"}],
              "exitFile": "plan.json"
            }
            """;

    private Texts() {}

    /** Writes all of them to a folder, the tape with the prices given, a second apart from 09:45 Auckland time. */
    static Path folder(String... prices) {
        try {
            Path folder = Files.createTempDirectory("stativex");
            write(folder.resolve("contract.json"), CONTRACT);
            write(folder.resolve("rules.json"), RULEBOOK);
            write(folder.resolve("account.json"), ACCOUNT);
            write(folder.resolve("plan.json"), PLAN);
            write(folder.resolve("strategy.json"), STRATEGY);
            StringBuilder ticks = new StringBuilder("time,price,size\r\n2026-09-20T20:30:00Z,1284.00,1\r\n");
            for (int i = 0; i < prices.length; i++) {
                ticks.append("2026-09-20T21:45:").append(String.format("%02d", i)).append("Z,").append(prices[i])
                        .append(",3\r\n");
            }
            write(folder.resolve("ticks.csv"), ticks.toString());
            return folder;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static void write(Path file, String text) {
        try {
            Files.writeString(file, text, StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static SessionFile.Set documents(Path folder) {
        return new SessionFile.Set(Documents.contract(folder.resolve("contract.json")),
                Documents.account(folder.resolve("account.json")),
                java.util.List.of(Documents.strategy(folder.resolve("strategy.json"))));
    }
}
