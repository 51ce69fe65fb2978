package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.TimeBase;

/**
 * Gives rows their time by the board's clock, unwrapped, from the first row on. Arrival tells how far it drifts, bridges a
 * restart of the board, and speaks against stamps that are wrong. One thread.
 */
final class ClockTime {
    /** How far the board's clock may differ from arrival after a re-opening and still be the same run of the clock. */
    private static final double SAME_RUN_SECONDS = 2;
    /** A row so much behind another one, in s, is late, not the first of a board that restarted. */
    static final double LATE_SECONDS = 0.5;

    /** A clock that leaps on by so much, in s and in steps, is believed once the next row or arrival says the same. */
    private static final double LEAP_SECONDS = 2;

    private static final double LEAP_STEPS = 50;
    private static final double MOST_SILENT_SECONDS = 60;
    /** So many rows after one whose stamp is in doubt are waited for. */
    private static final int LOOKED_AHEAD = 3;
    /** Of a leap, arrival has to have seen this share to explain it. */
    private static final double EXPLAINED = 0.3;
    /** Numbers beyond this are not whole any more as they are kept. */
    private static final double MOST_TICKS = 1L << 53;

    private final BoardClock clock;
    private final SequenceLosses sequence;
    private final Losses losses;
    private final ClockSteps steps;
    private final DriftFit drift = new DriftFit();
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
    /** What the clock said last, and where that row stands within its tick, in s. */
    private double lastStamp = Double.NaN;

    private double lastSeconds = Double.NaN;
    private double lastArrival = Double.NaN;
    /** The first rows of a clock that ticks about as often as they come, until they tell whether rows are lost regularly. */
    private RegularLosses.FirstRows first = new RegularLosses.FirstRows();

    /** The newest rows where the stamp of the first is in doubt, until the next ones tell; null for none. */
    private Rows held;

    /** @param even whether rows come at a rate, not each in its own time */
    ClockTime(BoardClock clock, boolean even, SequenceLosses sequence, Losses losses) {
        this.clock = clock;
        this.sequence = sequence;
        this.losses = losses;
        steps = new ClockSteps(even, 1 / clock.ticksPerSecond(), losses);
    }

    void relink() {
        relinked = true;
    }

    /** @return rows a second; NaN until known */
    double rateHz() {
        return 1 / steps.periodSeconds();
    }

    double driftPpm() {
        return drift.ppm();
    }

    double lastSeconds() {
        return lastSeconds;
    }

    /** @return whether it keeps rows until the next ones tell whether a stamp is right */
    boolean holds() {
        return held != null;
    }

    /** @return the rows that were held, as there is no next one */
    Block rest() {
        Rows last = held;
        held = null;
        return date(last, lastArrival, true);
    }

    /** @param rows those that have just come. @return they, in order, behind the one that was held */
    Rows inOrder(Rows rows, double arrivalSeconds) {
        if (Double.isNaN(firstArrival)) {
            firstArrival = arrivalSeconds;
        }
        Rows all = held == null ? rows : held.joined(rows);
        held = null;
        if (!relinked) {
            // A clock that begins again within that time is not late.
            double wrap = clock.wrapTicks() > 0 ? clock.wrapTicks() : Double.POSITIVE_INFINITY;
            losses.late(RowOrder.sort(all, clock.column(), Math.min(LATE_SECONDS * clock.ticksPerSecond(), wrap / 2)));
        }
        return all;
    }

    /** @param last whether no row follows that could tell more */
    Block date(Rows rows, double arrivalSeconds, boolean last) {
        double[] ticks = sane(rows.columns()[clock.column()], rows.count());
        int count = rows.count();
        double[] seconds = new double[count];
        long[] missing = sequence.missing(rows, relinked);
        List<Gap> gaps = new ArrayList<>(0);
        for (int row = 0; row < count; row++) {
            numbered = sequence.none() ? -1 : missing == null ? 0 : missing[row];
            boolean wrong = false;
            if (doubtful(ticks[row], rows.restartsAt(row), arrivalSeconds)) {
                int told = toldByNext(ticks, row, count);
                if (told == 0 && !last && count - row <= LOOKED_AHEAD) {
                    held = rows.from(row);
                    sequence.unread(row);
                    count = row;
                    break;
                }
                wrong = told < 0 || told == 0 && unlikely(ticks[row]);
            }
            seconds[row] = wrong
                    ? keepPace(row + 1 < count ? ticks[row + 1] : Double.NaN)
                    : next(ticks[row], arrivalSeconds, gaps);
        }
        if (first != null && sequence.none() && steps.mayLieBetweenTicks()) {
            look(rows, count);
        }
        if (count > 0) {
            drift.saw(seconds[count - 1], arrivalSeconds - firstArrival);
        }
        // What is held came after a silence, if there was one: that counts from what came before.
        lastArrival = held == null ? arrivalSeconds : lastArrival;
        double[] dated = count == seconds.length ? seconds : Arrays.copyOf(seconds, count);
        return new Block(new TimeBase.Explicit(dated), rows.columns(), count, gaps, rows.frames());
    }

