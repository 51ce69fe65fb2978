package zesty.signal.core.sample;

import java.util.Arrays;
import zesty.signal.core.text.Messages;

/**
 * The extremes of a long record by cells of {@link #CELL} samples, and of sixteen cells each above: so that any stretch of
 * it costs about the logarithm of its length, at an eighth of a byte a sample. What is not filled yet is missing. One thread fills
 * a part; any may look meanwhile, and sees the cells that are filled.
 */
public final class CellPyramid {
    /** Samples in the lowest cells. */
    public static final int CELL = 64;

    private static final int CELL_BITS = 6;
    private static final int FAN_BITS = 4;

    private final float[][] lows;
    private final float[][] highs;

    /** @param samples of the record */
    public CellPyramid(long samples) {
        if (samples < 0 || samples >> CELL_BITS > 1 << 30) {
            throw new IllegalArgumentException(Messages.of("sample.samples-must-be-0-was", (1L << 36), samples));
        }
        int levels = 1;
        while ((samples >> CELL_BITS + FAN_BITS * levels) > 1) {
            levels++;
        }
        lows = new float[levels][];
        highs = new float[levels][];
        for (int level = 0; level < levels; level++) {
            int bits = CELL_BITS + FAN_BITS * level;
            lows[level] = new float[(int) (samples + (1L << bits) - 1 >> bits)];
            highs[level] = new float[lows[level].length];
            Arrays.fill(lows[level], Float.NaN);
            Arrays.fill(highs[level], Float.NaN);
        }
    }

    /**
     * Fills in the samples from {@code from} on.
     *
     * @param from a multiple of {@link #CELL}
     * @param length of {@code values} that count: whole cells, but at the end of the record
     */
    public void fill(long from, double[] values, int length) {
        if (from % CELL != 0) {
            throw new IllegalArgumentException(Messages.of("sample.from-must-be-a-multiple-of-was", CELL, from));
        }
        for (int i = 0; i < length; i += CELL) {
            float low = Float.NaN;
            float high = Float.NaN;
            for (int k = i, end = Math.min(length, i + CELL); k < end; k++) {
                float value = (float) values[k];
                low = value >= low ? low : value == value ? value : low;
                high = value <= high ? high : value == value ? value : high;
            }
            int cell = (int) (from + i >> CELL_BITS);
            lows[0][cell] = low;
            highs[0][cell] = high;
            raise(cell, low, high);
        }
    }

    /** Fills {@code cells} lowest cells with extremes that are known of all of them together. */
    public void coarse(int firstCell, int cells, double low, double high) {
        for (int cell = firstCell; cell < Math.min(lows[0].length, firstCell + cells); cell++) {
            lows[0][cell] = (float) low;
            highs[0][cell] = (float) high;
        }
        raise(firstCell, (float) low, (float) high);
    }

    private void raise(int cell, float low, float high) {
        for (int level = 1; level < lows.length; level++) {
            int above = cell >> FAN_BITS * level;
            float[] l = lows[level];
            float[] h = highs[level];
            l[above] = low >= l[above] ? l[above] : low == low ? low : l[above];
            h[above] = high <= h[above] ? h[above] : high == high ? high : h[above];
        }
    }

    /**
     * The extremes of the cells that hold samples of {@code from … to - 1}; both NaN when nothing is known of them.
     *
     * @param extremes receives lowest and highest
     */
    public void range(long from, long to, float[] extremes) {
        float low = Float.NaN;
        float high = Float.NaN;
        int cell = (int) (Math.max(0, from) >> CELL_BITS);
        int end = (int) Math.min(lows[0].length, to + CELL - 1 >> CELL_BITS);
        while (cell < end) {
            int level = 0;
            while (level + 1 < lows.length
                    && (cell & (1 << FAN_BITS * (level + 1)) - 1) == 0
                    && cell + (1L << FAN_BITS * (level + 1)) <= end) {
                level++;
            }
            float cellLow = lows[level][cell >> FAN_BITS * level];
            float cellHigh = highs[level][cell >> FAN_BITS * level];
            low = cellLow >= low ? low : cellLow == cellLow ? cellLow : low;
            high = cellHigh <= high ? high : cellHigh == cellHigh ? cellHigh : high;
            cell += 1 << FAN_BITS * level;
        }
        extremes[0] = low;
        extremes[1] = high;
    }
}
