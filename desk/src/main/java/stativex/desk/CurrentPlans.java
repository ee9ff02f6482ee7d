package stativex.desk;

import java.util.Collection;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import stativex.desk.exits.PlanBook;
import stativex.files.StrategyDraft;

/** The strategies of the Rules stage, whichever one is there: it is made anew when the account changes. */
record CurrentPlans(Supplier<PlanBook> now) implements PlanBook {
    @Override
    public Collection<StrategyDraft> all() {
        return now.get().all();
    }

    @Override
    public StrategyDraft draft() {
        return now.get().draft();
    }

    @Override
    public void open(String name) {
        now.get().open(name);
    }

    @Override
    public void edit(UnaryOperator<StrategyDraft> change) {
        now.get().edit(change);
    }

    @Override
    public void undo() {
        now.get().undo();
    }
}
