package stativex.trial;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.Collectors;
import stativex.engine.Strategy;
import stativex.engine.Trade;
import stativex.interlock.WindowSchedule;
import stativex.market.Contract;
import stativex.market.TapeTime;
import stativex.order.Owner;

/**
 * A finished trade as tables list it: by its entry. Source: SEMANTICS, "Results".
 *
 * @param tradingDay of the entry, by the contract's own calendar
 * @param window names of the strategy's windows that hold the entry, joined by {@code " + "}; empty: none
 * @param hour of the entry in the account calendar's zone, 0 to 23
 * @param r net ÷ R; empty without a stop
 */
public record TradeFacts(Trade trade, LocalDate tradingDay, Contract contract, String window, int hour,
        OptionalDouble r) {

    /** Those of a finished run, in the order in which they ended. */
    public static List<TradeFacts> of(Run run) {
        Inputs inputs = run.inputs();
        Map<Integer, WindowSchedule> schedules = new HashMap<>();
        return run.engine().log().trades().stream().map(trade -> {
            Contract contract = inputs.contract(trade.owner());
            String window = trade.owner() instanceof Owner.Strategy(int index)
                    ? window(schedules.computeIfAbsent(index, i -> schedule(inputs.strategies().get(i))),
                            trade.entryTime())
                    : "";
            return new TradeFacts(trade, day(contract, trade.entryTime()), contract, window,
                    TapeTime.in(inputs.accountCalendar().zone(), trade.entryTime()).getHour(),
                    trade.inR(contract, inputs.account().fee(contract.symbol())));
        }).toList();
    }

    private static WindowSchedule schedule(Strategy strategy) {
        return new WindowSchedule(strategy.limits().windows());
    }

    /** An entry may be filled at the very close that a heartbeat brings; it belongs to the day that ends there. */
    private static LocalDate day(Contract contract, long time) {
        Optional<LocalDate> date = contract.calendar().tradingDate(time);
        return date.orElseGet(() -> contract.calendar().tradingDate(time - 1).orElseThrow());
    }

    private static String window(WindowSchedule schedule, long time) {
        return schedule.occurrences(time, time + 1).stream()
                .filter(occurrence -> occurrence.from() <= time && time < occurrence.to())
                .map(occurrence -> occurrence.window().name()).distinct().collect(Collectors.joining(" + "));
    }
}
