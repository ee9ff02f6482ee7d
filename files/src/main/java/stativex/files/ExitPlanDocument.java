package stativex.files;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Function;
import stativex.exit.Distance;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.exit.Leave;
import stativex.market.Decimals;
import stativex.market.Money;
import stativex.market.Side;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Reads and writes exit plan documents; what is read follows its schema already. */
final class ExitPlanDocument {
    private static final List<String> FIELDS = List.of("stop", "targets", "breakeven", "trail", "judged", "leaves");

    private ExitPlanDocument() {}

    // ------------------------------------------------------------------ reading

    /** @param version a fingerprint of the document */
    static ExitPlan read(Field plan, String version) {
        ExitTerms longTerms = terms(plan, Side.LONG);
        ExitTerms shortTerms = terms(plan, Side.SHORT);
        return plan.checked(() -> new ExitPlan(plan.at("name").text(), version, longTerms, shortTerms));
    }

    /** What a side states itself, else what stands for both. */
    private static ExitTerms terms(Field plan, Side side) {
        Function<String, Field> of = name -> plan.has(side.word()) && plan.at(side.word()).has(name)
                ? plan.at(side.word())
                : plan;
        return plan.checked(() -> new ExitTerms(of.apply("stop").maybe("stop").map(ExitPlanDocument::stop),
                of.apply("targets").items("targets").stream().map(ExitPlanDocument::target).toList(),
                of.apply("breakeven").maybe("breakeven").map(ExitPlanDocument::breakeven),
                of.apply("trail").items("trail").stream().map(ExitPlanDocument::trail).toList(),
                of.apply("judged").maybe("judged").map(Field::text).orElse("every print").equals("bar close")
                        ? ExitTerms.Judged.BAR_CLOSE
                        : ExitTerms.Judged.EVERY_PRINT,
                of.apply("leaves").items("leaves").stream().map(ExitPlanDocument::leave).toList()));
    }

    private static ExitTerms.Stop stop(Field stop) {
        return stop.checked(() -> new ExitTerms.Stop(distance(stop).orElseThrow(() -> stop.problem(
                "expected how far: ticks, price, perContract, wholePosition, percent, times or at")),
                stop.maybe("follow").map(Field::text),
                stop.maybe("local").map(local -> new ExitTerms.Local(local.at("disasterTicks").integer(),
                        local.maybe("volume").map(Field::integer).orElse(0)))));
    }

    private static ExitTerms.Target target(Field target) {
        return target.checked(() -> new ExitTerms.Target(target.at("quantity").integer(), distance(target)));
    }

    private static ExitTerms.Breakeven breakeven(Field b) {
        Optional<Distance> after = b.maybe("afterTicks").<Distance>map(f -> new Distance.Ticks(f.integer()))
                .or(() -> b.maybe("after").map(ExitPlanDocument::stated));
        Distance offset = b.has("offsetTicks")
                ? new Distance.Ticks(b.at("offsetTicks").integer())
                : b.maybe("offset").map(ExitPlanDocument::stated).orElse(new Distance.Ticks(0));
        return b.checked(() -> new ExitTerms.Breakeven(after, whole(b, "bars"), whole(b, "leg"), offset));
    }

    private static OptionalInt whole(Field of, String name) {
        return of.has(name) ? OptionalInt.of(of.at(name).integer()) : OptionalInt.empty();
    }

    private static ExitTerms.TrailStep trail(Field t) {
        Distance activate = figure(t, "activate", Optional.empty());
        Distance distance = figure(t, "distance", Optional.empty());
        Distance step = figure(t, "step", Optional.of(new Distance.Ticks(1)));
        return t.checked(() -> new ExitTerms.TrailStep(activate, distance, step));
    }

    private static Distance figure(Field of, String name, Optional<Distance> usual) {
        if (of.has(name + "Ticks")) {
            return new Distance.Ticks(of.at(name + "Ticks").integer());
        }
        return of.maybe(name).map(ExitPlanDocument::stated).or(() -> usual)
                .orElseThrow(
                        () -> of.problem("expected the field \"" + name + "Ticks\" or \"" + name + "\", found none"));
    }

    private static Distance stated(Field field) {
        return distance(field).orElseThrow(() -> field.problem(
                "expected how far: ticks, price, perContract, wholePosition, percent, R, times or at"));
    }

    /** @throws BadInput when it is given twice */
    private static Optional<Distance> distance(Field of) {
        List<String> given = List.of("ticks", "price", "perContract", "wholePosition", "percent", "R", "times", "at")
                .stream().filter(of::has).toList();
        if (given.size() > 1) {
            throw of.problem("expected one distance, found " + String.join(" and ", given));
        }
        if (given.isEmpty()) {
            return Optional.empty();
        }
        Field value = of.at(given.getFirst());
        return Optional.of(switch (given.getFirst()) {
            case "ticks" -> new Distance.Ticks(value.integer());
            case "price" -> new Distance.Price(value.as(Decimals::plain));
            case "perContract" -> new Distance.PerContract(value.money());
            case "wholePosition" -> new Distance.WholePosition(value.money());
            case "percent" -> new Distance.Percent(value.as(Decimals::plain));
            case "R" -> new Distance.Risks(value.as(Decimals::plain));
            case "times" -> new Distance.Times(value.as(Decimals::plain), of.at("of").text());
            default -> new Distance.Level(value.text());
        });
    }

