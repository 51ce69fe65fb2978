package zesty.signal.core.spectrum;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntPredicate;
import org.hipparchus.analysis.interpolation.SplineInterpolator;
import org.hipparchus.analysis.polynomials.PolynomialSplineFunction;
import zesty.signal.core.sample.Gap;

/**
 * A record as a spectrum needs it: a sample each period. What is missing is put in as the rest has it ({@link LinearPrediction}): straight
 * lines across holes that come regularly put lines into a spectrum that nobody shakes. Samples whose times are uneven, as of a
 * loop that takes now longer and now shorter, are brought onto an even grid by a cubic spline through them.
 *
 * @param axes one array each, without a missing value within a run
 * @param runs begin and end of each run
 * @param begins time of the first sample of each run, in s
 * @param unevenness how far samples stand from their places in a record at a rate, as a share of a period; 0 where they were taken to be
 *     even
 */
public record EvenRecord(double[][] axes, List<int[]> runs, double[] begins, double unevenness) {
    /** Times that stand off by less are even: a spline would take more from high frequencies than they do. */
    private static final double UNEVEN = 0.05;
    /** Steps that scatter by less do not walk so far from their places within a look. */
    private static final double CLEARLY_EVEN = 0.002;
    /** What a clock rounds off stands off by 0.29 of its tick; by more than so many ticks samples themselves are uneven. */
    private static final double TICKS = 0.6;
    /** Times are held against a straight line over so many samples: a clock may drift. */
    private static final int LOOKED_AT = 256;
    /** Where a sample stands after a hole is told by those of so many before it. */
    private static final double REMEMBERED = 64;

    /**
     * A timer may sample evenly, and only the stamps be late: then samples as they came follow from those before them far better than
     * samples that were moved.
     */
    private static final double WORSE = 0.5;
    /** A spline goes through so many at least. */
    private static final int FEWEST = 3;
    /** So many steps tell what a clock can tell apart. */
    private static final int MOST_STEPS = 4096;
    /** A step may be this much off from whole ticks. */
    private static final double OF_A_TICK = 0.1;

    /** Beside a hole, a place this near to a sample still has its value from it, in periods. */
    private static final double NEAR = 0.5;

    private static final double ROUNDING = 1e-6;

    /**
     * @param axes sampled at the same moments
     * @param seconds of each sample, never falling
     * @param runs begin and end of each, without a missing value
     * @param measured which samples were, and not filled in on the way; the first and the last of a run are
     */
    public static EvenRecord of(
            double[][] axes, double[] seconds, List<int[]> runs, IntPredicate measured, double rateHz) {
        if (runs.stream().allMatch(run -> isWholeAndEven(seconds, run, measured, rateHz))) {
            double[] begins = runs.stream().mapToDouble(run -> seconds[run[0]]).toArray();
            return new EvenRecord(axes, runs, begins, 0);
        }
        List<int[]> evenRuns = new ArrayList<>();
        List<double[][]> parts = new ArrayList<>();
        double[] begins = new double[runs.size()];
        double uneven = 0;
        int end = 0;
        for (int[] run : runs) {
            int[] rows = rows(run, measured);
            if (rows.length == 0) {
                continue;
            }
            int[] places = places(seconds, rows, rateHz);
            double off = unevenness(seconds, rows, places, rateHz);
            double[][] part = placed(axes, rows, places);
            if (off > 0) {
                double[][] onGrid = splined(axes, seconds, rows, rateHz);
                boolean worse = LinearPrediction.untold(part[0]) < WORSE * LinearPrediction.untold(onGrid[0]);
                part = worse ? part : onGrid;
                off = worse ? 0 : off;
            }
            uneven = Math.max(uneven, off);
            begins[parts.size()] = seconds[rows[0]];
            parts.add(part);
            evenRuns.add(new int[] {end, end + part[0].length});
            end += part[0].length;
        }
        double[][] all = new double[axes.length][end];
        for (int a = 0; a < axes.length; a++) {
            for (int i = 0; i < parts.size(); i++) {
                double[] part = parts.get(i)[a];
                LinearPrediction.fill(part);
                System.arraycopy(part, 0, all[a], evenRuns.get(i)[0], part.length);
            }
        }
        return new EvenRecord(all, List.copyOf(evenRuns), Arrays.copyOf(begins, parts.size()), uneven);
    }

