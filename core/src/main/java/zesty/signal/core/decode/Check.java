package zesty.signal.core.decode;

import zesty.signal.core.text.Messages;

/**
 * A checksum over a packet's bytes. A cyclic one is named by its width and polynomial, R for bits taken in reverse; all
 * follow the parameter model of Williams (1993, A painless guide to CRC error detection algorithms).
 */
public enum Check {
    NONE(Messages.of("decode.no-checksum"), 0),
    SUM8(Messages.of("decode.sum-of-the-bytes"), 1),
    NEGATED_SUM8(Messages.of("decode.negated-sum-of-the-bytes"), 1),
    XOR8(Messages.of("decode.exclusive-or-of-the-bytes"), 1),
    CRC8_07("CRC-8, polynomial 07", 1, 0x07, 0, false, 0),
    CRC8_31R("CRC-8, polynomial 31 reversed", 1, 0x31, 0, true, 0),
    CRC8_31_FF(Messages.of("decode.crc-8-polynomial-31-from-ff"), 1, 0x31, 0xff, false, 0),
    CRC16_1021_FFFF(Messages.of("decode.crc-16-polynomial-1021-from-ffff"), 2, 0x1021, 0xffff, false, 0),
    CRC16_1021_0("CRC-16, polynomial 1021 from 0", 2, 0x1021, 0, false, 0),
    CRC16_8005R_FFFF(Messages.of("decode.crc-16-polynomial-8005-reversed"), 2, 0x8005, 0xffff, true, 0),
    CRC16_8005R_0(Messages.of("decode.crc-16-polynomial-8005-reversed-2"), 2, 0x8005, 0, true, 0),
    CRC32("CRC-32, polynomial 04C11DB7 reversed", 4, 0x04c11db7, 0xffffffff, true, 0xffffffff);

    private final String words;
    private final int bytes;
    private final boolean cyclic;
    private final int start;
    private final boolean reversed;
    private final int last;
    private final int[] table;
    /** What a byte comes to when another byte follows it: two bytes then cost one step. Of 16-bit ones only. */
    private final int[] second;

    Check(String words, int bytes) {
        this.words = words;
        this.bytes = bytes;
        cyclic = false;
        start = 0;
        reversed = false;
        last = 0;
        table = new int[0];
        second = table;
    }

    Check(String words, int bytes, int polynomial, int start, boolean reversed, int last) {
        this.words = words;
        this.bytes = bytes;
        this.start = start;
        this.reversed = reversed;
        this.last = last;
        cyclic = true;
        table = table(polynomial, bytes * 8, reversed);
        second = bytes == 2 ? second(table, reversed) : new int[0];
    }

    private static int[] table(int polynomial, int width, boolean reversed) {
        int[] table = new int[256];
        int backwards = Integer.reverse(polynomial) >>> (32 - width);
        int top = 1 << (width - 1);
        for (int i = 0; i < 256; i++) {
            int value = reversed ? i : i << (width - 8);
            for (int bit = 0; bit < 8; bit++) {
                boolean one = (value & (reversed ? 1 : top)) != 0;
                value = reversed ? value >>> 1 : value << 1;
                value ^= one ? (reversed ? backwards : polynomial) : 0;
            }
            table[i] = value;
        }
        return table;
    }

    private static int[] second(int[] table, boolean reversed) {
        int[] second = new int[256];
        for (int i = 0; i < 256; i++) {
            int one = table[i] & 0xffff;
            second[i] = reversed ? one >>> 8 ^ table[one & 0xff] : (one << 8 ^ table[one >>> 8]) & 0xffff;
        }
        return second;
    }

    /** @return how many bytes it takes in a packet */
    public int bytes() {
        return bytes;
    }

    public String words() {
        return words;
    }

    /** @return the checksum of the bytes from {@code from} to {@code to}, exclusive, as an unsigned number */
    public long of(byte[] data, int from, int to) {
        long mask = bytes == 4 ? 0xffffffffL : (1L << (8 * bytes)) - 1;
        return (cyclic ? cyclic(data, from, to) : plain(data, from, to)) & mask;
    }

    private int cyclic(byte[] data, int from, int to) {
        int value = start;
        int at = from;
        if (bytes == 2) {
            for (; at + 1 < to; at += 2) {
                value = reversed
                        ? second[(value ^ data[at]) & 0xff] ^ table[(value >>> 8 ^ data[at + 1]) & 0xff]
                        : (second[(value >>> 8 ^ data[at]) & 0xff] ^ table[(value ^ data[at + 1]) & 0xff]) & 0xffff;
            }
        }
        if (reversed) {
            for (int i = at; i < to; i++) {
                value = value >>> 8 ^ table[(value ^ data[i]) & 0xff];
            }
        } else {
            int shift = bytes * 8 - 8;
            for (int i = at; i < to; i++) {
                value = value << 8 ^ table[(value >>> shift ^ data[i]) & 0xff];
            }
        }
        return value ^ last;
    }

    private int plain(byte[] data, int from, int to) {
        int value = 0;
        for (int i = from; i < to; i++) {
            value = this == XOR8 ? value ^ data[i] : value + data[i];
        }
        return this == NEGATED_SUM8 ? -value : value;
    }
}
