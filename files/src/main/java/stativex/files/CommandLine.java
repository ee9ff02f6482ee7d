package stativex.files;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.engine.Strategy;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Order;
import stativex.order.Owner;
import stativex.trial.Inputs;

/** A command of the person as a line of a session file. Strategies stand by name, who is named nowhere is the person. */
final class CommandLine {
    /** Further than any tape reaches. */
    private static final long MOST_TICKS = 2_000_000_000L;

    private CommandLine() {}

    /** Writes a command. @param names of the strategies, by index */
    static void write(Command command, List<String> names, Map<String, Object> line) {
        line.put("command", word(command));
        switch (command) {
            case Command.SetMode c -> {
                line.put("strategy", names.get(c.strategy()));
                line.put("to", c.mode().word());
            }
            case Command.SetSide c -> {
                line.put("strategy", names.get(c.strategy()));
                line.put("side", c.side().word());
                line.put("to", c.on() ? "on" : "off");
            }
            case Command.SetOnce c -> {
                line.put("strategy", names.get(c.strategy()));
                line.put("to", c.once() ? "on" : "off");
            }
            case Command.Breakeven c -> owner(c.owner(), "strategy", names, line);
            case Command.HalfOff c -> owner(c.owner(), "strategy", names, line);
            case Command.Flatten c -> owner(c.owner(), "strategy", names, line);
            case Command.FlatAndLock ignored -> {
            }
            case Command.Enter c -> enter(c, names, line);
            case Command.Cancel c -> line.put("order", c.order());
            case Command.Move c -> {
                line.put("order", c.order());
                line.put("priceTicks", c.price());
            }
            case Command.HandOver c -> {
                owner(c.from(), "from", names, line);
                owner(c.to(), "to", names, line);
            }
            case Command.ChangeLimits c -> line.put("limits", LimitsDocument.write(c.own()));
            case Command.Adopt c -> {
                line.put("contracts", c.contracts());
                line.put("priceTicks", c.price());
            }
            case Command.AttachPlan c -> line.put("strategy", names.get(c.strategy()));
            case Command.ChangePlan c -> {
                line.put("strategy", names.get(c.strategy()));
                line.put("exit", Documents.document(c.plan()).document());
                line.put("open", c.open());
            }
        }
    }

    private static void owner(Owner owner, String field, List<String> names, Map<String, Object> line) {
        if (owner instanceof Owner.Strategy strategy) {
            line.put(field, names.get(strategy.index()));
        }
    }

    private static void enter(Command.Enter c, List<String> names, Map<String, Object> line) {
        line.put("side", c.side().word());
        line.put("order", c.type().word());
        line.put("quantity", c.quantity());
        if (c.price() != Tape.NONE) {
            line.put("priceTicks", c.price());
        }
        if (c.limit() != Tape.NONE) {
            line.put("limitTicks", c.limit());
        }
        c.plan().ifPresent(plan -> line.put("plan", names.get(plan)));
        if (c.anyway()) {
            line.put("anyway", true);
        }
    }

    /** Reads a command. @throws BadInput saying the place of what is wrong */
    static Command read(Field line, Inputs inputs) {
        Field word = line.at("command");
        return switch (word.text()) {
            case "mode" -> new Command.SetMode(strategy(line.at("strategy"), inputs), line.at("to").word(Mode.class));
            case "side" -> new Command.SetSide(strategy(line.at("strategy"), inputs), line.at("side").word(Side.class),
                    isOn(line));
            case "once" -> new Command.SetOnce(strategy(line.at("strategy"), inputs), isOn(line));
            case "breakeven" -> new Command.Breakeven(owner(line, "strategy", inputs));
            case "half off" -> new Command.HalfOff(owner(line, "strategy", inputs));
            case "flatten" -> new Command.Flatten(owner(line, "strategy", inputs));
            case "flat and lock" -> new Command.FlatAndLock();
            case "enter" -> enter(line, inputs);
            case "cancel" -> new Command.Cancel(line.at("order").integer());
            case "move" -> new Command.Move(line.at("order").integer(), ticks(line.at("priceTicks")));
            case "hand over" -> new Command.HandOver(owner(line, "from", inputs), owner(line, "to", inputs));
            case "change limits" -> new Command.ChangeLimits(
                    LimitsDocument.read(line.at("limits"), inputs.account().own().quietTimes(),
                            inputs.account().fees()::containsKey));
            case "adopt" -> line.checked(() -> new Command.Adopt(
                    (int) line.at("contracts").longInteger(-1_000_000, 1_000_000), ticks(line.at("priceTicks"))));
            case "attach plan" -> new Command.AttachPlan(strategy(line.at("strategy"), inputs));
            case "change plan" -> new Command.ChangePlan(strategy(line.at("strategy"), inputs),
                    Documents.exitPlan(line.at("exit")), line.at("open").flag());
            default -> throw word.problem("expected a command, found \"" + Causes.found(word.text()) + "\"");
        };
    }

    private static Command enter(Field line, Inputs inputs) {
        Field named = line.at("order");
        Order.Type type = Arrays.stream(Order.Type.values()).filter(t -> t.word().equals(named.text())).findFirst()
                .orElseThrow(() -> named.problem("expected market, limit, stop or stop-limit, found \""
                        + Causes.found(named.text()) + "\""));
        long price = type == Order.Type.MARKET ? Tape.NONE : ticks(line.at("priceTicks"));
        long limit = type == Order.Type.STOP_LIMIT ? ticks(line.at("limitTicks")) : Tape.NONE;
        return line.checked(() -> new Command.Enter(line.at("side").word(Side.class), type,
                (int) line.at("quantity").longInteger(1, 1_000_000), price, limit,
                line.has("plan") ? OptionalInt.of(strategy(line.at("plan"), inputs)) : OptionalInt.empty(),
                line.maybe("anyway").map(Field::flag).orElse(false)));
    }

    private static long ticks(Field field) {
        return field.longInteger(-MOST_TICKS, MOST_TICKS);
    }

    private static int strategy(Field name, Inputs inputs) {
        int strategy = inputs.strategies().stream().map(Strategy::name).toList().indexOf(name.text());
        if (strategy < 0) {
            throw name.problem("expected a strategy of the session, found \"" + Causes.found(name.text()) + "\"");
        }
        return strategy;
    }

    private static Owner owner(Field line, String field, Inputs inputs) {
        return line.has(field) ? new Owner.Strategy(strategy(line.at(field), inputs)) : Owner.PERSON;
    }

    private static boolean isOn(Field line) {
        Field to = line.at("to");
        if (!List.of("on", "off").contains(to.text())) {
            throw to.problem("expected on or off, found \"" + Causes.found(to.text()) + "\"");
        }
        return to.text().equals("on");
    }

    private static String word(Command command) {
        return switch (command) {
            case Command.SetMode ignored -> "mode";
            case Command.SetSide ignored -> "side";
            case Command.SetOnce ignored -> "once";
            case Command.Breakeven ignored -> "breakeven";
            case Command.HalfOff ignored -> "half off";
            case Command.Flatten ignored -> "flatten";
            case Command.FlatAndLock ignored -> "flat and lock";
            case Command.Enter ignored -> "enter";
            case Command.Cancel ignored -> "cancel";
            case Command.Move ignored -> "move";
            case Command.HandOver ignored -> "hand over";
            case Command.ChangeLimits ignored -> "change limits";
            case Command.Adopt ignored -> "adopt";
            case Command.AttachPlan ignored -> "attach plan";
            case Command.ChangePlan ignored -> "change plan";
        };
    }
}
