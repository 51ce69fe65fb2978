package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.TimeBase;

/**
 * Gives decoded rows their time. With a board's clock: the clock, unwrapped, from the first row on; arrival times only
 * tell how far it drifts and bridge a restart of the board. Without one: arrival times fitted to a steady rate. Missing
 * stretches become gaps and are never stretched over. One instance serves one stream and one thread.
 *
 * <p>Arrival times are seconds on the computer's steady clock, from any zero.
 */
public final class Timestamper {
    /** The median of a clock's steps is coarse where its ticks are. */
    private static final double CLOCK_UNCERTAINTY = 0.0033;

    /** Without a clock, rows that turn out to be dated further off than this are told to be of unknown time, in s. */
    private static final double UNKNOWN_SECONDS = 1;

    /** Without a clock, a silence longer than this is a gap rather than a late delivery, in seconds. */
    private static final double SILENCE_SECONDS = 0.75;

    /** How far the board's clock may differ from arrival after a re-opening and still be the same run of the clock. */
    private static final double SAME_RUN_SECONDS = 2;

    /** A row so much behind another one, in s, or so many numbers, is late, not the first of a board that restarted. */
    private static final double LATE_SECONDS = 0.5;

    private static final double LATE_NUMBERS = 64;
    /** A clock that leaps on by so much, in s and in steps, is believed once the next row or arrival says the same. */
    private static final double LEAP_SECONDS = 2;

    private static final double LEAP_STEPS = 50;
    private static final double MOST_SILENT_SECONDS = 60;
    /** Of a leap, arrival has to have seen this share to explain it. */
    private static final double EXPLAINED = 0.3;

    private final BoardClock clock;
    private final BoardSequence sequence;
    private final double statedRateHz;
    private double lastNumber = Double.NaN;
    private double latency = Double.NaN;
    private double latencyVariance;

    private double firstArrival = Double.NaN;
    private boolean relinked;
    /** Whether the row at hand is the first one after a restart of the board's clock. */
    private boolean restarted;
    /** Whether nothing tells how long that restart took. */
    private boolean unseen;

    /** Rows lost before the row at hand as the sequence has it; −1 where there is none. */
    private long numbered = -1;

    private double lastTicks = Double.NaN;
    private double wraps;
    private double originTicks;
    private double originSeconds;
    private final double[] recentSteps = new double[15];
    private int steps;
    /** Of all steps that are no gap: over many of them jitter averages out, which counts a long gap exactly. */
    private double stepSum;

    private double stepSeconds = Double.NaN;

    private double lastSeconds = Double.NaN;
    private double lastArrival = Double.NaN;
    private double periodSeconds;
    /** Numbers beyond this are not whole any more as they are kept. */
    private static final double MOST_TICKS = 1L << 53;
    /** So many steps give a first pace by which a stamp is doubted. */
    private static final int PACE_STEPS = 4;
    /** Steps of an even clock differ by less than this share of the period. */
    private static final double EVEN = 0.05;
    /** Over more periods than these the rate is not known well enough to tell whether a gap is a whole number of them. */
    private static final double MOST_COUNTED = 40;
    /** A gap further than this from a whole number of periods, as a share of one, is none of lost rows. */
    private static final double OFF_GRID = 0.2;

    /** Rows so far, those said to be missing among them, and the arrival of the first of them. */
    private double rowCount;

    private ArrivalClockFit line;
    private double runRows;
    private double runSeconds;
    private double runDue = Double.NaN;
    private double bestSpan;
    private double bestPeriod = Double.NaN;
    private double bestUncertainty = 1;
    private long gapCount;
    private long lostRows;

    private long wrongStamps;
    private long lateRows;
    /** The newest row where its stamp is in doubt, until the next one tells; null for none. */
    private Rows held;

    private double driftN;
    private double driftMeanX;
    private double driftMeanY;
    private double driftXx;
    private double driftXy;

