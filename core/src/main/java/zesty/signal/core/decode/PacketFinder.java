package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/** Recognises packets of bytes: their framing, their checksum and their fields. */
final class PacketFinder {
    /** Fewer packets tell nothing. */
    static final int FEWEST = 6;

    private static final String NAME = "[A-Za-z_][A-Za-z0-9_ ./%\\[\\]()]*";
    private static final Pattern NAMES = Pattern.compile(NAME + "(," + NAME + ")*");
    /** A column whose name speaks of something else is a clock only if so many of its numbers rise evenly. */
    private static final int SURELY_STEADY = 20;

    private PacketFinder() {}

    /** @return a format for each framing that makes sense */
    static List<StreamFormat> find(byte[] bytes, int length) {
        List<StreamFormat> found = new ArrayList<>();
        parted(bytes, length, Framing.ZERO_STUFFED).ifPresent(found::add);
        parted(bytes, length, Framing.ESCAPED).ifPresent(found::add);
        frames(bytes, length).ifPresent(found::add);
        return found;
    }

    /** Lines of register bytes. */
    static Optional<StreamFormat> findLines(TextLines text) {
        Map<Integer, List<byte[]>> byLength = new HashMap<>();
        boolean letters = false;
        for (String line : text.lines()) {
            byte[] packet = line.isBlank() ? null : HexBytes.of(line);
            if (packet != null && packet.length >= 2) {
                letters |= line.matches(".*(?:[A-Fa-f]\\d|\\d[A-Fa-f]|0x|[A-F]{2}).*");
                byLength.computeIfAbsent(packet.length, k -> new ArrayList<>()).add(packet);
            }
        }
        List<byte[]> packets = most(byLength);
        if (!letters || packets.size() < 2) {
            return Optional.empty();
        }
        byte[] all = String.join("\n", text.lines()).concat("\n").getBytes(StandardCharsets.UTF_8);
        return Optional.of(format(
                Framing.HEX_LINE,
                new byte[0],
                packets,
                headers(all, all.length).stream()
                        .filter(header -> HexBytes.of(header) == null)
                        .toList()));
    }

    private static List<byte[]> most(Map<Integer, List<byte[]>> byLength) {
        return byLength.values().stream()
                .max(Comparator.comparingInt(List::size))
                .orElse(List.of());
    }

    private static Optional<StreamFormat> parted(byte[] bytes, int length, Framing framing) {
        byte end = Unpacking.end(framing);
        Map<Integer, List<byte[]>> byLength = new HashMap<>();
        byte[] packet = new byte[Rhythm.LONGEST * 4];
        int all = 0;
        int start = 0;
        for (int i = 0; i < length; i++) {
            if (bytes[i] != end) {
                continue;
            }
            if (i > start) {
                all++;
                int n = Unpacking.unpack(framing, bytes, start, i, packet);
                if (n > 1 && n <= packet.length) {
                    byLength.computeIfAbsent(n, k -> new ArrayList<>()).add(Arrays.copyOf(packet, n));
                }
            }
            start = i + 1;
        }
        List<byte[]> packets = most(byLength);
        if (packets.size() < FEWEST || packets.size() * 2 < all) {
            return Optional.empty();
        }
        return Optional.of(format(framing, new byte[0], packets, headers(bytes, length)));
    }

    private static PacketFormat format(Framing framing, byte[] start, List<byte[]> packets, List<String> headers) {
        Checked checked = Checked.of(packets, start.length);
        List<byte[]> payloads = new ArrayList<>();
        int end = packets.get(0).length - checked.check().bytes();
        for (byte[] packet : packets) {
            boolean sound = checked.check() == Check.NONE || checked.agrees(packet);
            if (sound) {
                payloads.add(Arrays.copyOfRange(packet, start.length, end));
            }
        }
        return described(framing, start, checked, payloads, headers);
    }

