package stativex.files.tape;

import stativex.files.Documents;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.Tape;

/**
 * The tape of a contract that strategies look at beside the one they trade.
 *
 * @param reference how the tape is named: a file, a stored tape, or one of the demo's
 */
public record FurtherTape(String reference, Documents.Read<Contract> contract, Tape tape) {
    public String symbol() {
        return contract.value().symbol();
    }

    public ContractTape contractTape() {
        return new ContractTape(contract.value(), tape);
    }
}
