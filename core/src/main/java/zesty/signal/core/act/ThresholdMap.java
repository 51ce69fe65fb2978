package zesty.signal.core.act;

import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * How well each of many thresholds and hystereses tells the true events of a record: how many are found, missed, or false. An event is
 * told where a rule "above" (or "below") turns on. Each truth is taken once, in the order of time.
 *
 * @param thresholds rising; the columns of the map
 * @param hystereses rising; its rows
 * @param found by row, then column; {@code invented} those that are no true event
 * @param events how many true ones there are
 */
public record ThresholdMap(double[] thresholds, double[] hystereses, int[][] found, int[][] invented, int events) {
    private static final int BLOCK = 64;
    private static final int WIDE = 64 * BLOCK;

    /** The best place, with its room on either side: what does as well without a break. */
    public record Best(int row, int column, double low, double high) {}

    /**
     * The record to be told from, prepared once.
     *
     * @param truth times of the true events; empty where only their number is known
     * @param count how many events there are, where their times are not known
     */
    public static final class Ground {
        private final double[] x;
        private final double[] seconds;
        private final double[] truth;
        private final int count;
        private final double within;
        private final double[][] lows;
        private final double[][] highs;

        private Ground(double[] x, double[] seconds, double[] truth, int count, double within) {
            this.x = x;
            this.seconds = seconds;
            this.truth = Arrays.stream(truth).sorted().toArray();
            this.count = count;
            this.within = within;
            lows = new double[][] {extremes(x, BLOCK, -1), extremes(x, WIDE, -1)};
            highs = new double[][] {extremes(x, BLOCK, 1), extremes(x, WIDE, 1)};
        }

        /**
         * @param x what is watched; NaN where nothing is
         * @param within how far the moment of turning on may be from its event, in s
         */
        public static Ground of(double[] x, double[] seconds, double[] truth, double within) {
            return new Ground(x, seconds, truth, truth.length, within);
        }

        /** Where only the number of events is known. */
        public static Ground counted(double[] x, double[] seconds, int count) {
            return new Ground(x, seconds, new double[0], count, Double.NaN);
        }

        private static double[] extremes(double[] x, int block, int sign) {
            double[] cells = new double[(x.length + block - 1) / block];
            Arrays.fill(cells, Double.NEGATIVE_INFINITY);
            for (int i = 0; i < x.length; i++) {
                double own = sign * x[i];
                if (own > cells[i / block]) {
                    cells[i / block] = own;
                }
            }
            return cells;
        }

        /** @return the first sample from there on with sign · x ≥ level (or, strictly, above it); the length for none */
        private int next(int from, int sign, double level, boolean strict) {
            double[][] cells = sign > 0 ? highs : lows;
            int i = from;
            while (i < x.length) {
                if (i % WIDE == 0 && !reaches(cells[1][i / WIDE], level, strict)) {
                    i += WIDE;
                } else if (i % BLOCK == 0 && !reaches(cells[0][i / BLOCK], level, strict)) {
                    i += BLOCK;
                } else if (reaches(sign * x[i], level, strict)) {
                    return i;
                } else {
                    i++;
                }
            }
            return x.length;
        }

        private static boolean reaches(double value, double level, boolean strict) {
            return strict ? value > level : value >= level;
        }

        /** @return found, and false */
        private int[] score(
                double threshold, double half, boolean above, double deadSeconds, double begin, double end) {
            int sign = above ? 1 : -1;
            int turns = 0;
            int hits = 0;
            int next = first(begin);
            int last = truth.length == 0 ? 0 : first(end);
            int at = Arrays.binarySearch(seconds, begin);
            double turned = Double.NEGATIVE_INFINITY;
            for (int i = at < 0 ? -at - 1 : at; i < x.length; ) {
                int on = free(
                        next(i, sign, sign * threshold + half, false),
                        turned + deadSeconds,
                        sign,
                        sign * threshold + half,
                        false);
                if (on >= x.length || seconds[on] >= end) {
                    break;
                }
                turned = seconds[on];
                turns++;
                while (next < last && truth[next] < seconds[on] - within) {
                    next++;
                }
                if (next < last && truth[next] <= seconds[on] + within) {
                    hits++;
                    next++;
                }
                int off = free(
                        next(on + 1, -sign, -(sign * threshold - half), true),
                        turned + deadSeconds,
                        -sign,
                        -(sign * threshold - half),
                        true);
                if (off < x.length) {
                    turned = seconds[off];
                }
                i = off + 1;
            }
            if (truth.length == 0) {
                hits = Math.min(turns, count);
            }
            return new int[] {hits, turns - hits};
        }

