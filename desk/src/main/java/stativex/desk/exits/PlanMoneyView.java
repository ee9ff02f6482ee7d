package stativex.desk.exits;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.account.Account;
import stativex.account.Rulebook;
import stativex.desk.look.Format;
import stativex.engine.PlanMeaning;
import stativex.exit.ExitTerms;
import stativex.exit.StopMap;
import stativex.market.Contract;

/** What a plan means: money at risk, stop-outs before each line, targets in R, the win rate it needs; and what can hardly be meant. */
final class PlanMoneyView extends VBox {
    private final Account account;

    PlanMoneyView(Account account) {
        super(3);
        this.account = account;
        setId("plan-money");
        getStyleClass().add("facts");
    }

    /** Shows what a plan means for an entry. */
    void show(ExitTerms terms, StopMap.Entry entry) {
        Contract contract = entry.contract();
        PlanMeaning of = PlanMeaning.of(terms, entry, account.fee(contract.symbol()));
        getChildren().clear();
        Label heading = new Label("What it means");
        heading.getStyleClass().add("heading");
        getChildren().add(heading);
        row("risk", "Risk at " + of.quantity(), money(of.risk()), "What the contracts lose at the stop");
        row("stop-out", "with " + contract.slippage() + " t slip and fees", money(of.stopOut()),
                "The same with slippage once and the fees of both ways: one stop-out");
        account.own().dayLoss().ifPresent(loss -> row("day-line", "Own day line", outs(of, loss.amount()),
                "Stop-outs from a fresh day to the own day loss of " + Format.money(loss.amount())));
        account.rulebook().rules().forEach(rule -> {
            if (rule instanceof Rulebook.DrawdownFloor floor) {
                row("floor", "Drawdown floor", outs(of, floor.allowance()),
                        "Stop-outs that the whole allowance of " + Format.money(floor.allowance()) + " holds");
            }
        });
        for (int i = 0; i < of.rewards().size(); i++) {
            OptionalDouble reward = of.rewards().get(i);
            boolean runs = terms.targets().get(i).distance().isEmpty();
            row("reward-" + i, runs ? "Runner" : "Target " + (i + 1),
                    runs ? "no target" : reward.isPresent() ? Format.decimal(reward.getAsDouble(), 2) + " R" : "—",
                    "Its distance in initial stops");
        }
        row("needs", "Needs to win", of.needs().isPresent()
                ? Format.decimal(Math.ceil(100 * of.needs().getAsDouble()), 0) + " %"
                : "—",
                "Share of trades that have to win so that nothing is lost, were each left whole at target 1 or"
                        + " stopped out, costs inside");
        doubts(terms, entry, of).forEach(words -> {
            Label label = new Label(words);
            label.getStyleClass().add("warn-text");
            label.setWrapText(true);
            label.setMinHeight(Region.USE_PREF_SIZE);
            getChildren().add(label);
        });
    }

    private List<String> doubts(ExitTerms terms, StopMap.Entry entry, PlanMeaning of) {
        List<String> said = new ArrayList<>();
        int targets = terms.targets().stream().mapToInt(ExitTerms.Target::quantity).sum();
        if (targets > of.quantity()) {
            said.add("The targets hold " + targets + " contracts, an entry brings " + of.quantity() + ".");
        } else if (targets > 0 && targets < of.quantity()) {
            said.add("The targets hold " + targets + " of " + of.quantity() + " contracts: the rest "
                    + (terms.targets().stream().anyMatch(t -> t.distance().isEmpty())
                            ? "runs."
                            : "goes to the last."));
        }
        account.own().dayLoss().filter(loss -> of.stopOut().isPresent() && of.stopOut().getAsLong() > loss.amount())
                .ifPresent(loss -> said.add("One stop-out is more than the own day loss of "
                        + Format.money(loss.amount()) + ": the line check declines every entry."));
        account.own().dayLoss().filter(loss -> of.stopOut().isPresent() && of.stopOut().getAsLong() <= loss.amount()
                && 2 * of.stopOut().getAsLong() > loss.amount())
                .ifPresent(loss -> said.add("The own day loss is worth fewer than two full stop-outs."));
        StopMap.of(terms, entry).ifPresent(map -> map.handles().stream()
                .filter(h -> h.kind() == StopMap.Kind.TRAIL || h.kind() == StopMap.Kind.BREAKEVEN)
                .filter(h -> map.at(Math.max(0, h.best() - 1)).orElse(Long.MIN_VALUE) >= h.level())
                .forEach(h -> said.add((h.kind() == StopMap.Kind.BREAKEVEN
                        ? "Breakeven"
                        : "Trail step " + (h.index() + 1)) + " begins at " + Format.signed(h.level())
                        + ", where the stop stands already or beyond: it moves nothing then.")));
        return said;
    }

    private static String money(OptionalLong money) {
        return money.isPresent() ? Format.money(money.getAsLong()) : "—";
    }

    private static String outs(PlanMeaning of, long money) {
        OptionalLong tenths = of.tenthsOfStopOuts(money);
        return tenths.isPresent() ? Format.tenths(tenths.getAsLong()) + " stop-outs" : "—";
    }

    private void row(String id, String words, String value, String tip) {
        Label left = new Label(words);
        left.getStyleClass().add("muted");
        Label right = new Label(value);
        right.setId("money-" + id);
        right.getStyleClass().add("fact");
        right.setMinWidth(USE_PREF_SIZE);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox row = new HBox(left, gap, right);
        Tooltip.install(row, new Tooltip(tip));
        getChildren().add(row);
    }
}
