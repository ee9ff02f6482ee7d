package stativex.market;

/** Something a person drew on a chart of a contract: named, so that it can be spoken of. Prices in ticks, times in nanoseconds. */
public sealed interface Drawing {
    String name();

    Drawing named(String name);

    /** The price it stands for at a time, in ticks; NaN where it has not begun. */
    double at(long time);

    /** A level line. */
    record Level(String name, long price) implements Drawing {
        @Override
        public Level named(String other) {
            return new Level(other, price);
        }

        @Override
        public double at(long time) {
            return price;
        }
    }

    /** A straight line through two points, from the first on to the right. */
    record Slope(String name, long time1, long price1, long time2, long price2) implements Drawing {
        @Override
        public Slope named(String other) {
            return new Slope(other, time1, price1, time2, price2);
        }

        @Override
        public double at(long time) {
            long begin = Math.min(time1, time2);
            return time < begin
                    ? Double.NaN
                    : time1 == time2
                            ? price2
                            : price1 + (double) (price2 - price1) * (time - time1) / (time2 - time1);
        }
    }

    /** A point. */
    record Marker(String name, long time, long price) implements Drawing {
        @Override
        public Marker named(String other) {
            return new Marker(other, time, price);
        }

        @Override
        public double at(long when) {
            return when < time ? Double.NaN : price;
        }
    }
}
