package stativex.desk;

import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.Optional;
import stativex.demo.Demo;
import stativex.market.Contract;
import stativex.market.TapeTime;

/**
 * How the application was started.
 *
 * @param picture write a picture of the window there and exit
 * @param stage run, rules, tape, or flow: the Tape stage with flow bars
 * @param tape the tape to show in the Tape stage
 * @param time as typed: a time of the demo day such as 14:20, or 2026-09-24T14:20, in exchange time
 * @param firstWindow say how long window and desk took to appear, and exit
 * @param own the person's own data, without the demo
 * @param sessions folder that records sessions; empty records nothing
 */
record Options(Optional<Path> picture, String stage, Optional<String> tape, Optional<String> time,
        Optional<Path> sessions, boolean firstWindow, boolean own) {

    /**
     * The local time asked for.
     *
     * @throws IllegalArgumentException when it does not read
     */
    Optional<LocalDateTime> localTime() {
        return time.map(text -> {
            try {
                return text.contains("T") ? LocalDateTime.parse(text) : Demo.DAY.atTime(LocalTime.parse(text));
            } catch (DateTimeException e) {
                throw new IllegalArgumentException(
                        "--at: expected a time such as 14:20 or 2026-09-24T14:20, found " + text, e);
            }
        });
    }

    /** The time asked for, nanoseconds. */
    Optional<Long> at(Contract contract) {
        return localTime().map(local -> TapeTime.first(local, contract.calendar().zone()));
    }
}
