package zesty.signal.core.clean;

/**
 * Takes mains and its harmonics out while they drift: of each a sine is fitted as the signal goes on and taken off (B. Widrow and
 * others 1975, "Adaptive noise cancelling: principles and applications"); how the fundamental's phase runs away tells how
 * far its frequency is off, and all of them follow it. Where a fixed notch must be as wide as the drift, this one is narrow.
 */
final class HumFollower implements Stage {
    private static final int HARMONICS = 5;
    /** The frequency is thought over this often, in s, and is never further off than this, as a share. */
    private static final double LOOK_SECONDS = 0.25;

    private static final double MOST_OFF = 0.02;
    /** Of what the phase ran away, so much is put right at a time. */
    private static final double TRUST = 0.3;

    private final double rateHz;
    private final double nominalHz;
    private final double step;
    private final int look;
    private final int harmonics;
    private final double[] cos = new double[HARMONICS];
    private final double[] sin = new double[HARMONICS];
    /** The sines of this sample, cosine and sine of each in turn. */
    private final double[] cs = new double[2 * HARMONICS];

    private double hz;
    private double phase;
    private double before = Double.NaN;
    private int since;

    /** @param widthHz of what is taken out around each, at −3 dB */
    HumFollower(double rateHz, double hz, double widthHz) {
        this.rateHz = rateHz;
        nominalHz = hz;
        // The pole lies 1 − step from the circle: the notch is 2 · step of an angle wide.
        step = Math.PI * widthHz / rateHz;
        look = (int) Math.max(1, Math.round(LOOK_SECONDS * rateHz));
        harmonics = (int) Math.max(1, Math.min(HARMONICS, Math.floor(0.49 * rateHz / hz)));
        reset();
    }

    @Override
    public void reset() {
        java.util.Arrays.fill(cos, 0);
        java.util.Arrays.fill(sin, 0);
        hz = nominalHz;
        phase = 0;
        before = Double.NaN;
        since = 0;
    }

    /**
     * From here on time runs the other way, beginning with the sample that came last once more: what turned forward turns
     * back, so that cosines stay and sines change their sign.
     */
    void turnRound() {
        for (int k = 0; k < harmonics; k++) {
            sin[k] = -sin[k];
        }
        phase = 2 * Math.PI * hz / rateHz - phase;
        before = Double.NaN;
        since = 0;
    }

    @Override
    public void apply(double[] data, int offset, int length) {
        for (int i = offset; i < offset + length; i++) {
            double c1 = Math.cos(phase);
            double s1 = Math.sin(phase);
            phase += 2 * Math.PI * hz / rateHz;
            phase -= phase > Math.PI ? 2 * Math.PI : 0;
            if (data[i] == data[i]) {
                data[i] = without(data[i], c1, s1);
            }
            if (++since == look) {
                since = 0;
                follow();
            }
        }
    }

    private double without(double value, double c1, double s1) {
        double left = value;
        double c = c1;
        double s = s1;
        for (int k = 0; k < harmonics; k++) {
            cs[2 * k] = c;
            cs[2 * k + 1] = s;
            left -= cos[k] * c + sin[k] * s;
            double turned = c * c1 - s * s1;
            s = s * c1 + c * s1;
            c = turned;
        }
        for (int k = 0; k < harmonics; k++) {
            cos[k] += 2 * step * left * cs[2 * k];
            sin[k] += 2 * step * left * cs[2 * k + 1];
        }
        return left;
    }

    private void follow() {
        double angle = Math.atan2(sin[0], cos[0]);
        if (before == before) {
            double off = before - angle;
            off -= 2 * Math.PI * Math.rint(off / (2 * Math.PI));
            double found = hz + TRUST * off / (2 * Math.PI) * rateHz / look;
            hz = Math.max(nominalHz * (1 - MOST_OFF), Math.min(nominalHz * (1 + MOST_OFF), found));
        }
        before = angle;
    }
}
