package zesty.signal.exchange.foreign;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import zesty.signal.core.text.Messages;
import zesty.signal.exchange.EdfExport;
import zesty.signal.takes.Mark;
import zesty.signal.takes.TakeException;

/**
 * EDF and EDF+, continuous and with gaps: signals of one rate are one source, annotations are marks. After Kemp and others, "A simple format
 * for exchange of digitized polygraphic recordings", 1992, and Kemp and Olivan, EDF+, 2003.
 */
final class EdfFile implements ForeignFile {
    private static final int HEAD = 256;
    private static final int MOST_SIGNALS = 4096;
    private static final String ANNOTATIONS = "EDF Annotations";

    /** @param at bytes before it in a record */
    private record Signal(
            String label,
            String unit,
            double low,
            double high,
            int lowest,
            int highest,
            int each,
            int at,
            boolean holes) {
        boolean annotations() {
            return label.equals(ANNOTATIONS);
        }

        double value(short digital) {
            return holes && digital == lowest
                    ? Double.NaN
                    : low + (digital - lowest) * (high - low) / (highest - (double) lowest);
        }
    }

    private final Path file;
    private final FileChannel channel;
    private final List<Signal> signals = new ArrayList<>();
    private final Map<Integer, List<Signal>> sources = new LinkedHashMap<>();
    private final List<Mark> marks = new ArrayList<>();
    private final List<String> remarks = new ArrayList<>();
    private double[] onsets;
    private Instant started;
    private double duration;
    private int recordBytes;

    EdfFile(Path file) throws IOException {
        this.file = file;
        channel = FileChannel.open(file);
        try {
            header();
        } catch (IOException | RuntimeException e) {
            channel.close();
            throw e;
        }
    }

    private ByteBuffer bytes(long at, int count) throws IOException {
        ByteBuffer bytes = ByteBuffer.allocate(count).order(ByteOrder.LITTLE_ENDIAN);
        while (bytes.hasRemaining() && channel.read(bytes, at + bytes.position()) >= 0) {
            // Read on.
        }
        return bytes.flip();
    }

    private String field(ByteBuffer bytes, int length) throws TakeException {
        if (bytes.remaining() < length) {
            throw new TakeException(Messages.of("foreign.is-no-edf-file-its-header-is-cut", file));
        }
        byte[] field = new byte[length];
        bytes.get(field);
        return new String(field, StandardCharsets.ISO_8859_1).strip();
    }

    private double number(ByteBuffer bytes, int length, String what) throws TakeException {
        String text = field(bytes, length);
        try {
            return Double.parseDouble(text);
        } catch (NumberFormatException e) {
            throw new TakeException(Messages.of("foreign.is-no-edf-file-stands-for-its", file, text, what), e);
        }
    }

