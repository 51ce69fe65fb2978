package zesty.signal.core.doctor;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.sample.Order;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** What single samples say that do not fit their neighbours, and times that do not follow each other evenly. */
final class Jumps {
    private static final double LOST_SHARE = 0.004;
    /** A gap is longer than so many periods. */
    private static final double GAP = 1.7;
    /** Times that come so unevenly, as a standard deviation over the period, spoil every frequency. */
    private static final double UNEVEN = 0.15;

    private static final int SPIKES = 3;
    private static final int AROUND = 8;
    /** A step is one only if the level stays so long after it, in s. */
    private static final double STAYS_SECONDS = 0.4;

    /** A knock rings for so long … */
    private static final double KNOCK_SECONDS = 0.25;
    /** … and swings past the levels by this share of their difference. */
    private static final double KNOCK = 0.25;

    private static final int LOOSE = 3;
    private static final double SLOWEST = 20;
    /** A contact leaps at once: this share of the whole step is there {@link #CLOSE_SECONDS} after it. */
    private static final double AT_ONCE = 0.6;

    private static final double CLOSE_SECONDS = 0.1;

    private static final double AT_ONCE_SECONDS = 0.012;
    /** Two leaps so far past what the signal moves by are a contact as well. */
    private static final double FAR = 4;

    private static final int SWITCH = 4;
    /** Where so many more leaps come back than stay, they are the signal: beats, knocks. */
    private static final int MOSTLY_BACK = 8;

    private Jumps() {}

    static Finding dropouts(Examined examined, Measures m) {
        int n = examined.values().length;
        int missing = n - m.count();
        int lost = 0;
        for (int i = 1; i < n; i++) {
            double apart = examined.seconds()[i] - examined.seconds()[i - 1];
            // What comes late once and early after it is uneven, not lost: the times around it tell.
            double around = examined.seconds()[Math.min(n - 1, i + 1)] - examined.seconds()[Math.max(0, i - 2)];
            int steps = Math.min(n - 1, i + 1) - Math.max(0, i - 2);
            boolean late = apart > GAP * m.periodSeconds && around > (steps + 0.6) * m.periodSeconds;
            lost += late ? (int) Math.round(apart / m.periodSeconds) - 1 : 0;
        }
        if ((double) (missing + lost) / (n + lost) > LOST_SHARE && missing + lost >= SPIKES) {
            return new Finding(
                    Diagnosis.DROPOUTS,
                    Messages.of("doctor.of-samples-are-missing", (missing + lost), (n + lost)),
                    Messages.of("doctor.the-link-loses-rows-or-the-board"),
                    Messages.of("doctor.a-faster-port-fewer-columns-a"),
                    "");
        }
        // Samples that leap to one value and back: a reading that failed.
        int leaps = 0;
        double to = Double.NaN;
        boolean same = true;
        double far = m.jump();
        for (int i = 1; i + 1 < m.count(); i++) {
            double before = m.x[i] - m.x[i - 1];
            double after = m.x[i] - m.x[i + 1];
            if (Math.abs(before) > far
                    && Math.abs(after) > far
                    && before * after > 0
                    && Math.abs(m.x[i + 1] - m.x[i - 1]) < Math.abs(before) / 3
                    && alone(m.x, i, Math.abs(before) / 3)) {
                same &= leaps == 0 || m.x[i] == to;
                to = m.x[i];
                leaps++;
            }
        }
        if (leaps < SPIKES || leaps > 0.1 * m.count()) {
            return null;
        }
        return new Finding(
                Diagnosis.DROPOUTS,
                Messages.of("doctor.spikes-single-samples-jump-and", leaps, (same ? " to " + Digits.of(to) : "")),
                same
                        ? Messages.of("doctor.readings-that-failed-and-were-sent")
                        : Messages.of("doctor.sparks-a-bad-contact-or-bytes-that"),
                Messages.of("doctor.a-despiking-step-takes-them-out"),
                "despike:3@5");
    }

    /** Whether what is around a sample moves by less than so much: of noise, each sample leaps. */
    private static boolean alone(double[] x, int at, double most) {
        for (int i = Math.max(1, at - AROUND); i < Math.min(x.length, at + AROUND); i++) {
            if (i != at && i != at + 1 && Math.abs(x[i] - x[i - 1]) > most) {
                return false;
            }
        }
        return true;
    }

    static Finding uneven(Examined examined, Measures m) {
        List<Double> apart = new ArrayList<>();
        for (int i = 1; i < examined.seconds().length; i++) {
            double d = examined.seconds()[i] - examined.seconds()[i - 1];
            if (d <= GAP * m.periodSeconds) {
                apart.add(d / m.periodSeconds);
            }
        }
        double mean = apart.stream().mapToDouble(d -> d).average().orElse(1);
        double square = apart.stream()
                .mapToDouble(d -> (d - mean) * (d - mean))
                .average()
                .orElse(0);
        if (Math.sqrt(square) < UNEVEN) {
            return null;
        }
        return new Finding(
                Diagnosis.UNEVEN,
                Messages.of("doctor.the-time-from-sample-to-sample", Digits.fixed(100 * Math.sqrt(square) / mean, 0)),
                Messages.of("doctor.the-board-measures-when-it-has"),
                Messages.of("doctor.let-a-timer-start-each-measurement"),
                "");
    }

