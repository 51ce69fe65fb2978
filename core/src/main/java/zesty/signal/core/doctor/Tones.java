package zesty.signal.core.doctor;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.spectrum.Lines;
import zesty.signal.core.spectrum.Welch;
import zesty.signal.core.spectrum.Window;
import zesty.signal.core.text.Messages;

/** What the spectrum says: mains with its harmonics, also where they are folded down, and tones near half the rate. */
final class Tones {
    private static final double SEGMENT_SECONDS = 2;
    private static final double QUICK_SECONDS = 1;
    private static final double QUICK_RATE = 200;
    private static final int LEAST_SEGMENTS = 3;
    /** Mains stays within this of its frequency, in Hz; the resolution comes on top. */
    private static final double MAINS_OFF = 0.25;

    private static final double CLEAR = 15;
    /** Of the power, mains less than this is no harm … */
    private static final double HUM_SHARE = 0.02;
    /** … nor with an amplitude of less than so many steps of the converter. */
    private static final double HUM_STEPS = 0.7;

    private static final double FOLDED_CLEAR = 60;
    private static final double FOLDED_SHARE = 0.05;
    /** A tone above this share of the rate may well be the image of one above half the rate. */
    private static final double NEAR_HALF = 0.36;

    private static final double LEAST_RATE = 20;

    private Tones() {}

    static List<Finding> find(Examined examined, Measures m) {
        List<Finding> found = new ArrayList<>();
        if (m.rateHz < LEAST_RATE || m.count() < 64) {
            return found;
        }
        int segment = (int)
                Math.min(m.count(), Math.round((m.rateHz < QUICK_RATE ? SEGMENT_SECONDS : QUICK_SECONDS) * m.rateHz));
        double[] density = Welch.of(m.x, quiet(m.x, segment), m.rateHz, Window.HANN, segment, 0.5)
                .density();
        double bin = m.rateHz / segment;
        double power = 0;
        for (int k = 1; k < density.length; k++) {
            power += density[k] * bin;
        }
        List<Lines.Line> lines = Lines.of(density, bin, 3 * bin, m.rateHz / 2 - bin, 12);
        double mains = 0;
        double share = 0;
        double highest = 0;
        double at = 0;
        for (double hz : new double[] {50, 60}) {
            double sum = 0;
            boolean own = false;
            double top = 0;
            double place = 0;
            for (Lines.Line line : lines) {
                int k = harmonic(line.hz(), hz, m.rateHz, bin);
                if (k > 0 && line.clear() > CLEAR) {
                    sum += line.amplitude() * line.amplitude() / 2;
                    // A lamp flickers at twice the mains; what has only higher harmonics is none.
                    own |= k <= 2;
                    if (line.amplitude() > top) {
                        top = line.amplitude();
                        place = line.hz();
                    }
                }
            }
            if (own && sum > share) {
                share = sum;
                mains = hz;
                highest = top;
                at = place;
            }
        }
        if (power > 0
                && share / power > HUM_SHARE
                && highest > HUM_STEPS * m.step
                && !examined.nature().tones()) {
            found.add(hum(m, mains, share / power, at, bin));
        }
        for (Lines.Line line : lines) {
            boolean near = line.hz() > NEAR_HALF * m.rateHz;
            double own = line.amplitude() * line.amplitude() / 2;
            boolean isMains = harmonic(line.hz(), 50, m.rateHz, bin) > 0 || harmonic(line.hz(), 60, m.rateHz, bin) > 0;
            if (near && line.clear() > FOLDED_CLEAR && own > FOLDED_SHARE * power && !isMains) {
                found.add(new Finding(
                        Diagnosis.FOLDED,
                        Messages.of("doctor.a-tone-at-hz-close-to-half-the", Digits.fixed(line.hz(), 1)),
                        Messages.of(
                                "doctor.it-may-be-one-at-or-hz-aliased",
                                Digits.fixed(m.rateHz - line.hz(), 1),
                                Digits.fixed(m.rateHz + line.hz(), 1)),
                        Messages.of("doctor.change-the-rate-an-aliased-tone"),
                        ""));
                break;
            }
        }
        return found;
    }

    /** @return the quietest segments: hum is always there, and a pull or a knock would hide it */
    private static List<int[]> quiet(double[] x, int segment) {
        List<double[]> parts = new ArrayList<>();
        for (int at = 0; at + segment <= x.length; at += Math.max(1, segment / 2)) {
            double mean = 0;
            double square = 0;
            for (int i = at; i < at + segment; i++) {
                mean += x[i] / segment;
                square += x[i] * x[i] / segment;
            }
            parts.add(new double[] {at, square - mean * mean});
        }
        parts.sort(Comparator.comparingDouble(part -> part[1]));
        List<int[]> quiet = new ArrayList<>();
        for (double[] part : parts.subList(0, Math.min(parts.size(), Math.max(LEAST_SEGMENTS, parts.size() / 16)))) {
            quiet.add(new int[] {(int) part[0], (int) part[0] + segment});
        }
        return quiet;
    }

    /** @return which harmonic of the mains the line is or folds down from; 0 for none */
    private static int harmonic(double hz, double mains, double rateHz, double bin) {
        for (int k = 1; k <= 5; k++) {
            double folded = Math.abs(k * mains - rateHz * Math.rint(k * mains / rateHz));
            if (k > 1 && folded < k * mains - 1e-9 && k * mains > 4 * rateHz) {
                break;
            }
            if (Math.abs(hz - folded) < k * MAINS_OFF + 0.6 * bin) {
                return k;
            }
        }
        return 0;
    }

    private static Finding hum(Measures m, double mains, double share, double at, double bin) {
        boolean folded = m.rateHz < 2.1 * mains;
        String where = folded ? Messages.of("doctor.aliased-to-hz", Digits.fixed(at, 1)) : "";
        String recipe = folded
                ? "notch:" + Digits.exact(Math.round(at * 10) / 10.0) + "@10"
                : "notch:" + Digits.exact(mains) + "@15";
        boolean fits = !folded || at > 4 * bin && at < 0.45 * m.rateHz;
        return new Finding(
                Diagnosis.HUM,
                Messages.of(
                        "doctor.mains-of-hz-makes-of-its-power", Digits.of(mains), where, Digits.fixed(100 * share, 0)),
                Messages.of("doctor.mains-wires-near-the-sensor-s-a"),
                Messages.of("doctor.run-on-battery-shorten-and-twist"),
                fits ? recipe : "");
    }
}
