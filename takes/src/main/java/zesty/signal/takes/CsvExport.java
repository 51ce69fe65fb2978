package zesty.signal.takes;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoublePredicate;
import zesty.signal.core.decode.Column;
import zesty.signal.core.picture.FrameSeries;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ExtraInputs;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.text.Messages;

/**
 * A take as CSV: {@code t} in seconds, each column as it arrived, then each channel whose scaling changes anything, with
 * its unit in the header, then each pixel where it has pictures. Every number reads back to the same double; a missing value is an empty cell. Sources have
 * times of their own: each further one goes into a file of its own beside the first, counted from 2.
 */
public final class CsvExport {
    private static final int ROWS_A_REPORT = 4096;

    private CsvExport() {}

    /** A column of the file: as it came where it has no scaling, else a channel made of it. */
    private record Field(String header, int column, Scaling scaling, ExtraInputs extraInputs) {}

    /**
     * Writes the file, whole or not at all.
     *
     * @param replace whether the maker has said that a file of that name may go
     * @param goOn asked now and then with the share done, 0 … 1; false gives up and leaves nothing behind
     * @return whether it was written to its end
     */
    public static boolean write(Take take, Path file, boolean replace, DoublePredicate goOn) throws TakeException {
        List<NewFile> parts = new ArrayList<>();
        try {
            boolean whole = true;
            for (int s = 0; s < take.sources() && whole; s++) {
                NewFile part = NewFile.begin(fileOf(s, file), replace);
                parts.add(part);
                double before = s;
                whole = write(take, s, part.stream(), share -> goOn.test((before + share) / take.sources()));
            }
            for (int s = 0; s < parts.size() && whole; s++) {
                parts.get(s).keep();
            }
            return whole;
        } catch (IOException e) {
            if (e instanceof TakeException said) {
                throw said;
            }
            throw new TakeException(Messages.of("takes.cannot-be-written", file, DiskWords.of(e)), e);
        } finally {
            parts.forEach(NewFile::close);
        }
    }

    /** @return the file for a source of a take, counted from 0: the one asked for, then OUT-2.csv, OUT-3.csv … */
    public static Path fileOf(int source, Path file) {
        if (source == 0) {
            return file;
        }
        String name = file.getFileName().toString();
        int dot = name.lastIndexOf('.') < 0 ? name.length() : name.lastIndexOf('.');
        return file.resolveSibling(name.substring(0, dot) + "-" + (source + 1) + name.substring(dot));
    }

    private static List<Field> fields(Take take, int source) {
        List<Field> fields = new ArrayList<>();
        Map<String, Integer> byName = new HashMap<>();
        for (int c = 0; c < take.columns().size(); c++) {
            if (take.sourceOf(c) == source) {
                Column column = take.columns().get(c);
                byName.put(column.name(), c);
                fields.add(new Field(header(column.name(), column.unit()), c, null, null));
            }
        }
        Rig rig;
        try {
            rig = take.rig();
        } catch (TakeException e) {
            // Without its rig a take has its numbers as they came; that the rig is lost, the take tells.
            return fields;
        }
        for (Channel channel : rig.channels()) {
            Scaling scaling = channel.scaling();
            Integer column = byName.get(channel.column());
            if (column != null && !scaling.isAsItCame()) {
                String header = header(channel.name(), scaling.unit());
                fields.add(new Field(header, column, scaling, extraInputs(rig, channel)));
            }
        }
        return fields;
    }

    private static ExtraInputs extraInputs(Rig rig, Channel channel) {
        try {
            return ExtraInputs.of(rig, channel);
        } catch (IllegalArgumentException e) {
            // A chain that lacks a column gives nothing, and its column says so with empty cells.
            return ExtraInputs.NONE;
        }
    }

    private static String header(String name, String unit) {
        // The time has that name already, and a header with two alike is read by nobody rightly.
        String own = name.equals(Table.TIME) ? name + "_board" : name;
        return unit.isEmpty() ? own : own + " [" + unit + "]";
    }

    /** Adds a column a pixel, where a take has pictures beside its columns. @return how many */
    private static int pixels(Take take, int source, List<String> headers) {
        int[] size = take.pixelsAreColumns(source) ? null : take.frameSize(source);
        if (size == null) {
            return 0;
        }
        String prefix = source == 0 ? "" : take.sourceName(source) + "/";
        String unit = take.columns().get(take.firstColumn(source)).unit();
        for (int p = 0; p < size[0] * size[1]; p++) {
            headers.add(header(prefix + FrameSeries.pixel(p % size[0], p / size[0]), unit));
        }
        return size[0] * size[1];
    }

    private static boolean write(Take take, int source, OutputStream stream, DoublePredicate goOn) throws IOException {
        List<Field> fields = fields(take, source);
        List<String> headers = new ArrayList<>(List.of(Table.TIME));
        fields.forEach(field -> headers.add(field.header()));
        int pixels = pixels(take, source, headers);
        StringWriter first = new StringWriter();
        try (CsvWriter csv = CsvWriter.builder().lineDelimiter(LineDelimiter.LF).build(first)) {
            csv.writeRecord(headers);
        }
        stream.write(first.toString().getBytes(StandardCharsets.UTF_8));
        NumberRows rows = new NumberRows(stream);
        int firstColumn = take.firstColumn(source);
        for (int piece = 0; piece < take.pieces(source); piece++) {
            double[] times = take.times(source, piece);
            List<double[]> raw = new ArrayList<>();
            for (int c = firstColumn; c < take.columns().size() && take.sourceOf(c) == source; c++) {
                raw.add(take.values(c, piece));
            }
            double[][] values = new double[fields.size()][];
            for (int f = 0; f < values.length; f++) {
                Field field = fields.get(f);
                double[] own = raw.get(field.column() - firstColumn);
                values[f] = own;
                if (field.scaling() != null) {
                    values[f] = new double[own.length];
                    double[][] others = field.extraInputs().values(raw::get, 0, own.length);
                    field.scaling().apply(own, others, values[f], own.length);
                }
            }
            double[] missing = new double[pixels];
            Arrays.fill(missing, Double.NaN);
            for (int row = 0; row < times.length; row++) {
                if (row % ROWS_A_REPORT == 0
                        && !goOn.test((piece + (double) row / times.length) / take.pieces(source))) {
                    return false;
                }
                rows.add(times[row]);
                for (double[] one : values) {
                    rows.add(one[row]);
                }
                double[] frame = pixels == 0 ? missing : take.frame(source, take.rowOf(source, piece) + row);
                for (double pixel : frame == null ? missing : frame) {
                    rows.add(pixel);
                }
                rows.end();
            }
        }
        rows.flush();
        return true;
    }
}
