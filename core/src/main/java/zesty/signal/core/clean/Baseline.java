package zesty.signal.core.clean;

/**
 * Takes a wandering baseline off and leaves the shape of a beat: what two medians, one after the other, find below it (P. de Chazal,
 * M. O'Dwyer and R. B. Reilly 2004, "Automatic classification of heartbeats using ECG morphology and heartbeat interval
 * features"). A beat is too short for the second one, so that nothing of it is taken; a filter would bend it.
 */
final class Baseline implements Stage {
    private final MovingMedian first;
    private final MovingMedian second;
    private final double[] late;
    private double[] level = new double[0];
    private int at;

    /** @param samples of the longer window, odd; the shorter one is a third of it */
    Baseline(int samples) {
        first = new MovingMedian(shorter(samples));
        second = new MovingMedian(samples);
        late = new double[Math.max(1, delaySamples())];
        reset();
    }

    private static int shorter(int samples) {
        return samples / 3 / 2 * 2 + 1;
    }

    @Override
    public void reset() {
        first.reset();
        second.reset();
        java.util.Arrays.fill(late, Double.NaN);
        at = 0;
    }

    @Override
    public int delaySamples() {
        return first.delaySamples() + second.delaySamples();
    }

    @Override
    public void apply(double[] data, int offset, int length) {
        if (level.length < length) {
            level = new double[length];
        }
        System.arraycopy(data, offset, level, 0, length);
        first.apply(level, 0, length);
        second.apply(level, 0, length);
        int delay = delaySamples();
        for (int i = 0; i < length; i++) {
            double asked = data[offset + i];
            if (delay > 0) {
                asked = late[at];
                late[at] = data[offset + i];
                at = at + 1 == delay ? 0 : at + 1;
            }
            data[offset + i] = asked - level[i];
        }
    }

    /** Over a whole record, in place, its ends with as much of the windows as there is. */
    static void remove(double[] data, int samples) {
        double[] level = data.clone();
        new MovingMedian(shorter(samples)).whole(level);
        new MovingMedian(samples).whole(level);
        for (int i = 0; i < data.length; i++) {
            data[i] -= level[i];
        }
    }
}
