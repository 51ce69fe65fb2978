package zesty.signal.core.sample;

import zesty.signal.core.text.Messages;

/**
 * The recent samples of one signal with the pyramid of their extremes, so that the range of any stretch costs about the
 * logarithm of its length. A ring: the newest {@code capacity} samples are kept, in single precision, enough for any
 * screen, or exactly where they are to be worked out again.
 *
 * <p>One thread writes. Others may read at the same time: {@link #end()} is published last, and a reader that stays
 * {@link #MARGIN} samples clear of the oldest one never sees a cell being rewritten.
 */
public final class SeriesRing implements Series {
    /** Fewest samples between what a reader looks at and what the writer overwrites. */
    public static final int MARGIN = 4096;

    private static final int FAN_BITS = 4;
    private static final int FAN = 1 << FAN_BITS;

    private final int capacity;
    private final int mask;
    /** One of these two holds the samples. */
    private final double[] exact;

    private final float[] values;
    private final float[][] lows;
    private final float[][] highs;
    private volatile long end;

    /** @param minimumCapacity samples to keep, at least; rounded up to a power of two, 65536 or more */
    public SeriesRing(long minimumCapacity) {
        this(minimumCapacity, false);
    }

    /** @param exactly whether each sample is kept to its last bit, in twice the memory */
    public SeriesRing(long minimumCapacity, boolean exactly) {
        if (minimumCapacity < 0 || minimumCapacity > 1 << 29) {
            throw new IllegalArgumentException(
                    Messages.of("sample.minimumcapacity-must-be-0-was", (1 << 29), minimumCapacity));
        }
        capacity = Integer.highestOneBit((int) Math.max(minimumCapacity * 2 - 1, 1 << 16));
        mask = capacity - 1;
        exact = exactly ? new double[capacity] : null;
        values = exactly ? null : new float[capacity];
        int levels = 0;
        while (capacity >> (FAN_BITS * (levels + 1)) >= FAN) {
            levels++;
        }
        lows = new float[levels][];
        highs = new float[levels][];
        for (int level = 0; level < levels; level++) {
            lows[level] = new float[capacity >> (FAN_BITS * (level + 1))];
            highs[level] = new float[lows[level].length];
        }
    }

    /** Writer only. NaN is a missing value. */
    public void append(double[] source, int offset, int length) {
        long position = end;
        int i = offset;
        int last = offset + length;
        while (i < last) {
            // A run ends where a cell of the lowest level does, so that each level is raised once a run.
            int run = Math.min(last - i, FAN - (int) (position & (FAN - 1)));
            float low = Float.NaN;
            float high = Float.NaN;
            for (int k = 0; k < run; k++) {
                float value = (float) source[i + k];
                if (exact == null) {
                    values[(int) (position + k) & mask] = value;
                } else {
                    exact[(int) (position + k) & mask] = source[i + k];
                }
                // Written so that a NaN on either side gives way to the other.
                low = value >= low ? low : value == value ? value : low;
                high = value <= high ? high : value == value ? value : high;
            }
            raise(position, low, high);
            position += run;
            i += run;
        }
        end = position;
    }

    private void raise(long position, float runLow, float runHigh) {
        for (int level = 0; level < lows.length; level++) {
            int shift = FAN_BITS * (level + 1);
            int cell = (int) (position >> shift) & (lows[level].length - 1);
            boolean fresh = (position & ((1L << shift) - 1)) == 0;
            float low = fresh ? Float.NaN : lows[level][cell];
            float high = fresh ? Float.NaN : highs[level][cell];
            lows[level][cell] = runLow >= low ? low : runLow == runLow ? runLow : low;
            highs[level][cell] = runHigh <= high ? high : runHigh == runHigh ? runHigh : high;
        }
    }

    /** @return index of the oldest sample that may be read safely while the writer is at work */
    @Override
    public long start() {
        long last = end;
        return last <= capacity ? 0 : last - capacity + MARGIN;
    }

    @Override
    public long end() {
        return end;
    }

    /** @return how many samples the ring holds */
    public int capacity() {
        return capacity;
    }

    @Override
    public double value(long index) {
        return exact == null ? values[(int) index & mask] : exact[(int) index & mask];
    }

    @Override
    public void range(long from, long to, float[] extremes) {
        float low = Float.NaN;
        float high = Float.NaN;
        long position = from;
        while (position < to) {
            int level = levelAt(position, to);
            float cellLow;
            float cellHigh;
            if (level < 0) {
                cellLow = (float) value(position);
                cellHigh = cellLow;
                position++;
            } else {
                int shift = FAN_BITS * (level + 1);
                int cell = (int) (position >> shift) & (lows[level].length - 1);
                cellLow = lows[level][cell];
                cellHigh = highs[level][cell];
                position += 1L << shift;
            }
            low = cellLow >= low ? low : cellLow == cellLow ? cellLow : low;
            high = cellHigh <= high ? high : cellHigh == cellHigh ? cellHigh : high;
        }
        extremes[0] = low;
        extremes[1] = high;
    }

    /** @return the highest level with a cell that starts at the position and ends before {@code to}; −1 for none */
    private int levelAt(long position, long to) {
        int level = -1;
        while (level + 1 < lows.length) {
            int shift = FAN_BITS * (level + 2);
            if ((position & ((1L << shift) - 1)) != 0 || position + (1L << shift) > to) {
                break;
            }
            level++;
        }
        return level;
    }
}
