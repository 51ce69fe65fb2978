package zesty.signal.exchange.foreign;

import io.jhdf.HdfFile;
import io.jhdf.api.Attribute;
import io.jhdf.api.Dataset;
import io.jhdf.api.Group;
import io.jhdf.api.Node;
import io.jhdf.exceptions.HdfException;
import java.io.IOException;
import java.lang.reflect.Array;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.text.Messages;
import zesty.signal.exchange.Hdf5Export;
import zesty.signal.takes.Mark;
import zesty.signal.takes.TakeException;

/** HDF5 of our own shape: datasets of one dimension beside {@code t}, sources in groups, marks. A column is held while it is read. */
final class Hdf5File implements ForeignFile {
    private static final String TIME = "t";

    private final HdfFile hdf;
    private static final int ROWS = 1 << 14;

    private final List<Source> sources = new ArrayList<>();
    private final List<List<Dataset>> columns = new ArrayList<>();
    private final List<Dataset> times = new ArrayList<>();
    private final List<Mark> marks = new ArrayList<>();
    private final List<String> remarks = new ArrayList<>();

    Hdf5File(Path file) throws IOException {
        try {
            hdf = new HdfFile(file);
        } catch (HdfException e) {
            throw new TakeException(Messages.of("foreign.is-no-hdf5-file-or-cut-off", file), e);
        }
        try {
            source("", hdf);
            for (Node node : hdf) {
                if (node instanceof Group group && node.getName().equals(Hdf5Export.MARKS)) {
                    marks(group);
                } else if (node instanceof Group group) {
                    source(node.getName(), group);
                }
            }
        } catch (RuntimeException e) {
            hdf.close();
            throw new TakeException(Messages.of("foreign.is-an-hdf5-file-that-cannot-be", file, e.getMessage()), e);
        }
        if (sources.isEmpty()) {
            hdf.close();
            throw new TakeException(Messages.of("foreign.holds-no-datasets-of-one-dimension", file));
        }
    }

    private void source(String name, Group group) {
        Dataset time = group.getChild(TIME) instanceof Dataset one && numeric(one) ? one : null;
        List<Dataset> own = new ArrayList<>();
        for (Node node : group) {
            if (node instanceof Dataset one && one != time && !node.getName().equals(TIME)) {
                boolean fits = numeric(one) && (time == null || one.getSize() == time.getSize());
                if (fits && (own.isEmpty() || own.get(0).getSize() == one.getSize())) {
                    own.add(one);
                } else {
                    remarks.add(Messages.of("foreign.is-left-out-no-numbers-in-step", one.getPath()));
                }
            }
        }
        if (own.isEmpty()) {
            return;
        }
        Object stated = attribute(own.get(0), "rate_hz");
        double rate = stated instanceof Number number
                ? number.doubleValue()
                : time == null || time.getSize() < 2
                        ? 1
                        : SampleRate.of(numbers(time, 0, (int) Math.min(ROWS, time.getSize())));
        sources.add(new Source(
                sources.isEmpty() ? "" : name,
                own.stream().map(one -> new Column(one.getName(), unit(one))).toList(),
                own.get(0).getSize(),
                rate));
        columns.add(own);
        times.add(time);
    }

    private static boolean numeric(Dataset one) {
        Class<?> type = one.getJavaType();
        return one.getDimensions().length == 1
                && !one.isCompound()
                && !one.isEmpty()
                && (type.isPrimitive() && type != boolean.class && type != char.class
                        || Number.class.isAssignableFrom(type));
    }

    private static Object attribute(Node node, String name) {
        Attribute attribute = node.getAttributes().get(name);
        return attribute == null ? null : attribute.getData();
    }

    private static String unit(Dataset one) {
        Object unit = attribute(one, "unit");
        return unit == null || unit.equals("1") ? "" : String.valueOf(unit);
    }

    private static double[] numbers(Dataset dataset) {
        return numbers(dataset.getData());
    }

    private static double[] numbers(Dataset dataset, long from, int rows) {
        return numbers(dataset.getData(new long[] {from}, new int[] {rows}));
    }

    private static double[] numbers(Object data) {
        if (data instanceof double[] already) {
            return already;
        }
        double[] numbers = new double[Array.getLength(data)];
        Arrays.setAll(numbers, i -> ((Number) Array.get(data, i)).doubleValue());
        return numbers;
    }

    private void marks(Group group) {
        if (group.getChild("t_s") instanceof Dataset at && group.getChild("text") instanceof Dataset text) {
            double[] seconds = numbers(at);
            double[] until = group.getChild("until_s") instanceof Dataset ends ? numbers(ends) : new double[0];
            Object texts = text.getData();
            for (int i = 0; i < seconds.length; i++) {
                marks.add(new Mark(
                        seconds[i],
                        until.length == seconds.length && until[i] >= seconds[i] ? until[i] : Double.NaN,
                        String.valueOf(Array.get(texts, i))));
            }
        }
    }

    @Override
    public List<Source> sources() {
        return List.copyOf(sources);
    }

    @Override
    public List<Mark> marks() {
        return List.copyOf(marks);
    }

    @Override
    public List<String> remarks() {
        return remarks;
    }

    @Override
    public boolean timed() {
        return times.stream().allMatch(one -> one != null);
    }

    @Override
    public void read(int source, int[] wanted, Taker taker) throws IOException {
        long rows = sources.get(source).rows();
        for (long row = 0; row < rows; row += ROWS) {
            int n = (int) Math.min(ROWS, rows - row);
            long first = row;
            double[] seconds = new double[n];
            Arrays.setAll(seconds, i -> first + i);
            double[][] values = new double[wanted.length][];
            for (int c = 0; c < wanted.length; c++) {
                values[c] = numbers(columns.get(source).get(wanted[c]), row, n);
            }
            taker.take(times.get(source) == null ? seconds : numbers(times.get(source), row, n), values);
        }
    }

    @Override
    public void close() {
        hdf.close();
    }
}
