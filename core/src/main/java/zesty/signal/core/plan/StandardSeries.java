package zesty.signal.core.plan;

import zesty.signal.core.text.Messages;

/** Values that resistors and capacitors are made in (IEC 60063): so many a decade. */
public enum StandardSeries {
    E12(new double[] {1.0, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2}, 0.1),
    E24(
            new double[] {
                1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8,
                7.5, 8.2, 9.1
            },
            0.05);

    private final double[] decade;
    private final double tolerance;

    StandardSeries(double[] decade, double tolerance) {
        this.decade = decade;
        this.tolerance = tolerance;
    }

    /** @return the usual tolerance of the series, as a share */
    public double tolerance() {
        return tolerance;
    }

    /** @return the values from one to another, both in, rising */
    public double[] between(double low, double high) {
        double[] all = new double[decade.length * 40];
        int n = 0;
        for (int power = (int) Math.floor(Math.log10(low)); power <= Math.log10(high) + 1e-9; power++) {
            for (double one : decade) {
                // As it is written: 4.7e-8 and not 4.7000000000000004e-8.
                double value = Double.parseDouble(one + "e" + power);
                if (value >= low * (1 - 1e-9) && value <= high * (1 + 1e-9) && n < all.length) {
                    all[n++] = value;
                }
            }
        }
        return java.util.Arrays.copyOf(all, n);
    }

    /** @return the value nearest to it, by ratio */
    public double nearest(double wanted) {
        Plan.above(Messages.of("plan.a-part-s-value"), wanted);
        double best = Double.NaN;
        for (double value : between(wanted / 2, wanted * 2)) {
            if (Double.isNaN(best) || Math.abs(Math.log(value / wanted)) < Math.abs(Math.log(best / wanted))) {
                best = value;
            }
        }
        return best;
    }

    /** @return the lowest value that is not below it */
    public double atLeast(double wanted) {
        Plan.above(Messages.of("plan.a-part-s-value"), wanted);
        return between(wanted, wanted * 10)[0];
    }

    /** @return the highest value that is not above it */
    public double atMost(double wanted) {
        Plan.above(Messages.of("plan.a-part-s-value"), wanted);
        double[] all = between(wanted / 10, wanted);
        return all[all.length - 1];
    }
}
