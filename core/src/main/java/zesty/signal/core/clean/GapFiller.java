package zesty.signal.core.clean;

import java.util.Arrays;

/**
 * A step that puts something better in the place of a run of bad samples once it has ended. On a stream all comes so much later as
 * the longest run that is mended; what is longer stays as it is.
 */
abstract class GapFiller implements Stage {
    private final double[] held;
    private int slot;
    private long count;

    /** @param longest run that is mended, in samples; {@code more} that are looked at on either side */
    GapFiller(int longest, int more) {
        held = new double[longest + more];
        Arrays.fill(held, Double.NaN);
    }

    /** A sample came; what is held may be changed by {@link #put}. */
    abstract void came(double value);

    /** Forgets the run under way. */
    abstract void forget();

    /** @return a sample that came so many before the newest */
    final double back(int samples) {
        return held[place(samples)];
    }

    /** Puts a value in the place of the sample that came so many before the newest. */
    final void put(int samples, double value) {
        held[place(samples)] = value;
    }

    private int place(int samples) {
        int place = slot - 1 - samples;
        return place < 0 ? place + held.length : place;
    }

    /** @return how many have come */
    final long count() {
        return count;
    }

    @Override
    public final int delaySamples() {
        return held.length;
    }

    @Override
    public final void reset() {
        Arrays.fill(held, Double.NaN);
        slot = 0;
        count = 0;
        forget();
    }

    @Override
    public final void apply(double[] data, int offset, int length) {
        for (int i = offset; i < offset + length; i++) {
            double oldest = held[slot];
            held[slot] = data[i];
            slot = slot + 1 == held.length ? 0 : slot + 1;
            count++;
            came(data[i]);
            data[i] = oldest;
        }
    }

    /** Over a whole record, in place: what came late is put where it belongs. */
    final void whole(double[] data) {
        reset();
        double[] late = Arrays.copyOf(data, data.length + held.length);
        apply(late, 0, data.length);
        // What is still held is the end of the record; nothing comes after it that could mend it.
        for (int i = 0; i < held.length; i++) {
            late[data.length + i] = held[(slot + i) % held.length];
        }
        System.arraycopy(late, held.length, data, 0, data.length);
    }
}
