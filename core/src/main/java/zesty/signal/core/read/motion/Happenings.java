package zesty.signal.core.read.motion;

import java.util.ArrayList;
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

    List<Event> events() {
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
        int row = 1;
        double before = Double.NaN;
        for (int k = 1; k <= tops.size(); k++) {
            double gap = k < tops.size() ? seconds[tops.get(k)] - seconds[tops.get(k - 1)] : 99;
            boolean goesOn = gap < SLOWEST_STEP && (before != before || gap < 1.6 * before && before < 1.6 * gap);
            if (goesOn) {
                row++;
                before = gap;
            } else {
                steps += row >= FEWEST_STEPS ? row : 0;
                row = 1;
                before = Double.NaN;
            }
        }
        return steps;
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
