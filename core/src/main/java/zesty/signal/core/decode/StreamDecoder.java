package zesty.signal.core.decode;

/**
 * Decodes a stream as it arrives, in pieces of any size. A line or packet either becomes whole rows or is set aside with
 * its reason; a column never shifts. What is unfinished waits for its end. Not thread-safe, but for {@link #setAside()}.
 */
public interface StreamDecoder {
    /** @return the format in force */
    StreamFormat format();

    /** @return what was not understood */
    RejectedLines rejectedLines();

    /** @return finished lines or packets so far, whatever became of them */
    long lines();

    /** @return bytes so far that became rows, or a header that was passed over */
    long understood();

    /**
     * Forgets what is unfinished, as after the link was opened anew.
     *
     * @param midStream whether the board may be in the middle of a line or packet: the first one is then set aside,
     *     since a number with its front cut off looks like any other
     */
    void restart(boolean midStream);

    /** Decodes the next bytes of the stream; the rows wait for {@link #takeRows()}. */
    void feed(byte[] bytes, int offset, int length);

    /** @return how many rows wait to be taken */
    int waiting();

    /** @return what the newest of these has in that column; NaN when none waits */
    double newest(int column);

    /** @return the rows decoded since the last call, handed over */
    Rows takeRows();
}
