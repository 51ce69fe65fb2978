package zesty.signal.core.clean;

import zesty.signal.core.sample.SortedWindow;

/**
 * Takes off what does not stand out of the noise at its own scale: the signal is parted into scales by a B₃ spline with holes,
 * details that are small beside the noise are left out, and the rest is put together again (J.-L. Starck and F. Murtagh 1994,
 * "Image restoration with noise suppression using the wavelet transform"; the noise from the median deviation of the finest
 * details, D. L. Donoho and I. M. Johnstone 1994, "Ideal spatial adaptation by wavelet shrinkage"). Unlike a low-pass it
 * leaves what is steep as steep as it came. At the ends, and beside a missing value, what is there has to do.
 */
final class WaveletThreshold extends Centred {
    private static final double[] SPLINE = {1 / 16.0, 4 / 16.0, 6 / 16.0, 4 / 16.0, 1 / 16.0};
    /** The noise is told from so many of the finest details, of which this many may come after the sample. */
    private static final int NOISE_SAMPLES = 1001;

    private static final int AHEAD = 100;
    /** The median of |x| for normal noise of spread 1. */
    private static final double NORMAL = 0.6744897501960817;

    private final int levels;
    private final double k;
    /** Spread of each level's details for white noise of spread 1. */
    private final double[] spread;

    private final int mask;
    /** smooth[j]: the samples, smoothed j times. */
    private final double[][] smooth;

    private final double[] finest = new double[NOISE_SAMPLES];
    private final SortedWindow sizes = new SortedWindow(NOISE_SAMPLES);
    private long came;
    private long details;

    /**
     * @param levels of details, 1 … 8: the coarsest one is about 2^levels samples wide
     * @param k how many spreads of the noise a detail must have to stay
     */
    WaveletThreshold(int levels, double k) {
        super(Math.max(reach(levels), reach(1) + AHEAD));
        this.levels = levels;
        this.k = k;
        int size = Integer.highestOneBit(2 * half + 4 * (1 << levels)) * 2;
        mask = size - 1;
        smooth = new double[levels + 1][size];
        spread = spread(levels);
        reset();
    }

    /** How far the first levels look to either side. */
    private static int reach(int levels) {
        return 2 * ((1 << levels) - 1);
    }

    /** How many samples either way have a say. */
    static long looksBack(int levels) {
        return reach(levels) + (long) NOISE_SAMPLES;
    }

    /** What noise of spread 1 leaves in each level: the length of what a single 1 becomes there. */
    private static double[] spread(int levels) {
        int middle = reach(levels) + 1;
        double[] now = new double[2 * middle + 1];
        now[middle] = 1;
        double[] spread = new double[levels];
        for (int j = 0; j < levels; j++) {
            double[] next = new double[now.length];
            double square = 0;
            for (int i = 0; i < now.length; i++) {
                for (int tap = 0; tap < SPLINE.length; tap++) {
                    int at = i + (tap - 2 << j);
                    next[i] += at >= 0 && at < now.length ? SPLINE[tap] * now[at] : 0;
                }
                square += (now[i] - next[i]) * (now[i] - next[i]);
            }
            spread[j] = Math.sqrt(square);
            now = next;
        }
        return spread;
    }

    @Override
    public void reset() {
        super.reset();
        came = 0;
        details = 0;
        sizes.clear();
        for (double[] level : smooth) {
            java.util.Arrays.fill(level, Double.NaN);
        }
    }

    @Override
    void moved(double gone, double value) {
        smooth[0][(int) came & mask] = value;
        for (int j = 0; j < levels; j++) {
            long at = came - reach(j + 1);
            if (at >= 0) {
                smooth[j + 1][(int) at & mask] = smoothed(j, at);
                if (j == 0) {
                    detail(smooth[0][(int) at & mask] - smooth[1][(int) at & mask]);
                }
            }
        }
        came++;
    }

    /** Smoothed once more, from the samples that are there; none where the sample itself is missing. */
    private double smoothed(int level, long at) {
        double own = smooth[level][(int) at & mask];
        if (own != own) {
            return Double.NaN;
        }
        double sum = 0;
        double weights = 0;
        for (int tap = 0; tap < SPLINE.length; tap++) {
            long i = at + (tap - 2 << level);
            double value = i >= 0 ? smooth[level][(int) i & mask] : Double.NaN;
            if (value == value) {
                sum += SPLINE[tap] * value;
                weights += SPLINE[tap];
            }
        }
        return sum / weights;
    }

    private void detail(double value) {
        if (value == value) {
            int place = (int) (details % NOISE_SAMPLES);
            if (details >= NOISE_SAMPLES) {
                sizes.replace(finest[place], Math.abs(value));
            } else {
                sizes.add(Math.abs(value));
            }
            finest[place] = Math.abs(value);
            details++;
        }
    }

    @Override
    double answer(double asked) {
        long at = came - 1 - half;
        double noise = sizes.median() / NORMAL / spread[0];
        double result = smooth[levels][(int) at & mask];
        for (int j = 0; j < levels; j++) {
            double detail = smooth[j][(int) at & mask] - smooth[j + 1][(int) at & mask];
            result += Math.abs(detail) > k * noise * spread[j] ? detail : 0;
        }
        return result;
    }

    /** Over a whole record: behind its end nothing more comes. */
    @Override
    void whole(double[] data) {
        reset();
        double[] late = java.util.Arrays.copyOf(data, data.length + half);
        java.util.Arrays.fill(late, data.length, late.length, Double.NaN);
        double[] raw = data.clone();
        for (int i = 0; i < late.length; i++) {
            moved(Double.NaN, late[i]);
            int at = i - half;
            if (at >= 0) {
                data[at] = raw[at] == raw[at] ? answer(raw[at]) : raw[at];
            }
        }
    }
}
