package zesty.signal.takes;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import zesty.signal.core.decode.CoarseStamps;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.RepeatedRows;
import zesty.signal.core.text.Messages;

/**
 * Columns of numbers with a header, from a CSV file with a header row or from a take. Cells are read when a column is
 * asked for, so that text in a column nobody computes with does no harm.
 */
public final class Table {
    static final String TIME = "t";
    /** Rows that are looked at to tell how the time is written. */
    private static final int FEW = 50;

    private final Path file;
    private final List<String> headers;
    private final List<String[]> cells;
    private final List<Long> lines;
    private final double[][] values;
    private final double[] times;
    private final CsvShape shape;
    private final CsvClock clock;
    private List<String> units = List.of();
    private List<String> damage = List.of();

    private Table(
            Path file,
            List<String> headers,
            List<String[]> cells,
            List<Long> lines,
            double[][] values,
            double[] times,
            CsvShape shape,
            CsvClock clock) {
        this.file = file;
        this.headers = headers;
        this.cells = cells;
        this.lines = lines;
        this.values = values;
        this.times = times;
        this.shape = shape;
        this.clock = clock;
    }

    /**
     * A table of numbers that another format gave.
     *
     * @param values one array a column, owned by the table from here on; NaN where one is missing
     * @param times of each row, in s, never falling; null where the file tells none
     * @throws TakeException when it holds fewer than two rows
     */
    public static Table of(Path file, List<String> headers, double[][] values, double[] times) throws TakeException {
        Table table = new Table(file, headers, null, null, values, times, CsvShape.PLAIN, null);
        table.enough();
        return table;
    }

    private void enough() throws TakeException {
        if (rows() < 2) {
            throw tooFew(file, rows());
        }
    }

    static TakeException tooFew(Path file, int rows) {
        return new TakeException(Messages.of(
                "takes.holds-of-numbers-at-least-two-are",
                file,
                (rows == 0 ? Messages.of("takes.no-rows") : Messages.of("takes.one-row"))));
    }

    /** @throws TakeException when it cannot be read, is empty, or holds fewer than two rows */
    public static Table open(Path file) throws TakeException {
        return open(file, "");
    }

    /** As {@link #open(Path)}; of a take of several sources, the rows of the one that has the column. */
    public static Table open(Path file, String column) throws TakeException {
        if (!Files.exists(file)) {
            throw new TakeException(file + DiskWords.absent(file));
        }
        if (Files.isDirectory(file)) {
            throw new TakeException(Messages.of("takes.is-a-folder-a-csv-file-with-a-2", file));
        }
        Table table = file.getFileName().toString().endsWith(".zest") ? ofTake(file, column) : ofCsv(file);
        table.enough();
        return table;
    }

    private static int sourceWith(Take take, String column) {
        List<String> names = take.columns().stream().map(Column::name).toList();
        int index = names.indexOf(column);
        return index < 0 ? -1 : take.sourceOf(index);
    }

    private static Table ofTake(Path file, String column) throws TakeException {
        try (Take take = Take.open(file)) {
            // Sources have times of their own: the columns are those of one of them, the one asked for or the first.
            int source = Math.max(0, sourceWith(take, column));
            List<String> names = new ArrayList<>();
            List<double[]> values = new ArrayList<>();
            for (int c = 0; c < take.columns().size(); c++) {
                if (take.sourceOf(c) == source) {
                    names.add(take.columns().get(c).name());
                    values.add(take.column(c));
                }
            }
            double[] times = take.times(source);
            Table table =
                    new Table(file, names, null, null, values.toArray(double[][]::new), times, CsvShape.PLAIN, null);
            table.damage = take.damage();
            return table;
        }
    }

    private static Table ofCsv(Path file) throws TakeException {
        List<String[]> cells = new ArrayList<>();
        List<Long> lines = new ArrayList<>();
        List<String> written;
        CsvShape shape;
        try {
            shape = CsvShape.of(file);
        } catch (IOException e) {
            throw new TakeException(Messages.of("takes.cannot-be-read-as-csv", file, DiskWords.of(e)), e);
        }
        try (CsvRecords records = new CsvRecords(file, shape)) {
            written = records.header();
            while (records.next()) {
                cells.add(records.fields());
                lines.add(records.line());
            }
        }
        CsvClock clock = CsvClock.of(written, cells.subList(0, Math.min(FEW, cells.size())), shape)
                .orElse(null);
        List<String> headers = written.stream().map(Table::bare).toList();
        Table table = new Table(file, headers, cells, lines, null, null, shape, clock);
        table.units = written.stream().map(Table::unitOf).toList();
        return table;
    }

    /** Our own exports write a unit in brackets after the name, as spreadsheets do. */
    static String bare(String header) {
        int bracket = Math.max(header.lastIndexOf('['), header.lastIndexOf('('));
        boolean unit = bracket > 0 && (header.endsWith("]") || header.endsWith(")"));
        return unit ? header.substring(0, bracket).strip() : header;
    }

    static String unitOf(String header) {
        String bare = bare(header);
        return bare.length() == header.length()
                ? ""
                : header.substring(bare.length()).strip().replaceAll("^[\\[(]|[\\])]$", "");
    }

    /** @return the unit of a column as its header writes it; empty where it writes none */
    public String unit(String name) {
        int index = headers.indexOf(name);
        return index < 0 || units.isEmpty() ? "" : units.get(index);
    }

    /** @return the calendar's moment of the first row, where the file gives dates */
    public Optional<Instant> started() {
        return clock == null || cells.isEmpty() ? Optional.empty() : clock.moment(cells.get(0)[clock.column()]);
    }

