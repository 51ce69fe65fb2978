package zesty.signal.engine;

/** The newest bytes of a link. Any thread. */
public final class ByteTail {
    private final byte[] ring;
    private long count;

    public ByteTail(int capacity) {
        ring = new byte[capacity];
    }

    synchronized void append(byte[] bytes, int length) {
        for (int i = Math.max(0, length - ring.length); i < length; i++) {
            ring[(int) ((count + i) % ring.length)] = bytes[i];
        }
        count += length;
    }

    /** @return how many bytes there were in all */
    public synchronized long count() {
        return count;
    }

    /** @return a copy of the newest bytes, oldest first, at most so many */
    public synchronized byte[] newest(int most) {
        int length = (int) Math.min(Math.min(most, ring.length), count);
        byte[] copy = new byte[length];
        for (int i = 0; i < length; i++) {
            copy[i] = ring[(int) ((count - length + i) % ring.length)];
        }
        return copy;
    }
}
