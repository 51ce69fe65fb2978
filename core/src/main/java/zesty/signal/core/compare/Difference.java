package zesty.signal.core.compare;

import java.util.Optional;
import org.hipparchus.distribution.continuous.TDistribution;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * The difference of two groups, second less first, with its 95 % interval.
 *
 * @param low and {@code high} the ends of the interval
 * @param p how often chance alone makes a difference as large as this, two-sided
 * @param n how many takes it is of
 */
public record Difference(Kind kind, double difference, double low, double high, double p, int n) {
    /** Below so many of each nothing can be told. */
    public static final int FEWEST = 3;

    private static final double LEVEL = 0.95;

    /** Which test it is. */
    public enum Kind {
        WELCH,
        PAIRED
    }

    /**
     * Of groups that have nothing to do with each other and may spread differently (B. L. Welch 1947, "The generalization of
     * Student's problem when several different population variances are involved").
     *
     * @return empty where a group has fewer than {@link #FEWEST}, or none of them spreads
     */
    public static Optional<Difference> welch(double[] first, double[] second) {
        Spread a = Spread.of(first);
        Spread b = Spread.of(second);
        if (a.n() < FEWEST || b.n() < FEWEST) {
            return Optional.empty();
        }
        double va = a.sd() * a.sd() / a.n();
        double vb = b.sd() * b.sd() / b.n();
        double freedom = (va + vb) * (va + vb) / (va * va / (a.n() - 1) + vb * vb / (b.n() - 1));
        return of(Kind.WELCH, b.mean() - a.mean(), Math.sqrt(va + vb), freedom, a.n() + b.n());
    }

    /**
     * Of groups of which the first of one belongs to the first of the other, and so on (Student 1908, "The probable error of
     * a mean").
     *
     * @param first and {@code second} equally long; a pair of which one is NaN is left out
     * @return empty where fewer than {@link #FEWEST} pairs are left, or they differ by the same amount each
     */
    public static Optional<Difference> paired(double[] first, double[] second) {
        if (first.length != second.length) {
            throw new IllegalArgumentException(
                    Messages.of("compare.pairs-need-as-many-in-one-group-as", first.length, second.length));
        }
        double[] apart = new double[first.length];
        for (int i = 0; i < apart.length; i++) {
            apart[i] = second[i] - first[i];
        }
        Spread d = Spread.of(apart);
        if (d.n() < FEWEST) {
            return Optional.empty();
        }
        return of(Kind.PAIRED, d.mean(), d.sd() / Math.sqrt(d.n()), d.n() - 1, 2 * d.n());
    }

    private static Optional<Difference> of(Kind kind, double difference, double error, double freedom, int n) {
        if (!(error > 0) || !(freedom > 0)) {
            return Optional.empty();
        }
        TDistribution t = new TDistribution(freedom);
        double reach = t.inverseCumulativeProbability(0.5 + LEVEL / 2) * error;
        double p = 2 * t.cumulativeProbability(-Math.abs(difference) / error);
        return Optional.of(new Difference(kind, difference, difference - reach, difference + reach, p, n));
    }

    /** @return whether chance alone is no likely reason */
    public boolean real() {
        return low > 0 || high < 0;
    }

    /**
     * @param what the number is called
     * @param unit empty for none
     * @return what the difference is, in a sentence for somebody who sails
     */
    public String words(String what, String unit, String first, String second) {
        String of = unit.isEmpty() ? "" : " " + unit;
        String sure =
                Messages.of("compare.with-95-confidence-between-and", Digits.about(low, 3), Digits.about(high, 3), of);
        return real()
                ? Messages.of(
                        "compare.is-in-than-in-by-the-difference-is",
                        what,
                        (difference > 0 ? Messages.of("compare.higher") : Messages.of("compare.lower")),
                        second,
                        first,
                        Digits.about(Math.abs(difference), 3),
                        of,
                        sure)
                : Messages.of(
                        "compare.differs-by-from-to-it-may-be",
                        what,
                        Digits.about(difference, 3),
                        of,
                        first,
                        second,
                        sure);
    }
}
