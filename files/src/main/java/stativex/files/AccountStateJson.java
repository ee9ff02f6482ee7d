package stativex.files;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import stativex.account.AccountState;
import stativex.account.LockReason;
import stativex.account.Losses;
import stativex.account.Standing;

/** What is remembered of an account, as it stands in files. Money in ten-thousandths, times in nanoseconds. */
final class AccountStateJson {
    private AccountStateJson() {}

    static Map<String, Object> write(AccountState state) {
        Map<String, Object> of = new LinkedHashMap<>();
        of.put("balance", state.balance());
        of.put("standing", Arrays.asList(state.standing().peak(), state.standing().closedPeak(),
                state.standing().dayStart(), state.standing().dayBalance(), state.standing().dayBest()));
        of.put("begun", state.begun());
        state.lock().ifPresent(lock -> of.put("lock", lock.name()));
        state.broken().ifPresent(by -> of.put("broken", by.name()));
        of.put("losses", state.losses().inARow());
        if (state.losses().until() != Long.MIN_VALUE) {
            of.put("lossesUntil", state.losses().until());
        }
        state.day().ifPresent(day -> of.put("day", day.toString()));
        return of;
    }

    /** @throws BadInput saying the place of what is wrong */
    static AccountState read(Field of) {
        var standing = of.list("standing");
        if (standing.size() != 5) {
            throw of.at("standing").problem("expected five figures, found " + standing.size());
        }
        return new AccountState(whole(of.at("balance")),
                new Standing(whole(standing.get(0)), whole(standing.get(1)), whole(standing.get(2)),
                        whole(standing.get(3)), whole(standing.get(4))),
                of.at("begun").flag(), reason(of, "lock"), reason(of, "broken"),
                new Losses(of.at("losses").integer(),
                        of.maybe("lossesUntil").map(AccountStateJson::whole).orElse(Long.MIN_VALUE)),
                of.maybe("day").map(day -> LocalDate.parse(day.text())));
    }

    private static Optional<LockReason> reason(Field of, String name) {
        return of.maybe(name).map(field -> Arrays.stream(LockReason.values())
                .filter(reason -> reason.name().equals(field.text())).findFirst()
                .orElseThrow(() -> field.problem("expected why it is locked, found " + Causes.found(field.text()))));
    }

    private static long whole(Field field) {
        return field.longInteger(Long.MIN_VALUE + 1, Long.MAX_VALUE);
    }
}
