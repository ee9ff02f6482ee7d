package stativex.files.tape;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** What a column of a tick file holds. */
public enum Column {
    TIME("time", "timestamp", "datetime", "ts", "exchangetime", "tradetime"), DATE("date", "day", "tradedate"), CLOCK(
            "clock", "timeofday"), PRICE("price", "last", "lastprice", "tradeprice", "px"), SIZE("size", "volume",
                    "qty", "quantity", "vol", "contracts", "lots", "lastsize"), BID("bid", "bidprice", "bestbid"), ASK(
                            "ask", "askprice", "bestask", "offer"), BID_SIZE("bid_size", "bidvolume", "bidqty",
                                    "bidquantity"), ASK_SIZE("ask_size", "askvolume", "askqty",
                                            "askquantity", "offersize"), AGGRESSOR("aggressor",
                                                    "side", "taker", "direction"), LEFT_OUT("left out");

    private final String word;
    private final List<String> others;

    Column(String word, String... others) {
        this.word = word;
        this.others = List.of(others);
    }

    /** Its name in Stativex's own tick files. */
    public String word() {
        return word;
    }

    /** The column of our own files with exactly that name. */
    static Optional<Column> own(String name) {
        return Arrays.stream(values()).filter(c -> c.word.equals(name) && c != DATE && c != CLOCK && c != LEFT_OUT)
                .findFirst();
    }

    /** @throws IllegalArgumentException when there is no such word */
    public static Column named(String word) {
        return Arrays.stream(values()).filter(c -> c.word.equals(word)).findFirst()
                .orElseThrow(() -> new IllegalArgumentException("expected one of "
                        + String.join(", ", Arrays.stream(values()).map(Column::word).toList()) + ", found " + word));
    }

    /** What a column of that name most likely holds, whatever its case, spaces and marks. */
    static Column guess(String name) {
        String plain = plain(name);
        return Arrays.stream(values()).filter(c -> plain(c.word).equals(plain) || c.others.contains(plain)).findFirst()
                .orElse(LEFT_OUT);
    }

    private static String plain(String name) {
        return name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]", "");
    }
}