    /**
     * @param clock the board's clock; null when it sends none
     * @param statedRateHz the rate the maker states, used where there is no clock; NaN when unknown
     * @param firstGuessHz where neither is known: the rate to start the fit from, above 0
     */
    public Timestamper(BoardClock clock, double statedRateHz, double firstGuessHz) {
        this(clock, null, statedRateHz, firstGuessHz);
    }

    /** @param sequence the number its lines or packets carry, which tells exactly what was lost; null for none */
    public Timestamper(BoardClock clock, BoardSequence sequence, double statedRateHz, double firstGuessHz) {
        if (!(firstGuessHz > 0) || statedRateHz <= 0) {
            throw new IllegalArgumentException("rates must be above 0, were " + statedRateHz + " and " + firstGuessHz);
        }
        this.clock = clock;
        this.sequence = sequence;
        this.statedRateHz = statedRateHz;
        periodSeconds = 1 / (Double.isNaN(statedRateHz) ? firstGuessHz : statedRateHz);
        line = new ArrivalClockFit();
    }

    /** Goes on with what arrival has told before the first rows were dated; those are the next ones to be. */
    public void goOn(ArrivalClockFit seen) {
        line = seen;
    }

    /** The link was opened anew: the next rows come after a silence of unknown length. */
    public void relink() {
        relinked = true;
    }

    /** @return rows a second as measured; NaN until known */
    public double rateHz() {
        if (clock != null) {
            return 1 / stepSeconds;
        }
        return 1 / (Double.isNaN(bestPeriod) ? periodSeconds : bestPeriod);
    }

    /** @return the standard uncertainty of the rate as a share of it; 0 where a clock or the maker tells it */
    public double rateUncertainty() {
        return clock != null || !Double.isNaN(statedRateHz) ? 0 : bestUncertainty;
    }

    /** @return seconds from row to row as arrival has told by now; NaN where a clock or the maker tells */
    public double arrivalPeriodSeconds() {
        return clock != null || !Double.isNaN(statedRateHz) ? Double.NaN : bestPeriod;
    }

    /** @return the measured rate, made whole where a whole number is as likely; NaN until known */
    public double nominalRateHz() {
        return nominal(rateHz(), clock != null ? CLOCK_UNCERTAINTY : rateUncertainty());
    }

    /** @return the rate, made whole where it is 5 Hz or more and a whole number lies within its uncertainty */
    public static double nominal(double rateHz, double uncertainty) {
        double whole = Math.rint(rateHz);
        double room = Math.max(1e-4, Math.min(0.02, 1.5 * uncertainty));
        return whole >= 5 && Math.abs(rateHz - whole) < room * whole ? whole : rateHz;
    }

    /** @return gaps so far */
    public long gapCount() {
        return gapCount;
    }

    /** @return rows lost in gaps so far, as far as the rate tells */
    public long lostRows() {
        return lostRows;
    }

    /** @return rows whose clock the rows around contradict; they keep their place in the rate */
    public long wrongStamps() {
        return wrongStamps;
    }

    /** @return rows that came behind later ones, in all: put in order where those were still at hand */
    public long lateRows() {
        return lateRows;
    }

    /** @return whether it keeps a row until the next one tells whether its stamp is right; {@link #rest} gives it out */
    public boolean holds() {
        return held != null;
    }

    /** @return the row that was held, as there is no next one */
    public Block rest() {
        Rows last = held;
        held = null;
        return byClock(last, lastArrival, true);
    }

    /** @return parts per million by which the board's clock is fast; NaN until 20 s have been seen */
    public double driftPpm() {
        return clock == null || driftN < 10 || driftXx / driftN < 33 ? Double.NaN : (driftXy / driftXx - 1) * 1e6;
    }