    /** @return what of a take did not check, in words */
    public List<String> damage() {
        return damage;
    }

    public int rows() {
        return cells != null ? cells.size() : values.length == 0 ? 0 : values[0].length;
    }

    public List<String> headers() {
        return headers;
    }

    /** @return the time of each row, in s, where the file gives it; where it is coarser than the rows, between its ticks */
    public Optional<double[]> times() throws TakeException {
        if (cells == null) {
            return Optional.ofNullable(times);
        }
        if (clock == null) {
            return Optional.empty();
        }
        return Optional.of(CoarseStamps.spread(seconds(), this::firstNumbers));
    }

    /** @return the times as the file has them, never falling */
    private double[] seconds() throws TakeException {
        int index = clock.column();
        double[] seconds = new double[cells.size()];
        for (int row = 0; row < seconds.length; row++) {
            seconds[row] =
                    clock.seconds(cells.get(row)[index], shape, row == 0 ? Double.NEGATIVE_INFINITY : seconds[row - 1]);
            if (Double.isNaN(seconds[row])) {
                throw nothing(row, index, Messages.of("takes.a-time"));
            }
        }
        if (Double.isNaN(clock.secondsEach())) {
            double first = seconds[0];
            Arrays.setAll(seconds, row -> seconds[row] - first);
        }
        for (int row = 1; row < seconds.length; row++) {
            if (!(seconds[row] >= seconds[row - 1])) {
                throw new TakeException(Messages.of(
                        "takes.line-must-not-fall-from-row-to-row",
                        file,
                        lines.get(row),
                        headers.get(index),
                        cells.get(row)[index],
                        cells.get(row - 1)[index]));
            }
        }
        return seconds;
    }

    /** @return the text of each cell of the time column, as the file writes it; empty when there is none in seconds */
    public Optional<String[]> timeTexts() {
        boolean plain = clock != null && clock.secondsEach() == 1 && !shape.decimalComma();
        return cells == null || !plain
                ? Optional.empty()
                : Optional.of(cells.stream().map(row -> row[clock.column()]).toArray(String[]::new));
    }

    /**
     * @return the numbers of a column; of a take NaN where one is missing
     * @throws TakeException when there is no such column, or a cell holds no number, naming its line
     */
    public double[] column(String name) throws TakeException {
        int index = headers.indexOf(name);
        if (index < 0) {
            throw noColumn(name);
        }
        return cells == null ? values[index] : numbers(index, false);
    }

    /** As {@link #column}, but an empty cell and NaN are missing values. */
    public double[] columnWithHoles(String name) throws TakeException {
        int index = headers.indexOf(name);
        if (index < 0) {
            throw noColumn(name);
        }
        return cells == null ? values[index] : numbers(index, true);
    }

    /**
     * The rows of a line that sends some of them twice: put between the others they would make tones of their own.
     *
     * @return the same without rows that repeat the one before them, time and all; itself where there are none, where other rows share
     *     a time, or where rows of other times are mostly alike, so that these may be, too
     */
    public Table withoutRepeats() throws TakeException {
        if (cells == null || clock == null) {
            return this;
        }
        // Texts that differ are told by what they hash to: of two rows of one time that is as good as certain.
        double[][] told = new double[headers.size()][cells.size()];
        for (int column = 0; column < told.length; column++) {
            int c = column;
            Arrays.setAll(told[c], row -> cells.get(row)[c].hashCode());
        }
        int of = clock.column();
        told[of] = seconds();
        int[] rows = new RepeatedRows(of, 1).kept(told, cells.size());
        if (rows == null) {
            return this;
        }
        List<String[]> kept = Arrays.stream(rows).mapToObj(cells::get).toList();
        List<Long> keptLines = Arrays.stream(rows).mapToObj(lines::get).toList();
        Table table = new Table(file, headers, kept, keptLines, null, null, shape, clock);
        table.units = units;
        return table;
    }

    private TakeException noColumn(String name) {
        return noColumn(file, name, headers);
    }

    static TakeException noColumn(Path file, String name, List<String> headers) {
        return new TakeException(Messages.of("takes.has-no-column-it-has", file, name, String.join(", ", headers)));
    }

    private double[] numbers(int index, boolean holes) throws TakeException {
        double[] numbers = new double[cells.size()];
        for (int row = 0; row < numbers.length; row++) {
            String cell = cells.get(row)[index];
            numbers[row] = shape.number(cell);
            if (Double.isNaN(numbers[row])
                    && !(holes && (cell.isBlank() || cell.strip().equalsIgnoreCase("nan")))) {
                throw nothing(row, index, Messages.of("takes.a-number"));
            }
        }
        return numbers;
    }

    /** @return of the first rows all columns but the time, NaN where a cell holds no number */
    private List<double[]> firstNumbers() {
        return IntStream.range(0, headers.size())
                .filter(column -> column != clock.column())
                .mapToObj(column -> cells.stream()
                        .limit(CsvPieces.HEAD)
                        .mapToDouble(row -> shape.number(row[column]))
                        .toArray())
                .toList();
    }

    private TakeException nothing(int row, int index, String wanted) {
        return CsvRecords.nothing(file, lines.get(row), headers.get(index), cells.get(row)[index], wanted);
    }

    /** @return the name of the column that tells the time; empty where none does */
    public String timeColumn() {
        return clock == null ? TIME : headers.get(clock.column());
    }

    /** @return what was guessed of how the file is written and timed, in words; none for a plain one */
    public List<String> guesses() {
        return Stream.of(shape.words(), clock == null ? "" : clock.words())
                .filter(words -> !words.isEmpty())
                .toList();
    }
}
