package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/**
 * Decodes delimited text as it arrives, in pieces of any size. A line either becomes one whole row or is set aside with
 * its reason; a column never shifts. Lines that equal the header are passed over. An unfinished last line waits for its
 * end. Not thread-safe, but for {@link #setAside()}.
 */
public final class DelimitedDecoder {
    /** A line longer than this is cut here, in bytes: no board writes such a one, so it is rubbish without an end. */
    public static final int LINE_LIMIT = 1 << 16;

    private final DelimitedFormat format;
    private final SetAside setAside;
    private final NumberText number;
    private final byte delimiter;
    /** Whether lines can be read straight through: single delimiters, none at the end. */
    private final boolean straight;
    /** What the decimal sign is when 0 has been taken off it, as off a digit. */
    private final int point;

    private final int width;

    private double[][] columns;
    private int rows;
    private byte[] carry = new byte[512];
    private int carried;
    private boolean overlong;
    private boolean firstMayBeHalf;
    private long lines;
    private long headers;

    public DelimitedDecoder(DelimitedFormat format, SetAside setAside) {
        this.format = format;
        this.setAside = setAside;
        number = new NumberText(format.decimalComma());
        delimiter = (byte) format.delimiter();
        straight = format.delimiter() != ' ' && !format.trailingDelimiter();
        point = (format.decimalComma() ? ',' : '.') - '0';
        width = format.columns().size();
        columns = new double[width][256];
    }

    /** @return the format in force */
    public DelimitedFormat format() {
        return format;
    }

    /** @return the lines not understood */
    public SetAside setAside() {
        return setAside;
    }

    /** @return finished lines so far, whatever became of them */
    public long lines() {
        return lines;
    }

    /** @return header lines passed over so far */
    public long headers() {
        return headers;
    }

    /**
     * Forgets an unfinished line, as after the link was opened anew.
     *
     * @param midStream whether the board may be in the middle of a line: the first one is then set aside, since a
     *     number with its front cut off looks like any other
     */
    public void restart(boolean midStream) {
        if (carried > 0) {
            lines++;
            reject(carry, 0, carried, "the link closed in the middle of this line");
        }
        carried = 0;
        overlong = false;
        firstMayBeHalf = midStream;
    }

    /** Decodes the next bytes of the stream; the rows wait for {@link #takeRows()}. */
    public void feed(byte[] bytes, int offset, int length) {
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

    private static int lastLineEnd(byte[] bytes, int from, int to) {
        for (int i = to - 1; i >= from; i--) {
            if (bytes[i] == '\n') {
                return i;
            }
        }
        return -1;
    }

    /** @return the rows decoded since the last call, handed over */
    public Rows takeRows() {
        Rows taken = new Rows(columns, rows);
        columns = new double[width][Math.max(256, rows)];
        rows = 0;
        return taken;
    }

    /** @return how many rows wait to be taken */
    public int waiting() {
        return rows;
    }

    private void carry(byte[] bytes, int from, int to) {
        int length = to - from;
        if (carried + length > LINE_LIMIT) {
            if (!overlong) {
                lines++;
                reject(carry, 0, carried, "no line ending within " + LINE_LIMIT + " bytes");
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

    private static int indexOfLineEnd(byte[] bytes, int from, int to) {
        for (int i = from; i < to; i++) {
            if (bytes[i] == '\n') {
                return i;
            }
        }
        return -1;
    }

    /**
     * Decodes the line that starts at {@code from}: straight through while it is what it should be, else with care.
     * Ugly for speed: digits are read without asking for the end, since {@code last}, the place of a line ending at or
     * after this line's own, stops every number.
     *
     * @return where the next line starts
     */
    private int line(byte[] bytes, int from, int last) {
        if (rows == columns[0].length) {
            for (int c = 0; c < width; c++) {
                columns[c] = Arrays.copyOf(columns[c], rows * 2);
            }
        }
        if (straight && !firstMayBeHalf) {
            int at = from;
            int row = rows;
            for (int c = 0; c < width; c++) {
                int sign = bytes[at];
                if (sign == '-') {
                    at++;
                }
                int start = at;
                long mantissa = 0;
                int digit = bytes[at] - '0';
                while (digit >= 0 && digit <= 9) {
                    mantissa = mantissa * 10 + digit;
                    digit = bytes[++at] - '0';
                }
                int decimals = 0;
                if (digit == point) {
                    int afterPoint = at + 1;
                    digit = bytes[++at] - '0';
                    while (digit >= 0 && digit <= 9) {
                        mantissa = mantissa * 10 + digit;
                        digit = bytes[++at] - '0';
                    }
                    decimals = at - afterPoint;
                }
                int length = at - start;
                // Up to 15 digits are exact in a double, and so is the power of ten: one rounding, as it should be.
                if (length == 0 || length > 15) {
                    break;
                }
                double value = decimals == 0 ? mantissa : mantissa / NumberText.POWERS_OF_TEN[decimals];
                columns[c][row] = sign == '-' ? -value : value;
                if (c < width - 1) {
                    if (bytes[at] != delimiter) {
                        break;
                    }
                    at++;
                    continue;
                }
                if (bytes[at] == '\r' && at < last) {
                    at++;
                }
                if (bytes[at] == '\n') {
                    rows++;
                    lines++;
                    return at + 1;
                }
            }
        }
        int stop = indexOfLineEnd(bytes, from, last + 1);
        careful(bytes, from, stop > from && bytes[stop - 1] == '\r' ? stop - 1 : stop);
        return stop + 1;
    }

    private void careful(byte[] bytes, int from, int to) {
        lines++;
        if (to - from > LINE_LIMIT) {
            reject(bytes, from, to, "no line ending within " + LINE_LIMIT + " bytes");
            return;
        }
        String text = new String(bytes, from, to - from, StandardCharsets.UTF_8);
        if (text.isBlank()) {
            firstMayBeHalf = false;
            reject(bytes, from, to, "blank line");
            return;
        }
        if (!format.header().isEmpty() && text.strip().equals(format.header())) {
            firstMayBeHalf = false;
            headers++;
            return;
        }
        if (firstMayBeHalf) {
            firstMayBeHalf = false;
            reject(bytes, from, to, "first line, may be half a line");
            return;
        }
        String[] fields = Fields.split(text, format.delimiter(), format.trailingDelimiter());
        if (fields.length != width) {
            reject(
                    bytes,
                    from,
                    to,
                    fields.length + (fields.length == 1 ? " field" : " fields") + " where there should be " + width);
            return;
        }
        boolean any = false;
        for (int c = 0; c < width; c++) {
            byte[] field = fields[c].getBytes(StandardCharsets.UTF_8);
            double value = number.parse(field, 0, field.length);
            boolean whole = number.stop == field.length;
            if (!whole && !NumberText.isMissing(fields[c])) {
                reject(
                        bytes,
                        from,
                        to,
                        "'" + fields[c] + "' in column " + (c + 1) + " ("
                                + format.columns().get(c).name() + ") is no number");
                return;
            }
            any |= whole;
            columns[c][rows] = whole ? value : Double.NaN;
        }
        if (!any) {
            reject(bytes, from, to, "no number in any column");
            return;
        }
        rows++;
    }

    private void reject(byte[] bytes, int from, int to, String why) {
        int kept = Math.min(to - from, 1024);
        setAside.add(lines, new String(bytes, from, kept, StandardCharsets.UTF_8), why);
    }
}
