package stativex.market;

import java.util.Collection;
import java.util.Comparator;

/** Words for messages. */
public final class Words {
    private Words() {}

    /** {@code ; did you mean "close"?} when one of the known words is near the found one; else nothing. */
    public static String didYouMean(String found, Collection<String> known) {
        String near = known.stream().min(Comparator.comparingInt(word -> distance(word, found))).orElse("");
        return !near.isEmpty() && distance(near, found) <= Math.max(2, found.length() / 3)
                ? "; did you mean \"" + near + "\"?"
                : "";
    }

    /** Edit distance (Levenshtein): insertions, deletions and replacements. */
    private static int distance(String a, String b) {
        int[] row = new int[b.length() + 1];
        for (int j = 0; j <= b.length(); j++) {
            row[j] = j;
        }
        for (int i = 1; i <= a.length(); i++) {
            int diagonal = row[0];
            row[0] = i;
            for (int j = 1; j <= b.length(); j++) {
                int replace = diagonal + (a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1);
                diagonal = row[j];
                row[j] = Math.min(replace, 1 + Math.min(row[j], row[j - 1]));
            }
        }
        return row[b.length()];
    }
}
