package stativex.desk.exits;

import java.util.Optional;
import stativex.exit.ExitPlan;

/** The plans that strategies run with, where something runs. */
public interface RunningPlans {
    /**
     * A strategy in the run.
     *
     * @param plan its plan from its next trade on
     * @param open whether a trade of it is open
     */
    record Running(ExitPlan plan, boolean open) {}

    /** By the strategy's name; empty where it does not run. */
    Optional<Running> of(String strategy);

    /**
     * Gives it another plan from its next trade on.
     *
     * @param open the trade that is open takes it, too
     * @throws IllegalArgumentException saying what is wrong with the plan
     */
    void use(String strategy, ExitPlan plan, boolean open);
}
