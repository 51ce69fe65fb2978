package zesty.signal.core.clean;

/**
 * Takes a straight line off a stream: at each sample the least-squares line through all samples so far. Over a whole
 * record use {@link #removeLine}, which knows the end as well.
 */
final class LineRemover implements Stage {
    private double n;
    private double index;
    private double meanX;
    private double meanY;
    private double xx;
    private double xy;

    @Override
    public void reset() {
        n = 0;
        index = 0;
        meanX = 0;
        meanY = 0;
        xx = 0;
        xy = 0;
    }

    @Override
    public void apply(double[] data, int offset, int length) {
        for (int i = offset; i < offset + length; i++) {
            double y = data[i];
            double x = index++;
            if (Double.isNaN(y)) {
                continue;
            }
            add(x, y);
            data[i] = y - line(x);
        }
    }

    private void add(double x, double y) {
        n++;
        double dx = x - meanX;
        meanX += dx / n;
        meanY += (y - meanY) / n;
        // Updating with one old and one new mean is exact (Welford 1962, Youngs and Cramer 1971).
        xx += dx * (x - meanX);
        xy += dx * (y - meanY);
    }

    private double line(double x) {
        return meanY + (xx > 0 ? xy / xx : 0) * (x - meanX);
    }

    /** Takes the least-squares straight line off the whole record, in place. */
    static void removeLine(double[] data) {
        double n = 0;
        double sumX = 0;
        double sumY = 0;
        for (int i = 0; i < data.length; i++) {
            if (!Double.isNaN(data[i])) {
                n++;
                sumX += i;
                sumY += data[i];
            }
        }
        double meanX = sumX / n;
        double meanY = sumY / n;
        double xx = 0;
        double xy = 0;
        for (int i = 0; i < data.length; i++) {
            if (!Double.isNaN(data[i])) {
                xx += (i - meanX) * (i - meanX);
                xy += (i - meanX) * (data[i] - meanY);
            }
        }
        double slope = xx > 0 ? xy / xx : 0;
        for (int i = 0; i < data.length; i++) {
            data[i] -= meanY + slope * (i - meanX);
        }
    }
}
