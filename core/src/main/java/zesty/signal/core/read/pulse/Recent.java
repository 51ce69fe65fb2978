package zesty.signal.core.read.pulse;

/** The newest values of a line of samples, by their running index. */
final class Recent {
    private final double[] ring;
    private final int mask;
    private long end;

    Recent(int capacity) {
        ring = new double[Integer.highestOneBit(Math.max(2, capacity) * 2 - 1)];
        mask = ring.length - 1;
    }

    void add(double x) {
        ring[(int) end++ & mask] = x;
    }

    void clear() {
        end = 0;
    }

    /** @return one past the index of the newest */
    long end() {
        return end;
    }

    long start() {
        return Math.max(0, end - ring.length);
    }

    double at(long index) {
        return ring[(int) index & mask];
    }

    /** @return the value between samples, on the line between its neighbours; at the ends the nearest one */
    double between(double index) {
        double kept = Math.max(start(), Math.min(end - 1, index));
        long whole = (long) Math.floor(kept);
        double part = kept - whole;
        return part == 0 || whole + 1 >= end ? at(whole) : at(whole) * (1 - part) + at(whole + 1) * part;
    }
}
