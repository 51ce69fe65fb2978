package zesty.signal.core.sample;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/**
 * Values packed without loss, but for the sign of a zero: value = (base + code) / divisor, the codes little-endian and unsigned in {@code width}
 * bytes, the highest code standing for a missing value; or, with width 8, the doubles themselves.
 *
 * @param width 1, 2, 4 or 8 bytes a value
 * @param divisor 1, 10, 100, 1000 or 1000000; 1 with width 8
 * @param base added to every code; 0 with width 8
 */
public record Packed(int width, double divisor, long base, byte[] data) {
    private static final double[] DIVISORS = {1, 10, 100, 1000, 1e6};
    private static final double EXACT = 1L << 53;

    /** @return the first {@code length} values, packed */
    public static Packed of(double[] values, int length) {
        for (double divisor : DIVISORS) {
            Packed packed = whole(values, length, divisor);
            if (packed != null) {
                return packed;
            }
        }
        ByteBuffer buffer = buffer(length * 8);
        for (int i = 0; i < length; i++) {
            buffer.putDouble(values[i]);
        }
        return new Packed(8, 1, 0, buffer.array());
    }

    private static Packed whole(double[] values, int length, double divisor) {
        double lowest = Double.POSITIVE_INFINITY;
        double highest = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < length; i++) {
            double value = values[i];
            if (Double.isNaN(value)) {
                continue;
            }
            double code = Math.rint(value * divisor);
            boolean same = Double.doubleToRawLongBits(code / divisor) == Double.doubleToRawLongBits(value);
            if (!same || Math.abs(code) >= EXACT) {
                return null;
            }
            lowest = Math.min(lowest, code);
            highest = Math.max(highest, code);
        }
        double span = highest < lowest ? 0 : highest - lowest;
        int width = span < 0xff ? 1 : span < 0xffff ? 2 : span < 0xffffffffL ? 4 : 8;
        if (width == 8) {
            return null;
        }
        long base = highest < lowest ? 0 : (long) lowest;
        long missing = missing(width);
        ByteBuffer buffer = buffer(length * width);
        for (int i = 0; i < length; i++) {
            long code = Double.isNaN(values[i]) ? missing : (long) Math.rint(values[i] * divisor) - base;
            switch (width) {
                case 1 -> buffer.put((byte) code);
                case 2 -> buffer.putShort((short) code);
                default -> buffer.putInt((int) code);
            }
        }
        return new Packed(width, divisor, base, buffer.array());
    }

    /** @return whether it can be so many values */
    public boolean holds(int length) {
        return (width == 1 || width == 2 || width == 4 || width == 8)
                && data != null
                && data.length == (long) length * width
                && Double.isFinite(divisor)
                && divisor != 0;
    }

    private static long missing(int width) {
        return (1L << (8 * width)) - 1;
    }

    private static ByteBuffer buffer(int bytes) {
        return ByteBuffer.allocate(bytes).order(ByteOrder.LITTLE_ENDIAN);
    }

    /** Unpacks {@code length} values, which it {@link #holds}, into {@code into} from {@code offset} on. */
    public void unpack(double[] into, int offset, int length) {
        ByteBuffer buffer = ByteBuffer.wrap(data).order(ByteOrder.LITTLE_ENDIAN);
        long missing = width == 8 ? 0 : missing(width);
        for (int i = 0; i < length; i++) {
            if (width == 8) {
                into[offset + i] = buffer.getDouble();
                continue;
            }
            long code =
                    switch (width) {
                        case 1 -> buffer.get() & 0xffL;
                        case 2 -> buffer.getShort() & 0xffffL;
                        default -> buffer.getInt() & 0xffffffffL;
                    };
            into[offset + i] = code == missing ? Double.NaN : (base + code) / divisor;
        }
    }
}
