package zesty.signal.core.picture;

import java.util.Arrays;
import zesty.signal.core.sample.Order;

/** Finds pixels that never change while others do, or that stand out from their neighbours in every picture. */
public final class DeadPixels {
    /** Of fewer pictures none is called dead for not changing. */
    private static final int FEW_FRAMES = 4;

    /** Where more than this share of all pixels never change, that is what the scene and the steps of the sensor do. */
    private static final double MANY_STILL = 0.1;

    /**
     * A pixel stands out where it lies beyond all its neighbours by so many times the range of these. A round spot that is seen by its
     * neighbours at all (its radius at half height a pixel) stays below 2.2.
     */
    private static final double RANGES = 3;

    /** And by so many times the noise from pixel to pixel of that picture, so that steps of a coarse sensor are no fault. */
    private static final double NOISES = 5;

    private DeadPixels() {}

    /** @return by row and column from the top left whether a pixel is dead */
    public static boolean[] of(FrameSeries series) {
        int pixels = series.width() * series.height();
        boolean[] dead = new boolean[pixels];
        boolean[] still = new boolean[pixels];
        int stills = 0;
        for (int p = 0; p < pixels; p++) {
            still[p] = still(series, p);
            stills += still[p] ? 1 : 0;
        }
        boolean tells = series.count() >= FEW_FRAMES && stills <= MANY_STILL * pixels;
        boolean[] stands = new boolean[pixels];
        Arrays.fill(stands, series.count() > 0);
        int[] side = new int[pixels];
        for (int f = 0; f < series.count(); f++) {
            standsOut(series, f, stands, side);
        }
        for (int p = 0; p < pixels; p++) {
            dead[p] = tells && still[p] || stands[p];
        }
        return dead;
    }

    private static boolean still(FrameSeries series, int pixel) {
        for (int f = 1; f < series.count(); f++) {
            double now = series.frames()[f][pixel];
            double was = series.frames()[f - 1][pixel];
            if (now != was && !(now != now && was != was)) {
                return false;
            }
        }
        return true;
    }

    /** Takes those off that do not stand out in this picture, or to the other side than before. */
    private static void standsOut(FrameSeries series, int frame, boolean[] stands, int[] side) {
        double[] steps = new double[series.height() * Math.max(0, series.width() - 1)];
        int n = 0;
        for (int y = 0; y < series.height(); y++) {
            for (int x = 1; x < series.width(); x++) {
                double step = Math.abs(series.at(frame, x, y) - series.at(frame, x - 1, y));
                steps[n] = step;
                n += step == step ? 1 : 0;
            }
        }
        double noise = n == 0 ? 0 : 1.4826 * Order.median(Arrays.copyOf(steps, n)) / Math.sqrt(2);
        for (int p = 0; p < stands.length; p++) {
            if (!stands[p]) {
                continue;
            }
            int x = p % series.width();
            int y = p / series.width();
            double value = series.at(frame, x, y);
            double low = Double.POSITIVE_INFINITY;
            double high = Double.NEGATIVE_INFINITY;
            int beside = 0;
            for (int j = Math.max(0, y - 1); j <= Math.min(series.height() - 1, y + 1); j++) {
                for (int i = Math.max(0, x - 1); i <= Math.min(series.width() - 1, x + 1); i++) {
                    double other = series.at(frame, i, j);
                    if ((i != x || j != y) && other == other) {
                        low = Math.min(low, other);
                        high = Math.max(high, other);
                        beside++;
                    }
                }
            }
            double beyond = Math.max(value - high, low - value);
            int to = value > high ? 1 : -1;
            boolean out = value == value
                    && beside >= 3
                    && beyond > RANGES * (high - low)
                    && beyond > NOISES * noise
                    && (side[p] == 0 || side[p] == to);
            stands[p] = out;
            side[p] = to;
        }
    }
}
