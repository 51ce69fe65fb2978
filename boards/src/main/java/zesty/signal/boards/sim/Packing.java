package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import zesty.signal.core.decode.Check;

/** Writes packets as boards do. */
final class Packing {
    private static final int END = 0xc0;
    private static final int ESCAPE = 0xdb;

    private Packing() {}

    static void put(ByteArrayOutputStream out, long value, int bytes, boolean littleEndian) {
        for (int i = 0; i < bytes; i++) {
            out.write((int) (value >> 8 * (littleEndian ? i : bytes - 1 - i)));
        }
    }

    /** Appends the checksum of everything in {@code out} from {@code from} on. */
    static void check(ByteArrayOutputStream out, int from, Check check, boolean littleEndian) {
        byte[] all = out.toByteArray();
        put(out, check.of(all, from, all.length), check.bytes(), littleEndian);
    }

    /** Appends the packet with its zero bytes taken out, and the zero that ends it. */
    static void stuffed(byte[] packet, ByteArrayOutputStream out) {
        int start = 0;
        while (start <= packet.length) {
            int stop = start;
            while (stop < packet.length && packet[stop] != 0 && stop - start < 254) {
                stop++;
            }
            out.write(stop - start + 1);
            out.write(packet, start, stop - start);
            boolean full = stop - start == 254;
            if (full && stop == packet.length) {
                break;
            }
            start = full ? stop : stop + 1;
        }
        out.write(0);
    }

    /** Appends the packet with its end and escape bytes escaped, between two end bytes. */
    static void escaped(byte[] packet, ByteArrayOutputStream out) {
        out.write(END);
        for (byte b : packet) {
            int value = b & 0xff;
            if (value == END || value == ESCAPE) {
                out.write(ESCAPE);
                out.write(value == END ? 0xdc : 0xdd);
            } else {
                out.write(value);
            }
        }
        out.write(END);
    }
}
