package zesty.signal.core.read.pulse;

import java.util.Arrays;

/**
 * Beats found so far, in order, with what was turned away. A stretch is a run of beats between two losses. Grows by a few
 * dozen bytes a beat.
 */
final class BeatLog {
    private double[] up = new double[256];
    private double[] down = new double[256];
    private float[] upright = new float[256];
    private float[] likeness = new float[256];
    private double[] height = new double[256];
    private boolean[] followsOn = new boolean[256];
    private float[] bumpHeight = new float[256];
    private float[] bumpAfter = new float[256];
    private int[] stretch = new int[256];
    /** By stretch: the sum of what its beats say about which way they point. */
    private double[] evidence = new double[16];
    /** By stretch: how many beats it has. */
    private int[] beats = new int[16];

    private int count;
    private int stretches;
    private double[] rejected = new double[64];
    private int rejectedCount;

    /** A new stretch begins: beats that follow have nothing to do with those before. */
    void newStretch() {
        stretches++;
        if (stretches == evidence.length) {
            evidence = Arrays.copyOf(evidence, stretches * 2);
            beats = Arrays.copyOf(beats, stretches * 2);
        }
        evidence[stretches] = 0;
        beats[stretches] = 0;
    }

    /**
     * @param follows whether the time since the beat before is one undisturbed interval
     * @param bump the highest one since the beat before
     */
    void add(Candidate beat, double alike, boolean follows, Between.Bump bump) {
        if (count == up.length) {
            int more = count * 2;
            up = Arrays.copyOf(up, more);
            down = Arrays.copyOf(down, more);
            upright = Arrays.copyOf(upright, more);
            likeness = Arrays.copyOf(likeness, more);
            height = Arrays.copyOf(height, more);
            followsOn = Arrays.copyOf(followsOn, more);
            bumpHeight = Arrays.copyOf(bumpHeight, more);
            bumpAfter = Arrays.copyOf(bumpAfter, more);
            stretch = Arrays.copyOf(stretch, more);
        }
        up[count] = beat.upSeconds();
        down[count] = beat.downSeconds();
        upright[count] = (float) beat.upright();
        likeness[count] = (float) alike;
        height[count] = beat.height();
        bumpHeight[count] = (float) bump.height();
        bumpAfter[count] = (float) bump.afterSeconds();
        stretch[count] = stretches;
        evidence[stretches] += upright[count];
        beats[stretches]++;
        followsOn[count] = follows && count > 0 && stretch[count - 1] == stretches;
        count++;
    }

    /** Takes the newest beats back: they are turned away after all. */
    void withdraw(int newest) {
        int gone = Math.min(newest, count);
        count -= gone;
        for (int i = count; i < count + gone; i++) {
            evidence[stretch[i]] -= upright[i];
            beats[stretch[i]]--;
            reject(up[i]);
        }
    }

    void reject(double seconds) {
        if (rejectedCount == rejected.length) {
            rejected = Arrays.copyOf(rejected, rejectedCount * 2);
        }
        int at = rejectedCount++;
        while (at > 0 && rejected[at - 1] > seconds) {
            rejected[at] = rejected[at - 1];
            at--;
        }
        rejected[at] = seconds;
    }

    int count() {
        return count;
    }

    double up(int i) {
        return up[i];
    }

    double down(int i) {
        return down[i];
    }

    /** @return above 0 where the beats of the whole stretch point up */
    double evidence(int ofStretch) {
        return evidence[ofStretch];
    }

    /** @return the same for one beat of it, on average */
    double clear(int ofStretch) {
        return evidence[ofStretch] / beats[ofStretch];
    }

    double likeness(int i) {
        return likeness[i];
    }

    double height(int i) {
        return height[i];
    }

    Between.Bump bump(int i) {
        return new Between.Bump(bumpHeight[i], bumpAfter[i]);
    }

    boolean followsOn(int i) {
        return followsOn[i];
    }

    int stretch(int i) {
        return stretch[i];
    }

    /** @return index of the first beat at or after the time */
    int firstFrom(double seconds) {
        int i = Arrays.binarySearch(up, 0, count, seconds);
        return i < 0 ? -i - 1 : i;
    }

    double[] rejected(double from, double to) {
        int first = lowerBound(from);
        int last = lowerBound(to);
        return Arrays.copyOfRange(rejected, first, Math.max(first, last));
    }

    private int lowerBound(double seconds) {
        int i = Arrays.binarySearch(rejected, 0, rejectedCount, seconds);
        return i < 0 ? -i - 1 : i;
    }
}
