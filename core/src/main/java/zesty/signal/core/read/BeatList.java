package zesty.signal.core.read;

import java.util.Arrays;

/** Beats found so far, in order, with what was turned away. Grows by a few dozen bytes a beat. */
final class BeatList {
    private double[] seconds = new double[256];
    private double[] likeness = new double[256];
    private boolean[] followsOn = new boolean[256];
    private int count;
    private double[] rejected = new double[64];
    private int rejectedCount;

    /** @param followsOn whether the stretch since the beat before is one undisturbed interval */
    void add(double time, double alike, boolean followsOn) {
        if (count == seconds.length) {
            seconds = Arrays.copyOf(seconds, count * 2);
            likeness = Arrays.copyOf(likeness, count * 2);
            this.followsOn = Arrays.copyOf(this.followsOn, count * 2);
        }
        seconds[count] = time;
        likeness[count] = alike;
        this.followsOn[count++] = followsOn && count > 1;
    }

    void reject(double time) {
        if (rejectedCount == rejected.length) {
            rejected = Arrays.copyOf(rejected, rejectedCount * 2);
        }
        rejected[rejectedCount++] = time;
    }

    int count() {
        return count;
    }

    double secondsAt(int i) {
        return seconds[i];
    }

    double likenessAt(int i) {
        return likeness[i];
    }

    boolean followsOn(int i) {
        return followsOn[i];
    }

    /** @return index of the first beat at or after the time */
    int firstFrom(double time) {
        int i = Arrays.binarySearch(seconds, 0, count, time);
        return i < 0 ? -i - 1 : i;
    }

    double[] beatsFrom(double time) {
        return Arrays.copyOfRange(seconds, firstFrom(time), count);
    }

    double[] rejectedFrom(double time) {
        return Arrays.stream(rejected, 0, rejectedCount).filter(t -> t >= time).toArray();
    }
}
