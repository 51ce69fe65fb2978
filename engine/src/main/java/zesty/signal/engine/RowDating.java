package zesty.signal.engine;

import java.util.Objects;
import zesty.signal.core.decode.ArrivalClockFit;
import zesty.signal.core.decode.ClockByArrival;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.Rows;
import zesty.signal.core.decode.StreamDecoder;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.decode.Timestamper;
import zesty.signal.core.sample.Block;

/**
 * Dates the rows of one source once it is known how fast they come: by their clock, by the rate that the maker states, or, where
 * neither tells, by their arrival, once there was enough of it. The source's thread.
 */
final class RowDating {
    /** Slower than this a board's rows are not kept waiting until their rate is known well. */
    private static final double SLOW_HZ = 2.2;
    /** While a rate is measured no more rows than these wait: what comes so fast has told enough. */
    private static final int MOST_WAITING = 100_000;
    /** What a file without a clock is read at, unless the rig states a rate. */
    private static final double ASSUMED_RATE_HZ = 100;

    private final double statedRateHz;
    private final boolean unpaced;
    private boolean eager;
    private boolean assumedRate;
    private ArrivalClockFit arrivals;
    private StreamFormat format;
    /** What looks for a clock that nobody named; null where there is none to look for. */
    private ClockByArrival unnamed;
    /** Rows that were looked at before they could be dated; null where there are none. */
    private Rows held;

    private Timestamper timestamper;

    /** @param unpaced whether the link gives as fast as it is read, so that arrival tells nothing */
    RowDating(double statedRateHz, boolean unpaced) {
        this.statedRateHz = statedRateHz;
        this.unpaced = unpaced;
    }

    /** Rows are dated as soon as can be, also before their rate is known well. */
    void eager() {
        eager = true;
    }

    /** @param guessed whether nobody stated the format, so that more of it may be found */
    void begin(StreamFormat found, boolean guessed) {
        format = found;
        assumedRate = unpaced && format.clock() == null && Double.isNaN(statedRateHz);
        arrivals = new ArrivalClockFit();
        unnamed = guessed && !unpaced && Double.isNaN(statedRateHz) ? ClockByArrival.of(format) : null;
    }

    /** @return the format by which rows are dated */
    StreamFormat format() {
        return format;
    }

    /** @return whether arrival may yet tell that the format has a clock */
    boolean looksForClock() {
        return unnamed != null;
    }

    /** @return whether times count at a rate that nobody told */
    boolean assumesRate() {
        return assumedRate;
    }

    /** @return null until the rate is known */
    Timestamper timestamper() {
        return timestamper;
    }

    void relink() {
        if (timestamper != null) {
            timestamper.relink();
        }
    }

    /**
     * @param ending whether no more rows follow, so that what is known must do
     * @return whether rows can be dated from now on
     */
    boolean known(StreamDecoder decoder, long firstByteNanos, long now, boolean ending) {
        if (timestamper != null) {
            return true;
        }
        double stated = assumedRate ? ASSUMED_RATE_HZ : statedRateHz;
        boolean told = format.clock() != null || !Double.isNaN(stated) || unpaced;
        arrivals.saw(decoder.waiting(), now * 1e-9);
        if (unnamed != null) {
            unnamed.saw(decoder.newest(0), now * 1e-9);
        }
        double since = (now - firstByteNanos) * 1e-9;
        boolean slow = eager && decoder.waiting() > 1 && decoder.waiting() < SLOW_HZ * since;
        boolean flood = decoder.waiting() > MOST_WAITING;
        if (!told && !slow && !flood && !arrivals.enough() && !arrivals.quiet(now * 1e-9) && !ending) {
            return false;
        }
        if (unnamed != null) {
            if (!slow && !flood && !ending && unnamed.wantsMore(now * 1e-9)) {
                return false;
            }
            held = decoder.takeRows();
            format = unnamed.told(held);
            unnamed = null;
        }
        // Not from the first row to the last: rows that came at once, and then none, tell no rate.
        double byArrival = slow || flood && Double.isNaN(arrivals.periodSeconds())
                ? (came(decoder) - 1) / since
                : 1 / arrivals.periodSeconds();
        timestamper = new Timestamper(
                format.clock(),
                format.sequence(),
                stated,
                byArrival > 0 && byArrival < Double.POSITIVE_INFINITY
                        ? Timestamper.nominal(byArrival, arrivals.uncertainty())
                        : ASSUMED_RATE_HZ,
                format.ofTopics(),
                format.indexOf(Role.STATION) >= 0);
        timestamper.goOn(arrivals);
        return true;
    }

    /** @param silenceSeconds how long nothing came before these rows */
    Block date(StreamDecoder decoder, long now, double silenceSeconds) {
        Rows rows = held == null ? decoder.takeRows() : held.joined(decoder.takeRows());
        held = null;
        return timestamper.date(rows, now * 1e-9, silenceSeconds);
    }

    private int came(StreamDecoder decoder) {
        return decoder.waiting() + (held == null ? 0 : held.count());
    }

    /** Goes on with another format. @param rateHz what it has been so far */
    void switchTo(StreamFormat other, double rateHz) {
        format = other;
        unnamed = null;
        timestamper = new Timestamper(
                format.clock(),
                format.sequence(),
                statedRateHz,
                rateHz > 0 ? rateHz : ASSUMED_RATE_HZ,
                format.ofTopics(),
                format.indexOf(Role.STATION) >= 0);
    }

    /** The stream goes on in another shape: with the clock it had, where that is the same. */
    void reshape(StreamFormat is, double rateHz) {
        StreamFormat was = format;
        Timestamper goesOn = timestamper;
        switchTo(is, rateHz);
        if (Objects.equals(was.clock(), is.clock()) && Objects.equals(was.sequence(), is.sequence())) {
            timestamper = goesOn;
        }
    }
}
