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
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ByteTail;

/** Takes the newest line or packet apart, for looking at. */
public final class LinePieces {
    private static final HexFormat HEX = HexFormat.ofDelimiter(" ").withUpperCase();

    private LinePieces() {}

    /**
     * A piece.
     *
     * @param column the column it is; −1 for what belongs to none
     * @param word what stands under a piece of no column
     * @param bytes of a packet's piece, in hexadecimal digits; empty in a line of text
     */
    public record Piece(String text, int column, String word, String bytes) {
        public Piece(String text, int column, String word) {
            this(text, column, word, "");
        }

        private static Piece of(byte[] packet, int from, int to, String word) {
            String bytes = HEX.formatHex(packet, from, to);
            return new Piece(bytes, -1, word, bytes);
        }
    }

    /**
     * A packet.
     *
     * @param at where it begins among the bytes
     */
    public record Packet(int at, List<Piece> pieces) {}

    /** @return the pieces of the newest whole line or packet; empty when there is none */
    public static List<Piece> newest(StreamFormat format, ByteTail.Newest newest) {
        List<Packet> packets = packets(format, newest.bytes(), 1);
        if (!packets.isEmpty() || inPackets(format)) {
            return packets.isEmpty() ? List.of() : packets.get(0).pieces();
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

    private static boolean inPackets(StreamFormat format) {
        return format instanceof PacketFormat packet && packet.framing() != Framing.HEX_LINE;
    }

    /** @return the newest whole packets, oldest first; none where the format has lines */
    public static List<Packet> packets(StreamFormat format, byte[] bytes, int most) {
        if (!inPackets(format)) {
            return List.of();
        }
        PacketFormat packet = (PacketFormat) format;
        List<Packet> found =
                packet.framing() == Framing.START_BYTES ? begun(packet, bytes, most) : stuffed(packet, bytes, most);
        java.util.Collections.reverse(found);
        return found;
    }

    /** @return the pieces of a line; empty when the format does not read it */
    public static List<Piece> line(StreamFormat format, String line) {
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
            pieces.add(new Piece(
                    line.length() > 40 ? line.substring(0, 40) + " …" : line,
                    -1,
                    Messages.of("bench.a-line-of-the-picture")));
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

    /** Packets that begin with bytes of their own, newest first. */
    private static List<Packet> begun(PacketFormat format, byte[] bytes, int most) {
        byte[] start = HexFormat.of().parseHex(format.start());
        int whole = start.length + format.length() + format.check().bytes();
        List<Packet> found = new ArrayList<>();
        for (int at = bytes.length - whole; at >= 0 && found.size() < most; at--) {
            if (java.util.Arrays.equals(bytes, at, at + start.length, start, 0, start.length)) {
                found.add(new Packet(at, fields(format, bytes, at, at + whole)));
                at -= whole - 1;
            }
        }
        return found;
    }

    private static List<Piece> fields(PacketFormat format, byte[] bytes, int from, int to) {
        List<Piece> pieces = new ArrayList<>();
        int payload = from + format.start().length() / 2;
        if (payload > from) {
            pieces.add(Piece.of(bytes, from, payload, "start"));
        }
        for (int c = 0; c < format.fields().size(); c++) {
            Field field = format.fields().get(c);
            int at = payload + field.offset();
            String digits = HEX.formatHex(bytes, at, at + field.type().bytes());
            pieces.add(new Piece(Digits.of(field.read(bytes, at)), c, "", digits));
        }
        int check = payload + format.length();
        if (check < to) {
            pieces.add(Piece.of(bytes, check, to, "checksum"));
        }
        return pieces;
    }

    /** Packets with their stuffing undone, newest first. */
    private static List<Packet> stuffed(PacketFormat format, byte[] bytes, int most) {
        byte end = (byte) (format.framing() == Framing.ZERO_STUFFED ? 0 : 0xc0);
        List<Packet> found = new ArrayList<>();
        int last = before(bytes, end, bytes.length);
        while (last > 0 && found.size() < most) {
            int first = before(bytes, end, last);
            if (first < 0) {
                break;
            }
            byte[] packet = format.unpacked(bytes, first + 1, last);
            if (packet.length > 0) {
                found.add(new Packet(first + 1, fields(format, packet, 0, packet.length)));
            }
            last = first;
        }
        return found;
    }

    private static int before(byte[] bytes, byte wanted, int end) {
        int at = end - 1;
        while (at >= 0 && bytes[at] != wanted) {
            at--;
        }
        return at;
    }
}
