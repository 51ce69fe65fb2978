package zesty.signal.takes;

import java.io.IOException;
import java.io.InputStream;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.text.Messages;

/**
 * The rows of a CSV file without quotes, straight from its bytes: most tables are such, and long ones are read many times as
 * fast as cell by cell. A number of up to fifteen digits is a whole number over a power of ten, both exact, so that their
 * quotient is the nearest double; any other cell goes the slow way. One thread.
 */
final class PlainRows implements AutoCloseable {
    /** So many digits fit into a double without loss. */
    private static final int EXACT_DIGITS = 15;

    private static final double[] POWERS = {
        1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15
    };
    private static final VarHandle EIGHT = MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
    private static final long ONES = 0x0101010101010101L;
    private static final long HIGH_BITS = 0x8080808080808080L;
    private static final int ROOM = 1 << 20;
    private static final int LONGEST_LINE = 1 << 24;

    /** The file has quotes, or lines that end otherwise: it must be read record by record. */
    static final class NotPlain extends Exception {
        private static final long serialVersionUID = 1;

        NotPlain() {
            super(Messages.of("takes.not-plain"), null, false, false);
        }
    }

    private final Path file;
    private final InputStream in;
    private final CsvShape shape;
    private final List<String> headers;
    private final int time;
    private final int aside;
    private final byte delimiter;
    private final byte point;
    private byte[] bytes = new byte[ROOM];
    private int at;
    private int limit;
    private boolean over;
    private long line;
    private long blank;
    private int start;
    private int end;

    /**
     * @param firstLine the line of the first row, from 1
     * @param time the column that must not be empty; −1 for none
     * @param aside the column that nobody reads, whatever stands in it; −1 for none
     */
    PlainRows(Path file, CsvShape shape, List<String> headers, long firstLine, int time, int aside)
            throws IOException, NotPlain {
        this.file = file;
        this.shape = shape;
        this.headers = headers;
        this.time = time;
        this.aside = aside;
        delimiter = (byte) shape.delimiter();
        point = (byte) (shape.decimalComma() ? ',' : '.');
        in = Files.newInputStream(file);
        while (line < firstLine - 1) {
            if (!advance(false)) {
                throw new NotPlain();
            }
        }
    }

    /** Goes to the next line. @param heed whether quotes matter */
    private boolean advance(boolean heed) throws IOException, NotPlain {
        int i = at;
        while (true) {
            for (i = special(i); i < limit; i = special(i + 1)) {
                byte one = bytes[i];
                if (one == '\n') {
                    start = at;
                    end = i > at && bytes[i - 1] == '\r' ? i - 1 : i;
                    at = i + 1;
                    line++;
                    return true;
                }
                boolean lone = one == '\r' && i + 1 < limit && bytes[i + 1] != '\n';
                if (heed && (one == '"' || lone)) {
                    throw new NotPlain();
                }
            }
            if (over) {
                start = at;
                end = limit;
                at = limit;
                line++;
                return end > start;
            }
            i = fill(i);
        }
    }

    /** @return the next place with a byte that may end a line or be a quote; the limit where there is none. Eight bytes at once */
    private int special(int from) {
        int i = from;
        while (i + Long.BYTES <= limit) {
            long eight = (long) EIGHT.get(bytes, i);
            long found = holds(eight, '\n') | holds(eight, '\r') | holds(eight, '"');
            if (found != 0) {
                return i + (Long.numberOfTrailingZeros(found) >> 3);
            }
            i += Long.BYTES;
        }
        while (i < limit && bytes[i] != '\n' && bytes[i] != '\r' && bytes[i] != '"') {
            i++;
        }
        return i;
    }

    /** @return a word whose lowest bit that is set lies in the first byte that is the sign; 0 where none is */
    private static long holds(long eight, char sign) {
        long other = eight ^ ONES * sign;
        return (other - ONES) & ~other & HIGH_BITS;
    }

