package zesty.signal.core.decode;

/** Undoes the stuffing or escaping of a packet. */
final class Unpacking {
    /** The bytes are no packet. */
    static final int BROKEN = -1;

    private static final byte END = (byte) 0xc0;
    private static final byte ESCAPE = (byte) 0xdb;
    private static final byte ESCAPED_END = (byte) 0xdc;
    private static final byte ESCAPED_ESCAPE = (byte) 0xdd;

    private Unpacking() {}

    /** @return the byte that ends a packet */
    static byte end(Framing framing) {
        return framing == Framing.ZERO_STUFFED ? 0 : END;
    }

    /**
     * @param packet receives the bytes, as many as fit
     * @return how many bytes the packet has, even when they do not fit; {@link #BROKEN} when it is none
     */
    static int unpack(Framing framing, byte[] bytes, int from, int to, byte[] packet) {
        return framing == Framing.ZERO_STUFFED ? stuffed(bytes, from, to, packet) : escaped(bytes, from, to, packet);
    }

    private static int stuffed(byte[] bytes, int from, int to, byte[] packet) {
        int n = 0;
        int at = from;
        while (at < to) {
            int code = bytes[at] & 0xff;
            int next = at + code;
            if (code == 0 || next > to) {
                return BROKEN;
            }
            int run = code - 1;
            if (n + run <= packet.length) {
                for (int i = 0; i < run; i++) {
                    packet[n + i] = bytes[at + 1 + i];
                }
            }
            n += run;
            if (code < 0xff && next < to) {
                n = put(packet, n, (byte) 0);
            }
            at = next;
        }
        return n;
    }

    private static int escaped(byte[] bytes, int from, int to, byte[] packet) {
        int n = 0;
        for (int at = from; at < to; at++) {
            byte b = bytes[at];
            if (b == ESCAPE) {
                at++;
                if (at == to || bytes[at] != ESCAPED_END && bytes[at] != ESCAPED_ESCAPE) {
                    return BROKEN;
                }
                b = bytes[at] == ESCAPED_END ? END : ESCAPE;
            }
            n = put(packet, n, b);
        }
        return n;
    }

    private static int put(byte[] packet, int n, byte b) {
        if (n < packet.length) {
            packet[n] = b;
        }
        return n + 1;
    }
}