    /**
     * Dates the rows.
     *
     * @param rows at least one row; handed over
     * @param arrivalSeconds when the last of them arrived
     * @param silenceSeconds how long the link was waited on in vain before they came. Not the time since the rows
     *     before: whoever reads may have been late, and what waited for it was not missing
     */
    public Block date(Rows rows, double arrivalSeconds, double silenceSeconds) {
        if (Double.isNaN(firstArrival)) {
            firstArrival = arrivalSeconds;
        }
        Rows all = held == null ? rows : joined(held, rows);
        held = null;
        if (!relinked && clock != null) {
            lateRows += RowOrder.sort(all, clock.column(), LATE_SECONDS * clock.ticksPerSecond());
        } else if (!relinked && sequence != null) {
            lateRows += RowOrder.sort(all, sequence.column(), LATE_NUMBERS);
        }
        Block block =
                clock == null ? byArrival(all, arrivalSeconds, silenceSeconds) : byClock(all, arrivalSeconds, false);
        measureJitter(arrivalSeconds - lastSeconds);
        return block;
    }

    /** @return how unevenly rows arrive against their own time: the standard deviation of late, in s */
    public double jitterSeconds() {
        return Math.sqrt(latencyVariance);
    }

    private void measureJitter(double late) {
        double off = Double.isNaN(latency) ? 0 : late - latency;
        latency = Double.isNaN(latency) ? late : latency + off / 32;
        latencyVariance += (off * off - latencyVariance) / 32;
    }

    /** Rows that the sequence says were lost before each row; null when it says none was. */
    private long[] missing(Rows rows) {
        if (sequence == null) {
            return null;
        }
        double[] numbers = rows.columns()[sequence.column()];
        long[] missing = null;
        for (int row = 0; row < rows.count(); row++) {
            if (Double.isNaN(numbers[row])) {
                continue;
            }
            boolean known = !Double.isNaN(lastNumber) && !rows.restartsAt(row) && !(relinked && row == 0);
            double behind = lastNumber - numbers[row];
            if (known && behind > 0 && behind <= LATE_NUMBERS && behind * 2 < lastNumber) {
                // It was counted as lost when the one before it came.
                lateRows++;
                lostRows -= Math.min(lostRows, sequence.rowsEach());
                continue;
            }
            long lost = known ? sequence.missingBetween(lastNumber, numbers[row]) : 0;
            if (lost > 0) {
                missing = missing == null ? new long[rows.count()] : missing;
                missing[row] = lost;
            }
            lastNumber = numbers[row];
        }
        return missing;
    }

    /** @param last whether no row follows that could tell more */
    private Block byClock(Rows rows, double arrivalSeconds, boolean last) {
        double[] ticks = sane(rows.columns()[clock.column()], rows.count());
        int count = rows.count();
        double[] seconds = new double[count];
        long[] missing = missing(rows);
        List<Gap> gaps = new ArrayList<>(0);
        for (int row = 0; row < count; row++) {
            numbered = sequence == null ? -1 : missing == null ? 0 : missing[row];
            boolean doubtful = doubtful(ticks[row], rows.restartsAt(row), arrivalSeconds);
            boolean more = row + 1 < count;
            if (doubtful && !more && !last) {
                held = tail(rows, row);
                count = row;
                break;
            }
            boolean wrong = doubtful && (more ? follows(ticks[row + 1]) : unlikely(ticks[row]));
            seconds[row] =
                    wrong ? keepPace(more ? ticks[row + 1] : Double.NaN) : next(ticks[row], arrivalSeconds, gaps);
        }
        if (count > 0) {
            measureDrift(seconds[count - 1], arrivalSeconds);
        }
        lastArrival = arrivalSeconds;
        double[] dated = count == seconds.length ? seconds : Arrays.copyOf(seconds, count);
        return new Block(new TimeBase.Explicit(dated), rows.columns(), count, gaps);
    }

    /** @return the stamps, what no clock counts to as missing */
    private static double[] sane(double[] ticks, int count) {
        double[] sane = ticks;
        for (int row = 0; row < count; row++) {
            if (!(Math.abs(ticks[row]) <= MOST_TICKS)) {
                sane = sane == ticks ? ticks.clone() : sane;
                sane[row] = Double.NaN;
            }
        }
        return sane;
    }

