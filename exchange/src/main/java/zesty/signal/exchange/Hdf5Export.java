package zesty.signal.exchange;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.LongFunction;
import zesty.signal.takes.Mark;

/**
 * HDF5: a dataset a column and {@code t}, with attributes {@code unit} and {@code rate_hz}; further sources in groups of their names,
 * marks in the group {@code marks} as {@code t_s}, {@code text} and, where one is a span, {@code until_s}. Written from front to end,
 * column by column.
 */
public final class Hdf5Export {
    /** The group of the marks. */
    public static final String MARKS = "marks";

    private static final int[] NONE = {};
    private static final int BYTES = 1 << 16;

    /** Puts a column's bytes. */
    @FunctionalInterface
    private interface Content {
        void put(OutputStream out) throws IOException;
    }

    /** A column: its place in the file follows from those before it. @param header by its data's address */
    private record Dataset(String name, long bytes, LongFunction<byte[]> header, Content content) {}

    /** Columns that lie together. @param name empty for the root */
    private record Group(String name, List<Dataset> datasets) {}

    private Hdf5Export() {}

    /** The stream stays the caller's. */
    public static void write(TakeView view, List<Mark> marks, OutputStream out) throws IOException {
        List<Group> groups = new ArrayList<>();
        for (int s = 0; s < view.sources().size(); s++) {
            groups.add(source(view, s));
        }
        if (!marks.isEmpty()) {
            groups.add(marks(marks));
        }
        long at = Hdf5Headers.SUPERBLOCK;
        List<byte[]> headers = new ArrayList<>();
        List<Long> starts = new ArrayList<>();
        for (Group group : groups) {
            for (Dataset one : group.datasets()) {
                headers.add(one.header().apply(at));
                starts.add(at);
                at += one.bytes();
            }
        }
        // Behind the data the headers of the columns, then those of the groups, the root's last.
        List<Long> addresses = new ArrayList<>();
        for (byte[] header : headers) {
            addresses.add(at);
            at += header.length;
        }
        List<String> rootNames = new ArrayList<>();
        List<Long> rootAddresses = new ArrayList<>();
        List<byte[]> groupHeaders = new ArrayList<>();
        int next = 0;
        for (Group group : groups) {
            List<String> names = new ArrayList<>();
            List<Long> own = new ArrayList<>();
            for (Dataset one : group.datasets()) {
                names.add(one.name());
                own.add(addresses.get(next++));
            }
            if (group.name().isEmpty()) {
                rootNames.addAll(names);
                rootAddresses.addAll(own);
            } else {
                byte[] header = group(names, own);
                rootNames.add(group.name());
                rootAddresses.add(at);
                groupHeaders.add(header);
                at += header.length;
            }
        }
        byte[] root = group(rootNames, rootAddresses);
        out.write(Hdf5Headers.superblock(at, at + root.length));
        for (Group group : groups) {
            for (Dataset one : group.datasets()) {
                one.content().put(out);
            }
        }
        for (byte[] header : headers) {
            out.write(header);
        }
        for (byte[] header : groupHeaders) {
            out.write(header);
        }
        out.write(root);
    }

    private static byte[] group(List<String> names, List<Long> addresses) {
        return Hdf5Headers.group(
                names.toArray(String[]::new),
                addresses.stream().mapToLong(Long::longValue).toArray());
    }

    private static Group source(TakeView view, int s) {
        TakeView.Source source = view.sources().get(s);
        Set<String> names = new HashSet<>(List.of("t"));
        List<Dataset> datasets = new ArrayList<>();
        datasets.add(numbers("t", "s", source, out -> column(view, s, NONE, 0, out)));
        for (int c = 0; c < source.columns().size(); c++) {
            TakeView.Column column = source.columns().get(c);
            String name = plain(column.name());
            name = name.equals("t") || s == 0 && name.equals(MARKS) ? name + "_board" : name;
            while (!names.add(name)) {
                name += "_";
            }
            int[] only = {c};
            datasets.add(numbers(name, column.unit(), source, out -> column(view, s, only, 1, out)));
        }
        return new Group(s == 0 ? "" : plain(source.name()), datasets);
    }

    private static Dataset numbers(String name, String unit, TakeView.Source source, Content content) {
        // An empty text is no value of this format.
        String told = unit.isEmpty() ? "1" : unit;
        return new Dataset(
                name,
                source.rows() * Double.BYTES,
                at -> Hdf5Headers.numbers(at, source.rows(), told, source.rateHz()),
                content);
    }

    private static String plain(String name) {
        return name.replace('/', '_');
    }

    /** Puts exactly as many rows as were told: what a damaged take lacks is missing values. */
    private static void column(TakeView view, int source, int[] columns, int which, OutputStream out)
            throws IOException {
        long rows = view.sources().get(source).rows();
        long[] done = {0};
        ByteBuffer bytes = ByteBuffer.allocate(BYTES).order(ByteOrder.LITTLE_ENDIAN);
        view.read(source, columns, (seconds, values) -> {
            double[] all = which == 0 ? seconds : values[0];
            for (int i = 0; i < all.length && done[0] < rows; i++, done[0]++) {
                put(all[i], bytes, out);
            }
        });
        for (; done[0] < rows; done[0]++) {
            put(Double.NaN, bytes, out);
        }
        out.write(bytes.array(), 0, bytes.position());
    }

    private static void put(double value, ByteBuffer bytes, OutputStream out) throws IOException {
        bytes.putDouble(value);
        if (!bytes.hasRemaining()) {
            out.write(bytes.array());
            bytes.clear();
        }
    }

    private static Group marks(List<Mark> marks) {
        List<Dataset> datasets = new ArrayList<>();
        datasets.add(moments("t_s", marks.stream().mapToDouble(Mark::seconds).toArray()));
        if (marks.stream().anyMatch(Mark::isSpan)) {
            datasets.add(moments(
                    "until_s", marks.stream().mapToDouble(Mark::untilSeconds).toArray()));
        }
        List<byte[]> texts = marks.stream()
                .map(one -> one.text().getBytes(StandardCharsets.UTF_8))
                .toList();
        int width = Math.max(1, texts.stream().mapToInt(one -> one.length).max().orElse(1));
        datasets.add(new Dataset(
                "text", (long) texts.size() * width, at -> Hdf5Headers.texts(at, texts.size(), width), out -> {
                    for (byte[] one : texts) {
                        out.write(java.util.Arrays.copyOf(one, width));
                    }
                }));
        return new Group(MARKS, datasets);
    }

    private static Dataset moments(String name, double[] seconds) {
        return new Dataset(
                name,
                (long) seconds.length * Double.BYTES,
                at -> Hdf5Headers.numbers(at, seconds.length, "s", Double.NaN),
                out -> {
                    ByteBuffer bytes =
                            ByteBuffer.allocate(seconds.length * Double.BYTES).order(ByteOrder.LITTLE_ENDIAN);
                    for (double one : seconds) {
                        bytes.putDouble(one);
                    }
                    out.write(bytes.array());
                });
    }
}
