package zesty.signal.core.decode;

import java.util.HexFormat;

/** What the decoders of packets have in common. */
abstract class PacketDecoder implements StreamDecoder {
    private static final HexFormat HEX = HexFormat.ofDelimiter(" ").withUpperCase();
    private static final int SHOWN = 48;

    final PacketFormat format;
    final PacketReader reader;
    private final RejectedLines rejectedLines;
    long lines;
    long understood;

    PacketDecoder(PacketFormat format, RejectedLines rejectedLines) {
        this.format = format;
        this.rejectedLines = rejectedLines;
        reader = new PacketReader(format);
    }

    @Override
    public final PacketFormat format() {
        return format;
    }

    @Override
    public final RejectedLines rejectedLines() {
        return rejectedLines;
    }

    @Override
    public final long lines() {
        return lines;
    }

    @Override
    public final long understood() {
        return understood;
    }

    @Override
    public final int waiting() {
        return reader.rows.count;
    }

    @Override
    public final double newest(int column) {
        return reader.rows.newest(column);
    }

    @Override
    public final Rows takeRows() {
        return reader.rows.take();
    }

    final void reject(byte[] bytes, int from, int to, String why) {
        lines++;
        int shown = Math.min(to, from + SHOWN);
        rejectedLines.add(lines, HEX.formatHex(bytes, from, shown) + (shown < to ? " …" : ""), why);
    }
}
