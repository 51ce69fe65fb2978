package zesty.signal.core.doctor;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** What lies below and above what the channel is read for: wander, drift and noise. */
final class Slow {
    private static final double WANDER_SECONDS = 1.1;
    /** The slow part stands so far above the quick one before it is told. */
    private static final double WANDERS = 1;

    private static final double DRIFTS = 3.5;
    /** What has less than this of its spread in noise is well. */
    private static final double NOISY = 0.3;
    /** The noise of the converter itself, in its steps, with room. */
    private static final double CONVERTER_STEPS = 2;

    private static final double QUICK_RATE = 20;

    private Slow() {}

    static List<Finding> find(Examined examined, Measures m) {
        List<Finding> found = new ArrayList<>();
        if (m.rateHz < QUICK_RATE) {
            return found;
        }
        double[] slow = mean(m.x, (int) Math.round(WANDER_SECONDS * m.rateHz / 2));
        double[] quick = new double[slow.length];
        for (int i = 0; i < quick.length; i++) {
            quick[i] = m.x[i] - slow[i];
        }
        double[] line = line(m.t, slow);
        double rise = Math.abs(line[1]) * m.span();
        double about = line[2];
        double fine = deviation(quick);
        boolean drifts = rise > DRIFTS * Math.max(fine, about) && rise > 12 * m.step;
        if (drifts && examined.nature().steadyLevel()) {
            found.add(new Finding(
                    Diagnosis.DRIFT,
                    Messages.of(
                            "doctor.the-level-moves-by-a-minute-times",
                            Digits.about(line[1] * 60, 2),
                            Digits.fixed(rise / fine, 0)),
                    Messages.of("doctor.warming-up-light-or-supply-that"),
                    Messages.of("doctor.wait-until-it-is-warm-fasten-it-a"),
                    "highpass:0.3@2"));
        } else if (examined.nature().steadyLevel() && about > WANDERS * fine && about > 6 * m.step) {
            found.add(new Finding(
                    Diagnosis.WANDER,
                    Messages.of("doctor.the-level-wanders-times-as-far-as", Digits.fixed(about / fine, 1)),
                    Messages.of("doctor.movement-pressure-or-breathing"),
                    Messages.of("doctor.hold-still-press-evenly-a-high"),
                    "highpass:0.5@2"));
        }
        boolean noisy = m.noise > NOISY * m.spread && m.noise > CONVERTER_STEPS * m.step;
        if (noisy && !examined.nature().noise()) {
            found.add(new Finding(
                    Diagnosis.NOISE,
                    Messages.of(
                            "doctor.of-one-sample-it-is-of-what-the",
                            Digits.about(m.noise, 2),
                            Digits.fixed(100 * m.noise / m.spread, 0)),
                    Messages.of("doctor.a-weak-signal-long-wires-or-a", Digits.about(m.step * 0.3, 1)),
                    Messages.of("doctor.more-gain-near-the-sensor-a"),
                    "lowpass:" + Digits.exact(Math.max(1, Math.round(m.rateHz / 20))) + "@2"));
        }
        return found;
    }

    /** The mean over so many to either side; at the ends over what is there. */
    private static double[] mean(double[] x, int half) {
        double[] sums = new double[x.length + 1];
        for (int i = 0; i < x.length; i++) {
            sums[i + 1] = sums[i] + x[i];
        }
        double[] mean = new double[x.length];
        for (int i = 0; i < x.length; i++) {
            int reach = Math.min(half, Math.min(i, x.length - 1 - i));
            mean[i] = (sums[i + reach + 1] - sums[i - reach]) / (2 * reach + 1);
        }
        return mean;
    }

    /** @return level and slope of the straight line through it, and how far it lies about it */
    private static double[] line(double[] t, double[] x) {
        double mt = Arrays.stream(t).average().orElse(0);
        double mx = Arrays.stream(x).average().orElse(0);
        double tt = 0;
        double tx = 0;
        for (int i = 0; i < x.length; i++) {
            tt += (t[i] - mt) * (t[i] - mt);
            tx += (t[i] - mt) * (x[i] - mx);
        }
        double slope = tx / tt;
        double left = 0;
        for (int i = 0; i < x.length; i++) {
            double off = x[i] - mx - slope * (t[i] - mt);
            left += off * off;
        }
        return new double[] {mx, slope, Math.sqrt(left / x.length)};
    }

    private static double deviation(double[] x) {
        double mean = Arrays.stream(x).average().orElse(0);
        double square = 0;
        for (double v : x) {
            square += (v - mean) * (v - mean) / x.length;
        }
        return Math.sqrt(square);
    }
}
