package zesty.signal.core.clean;

import java.util.Arrays;
import java.util.Objects;

/**
 * Runs a cascade of second-order sections, transposed direct form II, up to four sections in one loop with the state in
 * local variables: the processor then works on several samples' sections at once. Every section is brought to b0 = 1
 * and the gains are applied together, once. With y = x + p put into what p and q become, neither waits for y:
 * p' = (b1 − a1) x + q − a1 p and q' = (b2 − a2) x − a2 p, one multiplication and addition from sample to sample.
 */
public final class SectionFilter implements Stage {
    /** So many samples are filtered at a time. */
    private static final int RUN = 512;

    private final Sections sections;
    private final Start start;
    private final double gain;
    /** b1 − a1, b2 − a2, −a1 and −a2 of each section, b0 being 1. */
    private final double[] c;

    /** p and q of each section. */
    private final double[] state;

    private final double[] kept = new double[RUN];
    private final double[] keptState;
    private boolean started;

    public SectionFilter(Sections sections, Start start) {
        this.sections = sections;
        this.start = start;
        state = new double[2 * sections.count()];
        keptState = new double[state.length];
        c = new double[4 * sections.count()];
        double product = 1;
        for (int s = 0; s < sections.count(); s++) {
            double b0 = sections.at(s, 0);
            product *= b0;
            c[4 * s] = sections.at(s, 1) / b0 - sections.at(s, 3);
            c[4 * s + 1] = sections.at(s, 2) / b0 - sections.at(s, 4);
            c[4 * s + 2] = -sections.at(s, 3);
            c[4 * s + 3] = -sections.at(s, 4);
        }
        gain = product;
    }

    /** @return what it runs */
    public Sections sections() {
        return sections;
    }

    @Override
    public void reset() {
        Arrays.fill(state, 0);
        started = false;
    }

    @Override
    public void apply(double[] data, int offset, int length) {
        Objects.checkFromIndexSize(offset, length, data.length);
        int end = offset + length;
        for (int at = offset; at < end; at += RUN) {
            int stop = Math.min(end, at + RUN);
            if (!whole(data, at, stop)) {
                inRuns(data, at, stop);
            }
        }
    }

    /**
     * Filters as if no value were missing. One that is missing stays in the state for ever, so that it is seen at the
     * end: then all is put back as it was. That costs less than to look at each value first.
     *
     * @return whether none was missing
     */
    private boolean whole(double[] data, int from, int to) {
        if (!started && data[from] != data[from]) {
            return false;
        }
        begin(data[from]);
        System.arraycopy(data, from, kept, 0, to - from);
        System.arraycopy(state, 0, keptState, 0, state.length);
        run(data, from, to);
        if (state[state.length - 2] == state[state.length - 2]) {
            return true;
        }
        System.arraycopy(kept, 0, data, from, to - from);
        System.arraycopy(keptState, 0, state, 0, state.length);
        return false;
    }

    /** Filters what is there, as if what is missing had not been. */
    private void inRuns(double[] data, int from, int to) {
        int at = from;
        while (at < to) {
            while (at < to && Double.isNaN(data[at])) {
                at++;
            }
            int stop = at;
            while (stop < to && !Double.isNaN(data[stop])) {
                stop++;
            }
            if (stop > at) {
                begin(data[at]);
                run(data, at, stop);
            }
            at = stop;
        }
    }

    private void begin(double first) {
        if (!started) {
            started = true;
            if (start == Start.SETTLED) {
                settle(first);
            }
        }
    }

    /** Sets the state to what it would be had the input been {@code level} for ever. */
    private void settle(double level) {
        double x = gain * level;
        for (int s = 0; s < sections.count(); s++) {
            // y = x + p, p (1 − (−a1)) = d1 x + q and q = d2 x − a2 p.
            double p = x * (c[4 * s] + c[4 * s + 1]) / (1 - c[4 * s + 2] - c[4 * s + 3]);
            state[2 * s] = p;
            state[2 * s + 1] = c[4 * s + 1] * x + c[4 * s + 3] * p;
            x += p;
        }
    }

