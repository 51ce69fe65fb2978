package zesty.signal.exchange;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;

/**
 * The headers of an HDF5 file as far as columns of numbers need them: superblock of version 2, object headers of version 2, links
 * within the header of their group, data in one piece (The HDF Group, "HDF5 File Format Specification Version 3.0"). All
 * addresses are known before the first byte is written, so that a file goes from front to end, however long it is.
 */
final class Hdf5Headers {
    static final int SUPERBLOCK = 48;
    private static final long NOWHERE = -1;
    private static final int PREFIX = 10;
    private static final int CHECK = 4;
    private static final int MESSAGE = 4;

    private static final int DATASPACE = 1;
    private static final int LINK_INFO = 2;
    private static final int DATATYPE = 3;
    private static final int FILL = 5;
    private static final int LINK = 6;
    private static final int LAYOUT = 8;
    private static final int GROUP_INFO = 10;
    private static final int ATTRIBUTE = 12;

    private static final byte[] DOUBLES = buffer(20)
            .put(new byte[] {0x11, 0x20, 63, 0})
            .putInt(Double.BYTES)
            .putShort((short) 0)
            .putShort((short) 64)
            .put(new byte[] {52, 11, 0, 52})
            .putInt(1023)
            .array();
    private static final byte[] SCALAR = {2, 0, 0, 0};

    private Hdf5Headers() {}

    private static ByteBuffer buffer(int size) {
        return ByteBuffer.allocate(size).order(ByteOrder.LITTLE_ENDIAN);
    }

    /** @param root where the header of the root group lies. @param end the length of the file */
    static byte[] superblock(long root, long end) {
        ByteBuffer block = buffer(SUPERBLOCK)
                .put(new byte[] {(byte) 0x89, 'H', 'D', 'F', '\r', '\n', 0x1a, '\n', 2, 8, 8, 0})
                .putLong(0)
                .putLong(NOWHERE)
                .putLong(end)
                .putLong(root);
        return checked(block);
    }

    private static byte[] checked(ByteBuffer block) {
        int length = block.position();
        return block.putInt(lookup3(block.array(), length)).array();
    }

    /** @param messages each with its type before it. */
    private static byte[] header(byte[]... messages) {
        int size = 0;
        for (byte[] one : messages) {
            size += one.length;
        }
        ByteBuffer header = buffer(PREFIX + size + CHECK)
                .put(new byte[] {'O', 'H', 'D', 'R', 2, 2})
                .putInt(size);
        for (byte[] one : messages) {
            header.put(one);
        }
        return checked(header);
    }

    private static byte[] message(int type, byte[] data) {
        return buffer(MESSAGE + data.length)
                .put((byte) type)
                .putShort((short) data.length)
                .put((byte) 0)
                .put(data)
                .array();
    }

    /** The header of a group. @param addresses where the headers of its members lie, by {@code names} */
    static byte[] group(String[] names, long[] addresses) {
        byte[][] messages = new byte[names.length + 2][];
        messages[0] = message(
                LINK_INFO,
                buffer(18).putShort((short) 0).putLong(NOWHERE).putLong(NOWHERE).array());
        messages[1] = message(GROUP_INFO, new byte[2]);
        for (int i = 0; i < names.length; i++) {
            byte[] name = name(names[i]);
            // A hard link with a name in UTF-8, whose length takes one byte.
            messages[i + 2] = message(
                    LINK,
                    buffer(4 + name.length + Long.BYTES)
                            .put(new byte[] {1, 0x10, 1, (byte) name.length})
                            .put(name)
                            .putLong(addresses[i])
                            .array());
        }
        return header(messages);
    }

    /** @return what of a name fits into a link */
    private static byte[] name(String name) {
        String text = name.isEmpty() ? "_" : name;
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        while (bytes.length > 255) {
            text = text.substring(0, text.length() - 1);
            bytes = text.getBytes(StandardCharsets.UTF_8);
        }
        return bytes;
    }

