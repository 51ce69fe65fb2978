package zesty.signal.core.doctor;

import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** What the values themselves say: that they stand still, sit at an end, are cut off, or are few. */
final class Levels {
    private static final double MOSTLY = 0.9;
    /** Signals that are cut off stay for so many samples … */
    private static final int RUN = 3;
    /** … in this share of the time … */
    private static final double CUT_SHARE = 0.004;
    /** … and lie at the end so many times as often as at any of the steps beside it. */
    private static final double PILED = 6;

    private static final double BESIDE_STEPS = 20;

    private static final int FEW_KINDS = 14;
    private static final double FEW_STEPS = 16;

    private Levels() {}

    static Finding flat(Examined examined, Measures m) {
        if (m.least < m.most) {
            return null;
        }
        boolean end = m.least == examined.low() || m.least == examined.high();
        return new Finding(
                end ? Diagnosis.AT_END : Diagnosis.FLAT,
                "always " + Digits.of(m.least) + " for " + Digits.fixed(m.span(), 0) + " s",
                end
                        ? Messages.of("doctor.the-pin-lies-at-an-end-of-the")
                        : Messages.of("doctor.the-sensor-is-off-or-its-wire"),
                Messages.of("doctor.touch-the-sensor-and-watch-check"),
                "");
    }

    static Finding atEnd(Examined examined, Measures m) {
        double low = share(m, examined.low());
        double high = share(m, examined.high());
        double most = Math.max(low, high);
        if (!(most > MOSTLY)) {
            return null;
        }
        double end = low > high ? examined.low() : examined.high();
        return new Finding(
                Diagnosis.AT_END,
                Messages.of("doctor.of-it-is-the-converter-s-end", Digits.fixed(100 * most, 0), Digits.of(end)),
                Messages.of("doctor.the-signal-lies-outside-the"),
                Messages.of("doctor.check-the-divider-or-the-gain-and"),
                "");
    }

    private static double share(Measures m, double value) {
        int n = 0;
        for (double one : m.x) {
            n += one == value ? 1 : 0;
        }
        return (double) n / m.count();
    }

    static Finding clipped(Examined examined, Measures m) {
        double low = cut(m, m.least, m.least == examined.low());
        double high = cut(m, m.most, m.most == examined.high());
        if (Math.max(low, high) < CUT_SHARE) {
            return null;
        }
        String where = low >= CUT_SHARE && high >= CUT_SHARE
                ? Messages.of("doctor.and", Digits.of(m.least), Digits.of(m.most))
                : Digits.of(low > high ? m.least : m.most);
        return new Finding(
                Diagnosis.CLIPPED,
                Messages.of(
                        "doctor.is-cut-off-at", Digits.fixed(100 * (Math.max(0, low) + Math.max(0, high)), 1), where),
                Messages.of("doctor.the-signal-is-larger-than-the"),
                Messages.of("doctor.lower-the-gain-or-choose-a-wider"),
                "");
    }

    /**
     * @return the share of samples that stay at an end, where so many more do than lie beside it as no crest leaves there;
     *     else 0
     */
    private static double cut(Measures m, double end, boolean known) {
        int at = 0;
        int stuck = 0;
        int beside = 0;
        double band = Math.min(BESIDE_STEPS * m.step, 0.2 * (m.most - m.least));
        int run = 0;
        for (double one : m.x) {
            if (one == end) {
                at++;
                stuck += ++run == RUN ? RUN : run > RUN ? 1 : 0;
            } else {
                run = 0;
                beside += Math.abs(one - end) <= band ? 1 : 0;
            }
        }
        if (stuck < 2 * RUN || m.kinds <= FEW_KINDS && !known) {
            return 0;
        }
        double usual = beside / Math.max(1, band / m.step);
        return at > PILED * Math.max(0.5, usual) || known && stuck > 0.02 * m.count() ? (double) stuck / m.count() : 0;
    }

    static Finding fewBits(Examined examined, Measures m) {
        double steps = m.step > 0 ? (m.most - m.least) / m.step : 0;
        boolean few = m.kinds <= FEW_KINDS && steps <= FEW_STEPS && m.count() > 8 * m.kinds;
        // A handful of values are the noise of a steady one; what changes now and then is a switch.
        if (!few || m.kinds < 5 || InStep.switched(m.x)) {
            return null;
        }
        return new Finding(
                Diagnosis.FEW_BITS,
                Messages.of("doctor.it-moves-over-of-the-converter-s", m.kinds),
                Messages.of("doctor.the-sensor-gives-little-against"),
                Messages.of("doctor.more-gain-before-the-converter-or"),
                "");
    }
}
