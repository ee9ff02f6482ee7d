package stativex.account;

/** What of an account has limits of its own. */
public enum Part {
    CONTRACT(LineKind.CONTRACT_DAY_LOSS, LineKind.CONTRACT_DAY_PROFIT), STRATEGY(LineKind.STRATEGY_DAY_LOSS,
            LineKind.STRATEGY_DAY_PROFIT), WINDOW(LineKind.WINDOW_DAY_LOSS, LineKind.WINDOW_DAY_PROFIT);

    private final LineKind loss;
    private final LineKind profit;

    Part(LineKind loss, LineKind profit) {
        this.loss = loss;
        this.profit = profit;
    }

    LineKind loss() {
        return loss;
    }

    LineKind profit() {
        return profit;
    }
}
