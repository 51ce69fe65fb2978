package zesty.signal.core.read.motion;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import zesty.signal.core.read.Event;
import zesty.signal.core.sample.Order;
import zesty.signal.core.sample.SortedWindow;

/** What happened to the unit: falls, taps, shaking, being picked up; and the steps of whoever carries it. */
final class Happenings {
    /** Less than this is felt in free fall, in g. */
    private static final double FALLING_G = 0.4;

    private static final double SHORTEST_FALL_SECONDS = 0.1;
    private static final double IMPACT_G = 2.5;
    private static final double IMPACT_SECONDS = 0.6;
    private static final double TAP_G = 0.4;
    private static final double TAP_NOISES = 9;
    /** A tap is over within this; what goes on longer is no tap, in s. */
    private static final double TAP_SECONDS = 0.08;

    private static final double DOUBLE_FROM = 0.1;
    private static final double DOUBLE_TO = 0.45;
    private static final double SHAKE_G = 0.7;
    private static final double SHAKE_SECONDS = 0.6;
    private static final double STEP_G = 0.04;
    private static final double STEP_SMOOTH_SECONDS = 0.14;
    private static final double FASTEST_STEP = 0.27;
    private static final double SLOWEST_STEP = 1.2;
    private static final int FEWEST_STEPS = 4;

    /** Correlation of each two steps with the two before, of a few steps and of many; shaken springs do not repeat so well. */
    private static final double REPEATS = 0.75;

    private static final double REPEATS_LONG = 0.5;
    private static final int MANY_STEPS = 10;

    /** Whether it lies still is told for each of these, in s. */
    private static final double STILL_BLOCK_SECONDS = 0.25;
    /** Still: no more than so many times the noise, the noise being that of the stillest tenth, and within these bounds in g. */
    private static final double STILL_NOISES = 2;

    private static final double LEAST_STILL_G = 0.004;
    private static final double MOST_STILL_G = 0.08;
    /** It lay for a second and a half, is up within a second and a half, and is looked at for two more. */
    private static final int LIES_BLOCKS = 6;

    private static final int LIFT_BLOCKS = 6;
    private static final int HELD_BLOCKS = 8;
    private static final double LIFTED_DEGREES = 8;
    private static final double LIFTED_G = 0.07;
    private static final double LIFTED_NOISES = 5;
    /** A hand moves it this much more than the noise. */
    private static final double HELD_NOISES = 1.2;

    private int irregular;
    private final double[] seconds;
    private final double[] length;
    private final double rateHz;

    /** @param length of the acceleration, in g */
    Happenings(double[] seconds, double[] length, double rateHz) {
        this.seconds = seconds;
        this.length = length;
        this.rateHz = rateHz;
    }

    private Event event(String kind, int from, int to, double size) {
        return new Event(kind, seconds[from], seconds[Math.min(seconds.length - 1, to)], size, true, "");
    }

    /** @param axes the acceleration, one array an axis, in g */
    List<Event> events(double[][] axes) {
        List<Event> falls = falls();
        List<Event> events = new ArrayList<>(falls);
        List<Event> shakes = shakes().stream()
                .filter(shake -> falls.stream()
                        .noneMatch(fall ->
                                fall.startSeconds() < shake.endSeconds() && fall.endSeconds() > shake.startSeconds()))
                .toList();
        events.addAll(shakes);
        List<Event> taps = taps().stream()
                .filter(tap -> falls.stream()
                        .noneMatch(fall -> tap.startSeconds() > fall.startSeconds() - 0.1
                                && tap.startSeconds() < fall.endSeconds() + 0.6))
                .filter(tap -> shakes.stream()
                        .noneMatch(s -> tap.startSeconds() > s.startSeconds() - 0.3
                                && tap.startSeconds() < s.endSeconds() + 0.3))
                .toList();
        for (int i = 0; i < taps.size(); i++) {
            Event tap = taps.get(i);
            double next = i + 1 < taps.size() ? taps.get(i + 1).startSeconds() - tap.startSeconds() : 9;
            if (next >= DOUBLE_FROM && next <= DOUBLE_TO) {
                Event second = taps.get(++i);
                events.add(new Event("double-tap", tap.startSeconds(), second.startSeconds(), tap.size(), true, ""));
            } else {
                events.add(tap);
            }
        }
        for (Event lifted : pickUps(axes)) {
            if (events.stream()
                    .noneMatch(other -> Math.abs(other.startSeconds() - lifted.startSeconds()) < 0.6
                            && !other.kind().equals("shake"))) {
                events.add(lifted);
            }
        }
        events.sort(Comparator.comparingDouble(Event::startSeconds));
        return events;
    }

    private List<Event> falls() {
        List<Event> events = new ArrayList<>();
        int from = -1;
        for (int i = 0; i <= length.length; i++) {
            boolean falling = i < length.length && length[i] < FALLING_G;
            if (falling && from < 0) {
                from = i;
            } else if (!falling && from >= 0) {
                if (seconds[i - 1] - seconds[from] >= SHORTEST_FALL_SECONDS - 1.5 / rateHz) {
                    events.add(event("free-fall", from, i - 1, Double.NaN));
                    int until = (int) Math.min(length.length, i + IMPACT_SECONDS * rateHz);
                    double most = 0;
                    for (int k = i; k < until; k++) {
                        most = Math.max(most, length[k]);
                    }
                    if (most > IMPACT_G) {
                        events.add(event("fall", from, i, most));
                    }
                }
                from = -1;
            }
        }
        return events;
    }

