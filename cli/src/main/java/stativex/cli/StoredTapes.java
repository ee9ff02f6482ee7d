package stativex.cli;

import java.util.List;
import java.util.Optional;
import java.util.function.ToIntFunction;
import picocli.CommandLine.Model.CommandSpec;
import stativex.demo.Demo;
import stativex.files.tape.Damaged;
import stativex.files.tape.Joins;
import stativex.files.tape.Progress;
import stativex.files.tape.TapeReference;
import stativex.files.tape.TapeStore;
import stativex.market.Contract;
import stativex.market.Join;

/** Tapes as commands name them; a stored one that is found damaged is made again from its source, and the work repeated. */
final class StoredTapes {
    private final CommandSpec spec;
    private final TapeStore store = TapeStore.own();

    StoredTapes(CommandSpec spec) {
        this.spec = spec;
    }

    TapeStore store() {
        return store;
    }

    /** Does something with a tape; the work may be done twice. */
    int with(String reference, Optional<Contract> contract, boolean backAdjusted,
            ToIntFunction<TapeReference.Found> work) {
        try {
            return work.applyAsInt(Demo.open(reference, contract, backAdjusted));
        } catch (Damaged damage) {
            say(damage.getMessage());
            for (String name : tapes(reference)) {
                mend(name);
            }
            return work.applyAsInt(Demo.open(reference, contract, backAdjusted));
        }
    }

    /** The stored tapes behind a reference. */
    private List<String> tapes(String reference) {
        Joins joins = new Joins(store);
        return joins.has(reference)
                ? joins.open(reference).months().stream().map(Join.Month::name).toList()
                : List.of(reference);
    }

    /** Checks a tape and makes it again if it is damaged. Returns whether it was. */
    boolean mend(String name) {
        try {
            store.check(name, Progress.NONE);
            return false;
        } catch (Damaged damage) {
            say("making tape " + name + " again from its source");
            store.rebuild(name, progress("reading"));
            say("tape " + name + " is whole again");
            return true;
        }
    }

    private void say(String words) {
        spec.commandLine().getErr().println("stativex: " + words);
    }

    /** Says how far a job is, on a terminal only; Ctrl-C cancels it and leaves nothing behind. */
    Progress progress(String what) {
        if (System.console() == null) {
            return Progress.NONE;
        }
        long begun = System.nanoTime();
        return (done, all) -> {
            double share = all == 0 ? 1 : (double) done / all;
            long left = share == 0 ? 0 : Math.round((System.nanoTime() - begun) / 1e9 * (1 - share) / share);
            System.err.printf("\r%s %3.0f %%, %d s left ", what, 100 * share, left);
            if (done == all) {
                System.err.print("\r" + " ".repeat(40) + "\r");
            }
            System.err.flush();
        };
    }
}
