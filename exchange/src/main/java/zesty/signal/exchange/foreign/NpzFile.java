package zesty.signal.exchange.foreign;

import java.io.DataInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.TakeException;

/**
 * A zip of arrays, one a column: whole and real numbers of any width and byte order, of one dimension. {@code t} is the time of each row;
 * an array {@code NAME/t} begins another source. Arrays of other shapes are left out, and that is said.
 */
final class NpzFile implements ForeignFile {
    private static final int ROWS = 1 << 14;
    private static final int RATE_ROWS = 1 << 20;
    private static final Pattern HEAD = Pattern.compile(
            "\\{'descr': *'([<>|=])([fiub])(\\d+)', *'fortran_order': *(?:True|False), *'shape': *\\((\\d+),? *\\).*",
            Pattern.DOTALL);

    /** An array: where it stands, and how its numbers are written. */
    private record Array(ZipEntry entry, String name, ByteOrder order, char type, int width, long rows) {}

    private final Path file;
    private final ZipFile zip;
    private final List<String> remarks = new ArrayList<>();
    private final List<Source> sources = new ArrayList<>();
    /** By source its times, null where it has none, and its columns. */
    private final List<Array> times = new ArrayList<>();

    private final List<List<Array>> columns = new ArrayList<>();

    NpzFile(Path file) throws IOException {
        this.file = file;
        try {
            zip = new ZipFile(file.toFile());
        } catch (ZipException e) {
            throw new TakeException(Messages.of("foreign.is-no-file-of-arrays-npz-it-is-no", file), e);
        }
        try {
            gather();
        } catch (IOException | RuntimeException e) {
            zip.close();
            throw e;
        }
    }

    private void gather() throws IOException {
        Map<String, List<Array>> groups = new LinkedHashMap<>();
        String group = "t";
        for (ZipEntry entry : Collections.list(zip.entries())) {
            if (!entry.getName().endsWith(".npy")) {
                continue;
            }
            Array array = array(entry);
            if (array == null) {
                remarks.add(Messages.of("foreign.is-left-out-no-array-of-numbers", entry.getName()));
                continue;
            }
            boolean clock = array.name().equals("t") || array.name().endsWith("/t");
            if (clock) {
                group = array.name();
            }
            groups.computeIfAbsent(group, key -> new ArrayList<>()).add(array);
        }
        for (Map.Entry<String, List<Array>> one : groups.entrySet()) {
            source(one.getKey(), one.getValue());
        }
        if (sources.isEmpty()) {
            throw new TakeException(Messages.of("foreign.holds-no-array-of-numbers-with-one", file));
        }
    }

    private void source(String clock, List<Array> arrays) throws IOException {
        Array time = arrays.stream()
                .filter(one -> one.name().equals(clock))
                .findFirst()
                .orElse(null);
        List<Array> values = arrays.stream().filter(one -> one != time).toList();
        long rows = time != null
                ? time.rows()
                : values.stream().mapToLong(Array::rows).max().orElse(0);
        List<Array> kept = values.stream().filter(one -> one.rows() == rows).toList();
        for (Array other : values) {
            if (other.rows() != rows) {
                remarks.add(Messages.of("foreign.is-left-out-numbers-where-the", other.name(), other.rows(), rows));
            }
        }
        if (kept.isEmpty()) {
            return;
        }
        times.add(time);
        columns.add(kept);
        sources.add(new Source(
                sources.isEmpty() ? "" : clock.replaceFirst("/t$", ""),
                kept.stream().map(one -> new Column(one.name(), "")).toList(),
                rows,
                time == null ? 1 : rate(time)));
    }

    private double rate(Array time) throws IOException {
        try (DataInputStream in = numbers(time)) {
            double[] first = next(time, in, (int) Math.min(RATE_ROWS, time.rows()));
            return first.length < 2 ? Double.NaN : SampleRate.of(first);
        }
    }

