package zesty.signal.takes;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import zesty.signal.core.text.Messages;

/**
 * A CSV file that is read in pieces, however long it is: what its head says of columns and time is known at once, the rows go
 * by. One thread at a time.
 */
public final class CsvPieces {
    private static final int FEW = 50;
    static final int HEAD = 4096;
    private static final int ROWS = 1 << 14;

    private final Path file;
    private final CsvShape shape;
    private final List<String> headers;
    private final List<String> units;
    private final CsvClock clock;
    private final long firstLine;
    private final String firstTime;
    private double before;
    private String beforeText = "";
    /** Whether the rows that are being read have times. */
    private boolean timed;

    private long delivered;

    /** Takes rows: their times, null where the file tells none, and each column's values, NaN where one is missing. */
    @FunctionalInterface
    public interface Taker {
        void take(double[] seconds, double[][] values) throws IOException;
    }

    /**
     * @param timeColumn the column that tells the time; empty to find it
     * @throws TakeException when it is no table, or has no such column
     */
    public CsvPieces(Path file, String timeColumn) throws TakeException {
        this.file = file;
        if (!Files.exists(file)) {
            throw new TakeException(file + DiskWords.absent(file));
        }
        if (Files.isDirectory(file)) {
            throw new TakeException(Messages.of("takes.is-a-folder-a-csv-file-with-a", file));
        }
        try {
            shape = CsvShape.of(file);
        } catch (IOException e) {
            throw new TakeException(Messages.of("takes.cannot-be-read-as-csv", file, DiskWords.of(e)), e);
        }
        List<String[]> few = new ArrayList<>();
        List<String> written;
        long first = 0;
        try (CsvRecords records = new CsvRecords(file, shape)) {
            written = records.header();
            while (few.size() < FEW && records.next()) {
                first = first == 0 ? records.line() : first;
                few.add(records.fields());
            }
        }
        if (few.size() < 2) {
            throw Table.tooFew(file, few.size());
        }
        firstLine = first;
        headers = written.stream().map(Table::bare).toList();
        units = written.stream().map(Table::unitOf).toList();
        if (timeColumn.isEmpty()) {
            clock = CsvClock.of(written, few, shape).orElse(null);
        } else {
            int index = headers.indexOf(timeColumn);
            if (index < 0) {
                throw Table.noColumn(file, timeColumn, headers);
            }
            clock = CsvClock.of(index, written, few, shape);
        }
        firstTime = clock == null ? "" : few.get(0)[clock.column()];
    }

    public List<String> headers() {
        return headers;
    }

    /** @return the unit of each column as the header writes it; empty where it writes none */
    public List<String> units() {
        return units;
    }

    /** @return the place of the column that tells the time; −1 where none does */
    public int timeColumn() {
        return clock == null ? -1 : clock.column();
    }

    /** @return the calendar's moment of the first row, where the file gives dates */
    public Optional<Instant> started() {
        return clock == null ? Optional.empty() : clock.moment(firstTime);
    }

    /** @return what was guessed of how the file is written and timed, in words; none for a plain one */
    public List<String> guesses() {
        return Stream.of(shape.words(), clock == null ? "" : clock.words())
                .filter(words -> !words.isEmpty())
                .toList();
    }

    /**
     * The first rows, some thousands at most.
     *
     * @param times counted from the first
     * @param values of the other columns; NaN where there is no number
     */
    public record First(double[] times, List<double[]> values) {}

    /** @return the first rows; null where the file tells no times */
    public First first() throws TakeException {
        if (clock == null) {
            return null;
        }
        double[] times = new double[HEAD];
        double[][] values = new double[headers.size()][HEAD];
        int n = 0;
        before = Double.NEGATIVE_INFINITY;
        try (CsvRecords records = new CsvRecords(file, shape)) {
            while (n < HEAD && records.next()) {
                for (int c = 0; c < values.length; c++) {
                    values[c][n] = shape.number(records.fields()[c]);
                }
                times[n++] = time(records.fields()[clock.column()], records.line());
            }
        }
        double zero = times[0];
        double[] counted = Arrays.copyOf(times, n);
        Arrays.setAll(counted, i -> counted[i] - zero);
        List<double[]> others = new ArrayList<>();
        for (int c = 0; c < values.length; c++) {
            if (c != clock.column()) {
                others.add(Arrays.copyOf(values[c], n));
            }
        }
        return new First(counted, others);
    }

