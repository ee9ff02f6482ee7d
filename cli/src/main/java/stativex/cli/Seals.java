package stativex.cli;

import java.util.Optional;
import stativex.engine.Strategy;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.SealBook;
import stativex.files.SessionFile;
import stativex.files.tape.FurtherTape;
import stativex.files.tape.TapeReference;
import stativex.files.tape.TapeStore;
import stativex.market.Contract;
import stativex.trial.Days;

/** Keeps commands away from sealed dates: they are left out, and asking for them alone is refused. */
final class Seals {
    private Seals() {}

    /** The seal over a tape; empty for files, the demo, and contracts without one. */
    static Optional<SealBook.Seal> over(String tape, Contract contract) {
        return TapeReference.isStored(TapeStore.own(), tape) ? SealBook.own().of(contract.symbol()) : Optional.empty();
    }

    /** The days of a fit range, of those asked for. @throws BadInput when all of them are sealed */
    static Days fit(String tape, Contract contract, Days asked) {
        try {
            return over(tape, contract).map(seal -> seal.fit(asked)).orElse(asked);
        } catch (IllegalArgumentException e) {
            throw new BadInput(contract.symbol() + ": " + e.getMessage(), e);
        }
    }

    /** What was recorded before a seal was made shows nothing of it. @throws BadInput when it would, and its versions have not opened it */
    static void check(SessionFile.Session session) {
        Contract contract = session.documents().contract().value();
        over(session.tapeReference(), contract).filter(seal -> looksAt(session, seal, contract)).ifPresent(seal -> {
            for (Documents.Read<Strategy> one : session.documents().strategies()) {
                if (!SealBook.own().opened(seal, one.value().version())) {
                    throw new BadInput(contract.symbol() + ": it looks at dates that are sealed now, " + seal.from()
                            + " to " + seal.to() + ", and version " + one.value().version() + " of "
                            + one.value().name() + " has not opened them");
                }
            }
        });
    }

    private static boolean looksAt(SessionFile.Session session, SealBook.Seal seal, Contract contract) {
        return session.inputs().days().last().filter(last -> last.isBefore(seal.from())).isEmpty()
                && seal.begin(contract.calendar()).filter(session::cameTo).isPresent();
    }

    /** The same where further contracts are looked at: none of their dates is sealed, either. */
    static Days fit(String tape, SessionFile.Set documents, Days asked) {
        Days fit = fit(tape, documents.contract().value(), asked);
        for (FurtherTape other : documents.others()) {
            fit = fit(other.reference(), other.contract().value(), fit);
        }
        return fit;
    }

    /** How a result says it. */
    static String words(String tape, Contract contract) {
        return over(tape, contract).map(seal -> "sealed " + seal.from() + " to " + seal.to() + ", opened "
                + SealBook.own().openings(seal) + " times").orElse("not sealed");
    }
}
