package zesty.signal.engine;

import java.util.Arrays;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.sample.TimeRing;

/**
 * How many rows of a stream come a second: what its channels are made for, what is measured by now, and whether the board goes on at
 * another pace. Trail's thread only.
 */
final class StreamPace {
    /** Channels of a board that tells no time begin anew where its rate is off by so much. */
    private static final double OTHER_RATE_SHARE = 0.02;
    /** By so much the mean of thousands of steps differs only where the board goes on at another pace. */
    private static final double OTHER_PACE_SHARE = 0.05;
    /** Half of the steps of rows that come at a pace lie within this share of the middle one. */
    private static final double UNEVEN_SHARE = 0.3;
    /** From so many rows on a clock's rate is looked at again, each time there are twice as many … */
    private static final int RATE_LOOK_ROWS = 64;
    /** … until so many tell it to a thousandth. */
    private static final int RATE_KNOWN_ROWS = 2048;
    /** What arrival tells is looked at first after so long, and again each time that has doubled … */
    private static final double ARRIVAL_LOOK_SECONDS = 4;
    /** … taken without more ado from here on: by then a busy machine tells a rate to a thousandth … */
    private static final double ARRIVAL_KNOWN_SECONDS = 16;
    /**
     * … and before only where the rate is off by more than so many of its uncertainties: of a fast stream with stalls it was 2.4 of them
     * off at most. A fifth more or less changes nothing there.
     */
    private static final double SURE = 4;
    /** Twice the standard uncertainty holds in nineteen of twenty. */
    private static final double EXPANDED = 2;
    /** … up to here. */
    private static final double RATE_KNOWN_SECONDS = 120;
    /** A station's pace is looked at every so many rows; it is another where that of the newest, and of those before them, differs by so much. */
    private static final int PACE_LOOK_ROWS = 64;

    private static final double STATION_PACE_SHARE = 0.25;
    /**
     * Of a rate that is off by more the frequencies that are read would be, too: lines are told to a tenth of a hertz. With a fifth more
     * or less a stream is worked out again as often, 1.5 times in two minutes of arrival on a busy machine.
     */
    private static final double FINER_RATE_SHARE = 0.001;

    private TimeRing times;
    private double hz = Double.NaN;
    private double measuredHz = Double.NaN;
    private double uncertainty;
    private long rows;
    private long nextRateLook = RATE_LOOK_ROWS;
    private double nextArrivalLook = ARRIVAL_LOOK_SECONDS;
    private long nextPaceLook = 2 * PACE_LOOK_ROWS;

    /** @param rowTimes of the rows, appended by who holds them */
    void begin(double rateHz, TimeRing rowTimes) {
        hz = rateHz;
        measuredHz = rateHz;
        times = rowTimes;
    }

    boolean known() {
        return !Double.isNaN(hz);
    }

    /** @return rows a second that the channels are made for; NaN before it is known */
    double hz() {
        return hz;
    }

    /** @return rows a second as measured by now */
    double measuredHz() {
        return measuredHz;
    }

    /**
     * The rate as it is measured by now; NaN where it is not.
     *
     * @param share its uncertainty, as a share of it; 0 where a clock tells
     */
    void measured(double now, double share) {
        measuredHz = Double.isNaN(now) ? measuredHz : now;
        uncertainty = share;
    }

    /** @return by how much of it the rate that channels are made for may be off by now */
    double offBy() {
        return Math.abs(measuredHz / hz - 1) + EXPANDED * uncertainty;
    }

    void came(int more) {
        rows += more;
    }

    /** @return how many rows have come */
    long rows() {
        return rows;
    }

    /** @return whether it runs at another rate than it began with, so that its filters are the wrong ones */
    boolean rateIsOther(double now) {
        return Math.abs(now / hz - 1) > OTHER_RATE_SHARE;
    }

    /** @return whether a board that tells its time goes on at another rate than it had for long */
    boolean paceIsOther(double now) {
        return rows >= RATE_KNOWN_ROWS && Math.abs(now / hz - 1) > OTHER_PACE_SHARE && comesEvenly();
    }

    /** Whether the newest rows come at a pace at all, not as something happens. */
    private boolean comesEvenly() {
        double[] steps = new double[PACE_LOOK_ROWS];
        for (int i = 0; i < steps.length; i++) {
            long row = times.end() - 1 - i;
            steps[i] = times.secondsAt(row) - times.secondsAt(row - 1);
        }
        Arrays.sort(steps);
        return steps[steps.length * 3 / 4] - steps[steps.length / 4] < UNEVEN_SHARE * steps[steps.length / 2];
    }

    /** The first rows tell the rate of a clock roughly. @return whether it turned out to be another, and is that from here on */
    boolean refined() {
        if (rows < nextRateLook || Double.isNaN(measuredHz)) {
            return false;
        }
        nextRateLook = rows >= RATE_KNOWN_ROWS ? Long.MAX_VALUE : 2 * rows;
        return taken();
    }

    private boolean taken() {
        boolean other = Math.abs(measuredHz / hz - 1) > FINER_RATE_SHARE;
        hz = other ? measuredHz : hz;
        return other;
    }

    /** As {@link #refined}, of a board that tells no time: there it is not rows but seconds that make the rate known. */
    boolean refinedByArrival() {
        if (rows < nextArrivalLook * hz) {
            return false;
        }
        boolean known = nextArrivalLook >= ARRIVAL_KNOWN_SECONDS || Math.abs(measuredHz / hz - 1) > SURE * uncertainty;
        nextArrivalLook = nextArrivalLook >= RATE_KNOWN_SECONDS ? Double.POSITIVE_INFINITY : 2 * nextArrivalLook;
        return known && taken();
    }

    /** As {@link #refined}, of a station, whose own times tell. */
    boolean refinedByTimes() {
        if (rows >= nextRateLook) {
            measured(byTimes(times.end(), RATE_KNOWN_ROWS), 0);
        }
        return refined();
    }

    /** @return rows a second of a station whose newest rows come at another pace than it was taken to have; NaN where they do not */
    double otherByTimesHz() {
        if (!known() || rows < nextPaceLook) {
            return Double.NaN;
        }
        nextPaceLook = rows + PACE_LOOK_ROWS;
        double now = byTimes(times.end(), PACE_LOOK_ROWS);
        double before = byTimes(times.end() - PACE_LOOK_ROWS, PACE_LOOK_ROWS);
        return isOther(now) && isOther(before) ? now : Double.NaN;
    }

    private boolean isOther(double now) {
        return Math.abs(now / hz - 1) > STATION_PACE_SHARE;
    }

    /** @return rows a second of so many rows up to there, by their own times */
    private double byTimes(long end, int most) {
        int n = (int) Math.min(most, end - times.start());
        double[] seconds = new double[n];
        for (int i = 0; i < n; i++) {
            seconds[i] = times.secondsAt(end - n + i);
        }
        return SampleRate.of(seconds);
    }

    /** @return rows a second as the first few of them tell, two at least */
    static double ofFirst(Block block) {
        double[] steps = new double[block.rows() - 1];
        for (int i = 0; i < steps.length; i++) {
            steps[i] = block.time().secondsAt(i + 1) - block.time().secondsAt(i);
        }
        Arrays.sort(steps);
        return 1 / Math.max(1e-6, steps[steps.length / 2]);
    }
}
