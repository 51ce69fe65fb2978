package zesty.signal.app.window.bench;

import java.util.function.Supplier;

/**
 * Keeps what takes long to work out for a picture, so that it takes a tenth of the window's time at most: again only after ten times as
 * long as it took, but of another thing at once. Window's thread.
 */
public final class Sparing<T> {
    private static final int PAUSE = 10;

    private T kept;
    private Object of;
    private long atNanos;
    private long tookNanos;

    /** @param what it is of, but for how far that has come with the stream */
    public T get(Object what, Supplier<T> make) {
        long nanos = System.nanoTime();
        if (what.equals(of) && nanos - atNanos < PAUSE * tookNanos) {
            return kept;
        }
        kept = make.get();
        of = what;
        atNanos = System.nanoTime();
        tookNanos = atNanos - nanos;
        return kept;
    }
}