    /** @return nothing for what is no array of numbers with one dimension */
    private Array array(ZipEntry entry) throws IOException {
        try (DataInputStream in = new DataInputStream(zip.getInputStream(entry))) {
            Matcher head = HEAD.matcher(head(in, entry));
            if (!head.matches()) {
                return null;
            }
            int width = Integer.parseInt(head.group(3));
            char type = head.group(2).charAt(0);
            boolean known =
                    type == 'f' ? width == 4 || width == 8 : width == 1 || width == 2 || width == 4 || width == 8;
            String name = entry.getName().substring(0, entry.getName().length() - ".npy".length());
            ByteOrder order = head.group(1).equals(">") ? ByteOrder.BIG_ENDIAN : ByteOrder.LITTLE_ENDIAN;
            return known ? new Array(entry, name, order, type, width, Long.parseLong(head.group(4))) : null;
        } catch (EOFException e) {
            throw new TakeException(Messages.of("foreign.is-cut-off", file, entry.getName()), e);
        }
    }

    private String head(DataInputStream in, ZipEntry entry) throws IOException {
        byte[] magic = new byte[8];
        in.readFully(magic);
        if ((magic[0] & 0xFF) != 0x93 || magic[1] != 'N') {
            throw new TakeException(Messages.of("foreign.does-not-begin-as-an-array", file, entry.getName()));
        }
        int length = in.readUnsignedByte() | in.readUnsignedByte() << 8;
        if (magic[6] > 1) {
            length |= in.readUnsignedByte() << 16 | in.readUnsignedByte() << 24;
        }
        if (length < 0 || length > ROWS) {
            throw new TakeException(Messages.of("foreign.has-a-header-of-bytes", file, entry.getName(), length));
        }
        byte[] text = new byte[length];
        in.readFully(text);
        return new String(text, StandardCharsets.ISO_8859_1).strip();
    }

    private DataInputStream numbers(Array array) throws IOException {
        InputStream raw = zip.getInputStream(array.entry());
        DataInputStream in = new DataInputStream(raw);
        head(in, array.entry());
        return in;
    }

    private double[] next(Array array, DataInputStream in, int count) throws IOException {
        byte[] raw = new byte[count * array.width()];
        try {
            in.readFully(raw);
        } catch (EOFException e) {
            throw new TakeException(
                    Messages.of("foreign.is-cut-off", file, array.entry().getName()), e);
        }
        ByteBuffer bytes = ByteBuffer.wrap(raw).order(array.order());
        double[] values = new double[count];
        for (int i = 0; i < count; i++) {
            values[i] = value(array, bytes, i * array.width());
        }
        return values;
    }

    private static double value(Array array, ByteBuffer bytes, int at) {
        if (array.type() == 'f') {
            return array.width() == 4 ? bytes.getFloat(at) : bytes.getDouble(at);
        }
        long signed =
                switch (array.width()) {
                    case 1 -> bytes.get(at);
                    case 2 -> bytes.getShort(at);
                    case 4 -> bytes.getInt(at);
                    default -> bytes.getLong(at);
                };
        boolean positive = array.type() == 'i' || signed >= 0;
        return positive ? signed : array.width() == 8 ? signed + 0x1p64 : signed + (1L << 8 * array.width());
    }

    @Override
    public List<Source> sources() {
        return List.copyOf(sources);
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
        List<Array> arrays = new ArrayList<>();
        if (times.get(source) != null) {
            arrays.add(times.get(source));
        }
        for (int c : wanted) {
            arrays.add(columns.get(source).get(c));
        }
        List<DataInputStream> streams = new ArrayList<>();
        try {
            for (Array one : arrays) {
                streams.add(numbers(one));
            }
            long rows = sources.get(source).rows();
            int first = arrays.size() - wanted.length;
            for (long row = 0; row < rows; row += ROWS) {
                int n = (int) Math.min(ROWS, rows - row);
                double[] seconds = new double[n];
                double[][] values = new double[wanted.length][];
                for (int i = 0; first == 0 && i < n; i++) {
                    seconds[i] = row + i;
                }
                for (int a = 0; a < arrays.size(); a++) {
                    double[] numbers = next(arrays.get(a), streams.get(a), n);
                    if (a < first) {
                        seconds = numbers;
                    } else {
                        values[a - first] = numbers;
                    }
                }
                taker.take(seconds, values);
            }
        } finally {
            for (DataInputStream one : streams) {
                one.close();
            }
        }
    }

    @Override
    public void close() throws IOException {
        zip.close();
    }
}