    /** @return how many samples the longest run has */
    public int longest() {
        return runs.stream().mapToInt(run -> run[1] - run[0]).max().orElse(0);
    }

    /** A look that needs no room: long records are mostly so. */
    private static boolean isWholeAndEven(double[] seconds, int[] run, IntPredicate measured, double rateHz) {
        for (int i = run[0]; i < run[1]; i++) {
            double step = i > run[0] ? (seconds[i] - seconds[i - 1]) * rateHz : 1;
            if (!measured.test(i) || Math.abs(step - 1) > CLEARLY_EVEN) {
                return false;
            }
        }
        return true;
    }

    /**
     * @param values NaN is a missing one
     * @param seconds of each, never falling
     * @param longestHoleSeconds after a longer hole another run begins
     */
    public static EvenRecord of(double[] values, double[] seconds, double rateHz, double longestHoleSeconds) {
        double[] there = new double[values.length];
        double[] when = new double[values.length];
        List<int[]> runs = new ArrayList<>();
        int n = 0;
        int begin = 0;
        for (int i = 0; i < values.length; i++) {
            if (values[i] != values[i]) {
                continue;
            }
            double step = n > 0 ? seconds[i] - when[n - 1] : 0;
            if (step > longestHoleSeconds && step * rateHz > Gap.PERIODS) {
                runs.add(new int[] {begin, n});
                begin = n;
            }
            there[n] = values[i];
            when[n++] = seconds[i];
        }
        if (n > begin) {
            runs.add(new int[] {begin, n});
        }
        return of(new double[][] {Arrays.copyOf(there, n)}, Arrays.copyOf(when, n), runs, i -> true, rateHz);
    }

    private static int[] rows(int[] run, IntPredicate measured) {
        int[] rows = new int[run[1] - run[0]];
        int n = 0;
        for (int i = run[0]; i < run[1]; i++) {
            if (measured.test(i)) {
                rows[n++] = i;
            }
        }
        return Arrays.copyOf(rows, n);
    }

    /** @return which place each sample has at that rate, a hole as many as its time has room for */
    private static int[] places(double[] seconds, int[] rows, double rateHz) {
        int[] places = new int[rows.length];
        double usual = 0;
        for (int i = 1; i < rows.length; i++) {
            double at = (seconds[rows[i]] - seconds[rows[0]]) * rateHz;
            boolean hole = (seconds[rows[i]] - seconds[rows[i - 1]]) * rateHz > Gap.PERIODS;
            // One that was held up is late, and the next one in time.
            double next = hole && i + 1 < rows.length ? (seconds[rows[i + 1]] - seconds[rows[0]]) * rateHz - 1 : at;
            places[i] = Math.max(places[i - 1] + 1, hole ? (int) Math.rint(Math.min(at, next) - usual) : 0);
            // By how much samples stand later than their places so far: the rate may not be known to the last digit.
            usual += (at - places[i] - usual) / Math.min(i, REMEMBERED);
        }
        return places;
    }

    private static double unevenness(double[] seconds, int[] rows, int[] places, double rateHz) {
        int distinct = 1;
        for (int i = 1; i < rows.length && distinct < FEWEST; i++) {
            distinct += seconds[rows[i]] > seconds[rows[i - 1]] ? 1 : 0;
        }
        if (distinct < FEWEST) {
            return 0;
        }
        double squares = 0;
        int count = 0;
        for (int from = 0; from + 2 < rows.length; from += LOOKED_AT) {
            int to = Math.min(rows.length, from + LOOKED_AT);
            squares += squares(seconds, rows, places, from, to) * rateHz * rateHz;
            count += to - from;
        }
        double off = count > 0 ? Math.sqrt(squares / count) : 0;
        return off > UNEVEN && off > TICKS * tick(seconds, rows) * rateHz ? off : 0;
    }