    /** Short jolts: far from the median of the moment around, and back soon. */
    private List<Event> taps() {
        int half = (int) Math.max(2, Math.round(0.06 * rateHz));
        double[] off = new double[length.length];
        SortedWindow around = new SortedWindow(2 * half + 1);
        for (int i = 0; i < Math.min(half, length.length); i++) {
            around.add(length[i]);
        }
        for (int i = 0; i < off.length; i++) {
            boolean goes = i - half - 1 >= 0;
            boolean comes = i + half < length.length;
            if (goes && comes) {
                around.replace(length[i - half - 1], length[i + half]);
            } else if (comes) {
                around.add(length[i + half]);
            } else if (goes) {
                around.remove(length[i - half - 1]);
            }
            off[i] = Math.abs(length[i] - around.median());
        }
        double noise = Order.median(off) * 1.4826;
        double least = Math.max(TAP_G, TAP_NOISES * noise);
        int apart = (int) Math.max(1, Math.round(TAP_SECONDS * rateHz));
        List<Event> taps = new ArrayList<>();
        for (int i = 0; i < off.length; i++) {
            if (off[i] > least) {
                double most = 0;
                int last = i;
                for (int k = i; k < Math.min(off.length, i + apart); k++) {
                    most = Math.max(most, off[k]);
                }
                for (int k = i; k < Math.min(off.length, last + apart); k++) {
                    last = off[k] > least / 2 ? k : last;
                }
                if (seconds[last] - seconds[i] < 2.5 * TAP_SECONDS) {
                    taps.add(event("tap", i, i, most));
                }
                i = last + apart / 2;
            }
        }
        return taps;
    }

    private List<Event> shakes() {
        List<Event> events = new ArrayList<>();
        int window = (int) Math.max(2, Math.round(0.25 * rateHz));
        double sum = 0;
        int from = -1;
        for (int i = 0; i <= length.length; i++) {
            boolean over = false;
            if (i < length.length) {
                double off = length[i] - 1;
                double gone = i >= window ? length[i - window] - 1 : 0;
                sum += off * off - gone * gone;
                over = i >= window && Math.sqrt(Math.max(0, sum) / window) > SHAKE_G;
            }
            if (over && from < 0) {
                from = i - window;
            } else if (!over && from >= 0) {
                int end = Math.min(i, length.length - 1);
                if (seconds[end] - seconds[from] > SHAKE_SECONDS && changes(from, end) >= 4) {
                    events.add(event("shake", from, end, Double.NaN));
                }
                from = -1;
            }
        }
        return events;
    }

    private int changes(int from, int to) {
        int changes = 0;
        for (int i = from + 1; i < to; i++) {
            changes += (length[i] > 1.2) != (length[i - 1] > 1.2) ? 1 : 0;
        }
        return changes;
    }

    /**
     * Steps are the rises of a smoothed acceleration at a pace that people walk or run at, some in a row (after W. Zijlstra
     * and A. L. Hof 2003, "Assessment of spatio-temporal gait parameters from trunk accelerations during human walking").
     */
    int steps() {
        double[] smooth = smoothed(smoothed(length));
        double level = Order.median(smooth);
        List<Integer> tops = new ArrayList<>();
        int apart = (int) Math.round(FASTEST_STEP * rateHz);
        for (int i = 1; i + 1 < smooth.length; i++) {
            if (smooth[i] >= smooth[i - 1] && smooth[i] > smooth[i + 1] && smooth[i] - level > STEP_G) {
                int last = tops.isEmpty() ? -apart - 1 : tops.get(tops.size() - 1);
                if (i - last > apart) {
                    tops.add(i);
                } else if (smooth[i] > smooth[last]) {
                    tops.set(tops.size() - 1, i);
                }
            }
        }
        int steps = 0;
        int few = 0;
        int first = 0;
        double before = Double.NaN;
        for (int k = 1; k <= tops.size(); k++) {
            double gap = k < tops.size() ? seconds[tops.get(k)] - seconds[tops.get(k - 1)] : 99;
            boolean goesOn = gap < SLOWEST_STEP && (before != before || gap < 1.6 * before && before < 1.6 * gap);
            if (goesOn) {
                before = gap;
                continue;
            }
            if (k - first >= FEWEST_STEPS) {
                if (regular(smooth, level, tops.subList(first, k))) {
                    steps += k - first;
                    few += k - first < MANY_STEPS ? k - first : 0;
                } else {
                    irregular += k - first;
                }
            }
            first = k;
            before = Double.NaN;
        }
        if (irregular > 2 * steps) {
            // Among so much that is no walking a few alike are chance.
            irregular += few;
            return steps - few;
        }
        return steps;
    }

