package zesty.signal.exchange;

import io.jhdf.HdfFile;
import io.jhdf.WritableHdfFile;
import io.jhdf.api.WritableDataset;
import io.jhdf.api.WritableGroup;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import zesty.signal.takes.Mark;

/**
 * HDF5: a dataset a column and {@code t}, with attributes {@code unit} and {@code rate_hz}; further sources in groups of their names,
 * marks in the group {@code marks} as {@code t_s}, {@code text} and, where one is a span, {@code until_s}. All values are held in memory while it is written.
 */
public final class Hdf5Export {
    /** The group of the marks. */
    public static final String MARKS = "marks";

    private static final int[] NONE = {};

    private Hdf5Export() {}

    /** The stream stays the caller's. A temporary file of the same size is needed: such files are not written from front to end. */
    public static void write(TakeView view, List<Mark> marks, OutputStream out) throws IOException {
        Path file = Files.createTempFile("export", ".h5");
        try {
            write(view, marks, file);
            Files.copy(file, out);
        } finally {
            Files.deleteIfExists(file);
        }
    }

    private static void write(TakeView view, List<Mark> marks, Path file) throws IOException {
        try (WritableHdfFile out = HdfFile.write(file)) {
            for (int s = 0; s < view.sources().size(); s++) {
                TakeView.Source source = view.sources().get(s);
                WritableGroup group = s == 0 ? out : out.putGroup(plain(source.name()));
                put(group, "t", "s", source.rateHz(), all(view, s, NONE)[0]);
                for (int c = 0; c < source.columns().size(); c++) {
                    TakeView.Column column = source.columns().get(c);
                    String name = plain(column.name());
                    name = name.equals("t") || s == 0 && name.equals(MARKS) ? name + "_board" : name;
                    put(group, name, column.unit(), source.rateHz(), all(view, s, new int[] {c})[1]);
                }
            }
            if (!marks.isEmpty()) {
                WritableGroup group = out.putGroup(MARKS);
                group.putDataset(
                        "t_s", marks.stream().mapToDouble(Mark::seconds).toArray());
                if (marks.stream().anyMatch(Mark::isSpan)) {
                    group.putDataset(
                            "until_s",
                            marks.stream().mapToDouble(Mark::untilSeconds).toArray());
                }
                group.putDataset("text", marks.stream().map(Mark::text).toArray(String[]::new));
            }
        } catch (RuntimeException e) {
            throw new IOException(e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage(), e);
        }
    }

    private static String plain(String name) {
        return name.replace('/', '_');
    }

    private static void put(WritableGroup group, String name, String unit, double rateHz, double[] values) {
        WritableDataset dataset = group.putDataset(name, values);
        // An empty text is no value of this format.
        dataset.putAttribute("unit", unit.isEmpty() ? "1" : unit);
        dataset.putAttribute("rate_hz", rateHz);
    }

    private static double[][] all(TakeView view, int source, int[] columns) throws IOException {
        double[][] all =
                new double[columns.length + 1][(int) view.sources().get(source).rows()];
        int[] at = {0};
        view.read(source, columns, (seconds, values) -> {
            System.arraycopy(seconds, 0, all[0], at[0], seconds.length);
            for (int c = 0; c < columns.length; c++) {
                System.arraycopy(values[c], 0, all[c + 1], at[0], seconds.length);
            }
            at[0] += seconds.length;
        });
        return Arrays.stream(all).map(one -> Arrays.copyOf(one, at[0])).toArray(double[][]::new);
    }
}