    /** @return where the byte at that place stands afterwards */
    private int fill(int place) throws IOException, NotPlain {
        int kept = limit - at;
        if (kept > LONGEST_LINE) {
            throw new NotPlain();
        }
        if (kept == bytes.length) {
            bytes = Arrays.copyOf(bytes, 2 * kept);
        } else if (at > 0) {
            System.arraycopy(bytes, at, bytes, 0, kept);
        }
        int moved = at;
        at = 0;
        limit = kept;
        int n = in.read(bytes, limit, bytes.length - limit);
        over = n < 0;
        limit += Math.max(0, n);
        return place - moved;
    }

    /** Goes to the next line that is a row. @return false at the end */
    private boolean row() throws IOException, NotPlain, TakeException {
        while (advance(true)) {
            int first = start;
            while (first < end && (bytes[first] == ' ' || bytes[first] == '\t')) {
                first++;
            }
            if (first == end && shape.delimiter() != '\t' || start == end) {
                blank = blank == 0 ? line : blank;
                continue;
            }
            byte one = first < end ? bytes[first] : 0;
            boolean usual = one >= '0' && one <= '9' || one == '-' || one == '+' || one == '.';
            if (!usual && CsvShape.comment(text(start, cellEnd(start)))) {
                continue;
            }
            if (blank > 0) {
                throw CsvRecords.missing(file, blank);
            }
            return true;
        }
        return false;
    }

    private int cellEnd(int from) {
        int i = from;
        while (i < end && bytes[i] != delimiter) {
            i++;
        }
        return i;
    }

    private String text(int from, int to) {
        return new String(bytes, from, to - from, StandardCharsets.UTF_8);
    }

    /** @return how many rows there are from here on */
    long count() throws IOException, NotPlain, TakeException {
        long rows = 0;
        while (row()) {
            rows++;
        }
        return rows;
    }

    /**
     * @param into one array a column; NaN for an empty cell
     * @return rows read, up to as many as there is room for; 0 at the end
     * @throws TakeException at a cell that holds no number, naming it
     */
    int next(double[][] into) throws IOException, NotPlain, TakeException {
        int rows = 0;
        while (rows < into[0].length && row()) {
            cells(into, rows);
            rows++;
        }
        return rows;
    }

    private void cells(double[][] into, int row) throws TakeException {
        // Fields of the object are read once: the loop is over each byte of the file.
        byte[] bytes = this.bytes;
        int end = this.end;
        byte delimiter = this.delimiter;
        byte point = this.point;
        int i = start;
        int column = 0;
        while (true) {
            int from = i;
            while (i < end && bytes[i] == ' ') {
                i++;
            }
            boolean negative = i < end && bytes[i] == '-';
            if (negative || i < end && bytes[i] == '+') {
                i++;
            }
            long whole = 0;
            int digits = 0;
            int decimals = -1;
            for (; i < end; i++) {
                int digit = bytes[i] - '0';
                if (digit >= 0 && digit <= 9) {
                    whole = 10 * whole + digit;
                    digits++;
                    decimals += decimals >= 0 ? 1 : 0;
                } else if (bytes[i] == point && decimals < 0) {
                    decimals = 0;
                } else {
                    break;
                }
            }
            double value;
            if (digits > 0 && digits <= EXACT_DIGITS && (i == end || bytes[i] == delimiter)) {
                value = decimals > 0 ? whole / POWERS[decimals] : whole;
                value = negative ? -value : value;
            } else {
                i = cellEnd(i);
                value = slow(text(from, i), column);
            }
            if (column < into.length) {
                into[column][row] = value;
            }
            column++;
            if (i == end) {
                break;
            }
            i++;
        }
        if (column != into.length) {
            throw CsvRecords.cells(file, line, column, into.length);
        }
    }

    private double slow(String cell, int column) throws TakeException {
        double value = shape.number(cell);
        boolean hole = column == aside
                || column != time && (cell.isBlank() || cell.strip().equalsIgnoreCase("nan"));
        if (Double.isNaN(value) && !hole && column < headers.size()) {
            throw CsvRecords.nothing(
                    file,
                    line,
                    headers.get(column),
                    cell,
                    column == time ? Messages.of("takes.a-time") : Messages.of("takes.a-number"));
        }
        return value;
    }

    /** @return the line of the row read last, from 1 */
    long line() {
        return line;
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
