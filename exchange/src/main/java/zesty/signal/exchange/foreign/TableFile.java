package zesty.signal.exchange.foreign;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import zesty.signal.core.decode.CoarseStamps;
import zesty.signal.core.decode.RepeatedRows;
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
    /** Of the rows read last so many were left out, as they repeat one before them. */
    private long leftOut;

    private long seen;

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
        CsvPieces.First head = byRate ? null : csv.first();
        first = head == null ? null : once(head);
        rateHz = first == null ? 1 : SampleRate.of(CoarseStamps.spread(first.times(), first::values));
    }

    private static CsvPieces.First once(CsvPieces.First all) {
        List<double[]> columns = new ArrayList<>(all.values());
        columns.add(all.times());
        int[] kept = new RepeatedRows(columns.size() - 1).kept(columns.toArray(double[][]::new), all.times().length);
        return kept == null
                ? all
                : new CsvPieces.First(
                        only(all.times(), kept),
                        all.values().stream().map(one -> only(one, kept)).toList());
    }

    private static double[] only(double[] all, int[] kept) {
        return Arrays.stream(kept).mapToDouble(row -> all[row]).toArray();
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
        List<String> remarks = new ArrayList<>(csv.guesses());
        if (leftOut > 0) {
            remarks.add(Messages.of("foreign.rows-sent-twice-left-out", leftOut, seen));
        }
        return remarks;
    }

    @Override
    public void read(int source, int[] wanted, Taker taker) throws IOException {
        long[] done = {0};
        CoarseStamps stamps = timed() ? CoarseStamps.of(first.times(), first::values) : null;
        RepeatedRows repeated = new RepeatedRows(csv.headers().size());
        leftOut = 0;
        seen = 0;
        csv.read(byRate, (times, values) -> {
            double[][] columns =
                    Arrays.stream(wanted).mapToObj(c -> values[places.get(c)]).toArray(double[][]::new);
            if (!timed()) {
                long first = done[0];
                double[] counted = new double[values[0].length];
                Arrays.setAll(counted, i -> first + i);
                done[0] += counted.length;
                taker.take(counted, columns);
                return;
            }
            double[][] stamped = Arrays.copyOf(values, values.length + 1);
            stamped[values.length] = times;
            int[] kept = repeated.kept(stamped, times.length);
            leftOut = repeated.leftOut();
            seen += times.length;
            double[] once = kept == null ? times : only(times, kept);
            taker.take(
                    stamps == null ? once : stamps.next(once),
                    kept == null
                            ? columns
                            : Arrays.stream(columns).map(one -> only(one, kept)).toArray(double[][]::new));
        });
    }
}
