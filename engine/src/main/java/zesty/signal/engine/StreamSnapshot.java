package zesty.signal.engine;

import java.util.List;
import zesty.signal.core.picture.Film;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.Times;

/**
 * One line of samples in time at one moment: of a source, or of one of the stations that a source carries.
 *
 * @param source index of its source in the rig
 * @param station its number; NaN when the source carries no stations
 * @param rateHz rows a second; NaN until known
 * @param times of the rows; null until the first has come
 * @param lastSeconds time of the newest row; NaN before the first
 * @param lastArrivalNanos when that one arrived, by the computer's steady clock
 * @param gaps the newest ones, oldest first
 * @param lostRows rows missing in gaps, as far as the rate tells
 * @param film the pictures that its rows carry; null where they carry none
 */
public record StreamSnapshot(
        int source,
        double station,
        double rateHz,
        Times times,
        double lastSeconds,
        long lastArrivalNanos,
        List<Gap> gaps,
        long lostRows,
        Film film) {
    /** A station that misses so many of its turns is lost. */
    private static final double LOST_PERIODS = 3;

    private static final double SHORTEST_SILENCE_SECONDS = 1.5;

    static final StreamSnapshot NONE = new StreamSnapshot(0, Double.NaN, Double.NaN, null, Double.NaN, 0, List.of(), 0);

    /** A line of samples without pictures. */
    public StreamSnapshot(
            int source,
            double station,
            double rateHz,
            Times times,
            double lastSeconds,
            long lastArrivalNanos,
            List<Gap> gaps,
            long lostRows) {
        this(source, station, rateHz, times, lastSeconds, lastArrivalNanos, gaps, lostRows, null);
    }

    public StreamSnapshot {
        gaps = List.copyOf(gaps);
    }

    StreamSnapshot withFilm(Film other) {
        return new StreamSnapshot(source, station, rateHz, times, lastSeconds, lastArrivalNanos, gaps, lostRows, other);
    }

    /** Which line of samples it is, of all that a trail has. */
    public record Key(int source, double station) {
        // Written out: what the language makes of a record is linked at its first call, and the first frame waits for
        // it.
        @Override
        public boolean equals(Object other) {
            return other instanceof Key key && key.source == source && Double.compare(key.station, station) == 0;
        }

        @Override
        public int hashCode() {
            return 31 * source + Double.hashCode(station);
        }
    }

    public Key key() {
        return new Key(source, station);
    }

    /** @return how long nothing was heard of it, in s */
    public double silenceSeconds(long nanoTime) {
        return Math.max(0, (nanoTime - lastArrivalNanos) * 1e-9);
    }

    /** @return its own state: lost when it alone is silent while its source is alive, else the source's */
    public LinkState state(LinkState source, long nanoTime) {
        boolean alive = source == LinkState.LIVE || source == LinkState.HELD;
        if (Double.isNaN(station) || !alive || lastArrivalNanos == 0) {
            return source;
        }
        double patience = Math.max(SHORTEST_SILENCE_SECONDS, LOST_PERIODS / rateHz);
        return silenceSeconds(nanoTime) > patience ? LinkState.LOST : LinkState.LIVE;
    }
}
