package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import zesty.signal.core.text.Messages;

/** Decodes packets that end with a byte found nowhere within them: zero-byte-stuffed or escape-framed. */
final class PartedDecoder extends PacketDecoder {
    private static final int LIMIT = PacketFormat.MOST_BYTES * 2;

    private final byte end;
    private final boolean stuffed;
    private final byte[] packet;
    private byte[] carry = new byte[256];
    private int carried;
    private boolean overlong;
    private boolean firstMayBeHalf;

    PartedDecoder(PacketFormat format, RejectedLines rejectedLines) {
        super(format, rejectedLines);
        end = Unpacking.end(format.framing());
        stuffed = format.framing() == Framing.ZERO_STUFFED;
        packet = new byte[reader.bytes];
    }

    @Override
    public void restart(boolean midStream) {
        if (carried > 0) {
            reject(carry, 0, carried, Messages.of("decode.the-link-closed-in-the-middle-of-3"));
        }
        carried = 0;
        overlong = false;
        firstMayBeHalf = midStream;
    }

    @Override
    public void feed(byte[] bytes, int offset, int length) {
        int last = offset + length;
        int at = offset;
        while (at < last) {
            if (stuffed && carried == 0 && !overlong && !firstMayBeHalf) {
                at = straight(bytes, at, last);
                if (at == last) {
                    return;
                }
            }
            int stop = at;
            while (stop < last && bytes[stop] != end) {
                stop++;
            }
            if (stop == last) {
                carry(bytes, at, stop);
                return;
            }
            if (carried == 0 && !overlong) {
                packet(bytes, at, stop);
            } else {
                carry(bytes, at, stop);
                if (overlong) {
                    overlong = false;
                } else {
                    packet(carry, 0, carried);
                }
                carried = 0;
            }
            at = stop + 1;
        }
    }

    /** Reads stuffed packets where they lie, while they are all there and good. @return where that ended */
    private int straight(byte[] bytes, int from, int last) {
        int begin = from;
        while (begin < last) {
            int at = begin;
            int n = 0;
            int code = bytes[at] & 0xff;
            while (code != 0) {
                int next = at + code;
                if (next >= last || n + code - 1 > packet.length) {
                    return begin;
                }
                for (int i = at + 1; i < next; i++) {
                    if (bytes[i] == 0) {
                        return begin;
                    }
                    packet[n++] = bytes[i];
                }
                int following = bytes[next] & 0xff;
                if (following != 0 && code < 0xff) {
                    if (n == packet.length) {
                        return begin;
                    }
                    packet[n++] = 0;
                }
                at = next;
                code = following;
            }
            if (n != packet.length || !reader.agrees(packet, 0)) {
                return begin;
            }
            reader.read(packet, 0);
            lines++;
            understood += at - begin + 1;
            begin = at + 1;
        }
        return begin;
    }

    private void carry(byte[] bytes, int from, int to) {
        int n = to - from;
        if (overlong) {
            return;
        }
        if (carried + n > LIMIT) {
            reject(carry, 0, carried, Messages.of("decode.no-end-of-a-packet-within-bytes", LIMIT));
            overlong = true;
            carried = 0;
            return;
        }
        if (carried + n > carry.length) {
            carry = Arrays.copyOf(carry, Math.max(carry.length * 2, carried + n));
        }
        System.arraycopy(bytes, from, carry, carried, n);
        carried += n;
    }

    private void packet(byte[] bytes, int from, int to) {
        boolean half = firstMayBeHalf;
        firstMayBeHalf = false;
        if (from == to) {
            if (format.framing() == Framing.ZERO_STUFFED && !half) {
                reject(bytes, from, to, Messages.of("decode.an-empty-packet"));
            }
            return;
        }
        int length = Unpacking.unpack(format.framing(), bytes, from, to, packet);
        if (length == packet.length && reader.agrees(packet, 0)) {
            reader.read(packet, 0);
            lines++;
            understood += to - from + 1;
        } else if (isHeader(bytes, from, to)) {
            reader.rows.restarted();
            lines++;
            understood += to - from + 1;
        } else {
            reject(bytes, from, to, why(half, length));
        }
    }

    private boolean isHeader(byte[] bytes, int from, int to) {
        return !format.header().isEmpty()
                && new String(bytes, from, to - from, StandardCharsets.UTF_8)
                        .strip()
                        .endsWith(format.header());
    }

    private String why(boolean half, int length) {
        if (half) {
            return Messages.of("decode.first-packet-may-be-half-a-packet");
        }
        if (length == Unpacking.BROKEN) {
            return Messages.of(
                    "decode.no-packet",
                    (format.framing() == Framing.ZERO_STUFFED
                            ? Messages.of("decode.zero-byte-stuffed")
                            : Messages.of("decode.escape-framed")));
        }
        return length == packet.length
                ? Messages.of("decode.the-checksum-does-not-agree")
                : length > packet.length
                        ? Messages.of("decode.longer-than-the-bytes-of-a-packet", packet.length)
                        : Messages.of("decode.bytes-where-a-packet-has", length, packet.length);
    }
}
