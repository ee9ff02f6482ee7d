package stativex.demo;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.market.TapeTime;

/**
 * An invented market: prints arrive in bursts, fast after an open and slow at night; the middle price drifts with a trend
 * that changes now and then, reverts to where the trend leads, and jumps once at a release. The same seed gives the same
 * tape on every machine. Prices are never touched after generation.
 */
final class MarketSimulator {
    private static final LocalTime RELEASE = LocalTime.of(14, 30);

    private final Contract contract;
    private final Chance chance;
    private final TapeBuilder tape;
    private final LocalDate releaseDay;
    private final double pace;

    private double anchor;
    private double middle;
    private double trend;
    private double trendLeft;
    private double burst;
    private double shock;
    private double lean;

    /**
     * @param start first price in ticks
     * @param releaseDay trading date of the one release that makes the price jump
     * @param pace how often it trades: 1 is some 90 000 prints a day
     */
    MarketSimulator(Contract contract, long seed, long start, LocalDate releaseDay, double pace) {
        this.contract = contract;
        this.chance = new Chance(seed);
        this.tape = new TapeBuilder((int) (600_000 * pace));
        this.anchor = start;
        this.middle = start;
        this.releaseDay = releaseDay;
        this.pace = pace;
    }

    /** Prints through every session of a trading date. */
    void day(LocalDate date) {
        for (Session session : contract.calendar().sessions(date)) {
            session(session);
        }
    }

    Tape tape() {
        return tape.build();
    }

    private void session(Session session) {
        boolean night = night(session);
        double length = (session.close() - session.open()) / (double) TapeTime.SECOND;
        double release = release(session);
        double second = chance.exponential(2);
        while (second < length) {
            double rate = pace * rate(night, second, length) * (1 + 5 * burst + 6 * shock);
            boolean sweep = chance.chance(0.04);
            double wait = sweep ? 0 : chance.exponential(1 / rate);
            if (second < release && second + wait >= release) {
                jump();
                second = release;
                wait = 0.02;
            }
            second += wait;
            if (second >= length) {
                break;
            }
            move(night, wait);
            print(session.open() + (long) (second * 1e6) * 1000);
        }
    }

    /** Of several sessions of a day the first is the quiet one. */
    private static boolean night(Session session) {
        return session.first() && !session.last();
    }

    /** Seconds after the open at which the release comes, or never. */
    private double release(Session session) {
        if (!session.tradingDate().equals(releaseDay) || night(session)) {
            return Double.MAX_VALUE;
        }
        ZonedDateTime open = TapeTime.in(contract.calendar().zone(), session.open());
        return java.time.Duration.between(open, open.with(RELEASE)).toSeconds();
    }

    /** Prints per second in a quiet moment. */
    private static double rate(boolean night, double second, double length) {
        if (night) {
            return 0.30 + 0.6 * StrictMath.exp(-second / 1800);
        }
        double middleOfDay = (second - length / 2) / (length / 2);
        return 1.1 + 0.95 * middleOfDay * middleOfDay + 3.7 * StrictMath.exp(-second / 900);
    }

    private void move(boolean night, double seconds) {
        trendLeft -= seconds;
        if (trendLeft <= 0) {
            trendLeft = chance.exponential(night ? 5400 : 1500);
            trend = chance.chance(0.4) ? 0 : chance.normal() * (night ? 0.0025 : 0.016);
        }
        burst *= StrictMath.exp(-seconds / 20);
        shock *= StrictMath.exp(-seconds / 240);
        if (chance.chance(0.0016)) {
            burst = Math.min(3, burst + 1);
        }
        double volatility = (night ? 0.17 : 0.36) * (1 + 0.5 * burst + 1.2 * shock);
        double root = StrictMath.sqrt(seconds);
        anchor += trend * seconds + 0.55 * volatility * root * chance.normal();
        double pull = Math.min(1, seconds / 260);
        middle += (anchor - middle) * pull + volatility * root * chance.normal();
        lean = lean * 0.97 + 0.03 * (trend > 0 ? 1 : trend < 0 ? -1 : 0);
    }

    private void jump() {
        double size = (30 + 14 * chance.uniform()) * (chance.chance(0.5) ? 1 : -1);
        anchor += size;
        middle += size;
        burst = 3;
        shock = 1;
    }

    private void print(long time) {
        int spread = 1;
        if (chance.chance(0.18 + 0.2 * burst + shock)) {
            spread = chance.chance(0.25 + 0.5 * shock) ? 3 : 2;
        }
        long bid = (long) StrictMath.floor(middle - spread / 2.0 + 0.5);
        long ask = bid + spread;
        double press = 0.5 + 0.06 * lean + 0.22 * Math.clamp(middle - (bid + ask) / 2.0, -0.5, 0.5);
        boolean buyer = chance.chance(press);
        long price = buyer ? ask : bid;
        if (spread > 1 && chance.chance(0.12)) {
            price = bid + 1;
        }
        long size = 1 + (long) chance.exponential(1.7);
        if (chance.chance(0.012)) {
            size += (long) chance.exponential(24);
        }
        tape.add(time, price, size, bid, ask);
        middle += (buyer ? 1 : -1) * 0.012;
    }
}
