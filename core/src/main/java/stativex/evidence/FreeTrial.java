package stativex.evidence;

import java.util.List;
import stativex.account.Account;
import stativex.account.OwnLimits;
import stativex.account.Rulebook;
import stativex.engine.Strategy;
import stativex.trial.Inputs;
import stativex.trial.Run;

/** A trial without the account's own limits and without its rulebook: what odds and past days are judged by. */
public final class FreeTrial {
    private FreeTrial() {}

    /** The inputs as they are, but for what holds the account back. @param times the contracts of every strategy, 1 or more */
    public static Inputs inputs(Inputs of, int times) {
        Account account = of.account();
        Account free = account.with(OwnLimits.NONE).with(new Rulebook(account.rulebook().name(), List.of()));
        List<Strategy> sized = times == 1
                ? of.strategies()
                : of.strategies().stream().map(strategy -> strategy.sized(times)).toList();
        return new Inputs(of.tape(), of.contract(), of.others(), free, sized, of.terms(), of.days(), of.heartbeats(),
                of.rolls());
    }

    /** Runs such a trial. */
    public static Run run(Inputs of, int times) {
        return Run.trial(inputs(of, times));
    }
}
