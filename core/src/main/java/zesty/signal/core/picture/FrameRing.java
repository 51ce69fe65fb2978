package zesty.signal.core.picture;

import zesty.signal.core.sample.Packed;

/** The newest pictures of a running stream, packed without loss. One thread writes, any may read. */
public final class FrameRing {
    private final int pixels;
    /** What is written here is seen by others once {@link #end} says so. */
    private final Packed[] frames;

    private volatile long end;

    /** @param capacity so many pictures are kept, 1 at least */
    public FrameRing(int pixels, int capacity) {
        this.pixels = pixels;
        frames = new Packed[Math.max(1, capacity)];
    }

    /** @return a ring of at most that many pictures, such as the one given, that takes about so many bytes */
    public static FrameRing within(long bytes, double[] such, int most) {
        // Another picture may need codes of twice the width.
        long each =
                such == null ? 8 : Math.min(8, 2L * Packed.of(such, such.length).width());
        int pixels = such == null ? 1 : such.length;
        return new FrameRing(pixels, (int) Math.max(8, Math.min(most, bytes / (each * pixels))));
    }

    /** @return the first row at hand */
    public long start() {
        return Math.max(0, end - frames.length);
    }

    public long end() {
        return end;
    }

    /** Adds the next row's picture. @param frame null where it has none */
    public void append(double[] frame) {
        long row = end;
        frames[(int) (row % frames.length)] = frame == null ? null : Packed.of(frame, pixels);
        end = row + 1;
    }

    /** @return the picture of a row; null where it is missing or gone */
    public double[] frame(long row) {
        if (row < start() || row >= end) {
            return null;
        }
        Packed packed = frames[(int) (row % frames.length)];
        if (packed == null || row < start()) {
            return null;
        }
        double[] frame = new double[pixels];
        packed.unpack(frame, 0, pixels);
        return frame;
    }
}