    private static Rows joined(Rows first, Rows second) {
        double[][] columns = new double[first.columns().length][];
        for (int c = 0; c < columns.length; c++) {
            columns[c] = Arrays.copyOf(first.columns()[c], first.count() + second.count());
            System.arraycopy(second.columns()[c], 0, columns[c], first.count(), second.count());
        }
        int[] restarts =
                Arrays.stream(second.restarts()).map(row -> row + first.count()).toArray();
        return new Rows(columns, first.count() + second.count(), restarts);
    }

    private static Rows tail(Rows rows, int from) {
        double[][] columns = new double[rows.columns().length][];
        for (int c = 0; c < columns.length; c++) {
            columns[c] = Arrays.copyOfRange(rows.columns()[c], from, rows.count());
        }
        return new Rows(columns, rows.count() - from);
    }

    /** @return how far a stamp is from the last one that was believed, in s, a wrap taken into account */
    private double ahead(double ticks) {
        double step = ticks - lastTicks;
        double wrap = clock.wrapTicks();
        if (step < 0 && wrap > 0 && step + wrap < wrap / 2) {
            step += wrap;
        } else if (wrap > 0 && step > wrap / 2) {
            step -= wrap;
        }
        return step / clock.ticksPerSecond();
    }

    private double leap() {
        return Math.max(LEAP_SECONDS, LEAP_STEPS * (Double.isNaN(stepSeconds) ? 0 : stepSeconds));
    }

    /** Whether a stamp lies where neither the pace nor arrival puts it, so that the next one has to tell. */
    private boolean doubtful(double ticks, boolean restarts, double arrivalSeconds) {
        if (Double.isNaN(lastTicks) || Double.isNaN(ticks) || relinked || restarts || steps < PACE_STEPS) {
            return false;
        }
        double ahead = ahead(ticks);
        return ahead < -LATE_SECONDS || ahead > leap() && !(arrivalSeconds - lastArrival >= EXPLAINED * ahead);
    }

    /** Whether a stamp goes on from the last one that was believed. */
    private boolean follows(double ticks) {
        double ahead = ahead(ticks);
        return ahead >= 0 && ahead <= leap();
    }

    /** Of the very last stamp nobody tells more: one that leaps further than all of the record, or back, is not believed. */
    private boolean unlikely(double ticks) {
        double ahead = ahead(ticks);
        return ahead < 0 || ahead > Math.max(MOST_SILENT_SECONDS, lastSeconds);
    }

    /** A row whose own stamp is wrong: it stands a step after the one before, and not behind the one after it. */
    private double keepPace(double nextTicks) {
        wrongStamps++;
        double step = Double.isNaN(stepSeconds) ? 0 : stepSeconds;
        step = nextTicks == nextTicks ? Math.min(step, ahead(nextTicks) / 2) : step;
        lastTicks += step * clock.ticksPerSecond();
        lastSeconds += step;
        return lastSeconds;
    }

    private double next(double ticks, double arrivalSeconds, List<Gap> gaps) {
        if (Double.isNaN(lastTicks) && Double.isNaN(ticks)) {
            wrongStamps++;
            lastSeconds = 0;
            return 0;
        }
        if (Double.isNaN(lastTicks)) {
            originTicks = ticks;
            originSeconds = 0;
            lastTicks = ticks;
            lastSeconds = 0;
            return 0;
        }
        if (Double.isNaN(ticks)) {
            // The clock's own field is missing: the row keeps its place in the rate.
            wrongStamps++;
            double step = Double.isNaN(stepSeconds) ? 0 : stepSeconds;
            lastTicks += step * clock.ticksPerSecond();
            lastSeconds += step;
            return lastSeconds;
        }
        if (!relinked && ticks < lastTicks && ahead(ticks) < 0 && ahead(ticks) >= -LATE_SECONDS) {
            // Those after it have been handed on: it stands beside the last of them.
            lateRows++;
            lostRows -= Math.min(lostRows, 1);
            return lastSeconds;
        }
        double before = lastSeconds;
        restarted = false;
        boolean bridged = relinked;
        if (relinked) {
            relinked = false;
            resume(ticks, arrivalSeconds);
        } else {
            advance(ticks, arrivalSeconds);
        }
        double seconds = (wraps + (ticks - originTicks)) / clock.ticksPerSecond() + originSeconds;
        lastTicks = ticks;
        lastSeconds = Math.max(seconds, before);
        step(before, bridged || restarted, gaps);
        return lastSeconds;
    }

