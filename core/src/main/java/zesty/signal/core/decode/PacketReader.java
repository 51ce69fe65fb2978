package zesty.signal.core.decode;

/** Reads the fields of whole packets into rows, once their checksum agrees. */
final class PacketReader {
    private final PacketFormat format;
    private final Field[] fields;
    private final int startLength;
    private final int checkAt;
    private final int checkFrom;
    final int bytes;
    final RowBuffer rows;

    PacketReader(PacketFormat format) {
        this.format = format;
        fields = format.fields().toArray(Field[]::new);
        startLength = format.start().length() / 2;
        checkAt = startLength + format.length();
        checkFrom = format.checkFromStart() ? 0 : startLength;
        bytes = checkAt + format.check().bytes();
        rows = new RowBuffer(fields.length);
    }

    /** @return whether the packet that starts at {@code at} and is all there agrees with its checksum */
    boolean agrees(byte[] data, int at) {
        Check check = format.check();
        if (check == Check.NONE) {
            return true;
        }
        long written = 0;
        int n = check.bytes();
        for (int i = 0; i < n; i++) {
            int place = format.checkLittleEndian() ? n - 1 - i : i;
            written = written << 8 | data[at + checkAt + place] & 0xff;
        }
        return written == check.of(data, at + checkFrom, at + checkAt);
    }

    /** Makes rows of the packet that starts at {@code at}. */
    void read(byte[] data, int at) {
        int n = format.rowsEach();
        rows.need(n);
        int first = rows.count;
        int payload = at + startLength;
        for (int c = 0; c < fields.length; c++) {
            Field field = fields[c];
            double[] column = rows.columns[c];
            int place = payload + field.offset();
            for (int row = 0; row < n; row++) {
                column[first + row] = field.read(data, place);
                place += field.stride();
            }
        }
        rows.count += n;
    }
}
