package zesty.signal.takes;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import zesty.signal.core.decode.Column;

/**
 * Columns of numbers with a header, from a CSV file with a header row or from a take. Cells are read when a column is
 * asked for, so that text in a column nobody computes with does no harm.
 */
public final class Table {
    static final String TIME = "t";

    private final Path file;
    private final List<String> headers;
    private final List<String[]> cells;
    private final List<Long> lines;
    private final double[][] values;
    private final double[] times;
    private List<String> damage = List.of();

    private Table(
            Path file,
            List<String> headers,
            List<String[]> cells,
            List<Long> lines,
            double[][] values,
            double[] times) {
        this.file = file;
        this.headers = headers;
        this.cells = cells;
        this.lines = lines;
        this.values = values;
        this.times = times;
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
            throw new TakeException(file + " is a folder; a CSV file with a header row or a take is needed");
        }
        Table table = file.getFileName().toString().endsWith(".zest") ? ofTake(file, column) : ofCsv(file);
        if (table.rows() < 2) {
            throw new TakeException(file + " holds " + (table.rows() == 0 ? "no rows" : "one row")
                    + " of numbers; at least two are needed");
        }
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
            Table table = new Table(file, names, null, null, values.toArray(double[][]::new), times);
            table.damage = take.damage();
            return table;
        }
    }

    private static Table ofCsv(Path file) throws TakeException {
        List<String[]> cells = new ArrayList<>();
        List<Long> lines = new ArrayList<>();
        List<String> headers = null;
        try (CsvReader<CsvRecord> csv =
                CsvReader.builder().skipEmptyLines(false).ofCsvRecord(file, StandardCharsets.UTF_8)) {
            long blank = 0;
            for (CsvRecord record : csv) {
                String[] fields = record.getFields().toArray(String[]::new);
                if (fields.length == 1 && fields[0].isBlank()) {
                    // Blank lines after the last row do no harm; one within is a row that is not there.
                    blank = blank == 0 ? record.getStartingLineNumber() : blank;
                    continue;
                }
                if (headers == null) {
                    headers = Arrays.stream(fields).map(Table::bare).toList();
                    blank = 0;
                    continue;
                }
                if (blank > 0) {
                    throw new TakeException(file + " line " + blank + ": nothing where a row of numbers should be");
                }
                if (fields.length != headers.size()) {
                    throw new TakeException(file + " line " + record.getStartingLineNumber() + ": " + fields.length
                            + " cells where the header has " + headers.size());
                }
                cells.add(fields);
                lines.add(record.getStartingLineNumber());
            }
        } catch (CsvParseException | UncheckedIOException | IOException e) {
            if (e instanceof TakeException said) {
                throw said;
            }
            throw new TakeException(file + " cannot be read as CSV: " + reason(e), e);
        }
        if (headers == null) {
            throw new TakeException(file + " is empty; a CSV file with a header row is needed");
        }
        if (headers.stream().allMatch(Table::isNumber)) {
            throw new TakeException(file + " line 1 holds numbers; a header row with the columns' names is needed");
        }
        return new Table(file, headers, cells, lines, null, null);
    }

    private static String reason(Exception e) {
        Exception cause = e instanceof UncheckedIOException wrapped ? wrapped.getCause() : e;
        boolean tooLong = false;
        for (Throwable one = e; one != null; one = one.getCause()) {
            tooLong |= String.valueOf(one.getMessage()).matches("(?s).*(size|exceed|limit|maximum).*");
        }
        return tooLong
                ? "a cell or a line of it is longer than 16 million signs"
                : cause instanceof IOException ? DiskWords.of(cause) : "its quotes do not match";
    }

    private static boolean isNumber(String text) {
        return !Double.isNaN(parse(text));
    }

    /** Our own exports write a unit in brackets after the name. */
    private static String bare(String header) {
        String name = header.strip().replace("\uFEFF", "");
        int bracket = name.lastIndexOf(" [");
        return bracket > 0 && name.endsWith("]") ? name.substring(0, bracket) : name;
    }

    /** @return what of a take did not check, in words */
    public List<String> damage() {
        return damage;
    }

    public int rows() {
        return cells == null ? times.length : cells.size();
    }

    public List<String> headers() {
        return headers;
    }

    /** @return the time of each row, in s, where the file gives it */
    public Optional<double[]> times() throws TakeException {
        if (cells == null) {
            return Optional.of(times);
        }
        int index = headers.indexOf(TIME);
        if (index < 0) {
            return Optional.empty();
        }
        double[] seconds = numbers(index);
        for (int row = 1; row < seconds.length; row++) {
            if (!(seconds[row] >= seconds[row - 1])) {
                throw new TakeException(file + " line " + lines.get(row) + ": t must not fall from row to row, but "
                        + cells.get(row)[index] + " follows " + cells.get(row - 1)[index]);
            }
        }
        return Optional.of(seconds);
    }

    /** @return the text of each cell of the time column, as the file writes it; empty when there is none */
    public Optional<String[]> timeTexts() {
        int index = headers.indexOf(TIME);
        return cells == null || index < 0
                ? Optional.empty()
                : Optional.of(cells.stream().map(row -> row[index]).toArray(String[]::new));
    }

    /**
     * @return the numbers of a column; of a take NaN where one is missing
     * @throws TakeException when there is no such column, or a cell holds no number, naming its line
     */
    public double[] column(String name) throws TakeException {
        int index = headers.indexOf(name);
        if (index < 0) {
            throw new TakeException(file + " has no column '" + name + "'; it has " + String.join(", ", headers));
        }
        return cells == null ? values[index] : numbers(index);
    }

    private double[] numbers(int index) throws TakeException {
        double[] numbers = new double[cells.size()];
        for (int row = 0; row < numbers.length; row++) {
            String cell = cells.get(row)[index];
            numbers[row] = parse(cell);
            if (Double.isNaN(numbers[row])) {
                throw new TakeException(file + " line " + lines.get(row) + ", column " + headers.get(index) + ": "
                        + (cell.isBlank() ? "nothing" : "'" + cell + "'") + " where a number should be");
            }
        }
        return numbers;
    }

    private static double parse(String cell) {
        String text = cell.strip();
        if (text.isEmpty() || "0123456789".indexOf(text.charAt(text.length() - 1)) < 0 && !text.endsWith(".")) {
            return Double.NaN;
        }
        try {
            double value = Double.parseDouble(text);
            return Double.isInfinite(value) ? Double.NaN : value;
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }
}