    private void run(double[] data, int from, int to) {
        double in = gain;
        int section = 0;
        for (; section + 4 <= sections.count(); section += 4) {
            four(data, from, to, section, in);
            in = 1;
        }
        if (section + 2 <= sections.count()) {
            two(data, from, to, section, in);
            in = 1;
            section += 2;
        }
        if (section < sections.count()) {
            one(data, from, to, section, in);
        }
    }

    private void one(double[] data, int from, int to, int s, double in) {
        int k = 4 * s;
        double d1 = c[k], d2 = c[k + 1], a1 = c[k + 2], a2 = c[k + 3];
        double p = state[2 * s], q = state[2 * s + 1];
        for (int i = from; i < to; i++) {
            double x = in * data[i];
            data[i] = x + p;
            double next = Fused.add(a1, p, Fused.add(d1, x, q));
            q = Fused.add(a2, p, d2 * x);
            p = next;
        }
        state[2 * s] = p;
        state[2 * s + 1] = q;
    }

    private void two(double[] data, int from, int to, int s, double in) {
        int k = 4 * s;
        double d01 = c[k], d02 = c[k + 1], a01 = c[k + 2], a02 = c[k + 3];
        double d11 = c[k + 4], d12 = c[k + 5], a11 = c[k + 6], a12 = c[k + 7];
        int m = 2 * s;
        double p0 = state[m], q0 = state[m + 1], p1 = state[m + 2], q1 = state[m + 3];
        for (int i = from; i < to; i++) {
            double x = in * data[i];
            double y = x + p0;
            double next0 = Fused.add(a01, p0, Fused.add(d01, x, q0));
            q0 = Fused.add(a02, p0, d02 * x);
            p0 = next0;
            data[i] = y + p1;
            double next1 = Fused.add(a11, p1, Fused.add(d11, y, q1));
            q1 = Fused.add(a12, p1, d12 * y);
            p1 = next1;
        }
        state[m] = p0;
        state[m + 1] = q0;
        state[m + 2] = p1;
        state[m + 3] = q1;
    }

    private void four(double[] data, int from, int to, int s, double in) {
        int k = 4 * s;
        double d01 = c[k], d02 = c[k + 1], a01 = c[k + 2], a02 = c[k + 3];
        double d11 = c[k + 4], d12 = c[k + 5], a11 = c[k + 6], a12 = c[k + 7];
        double d21 = c[k + 8], d22 = c[k + 9], a21 = c[k + 10], a22 = c[k + 11];
        double d31 = c[k + 12], d32 = c[k + 13], a31 = c[k + 14], a32 = c[k + 15];
        int m = 2 * s;
        double p0 = state[m], q0 = state[m + 1], p1 = state[m + 2], q1 = state[m + 3];
        double p2 = state[m + 4], q2 = state[m + 5], p3 = state[m + 6], q3 = state[m + 7];
        for (int i = from; i < to; i++) {
            double x = in * data[i];
            double u = x + p0;
            double next0 = Fused.add(a01, p0, Fused.add(d01, x, q0));
            q0 = Fused.add(a02, p0, d02 * x);
            p0 = next0;
            double v = u + p1;
            double next1 = Fused.add(a11, p1, Fused.add(d11, u, q1));
            q1 = Fused.add(a12, p1, d12 * u);
            p1 = next1;
            double w = v + p2;
            double next2 = Fused.add(a21, p2, Fused.add(d21, v, q2));
            q2 = Fused.add(a22, p2, d22 * v);
            p2 = next2;
            data[i] = w + p3;
            double next3 = Fused.add(a31, p3, Fused.add(d31, w, q3));
            q3 = Fused.add(a32, p3, d32 * w);
            p3 = next3;
        }
        state[m] = p0;
        state[m + 1] = q0;
        state[m + 2] = p1;
        state[m + 3] = q1;
        state[m + 4] = p2;
        state[m + 5] = q2;
        state[m + 6] = p3;
        state[m + 7] = q3;
    }
}
