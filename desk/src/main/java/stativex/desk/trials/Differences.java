package stativex.desk.trials;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import stativex.desk.look.Format;
import stativex.engine.Trade;
import stativex.files.DocumentDifference;
import stativex.trial.Summary;

/** Two trials in words: which settings differ, and what came of it. */
final class Differences {
    /** Where more settings differ it is another strategy. */
    private static final int MOST = 12;

    private Differences() {}

    static String words(int first, TrialQueue.Result one, int second, TrialQueue.Result other) {
        List<String> settings = new ArrayList<>();
        List<String> ofStrategy = DocumentDifference.of(one.documents().strategies().getFirst().document(),
                other.documents().strategies().getFirst().document());
        if (ofStrategy.size() > MOST) {
            settings.add("another strategy");
        } else {
            settings.addAll(ofStrategy);
        }
        if (!one.run().inputs().terms().equals(other.run().inputs().terms())) {
            settings.add("how orders fill");
        }
        settings.addAll(DocumentDifference.of(one.documents().account().document(),
                other.documents().account().document()).stream().map(words -> "account " + words).toList());
        settings.addAll(DocumentDifference.of(one.documents().contract().document(),
                other.documents().contract().document()).stream().map(words -> "contract " + words).toList());
        String differ = settings.isEmpty()
                ? "the same settings"
                : String.join(", ", settings.subList(0, Math.min(4, settings.size())))
                        + (settings.size() > 4 ? " and " + (settings.size() - 4) + " more" : "");
        return second + " against " + first + ": " + differ + ": " + results(one, other) + both(one, other);
    }

    private static String results(TrialQueue.Result one, TrialQueue.Result other) {
        Summary a = one.report().summary();
        Summary b = other.report().summary();
        int trades = b.trades() - a.trades();
        List<String> words = new ArrayList<>();
        words.add(trades == 0 ? "as many trades" : Math.abs(trades) + (trades > 0 ? " trades more" : " trades fewer"));
        if (a.averageTrade().isPresent() && b.averageTrade().isPresent()) {
            words.add("average " + Format.signedMoney(b.averageTrade().getAsLong() - a.averageTrade().getAsLong()));
        }
        if (a.worstDay().isPresent() && b.worstDay().isPresent()) {
            words.add("worst day " + Format.signedMoney(b.worstDay().get().result() - a.worstDay().get().result()));
        }
        words.add("net " + Format.signedMoney(b.net() - a.net()));
        return String.join(", ", words) + ".";
    }

    /** Trades that both entered at the same moment on the same side. */
    private static String both(TrialQueue.Result one, TrialQueue.Result other) {
        Map<String, Long> first = new HashMap<>();
        one.report().trades().forEach(t -> first.put(key(t.trade()), t.trade().net()));
        long shared = 0;
        long apart = 0;
        for (var facts : other.report().trades()) {
            Long net = first.get(key(facts.trade()));
            if (net != null) {
                shared++;
                apart += facts.trade().net() - net;
            }
        }
        return shared == 0
                ? " No trade began at the same moment in both."
                : " " + shared + " trades began at the same moment in both: " + Format.signedMoney(apart)
                        + " on these.";
    }

    private static String key(Trade trade) {
        return trade.side() + " " + trade.entryTime();
    }
}
