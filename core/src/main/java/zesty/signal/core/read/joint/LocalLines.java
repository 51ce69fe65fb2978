package zesty.signal.core.read.joint;

/** Straight lines of least squares through the values around each one; missing values (NaN) are passed over. */
final class LocalLines {
    /** A line needs three values: through two it goes wherever their noise points. */
    private static final int FEWEST = 3;

    private final double[] values;
    private final double[] places;
    /** Sums up to before each place: how many, of places, of their squares, of values, of their products. */
    private final double[][] sums;

    /** @param places where each value lies, in steps of about one */
    LocalLines(double[] values, double[] places) {
        this.values = values;
        this.places = places;
        sums = new double[5][values.length + 1];
        for (int i = 0; i < values.length; i++) {
            double[] own = values[i] == values[i]
                    ? new double[] {1, places[i], places[i] * places[i], values[i], places[i] * values[i]}
                    : new double[5];
            for (int s = 0; s < 5; s++) {
                sums[s][i + 1] = sums[s][i] + own[s];
            }
        }
    }

    /** @return the line through so many values on either side of one, there; through all where too little does; NaN without values */
    double at(int i, int reach) {
        int from = Math.max(0, i - reach);
        int to = Math.min(values.length, i + reach + 1);
        boolean enough = sums[0][to] - sums[0][from] >= FEWEST;
        return enough ? line(from, to, places[i]) : line(0, values.length, places[i]);
    }

    /** @return root of the mean square of what one line through all leaves; NaN without values */
    double residual() {
        double squares = 0;
        int n = 0;
        for (int i = 0; i < values.length; i++) {
            if (values[i] == values[i]) {
                double off = values[i] - line(0, values.length, places[i]);
                squares += off * off;
                n++;
            }
        }
        return n == 0 ? Double.NaN : Math.sqrt(squares / n);
    }

    private double line(int from, int to, double place) {
        double n = sums[0][to] - sums[0][from];
        double x = (sums[1][to] - sums[1][from]) / n;
        double y = (sums[3][to] - sums[3][from]) / n;
        double xx = (sums[2][to] - sums[2][from]) / n - x * x;
        double xy = (sums[4][to] - sums[4][from]) / n - x * y;
        return n < FEWEST || !(xx > 1e-9) ? y : y + xy / xx * (place - x);
    }
}
