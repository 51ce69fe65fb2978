package zesty.signal.exchange.foreign;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.takes.Table;
import zesty.signal.takes.TakeException;

/** A table with a header, as spreadsheets and programs write them; empty cells are missing values. Held in memory. */
public final class TableFile implements ForeignFile {
    private final Table table;
    private final double[] seconds;
    private final List<Column> columns = new ArrayList<>();
    private final List<double[]> values = new ArrayList<>();

    /**
     * @param timeColumn the column that tells the time; empty to find it
     * @param byRate whether the times of the table are left aside
     * @throws TakeException when it is no such table, naming the line
     */
    public TableFile(Path file, String timeColumn, boolean byRate) throws TakeException {
        table = Table.openTimed(file, timeColumn);
        seconds = byRate ? null : table.times().orElse(null);
        for (String name : table.headers()) {
            if (!name.equals(table.timeColumn())) {
                columns.add(new Column(name, table.unit(name)));
                values.add(table.columnWithHoles(name));
            }
        }
        if (columns.isEmpty()) {
            throw new TakeException(file + " has no column but its time");
        }
        if (seconds != null) {
            double first = seconds[0];
            Arrays.setAll(seconds, i -> seconds[i] - first);
        }
    }

    @Override
    public List<Source> sources() {
        return List.of(new Source("", columns, table.rows(), timed() ? SampleRate.of(seconds) : 1));
    }

    @Override
    public boolean timed() {
        return seconds != null;
    }

    @Override
    public Optional<Instant> started() {
        return table.started();
    }

    @Override
    public List<String> remarks() {
        return table.guesses();
    }

    @Override
    public void read(int source, int[] wanted, Taker taker) throws IOException {
        double[] times = seconds;
        if (times == null) {
            times = new double[table.rows()];
            for (int i = 0; i < times.length; i++) {
                times[i] = i;
            }
        }
        taker.take(times, Arrays.stream(wanted).mapToObj(values::get).toArray(double[][]::new));
    }
}