    private List<String> fields(ByteBuffer bytes, int count, int length) throws TakeException {
        List<String> fields = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            fields.add(field(bytes, length));
        }
        return fields;
    }

    private double[] numbers(ByteBuffer bytes, int count, String what) throws TakeException {
        double[] numbers = new double[count];
        for (int i = 0; i < count; i++) {
            numbers[i] = number(bytes, 8, what);
        }
        return numbers;
    }

    private void header() throws IOException {
        ByteBuffer head = bytes(0, HEAD);
        if (!field(head, 8).equals("0")) {
            throw new TakeException(Messages.of("foreign.is-no-edf-file-it-does-not-begin", file));
        }
        field(head, 160);
        started = moment(field(head, 8), field(head, 8));
        number(head, 8, Messages.of("foreign.header-s-length"));
        boolean gaps = field(head, 44).startsWith("EDF+D");
        int records = (int) number(head, 8, Messages.of("foreign.number-of-records"));
        duration = number(head, 8, Messages.of("foreign.record-s-duration"));
        int count = (int) number(head, 4, Messages.of("foreign.number-of-signals"));
        if (count < 1 || count > MOST_SIGNALS) {
            throw new TakeException(Messages.of("foreign.is-no-edf-file-it-names-signals", file, count));
        }
        ByteBuffer of = bytes(HEAD, HEAD * count);
        List<String> labels = fields(of, count, 16);
        fields(of, count, 80);
        List<String> units = fields(of, count, 8);
        double[] low = numbers(of, count, Messages.of("foreign.physical-minimum"));
        double[] high = numbers(of, count, Messages.of("foreign.physical-maximum"));
        double[] lowest = numbers(of, count, Messages.of("foreign.digital-minimum"));
        double[] highest = numbers(of, count, Messages.of("foreign.digital-maximum"));
        fields(of, count, 80);
        double[] each = numbers(of, count, Messages.of("foreign.samples-of-a-record"));
        List<String> reserved = fields(of, count, 32);
        for (int s = 0; s < count; s++) {
            Signal signal = new Signal(
                    labels.get(s),
                    units.get(s),
                    low[s],
                    high[s],
                    (int) lowest[s],
                    (int) highest[s],
                    (int) each[s],
                    recordBytes,
                    reserved.get(s).equals(EdfExport.MISSING));
            if (each[s] < 1 || !(highest[s] > lowest[s]) && !signal.annotations()) {
                throw new TakeException(Messages.of(
                        "foreign.signal-has-samples-a-record-and",
                        file,
                        labels.get(s),
                        (int) each[s],
                        (int) lowest[s],
                        (int) highest[s]));
            }
            signals.add(signal);
            recordBytes += 2 * (int) each[s];
            if (!signal.annotations()) {
                sources.computeIfAbsent(signal.each(), key -> new ArrayList<>()).add(signal);
            }
        }
        if (sources.isEmpty() || !(duration > 0)) {
            throw new TakeException(Messages.of(
                    "foreign.holds",
                    file,
                    (sources.isEmpty()
                            ? Messages.of("foreign.annotations-only")
                            : Messages.of("foreign.records-of-no-duration"))));
        }
        long whole = (channel.size() - HEAD * (count + 1L)) / recordBytes;
        if (whole < records) {
            remarks.add(Messages.of("foreign.it-is-cut-off-of-its-records-are", (records - whole), records));
        }
        onsets = new double[(int) (records < 0 ? whole : Math.min(records, whole))];
        for (int r = 0; r < onsets.length; r++) {
            onsets[r] = annotations(r, gaps);
        }
        double first = onsets.length == 0 ? 0 : onsets[0];
        Arrays.setAll(onsets, r -> onsets[r] - first);
        marks.replaceAll(mark -> new Mark(mark.seconds() - first, mark.untilSeconds() - first, mark.text()));
        marks.sort(Comparator.comparingDouble(Mark::seconds));
    }

    private static Instant moment(String date, String time) {
        try {
            int[] d =
                    Arrays.stream(date.split("\\D")).mapToInt(Integer::parseInt).toArray();
            int[] t =
                    Arrays.stream(time.split("\\D")).mapToInt(Integer::parseInt).toArray();
            // Two digits for the year: 85 to 99 are of the last century.
            int year = d[2] >= 85 ? 1900 + d[2] : 2000 + d[2];
            return LocalDateTime.of(year, d[1], d[0], t[0], t[1], t[2]).toInstant(ZoneOffset.UTC);
        } catch (DateTimeException | NumberFormatException | ArrayIndexOutOfBoundsException e) {
            return null;
        }
    }

    private long recordAt(int record) {
        return HEAD * (signals.size() + 1L) + (long) record * recordBytes;
    }

    /** Gathers a record's annotations. @return when it begins, in s */
    private double annotations(int record, boolean gaps) throws IOException {
        double onset = record * duration;
        boolean told = false;
        for (Signal signal : signals) {
            if (!signal.annotations()) {
                continue;
            }
            byte[] raw =
                    bytes(recordAt(record) + signal.at(), 2 * signal.each()).array();
            for (String tal : new String(raw, StandardCharsets.UTF_8).split("\0")) {
                String[] pieces = tal.split("\u0014", -1);
                double at = onset(pieces[0]);
                if (Double.isNaN(at)) {
                    continue;
                }
                if (!told && pieces.length > 1 && pieces[1].isEmpty()) {
                    told = true;
                    onset = gaps || record == 0 ? at : onset;
                }
                for (int p = 1; p < pieces.length; p++) {
                    if (!pieces[p].isBlank()) {
                        marks.add(new Mark(at, at + duration(pieces[0]), pieces[p].strip()));
                    }
                }
            }
        }
        if (!gaps && record > 0 && onsets[0] != 0) {
            onset += onsets[0];
        }
        return onset;
    }

    /** @return how long an annotation lasts, in s; NaN where it does not say or it is a moment */
    private static double duration(String text) {
        try {
            int cut = text.indexOf('\u0015');
            double seconds = cut < 0 ? 0 : Double.parseDouble(text.substring(cut + 1));
            return seconds > 0 ? seconds : Double.NaN;
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }

    private static double onset(String text) {
        try {
            return text.matches("[+-][^\u0015]*(\u0015.*)?") ? Double.parseDouble(text.split("\u0015")[0]) : Double.NaN;
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }

    @Override
    public List<Source> sources() {
        List<Source> all = new ArrayList<>();
        for (Map.Entry<Integer, List<Signal>> one : sources.entrySet()) {
            double rate = one.getKey() / duration;
            all.add(new Source(
                    all.isEmpty() ? "" : "rate " + (all.size() + 1),
                    one.getValue().stream().map(EdfFile::column).toList(),
                    (long) onsets.length * one.getKey(),
                    rate));
        }
        return all;
    }

    private static Column column(Signal signal) {
        return new Column(signal.label().isBlank() ? "signal" : signal.label(), signal.unit());
    }

    @Override
    public List<Mark> marks() {
        return List.copyOf(marks);
    }

    @Override
    public Optional<Instant> started() {
        return Optional.ofNullable(started);
    }

    @Override
    public List<String> remarks() {
        return remarks;
    }

    @Override
    public void read(int source, int[] columns, Taker taker) throws IOException {
        List<Signal> of = new ArrayList<>(sources.values()).get(source);
        int each = of.get(0).each();
        for (int r = 0; r < onsets.length; r++) {
            ByteBuffer record = bytes(recordAt(r), recordBytes);
            double[] seconds = new double[each];
            double[][] all = new double[of.size()][each];
            int n = 0;
            for (int i = 0; i < each; i++) {
                // A slot that holds nothing of any signal is a row that was not there.
                boolean there = false;
                for (int c = 0; c < of.size(); c++) {
                    all[c][n] = of.get(c).value(record.getShort(of.get(c).at() + 2 * i));
                    there |= !Double.isNaN(all[c][n]) || !of.get(c).holes();
                }
                seconds[n] = onsets[r] + i * duration / each;
                n += there ? 1 : 0;
            }
            if (n > 0) {
                int rows = n;
                taker.take(
                        Arrays.copyOf(seconds, rows),
                        Arrays.stream(columns)
                                .mapToObj(c -> Arrays.copyOf(all[c], rows))
                                .toArray(double[][]::new));
            }
        }
    }

    @Override
    public void close() throws IOException {
        channel.close();
    }
}
