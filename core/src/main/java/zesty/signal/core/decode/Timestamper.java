package zesty.signal.core.decode;

import java.util.List;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.text.Messages;

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
    /** A whole number of rows a second is likely from here on … */
    private static final double WHOLE_FROM_HZ = 5;
    /** … where it lies within so many uncertainties, and between these shares of the rate. */
    private static final double WHOLE_WITHIN = 1.5;

    private static final double WHOLE_LEAST = 1e-4;
    private static final double WHOLE_MOST = 0.02;
    /** Jitter is that of about so many blocks. */
    private static final double JITTER_OVER = 32;
    /** A number that begins anew after fewer may be the same again in rows that are others. */
    private static final double LEAST_TURN = 256;

    private final Losses losses = new Losses();
    /** One of the two is null. */
    private final ClockTime byClock;

    private final ArrivalTime byArrival;
    /** Null where nothing tells a row from another one that is alike. */
    private final RepeatedRows repeated;
    /** Whether rows come each in their own time, as messages of many topics do, so that no step from row to row tells anything. */
    private final boolean uneven;

    private long rows;
    private double first = Double.NaN;
    private boolean reopened;
    private long reopenings;
    private double latency = Double.NaN;
    private double latencyVariance;

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
        this(clock, sequence, statedRateHz, firstGuessHz, false);
    }

    /** @param uneven whether each row comes in its own time by a clock: none is missing between them, as far as anybody can tell */
    public Timestamper(
            BoardClock clock, BoardSequence sequence, double statedRateHz, double firstGuessHz, boolean uneven) {
        this(clock, sequence, statedRateHz, firstGuessHz, uneven, false);
    }

    /** @param stations whether rows of several stations come in turn, each as often as it likes */
    public Timestamper(
            BoardClock clock,
            BoardSequence sequence,
            double statedRateHz,
            double firstGuessHz,
            boolean uneven,
            boolean stations) {
        this.uneven = uneven && clock != null;
        if (!(firstGuessHz > 0) || statedRateHz <= 0) {
            throw new IllegalArgumentException(
                    Messages.of("decode.rates-must-be-above-0-were-and", statedRateHz, firstGuessHz));
        }
        SequenceLosses numbers = new SequenceLosses(sequence, losses);
        double period = 1 / (Double.isNaN(statedRateHz) ? firstGuessHz : statedRateHz);
        byClock = clock == null ? null : new ClockTime(clock, !uneven && !stations, numbers, losses);
        byArrival = clock == null ? new ArrivalTime(statedRateHz, period, numbers, losses) : null;
        repeated = stations ? null : repeated(clock, sequence);
    }

    private static RepeatedRows repeated(BoardClock clock, BoardSequence sequence) {
        if (clock != null) {
            return new RepeatedRows(clock.column());
        }
        boolean tells =
                sequence != null && sequence.rowsEach() == 1 && !(sequence.wrap() > 0 && sequence.wrap() < LEAST_TURN);
        return tells ? new RepeatedRows(sequence.column()) : null;
    }

    /** Goes on with what arrival has told before the first rows were dated; those are the next ones to be. */
    public void goOn(ArrivalClockFit seen) {
        if (byArrival != null) {
            byArrival.goOn(seen);
        }
    }

    /** The link was opened anew: the next rows come after a silence of unknown length. */
    public void relink() {
        reopened = true;
        if (repeated != null) {
            repeated.forget();
        }
        if (byClock != null) {
            byClock.relink();
        } else {
            byArrival.relink();
        }
    }

    /** @return rows a second as measured; NaN until known */
    public double rateHz() {
        if (uneven) {
            return rows > 1 && byClock.lastSeconds() > first
                    ? (rows - 1) / (byClock.lastSeconds() - first)
                    : Double.NaN;
        }
        return byClock != null ? byClock.rateHz() : byArrival.rateHz();
    }

    /** @return the standard uncertainty of the rate as a share of it; 0 where a clock or the maker tells it */
    public double rateUncertainty() {
        return byClock != null ? 0 : byArrival.rateUncertainty();
    }

    /** @return seconds from row to row of all rows as arrival has told by now; NaN where a clock or the maker tells, or they came at several paces */
    public double arrivalPeriodSeconds() {
        return byClock != null ? Double.NaN : byArrival.periodSeconds();
    }

    /** @return the measured rate, made whole where a whole number is as likely; NaN until known */
    public double nominalRateHz() {
        return nominal(rateHz(), byClock != null ? CLOCK_UNCERTAINTY : rateUncertainty());
    }

    /** @return the rate, made whole where it is 5 Hz or more and a whole number lies within its uncertainty */
    public static double nominal(double rateHz, double uncertainty) {
        double whole = Math.rint(rateHz);
        double room = Math.max(WHOLE_LEAST, Math.min(WHOLE_MOST, WHOLE_WITHIN * uncertainty));
        return whole >= WHOLE_FROM_HZ && Math.abs(rateHz - whole) < room * whole ? whole : rateHz;
    }

    /** @return gaps so far */
    public long gapCount() {
        return uneven ? reopenings : losses.gapCount();
    }

    /** @return rows lost in gaps so far, as far as the rate tells */
    public long lostRows() {
        return uneven ? 0 : losses.lostRows();
    }

    /** @return rows whose clock the rows around contradict; they keep their place in the rate */
    public long wrongStamps() {
        return losses.wrongStamps();
    }

    /** @return rows that came behind later ones, in all: put in order where those were still at hand */
    public long lateRows() {
        return losses.lateRows();
    }

    /** @return rows left out, as the board's clock or their number says that they had come before */
    public long repeatedRows() {
        return repeated == null ? 0 : repeated.leftOut();
    }

    /** @return whether it keeps a row until the next one tells whether its stamp is right; {@link #rest} gives it out */
    public boolean holds() {
        return byClock != null && byClock.holds();
    }

    /** @return the row that was held, as there is no next one */
    public Block rest() {
        return byClock.rest();
    }

    /** @return parts per million by which the board's clock is fast; NaN until 20 s have been seen */
    public double driftPpm() {
        return byClock == null ? Double.NaN : byClock.driftPpm();
    }

    /**
     * Dates the rows.
     *
     * @param came at least one row; handed over
     * @param arrivalSeconds when the last of them arrived
     * @param silenceSeconds how long the link was waited on in vain before they came. Not the time since the rows
     *     before: whoever reads may have been late, and what waited for it was not missing
     */
    public Block date(Rows came, double arrivalSeconds, double silenceSeconds) {
        double before = byClock == null ? Double.NaN : byClock.lastSeconds();
        Block block = dated(once(came), arrivalSeconds, silenceSeconds);
        if (!uneven || block.rows() == 0) {
            return block;
        }
        // What came while the link was away nobody counted; that it was away is told.
        double now = block.time().secondsAt(0);
        List<Gap> gaps = reopened && rows > 0 && now >= before ? List.of(new Gap(before, now, 0)) : List.of();
        reopenings += gaps.size();
        reopened = false;
        first = Double.isNaN(first) ? block.time().secondsAt(0) : first;
        rows += block.rows();
        return new Block(block.time(), block.columns(), block.rows(), gaps, block.frames());
    }

    private Rows once(Rows came) {
        if (repeated == null || came.frames() != null) {
            return came;
        }
        if (came.restarts().length > 0) {
            repeated.forget();
        }
        int[] kept = repeated.kept(came.columns(), came.count());
        return kept == null ? came : came.only(kept);
    }

    private Block dated(Rows rows, double arrivalSeconds, double silenceSeconds) {
        Block block;
        if (byClock != null) {
            block = byClock.date(byClock.inOrder(rows, arrivalSeconds), arrivalSeconds, false);
            measureJitter(arrivalSeconds - byClock.lastSeconds());
        } else {
            byArrival.sort(rows);
            block = byArrival.date(rows, arrivalSeconds, silenceSeconds);
            measureJitter(arrivalSeconds - byArrival.lastSeconds());
        }
        return block;
    }

    /** @return how unevenly rows arrive against their own time: the standard deviation of late, in s */
    public double jitterSeconds() {
        return Math.sqrt(latencyVariance);
    }

    private void measureJitter(double late) {
        double off = Double.isNaN(latency) ? 0 : late - latency;
        latency = Double.isNaN(latency) ? late : latency + off / JITTER_OVER;
        latencyVariance += (off * off - latencyVariance) / JITTER_OVER;
    }
}
