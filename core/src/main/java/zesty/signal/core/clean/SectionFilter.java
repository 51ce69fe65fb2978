package zesty.signal.core.clean;

import java.util.Arrays;
import java.util.Objects;

/**
 * Runs a cascade of second-order sections, transposed direct form II, up to four sections in one loop with the state in
 * local variables: the processor then works on several samples' sections at once. Every section is brought to b0 = 1
 * and the gains are applied together, once; what does not wait for the newest output is added up first.
 */
public final class SectionFilter implements Stage {
    private final Sections sections;
    private final Start start;
    private final double gain;
    /** b1, b2, a1, a2 of each section, b0 being 1. */
    private final double[] c;

    private final double[] state;
    private boolean started;

    public SectionFilter(Sections sections, Start start) {
        this.sections = sections;
        this.start = start;
        state = new double[2 * sections.count()];
        c = new double[4 * sections.count()];
        double product = 1;
        for (int s = 0; s < sections.count(); s++) {
            double b0 = sections.at(s, 0);
            product *= b0;
            c[4 * s] = sections.at(s, 1) / b0;
            c[4 * s + 1] = sections.at(s, 2) / b0;
            c[4 * s + 2] = sections.at(s, 3);
            c[4 * s + 3] = sections.at(s, 4);
        }
        gain = product;
    }

    @Override
    public void reset() {
        Arrays.fill(state, 0);
        started = false;
    }

    @Override
    public void apply(double[] data, int offset, int length) {
        Objects.checkFromIndexSize(offset, length, data.length);
        int at = offset;
        int end = offset + length;
        while (at < end) {
            while (at < end && Double.isNaN(data[at])) {
                at++;
            }
            int stop = at;
            while (stop < end && !Double.isNaN(data[stop])) {
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
            double y = x * (1 + c[4 * s] + c[4 * s + 1]) / (1 + c[4 * s + 2] + c[4 * s + 3]);
            state[2 * s] = y - x;
            state[2 * s + 1] = c[4 * s + 1] * x - c[4 * s + 3] * y;
            x = y;
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

    /**
     * With y = x + p put into p and q, neither waits for y: p' = (b1 − a1) x + q − a1 p and q' = (b2 − a2) x − a2 p, a
     * multiplication and a subtraction from sample to sample instead of three sums in a row.
     */
    private void one(double[] data, int from, int to, int s, double in) {
        double d1 = c[4 * s] - c[4 * s + 2], d2 = c[4 * s + 1] - c[4 * s + 3], a1 = c[4 * s + 2], a2 = c[4 * s + 3];
        double p = state[2 * s], q = state[2 * s + 1];
        for (int i = from; i < to; i++) {
            double x = in * data[i];
            data[i] = x + p;
            double next = (d1 * x + q) - a1 * p;
            q = d2 * x - a2 * p;
            p = next;
        }
        state[2 * s] = p;
        state[2 * s + 1] = q;
    }

    private void two(double[] data, int from, int to, int s, double in) {
        int k = 4 * s;
        double d01 = c[k] - c[k + 2], d02 = c[k + 1] - c[k + 3], a01 = c[k + 2], a02 = c[k + 3];
        double d11 = c[k + 4] - c[k + 6], d12 = c[k + 5] - c[k + 7], a11 = c[k + 6], a12 = c[k + 7];
        int m = 2 * s;
        double p0 = state[m], q0 = state[m + 1], p1 = state[m + 2], q1 = state[m + 3];
        for (int i = from; i < to; i++) {
            double x = in * data[i];
            double y = x + p0;
            double next0 = (d01 * x + q0) - a01 * p0;
            q0 = d02 * x - a02 * p0;
            p0 = next0;
            data[i] = y + p1;
            double next1 = (d11 * y + q1) - a11 * p1;
            q1 = d12 * y - a12 * p1;
            p1 = next1;
        }
        state[m] = p0;
        state[m + 1] = q0;
        state[m + 2] = p1;
        state[m + 3] = q1;
    }

    /** One sample through one section: the sum every loop here works out, written once for the ends of a block. */
    private double step(int s, double x) {
        double y = x + state[2 * s];
        state[2 * s] = (c[4 * s] * x + state[2 * s + 1]) - c[4 * s + 2] * y;
        state[2 * s + 1] = c[4 * s + 1] * x - c[4 * s + 3] * y;
        return y;
    }

    /**
     * Each section works one sample behind the section before it, so that no sum of a round waits for another of the
     * same round. Every sample goes through the same sums as section by section, so the size of a block changes nothing.
     */
    private void four(double[] data, int from, int to, int s, double in) {
        if (to - from < 4) {
            for (int i = from; i < to; i++) {
                data[i] = step(s + 3, step(s + 2, step(s + 1, step(s, in * data[i]))));
            }
            return;
        }
        // u1, u2 and u3 are what the first, second and third section have given and the next has not yet taken.
        double u1 = step(s, in * data[from]);
        double u2 = step(s + 1, u1);
        u1 = step(s, in * data[from + 1]);
        double u3 = step(s + 2, u2);
        u2 = step(s + 1, u1);
        u1 = step(s, in * data[from + 2]);
        int k = 4 * s;
        double b01 = c[k], b02 = c[k + 1], a01 = c[k + 2], a02 = c[k + 3];
        double b11 = c[k + 4], b12 = c[k + 5], a11 = c[k + 6], a12 = c[k + 7];
        double b21 = c[k + 8], b22 = c[k + 9], a21 = c[k + 10], a22 = c[k + 11];
        double b31 = c[k + 12], b32 = c[k + 13], a31 = c[k + 14], a32 = c[k + 15];
        int m = 2 * s;
        double p0 = state[m], q0 = state[m + 1], p1 = state[m + 2], q1 = state[m + 3];
        double p2 = state[m + 4], q2 = state[m + 5], p3 = state[m + 6], q3 = state[m + 7];
        for (int i = from + 3; i < to; i++) {
            double y3 = u3 + p3;
            p3 = (b31 * u3 + q3) - a31 * y3;
            q3 = b32 * u3 - a32 * y3;
            data[i - 3] = y3;
            double y2 = u2 + p2;
            p2 = (b21 * u2 + q2) - a21 * y2;
            q2 = b22 * u2 - a22 * y2;
            u3 = y2;
            double y1 = u1 + p1;
            p1 = (b11 * u1 + q1) - a11 * y1;
            q1 = b12 * u1 - a12 * y1;
            u2 = y1;
            double x = in * data[i];
            double y0 = x + p0;
            p0 = (b01 * x + q0) - a01 * y0;
            q0 = b02 * x - a02 * y0;
            u1 = y0;
        }
        state[m] = p0;
        state[m + 1] = q0;
        state[m + 2] = p1;
        state[m + 3] = q1;
        state[m + 4] = p2;
        state[m + 5] = q2;
        state[m + 6] = p3;
        state[m + 7] = q3;
        data[to - 3] = step(s + 3, u3);
        data[to - 2] = step(s + 3, step(s + 2, u2));
        data[to - 1] = step(s + 3, step(s + 2, step(s + 1, u1)));
    }
}
