package stativex.cli;

import java.util.HashSet;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.function.ToIntFunction;
import picocli.CommandLine.Model.CommandSpec;
import stativex.demo.Demo;
import stativex.files.tape.Damaged;
import stativex.files.tape.Progress;
import stativex.files.tape.TapeReference;
import stativex.files.tape.TapeStore;
import stativex.market.Contract;

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
        return mending(() -> work.applyAsInt(Demo.open(reference, contract, backAdjusted)));
    }

    /** Does some work; when it meets a damaged tape that one is made again and the work begun anew. */
    <T> T mending(Supplier<T> work) {
        Set<String> mended = new HashSet<>();
        while (true) {
            try {
                return work.get();
            } catch (Damaged damage) {
                if (!mended.add(damage.tape())) {
                    throw damage;
                }
                say(damage.getMessage());
                mend(damage.tape());
            }
        }
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
            System.err.printf(Locale.ROOT, "\r%s %3.0f %%, %d s left ", what, 100 * share, left);
            if (done == all) {
                System.err.print("\r" + " ".repeat(40) + "\r");
            }
            System.err.flush();
        };
    }
}
