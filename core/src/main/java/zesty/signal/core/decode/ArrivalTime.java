package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.TimeBase;

/** Gives rows without a clock their time: arrival fitted to a steady rate, or the rate that the maker states. One thread. */
final class ArrivalTime {
    /** Without a clock, rows that turn out to be dated further off than this are told to be of unknown time, in s. */
    private static final double UNKNOWN_SECONDS = 1;
    /** Without a clock, a silence longer than this is a gap rather than a late delivery, in seconds. */
    private static final double SILENCE_SECONDS = 0.75;

    /** Above this uncertainty, as a share of it, a rate does not tell how many rows were due in a silence. */
    private static final double WELL_KNOWN = 0.1;

    /** A period so far from the one before is another pace, where that one was known for so long. */
    private static final double OTHER_PACE = 0.1;

    private static final double KNOWN_SECONDS = 10;

    /** A number that went on so much faster than time is that of another run. */
    private static final double MOST_FAST = 10;

    private final double statedRateHz;
    private final SequenceLosses sequence;
    private final Losses losses;
    private boolean relinked;
    private double lastSeconds = Double.NaN;
    private double lastArrival = Double.NaN;
    private double periodSeconds;
    /** Rows so far, those said to be missing among them, and the arrival of the first of them. */
    private double rowCount;

    private ArrivalClockFit line = new ArrivalClockFit();
    private final ArrivalPace pace = new ArrivalPace();
    private boolean severalPaces;
    private double runRows;
    private double runSeconds;
    private double runDue = Double.NaN;
    private double bestSpan;
    private double bestPeriod = Double.NaN;
    private double bestUncertainty = 1;

    /** @param periodSeconds to begin with */
    ArrivalTime(double statedRateHz, double periodSeconds, SequenceLosses sequence, Losses losses) {
        this.statedRateHz = statedRateHz;
        this.periodSeconds = periodSeconds;
        this.sequence = sequence;
        this.losses = losses;
    }

    void goOn(ArrivalClockFit seen) {
        line = seen;
    }

    void relink() {
        relinked = true;
    }

    double rateHz() {
        return 1 / (Double.isNaN(bestPeriod) ? periodSeconds : bestPeriod);
    }

    /** @return the standard uncertainty of the rate as a share of it; 0 where the maker tells it */
    double rateUncertainty() {
        return Double.isNaN(statedRateHz) ? bestUncertainty : 0;
    }

    /** @return seconds from row to row as arrival has told by now; NaN where the maker tells, and where no one period is that of all rows */
    double periodSeconds() {
        return Double.isNaN(statedRateHz) && !severalPaces ? bestPeriod : Double.NaN;
    }

    double lastSeconds() {
        return lastSeconds;
    }

    /** @param rows those that have just come; put in order by their numbers, where they carry any */
    void sort(Rows rows) {
        if (!relinked && !sequence.none()) {
            losses.late(RowOrder.sort(rows, sequence.sequence().column(), SequenceLosses.LATE_NUMBERS));
        }
    }

    Block date(Rows rows, double arrivalSeconds, double silenceSeconds) {
        int count = rows.count();
        List<Gap> gaps = new ArrayList<>(0);
        double numberBefore = sequence.lastNumber();
        long[] missing = sequence.missing(rows, relinked);
        boolean first = Double.isNaN(lastSeconds);
        if (first) {
            lastSeconds = -periodSeconds;
        }
        if (missing != null && !relinked) {
            learn(count + sum(missing), arrivalSeconds, gaps);
            return withLosses(rows, missing, arrivalSeconds, gaps);
        }
        if (!first && (relinked || sequence.none() && silent(silenceSeconds))) {
            bridge(rows, numberBefore, arrivalSeconds, gaps);
        } else {
            relinked = false;
            learn(count, arrivalSeconds, gaps);
        }
        lastArrival = arrivalSeconds;
        double start = lastSeconds + periodSeconds;
        lastSeconds += count * periodSeconds;
        return new Block(new TimeBase.Steady(start, periodSeconds), rows.columns(), count, gaps, rows.frames());
    }

    private static long sum(long[] missing) {
        return missing == null ? 0 : Arrays.stream(missing).sum();
    }

    /** The sequence says how many rows are missing where: each takes its period on the time line. */
    private Block withLosses(Rows rows, long[] missing, double arrivalSeconds, List<Gap> gaps) {
        lastArrival = arrivalSeconds;
        double[] seconds = new double[rows.count()];
        for (int row = 0; row < seconds.length; row++) {
            double before = lastSeconds;
            lastSeconds += (missing[row] + 1) * periodSeconds;
            seconds[row] = lastSeconds;
            if (missing[row] > 0) {
                losses.gap(before, lastSeconds, missing[row], gaps);
            }
        }
        return new Block(new TimeBase.Explicit(seconds), rows.columns(), rows.count(), gaps, rows.frames());
    }

    private boolean silent(double silenceSeconds) {
        return Double.isNaN(statedRateHz) && silenceSeconds > Math.max(SILENCE_SECONDS, 4 * periodSeconds);
    }

    /**
     * Whether the rate tells how many rows were due in a silence on a link that stayed open. A rate guessed from the first
     * burst would invent losses: where a busy computer reads late, all rows may still have come.
     */
    private boolean tellsHowMany(double silence) {
        return bestUncertainty <= WELL_KNOWN && bestSpan >= silence
                || line.uncertainty() <= WELL_KNOWN && line.spanSeconds() >= silence;
    }

