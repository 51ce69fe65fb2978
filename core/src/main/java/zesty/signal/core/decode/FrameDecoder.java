package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import zesty.signal.core.text.Messages;

/**
 * Decodes frames that begin with start bytes. In step, a frame follows the frame before it. Out of step, the next start
 * bytes are looked for from the very next byte on, and a frame is believed when its checksum agrees or, where there is
 * none, when another one follows it: so one good frame after the damage is the first or the second that is read. A checksum
 * of eight bits agrees by chance once in 256 times, with the begin of one frame and the rest of the next where bytes between
 * were lost: where what follows does not begin as a frame does, there must be no frame that begins within.
 */
final class FrameDecoder extends PacketDecoder {
    private final byte[] start;
    /** A checksum that agrees by chance once in a while. */
    private final boolean weak;

    private byte[] buffer;
    private int length;
    /** Bytes at the buffer's front that belong to no frame so far. */
    private int astray;

    private boolean inStep;
    private boolean midStream;

    FrameDecoder(PacketFormat format, RejectedLines rejectedLines) {
        super(format, rejectedLines);
        start = format.startBytes();
        weak = format.check().bytes() == 1;
        buffer = new byte[Math.max(4096, 4 * reader.bytes)];
    }

    @Override
    public void restart(boolean mid) {
        if (length > 0) {
            reject(buffer, 0, length, Messages.of("decode.the-link-closed-in-the-middle-of"));
        }
        length = 0;
        astray = 0;
        inStep = false;
        midStream = mid;
    }

    @Override
    public void feed(byte[] bytes, int offset, int count) {
        int at = offset;
        int end = offset + count;
        while (at < end) {
            if (length == 0 && inStep && end - at >= reader.bytes) {
                at = straight(bytes, at, end);
                if (at == end) {
                    return;
                }
            }
            // In step, no more than completes the frame that was cut off: the rest is then read where it lies.
            boolean begun = inStep && astray == 0 && length > 0 && length < reader.bytes;
            int n = Math.min(end - at, (begun ? reader.bytes : buffer.length) - length);
            System.arraycopy(bytes, at, buffer, length, n);
            length += n;
            at += n;
            search();
        }
    }

    /** Reads frames where they lie while they follow each other. @return where that ended */
    private int straight(byte[] bytes, int from, int end) {
        int at = from;
        while (end - at >= reader.bytes
                && starts(bytes, at)
                && reader.agrees(bytes, at)
                && (!weak || goesOn(bytes, at, end))) {
            reader.read(bytes, at);
            at += reader.bytes;
            lines++;
        }
        understood += at - from;
        return at;
    }

    private boolean starts(byte[] bytes, int at) {
        for (int i = 0; i < start.length; i++) {
            if (bytes[at + i] != start[i]) {
                return false;
            }
        }
        return true;
    }

    /** Whether another frame begins behind one. One that has not come yet does, where a start byte alone would often be found within. */
    private boolean goesOn(byte[] bytes, int at, int end) {
        int next = at + reader.bytes;
        if (end - next >= start.length) {
            return starts(bytes, next);
        }
        return start.length == 1;
    }

    /** @return where within a frame another one begins, or may begin once all of it has come; −1 where none does */
    private int within(int at) {
        for (int k = at + 1; k < at + reader.bytes && length - k >= start.length; k++) {
            if (starts(buffer, k) && (length - k < reader.bytes || reader.agrees(buffer, k))) {
                return k;
            }
        }
        return -1;
    }

    private void search() {
        int base = 0;
        int at = astray;
        while (true) {
            if (length - at < start.length) {
                break;
            }
            if (!starts(buffer, at)) {
                inStep = false;
                at++;
                continue;
            }
            boolean proven = format.check() != Check.NONE || inStep;
            int needed = reader.bytes + (proven ? 0 : start.length);
            if (length - at < needed) {
                break;
            }
            boolean agrees = reader.agrees(buffer, at);
            if (agrees && weak && !goesOn(buffer, at, length)) {
                int within = within(at);
                if (within >= 0 && length - within < reader.bytes) {
                    break;
                }
                agrees = within < 0;
            }
            if (!agrees || !proven && !starts(buffer, at + reader.bytes)) {
                inStep = false;
                at++;
                continue;
            }
            strayed(base, at);
            reader.read(buffer, at);
            understood += reader.bytes;
            lines++;
            inStep = true;
            at += reader.bytes;
            base = at;
        }
        drop(base);
        astray = at - base;
        if (length == buffer.length) {
            // What came is longer than any frame: all but a frame's length of it is rubbish.
            int gone = Math.max(1, Math.min(astray, length - reader.bytes));
            strayed(0, gone);
            drop(gone);
            astray = Math.max(0, astray - gone);
        }
    }

    private void strayed(int from, int to) {
        if (to > from && says(from, to)) {
            reader.rows.restarted();
            understood += to - from;
            lines++;
        } else if (to > from) {
            reject(buffer, from, to, why(from, to));
        }
        midStream = false;
    }

    /** Whether the bytes end with the header that the board says when it starts. */
    private boolean says(int from, int to) {
        return !format.header().isEmpty()
                && new String(buffer, from, to - from, StandardCharsets.ISO_8859_1)
                        .strip()
                        .endsWith(format.header());
    }

    private String why(int from, int to) {
        int count = to - from;
        if (midStream) {
            return Messages.of("decode.the-rest-of-a-frame-that-began");
        }
        return count >= reader.bytes && starts(buffer, from) && !reader.agrees(buffer, from)
                ? Messages.of("decode.the-checksum-does-not-agree")
                : Messages.of(
                        "decode.between-frames",
                        count + (count == 1 ? Messages.of("decode.byte") : Messages.of("decode.bytes")));
    }

    private void drop(int count) {
        System.arraycopy(buffer, count, buffer, 0, length - count);
        length -= count;
    }
}
