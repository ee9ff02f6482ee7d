package stativex.desk.tape;

import java.util.Optional;
import stativex.files.Documents;
import stativex.files.tape.TapeStore;
import stativex.market.Contract;
import stativex.market.Join;
import stativex.market.Tape;
import stativex.trial.Days;

/**
 * A tape that the stage shows.
 *
 * @param reference how commands and session files name it
 * @param stored if it is in the store
 * @param join if it is joined from several
 * @param days of it that are looked at
 */
public record Shown(String reference, Contract contract, Tape tape, Optional<TapeStore.Stored> stored,
        Optional<Join> join, Days days) {
    /** The same on other days. */
    public Shown over(Days range) {
        return new Shown(reference, contract, tape, stored, join, range);
    }

    /** The contract's document, of the store's tape; empty when it stands elsewhere. */
    public Optional<Documents.Read<Contract>> document() {
        return stored.map(one -> one.info().contract());
    }

    /** The demo's, made in memory. */
    public static Shown made(String reference, Contract contract, Tape tape) {
        return new Shown(reference, contract, tape, Optional.empty(), Optional.empty(), Days.ALL);
    }

    /** A tape of the store. */
    public static Shown of(TapeStore.Stored stored) {
        return new Shown(stored.name(), stored.info().contract().value(), stored.tape(), Optional.of(stored),
                Optional.empty(), Days.ALL);
    }

    static Shown of(String name, Join join) {
        return new Shown(name, join.contract(), join.tape(), Optional.empty(), Optional.of(join), Days.ALL);
    }
}
