package zesty.signal.takes;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoublePredicate;
import zesty.signal.core.decode.Column;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Companions;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Scaling;

/**
 * A take as CSV: {@code t} in seconds, each column as it arrived, then each channel whose scaling changes anything, with
 * its unit in the header. Every number reads back to the same double; a missing value is an empty cell. Sources have
 * times of their own: each further one goes into a file of its own beside the first, named after it.
 */
public final class CsvExport {
    private static final int ROWS_A_REPORT = 4096;

    private CsvExport() {}

    private record Field(String header, double[] values) {}

    /**
     * Writes the file; another of that name is replaced only once the new one is whole.
     *
     * @param goOn asked now and then with the share done, 0 … 1; false gives up and leaves nothing behind
     * @return whether it was written to its end
     */
    public static boolean write(Take take, Path file, DoublePredicate goOn) throws TakeException {
        List<Path> parts = new ArrayList<>();
        try {
            boolean whole = true;
            for (int s = 0; s < take.sources() && whole; s++) {
                Path part = fileOf(take, s, file)
                        .resolveSibling(fileOf(take, s, file).getFileName() + ".part");
                parts.add(part);
                double before = s;
                whole = write(
                        fields(take, s), take.times(s), part, share -> goOn.test((before + share) / take.sources()));
            }
            for (int s = 0; s < parts.size() && whole; s++) {
                Files.move(parts.get(s), fileOf(take, s, file), StandardCopyOption.REPLACE_EXISTING);
            }
            return whole;
        } catch (IOException e) {
            if (e instanceof TakeException said) {
                throw said;
            }
            throw new TakeException(file + " cannot be written: " + e.getMessage(), e);
        } finally {
            parts.forEach(CsvExport::deleteQuietly);
        }
    }

    /** @return the file for a source of the take: the one asked for, then OUT-name.csv */
    public static Path fileOf(Take take, int source, Path file) {
        if (source == 0) {
            return file;
        }
        String name = file.getFileName().toString();
        int dot = name.lastIndexOf('.') < 0 ? name.length() : name.lastIndexOf('.');
        return file.resolveSibling(name.substring(0, dot) + "-" + take.sourceName(source) + name.substring(dot));
    }

    private static void deleteQuietly(Path part) {
        try {
            Files.deleteIfExists(part);
        } catch (IOException e) {
            // Nothing more can be done, and the message about the export itself matters more.
        }
    }

    private static List<Field> fields(Take take, int source) throws TakeException {
        List<Field> fields = new ArrayList<>();
        Map<String, double[]> raw = new HashMap<>();
        List<double[]> stream = new ArrayList<>();
        for (int c = 0; c < take.columns().size(); c++) {
            if (take.sourceOf(c) == source) {
                Column column = take.columns().get(c);
                raw.put(column.name(), take.column(c));
                stream.add(raw.get(column.name()));
                fields.add(new Field(header(column.name(), column.unit()), raw.get(column.name())));
            }
        }
        Rig rig = take.rig();
        for (Channel channel : rig.channels()) {
            Scaling scaling = channel.scaling();
            double[] values = raw.get(channel.column());
            if (values != null && !scaling.isAsItCame()) {
                double[][] others = companions(rig, channel).values(stream::get, 0, values.length);
                double[] scaled = new double[values.length];
                scaling.apply(values, others, scaled, scaled.length);
                fields.add(new Field(header(channel.name(), scaling.unit()), scaled));
            }
        }
        return fields;
    }

    private static Companions companions(Rig rig, Channel channel) {
        try {
            return Companions.of(rig, channel);
        } catch (IllegalArgumentException e) {
            // A chain that lacks a column gives nothing, and its column says so with empty cells.
            return Companions.NONE;
        }
    }

    private static String header(String name, String unit) {
        // The time has that name already, and a header with two alike is read by nobody rightly.
        String own = name.equals(Table.TIME) ? name + "_board" : name;
        return unit.isEmpty() ? own : own + " [" + unit + "]";
    }

    private static boolean write(List<Field> fields, double[] times, Path part, DoublePredicate goOn)
            throws IOException {
        try (CsvWriter csv = CsvWriter.builder().build(part, StandardCharsets.UTF_8)) {
            String[] line = new String[fields.size() + 1];
            line[0] = Table.TIME;
            for (int f = 0; f < fields.size(); f++) {
                line[f + 1] = fields.get(f).header();
            }
            csv.writeRecord(line);
            for (int row = 0; row < times.length; row++) {
                line[0] = Digits.exact(times[row]);
                for (int f = 0; f < fields.size(); f++) {
                    Field field = fields.get(f);
                    double value = field.values()[row];
                    line[f + 1] = Double.isNaN(value) ? "" : Digits.exact(value);
                }
                csv.writeRecord(line);
                if (row % ROWS_A_REPORT == 0 && !goOn.test((double) row / times.length)) {
                    return false;
                }
            }
        }
        return true;
    }
}
