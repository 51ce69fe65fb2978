package zesty.signal.core.decode;

/** Reads the fields of whole packets into rows, once their checksum agrees. */
final class PacketReader {
    /** A field that needs more than its bytes put together: shifted, cut, or a long float. */
    private static final int SPECIAL = -1;

    private static final int U8 = 0;
    private static final int I8 = 1;
    private static final int U16 = 2;
    private static final int I16 = 3;
    private static final int U24 = 4;
    private static final int I24 = 5;
    private static final int U32 = 6;
    private static final int I32 = 7;
    private static final int F32 = 8;

    private final Field[] fields;
    private final int[] kinds;
    private final int[] offsets;
    private final int[] strides;
    private final boolean[] little;
    private final int rowsEach;
    private final int startLength;
    private final int checkAt;
    private final int checkFrom;
    private final Check check;
    private final int checkBytes;
    private final boolean checkLittle;
    final int bytes;
    final RowBuffer rows;

    PacketReader(PacketFormat format) {
        fields = format.fields().toArray(Field[]::new);
        int n = fields.length;
        kinds = new int[n];
        offsets = new int[n];
        strides = new int[n];
        little = new boolean[n];
        for (int c = 0; c < n; c++) {
            Field field = fields[c];
            boolean special = field.shift() > 0 || field.bits() > 0 || field.type() == Field.Type.F64;
            kinds[c] = special ? SPECIAL : kind(field.type());
            offsets[c] = field.offset();
            strides[c] = field.stride();
            little[c] = field.littleEndian();
        }
        rowsEach = format.rowsEach();
        startLength = format.start().length() / 2;
        checkAt = startLength + format.length();
        checkFrom = format.checkFromStart() ? 0 : startLength;
        check = format.check();
        checkBytes = check.bytes();
        checkLittle = format.checkLittleEndian();
        bytes = checkAt + checkBytes;
        rows = new RowBuffer(n);
    }

    private static int kind(Field.Type type) {
        return switch (type) {
            case U8 -> U8;
            case I8 -> I8;
            case U16 -> U16;
            case I16 -> I16;
            case U24 -> U24;
            case I24 -> I24;
            case U32 -> U32;
            case I32 -> I32;
            case F32 -> F32;
            case F64 -> SPECIAL;
        };
    }

    /** @return whether the packet that starts at {@code at} and is all there agrees with its checksum */
    boolean agrees(byte[] data, int at) {
        if (checkBytes == 0) {
            return true;
        }
        long written = 0;
        int first = at + checkAt;
        for (int i = 0; i < checkBytes; i++) {
            written = written << 8 | data[first + (checkLittle ? checkBytes - 1 - i : i)] & 0xff;
        }
        return written == check.of(data, at + checkFrom, first);
    }

    /** Makes rows of the packet that starts at {@code at}. */
    void read(byte[] data, int at) {
        rows.need(rowsEach);
        int first = rows.count;
        int payload = at + startLength;
        double[][] columns = rows.columns;
        for (int c = 0; c < kinds.length; c++) {
            double[] column = columns[c];
            int place = payload + offsets[c];
            for (int row = first; row < first + rowsEach; row++) {
                column[row] =
                        kinds[c] == SPECIAL ? fields[c].read(data, place) : whole(kinds[c], data, place, little[c]);
                place += strides[c];
            }
        }
        rows.count += rowsEach;
    }

    /** As {@link Field#read}, of a whole number or a short float with all its bits, without a loop over its bytes. */
    private static double whole(int kind, byte[] d, int p, boolean little) {
        switch (kind) {
            case U8:
                return d[p] & 0xff;
            case I8:
                return d[p];
            case U16:
                return little ? d[p] & 0xff | (d[p + 1] & 0xff) << 8 : (d[p] & 0xff) << 8 | d[p + 1] & 0xff;
            case I16:
                return little ? d[p] & 0xff | d[p + 1] << 8 : d[p] << 8 | d[p + 1] & 0xff;
            case U24:
                return three(d, p, little) & 0xffffff;
            case I24:
                return three(d, p, little);
            case U32:
                return four(d, p, little) & 0xffffffffL;
            case I32:
                return four(d, p, little);
            default:
                return Float.intBitsToFloat(four(d, p, little));
        }
    }

    private static int three(byte[] d, int p, boolean little) {
        return little
                ? d[p] & 0xff | (d[p + 1] & 0xff) << 8 | d[p + 2] << 16
                : d[p] << 16 | (d[p + 1] & 0xff) << 8 | d[p + 2] & 0xff;
    }

    private static int four(byte[] d, int p, boolean little) {
        return little
                ? d[p] & 0xff | (d[p + 1] & 0xff) << 8 | (d[p + 2] & 0xff) << 16 | d[p + 3] << 24
                : d[p] << 24 | (d[p + 1] & 0xff) << 16 | (d[p + 2] & 0xff) << 8 | d[p + 3] & 0xff;
    }
}