    /** @return rises at a walking pace that do not repeat as steps do, of those that {@link #steps} looked at */
    int irregular() {
        return irregular;
    }

    /** Whether each two steps are like the two before: springs that are shaken swing at their own pace, but never alike. */
    private boolean regular(double[] smooth, double level, List<Integer> tops) {
        int last = tops.size() - 1;
        int lag = (int) Math.round(2.0 * (tops.get(last) - tops.get(0)) / last);
        int from = Math.max(0, tops.get(0) - lag / 4);
        int to = Math.min(smooth.length, tops.get(last) + lag / 4) - lag;
        double best = 0;
        // The pace drifts: the lag that fits best, near the mean one.
        for (int shift = -lag / 8; shift <= lag / 8; shift++) {
            double xy = 0;
            double xx = 0;
            double yy = 0;
            for (int i = from; i < to - Math.max(0, shift); i++) {
                double x = smooth[i] - level;
                double y = smooth[i + lag + shift] - level;
                xy += x * y;
                xx += x * x;
                yy += y * y;
            }
            best = Math.max(best, xx > 0 && yy > 0 ? xy / Math.sqrt(xx * yy) : 0);
        }
        return best > (tops.size() < MANY_STEPS ? REPEATS : REPEATS_LONG);
    }

    /**
     * Lifted from where it lay: still for a while, then leaning otherwise within a moment, and in a hand from then on, which
     * is never as still as a table.
     *
     * @param axes the acceleration, one array an axis, in g
     */
    List<Event> pickUps(double[][] axes) {
        int block = (int) Math.max(3, Math.round(STILL_BLOCK_SECONDS * rateHz));
        int blocks = length.length / block;
        double[][] mean = new double[blocks][3];
        double[] moves = new double[blocks];
        for (int b = 0; b < blocks; b++) {
            for (int a = 0; a < 3; a++) {
                double sum = 0;
                double squares = 0;
                double start = axes[a][b * block];
                for (int i = b * block; i < (b + 1) * block; i++) {
                    double off = axes[a][i] - start;
                    sum += off;
                    squares += off * off;
                }
                mean[b][a] = start + sum / block;
                moves[b] += Math.max(0, squares / block - sum / block * sum / block);
            }
            moves[b] = Math.sqrt(moves[b]);
        }
        List<Event> found = new ArrayList<>();
        if (blocks < 2 * LIES_BLOCKS) {
            return found;
        }
        double noise = Order.quantile(moves, 0.1);
        double still = Math.min(MOST_STILL_G, Math.max(LEAST_STILL_G, STILL_NOISES * noise));
        int lay = 0;
        for (int b = 0; b < blocks; b++) {
            if (moves[b] <= still) {
                lay++;
                continue;
            }
            boolean lifted = lay >= LIES_BLOCKS
                    && leansOtherwise(mean, b - 2, b + LIFT_BLOCKS)
                    && rises(b * block, (b + LIFT_BLOCKS) * block, noise)
                    && handled(moves, b, noise);
            if (lifted) {
                found.add(event(
                        "pick-up", b * block, Math.min(length.length - 1, (b + LIFT_BLOCKS) * block), Double.NaN));
            }
            lay = 0;
        }
        return found;
    }

    /** Whether it is accelerated upwards: what only leans, as a boat does, feels 1 g. */
    private boolean rises(int from, int to, double noise) {
        double most = 0;
        for (int i = from; i < Math.min(length.length, to); i++) {
            most = Math.max(most, Math.abs(length[i] - 1));
        }
        return most > Math.max(LIFTED_G, LIFTED_NOISES * noise);
    }

    private static boolean leansOtherwise(double[][] mean, int before, int after) {
        double[] a = mean[Math.max(0, before)];
        double[] b = mean[Math.min(mean.length - 1, after)];
        double dot = a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
        double sizes = Math.sqrt((a[0] * a[0] + a[1] * a[1] + a[2] * a[2]) * (b[0] * b[0] + b[1] * b[1] + b[2] * b[2]));
        return sizes > 0 && Math.toDegrees(Math.acos(Math.max(-1, Math.min(1, dot / sizes)))) > LIFTED_DEGREES;
    }

    /** Whether it is less still afterwards than on the table: the median of the next blocks. */
    private static boolean handled(double[] moves, int from, double noise) {
        int begin = Math.min(moves.length, from + LIFT_BLOCKS);
        int end = Math.min(moves.length, begin + HELD_BLOCKS);
        return end - begin >= 2 && Order.median(Arrays.copyOfRange(moves, begin, end)) > HELD_NOISES * noise;
    }

    private double[] smoothed(double[] x) {
        int half = (int) Math.max(1, Math.round(STEP_SMOOTH_SECONDS * rateHz / 2));
        double[] sums = new double[x.length + 1];
        for (int i = 0; i < x.length; i++) {
            sums[i + 1] = sums[i] + x[i];
        }
        double[] smooth = new double[x.length];
        for (int i = 0; i < x.length; i++) {
            int from = Math.max(0, i - half);
            int to = Math.min(x.length, i + half + 1);
            smooth[i] = (sums[to] - sums[from]) / (to - from);
        }
        return smooth;
    }
}
