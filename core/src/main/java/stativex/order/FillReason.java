package stativex.order;

import stativex.exit.StopOrigin;

/** Why a fill was made: what its order was for. */
public sealed interface FillReason {
    record Entry() implements FillReason {}

    /** @param by what set the stop's level */
    record AtStop(StopOrigin by) implements FillReason {}

    /** @param leg from 1 */
    record Target(int leg) implements FillReason {}

    record Left(LeaveReason why) implements FillReason {}
}
