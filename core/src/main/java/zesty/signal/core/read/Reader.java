package zesty.signal.core.read;

import java.util.List;
import zesty.signal.core.sample.TimeBase;

/**
 * A reader at work on a stream: it takes samples as they come and answers the same whatever the size of the pieces. One
 * instance serves one stream and one thread.
 */
public interface Reader {

    /**
     * Takes the next samples, with no gap within.
     *
     * @param ports one array a port, aligned: {@code ports[p][i]} belongs to time {@code i}. Borrowed for the call and not
     *     written to. NaN is a missing value
     * @param time never falling, in s
     */
    void accept(double[][] ports, int length, TimeBase time);

    /**
     * The same with samples among them that were not measured but filled in, in holes no longer than the kind bridges.
     *
     * @param filled which ones those are; null when none is
     */
    default void accept(double[][] ports, int length, TimeBase time, boolean[] filled) {
        accept(ports, length, time);
    }

    /** Samples are missing here: nothing is stretched across. */
    void gap();

    /** The record is over: what is under way is finished. Nothing may be accepted after it. */
    void finish();

    /**
     * @param fromSeconds and toSeconds the stretch to speak of; what lies before the reader's own memory is not in it.
     *     Negative and positive infinity for all
     * @return the reading of it; asked for at any moment, it changes nothing
     */
    Reading reading(double fromSeconds, double toSeconds);

    /**
     * One number of a reading, for a band that is asked twice a second of stream.
     *
     * @return the same as the reading of that stretch has under the key
     */
    default double scalar(String key, double fromSeconds, double toSeconds) {
        return reading(fromSeconds, toSeconds).scalar(key);
    }

    /** @return the reading of all */
    default Reading reading() {
        return reading(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);
    }

    /** Takes changes made by hand into force, in place of those before; a reader without events has none. */
    default void edited(List<HandEdit> edits) {}

    /** Is told what the columns it reads are called, in the order of its ports; before the first samples. */
    default void named(List<String> columns) {}
}
