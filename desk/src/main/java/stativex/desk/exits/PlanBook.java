package stativex.desk.exits;

import java.util.Collection;
import java.util.function.UnaryOperator;
import stativex.files.StrategyDraft;

/** The strategies whose exit plans are worked on; kept by whoever works on the rest of them. */
public interface PlanBook {
    Collection<StrategyDraft> all();

    /** The open one. */
    StrategyDraft draft();

    void open(String name);

    /** Changes the open one; kept at once. */
    void edit(UnaryOperator<StrategyDraft> change);

    /** Takes the last change of the open one back. */
    void undo();
}