        /** Within the dead time nothing turns: the next sample that would after it. */
        private int free(int at, double from, int sign, double level, boolean strict) {
            int i = at;
            while (i < x.length && seconds[i] < from - Controller.ROUNDING_SECONDS) {
                i = next(i + 1, sign, level, strict);
            }
            return i;
        }

        private int first(double time) {
            int at = Arrays.binarySearch(truth, time);
            return at < 0 ? -at - 1 : at;
        }

        private int events(double begin, double end) {
            return truth.length == 0 ? count : first(end) - first(begin);
        }
    }

    /** @param above whether events go up, past a rule "above". @param deadSeconds no turn sooner than that after the last one */
    public static ThresholdMap of(
            Ground ground, boolean above, double[] thresholds, double[] hystereses, double deadSeconds) {
        return of(
                ground, above, thresholds, hystereses, deadSeconds, Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);
    }

    private static ThresholdMap of(
            Ground ground,
            boolean above,
            double[] thresholds,
            double[] hystereses,
            double deadSeconds,
            double begin,
            double end) {
        int[][] found = new int[hystereses.length][thresholds.length];
        int[][] invented = new int[hystereses.length][thresholds.length];
        IntStream.range(0, hystereses.length).parallel().forEach(r -> {
            for (int c = 0; c < thresholds.length; c++) {
                int[] score = ground.score(thresholds[c], hystereses[r] / 2, above, deadSeconds, begin, end);
                found[r][c] = score[0];
                invented[r][c] = score[1];
            }
        });
        return new ThresholdMap(thresholds, hystereses, found, invented, ground.events(begin, end));
    }

    /** @return the harmonic mean of the shares of those found and of those that are true (C. J. van Rijsbergen 1979, "Information retrieval") */
    public double f1(int row, int column) {
        int both = found[row][column] + invented[row][column] + events;
        return both == 0 ? 0 : 2.0 * found[row][column] / both;
    }

    /** @return of what does best the place with most room around it */
    public Best best() {
        double most = 0;
        for (int r = 0; r < hystereses.length; r++) {
            for (int c = 0; c < thresholds.length; c++) {
                most = Math.max(most, f1(r, c));
            }
        }
        int row = 0;
        int column = 0;
        int room = -1;
        for (int r = 0; r < hystereses.length; r++) {
            for (int c = 0; c < thresholds.length; c++) {
                int own = f1(r, c) == most ? room(r, c, most) : -1;
                if (own > room) {
                    room = own;
                    row = r;
                    column = c;
                }
            }
        }
        int low = column;
        int high = column;
        while (low > 0 && f1(row, low - 1) == most) {
            low--;
        }
        while (high + 1 < thresholds.length && f1(row, high + 1) == most) {
            high++;
        }
        return new Best(row, (low + high) / 2, thresholds[low], thresholds[high]);
    }

    /** How many places in a row do as well, to either side and up and down, the fewer of both; nothing does beyond the map. */
    private int room(int row, int column, double most) {
        int across = Math.min(steps(row, column, 0, 1, most), steps(row, column, 0, -1, most));
        int along = Math.min(steps(row, column, 1, 0, most), steps(row, column, -1, 0, most));
        return 4 * Math.min(across, along) + across;
    }

    private int steps(int row, int column, int down, int right, double most) {
        int steps = 0;
        int r = row + down;
        int c = column + right;
        while (r >= 0 && r < hystereses.length && c >= 0 && c < thresholds.length && f1(r, c) == most) {
            steps++;
            r += down;
            c += right;
        }
        return steps;
    }

    /**
     * Chosen on one half of the true events and checked on the other.
     *
     * @param best on the first half's map
     * @param found of the second half's events with that, and {@code events} how many these are
     * @param invented in the second half
     */
    public record Check(double threshold, double hysteresis, int found, int events, int invented) {}

    /** @return null where there are fewer than four true events, or only their number is known */
    public static Check check(
            Ground ground, boolean above, double[] thresholds, double[] hystereses, double deadSeconds) {
        int n = ground.truth.length;
        if (n < 4) {
            return null;
        }
        double middle = (ground.truth[n / 2 - 1] + ground.truth[n / 2]) / 2;
        ThresholdMap first = of(ground, above, thresholds, hystereses, deadSeconds, Double.NEGATIVE_INFINITY, middle);
        Best best = first.best();
        double threshold = thresholds[best.column()];
        double hysteresis = hystereses[best.row()];
        int[] score = ground.score(threshold, hysteresis / 2, above, deadSeconds, middle, Double.POSITIVE_INFINITY);
        return new Check(threshold, hysteresis, score[0], ground.events(middle, Double.POSITIVE_INFINITY), score[1]);
    }
}
