package zesty.signal.core.sample;

/**
 * The samples of one signal in their order, with the extremes of any stretch at about the same small cost: what a lane is
 * painted from, whether it runs or is stored. Any thread may read.
 */
public interface Series {
    /** A stretch of so many samples may be looked at by whole cells, a little beyond its ends. */
    int WIDE = 256;

    /** @return index of the oldest sample that may be read */
    long start();

    /** @return one past the index of the newest sample */
    long end();

    /**
     * @return the sample; NaN for a missing one. The index must lie in {@code start() … end() - 1}. One that has to be
     *     fetched first is waited for
     */
    double value(long index);

    /**
     * The extremes of the samples {@code from … to - 1}; both NaN when there is none. Never waits: what has to be fetched
     * first is looked at by whole cells, as far as they are known.
     *
     * @param extremes receives lowest and highest
     */
    void range(long from, long to, float[] extremes);

    /** @return whether these samples can be had without waiting; if not, they are fetched from now on, unless they are many */
    default boolean atHand(long from, long to) {
        return true;
    }
}
