package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import zesty.signal.core.text.Messages;

/** What all decoders of text have in common: lines, their ends and their limit. */
abstract class LineDecoder implements StreamDecoder {
    /** A line longer than this is cut here, in bytes: no board writes such a one, so it is rubbish without an end. */
    static final int LINE_LIMIT = 1 << 16;

    final RejectedLines rejectedLines;
    final RowBuffer rows;
    long lines;
    long understood;
    boolean firstMayBeHalf;
    private byte[] carry = new byte[512];
    private int carried;
    private boolean overlong;

    private final String header;

    /** @param header a line that is passed over; empty for none */
    LineDecoder(int width, String header, RejectedLines rejectedLines) {
        this(new RowBuffer(width), header, rejectedLines);
    }

    LineDecoder(RowBuffer rows, String header, RejectedLines rejectedLines) {
        this.header = header;
        this.rejectedLines = rejectedLines;
        this.rows = rows;
    }

    @Override
    public final RejectedLines rejectedLines() {
        return rejectedLines;
    }

    @Override
    public final long lines() {
        return lines;
    }

    @Override
    public final long understood() {
        return understood;
    }

    @Override
    public final int waiting() {
        return rows.count;
    }

    @Override
    public final double newest(int column) {
        return rows.newest(column);
    }

    @Override
    public final Rows takeRows() {
        return rows.take();
    }

    @Override
    public void restart(boolean midStream) {
        if (carried > 0) {
            lines++;
            reject(carry, 0, carried, Messages.of("decode.the-link-closed-in-the-middle-of-2"));
        }
        carried = 0;
        overlong = false;
        firstMayBeHalf = midStream;
    }

    @Override
    public final void feed(byte[] bytes, int offset, int length) {
        int at = offset;
        int end = offset + length;
        if (carried > 0 || overlong) {
            int stop = indexOfLineEnd(bytes, at, end);
            int upTo = stop < 0 ? end : stop;
            carry(bytes, at, upTo);
            if (stop < 0) {
                return;
            }
            finishCarried();
            at = stop + 1;
        }
        int last = lastLineEnd(bytes, at, end);
        while (at <= last) {
            at = line(bytes, at, last);
        }
        if (at < end) {
            carry(bytes, at, end);
        }
    }

    /**
     * Decodes the line that starts at {@code from}.
     *
     * @param last the place of a line ending at or after this line's own
     * @return where the next line starts
     */
    int line(byte[] bytes, int from, int last) {
        int stop = indexOfLineEnd(bytes, from, last + 1);
        careful(bytes, from, stop > from && bytes[stop - 1] == '\r' ? stop - 1 : stop);
        return stop + 1;
    }

    /** Decodes one line, its ending taken off, with all care. */
    final void careful(byte[] bytes, int from, int to) {
        lines++;
        if (to - from > LINE_LIMIT) {
            reject(bytes, from, to, Messages.of("decode.no-line-ending-within-bytes", LINE_LIMIT));
            return;
        }
        String text = new String(bytes, from, to - from, StandardCharsets.UTF_8);
        boolean isHeader = !header.isEmpty() && text.strip().equals(header);
        if (isHeader) {
            rows.restarted();
        }
        if (isHeader || passesOver(text.strip())) {
            firstMayBeHalf = false;
            understood += to - from + 1;
            return;
        }
        if (text.isBlank()) {
            firstMayBeHalf = false;
            reject(bytes, from, to, Messages.of("decode.blank-line"));
            return;
        }
        if (firstMayBeHalf) {
            firstMayBeHalf = false;
            reject(bytes, from, to, Messages.of("decode.first-line-may-be-half-a-line"));
            return;
        }
        String why = accept(text);
        if (why == null) {
            understood += to - from + 1;
        } else {
            reject(bytes, from, to, why);
        }
    }

    /** @return whether the line, its blanks trimmed, is neither a row nor worth setting aside */
    boolean passesOver(String line) {
        return false;
    }

    /** Makes rows of a line that is not blank. @return null, or why it was not understood */
    abstract String accept(String line);

    private static int lastLineEnd(byte[] bytes, int from, int to) {
        for (int i = to - 1; i >= from; i--) {
            if (bytes[i] == '\n') {
                return i;
            }
        }
        return -1;
    }

    private static int indexOfLineEnd(byte[] bytes, int from, int to) {
        for (int i = from; i < to; i++) {
            if (bytes[i] == '\n') {
                return i;
            }
        }
        return -1;
    }

    private void carry(byte[] bytes, int from, int to) {
        int length = to - from;
        if (carried + length > LINE_LIMIT) {
            if (!overlong) {
                lines++;
                reject(carry, 0, carried, Messages.of("decode.no-line-ending-within-bytes", LINE_LIMIT));
            }
            overlong = true;
            carried = 0;
            return;
        }
        if (overlong) {
            return;
        }
        if (carried + length > carry.length) {
            carry = Arrays.copyOf(carry, Math.max(carry.length * 2, carried + length));
        }
        System.arraycopy(bytes, from, carry, carried, length);
        carried += length;
    }

    private void finishCarried() {
        if (overlong) {
            overlong = false;
            carried = 0;
            return;
        }
        int length = carried;
        carried = 0;
        if (length == carry.length) {
            carry = Arrays.copyOf(carry, length * 2);
        }
        carry[length] = '\n';
        line(carry, 0, length);
    }

    final void reject(byte[] bytes, int from, int to, String why) {
        int kept = Math.min(to - from, 1024);
        rejectedLines.add(lines, new String(bytes, from, kept, StandardCharsets.UTF_8), why);
    }

    /** @return a list of names for a reason, no longer than a line of the tray */
    static String few(java.util.Collection<String> names) {
        String all = String.join(", ", names);
        return all.length() <= 60 ? all : all.substring(0, 60) + "…";
    }
}
