package stativex.link.fix;

import java.util.Locale;
import stativex.files.BadInput;
import stativex.market.TapeTime;

/** What a stand-in is asked to do while it runs: mostly something wrong, to practise on. */
public sealed interface Wish {
    /** Both sides' connections are cut; the client may come again at once. */
    record Drop() implements Wish {}

    /** No print is sent for so many nanoseconds; those that were due come at once then. */
    record Silence(long nanos) implements Wish {}

    /** Somebody trades by hand elsewhere: the account holds so many more, or fewer, contracts. */
    record Elsewhere(int contracts) implements Wish {}

    /** The next so many orders are refused. */
    record Reject(int orders) implements Wish {}

    /** It plays so many tape seconds a second from now on, where it does not keep step. */
    record Speed(double speed) implements Wish {}

    /** So many prints are not sent, though orders meet them. */
    record Gap(int prints) implements Wish {}

    /** Somebody places an order by hand elsewhere. @param contracts below 0 to sell; {@code price} in the contract's units */
    record Order(int contracts, String price) implements Wish {}

    /** The last fill is taken back: it was none. */
    record TakeBack() implements Wish {}

    /** The last fill was at another price, so many ticks higher. */
    record Correct(int ticks) implements Wish {}

    /** The words of each. */
    String WORDS = "drop, silence SECONDS, elsewhere CONTRACTS, order CONTRACTS PRICE, takeback, correct TICKS, "
            + "reject ORDERS, gap PRINTS or speed N";

    /** @throws BadInput when a line asks for none of them */
    static Wish read(String line) {
        String[] words = line.strip().toLowerCase(Locale.ROOT).split("\\s+");
        try {
            if (words.length == 1 && words[0].equals("drop")) {
                return new Drop();
            }
            if (words.length == 1 && words[0].equals("takeback")) {
                return new TakeBack();
            }
            if (words.length == 3 && words[0].equals("order") && Integer.parseInt(words[1]) != 0) {
                return new Order(Integer.parseInt(words[1]), words[2]);
            }
            if (words.length == 2 && words[0].equals("speed") && Double.parseDouble(words[1]) > 0) {
                return new Speed(Double.parseDouble(words[1]));
            }
            if (words.length == 2) {
                int number = Integer.parseInt(words[1]);
                if (words[0].equals("silence") && number > 0) {
                    return new Silence(number * TapeTime.SECOND);
                }
                if (words[0].equals("elsewhere") && number != 0) {
                    return new Elsewhere(number);
                }
                if (words[0].equals("correct") && number != 0) {
                    return new Correct(number);
                }
                if (words[0].equals("gap") && number > 0) {
                    return new Gap(number);
                }
                if (words[0].equals("reject") && number > 0) {
                    return new Reject(number);
                }
            }
        } catch (NumberFormatException e) {
            // said below
        }
        throw new BadInput("expected " + WORDS + ", found " + line.strip());
    }
}
