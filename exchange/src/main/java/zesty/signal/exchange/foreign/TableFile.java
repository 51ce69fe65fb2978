package zesty.signal.exchange.foreign;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import zesty.signal.core.decode.CoarseStamps;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.CsvPieces;
import zesty.signal.takes.TakeException;

/** A spreadsheet's CSV: any delimiter, decimal comma, titles before the header, dates or times in a column. Read in pieces. */
public final class TableFile implements ForeignFile {
    private final CsvPieces csv;
    private final boolean byRate;
    private final List<Column> columns = new ArrayList<>();
    /** Where each column stands in the file. */
    private final List<Integer> places = new ArrayList<>();

    private final double rateHz;
    private final CsvPieces.First first;
    private long rows = -1;

    /**
     * @param timeColumn the column that tells the time; empty to find it
     * @param byRate whether the times of the table are left aside
     * @throws TakeException when it is no such table, naming the line
     */
    public TableFile(Path file, String timeColumn, boolean byRate) throws TakeException {
        csv = new CsvPieces(file, timeColumn);
        this.byRate = byRate;
        for (int c = 0; c < csv.headers().size(); c++) {
            if (c != csv.timeColumn()) {
                columns.add(new Column(csv.headers().get(c), csv.units().get(c)));
                places.add(c);
            }
        }
        if (columns.isEmpty()) {
            throw new TakeException(Messages.of("foreign.has-no-column-but-its-time", file));
        }
        // How fine its times are the first thousands tell.
        first = byRate ? null : csv.first();
        rateHz = first == null ? 1 : SampleRate.of(CoarseStamps.spread(first.times(), first::values));
    }

    @Override
    public List<Source> sources() {
        try {
            rows = rows < 0 ? csv.count() : rows;
        } catch (TakeException e) {
            // What is wrong with a row is told when it is read.
            rows = 0;
        }
        return List.of(new Source("", columns, rows, rateHz));
    }

    @Override
    public boolean timed() {
        return !byRate && csv.timeColumn() >= 0;
    }

    @Override
    public Optional<Instant> started() {
        return csv.started();
    }

    @Override
    public List<String> remarks() {
        return csv.guesses();
    }

    @Override
    public void read(int source, int[] wanted, Taker taker) throws IOException {
        long[] done = {0};
        CoarseStamps stamps = timed() ? CoarseStamps.of(first.times(), first::values) : null;
        csv.read(byRate, (times, values) -> {
            double[] seconds = stamps == null ? times : stamps.next(times);
            if (!timed()) {
                long first = done[0];
                seconds = new double[values[0].length];
                Arrays.setAll(seconds, i -> first + i);
            }
            done[0] += seconds.length;
            taker.take(
                    seconds,
                    Arrays.stream(wanted).mapToObj(c -> values[places.get(c)]).toArray(double[][]::new));
        });
    }
}
