package zesty.signal.core.sample;

import java.util.Objects;

/**
 * The values of a sliding window, kept in order: what comes is put in its place and what goes is taken out, so that the middle
 * one is always known. No value may be missing. One thread.
 */
public final class SortedWindow {
    private final double[] sorted;
    private int count;

    /** @param most so many values at the same time */
    public SortedWindow(int most) {
        sorted = new double[most];
    }

    public void clear() {
        count = 0;
    }

    public int count() {
        return count;
    }

    /** @throws IndexOutOfBoundsException when it is full */
    public void add(double value) {
        Objects.checkIndex(count, sorted.length);
        int at = below(value);
        System.arraycopy(sorted, at, sorted, at + 1, count - at);
        sorted[at] = value;
        count++;
    }

    /** Takes a value out that was put in. */
    public void remove(double value) {
        int at = below(value);
        count--;
        System.arraycopy(sorted, at + 1, sorted, at, count - at);
    }

    /** Takes one out and puts another in: only what lies between the two is moved. */
    public void replace(double old, double value) {
        int from = below(old);
        int to = below(value);
        if (to > from) {
            to--;
            System.arraycopy(sorted, from + 1, sorted, from, to - from);
        } else {
            System.arraycopy(sorted, to, sorted, to + 1, from - to);
        }
        sorted[to] = value;
    }

    /** How many are less: halving without a branch to guess. */
    private int below(double value) {
        int base = 0;
        int length = count;
        while (length > 1) {
            int half = length >>> 1;
            base += sorted[base + half - 1] < value ? half : 0;
            length -= half;
        }
        return base + (length == 1 && sorted[base] < value ? 1 : 0);
    }

    /** @return the middle value, of an even number the mean of the two; NaN of none */
    public double median() {
        int middle = count / 2;
        return count == 0 ? Double.NaN : count % 2 == 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
    }

    /** @return the median of how far the values are from their median; NaN of none */
    public double medianDeviation() {
        if (count == 0) {
            return Double.NaN;
        }
        double median = median();
        int middle = count / 2;
        return count % 2 == 1
                ? deviation(middle, median)
                : (deviation(middle - 1, median) + deviation(middle, median)) / 2;
    }

    /**
     * The deviation of that rank: those below the median and those above it are in order already, so how many of the smallest
     * lie on either side is found by halving.
     */
    private double deviation(int rank, double median) {
        int split = count / 2;
        int low = Math.max(0, rank + 1 - (count - split));
        int high = Math.min(rank + 1, split);
        while (low < high) {
            int left = (low + high) >>> 1;
            int right = rank + 1 - left;
            if (median - sorted[split - 1 - left] < sorted[split + right - 1] - median) {
                low = left + 1;
            } else {
                high = left;
            }
        }
        int right = rank + 1 - low;
        double below = low > 0 ? median - sorted[split - low] : Double.NEGATIVE_INFINITY;
        double above = right > 0 ? sorted[split + right - 1] - median : Double.NEGATIVE_INFINITY;
        return Math.max(below, above);
    }
}