    /** Levels that leap and stay: once or twice a step, often a loose contact. */
    static List<Finding> shifts(Examined examined, Measures m) {
        int stay = (int) Math.ceil(STAYS_SECONDS * m.rateHz);
        // Of a switch with its few values every change is a leap.
        if (m.rateHz < SLOWEST || m.count() < 3 * stay || m.kinds <= SWITCH) {
            return List.of();
        }
        List<double[]> steps = new ArrayList<>();
        int jumps = 0;
        double far = m.jump();
        int close = (int) Math.max(2, Math.round(CLOSE_SECONDS * m.rateHz));
        int reach = Math.max(1, (int) Math.round(AT_ONCE_SECONDS * m.rateHz));
        double[] sums = new double[m.count() + 1];
        for (int i = 0; i < m.count(); i++) {
            sums[i + 1] = sums[i] + m.x[i];
        }
        for (int i = reach; i < m.count(); i++) {
            if (Math.abs(m.x[i] - m.x[i - reach]) <= 1.5 * far) {
                continue;
            }
            jumps++;
            int since = Math.max(0, i - reach - stay);
            int until = Math.min(m.count(), i + reach + stay);
            boolean room = i - reach > since && until > i + reach;
            // Medians cost much: where not even the means differ by half a leap there is none that stays.
            double differ = room
                    ? (sums[until] - sums[i + reach]) / (until - i - reach)
                            - (sums[i - reach] - sums[since]) / (i - reach - since)
                    : 0;
            if (Math.abs(differ) < 0.5 * far) {
                i += 2 * reach;
                continue;
            }
            int from = Math.max(0, i - reach - stay);
            int to = Math.min(m.count(), i + reach + stay);
            if (i - reach - from >= stay / 2 && to - i - reach >= stay / 2) {
                double[] before = Arrays.copyOfRange(m.x, from, i - reach);
                double[] after = Arrays.copyOfRange(m.x, i + reach, to);
                double height = Order.quantile(after, 0.5) - Order.quantile(before, 0.5);
                double around = Math.max(width(before), width(after));
                boolean another = steps.isEmpty() || m.t[i] - steps.get(steps.size() - 1)[0] > STAYS_SECONDS / 2;
                double near = Order.quantile(Arrays.copyOf(after, Math.min(close, after.length)), 0.5)
                        - Order.quantile(
                                Arrays.copyOfRange(before, Math.max(0, before.length - close), before.length), 0.5);
                boolean atOnce = near * Math.signum(height) > AT_ONCE * Math.abs(height);
                if (another && atOnce && Math.abs(height) > Math.max(far, 2.5 * around)) {
                    steps.add(new double[] {m.t[i], height});
                }
            }
            i += 2 * reach;
        }
        // What leaps all the time is made so: beats, a switch, a square wave.
        if (steps.isEmpty() || jumps > MOSTLY_BACK * steps.size() && steps.size() < LOOSE || even(steps)) {
            return List.of();
        }
        boolean beyond = steps.size() > 1 && steps.stream().allMatch(one -> Math.abs(one[1]) > FAR * m.spread);
        boolean leaps = examined.nature().leaps();
        if (beyond || steps.size() >= LOOSE && !leaps) {
            return List.of(new Finding(
                    Diagnosis.LOOSE,
                    Messages.of("doctor.the-level-leaps-times-in-s", steps.size(), Digits.fixed(m.span(), 0)),
                    Messages.of("doctor.a-contact-lets-go-and-comes-back"),
                    Messages.of("doctor.press-it-down-or-wiggle-each-joint"),
                    ""));
        }
        double[] last = steps.get(steps.size() - 1);
        if (leaps || !knocked(m, last)) {
            return List.of();
        }
        return List.of(new Finding(
                Diagnosis.STEPPED,
                Messages.of(
                        "doctor.the-level-leaps-by-s-before-the",
                        Digits.about(last[1], 3),
                        Digits.fixed(m.t[m.count() - 1] - last[0], 1)),
                Messages.of("doctor.a-knock-moved-the-sensor-or-its"),
                Messages.of("doctor.if-nothing-was-meant-to-change"),
                ""));
    }

    /** Whether the signal swings past both levels where it steps; without a knock a step is what is measured. */
    private static boolean knocked(Measures m, double[] step) {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        double before = Double.NaN;
        double after = Double.NaN;
        for (int i = 0; i < m.count(); i++) {
            double off = m.t[i] - step[0];
            if (Math.abs(off) < KNOCK_SECONDS) {
                low = Math.min(low, m.x[i]);
                high = Math.max(high, m.x[i]);
            }
            before = off < -KNOCK_SECONDS ? m.x[i] : before;
            after = after != after && off > STAYS_SECONDS ? m.x[i] : after;
        }
        double past = Math.max(Math.min(before, after) - low, high - Math.max(before, after));
        return past > KNOCK * Math.abs(step[1]);
    }

    private static double width(double[] x) {
        return (Order.quantile(x, 0.9) - Order.quantile(x, 0.1)) / 2;
    }

    /** Whether many steps follow each other like a clock's. */
    private static boolean even(List<double[]> steps) {
        if (steps.size() < 5) {
            return false;
        }
        double[] apart = new double[steps.size() - 1];
        for (int i = 0; i < apart.length; i++) {
            apart[i] = steps.get(i + 1)[0] - steps.get(i)[0];
        }
        double middle = Order.quantile(apart, 0.5);
        return Order.quantile(apart, 0.8) - Order.quantile(apart, 0.2) < 0.25 * middle;
    }
}
