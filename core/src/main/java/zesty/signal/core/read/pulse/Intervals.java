package zesty.signal.core.read.pulse;

import java.util.Arrays;

/**
 * The intervals between the beats of a pulse: which of them are those of a normal rhythm, for only these count for its spread.
 * One thread.
 */
final class Intervals {
    private static final double EARLY = 0.82;
    private static final double ALIKE = 0.6;
    /** A moment is displaced by more than this share of the interval … */
    private static final double DISPLACED = 0.06;
    /** … and by more than so many deviations of the intervals around it, of which so many to either side are looked at. */
    private static final double DEVIATIONS = 4;

    private static final int NEAR = 5;

    private final Beats beats;
    private final double usual;
    private final boolean[] early;
    /** Beats whose intervals do not count for the spread: early ones, and those of another shape. */
    private final boolean[] odd;

    Intervals(Beats beats) {
        this.beats = beats;
        double[] all = ms(false, new boolean[beats.count()]);
        Arrays.sort(all);
        usual = all.length == 0 ? Double.NaN : all[all.length / 2] / 1000;
        early = findEarly();
        odd = early.clone();
        for (int i = 0; i < odd.length; i++) {
            odd[i] |= beats.likeness()[i] < ALIKE || displaced(i);
        }
    }

    /** @return the median interval, in s; NaN without one */
    double usualSeconds() {
        return usual;
    }

    /** @return whether a beat came before its time */
    boolean early(int beat) {
        return early[beat];
    }

    /** @return whether the intervals at a beat do not count for the spread */
    boolean odd(int beat) {
        return odd[beat];
    }

    int earlyCount() {
        int n = 0;
        for (boolean one : early) {
            n += one ? 1 : 0;
        }
        return n;
    }

    /** @return all intervals, in ms */
    double[] all() {
        return ms(false, early);
    }

    /** @return those between normal beats, in ms */
    double[] normal() {
        return ms(true, odd);
    }

    /**
     * A single beat that is early by as much as the next interval is long, or the reverse, and far more than the beats
     * around it differ: its moment was moved by what disturbed the signal, or it came before its time. Either way its
     * two intervals say nothing of the normal rhythm.
     */
    private boolean displaced(int i) {
        if (i < 1 || i + 1 >= beats.count() || !beats.followsOn()[i] || !beats.followsOn()[i + 1]) {
            return false;
        }
        double around = around(i);
        double before = beats.seconds()[i] - beats.seconds()[i - 1] - around;
        double after = beats.seconds()[i + 1] - beats.seconds()[i] - around;
        double[] off = new double[2 * NEAR + 1];
        int n = 0;
        for (int k = Math.max(1, i - NEAR); k <= Math.min(beats.count() - 1, i + NEAR); k++) {
            if (beats.followsOn()[k] && k != i && k != i + 1) {
                off[n++] = Math.abs(beats.seconds()[k] - beats.seconds()[k - 1] - around);
            }
        }
        if (n < 3) {
            return false;
        }
        Arrays.sort(off, 0, n);
        double least = Math.max(DISPLACED * around, 1.4826 * DEVIATIONS * off[n / 2]);
        return before * after < 0 && Math.min(Math.abs(before), Math.abs(after)) > least;
    }

    /** A beat is early when it comes well before its time for what the beats around it do, and the next one waits. */
    private boolean[] findEarly() {
        boolean[] found = new boolean[beats.count()];
        for (int i = 1; i < found.length; i++) {
            double around = around(i);
            double before = beats.seconds()[i] - beats.seconds()[i - 1];
            boolean soon = beats.followsOn()[i] && before < EARLY * around && !found[i - 1];
            boolean waits = i + 1 < found.length
                    && beats.followsOn()[i + 1]
                    && beats.seconds()[i + 1] - beats.seconds()[i] > 1.08 * around;
            boolean other = beats.likeness()[i] < ALIKE;
            found[i] = soon && (waits || other);
        }
        return found;
    }

    /** The usual interval around a beat: the median of the nine nearest. */
    private double around(int i) {
        int first = Math.max(1, i - 4);
        int last = Math.min(beats.count() - 1, i + 4);
        double[] near = new double[last - first + 1];
        int n = 0;
        for (int k = first; k <= last; k++) {
            if (beats.followsOn()[k]) {
                near[n++] = beats.seconds()[k] - beats.seconds()[k - 1];
            }
        }
        Arrays.sort(near, 0, n);
        return n == 0 ? Double.NaN : near[n / 2];
    }

    /** @return the intervals in ms, those at an early beat only if asked for */
    private double[] ms(boolean normalOnly, boolean[] soon) {
        double[] found = new double[beats.count()];
        int n = 0;
        for (int i = 1; i < beats.count(); i++) {
            if (beats.followsOn()[i] && !(normalOnly && (soon[i] || soon[i - 1]))) {
                found[n++] = 1000 * (beats.seconds()[i] - beats.seconds()[i - 1]);
            }
        }
        return Arrays.copyOf(found, n);
    }

    /** @return the differences of successive normal intervals, in ms */
    double[] steps() {
        double[] found = new double[beats.count()];
        int n = 0;
        for (int i = 2; i < beats.count(); i++) {
            boolean both = beats.followsOn()[i] && beats.followsOn()[i - 1] && !odd[i] && !odd[i - 1] && !odd[i - 2];
            if (both) {
                double[] t = beats.seconds();
                found[n++] = 1000 * ((t[i] - t[i - 1]) - (t[i - 1] - t[i - 2]));
            }
        }
        return Arrays.copyOf(found, n);
    }

    /** Times and lengths of the intervals between normal beats, in s and ms. */
    double[][] normalRun() {
        double[] t = new double[beats.count()];
        double[] ms = new double[beats.count()];
        int n = 0;
        for (int i = 1; i < beats.count(); i++) {
            if (beats.followsOn()[i] && !odd[i] && !odd[i - 1]) {
                t[n] = beats.seconds()[i];
                ms[n++] = 1000 * (beats.seconds()[i] - beats.seconds()[i - 1]);
            }
        }
        return new double[][] {Arrays.copyOf(t, n), Arrays.copyOf(ms, n)};
    }

    /** @return when each interval ended, in s */
    double[] rateTimes() {
        double[] t = new double[beats.count()];
        int n = 0;
        for (int i = 1; i < beats.count(); i++) {
            if (beats.followsOn()[i]) {
                t[n++] = beats.seconds()[i];
            }
        }
        return Arrays.copyOf(t, n);
    }

    /** @return each interval as beats a minute */
    double[] rates() {
        return Arrays.stream(all()).map(ms -> 60000 / ms).toArray();
    }
}
