package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.List;

/**
 * Whether rows without a clock have come at another pace for a while, as of a board that was told to: a line through all arrivals takes
 * minutes to say so. Late rows and the burst after them cancel; three stretches alike do not. One thread.
 */
final class ArrivalPace {
    private static final int STRETCHES = 3;
    /** A stretch lasts so long, and has so many rows, at least. */
    private static final double STRETCH_SECONDS = 4;

    private static final double STRETCH_ROWS = 20;
    /** Each of them is off by so much, and from the one before by less than that. */
    private static final double OTHER = 0.12;

    private static final double ALIKE = 0.08;
    /** Arrivals are kept so far from each other, in s. */
    private static final double APART_SECONDS = 0.02;

    private record Arrival(double rows, double seconds) {}

    private final List<Arrival> kept = new ArrayList<>();
    private double beginRows = Double.NaN;
    private double beginArrival;
    private double beginSeconds;
    private double since;
    private double sinceSeconds;
    private double hz = Double.NaN;
    private int alike;

    void forget() {
        kept.clear();
        beginRows = Double.NaN;
        alike = 0;
        hz = Double.NaN;
    }

    /**
     * @param rowsSoFar that had come when these arrived
     * @param dated when the last of them was taken, by the period
     * @param period seconds from row to row as it is known
     * @return whether it is another one by now
     */
    boolean saw(double rowsSoFar, double arrivalSeconds, double dated, double period) {
        if (Double.isNaN(beginRows)) {
            begin(rowsSoFar, arrivalSeconds, dated);
        }
        if (kept.isEmpty() || arrivalSeconds - kept.get(kept.size() - 1).seconds() >= APART_SECONDS) {
            kept.add(new Arrival(rowsSoFar, arrivalSeconds));
        }
        double rows = rowsSoFar - beginRows;
        double lasted = arrivalSeconds - beginArrival;
        if (rows < STRETCH_ROWS || lasted < STRETCH_SECONDS) {
            return false;
        }
        double now = rows / lasted;
        boolean other = Math.abs(now * period - 1) > OTHER;
        boolean goesOn = other && alike > 0 && Math.abs(now / hz - 1) < ALIKE;
        if (!goesOn || alike == 1) {
            // The first of them may have begun at the old pace.
            kept.removeIf(one -> one.rows() < beginRows);
        }
        if (alike == 0) {
            since = beginArrival;
            sinceSeconds = beginSeconds;
        }
        if (!other) {
            kept.clear();
        }
        alike = goesOn ? alike + 1 : other ? 1 : 0;
        hz = now;
        begin(rowsSoFar, arrivalSeconds, dated);
        return alike == STRETCHES;
    }

    private void begin(double rowsSoFar, double arrivalSeconds, double dated) {
        beginRows = rowsSoFar;
        beginArrival = arrivalSeconds;
        beginSeconds = dated;
    }

    /** @return what arrival has told since the pace is another */
    ArrivalClockFit line() {
        ArrivalClockFit line = new ArrivalClockFit();
        kept.forEach(one -> line.saw(one.rows(), one.seconds()));
        return line;
    }

    /** @return when a row was taken that arrives then, as times went on from where the pace was the old one yet */
    double takenAt(double arrivalSeconds) {
        return sinceSeconds + arrivalSeconds - since;
    }
}
