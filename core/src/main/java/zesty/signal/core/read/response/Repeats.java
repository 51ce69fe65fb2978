package zesty.signal.core.read.response;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import zesty.signal.core.text.Messages;

/**
 * What a signal does after several moments of one kind, laid over each other from the moment on: each less its own baseline, their
 * mean and spread, and how often the signal's own wander makes as much of as many moments that mean nothing.
 *
 * <p>The chance is that of a test by random placement (Edgington 1980, Randomization Tests): sets of as many moments are drawn from
 * where nothing had happened, and the share of them whose mean goes as far is told.
 *
 * @param grid moments from the marker on, in s, below 0 before it
 * @param each of every repeat its curve on the grid, less its baseline; NaN where there is none
 * @param moments of the repeats that are in it, in s of the record
 * @param mean of the repeats. @param spread of the repeats at each moment, their standard deviation; NaN of one
 * @param change of the mean where it goes furthest; NaN without repeats
 * @param latency in s until it is past half of that. @param recovery in s from there until it is back within half; NaN when it is not
 * @param chance share of meaningless sets that go as far; NaN where there is too little rest to tell
 */
public record Repeats(
        double[] grid,
        List<double[]> each,
        List<Double> moments,
        double[] mean,
        double[] spread,
        double change,
        double latency,
        double recovery,
        double chance) {
    private static final int MOST_POINTS = 600;
    private static final int DRAWS = 499;
    private static final long SEED = 20;
    /** Below so many windows of rest beside each other the wander is not known. */
    private static final double FEWEST_RESTS = 3;

    /** A curve of which less than this share is there is no repeat. */
    private static final double LEAST_THERE = 0.5;

    /**
     * @param seconds of the samples, never falling. @param x NaN for a missing one
     * @param moments when it happened, in s
     * @param before how long before each its baseline is taken, in s. @param until how long after it is looked, in s
     * @throws IllegalArgumentException when these lengths are not above 0
     */
    public static Repeats of(double[] seconds, double[] x, List<Double> moments, double before, double until) {
        if (!(before > 0) || !(until > 0)) {
            throw new IllegalArgumentException(
                    Messages.of("read.response.the-time-before-and-after-a-marker", before, until));
        }
        double[] steps = new double[Math.max(0, seconds.length - 1)];
        for (int i = 0; i < steps.length; i++) {
            steps[i] = seconds[i + 1] - seconds[i];
        }
        Arrays.sort(steps);
        double usual = steps.length == 0 ? 1 : Math.max(1e-6, steps[steps.length / 2]);
        double step = Math.max(usual, (before + until) / MOST_POINTS);
        int back = (int) Math.floor(before / step + 1e-9);
        int on = (int) Math.floor(until / step + 1e-9);
        double[] grid = new double[back + on + 1];
        Arrays.setAll(grid, i -> (i - back) * step);
        // What comes seldom, as beats do, is joined over some of its own periods.
        double joined = 4 * usual + step;
        List<double[]> each = new ArrayList<>();
        List<Double> used = new ArrayList<>();
        for (double moment : moments) {
            double[] curve = curve(seconds, x, moment, grid, back, joined);
            if (curve != null) {
                each.add(curve);
                used.add(moment);
            }
        }
        double[] mean = mean(each, grid.length);
        double[] spread = spread(each, mean);
        int peak = furthest(mean, back);
        double change = peak < 0 ? Double.NaN : mean[peak];
        double latency = Double.NaN;
        double recovery = Double.NaN;
        for (int i = back; peak >= 0 && i <= peak && Double.isNaN(latency); i++) {
            latency = Math.signum(change) * mean[i] > Math.abs(change) / 2 ? grid[i] : latency;
        }
        for (int i = peak + 1; peak >= 0 && i < mean.length && Double.isNaN(recovery); i++) {
            recovery = Math.signum(change) * mean[i] <= Math.abs(change) / 2 ? grid[i] - grid[peak] : recovery;
        }
        double chance = each.isEmpty()
                ? Double.NaN
                : chance(seconds, x, used, new double[] {before, until, joined}, grid, back, Math.abs(change));
        return new Repeats(grid, each, used, mean, spread, change, latency, recovery, chance);
    }

    /** @return the curve after a moment less its baseline; null where too little of it is there */
    private static double[] curve(double[] seconds, double[] x, double moment, double[] grid, int back, double joined) {
        double[] curve = new double[grid.length];
        int there = 0;
        int at = Arrays.binarySearch(seconds, moment + grid[0]);
        at = Math.max(0, at < 0 ? -at - 2 : at);
        for (int i = 0; i < grid.length; i++) {
            double when = moment + grid[i];
            while (at + 1 < seconds.length && seconds[at + 1] <= when) {
                at++;
            }
            curve[i] = between(seconds, x, at, when, joined);
            there += curve[i] == curve[i] ? 1 : 0;
        }
        double sum = 0;
        int n = 0;
        for (int i = 0; i < back; i++) {
            sum += curve[i] == curve[i] ? curve[i] : 0;
            n += curve[i] == curve[i] ? 1 : 0;
        }
        if (n < Math.max(1, LEAST_THERE * back) || there < LEAST_THERE * grid.length) {
            return null;
        }
        for (int i = 0; i < curve.length; i++) {
            curve[i] -= sum / n;
        }
        return curve;
    }

    private static double between(double[] seconds, double[] x, int at, double when, double joined) {
        if (at >= seconds.length || seconds[at] > when || Double.isNaN(x[at])) {
            return Double.NaN;
        }
        if (at + 1 == seconds.length || seconds[at] == when) {
            return when - seconds[at] <= 1e-9 ? x[at] : Double.NaN;
        }
        double wide = seconds[at + 1] - seconds[at];
        return wide > joined ? Double.NaN : x[at] + (x[at + 1] - x[at]) * (when - seconds[at]) / wide;
    }

    private static double[] mean(List<double[]> each, int length) {
        double[] mean = new double[length];
        for (int i = 0; i < length; i++) {
            double sum = 0;
            int n = 0;
            for (double[] one : each) {
                sum += one[i] == one[i] ? one[i] : 0;
                n += one[i] == one[i] ? 1 : 0;
            }
            mean[i] = n == 0 || 2 * n < each.size() ? Double.NaN : sum / n;
        }
        return mean;
    }

    private static double[] spread(List<double[]> each, double[] mean) {
        double[] spread = new double[mean.length];
        for (int i = 0; i < spread.length; i++) {
            double squares = 0;
            int n = 0;
            for (double[] one : each) {
                if (one[i] == one[i]) {
                    squares += (one[i] - mean[i]) * (one[i] - mean[i]);
                    n++;
                }
            }
            spread[i] = n < 2 ? Double.NaN : Math.sqrt(squares / (n - 1));
        }
        return spread;
    }

    /** @return index from the moment on where a curve is furthest from 0; −1 where it is nowhere */
    private static int furthest(double[] curve, int from) {
        int best = -1;
        for (int i = from; i < curve.length; i++) {
            boolean further = curve[i] == curve[i] && (best < 0 || Math.abs(curve[i]) > Math.abs(curve[best]));
            best = further ? i : best;
        }
        return best;
    }

    /** @param lengths before and after a moment, and what is joined, in s */
    private static double chance(
            double[] seconds,
            double[] x,
            List<Double> moments,
            double[] lengths,
            double[] grid,
            int back,
            double went) {
        double before = lengths[0];
        double until = lengths[1];
        double window = before + until;
        double step = window / 20;
        List<double[]> rests = new ArrayList<>();
        double free = 0;
        double last = Double.NEGATIVE_INFINITY;
        for (double at = seconds[0] + before; at + until <= seconds[seconds.length - 1]; at += step) {
            double when = at;
            boolean rest = moments.stream().noneMatch(one -> when + until > one && when - before < one + until);
            double[] curve = rest ? curve(seconds, x, at, grid, back, lengths[2]) : null;
            if (curve != null) {
                rests.add(curve);
                free += at - last >= window ? 1 : 0;
                last = at - last >= window ? at : last;
            }
        }
        if (free < FEWEST_RESTS) {
            return Double.NaN;
        }
        Random random = new Random(SEED);
        int asFar = 0;
        for (int draw = 0; draw < DRAWS; draw++) {
            List<double[]> set = new ArrayList<>();
            for (int r = 0; r < moments.size(); r++) {
                set.add(rests.get(random.nextInt(rests.size())));
            }
            double[] mean = mean(set, grid.length);
            int peak = furthest(mean, back);
            asFar += peak >= 0 && Math.abs(mean[peak]) >= went ? 1 : 0;
        }
        // So few windows of rest can say no less than that.
        double least = 1 / (1 + Math.pow(free, moments.size()));
        return Math.max(least, (asFar + 1.0) / (DRAWS + 1));
    }
}
