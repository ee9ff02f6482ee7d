package stativex.evidence;

/**
 * The normal distribution with mean 0 and deviation 1. Distribution: the series of Marsaglia, "Evaluating the normal distribution"
 * (Journal of Statistical Software 11, 2004), and further out the continued fraction of Laplace. Inverse: Wichura, algorithm AS 241,
 * PPND16 (Applied Statistics 37, 1988), coefficients from memory; a test holds both against an independent library.
 */
public final class Normal {
    /** From here on the series would lose the digits of what is left in the tail. */
    private static final double FAR = 4;

    private Normal() {}

    /** Φ(x), from 0 to 1. */
    public static double distribution(double x) {
        if (Double.isNaN(x)) {
            return Double.NaN;
        }
        if (x > FAR) {
            return 1 - tail(x);
        }
        if (x < -FAR) {
            return tail(-x);
        }
        double sum = x;
        double term = x;
        for (int i = 3; sum + term != sum; i += 2) {
            term *= x * x / i;
            sum += term;
        }
        return 0.5 + sum * density(x);
    }

    /** φ(x). */
    static double density(double x) {
        return Math.exp(-x * x / 2) / Math.sqrt(2 * Math.PI);
    }

    /** 1 − Φ(x) for a large x. */
    private static double tail(double x) {
        if (x > 40) {
            return 0;
        }
        double fraction = x;
        for (int i = 120; i > 0; i--) {
            fraction = x + i / fraction;
        }
        return density(x) / fraction;
    }

    /** Φ⁻¹(p) for p above 0 and below 1. */
    public static double inverse(double p) {
        if (!(p > 0 && p < 1)) {
            throw new IllegalArgumentException("expected a probability between 0 and 1, found " + p);
        }
        double q = p - 0.5;
        if (Math.abs(q) <= 0.425) {
            double r = 0.180625 - q * q;
            return q * ratio(r, A, B);
        }
        double r = Math.sqrt(-Math.log(Math.min(p, 1 - p)));
        double x = r <= 5 ? ratio(r - 1.6, C, D) : ratio(r - 5, E, F);
        return q < 0 ? -x : x;
    }

    private static double ratio(double r, double[] above, double[] below) {
        return polynomial(r, above) / polynomial(r, below);
    }

    private static double polynomial(double r, double[] coefficients) {
        double value = 0;
        for (int i = coefficients.length - 1; i >= 0; i--) {
            value = value * r + coefficients[i];
        }
        return value;
    }

    private static final double[] A = {3.3871328727963666080e0, 1.3314166789178437745e2, 1.9715909503065514427e3,
            1.3731693765509461125e4, 4.5921953931549871457e4, 6.7265770927008700853e4, 3.3430575583588128105e4,
            2.5090809287301226727e3};
    private static final double[] B = {1, 4.2313330701600911252e1, 6.8718700749205790830e2, 5.3941960214247511077e3,
            2.1213794301586595867e4, 3.9307895800092710610e4, 2.8729085735721942674e4, 5.2264952788528545610e3};
    private static final double[] C = {1.42343711074968357734e0, 4.63033784615654529590e0, 5.76949722146069140550e0,
            3.64784832476320460504e0, 1.27045825245236838258e0, 2.41780725177450611770e-1, 2.27238449892691845833e-2,
            7.74545014278341407640e-4};
    private static final double[] D = {1, 2.05319162663775882187e0, 1.67638483018380384940e0,
            6.89767334985100004550e-1, 1.48103976427480074590e-1, 1.51986665636164571966e-2,
            5.47593808499534494600e-4, 1.05075007164441684324e-9};
    private static final double[] E = {6.65790464350110377720e0, 5.46378491116411436990e0, 1.78482653991729133580e0,
            2.96560571828504891230e-1, 2.65321895265761230930e-2, 1.24266094738807843860e-3,
            2.71155556874348757815e-5, 2.01033439929228813265e-7};
    private static final double[] F = {1, 5.99832206555887937690e-1, 1.36929880922735805310e-1,
            1.48753612908506148525e-2, 7.86869131145613259100e-4, 1.84631831751005468180e-5,
            1.42151175831644588870e-7, 2.04426310338993978564e-15};
}
