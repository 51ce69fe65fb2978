package zesty.signal.core.decode;

import java.util.HexFormat;
import java.util.List;
import java.util.Objects;
import zesty.signal.core.text.Messages;

/**
 * Packets of bytes with numbers at fixed places: start bytes where the framing has them, then {@code length} bytes of
 * fields, then the checksum.
 *
 * @param start the start bytes in hexadecimal digits; empty where the framing needs none
 * @param length bytes of fields, between the start bytes and the checksum
 * @param rowsEach rows in a packet
 * @param fields one for each column
 * @param checkLittleEndian whether the checksum's lowest byte comes first
 * @param checkFromStart whether the checksum covers the start bytes too
 * @param header a line of text that names the columns, passed over; empty when there is none
 */
public record PacketFormat(
        Framing framing,
        String start,
        int length,
        int rowsEach,
        List<Field> fields,
        Check check,
        boolean checkLittleEndian,
        boolean checkFromStart,
        String header,
        List<Column> columns,
        BoardClock clock)
        implements StreamFormat {
    /** The longest packet believed in, in bytes. */
    public static final int MOST_BYTES = 1 << 15;

    public PacketFormat {
        Objects.requireNonNull(framing, "framing");
        Objects.requireNonNull(check, "check");
        Objects.requireNonNull(header, "header");
        fields = List.copyOf(fields);
        columns = Columns.checked(columns, clock);
        if (fields.size() != columns.size()) {
            throw new IllegalArgumentException(
                    Messages.of("decode.columns-need-as-many-fields-not", columns.size(), fields.size()));
        }
        if (length < 1 || length > MOST_BYTES || rowsEach < 1) {
            throw new IllegalArgumentException(
                    Messages.of("decode.a-packet-has-1-to-bytes-of-fields", MOST_BYTES, length, rowsEach));
        }
        if (!start.matches("([0-9A-F]{2})*") || framing == Framing.START_BYTES && start.isEmpty()) {
            throw new IllegalArgumentException(Messages.of("decode.start-bytes-are-written-like-a55a", start));
        }
        for (Field field : fields) {
            if (field.end(rowsEach) > length) {
                throw new IllegalArgumentException(
                        Messages.of("decode.a-field-ends-at-byte-of-only", field.end(rowsEach), length));
            }
        }
    }

    byte[] startBytes() {
        return HexFormat.of().parseHex(start);
    }

    /** @return the packet between two ends, its stuffing or escaping undone; empty when it is no whole packet */
    public byte[] unpacked(byte[] bytes, int from, int to) {
        byte[] packet = new byte[length + check.bytes()];
        int n = Unpacking.unpack(framing, bytes, from, to, packet);
        return n == packet.length ? packet : new byte[0];
    }

    @Override
    public String kind() {
        return framing.kind();
    }

    @Override
    public double sequenceWrap() {
        int column = indexOf(Role.SEQUENCE);
        return column < 0 ? 0 : fields.get(column).wrap();
    }

    @Override
    public String words() {
        int whole = start.length() / 2 + length + check.bytes();
        return Messages.of(
                "decode.bytes-each", framing.words() + (start.isEmpty() ? "" : " " + start), whole, check.words());
    }

    @Override
    public PacketFormat with(List<Column> others, BoardClock ticking) {
        return new PacketFormat(
                framing,
                start,
                length,
                rowsEach,
                fields,
                check,
                checkLittleEndian,
                checkFromStart,
                header,
                others,
                ticking);
    }

    @Override
    public StreamDecoder decoder(RejectedLines rejectedLines) {
        return switch (framing) {
            case START_BYTES -> new FrameDecoder(this, rejectedLines);
            case ZERO_STUFFED, ESCAPED -> new PartedDecoder(this, rejectedLines);
            case HEX_LINE -> new HexLineDecoder(this, rejectedLines);
        };
    }
}