    private void bridge(Rows rows, double numberBefore, double arrivalSeconds, List<Gap> gaps) {
        int count = rows.count();
        double before = lastSeconds;
        double silence = Math.max(periodSeconds, arrivalSeconds - lastArrival - (count - 1) * periodSeconds);
        boolean known = relinked || tellsHowMany(silence);
        relinked = false;
        long missing = known ? Math.max(0, Math.round(silence / periodSeconds) - 1) : 0;
        BoardSequence numbers = sequence.sequence();
        if (numbers != null && numbers.wrap() > 0 && !rows.restartsAt(0)) {
            // Time tells about how many, the sequence exactly how many but for whole turns of it.
            double turn = numbers.wrap() * numbers.rowsEach();
            double exact = (rows.columns()[numbers.column()][0] - numberBefore - 1) * numbers.rowsEach();
            double whole = exact + Math.rint((missing - exact) / turn) * turn;
            missing = whole >= 0 ? Math.round(whole) : missing;
            silence = (missing + 1) * periodSeconds;
        } else if (sequence.acrossLink() >= 0
                && sequence.acrossLink() * periodSeconds <= UNKNOWN_SECONDS + MOST_FAST * silence) {
            // The rate may be known badly yet, and the number exactly: time only tells whether it can be of the same
            // run.
            missing = sequence.acrossLink();
            silence = (missing + 1) * periodSeconds;
        }
        losses.gap(before, before + silence, missing, gaps);
        lastSeconds = before + silence - periodSeconds;
        // What comes from here on is another run: its line begins anew, at the period known by now.
        line = new ArrivalClockFit();
        rowCount = count;
        pace.forget();
        line.saw(rowCount, arrivalSeconds);
        runRows = 0;
        runSeconds = lastSeconds + count * periodSeconds;
    }

    /**
     * Learns from the arrival of so many more rows. What the time line is off is worked off over two seconds at 2 % at
     * most; where rows came so squeezed that it is off by more than a second, the rest is a stretch of unknown time.
     */
    private void learn(long more, double arrivalSeconds, List<Gap> gaps) {
        rowCount += more;
        line.saw(rowCount, arrivalSeconds);
        if (!Double.isNaN(statedRateHz) || Double.isNaN(line.periodSeconds())) {
            return;
        }
        if (line.spanSeconds() >= bestSpan || line.spanSeconds() < 0.5 * bestSpan && line.spanSeconds() > 5) {
            bestSpan = line.spanSeconds();
            bestPeriod = line.periodSeconds();
            bestUncertainty = line.uncertainty();
        }
        if (runRows == 0) {
            // From here on the run is held against the line; what was guessed before is replaced without a word.
            periodSeconds = Double.isNaN(runDue) ? line.periodSeconds() : periodSeconds;
            runRows = rowCount;
            runSeconds = lastSeconds + more * periodSeconds;
            runDue = line.dueSeconds(rowCount);
        }
        if (pace.saw(rowCount, arrivalSeconds, lastSeconds + more * periodSeconds, bestPeriod)) {
            ArrivalClockFit since = pace.line();
            // Few bursts, each of many rows, tell that it is another pace and not which.
            if (since.periodSeconds() > 0) {
                atOtherPace(since, more, arrivalSeconds, gaps);
                return;
            }
            pace.forget();
        }
        double mean = line.periodSeconds();
        double target = runSeconds + line.dueSeconds(rowCount) - runDue;
        double behind = target - (lastSeconds + more * mean);
        boolean other = Math.abs(mean / periodSeconds - 1) > OTHER_PACE;
        severalPaces |= other
                && bestSpan >= KNOWN_SECONDS
                && bestUncertainty <= WELL_KNOWN
                && Math.abs(mean / bestPeriod - 1) > OTHER_PACE;
        if (other || behind > UNKNOWN_SECONDS) {
            double jump = other ? mean : behind;
            if (lastSeconds >= 0) {
                losses.gap(lastSeconds, lastSeconds + Math.max(2 * mean, jump), 0, gaps);
                lastSeconds += Math.max(2 * mean, jump) - mean;
            }
            periodSeconds = mean;
            runRows = rowCount;
            runSeconds = lastSeconds + more * mean;
            runDue = line.dueSeconds(rowCount);
            return;
        }
        periodSeconds = mean * (1 + Math.max(-0.02, Math.min(0.02, behind / 2)));
    }

    /** The rows of the last seconds were dated at a pace that is the board's no more: how far they are off is of unknown time. */
    private void atOtherPace(ArrivalClockFit since, long more, double arrivalSeconds, List<Gap> gaps) {
        severalPaces = true;
        line = since;
        double mean = line.periodSeconds();
        double jump = pace.takenAt(arrivalSeconds) - (lastSeconds + more * mean);
        losses.gap(lastSeconds, lastSeconds + Math.max(2 * mean, jump), 0, gaps);
        lastSeconds += Math.max(2 * mean, jump) - mean;
        periodSeconds = mean;
        bestSpan = line.spanSeconds();
        bestPeriod = mean;
        bestUncertainty = line.uncertainty();
        runRows = rowCount;
        runSeconds = lastSeconds + more * mean;
        runDue = line.dueSeconds(rowCount);
        pace.forget();
    }
}
