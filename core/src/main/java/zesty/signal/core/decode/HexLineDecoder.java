package zesty.signal.core.decode;

import zesty.signal.core.text.Messages;

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
            return Messages.of("decode.no-line-of-register-bytes");
        }
        if (bytes.length != reader.bytes) {
            return Messages.of(
                    "decode.where-there-should-be",
                    bytes.length + (bytes.length == 1 ? Messages.of("decode.byte") : Messages.of("decode.bytes")),
                    reader.bytes);
        }
        if (!reader.agrees(bytes, 0)) {
            return Messages.of("decode.the-checksum-does-not-agree");
        }
        reader.read(bytes, 0);
        return null;
    }
}
