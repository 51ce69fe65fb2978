package zesty.signal.core.sample;

/** The times of the rows of a stream, never falling, beside the {@link Series} of its channels. Any thread may read. */
public interface Times {
    /** @return index of the oldest row that may be read */
    long start();

    /** @return one past the index of the newest row */
    long end();

    /** @return the time of a row, in seconds */
    double secondsAt(long index);

    /** @return index of the first row at or after the time, within {@code start() … end()} */
    long firstAtOrAfter(double time);

    /**
     * As {@link #firstAtOrAfter}, but the row may be another one that came within so many seconds of it, where the exact
     * one would have to be fetched.
     */
    default long near(double time, double withinSeconds) {
        return firstAtOrAfter(time);
    }
}
