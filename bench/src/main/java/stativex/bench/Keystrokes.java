package stativex.bench;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.demo.Demo;
import stativex.engine.SideRules;
import stativex.engine.SignalPlan;
import stativex.engine.Strategy;
import stativex.files.SessionFile;
import stativex.market.BarSeries;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.SeriesBuilder;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.rule.Blueprint;
import stativex.rule.Program;
import stativex.rule.Truth;
import stativex.rule.Worked;

/**
 * What a keystroke in a rule costs: the demo's first strategy, with a trend on 1 200 trades beside it, over the demo's
 * days, every study and every lane for both sides. Once with everything worked anew, once with what the program before has
 * worked. Fails when the second is not {@code SMALLEST RATIO} times as fast, 3 if none is given.
 */
final class Keystrokes {
    private Keystrokes() {}

    public static void main(String[] arguments) {
        double least = arguments.length > 0 ? Double.parseDouble(arguments[0]) : 3;
        SessionFile.Set documents = Demo.documents();
        Contract contract = documents.contract().value();
        Tape tape = Demo.tape(contract);
        Strategy strategy = documents.strategies().getFirst().value();
        SignalPlan plan = strategy.signals();
        Blueprint of = plan.blueprint(contract, Map.of());
        Blueprint blueprint = new Blueprint(of.tickSize(), of.calendar(),
                List.of(new Blueprint.SeriesDefinition("trend",
                        BarSettings.of(new BarType.Ticks(1200)), Optional.empty())),
                of.studies(), of.drawings(), Map.of());
        BarSeries bars = SeriesBuilder.all(tape, contract.calendar(), plan.bars());
        Worked worked = new Worked();
        Medians medians = new Medians()
                .add("anew", () -> enters(new Program(blueprint, bars), strategy))
                .add("kept", () -> {
                    Program program = new Program(blueprint, bars, worked);
                    long enters = enters(program, strategy);
                    worked.keep(program);
                    return enters;
                });
        Map<String, Double> times = medians.run();
        if (enters(new Program(blueprint, bars), strategy) != enters(new Program(blueprint, bars, worked), strategy)) {
            System.out.println("what was kept gives other entries than what is worked anew");
            System.exit(1);
        }
        double ratio = times.get("anew") / times.get("kept");
        System.out.printf("prints %d, bars %d, check %d%n", tape.count(), bars.count(), medians.check());
        System.out.printf("a keystroke: everything anew %.2f ms, with what is kept %.2f ms: %.1f × (at least %.0f ×)%n",
                times.get("anew"), times.get("kept"), ratio, least);
        if (ratio < least) {
            System.exit(1);
        }
    }

    /** Bars at which a side would enter. */
    private static long enters(Program program, Strategy strategy) {
        List<SideRules> sides = List.of(Side.values()).stream().map(side -> new SideRules(program, side,
                rule(strategy.side(side).orElseThrow()), strategy.signals(), false)).toList();
        program.studies("");
        program.studies("trend");
        program.take();
        long enters = 0;
        for (SideRules side : sides) {
            for (int bar = 0; bar < program.rows(); bar++) {
                enters += side.whole().at(bar) == Truth.TRUE ? 1 : 0;
            }
        }
        return enters;
    }

    private static Strategy.SideRule rule(Strategy.SideRule of) {
        return new Strategy.SideRule(of.rule() + " and trend.close > 1", Optional.empty());
    }
}
