package zesty.signal.engine;

/** The newest bytes of a link, and when they came. Any thread. */
public final class ByteTail {
    private static final int STAMPS = 1 << 12;

    private final byte[] ring;
    private final long[] stampAt = new long[STAMPS];
    private final long[] stampNanos = new long[STAMPS];
    private long stamps;
    private long count;

    public ByteTail(int capacity) {
        ring = new byte[capacity];
    }

    /**
     * Some of the newest bytes.
     *
     * @param first index of the first of them among all that ever came
     * @param stampAt indices of bytes that arrived at known moments, rising
     * @param stampNanos those moments, by the computer's steady clock
     */
    public record Newest(byte[] bytes, long first, long[] stampAt, long[] stampNanos) {
        /** @return when the byte of that index among all arrived; 0 when that is forgotten */
        public long nanosOf(long index) {
            int at = java.util.Arrays.binarySearch(stampAt, index);
            at = at < 0 ? -at - 2 : at;
            return at < 0 ? 0 : stampNanos[at];
        }
    }

    synchronized void append(byte[] bytes, int length, long nanoTime) {
        int skipped = Math.max(0, length - ring.length);
        int at = (int) ((count + skipped) % ring.length);
        int n = length - skipped;
        int head = Math.min(n, ring.length - at);
        System.arraycopy(bytes, skipped, ring, at, head);
        System.arraycopy(bytes, skipped + head, ring, 0, n - head);
        int stamp = (int) (stamps++ % STAMPS);
        stampAt[stamp] = count;
        stampNanos[stamp] = nanoTime;
        count += length;
    }

    /** @return how many bytes there were in all */
    public synchronized long count() {
        return count;
    }

    /** @return a copy of the newest bytes, oldest first, at most so many */
    public synchronized Newest newest(int most) {
        int length = (int) Math.min(Math.min(most, ring.length), count);
        byte[] copy = new byte[length];
        int at = (int) ((count - length) % ring.length);
        int head = Math.min(length, ring.length - at);
        System.arraycopy(ring, at, copy, 0, head);
        System.arraycopy(ring, 0, copy, head, length - head);
        int known = (int) Math.min(stamps, STAMPS);
        long[] places = new long[known];
        long[] moments = new long[known];
        for (int i = 0; i < known; i++) {
            int stamp = (int) ((stamps - known + i) % STAMPS);
            places[i] = stampAt[stamp];
            moments[i] = stampNanos[stamp];
        }
        return new Newest(copy, count - length, places, moments);
    }
}
