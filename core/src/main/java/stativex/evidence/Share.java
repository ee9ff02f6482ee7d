package stativex.evidence;

/**
 * A share with an interval, all from 0 to 1.
 *
 * @param low end of the interval, likewise {@code high}
 */
public record Share(double share, double low, double high) {
    /** Two-sided 95 %. */
    private static final double Z = 1.959964;

    /** So many of so many drawn ones, with the 95 % interval of Wilson (1927) for the drawing itself. */
    public static Share wilson(long hits, long of) {
        double p = (double) hits / of;
        double z2 = Z * Z / of;
        double middle = (p + z2 / 2) / (1 + z2);
        double half = Z * Math.sqrt(p * (1 - p) / of + z2 / (4 * of)) / (1 + z2);
        return new Share(p, Math.max(0, middle - half), Math.min(1, middle + half));
    }
}