    /** The header of a column of doubles. @param address where its data begin */
    static byte[] numbers(long address, long rows, String unit, double rateHz) {
        return header(
                message(DATASPACE, space(rows)),
                message(DATATYPE, DOUBLES),
                message(FILL, new byte[] {3, 0x0A}),
                layout(address, rows * Double.BYTES),
                attribute(
                        "unit",
                        texts(unit.getBytes(StandardCharsets.UTF_8).length),
                        unit.getBytes(StandardCharsets.UTF_8)),
                attribute(
                        "rate_hz",
                        DOUBLES,
                        buffer(Double.BYTES).putDouble(rateHz).array()));
    }

    /** The header of a column of texts. @param width of each, in bytes, filled up with zeros */
    static byte[] texts(long address, long rows, int width) {
        return header(
                message(DATASPACE, space(rows)),
                message(DATATYPE, texts(width)),
                message(FILL, new byte[] {3, 0x0A}),
                layout(address, rows * width));
    }

    private static byte[] texts(int width) {
        return buffer(8).put(new byte[] {0x13, 0x11, 0, 0}).putInt(width).array();
    }

    private static byte[] space(long rows) {
        return buffer(12).put(new byte[] {2, 1, 0, 1}).putLong(rows).array();
    }

    private static byte[] layout(long address, long size) {
        return message(
                LAYOUT,
                buffer(18)
                        .put(new byte[] {3, 1})
                        .putLong(size == 0 ? NOWHERE : address)
                        .putLong(size)
                        .array());
    }

    private static byte[] attribute(String name, byte[] type, byte[] value) {
        byte[] called = (name + '\0').getBytes(StandardCharsets.UTF_8);
        return message(
                ATTRIBUTE,
                buffer(9 + called.length + type.length + SCALAR.length + value.length)
                        .put(new byte[] {3, 0})
                        .putShort((short) called.length)
                        .putShort((short) type.length)
                        .putShort((short) SCALAR.length)
                        .put((byte) 1)
                        .put(called)
                        .put(type)
                        .put(SCALAR)
                        .put(value)
                        .array());
    }

    /** The checksum of the format (R. J. Jenkins 2006, "lookup3.c", hashlittle with 0). */
    static int lookup3(byte[] bytes, int length) {
        ByteBuffer in = ByteBuffer.wrap(java.util.Arrays.copyOf(bytes, (length + 11) / 12 * 12 + 12))
                .order(ByteOrder.LITTLE_ENDIAN);
        // What lies behind the end counts as zero.
        for (int i = length; i < in.capacity(); i++) {
            in.put(i, (byte) 0);
        }
        int a = 0xdeadbeef + length;
        int b = a;
        int c = a;
        int at = 0;
        for (int left = length; left > 12; left -= 12, at += 12) {
            a += in.getInt(at);
            b += in.getInt(at + 4);
            c += in.getInt(at + 8);
            a = a - c ^ Integer.rotateLeft(c, 4);
            c += b;
            b = b - a ^ Integer.rotateLeft(a, 6);
            a += c;
            c = c - b ^ Integer.rotateLeft(b, 8);
            b += a;
            a = a - c ^ Integer.rotateLeft(c, 16);
            c += b;
            b = b - a ^ Integer.rotateLeft(a, 19);
            a += c;
            c = c - b ^ Integer.rotateLeft(b, 4);
            b += a;
        }
        if (length == 0) {
            return c;
        }
        a += in.getInt(at);
        b += in.getInt(at + 4);
        c += in.getInt(at + 8);
        c = (c ^ b) - Integer.rotateLeft(b, 14);
        a = (a ^ c) - Integer.rotateLeft(c, 11);
        b = (b ^ a) - Integer.rotateLeft(a, 25);
        c = (c ^ b) - Integer.rotateLeft(b, 16);
        a = (a ^ c) - Integer.rotateLeft(c, 4);
        b = (b ^ a) - Integer.rotateLeft(a, 14);
        c = (c ^ b) - Integer.rotateLeft(b, 24);
        return c;
    }
}