    private static Leave leave(Field leave) {
        return leave.checked(() -> switch (leave.at("leave").text()) {
            case "after bars" -> new Leave.AfterBars(leave.at("bars").integer(),
                    leave.maybe("onlyInProfit").map(Field::flag).orElse(false));
            case "first close in profit" -> new Leave.FirstCloseInProfit();
            case "opposite signal" -> new Leave.OppositeSignal();
            case "rule" -> new Leave.Rule(leave.at("rule").text(), whole(leave, "quantity"));
            case "window end" -> new Leave.WindowEnd();
            default -> new Leave.ClockTime(leave.at("time").time(), leave.at("zone").zone());
        });
    }

    // ------------------------------------------------------------------ writing

    /** Writes a plan; what both sides have alike stands once. */
    static void write(ObjectNode exit, ExitPlan plan) {
        exit.put("document", "exit plan").put("version", 1).put("name", plan.name());
        ObjectNode longTerms = written(plan.longTerms());
        ObjectNode shortTerms = written(plan.shortTerms());
        for (String field : FIELDS) {
            JsonNode a = longTerms.get(field);
            JsonNode b = shortTerms.get(field);
            if (a != null && a.equals(b)) {
                exit.set(field, a);
            } else {
                side(exit, Side.LONG, field, a);
                side(exit, Side.SHORT, field, b);
            }
        }
    }

    private static void side(ObjectNode exit, Side side, String field, JsonNode value) {
        if (value != null) {
            ObjectNode of = exit.get(side.word()) instanceof ObjectNode there ? there : exit.putObject(side.word());
            of.set(field, value);
        }
    }

    private static ObjectNode written(ExitTerms terms) {
        ObjectNode d = Json.MAPPER.createObjectNode();
        terms.stop().ifPresent(stop -> {
            ObjectNode of = d.putObject("stop");
            write(of, stop.distance());
            stop.follow().ifPresent(text -> of.put("follow", text));
            stop.local().ifPresent(local -> {
                ObjectNode here = of.putObject("local").put("disasterTicks", local.disaster());
                if (local.volume() > 0) {
                    here.put("volume", local.volume());
                }
            });
        });
        if (!terms.targets().isEmpty()) {
            ArrayNode targets = d.putArray("targets");
            for (ExitTerms.Target target : terms.targets()) {
                ObjectNode leg = targets.addObject().put("quantity", target.quantity());
                target.distance().ifPresent(distance -> write(leg, distance));
            }
        }
        terms.breakeven().ifPresent(b -> {
            ObjectNode of = d.putObject("breakeven");
            b.after().ifPresent(distance -> figure(of, "after", distance));
            b.bars().ifPresent(bars -> of.put("bars", bars));
            b.leg().ifPresent(leg -> of.put("leg", leg));
            figure(of, "offset", b.offset());
        });
        if (!terms.trail().isEmpty()) {
            ArrayNode trail = d.putArray("trail");
            for (ExitTerms.TrailStep step : terms.trail()) {
                ObjectNode one = trail.addObject();
                figure(one, "activate", step.activate());
                figure(one, "distance", step.distance());
                if (!step.step().equals(new Distance.Ticks(1))) {
                    figure(one, "step", step.step());
                }
            }
        }
        if (terms.judged() == ExitTerms.Judged.BAR_CLOSE) {
            d.put("judged", "bar close");
        }
        if (!terms.leaves().isEmpty()) {
            ArrayNode leaves = d.putArray("leaves");
            terms.leaves().forEach(leave -> write(leaves.addObject(), leave));
        }
        return d;
    }

    private static void figure(ObjectNode of, String name, Distance distance) {
        if (distance instanceof Distance.Ticks(long ticks)) {
            of.put(name + "Ticks", ticks);
        } else {
            write(of.putObject(name), distance);
        }
    }

    private static void write(ObjectNode of, Distance distance) {
        switch (distance) {
            case Distance.Ticks t -> of.put("ticks", t.ticks());
            case Distance.Price p -> of.put("price", plain(p.price()));
            case Distance.PerContract m -> of.put("perContract", Money.text(m.money()));
            case Distance.WholePosition m -> of.put("wholePosition", Money.text(m.money()));
            case Distance.Percent p -> of.put("percent", plain(p.percent()));
            case Distance.Risks r -> of.put("R", plain(r.times()));
            case Distance.Times t -> of.put("times", plain(t.times())).put("of", t.study());
            case Distance.Level l -> of.put("at", l.study());
        }
    }

    private static String plain(BigDecimal number) {
        return number.toPlainString();
    }

    private static void write(ObjectNode of, Leave leave) {
        switch (leave) {
            case Leave.AfterBars a -> {
                of.put("leave", "after bars").put("bars", a.bars());
                if (a.onlyInProfit()) {
                    of.put("onlyInProfit", true);
                }
            }
            case Leave.FirstCloseInProfit ignored -> of.put("leave", "first close in profit");
            case Leave.OppositeSignal ignored -> of.put("leave", "opposite signal");
            case Leave.Rule r -> {
                of.put("leave", "rule").put("rule", r.rule());
                r.quantity().ifPresent(quantity -> of.put("quantity", quantity));
            }
            case Leave.WindowEnd ignored -> of.put("leave", "window end");
            case Leave.ClockTime c -> of.put("leave", "clock time").put("time", c.time().toString()).put("zone",
                    c.zone().getId());
        }
    }
}
