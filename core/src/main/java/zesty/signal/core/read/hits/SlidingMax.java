package zesty.signal.core.read.hits;

/** The highest of the newest so many values, a few steps a value (D. Lemire 2006, "Streaming maximum-minimum filter"). */
final class SlidingMax {
    private final long[] at;
    private final double[] value;
    private final int window;
    private int head;
    private int size;
    private long count;

    SlidingMax(int window) {
        this.window = window;
        // A power of two, so that going round is a mask.
        int room = Integer.highestOneBit(window + 1) * 2;
        at = new long[room];
        value = new double[room];
    }

    /** @return 0 before the first value, else the highest */
    double highest() {
        return size == 0 ? 0 : value[head];
    }

    void add(double next) {
        while (size > 0 && value[(head + size - 1) & (value.length - 1)] <= next) {
            size--;
        }
        int cell = (head + size) & (value.length - 1);
        at[cell] = count;
        value[cell] = next;
        size++;
        count++;
        if (at[head] <= count - 1 - window) {
            head = (head + 1) & (value.length - 1);
            size--;
        }
    }
}
