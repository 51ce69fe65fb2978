package zesty.signal.core.sample;

/**
 * The times of the recent rows of a stream, beside the {@link Series} of its channels and with the same capacity and
 * rules: one writer, any readers.
 */
public final class TimeRing {
    private final int mask;
    private final double[] seconds;
    private volatile long end;

    /** @param capacity a power of two, as {@link Series#capacity()} gives */
    public TimeRing(int capacity) {
        if (Integer.bitCount(capacity) != 1) {
            throw new IllegalArgumentException("capacity must be a power of two, was " + capacity);
        }
        seconds = new double[capacity];
        mask = capacity - 1;
    }

    /** Writer only. Appends the times of a block's rows. */
    public void append(TimeBase time, int rows) {
        long position = end;
        for (int row = 0; row < rows; row++, position++) {
            seconds[(int) position & mask] = time.secondsAt(row);
        }
        end = position;
    }

    /** @return one past the index of the newest row */
    public long end() {
        return end;
    }

    /** @return index of the oldest row that may be read safely */
    public long start() {
        long last = end;
        return last <= seconds.length ? 0 : last - seconds.length + Series.MARGIN;
    }

    /** @return the time of a row, in seconds */
    public double secondsAt(long index) {
        return seconds[(int) index & mask];
    }

    /** @return index of the first row at or after the time, within {@code start() … end()} */
    public long firstAtOrAfter(double time) {
        long low = start();
        long high = end;
        while (low < high) {
            long middle = (low + high) >>> 1;
            if (secondsAt(middle) < time) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }
}