    private static PacketFormat described(
            Framing framing, byte[] start, Checked checked, List<byte[]> payloads, List<String> headers) {
        int length = payloads.get(0).length;
        FieldFinder finder = new FieldFinder(payloads);
        FieldFinder.Layout layout = null;
        String header = "";
        for (String line : headers) {
            int names = line.split(",").length;
            FieldFinder.Layout fitting = names <= length ? finder.find(names) : null;
            if (fitting != null && fitting.fields().size() == names) {
                layout = fitting;
                header = line;
            }
        }
        layout = layout == null ? finder.find(0) : layout;
        List<Column> columns = header.isEmpty()
                ? Columns.unnamed(layout.fields().size())
                : DelimitedFinder.columns(header.split(","), layout.fields().size());
        List<Column> named = new ArrayList<>(columns);
        BoardClock clock = null;
        boolean sequenced = false;
        for (int c = 0; c < named.size(); c++) {
            Field field = layout.fields().get(c);
            double[] values = payloads.stream()
                    .mapToDouble(p -> field.read(p, field.offset()))
                    .toArray();
            if (field.type().floating() || field.stride() > 0) {
                continue;
            }
            if (!sequenced && steady(values, field.wrap(), 1, 1)) {
                named.set(c, named.get(c).withRole(Role.SEQUENCE));
                sequenced = true;
            } else if (clock == null
                    && field.type().bytes() > 1
                    && steady(values, field.wrap(), 2, FieldFinder.CLOCK_SPREAD)) {
                String name = named.get(c).name().toLowerCase(java.util.Locale.ROOT);
                if (!header.isEmpty() && !Roles.isClock(name) && values.length < SURELY_STEADY) {
                    continue;
                }
                clock = new BoardClock(
                        c, Roles.ticksPerSecond(name, named.get(c).unit(), values), field.wrap());
            }
        }
        if (header.isEmpty()) {
            rename(named, clock);
        }
        return new PacketFormat(
                framing,
                HexFormat.of().withUpperCase().formatHex(start),
                length,
                layout.rowsEach(),
                layout.fields(),
                checked.check(),
                checked.little(),
                checked.fromStart() && start.length > 0,
                header,
                pictured(named),
                clock);
    }

    private static void rename(List<Column> named, BoardClock clock) {
        int n = 1;
        for (int c = 0; c < named.size(); c++) {
            boolean clocked = clock != null && clock.column() == c;
            Column column = named.get(c);
            named.set(
                    c,
                    clocked
                            ? column.withName("clock")
                            : column.role() == Role.SEQUENCE
                                    ? column.withName("sequence")
                                    : column.withName("column" + n++));
        }
    }

    /** So many columns are no channels but the pixels of a picture. */
    private static List<Column> pictured(List<Column> columns) {
        if (columns.size() <= 128) {
            return columns;
        }
        return columns.stream()
                .map(c -> c.role() == Role.VALUE ? c.withRole(Role.PICTURE) : c)
                .toList();
    }

    /** Whether the number goes up by about the same step nearly always, at least by the given one. */
    static boolean steady(double[] values, double wrap, double least, double spread) {
        double[] steps = new double[values.length - 1];
        for (int i = 0; i < steps.length; i++) {
            steps[i] = values[i + 1] - values[i];
            steps[i] += steps[i] < 0 ? wrap : 0;
        }
        double[] sorted = steps.clone();
        Arrays.sort(sorted);
        double median = sorted.length == 0 ? 0 : sorted[sorted.length / 2];
        // What nearly always falls does not wrap each time.
        if (median < least || median > wrap / 2 || least == 1 && median != 1 || values.length < 4) {
            return false;
        }
        long near = Arrays.stream(steps)
                .filter(s -> least == 1 ? s == 1 : Math.abs(s - median) <= Math.max(1, spread * median))
                .count();
        return near * 10 >= steps.length * 8L;
    }

    /**
     * @return lines of text that list names: in the text that the stream begins with, or, of two names and more, on a
     *     line of their own anywhere
     */
    private static List<String> headers(byte[] bytes, int length) {
        List<String> headers = new ArrayList<>();
        boolean allText = true;
        int start = 0;
        for (int i = 0; i < length && headers.size() < 8; i++) {
            int b = bytes[i] & 0xff;
            if (b >= 0x20 && b < 0x7f) {
                continue;
            }
            boolean ended = b == '\n' || b == '\r';
            boolean alone = start == 0 || bytes[start - 1] == '\n' || bytes[start - 1] == 0;
            if (ended && i - start >= 3 && alone) {
                String line = new String(bytes, start, i - start, StandardCharsets.US_ASCII).strip();
                boolean names = NAMES.matcher(line).matches() && (allText || line.indexOf(',') > 0);
                if (names && !headers.contains(line)) {
                    headers.add(line);
                }
            }
            allText &= ended;
            start = i + 1;
        }
        return headers;
    }