    private void look(Rows rows, int count) {
        if (first.told(rows, count, clock.column())) {
            steps.regularAreLost();
            first = null;
        } else if (first.full()) {
            first = null;
        }
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

    /** @return how far a stamp is from the last one that was believed, in s, a wrap taken into account */
    private double ahead(double ticks) {
        return ahead(lastTicks, ticks);
    }

    private double ahead(double from, double ticks) {
        double step = ticks - from;
        double wrap = clock.wrapTicks();
        if (step < 0 && wrap > 0 && step + wrap < wrap / 2) {
            step += wrap;
        } else if (wrap > 0 && step > wrap / 2) {
            step -= wrap;
        }
        return step / clock.ticksPerSecond();
    }

    private double leap() {
        return Math.max(LEAP_SECONDS, LEAP_STEPS * steps.usualOr(0));
    }

    /** Whether a stamp lies where neither the pace nor arrival puts it, so that the next one has to tell. */
    private boolean doubtful(double ticks, boolean restarts, double arrivalSeconds) {
        if (Double.isNaN(lastTicks) || Double.isNaN(ticks) || relinked || restarts || !steps.tellAPace()) {
            return false;
        }
        double ahead = ahead(ticks);
        return ahead < -LATE_SECONDS || ahead > leap() && !(arrivalSeconds - lastArrival >= EXPLAINED * ahead);
    }

    /**
     * Of a stamp in doubt the next ones tell: most of them go on from the last that was believed, or from it.
     *
     * @return below 0 where it is wrong, above where it is right, 0 where they do not tell
     */
    private int toldByNext(double[] ticks, int row, int count) {
        int told = 0;
        for (int i = row + 1; i < Math.min(count, row + 1 + LOOKED_AHEAD); i++) {
            double fromLast = ahead(lastTicks, ticks[i]);
            double fromIt = ahead(ticks[row], ticks[i]);
            told -= fromLast >= -LATE_SECONDS && fromLast <= leap() ? 1 : 0;
            told += fromIt >= -LATE_SECONDS && fromIt <= leap() ? 1 : 0;
        }
        return told;
    }

    /** Of the very last stamp nobody tells more: one that leaps further than all of the record, or back, is not believed. */
    private boolean unlikely(double ticks) {
        double ahead = ahead(ticks);
        return ahead < 0 || ahead > Math.max(MOST_SILENT_SECONDS, lastSeconds);
    }

    /** A row whose own stamp is wrong: it stands a step after the one before, and not behind the one after it. */
    private double keepPace(double nextTicks) {
        losses.wrongStamp();
        double step = steps.usualOr(0);
        return advanced(nextTicks == nextTicks ? Math.max(0, Math.min(step, ahead(nextTicks) / 2)) : step);
    }

    private double advanced(double step) {
        lastTicks += step * clock.ticksPerSecond();
        lastStamp += step;
        lastSeconds = Math.max(lastSeconds, lastStamp);
        return lastSeconds;
    }

    private double turn() {
        return sequence.none()
                ? 0
                : sequence.sequence().wrap() * sequence.sequence().rowsEach();
    }

    private double next(double ticks, double arrivalSeconds, List<Gap> gaps) {
        if (Double.isNaN(lastTicks) && Double.isNaN(ticks)) {
            losses.wrongStamp();
            lastStamp = 0;
            lastSeconds = 0;
            return 0;
        }
        if (Double.isNaN(lastTicks)) {
            originTicks = ticks;
            originSeconds = 0;
            lastTicks = ticks;
            lastStamp = 0;
            lastSeconds = 0;
            return 0;
        }
        if (Double.isNaN(ticks)) {
            // The clock's own field is missing: the row keeps its place in the rate.
            losses.wrongStamp();
            return advanced(steps.usualOr(0));
        }
        if (!relinked && ahead(ticks) < 0 && ahead(ticks) >= -LATE_SECONDS) {
            // Those after it have been handed on: it stands beside the last of them.
            if (sequence.none()) {
                losses.lateAfterAll(1);
            }
            return lastSeconds;
        }
        double before = lastSeconds;
        restarted = false;
        boolean bridged = relinked;
        boolean exact = false;
        if (relinked) {
            relinked = false;
            resume(ticks, arrivalSeconds);
            exact = !restarted && sequence.acrossLink() >= 0;
            numbered = exact ? sequence.acrossLink() : numbered;
        } else {
            advance(ticks, arrivalSeconds);
        }
        double seconds = (wraps + (ticks - originTicks)) / clock.ticksPerSecond() + originSeconds;
        double stampBefore = lastStamp;
        lastTicks = ticks;
        lastStamp = Math.max(seconds, lastStamp);
        lastSeconds = steps.within(before, lastStamp);
        steps.saw(
                lastStamp - stampBefore,
                before,
                lastSeconds,
                new ClockSteps.Between(numbered, exact, turn(), bridged || restarted, restarted, unseen),
                gaps);
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
        double least = Gap.PERIODS * steps.usualOr(0) * 1.01;
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
        double near = SAME_RUN_SECONDS + 0.01 * silence;
        // A board that began anew has not counted for longer than nobody heard it. One that is further on is the same
        // run, and it
        // was the computer that stood still and read its last rows late.
        boolean readLate = turns == 0
                && elapsed > silence
                && elapsed - silence <= MOST_SILENT_SECONDS
                && ticks / clock.ticksPerSecond() > silence + near;
        if (expected >= 0 && Math.abs(expected - silence) <= near || readLate) {
            wraps += turns * clock.wrapTicks();
        } else {
            restart(ticks, silence);
        }
    }

    private void reanchor(double ticks, double seconds) {
        wraps = 0;
        originTicks = ticks;
        originSeconds = seconds;
        drift.forget();
    }
}
