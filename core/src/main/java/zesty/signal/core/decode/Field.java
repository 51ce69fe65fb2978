package zesty.signal.core.decode;

import java.util.Objects;
import zesty.signal.core.text.Messages;

/**
 * Where in a packet a column's number is.
 *
 * @param offset of its first byte, from the first byte after the start bytes
 * @param type how its bytes are read
 * @param littleEndian whether the lowest byte comes first
 * @param shift bits to take off at the low end, as where counts are left-aligned
 * @param bits bits to keep after that; 0 for all
 * @param stride bytes from one row's number to the next in a packet of several rows; 0 when the rows share it
 */
public record Field(int offset, Type type, boolean littleEndian, int shift, int bits, int stride) {
    /** How a number is written in bytes. Whole numbers with a sign are two's complement. */
    public enum Type {
        U8(1, false, false),
        I8(1, true, false),
        U16(2, false, false),
        I16(2, true, false),
        U24(3, false, false),
        I24(3, true, false),
        U32(4, false, false),
        I32(4, true, false),
        F32(4, true, true),
        F64(8, true, true);

        private final int bytes;
        private final boolean signed;
        private final boolean floating;

        Type(int bytes, boolean signed, boolean floating) {
            this.bytes = bytes;
            this.signed = signed;
            this.floating = floating;
        }

        public int bytes() {
            return bytes;
        }

        public boolean signed() {
            return signed;
        }

        public boolean floating() {
            return floating;
        }

        /** @return the type of whole numbers of so many bytes, 1 to 4 */
        public static Type whole(int bytes, boolean signed) {
            for (Type type : values()) {
                if (type.bytes == bytes && type.signed == signed && !type.floating) {
                    return type;
                }
            }
            throw new IllegalArgumentException(Messages.of("decode.whole-numbers-have-1-to-4-bytes", bytes));
        }
    }

    public Field {
        Objects.requireNonNull(type, "type");
        int width = type.bytes() * 8;
        if (offset < 0 || stride < 0 || shift < 0 || bits < 0 || shift + bits > width || shift >= width) {
            throw new IllegalArgumentException(
                    Messages.of("decode.a-field-lies-within-its-packet-and", offset, stride, shift, bits, width));
        }
        if (type.floating() && (shift > 0 || bits > 0)) {
            throw new IllegalArgumentException(Messages.of("decode.a-floating-point-field-has-no-bits"));
        }
    }

    public Field(int offset, Type type, boolean littleEndian) {
        this(offset, type, littleEndian, 0, 0, 0);
    }

    /** @return one past its last byte, for the given number of rows in a packet */
    int end(int rows) {
        return offset + (rows - 1) * stride + type.bytes();
    }

    /** @return the number it starts again from 0 at; 0 for a floating one */
    double wrap() {
        return type.floating() ? 0 : Math.scalb(1.0, bits > 0 ? bits : type.bytes() * 8 - shift);
    }

    /** @return the number written at {@code at}, the place of this field's first byte */
    public double read(byte[] data, int at) {
        return switch (type) {
            case F32 -> Float.intBitsToFloat((int) raw(data, at));
            case F64 -> Double.longBitsToDouble(raw(data, at));
            default -> whole(raw(data, at));
        };
    }

    private double whole(long raw) {
        int width = type.bytes() * 8;
        if (bits > 0) {
            long part = raw >>> shift & (1L << bits) - 1;
            return type.signed() ? part << (64 - bits) >> (64 - bits) : part;
        }
        long value = type.signed() ? raw << (64 - width) >> (64 - width) : raw;
        return value >> shift;
    }

    private long raw(byte[] data, int at) {
        int n = type.bytes();
        long value = 0;
        if (littleEndian) {
            for (int i = n - 1; i >= 0; i--) {
                value = value << 8 | data[at + i] & 0xff;
            }
        } else {
            for (int i = 0; i < n; i++) {
                value = value << 8 | data[at + i] & 0xff;
            }
        }
        return value;
    }
}
