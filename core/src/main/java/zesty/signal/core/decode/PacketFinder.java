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
        FrameFinder.find(bytes, length).ifPresent(found::add);
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

    static PacketFormat format(Framing framing, byte[] start, List<byte[]> packets, List<String> headers) {
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
            if (!sequenced && Trends.steady(values, field.wrap(), 1, 1)) {
                named.set(c, named.get(c).withRole(Role.SEQUENCE));
                sequenced = true;
            } else if (clock == null
                    && field.type().bytes() > 1
                    && Trends.steady(values, field.wrap(), 2, Trends.CLOCK_SPREAD)) {
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

    /**
     * @return lines of text that list names: in the text that the stream begins with, or, of two names and more, on a
     *     line of their own anywhere
     */
    static List<String> headers(byte[] bytes, int length) {
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
}
