package zesty.signal.core.read.step;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.sample.Order;

/** Where an input steps: wherever it crosses the middle of its range, however it gets there, and from level to level of a staircase. */
final class InputSteps {
    /** A step of a staircase is so large at least, as a share of the whole range. */
    private static final double STAIR = 0.1;
    /** Across the middle is from so far below it to as far above, as a share of the range: noise about a level there crosses nothing. */
    private static final double ASIDE = 0.15;
    /** It holds its level for so many rows on either side. */
    private static final int HELD_ROWS = 4;
    /** A level is held that stays within this share of the step. */
    private static final double LEVEL = 0.25;

    private InputSteps() {}

    /**
     * @param drive the input; NaN where nothing is known
     * @param from first row looked at
     * @param to behind the last
     * @param low least and {@code high} greatest value of the whole record
     * @return the rows at which another level has begun, rising
     */
    static List<Integer> of(double[] drive, int from, int to, double low, double high) {
        double middle = (low + high) / 2;
        double aside = ASIDE * (high - low);
        List<Integer> steps = new ArrayList<>();
        int side = 0;
        int crossing = -1;
        for (int i = from; i < to; i++) {
            if (i > from && drive[i - 1] >= middle != drive[i] >= middle) {
                crossing = i;
            }
            if (i > from && stair(drive, from, i, to, STAIR * (high - low))) {
                steps.add(i);
                crossing = -1;
            }
            int now = drive[i] > middle + aside ? 1 : drive[i] < middle - aside ? -1 : side;
            if (now != side && side != 0 && crossing >= 0) {
                steps.add(crossing);
            }
            crossing = now != side ? -1 : crossing;
            side = now;
        }
        return steps;
    }

    private static boolean stair(double[] drive, int from, int at, int to, double least) {
        double size = Math.abs(drive[at] - drive[at - 1]);
        if (!(size >= least) || at - from < HELD_ROWS || to - at < HELD_ROWS) {
            return false;
        }
        double before = Order.median(Arrays.copyOfRange(drive, at - HELD_ROWS, at));
        double after = Order.median(Arrays.copyOfRange(drive, at, at + HELD_ROWS));
        for (int i = 1; i <= HELD_ROWS; i++) {
            boolean held = Math.abs(drive[at - i] - before) <= LEVEL * size
                    && Math.abs(drive[at + i - 1] - after) <= LEVEL * size;
            if (!held) {
                return false;
            }
        }
        return Math.abs(after - before) >= least;
    }
}
