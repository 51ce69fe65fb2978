package zesty.signal.core.sample;

import zesty.signal.core.text.Messages;

/**
 * The times of the recent rows of a stream, beside the {@link SeriesRing} of its channels and with the same capacity and
 * rules: one writer, any readers.
 */
public final class TimeRing implements Times {
    private final int mask;
    private final double[] seconds;
    private volatile long end;

    /** @param capacity a power of two, as {@link SeriesRing#capacity()} gives */
    public TimeRing(int capacity) {
        if (Integer.bitCount(capacity) != 1) {
            throw new IllegalArgumentException(Messages.of("sample.capacity-must-be-a-power-of-two", capacity));
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

    @Override
    public long end() {
        return end;
    }

    /** @return index of the oldest row that may be read safely */
    @Override
    public long start() {
        long last = end;
        return last <= seconds.length ? 0 : last - seconds.length + SeriesRing.MARGIN;
    }

    @Override
    public double secondsAt(long index) {
        return seconds[(int) index & mask];
    }

    @Override
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
