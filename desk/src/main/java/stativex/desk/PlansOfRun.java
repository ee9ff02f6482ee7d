package stativex.desk;

import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import stativex.desk.exits.RunningPlans;
import stativex.engine.Command;
import stativex.engine.Snapshot;
import stativex.exit.ExitPlan;
import stativex.files.StrategyDraft;
import stativex.files.StrategySetup;

/** The plans that the strategies of the replay under way have; a changed one is the person's command like any other. */
final class PlansOfRun implements RunningPlans {
    private final Supplier<Workspace> workspace;

    PlansOfRun(Supplier<Workspace> workspace) {
        this.workspace = workspace;
    }

    private Optional<Snapshot.StrategyView> find(String strategy) {
        List<Snapshot.StrategyView> all = workspace.get().replay().latest().snapshot().strategies();
        return all.stream().filter(one -> one.strategy().name().equals(strategy)).findFirst();
    }

    @Override
    public Optional<Running> of(String strategy) {
        return find(strategy).map(one -> new Running(one.strategy().plan(), one.position().isPresent()));
    }

    @Override
    public void use(String strategy, ExitPlan plan, boolean open) {
        Snapshot.StrategyView runs = find(strategy).orElseThrow(
                () -> new IllegalArgumentException(strategy + " does not run any more."));
        // as a document it says what is wrong with it, before the run has it
        StrategyDraft running = StrategyDraft.of(workspace.get().documents().strategies().get(runs.index()).document());
        ExitPlan checked = StrategySetup.withPlan(running, plan).strategy().value().plan();
        checked.check(workspace.get().inputs().contract());
        workspace.get().replay().command(new Command.ChangePlan(runs.index(), checked, open));
    }
}
