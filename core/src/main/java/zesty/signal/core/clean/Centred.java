package zesty.signal.core.clean;

/**
 * A step that looks {@code half} samples either way. On a stream its answer comes {@code half} samples late; at the
 * ends of a record the window is as much as there is. A missing value within the window is not looked at.
 */
abstract class Centred implements Stage {
    final int half;
    private final int span;
    private final double[] ring;

    private int slot;
    private long count;

    Centred(int half) {
        this.half = half;
        span = 2 * half + 1;
        ring = new double[span];
    }

    /** A value that is not missing comes into the window and another one goes; NaN where there is none. */
    abstract void moved(double gone, double came);

    /**
     * @param asked the sample that is asked for, which is not missing
     * @return what it becomes, from what has {@link #moved} into the window
     */
    abstract double answer(double asked);

    @Override
    public void reset() {
        count = 0;
        slot = 0;
    }

    @Override
    public int delaySamples() {
        return half;
    }

    @Override
    public void apply(double[] data, int offset, int length) {
        for (int i = offset; i < offset + length; i++) {
            double came = data[i];
            double gone = count >= span ? ring[slot] : Double.NaN;
            ring[slot] = came;
            slot = slot + 1 == span ? 0 : slot + 1;
            count++;
            moved(gone, came);
            if (count <= half) {
                data[i] = Double.NaN;
            } else {
                // The middle of a whole window lies half a window after its oldest sample, which is the next to go.
                int middle = slot + half;
                double asked = ring[middle >= span ? middle - span : middle];
                data[i] = asked == asked ? answer(asked) : asked;
            }
        }
    }

    /** Runs over a whole record, in place, and answers for its last samples too. */
    void whole(double[] data) {
        reset();
        double[] raw = data.clone();
        double[] late = data.clone();
        apply(late, 0, late.length);
        int shift = Math.min(half, data.length);
        System.arraycopy(late, shift, data, 0, data.length - shift);
        int first = Math.max(0, raw.length - span);
        for (int centre = raw.length - shift; centre < raw.length; centre++) {
            while (first < centre - half) {
                moved(raw[first++], Double.NaN);
            }
            data[centre] = raw[centre] == raw[centre] ? answer(raw[centre]) : raw[centre];
        }
    }
}