    private static Optional<StreamFormat> frames(byte[] bytes, int length) {
        Rhythm rhythm = Rhythm.of(bytes, length);
        if (rhythm == null) {
            return Optional.empty();
        }
        int period = rhythm.period();
        List<Integer> at = rhythm.places();
        boolean[] constant = new boolean[period];
        for (int j = 0; j < period; j++) {
            int same = 0;
            for (int place : at) {
                same += bytes[place + j] == bytes[at.get(at.size() / 2) + j] ? 1 : 0;
            }
            constant[j] = same * 100 >= at.size() * 95;
        }
        PacketFormat unproven = null;
        int likeliest = -1;
        PacketFormat proven = null;
        byte[] sample = Arrays.copyOfRange(bytes, at.get(at.size() / 2), at.get(at.size() / 2) + period);
        for (int turn = 0; turn < period; turn++) {
            if (!constant[turn]) {
                continue;
            }
            int run = 1;
            while (run < 4
                    && run < period - 2
                    && constant[(turn + run) % period]
                    && goesOn(sample[(turn + run) % period] & 0xff)) {
                run++;
            }
            byte[] start = new byte[run];
            for (int i = 0; i < run; i++) {
                start[i] = sample[(turn + i) % period];
            }
            List<byte[]> packets = new ArrayList<>();
            for (int place : at) {
                int from = place + turn;
                if (from + period <= length && starts(bytes, from, start)) {
                    packets.add(Arrays.copyOfRange(bytes, from, from + period));
                }
            }
            if (packets.size() < FEWEST) {
                continue;
            }
            run = withoutUpperEnd(start, packets);
            start = Arrays.copyOf(start, run);
            boolean checked = false;
            for (int n = run; n >= 1 && !checked; n--) {
                if (Checked.of(packets, n).check() != Check.NONE) {
                    checked = true;
                    byte[] fewer = Arrays.copyOf(start, n);
                    // Of two places that both check, the longer start is the whole of it.
                    if (proven == null || n > proven.start().length() / 2) {
                        proven = format(Framing.START_BYTES, fewer, packets, headers(bytes, length));
                    }
                }
            }
            if (checked) {
                continue;
            }
            boolean begins = !constant[(turn + period - 1) % period] || likeness(start) > 2;
            if (begins && likeness(start) > likeliest) {
                likeliest = likeness(start);
                unproven = format(Framing.START_BYTES, start, packets, headers(bytes, length));
            }
        }
        return Optional.ofNullable(proven == null ? unproven : proven);
    }

    /** How much like a start chosen by a maker some standing bytes are; zeros and ones are small numbers' upper ends. */
    private static int likeness(byte[] start) {
        int first = start[0] & 0xff;
        if (first == 0) {
            return 0;
        }
        if (first == 0xff && (start.length == 1 || start[1] == start[0])) {
            return 1;
        }
        boolean own = striking(first) || start.length > 1 && start[1] == start[0] || word(start);
        return !own ? 2 : start.length > 1 ? 4 : 3;
    }

    private static boolean striking(int one) {
        return one >= 0x80 || one == 0x55 || one == 0x5a || one > ' ' && "$#!<[{".indexOf(one) >= 0;
    }

    private static boolean word(byte[] start) {
        for (byte one : start) {
            if (one < 0 || !Character.isLetter(one)) {
                return false;
            }
        }
        return start.length > 1;
    }

    /** Whether a byte that is always the same may go on a start: small ones are the upper ends of small numbers. */
    private static boolean goesOn(int one) {
        return one >= ' ';
    }

    /** @return how much of the bytes is start: not the upper end of a float that hardly moves, nor of a clock */
    private static int withoutUpperEnd(byte[] start, List<byte[]> packets) {
        int found = start.length;
        for (int n = 1; n < start.length; n++) {
            int from = n;
            List<byte[]> payloads = packets.stream()
                    .map(packet -> Arrays.copyOfRange(packet, from, packet.length))
                    .toList();
            FieldFinder finder = new FieldFinder(payloads);
            Field first = finder.find(0).fields().get(0);
            boolean chosen = striking(start[n] & 0xff);
            if (first.type().floating() && !chosen) {
                return n;
            }
            // The last place of these: from a byte sooner all but the lowest byte is as even.
            found = finder.isClock(first) && (n > 1 || !chosen) ? n : found;
        }
        return found;
    }

    private static boolean starts(byte[] bytes, int at, byte[] start) {
        for (int i = 0; i < start.length; i++) {
            if (bytes[at + i] != start[i]) {
                return false;
            }
        }
        return true;
    }
}
