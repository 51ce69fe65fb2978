package zesty.signal.core.decode;

import java.util.Arrays;

/**
 * Steps of a clock that ticks about once a row: nearly all are of one tick, and one of two is a row that was lost, or only where two
 * ticks fell between rows a little slower than them. The latter come at even distances, the former at any. One thread.
 */
final class TickSteps {
    /** Longer steps are all the same here. */
    static final int MOST = 3;
    /** So many rows without a step of two: they are as fast as the ticks, and the next one is a row that was lost. */
    private static final int AS_FAST = 2000;
    /** Of so many distances between steps of two … */
    private static final int DISTANCES = 8;
    /** … so many tell, at least … */
    private static final int FEWEST = 4;
    /** … and are even where half of the others lie within this share of the median, or one row of it. */
    private static final double EVEN = 0.15;
    /** Where one step in so many has no tick, rows share stamps, and two ticks tell nothing. */
    private static final double SHARED = 50;
    /** Where one step in so many is of two ticks, and there were some, all their distances tell, not the newest only. */
    private static final double OFTEN = 10;

    private static final double SOME = 10;
    /** Rows whose {@link Spacing#scatter} is above this are lost by chance: 0.5 and more of up to half of all, 0.2 of a rate with every twentieth lost. */
    private static final double SCATTERED = 0.45;
    /** By chance two in a row are lost as often as the square tells, which leaves steps of three; ticks between rows leave none. */
    private static final double BY_CHANCE = 0.7;

    /** What is older than so many steps counts half, and half again. */
    private static final int MANY = 4096;

    private final int[] distances = new int[DISTANCES];
    private int found;
    private int sinceTwo;
    private boolean sinceOneOfTwo;
    private double steps;
    private double none;
    private double ones;
    private double twos;
    private double threes;
    private final Spacing spacing = new Spacing();
    private int before = 1;
    private long taken;
    /** How many of two ticks at even distances were taken for steps. */
    private long atEven;
    /** Whether those at even distances are of rows that were lost. */
    private boolean regular;

    /** @param ticks of a step. @return whether it is one of two ticks, and of a row that was lost */
    boolean saw(int ticks) {
        int last = before;
        before = ticks;
        steps++;
        if (steps > MANY) {
            steps /= 2;
            none /= 2;
            ones /= 2;
            twos /= 2;
            threes /= 2;
            spacing.halve();
        }
        if (ticks >= MOST) {
            // Of a gap nobody knows how far the next tick would have been.
            sinceOneOfTwo = false;
            sinceTwo = 0;
            threes++;
            return false;
        }
        sinceTwo++;
        none += ticks == 0 ? 1 : 0;
        ones += ticks == 1 ? 1 : 0;
        // One behind none makes up for it: that row was early.
        return ticks == 2 && last != 0 && lost();
    }

    private boolean lost() {
        twos++;
        int distance = sinceTwo;
        sinceTwo = 0;
        if (sinceOneOfTwo) {
            distances[found++ % DISTANCES] = distance;
            spacing.saw(distance);
        }
        sinceOneOfTwo = true;
        if (none * SHARED > steps || !regular && (often() ? !byChance() : even())) {
            atEven += 1 + taken;
            taken = 0;
            return false;
        }
        if (found < FEWEST && distance < AS_FAST) {
            taken++;
            return false;
        }
        return true;
    }

    private boolean often() {
        return twos > SOME && twos * OFTEN > steps;
    }

    private boolean byChance() {
        return spacing.scatter() > SCATTERED || threes * ones > BY_CHANCE * twos * twos;
    }

    private boolean even() {
        if (found < FEWEST) {
            return false;
        }
        int[] sorted = Arrays.copyOf(distances, Math.min(found, DISTANCES));
        Arrays.sort(sorted);
        double median = sorted[sorted.length / 2];
        long near = Arrays.stream(sorted)
                .filter(one -> Math.abs(one - median) <= Math.max(1, EVEN * median))
                .count();
        return 2 * (near - 1) >= sorted.length - 1;
    }

    /** The samples tell that two ticks at even distances are of rows that were lost, too: so were those until now. */
    void regularAreLost() {
        regular = true;
        taken += atEven;
        atEven = 0;
    }

    /** @return how many of two ticks were taken for steps before they could be told from lost rows; none from here on */
    long takenForSteps() {
        long all = taken;
        taken = 0;
        return all;
    }
}
