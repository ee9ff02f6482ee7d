package stativex.files.tape;

import java.util.Optional;
import stativex.files.BadInput;
import stativex.market.Aggressor;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.market.TapeTime;

/** Takes prints one after another into a tape and looks at each: what is odd is counted, what cannot be is refused. */
final class Intake {
    private final Contract contract;
    private final TapeBuilder tape;
    private final Findings findings = new Findings();
    private final long gap;
    private long lastTime = Long.MIN_VALUE;
    private long lastPrice;
    private long lastSize;
    private long lastBid;
    private long lastAsk;
    /** The session at or after the last print; its bounds apart, for speed. */
    private Optional<Session> session = Optional.empty();
    private long open = Long.MAX_VALUE;
    private long close = Long.MIN_VALUE;
    private long lastInside;
    private boolean touched;
    private boolean begun;

    /** @param gap nanoseconds without a print inside a session that count as a gap */
    Intake(Contract contract, TapeBuilder tape, long gap) {
        this.contract = contract;
        this.tape = tape;
        this.gap = gap;
    }

    Findings findings() {
        return findings;
    }

    TapeBuilder tape() {
        return tape;
    }

    /** A line that cannot be read. */
    void refuse(Finding kind, long line, String words) {
        findings.add(kind, line, words);
    }

    /** Takes a print; what is wrong with it, or empty. */
    Optional<TickLine.Problem> take(long line, long time, long price, long size, long bid, long ask, long bidSize,
            long askSize, Optional<Aggressor> aggressor) {
        if (time < lastTime) {
            return Optional.of(new TickLine.Problem(Finding.BACKWARDS, Optional.of("time"),
                    "expected a time not before the print above it (" + TapeTime.instant(lastTime) + "), found "
                            + TapeTime.instant(time)));
        }
        try {
            tape.add(time, price, size, bid, ask, bidSize, askSize, aggressor);
        } catch (IllegalArgumentException | ArithmeticException e) {
            return Optional.of(new TickLine.Problem(Finding.UNREADABLE, Optional.of("price"), e.getMessage()));
        }
        look(line, time, price, size, bid, ask);
        lastTime = time;
        lastPrice = price;
        lastSize = size;
        lastBid = bid;
        lastAsk = ask;
        return Optional.empty();
    }

    private void look(long line, long time, long price, long size, long bid, long ask) {
        if (time == lastTime && price == lastPrice && size == lastSize && bid == lastBid && ask == lastAsk) {
            note(Finding.DUPLICATE, line, time);
        }
        if (bid == Tape.NONE || ask == Tape.NONE) {
            note(Finding.NO_QUOTE, line, time);
        } else if (bid >= ask) {
            note(Finding.CROSSED, line, time);
        }
        if (time < open || time >= close) {
            find(line, time);
        }
        if (time >= open && time < close) {
            if (!touched) {
                touched = true;
                first(line, time);
            } else if (time - lastInside > gap) {
                gap(line, lastInside, time);
            }
            lastInside = time;
        } else {
            note(Finding.OUTSIDE, line, time);
        }
    }

    private void note(Finding kind, long line, long time) {
        if (findings.count(kind) < Findings.PLACES) {
            findings.add(kind, line, Words.at(time, contract.calendar().zone()));
        } else {
            findings.count(kind, 1);
        }
    }

    /** Goes to the session that contains {@code time}, or the next one. */
    private void find(long line, long time) {
        if (time < open && session.isPresent()) {
            return;
        }
        if (session.isPresent()) {
            end(line);
            session = contract.calendar().after(session.get());
            while (session.isPresent() && session.get().close() <= time) {
                if (begun) {
                    lacks(Finding.NO_PRINTS, line, session.get(), "no print");
                }
                session = contract.calendar().after(session.get());
            }
        } else {
            session = contract.calendar().current(time);
        }
        touched = false;
        open = session.map(Session::open).orElse(Long.MAX_VALUE);
        close = session.map(Session::close).orElse(Long.MIN_VALUE);
    }

    /** The first print of a session. */
    private void first(long line, long time) {
        if (!begun) {
            begun = true;
            if (contract.calendar().late(open, time)) {
                lacks(Finding.LATE, line, session.orElseThrow(), "first print "
                        + Words.length(time - open) + " after the open");
            }
        } else if (time - open > gap) {
            gap(line, open, time);
        }
    }

    /** The session is over: the print of {@code line} lies behind it. */
    private void end(long line) {
        if (!touched) {
            if (begun) {
                lacks(Finding.NO_PRINTS, line, session.orElseThrow(), "no print");
            }
        } else if (close - lastInside > gap) {
            gap(line, lastInside, close);
        }
    }

    private void gap(long line, long from, long to) {
        lacks(Finding.GAP, line, session.orElseThrow(), "no print for " + Words.length(to - from) + " from "
                + Words.at(from, contract.calendar().zone()));
    }

    private void lacks(Finding kind, long line, Session lacking, String words) {
        Tape.SessionName name = new Tape.SessionName(lacking.tradingDate(), lacking.name());
        findings.lacks(name);
        findings.add(kind, line, name.text() + ": " + words);
    }

    /** The error that names the place of a problem. */
    static BadInput error(String file, long line, TickLine.Problem problem) {
        return BadInput.at(file, "line " + line + problem.column().map(c -> ", column " + c).orElse(""),
                problem.message());
    }
}