    private void advance(double ticks, double arrivalSeconds) {
        if (ticks >= lastTicks) {
            return;
        }
        double forward = ticks - lastTicks + clock.wrapTicks();
        if (clock.wrapTicks() > 0 && forward >= 0 && forward < clock.wrapTicks() / 2) {
            wraps += clock.wrapTicks();
        } else {
            // The clock jumped back: the board restarted. Arrival tells how long that took.
            restart(ticks, arrivalSeconds - lastArrival);
        }
    }

    /**
     * The board's clock begins anew.
     *
     * @param silence how long that took as arrival has it, in s; below 0 or NaN where that tells nothing, as in a file
     */
    private void restart(double ticks, double silence) {
        double least = Gap.PERIODS * (Double.isNaN(stepSeconds) ? 0 : stepSeconds) * 1.01;
        reanchor(ticks, lastSeconds + Math.max(least, silence > 0 ? silence : 0));
        restarted = true;
        unseen = !(silence > 0);
    }

    private void resume(double ticks, double arrivalSeconds) {
        double silence = arrivalSeconds - lastArrival;
        double elapsed = (ticks - lastTicks) / clock.ticksPerSecond();
        double wrapSeconds = clock.wrapTicks() / clock.ticksPerSecond();
        double turns = wrapSeconds > 0 ? Math.max(0, Math.rint((silence - elapsed) / wrapSeconds)) : 0;
        double expected = elapsed + turns * wrapSeconds;
        if (expected >= 0 && Math.abs(expected - silence) <= SAME_RUN_SECONDS + 0.01 * silence) {
            wraps += turns * clock.wrapTicks();
        } else {
            restart(ticks, silence);
        }
    }

    private void reanchor(double ticks, double seconds) {
        wraps = 0;
        originTicks = ticks;
        originSeconds = seconds;
        driftN = 0;
        driftXx = 0;
        driftXy = 0;
    }

    private void step(double before, boolean bridged, List<Gap> gaps) {
        double step = lastSeconds - before;
        boolean known = steps >= recentSteps.length;
        if (known && step > Gap.PERIODS * stepSeconds || bridged && step > 0 && !(step < Gap.PERIODS * stepSeconds)) {
            long missing = Double.isNaN(stepSeconds) ? 0 : Math.max(0, Math.round(step * steps / stepSum) - 1);
            if (numbered >= 0 && !bridged) {
                missing = numbered;
            } else if (restarted && unseen || known && !bridged && paused(step)) {
                missing = 0;
            }
            gaps.add(new Gap(before, lastSeconds, missing));
            gapCount++;
            lostRows += missing;
            return;
        }
        stepSum += step;
        recentSteps[steps++ % recentSteps.length] = step;
        if (steps <= recentSteps.length || steps % 256 == 0) {
            double[] sorted = Arrays.copyOf(recentSteps, Math.min(steps, recentSteps.length));
            Arrays.sort(sorted);
            double median = sorted[sorted.length / 2];
            stepSeconds = median > 0 ? median : Double.NaN;
            if (steps == recentSteps.length) {
                countEarlyLosses();
            }
        }
    }

    /**
     * Whether the board itself paused: rows lost on the way leave a whole number of periods of an even clock, a pause of
     * the board does not.
     */
    private boolean paused(double step) {
        double periods = step * steps / stepSum;
        int even = 0;
        for (double one : recentSteps) {
            even += Math.abs(one - stepSeconds) < EVEN * stepSeconds ? 1 : 0;
        }
        return even * 10 >= recentSteps.length * 9
                && periods < MOST_COUNTED
                && Math.abs(periods - Math.rint(periods)) > OFF_GRID;
    }

