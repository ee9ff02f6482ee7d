package stativex.market;

/** The prints of one contract. */
public record ContractTape(Contract contract, Tape tape) {}
