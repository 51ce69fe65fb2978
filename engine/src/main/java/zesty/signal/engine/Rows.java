package zesty.signal.engine;

/** The rows of one line of samples of a stored take, wherever they are kept. Any thread may read. */
interface Rows {
    long count();

    /** @return the values of a column, by its index in the stream, of rows {@code from … to - 1}; not to be changed */
    double[] values(int column, long from, long to);

    /** @return the times of rows {@code from … to - 1}, in s; not to be changed */
    double[] seconds(long from, long to);

    /** @return whether they lie in memory, and not in a file */
    boolean held();
}