    /** @return how many rows it has; goes through all of it. @throws TakeException where a row is missing */
    public long count() throws TakeException {
        try (PlainRows rows = new PlainRows(file, shape, headers, firstLine, -1, -1)) {
            return rows.count();
        } catch (PlainRows.NotPlain e) {
            long n = 0;
            try (CsvRecords records = new CsvRecords(file, shape)) {
                while (records.next()) {
                    n++;
                }
            }
            return n;
        } catch (IOException e) {
            throw unreadable(e);
        }
    }

    private TakeException unreadable(IOException e) {
        return e instanceof TakeException said
                ? said
                : new TakeException(Messages.of("takes.cannot-be-read-as-csv", file, DiskWords.of(e)), e);
    }

    /**
     * Hands over all rows in order; times count from the first.
     *
     * @param byRate whether the times are left aside, whatever stands in their column
     * @throws TakeException at a cell that holds no number or a time that falls, naming its line
     */
    public void read(boolean byRate, Taker taker) throws IOException {
        before = Double.NEGATIVE_INFINITY;
        delivered = 0;
        timed = clock != null && !byRate;
        boolean numeric = !timed || !Double.isNaN(clock.secondsEach());
        if (numeric) {
            try (PlainRows rows = new PlainRows(
                    file, shape, headers, firstLine, timed ? timeColumn() : -1, timed ? -1 : timeColumn())) {
                plain(rows, taker);
                return;
            } catch (PlainRows.NotPlain e) {
                // From where it is not, record by record.
            }
        }
        slow(taker);
    }

    private void plain(PlainRows rows, Taker taker) throws IOException, PlainRows.NotPlain {
        double zero = Double.NaN;
        while (true) {
            double[][] values = new double[headers.size()][ROWS];
            double last = before;
            int n = rows.next(values);
            if (n == 0) {
                return;
            }
            for (int c = 0; n < ROWS && c < values.length; c++) {
                values[c] = Arrays.copyOf(values[c], n);
            }
            double[] seconds = null;
            if (timed) {
                seconds = values[clock.column()].clone();
                for (int i = 0; i < n; i++) {
                    seconds[i] = clock.seconds(seconds[i]);
                    if (!(seconds[i] >= last)) {
                        // Which line it is, and how it is written, tells the way that goes record by record.
                        throw new PlainRows.NotPlain();
                    }
                    last = seconds[i];
                }
                before = last;
                zero = Double.isNaN(zero) ? seconds[0] : zero;
                for (int i = 0; i < n; i++) {
                    seconds[i] -= zero;
                }
            }
            taker.take(seconds, values);
            delivered += n;
        }
    }

    private void slow(Taker taker) throws IOException {
        try (CsvRecords records = new CsvRecords(file, shape)) {
            double zero = Double.NaN;
            long row = 0;
            before = Double.NEGATIVE_INFINITY;
            boolean more = true;
            while (more) {
                double[][] values = new double[headers.size()][ROWS];
                double[] seconds = timed ? new double[ROWS] : null;
                int n = 0;
                while (n < ROWS && (more = records.next())) {
                    String[] cells = records.fields();
                    if (timed) {
                        seconds[n] = time(cells[clock.column()], records.line());
                        zero = Double.isNaN(zero) ? seconds[n] : zero;
                        seconds[n] -= zero;
                    }
                    if (row++ < delivered) {
                        continue;
                    }
                    for (int c = 0; c < cells.length; c++) {
                        values[c][n] =
                                clock != null && c == clock.column() ? Double.NaN : number(cells[c], c, records.line());
                    }
                    n++;
                }
                if (n > 0) {
                    int rows = n;
                    taker.take(
                            seconds == null ? null : Arrays.copyOf(seconds, n),
                            Arrays.stream(values)
                                    .map(one -> Arrays.copyOf(one, rows))
                                    .toArray(double[][]::new));
                }
            }
        }
    }

    private double time(String cell, long line) throws TakeException {
        double seconds = clock.seconds(cell, shape, before);
        String column = headers.get(clock.column());
        if (Double.isNaN(seconds)) {
            throw CsvRecords.nothing(file, line, column, cell, Messages.of("takes.a-time"));
        }
        if (!(seconds >= before)) {
            throw new TakeException(
                    Messages.of("takes.line-must-not-fall-from-row-to-row", file, line, column, cell, beforeText));
        }
        before = seconds;
        beforeText = cell;
        return seconds;
    }

    private double number(String cell, int column, long line) throws TakeException {
        double value = shape.number(cell);
        if (Double.isNaN(value) && !cell.isBlank() && !cell.strip().equalsIgnoreCase("nan")) {
            throw CsvRecords.nothing(file, line, headers.get(column), cell, Messages.of("takes.a-number"));
        }
        return value;
    }
}
