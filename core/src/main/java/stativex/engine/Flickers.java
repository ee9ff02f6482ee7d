package stativex.engine;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.LongColumn;
import stativex.market.SeriesBuilder;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.rule.Program;
import stativex.rule.Truth;

/**
 * What signals did inside their bars: every print of a tape is looked at, and a bar at which a side's rule was true at
 * some moment is noted. At the close such a signal was confirmed or withdrawn; SEMANTICS, "Evaluation moments".
 */
public final class Flickers {
    private static final int ASK_EVERY = 4096;

    private Flickers() {}

    /**
     * One side's signals.
     *
     * @param raised 1 for each closed bar in which the signal was true at some moment, its close included
     * @param provisional whether it has been true in the bar that forms at the tape's end
     * @param confirmed bars at whose close it was true
     * @param withdrawn bars at whose close a raised signal was not true any more
     */
    public record Found(LongColumn.Prefix raised, boolean provisional, int confirmed, int withdrawn) {}

    private static final class Watched {
        private final SideRules rules;
        private final LongColumn raised = new LongColumn();
        private boolean now;
        private int confirmed;
        private int withdrawn;

        Watched(SideRules rules) {
            this.rules = rules;
        }

        void look(int row) {
            now = now || rules.whole().at(row) == Truth.TRUE;
        }

        void close(int row) {
            boolean held = rules.whole().at(row) == Truth.TRUE;
            raised.add(held || now ? 1 : 0);
            confirmed += held ? 1 : 0;
            withdrawn += now && !held ? 1 : 0;
            now = false;
        }
    }

    /**
     * The same for each side of a strategy, over a tape of its contract.
     *
     * @param others further contracts that its series name, by symbol
     */
    public static Map<Side, Found> of(Strategy strategy, Contract contract, Tape tape,
            Map<String, ContractTape> others) {
        SignalPlan plan = strategy.signals();
        SeriesBuilder builder = new SeriesBuilder(tape, contract.calendar(), plan.bars());
        Program program = new Program(plan.blueprint(contract, others), builder.series());
        List<SideRules> sides = new ArrayList<>();
        for (Side side : Side.values()) {
            strategy.side(side).ifPresent(
                    rule -> sides.add(new SideRules(program, side, rule, plan, strategy.entry(side).priced())));
        }
        return find(tape, builder, program, sides, () -> false).orElseThrow();
    }

    /**
     * Works a whole tape.
     *
     * @param builder of the signal series, which has taken no print yet
     * @param program on the builder's series
     * @param sides made of that program
     * @param stop asked now and then whether to give up
     * @return empty when told to give up
     */
    public static Optional<Map<Side, Found>> find(Tape tape, SeriesBuilder builder, Program program,
            List<SideRules> sides,
            BooleanSupplier stop) {
        List<Watched> watched = sides.stream().map(Watched::new).toList();
        for (int print = 0; print < tape.count(); print++) {
            if (print % ASK_EVERY == 0 && stop.getAsBoolean()) {
                return Optional.empty();
            }
            builder.print(print);
            while (program.rows() < builder.series().count()) {
                int row = program.rows();
                program.takeNext();
                watched.forEach(side -> side.close(row));
            }
            long time = tape.time(print);
            builder.forming().ifPresent(bar -> {
                program.takeForming(bar, time);
                watched.forEach(side -> side.look(program.rows()));
            });
        }
        Map<Side, Found> found = new EnumMap<>(Side.class);
        watched.forEach(side -> found.put(side.rules.side(),
                new Found(side.raised.prefix(), side.now, side.confirmed, side.withdrawn)));
        return Optional.of(found);
    }
}
