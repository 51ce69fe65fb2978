package zesty.signal.takes;

import de.siegmar.fastcsv.reader.CloseableIterator;
import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.text.Messages;

/** The rows of a CSV file one after the other, behind its header: comments and blank lines at its end are left out. One thread. */
final class CsvRecords implements AutoCloseable {
    private final Path file;
    private final CsvReader<CsvRecord> csv;
    private final CloseableIterator<CsvRecord> records;
    private final List<String> header;
    private String[] fields;
    private long line;
    private long blank;

    /** @throws TakeException when it cannot be read or has no header row */
    CsvRecords(Path file, CsvShape shape) throws TakeException {
        this.file = file;
        try {
            csv = CsvReader.builder()
                    .fieldSeparator(shape.delimiter())
                    .skipEmptyLines(false)
                    .ofCsvRecord(file, StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new TakeException(Messages.of("takes.cannot-be-read-as-csv", file, DiskWords.of(e)), e);
        }
        records = csv.iterator();
        for (int before = 0; before <= shape.headerRecord(); before++) {
            if (!step()) {
                throw new TakeException(Messages.of("takes.is-empty-a-csv-file-with-a-header", file));
            }
            blank = 0;
        }
        header = Arrays.stream(fields)
                .map(one -> one.strip().replace("\uFEFF", ""))
                .toList();
        if (header.stream().noneMatch(one -> Double.isNaN(shape.number(one)))) {
            throw new TakeException(Messages.of("takes.line-1-holds-numbers-a-header-row", file));
        }
    }

    /** @return the columns as the header writes them */
    List<String> header() {
        return header;
    }

    /** Goes to the next record that is neither blank nor a comment. */
    private boolean step() throws TakeException {
        try {
            while (records.hasNext()) {
                CsvRecord record = records.next();
                fields = record.getFields().toArray(String[]::new);
                line = record.getStartingLineNumber();
                if (fields.length == 1 && fields[0].isBlank()) {
                    blank = blank == 0 ? line : blank;
                } else if (!CsvShape.comment(fields[0])) {
                    return true;
                }
            }
            return false;
        } catch (CsvParseException | UncheckedIOException e) {
            throw new TakeException(Messages.of("takes.cannot-be-read-as-csv", file, reason(e)), e);
        }
    }

    /** @return false at the end. @throws TakeException when the row is not as wide as the header, or one is missing before it */
    boolean next() throws TakeException {
        if (!step()) {
            return false;
        }
        if (blank > 0) {
            throw missing(file, blank);
        }
        if (fields.length != header.size()) {
            throw cells(file, line, fields.length, header.size());
        }
        return true;
    }

    static TakeException missing(Path file, long line) {
        return new TakeException(Messages.of("takes.line-nothing-where-a-row-of", file, line));
    }

    static TakeException cells(Path file, long line, int there, int wanted) {
        return new TakeException(Messages.of("takes.line-cells-where-the-header-has", file, line, there, wanted));
    }

    /** @param wanted what the cell does not hold, in words */
    static TakeException nothing(Path file, long line, String column, String cell, String wanted) {
        return new TakeException(Messages.of(
                "takes.line-column-where-should-be",
                file,
                line,
                column,
                (cell.isBlank() ? Messages.of("takes.nothing") : "'" + cell + "'"),
                wanted));
    }

    private static String reason(RuntimeException e) {
        Exception cause = e instanceof UncheckedIOException wrapped ? wrapped.getCause() : e;
        boolean tooLong = false;
        for (Throwable one = e; one != null; one = one.getCause()) {
            tooLong |= String.valueOf(one.getMessage()).matches("(?s).*(size|exceed|limit|maximum).*");
        }
        return tooLong
                ? Messages.of("takes.a-cell-or-a-line-of-it-is-longer")
                : cause instanceof IOException wrapped
                        ? DiskWords.of(wrapped)
                        : Messages.of("takes.its-quotes-do-not-match");
    }

    /** @return the cells of the row at hand */
    String[] fields() {
        return fields;
    }

    /** @return the line it begins in, from 1 */
    long line() {
        return line;
    }

    @Override
    public void close() throws TakeException {
        try {
            records.close();
            csv.close();
        } catch (IOException e) {
            throw new TakeException(Messages.of("takes.cannot-be-read-as-csv", file, DiskWords.of(e)), e);
        }
    }
}