    /** The first steps were taken before the period was known: what was a gap among them is counted now. */
    private void countEarlyLosses() {
        for (double step : recentSteps) {
            if (step > Gap.PERIODS * stepSeconds) {
                gapCount++;
                lostRows += Math.round(step / stepSeconds) - 1;
                stepSum -= step - stepSeconds;
            }
        }
    }

    private void measureDrift(double boardSeconds, double arrivalSeconds) {
        driftN++;
        double x = arrivalSeconds - firstArrival;
        double dx = x - (driftN == 1 ? x : driftMeanX);
        double dy = boardSeconds - (driftN == 1 ? boardSeconds : driftMeanY);
        driftMeanX = driftN == 1 ? x : driftMeanX + dx / driftN;
        driftMeanY = driftN == 1 ? boardSeconds : driftMeanY + dy / driftN;
        driftXx += dx * (x - driftMeanX);
        driftXy += dx * (boardSeconds - driftMeanY);
    }

    private Block byArrival(Rows rows, double arrivalSeconds, double silenceSeconds) {
        int count = rows.count();
        List<Gap> gaps = new ArrayList<>(0);
        double numberBefore = lastNumber;
        long[] missing = missing(rows);
        boolean first = Double.isNaN(lastSeconds);
        if (first) {
            lastSeconds = -periodSeconds;
        }
        if (missing != null && !relinked) {
            learn(count + sum(missing), arrivalSeconds, gaps);
            return withLosses(rows, missing, arrivalSeconds, gaps);
        }
        if (!first && (relinked || sequence == null && silent(silenceSeconds))) {
            bridge(rows, numberBefore, arrivalSeconds, gaps);
        } else {
            relinked = false;
            learn(count, arrivalSeconds, gaps);
        }
        lastArrival = arrivalSeconds;
        double start = lastSeconds + periodSeconds;
        lastSeconds += count * periodSeconds;
        return new Block(new TimeBase.Steady(start, periodSeconds), rows.columns(), count, gaps);
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
                gaps.add(new Gap(before, lastSeconds, missing[row]));
                gapCount++;
                lostRows += missing[row];
            }
        }
        return new Block(new TimeBase.Explicit(seconds), rows.columns(), rows.count(), gaps);
    }

    private boolean silent(double silenceSeconds) {
        return Double.isNaN(statedRateHz) && silenceSeconds > Math.max(SILENCE_SECONDS, 4 * periodSeconds);
    }

    private void bridge(Rows rows, double numberBefore, double arrivalSeconds, List<Gap> gaps) {
        relinked = false;
        int count = rows.count();
        double before = lastSeconds;
        double silence = Math.max(periodSeconds, arrivalSeconds - lastArrival - (count - 1) * periodSeconds);
        long missing = Math.max(0, Math.round(silence / periodSeconds) - 1);
        if (sequence != null && sequence.wrap() > 0 && !rows.restartsAt(0)) {
            // Time tells about how many, the sequence exactly how many but for whole turns of it.
            double turn = sequence.wrap() * sequence.rowsEach();
            double exact = (rows.columns()[sequence.column()][0] - numberBefore - 1) * sequence.rowsEach();
            double whole = exact + Math.rint((missing - exact) / turn) * turn;
            missing = whole >= 0 ? Math.round(whole) : missing;
            silence = (missing + 1) * periodSeconds;
        }
        gaps.add(new Gap(before, before + silence, missing));
        gapCount++;
        lostRows += missing;
        lastSeconds = before + silence - periodSeconds;
        // What comes from here on is another run: its line begins anew, at the period known by now.
        line = new ArrivalClockFit();
        rowCount = count;
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
        double mean = line.periodSeconds();
        double target = runSeconds + line.dueSeconds(rowCount) - runDue;
        double behind = target - (lastSeconds + more * mean);
        boolean other = Math.abs(mean / periodSeconds - 1) > 0.1;
        if (other || behind > UNKNOWN_SECONDS) {
            double jump = other ? mean : behind;
            if (lastSeconds >= 0) {
                gaps.add(new Gap(lastSeconds, lastSeconds + Math.max(2 * mean, jump), 0));
                gapCount++;
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
}
