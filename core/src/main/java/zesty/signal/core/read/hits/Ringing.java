package zesty.signal.core.read.hits;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.sample.Order;

/**
 * How what was struck rings on, learned from the record: how high it still is so long after a strike, as a share of that
 * strike. Struck again and again it rings alike, whatever its modes; other strikes come at other moments, so that the
 * median over many strikes shows the ringing alone.
 */
final class Ringing {
    /** The share is told for each of these after a strike, for so many of them: half a second. */
    private static final double BIN_SECONDS = 0.004;

    private static final int BINS = 125;
    /** |x| falls to zero twice a period: half a period of the lowest ringing handled, 15 Hz, is looked at together, in s. */
    private static final double TOGETHER_SECONDS = 0.035;
    /** A strike teaches when it exceeds the quiet reach so many times; of less high ones the end of ringing is noise. */
    private static final double TEACHES = 4;
    /** And when it is this share as high as the highest ones: ringing is heard longest after those. */
    private static final double OF_HIGHEST = 0.4;

    private static final double HIGHEST_QUANTILE = 0.9;
    /** One this share as high as a strike ends what it teaches, and one as high before it would be heard through it. */
    private static final double DISTURBS = 0.5;

    private static final double ALONE_SECONDS = 0.3;
    /** Fewer strikes teach nothing: what follows a single one may be another. */
    private static final int FEWEST = 3;

    private static final double MIDDLE = 0.5;

    /** Ringing only falls, but for two modes that come and go against each other: they lift it by this share at least. */
    private static final double SWELLS = 1.15;

    private static final double WORTH_SAYING = 0.1;

    private final double[] shares;
    private final double rateHz;
    private final int teachers;

    private Ringing(double[] shares, double rateHz, int teachers) {
        this.shares = shares;
        this.rateHz = rateHz;
        this.teachers = teachers;
    }

    /** A rise that may be a strike. @param at sample of its run. @param height over the next moment, over rest */
    record Rise(int run, int at, double height) {}

    /**
     * @param runs how far the signal is from its level, sample by sample
     * @param rises in order
     * @param reach what a quiet stretch does not exceed
     * @return null where too few strikes stand alone
     */
    static Ringing learned(List<double[]> runs, List<Rise> rises, double reach, double rateHz) {
        List<List<Double>> seen = new ArrayList<>();
        for (int b = 0; b < BINS; b++) {
            seen.add(new ArrayList<>());
        }
        int teachers = 0;
        double least = Math.max(TEACHES * reach, rises.isEmpty() ? 0 : OF_HIGHEST * highest(rises));
        for (int r = 0; r < rises.size(); r++) {
            Rise rise = rises.get(r);
            if (rise.height() < least || !alone(rises, r, rateHz)) {
                continue;
            }
            teachers++;
            int end = end(rises, r, runs.get(rise.run()).length);
            double[] off = runs.get(rise.run());
            for (int b = 0; b < BINS; b++) {
                int from = rise.at() + (int) Math.round(b * BIN_SECONDS * rateHz);
                int to = rise.at() + (int) Math.max(1 + from - rise.at(), Math.round((b + 1) * BIN_SECONDS * rateHz));
                if (to > end) {
                    break;
                }
                double most = 0;
                for (int i = from; i < to; i++) {
                    most = Math.max(most, Math.abs(off[i]));
                }
                // What a quiet stretch reaches as well is no ringing.
                seen.get(b).add(most > reach ? most / rise.height() : 0);
            }
        }
        if (teachers < FEWEST) {
            return null;
        }
        double[] own = new double[BINS];
        for (int b = 0; b < BINS; b++) {
            double[] sorted = seen.get(b).stream()
                    .mapToDouble(Double::doubleValue)
                    .sorted()
                    .toArray();
            // Ringing only falls in the long run: where few have been heard for so long, it is as before.
            own[b] = sorted.length >= FEWEST ? sorted[(int) (MIDDLE * (sorted.length - 1))] : b == 0 ? 1 : own[b - 1];
        }
        int half = (int) Math.ceil(TOGETHER_SECONDS / 2 / BIN_SECONDS);
        double[] shares = new double[BINS];
        for (int b = 0; b < BINS; b++) {
            shares[b] = Arrays.stream(own, Math.max(0, b - half), Math.min(BINS, b + half + 1))
                    .max()
                    .orElse(0);
        }
        return new Ringing(shares, rateHz, teachers);
    }

    private static double highest(List<Rise> rises) {
        return Order.quantile(rises.stream().mapToDouble(Rise::height).toArray(), HIGHEST_QUANTILE);
    }

    private static boolean alone(List<Rise> rises, int index, double rateHz) {
        Rise own = rises.get(index);
        for (int r = index - 1; r >= 0; r--) {
            Rise other = rises.get(r);
            if (other.run() != own.run() || own.at() - other.at() > ALONE_SECONDS * rateHz) {
                return true;
            }
            if (other.height() > DISTURBS * own.height()) {
                return false;
            }
        }
        return true;
    }

    private static int end(List<Rise> rises, int index, int length) {
        Rise own = rises.get(index);
        for (int r = index + 1; r < rises.size() && rises.get(r).run() == own.run(); r++) {
            if (rises.get(r).height() > DISTURBS * own.height()) {
                return rises.get(r).at();
            }
        }
        return length;
    }

    /** @return after how many strikes it swells again, which may be second strikes as regular as the first ones */
    int swelling() {
        double least = 1;
        for (double share : shares) {
            if (share > WORTH_SAYING && share > SWELLS * least) {
                return teachers;
            }
            least = Math.min(least, Math.max(share, WORTH_SAYING));
        }
        return 0;
    }

    /** @return whether so many samples after a strike something may be left of it */
    boolean within(int samples) {
        return samples / rateHz / BIN_SECONDS < BINS;
    }

    /** @return what is left of a strike so many samples after it, as a share of its height; 0 once nothing is known to be */
    double share(int samples) {
        int bin = (int) (samples / rateHz / BIN_SECONDS);
        return bin < BINS ? shares[bin] : 0;
    }
}
