package zesty.signal.app.window.bench;

import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.Field;
import zesty.signal.core.decode.Framing;
import zesty.signal.core.decode.PacketFormat;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.engine.ByteTail;

/** Takes the newest line or packet apart, for looking at. */
final class LinePieces {
    private static final HexFormat HEX = HexFormat.ofDelimiter(" ").withUpperCase();

    private LinePieces() {}

    /**
     * A piece.
     *
     * @param column the column it is; −1 for what belongs to none
     * @param word what stands under a piece of no column
     */
    record Piece(String text, int column, String word) {}

    /** @return the pieces of the newest whole line or packet; empty when there is none */
    static List<Piece> newest(StreamFormat format, ByteTail.Newest newest) {
        if (format instanceof PacketFormat packet && packet.framing() == Framing.START_BYTES) {
            return packet(packet, newest.bytes());
        }
        if (format instanceof PacketFormat packet && packet.framing() != Framing.HEX_LINE) {
            return stuffed(packet, newest.bytes());
        }
        List<ByteLine> lines = ByteLine.ofText(newest, 12, java.util.Map.of());
        for (int i = lines.size() - 2; i > 0; i--) {
            List<Piece> pieces = line(format, lines.get(i).text().strip());
            if (!pieces.isEmpty()) {
                return pieces;
            }
        }
        return List.of();
    }

    private static List<Piece> line(StreamFormat format, String line) {
        List<Piece> pieces = new ArrayList<>();
        if (format instanceof DelimitedFormat delimited) {
            String[] fields =
                    line.split(delimited.delimiter() == ' ' ? "[ \t]+" : "\\Q" + delimited.delimiter() + "\\E", -1);
            int width = delimited.columns().size();
            if (fields.length < width || line.equals(delimited.header())) {
                return pieces;
            }
            for (int c = 0; c < width; c++) {
                pieces.add(new Piece(fields[c].strip(), c, ""));
            }
            return pieces;
        }
        if (format instanceof PictureFormat) {
            pieces.add(
                    new Piece(line.length() > 40 ? line.substring(0, 40) + " …" : line, -1, "a line of the picture"));
            return pieces;
        }
        // Numbers and what stands around them: as many numbers as there are columns, in the order of the stream.
        int column = 0;
        java.util.regex.Matcher numbers = java.util.regex.Pattern.compile(
                        "(?<![\\p{L}\\d])[+-]?(?:0x[0-9A-Fa-f]+|\\d+(?:[.,]\\d+)?(?:[eE][+-]?\\d+)?)")
                .matcher(line);
        int at = 0;
        while (numbers.find() && column < format.columns().size()) {
            String before = line.substring(at, numbers.start()).strip();
            if (!before.isEmpty()) {
                pieces.add(new Piece(before, -1, ""));
            }
            pieces.add(new Piece(numbers.group(), column++, ""));
            at = numbers.end();
        }
        String rest = line.substring(at).strip();
        if (!rest.isEmpty()) {
            pieces.add(new Piece(rest, -1, ""));
        }
        return column == 0 ? List.of() : pieces;
    }

    private static List<Piece> packet(PacketFormat format, byte[] bytes) {
        byte[] start = HexFormat.of().parseHex(format.start());
        int whole = start.length + format.length() + format.check().bytes();
        for (int at = bytes.length - whole; at >= 0; at--) {
            if (java.util.Arrays.equals(bytes, at, at + start.length, start, 0, start.length)) {
                return fields(format, bytes, at, at + whole);
            }
        }
        return List.of();
    }

    private static List<Piece> fields(PacketFormat format, byte[] bytes, int from, int to) {
        List<Piece> pieces = new ArrayList<>();
        int payload = from + format.start().length() / 2;
        if (payload > from) {
            pieces.add(new Piece(HEX.formatHex(bytes, from, payload), -1, "start"));
        }
        for (int c = 0; c < format.fields().size(); c++) {
            Field field = format.fields().get(c);
            int at = payload + field.offset();
            pieces.add(new Piece(HEX.formatHex(bytes, at, at + field.type().bytes()), c, ""));
        }
        int check = payload + format.length();
        if (check < to) {
            pieces.add(new Piece(HEX.formatHex(bytes, check, to), -1, "checksum"));
        }
        return pieces;
    }

    /** The newest packet with its stuffing undone. */
    private static List<Piece> stuffed(PacketFormat format, byte[] bytes) {
        byte end = (byte) (format.framing() == Framing.ZERO_STUFFED ? 0 : 0xc0);
        int last = bytes.length - 1;
        while (last > 0 && bytes[last] != end) {
            last--;
        }
        int first = last - 1;
        while (first > 0 && bytes[first] != end) {
            first--;
        }
        if (first <= 0) {
            return List.of();
        }
        byte[] packet = format.unpacked(bytes, first + 1, last);
        return packet.length == 0 ? List.of() : fields(format, packet, 0, packet.length);
    }
}