    /** @return what all steps are multiples of, in s, as of a clock that is coarse beside them; 0 where there is no such time */
    private static double tick(double[] seconds, int[] rows) {
        double[] steps = new double[Math.min(MOST_STEPS, rows.length - 1)];
        for (int i = 0; i < steps.length; i++) {
            steps[i] = seconds[rows[i + 1]] - seconds[rows[i]];
        }
        Arrays.sort(steps);
        double tick = Double.POSITIVE_INFINITY;
        for (int i = 1; i < steps.length; i++) {
            double apart = steps[i] - steps[i - 1];
            tick = apart > ROUNDING * steps[i] ? Math.min(tick, apart) : tick;
        }
        for (double step : steps) {
            if (Math.abs(step / tick - Math.rint(step / tick)) > OF_A_TICK) {
                return 0;
            }
        }
        return tick < Double.POSITIVE_INFINITY ? tick : 0;
    }

    /** @return the sum of what squared times are off from a straight line over their places, in s² */
    private static double squares(double[] seconds, int[] rows, int[] places, int from, int to) {
        double n = to - from;
        double x = 0;
        double y = 0;
        double xx = 0;
        double xy = 0;
        double yy = 0;
        for (int i = from; i < to; i++) {
            double place = places[i] - places[from];
            double at = seconds[rows[i]] - seconds[rows[from]];
            x += place;
            y += at;
            xx += place * place;
            xy += place * at;
            yy += at * at;
        }
        double slope = (n * xy - x * y) / (n * xx - x * x);
        return Math.max(0, yy - y * y / n - slope * (xy - x * y / n));
    }

    private static double[][] placed(double[][] axes, int[] rows, int[] places) {
        double[][] out = new double[axes.length][places[places.length - 1] + 1];
        for (int a = 0; a < axes.length; a++) {
            Arrays.fill(out[a], Double.NaN);
            for (int i = 0; i < rows.length; i++) {
                out[a][places[i]] = axes[a][rows[i]];
            }
        }
        return out;
    }

    private static double[][] splined(double[][] axes, double[] seconds, int[] rows, double rateHz) {
        double[] at = new double[rows.length];
        int[] knots = new int[rows.length];
        int n = 0;
        for (int row : rows) {
            double place = (seconds[row] - seconds[rows[0]]) * rateHz;
            if (n == 0 || place > at[n - 1]) {
                at[n] = place;
                knots[n++] = row;
            }
        }
        at = Arrays.copyOf(at, n);
        boolean[] told = told(at);
        double[][] out = new double[axes.length][told.length];
        for (int a = 0; a < axes.length; a++) {
            double[] values = new double[n];
            for (int i = 0; i < n; i++) {
                values[i] = axes[a][knots[i]];
            }
            PolynomialSplineFunction spline = new SplineInterpolator().interpolate(at, values);
            for (int k = 0; k < told.length; k++) {
                out[a][k] = told[k] ? spline.value(k) : Double.NaN;
            }
        }
        return out;
    }

    /** @return of each place whether samples near to it tell its value; the first and the last are such */
    private static boolean[] told(double[] at) {
        boolean[] told = new boolean[(int) Math.floor(at[at.length - 1]) + 1];
        int length = 1;
        int after = 1;
        for (int k = 0; k < told.length; k++) {
            while (at[after] < k) {
                after++;
            }
            told[k] = at[after] - at[after - 1] <= Gap.PERIODS || k - at[after - 1] <= NEAR || at[after] - k <= NEAR;
            length = told[k] ? k + 1 : length;
        }
        return Arrays.copyOf(told, length);
    }
}
