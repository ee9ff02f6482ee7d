package stativex.files;

import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import stativex.account.Account;
import stativex.market.Money;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * An account as a person writes it down, right or wrong: every field a text. {@link #read()} says what is wrong.
 *
 * @param fees one line for each contract: its symbol and the fee of one side
 * @param dayLoss own line for the day; empty for none, likewise {@code dayProfit}
 * @param allowance of a drawdown floor that trails the highest equity; empty for no floor
 * @param lockAt the floor never rises above this; empty: it always trails
 * @param base the document that it was made of: what has no field here stays as it is there
 * @param lines further ones
 */
public record AccountSketch(String name, String currency, String start, String fees, String dayLoss, String dayProfit,
        String rulebook, String allowance, String lockAt, Optional<JsonNode> base, AccountLines lines) {

    private static final Pattern FEE = Pattern.compile("(\\S+)[\\s:,;]+([-+]?[0-9.]+)");

    /** An account to begin with that states no cost. */
    public static AccountSketch practice(String currency, String symbol) {
        return new AccountSketch("Practice", currency, "50000.00", symbol + " 0.00\n", "", "", "none", "", "",
                Optional.empty(), AccountLines.NONE);
    }

    public static AccountSketch of(Documents.Read<Account> read) {
        Account account = read.value();
        Map<String, Long> fees = account.fees();
        return new AccountSketch(account.name(), account.currency(), Money.text(account.start()),
                fees.entrySet().stream().map(fee -> fee.getKey() + " " + Money.text(fee.getValue()) + "\n")
                        .collect(Collectors.joining()),
                account.own().dayLoss().map(loss -> Money.text(loss.amount())).orElse(""),
                account.own().dayProfit().map(Money::text).orElse(""), account.rulebook().name(),
                account.rulebook().floor().map(floor -> Money.text(floor.allowance())).orElse(""),
                account.rulebook().floor().flatMap(floor -> floor.lock()).map(Money::text).orElse(""),
                Optional.of(read.document()), AccountLines.of(read.document()));
    }

    /** The same document with other words in its fields. */
    public AccountSketch filled(String itsName, String itsCurrency, String itsStart, String itsFees, String itsDayLoss,
            String itsDayProfit, String itsRulebook, String itsAllowance, String itsLockAt, AccountLines itsLines) {
        return new AccountSketch(itsName, itsCurrency, itsStart, itsFees, itsDayLoss, itsDayProfit, itsRulebook,
                itsAllowance, itsLockAt, base, itsLines);
    }

    /** The same under another name. */
    public AccountSketch withName(String other) {
        return new AccountSketch(other, currency, start, fees, dayLoss, dayProfit, rulebook, allowance, lockAt,
                base, lines);
    }

    /** The account. @throws BadInput saying which field is wrong and what was expected */
    public Documents.Read<Account> read() {
        if (name.isBlank()) {
            throw new BadInput("name: expected something, found nothing");
        }
        ObjectNode d = base.isPresent() && base.get().deepCopy() instanceof ObjectNode copy
                ? copy
                : Json.MAPPER.createObjectNode();
        d.put("document", "account").put("version", 1).put("name", name.strip()).put("currency", currency.strip())
                .put("start", money(start, "start"));
        ArrayNode list = d.putArray("fees");
        int at = 0;
        for (String line : fees.lines().toList()) {
            at++;
            Matcher m = FEE.matcher(line.strip());
            if (!line.isBlank() && !m.matches()) {
                throw new BadInput(
                        "fees, line " + at + ": expected a contract and the fee of one side such as TDL 2.15, found \""
                                + line.strip() + "\"");
            }
            if (!line.isBlank()) {
                list.addObject().put("contract", m.group(1)).put("perSide", m.group(2));
            }
        }
        line(d, "dayLoss", dayLoss, "day loss");
        line(d, "dayProfit", dayProfit, "day profit");
        ObjectNode book = d.withObject("/rulebook").put("document", "rulebook").put("version", 1).put("name",
                rulebook.isBlank() ? "none" : rulebook.strip());
        floor(book.withArray("/rules"));
        lines.write(d);
        return Documents.account(Json.line(d), name.strip().toLowerCase(Locale.ROOT), other -> other);
    }

    /** An own line of the day: its amount, or that there is none; its guard stays. */
    private static void line(ObjectNode document, String key, String amount, String words) {
        AccountLines.line(document, key, amount).ifPresent(line -> line.put("amount", money(amount, words)));
    }

    /** The floor's figures; its kind and guard stay, a new one trails the highest equity. */
    private void floor(ArrayNode rules) {
        ObjectNode floor = null;
        for (int i = 0; i < rules.size(); i++) {
            if (rules.get(i).path("rule").asString("").equals("drawdown floor")) {
                floor = (ObjectNode) rules.get(i);
                if (allowance.isBlank()) {
                    rules.remove(i);
                }
            }
        }
        if (allowance.isBlank()) {
            return;
        }
        if (floor == null) {
            floor = rules.addObject().put("rule", "drawdown floor").put("kind", "intraday");
        }
        floor.put("allowance", money(allowance, "allowance"));
        if (lockAt.isBlank()) {
            floor.remove("lockAt");
        } else {
            floor.put("lockAt", money(lockAt, "locks at"));
        }
    }

    private static String money(String text, String field) {
        try {
            Money.parse(text.strip());
            return text.strip();
        } catch (IllegalArgumentException e) {
            throw new BadInput(field + ": " + e.getMessage(), e);
        }
    }
}
