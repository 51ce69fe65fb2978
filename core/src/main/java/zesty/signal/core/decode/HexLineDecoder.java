package zesty.signal.core.decode;

/** Decodes lines of register bytes. */
final class HexLineDecoder extends LineDecoder {
    private final PacketFormat format;
    private final PacketReader reader;

    HexLineDecoder(PacketFormat format, RejectedLines rejectedLines) {
        this(format, rejectedLines, new PacketReader(format));
    }

    private HexLineDecoder(PacketFormat format, RejectedLines rejectedLines, PacketReader reader) {
        super(reader.rows, format.header(), rejectedLines);
        this.format = format;
        this.reader = reader;
    }

    @Override
    public PacketFormat format() {
        return format;
    }

    @Override
    String accept(String line) {
        byte[] bytes = HexBytes.of(line);
        if (bytes == null) {
            return "no line of register bytes";
        }
        if (bytes.length != reader.bytes) {
            return bytes.length + (bytes.length == 1 ? " byte" : " bytes") + " where there should be " + reader.bytes;
        }
        if (!reader.agrees(bytes, 0)) {
            return "the checksum does not agree";
        }
        reader.read(bytes, 0);
        return null;
    }
}
