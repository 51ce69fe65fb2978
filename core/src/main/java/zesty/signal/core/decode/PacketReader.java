package zesty.signal.core.decode;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/** Reads the fields of whole packets into rows, once their checksum agrees. */
final class PacketReader {
    private final PacketFormat format;
    private static final VarHandle LITTLE_16 =
            MethodHandles.byteArrayViewVarHandle(short[].class, ByteOrder.LITTLE_ENDIAN);
    private static final VarHandle BIG_16 = MethodHandles.byteArrayViewVarHandle(short[].class, ByteOrder.BIG_ENDIAN);
    private static final VarHandle LITTLE_32 =
            MethodHandles.byteArrayViewVarHandle(int[].class, ByteOrder.LITTLE_ENDIAN);
    private static final VarHandle BIG_32 = MethodHandles.byteArrayViewVarHandle(int[].class, ByteOrder.BIG_ENDIAN);

    private final Field[] fields;
    private final boolean[] plain;
    private final int startLength;
    private final int checkAt;
    private final int checkFrom;
    private final Check check;
    private final int checkBytes;
    private final boolean checkLittle;
    final int bytes;
    final RowBuffer rows;

    PacketReader(PacketFormat format) {
        this.format = format;
        fields = format.fields().toArray(Field[]::new);
        plain = new boolean[fields.length];
        for (int c = 0; c < fields.length; c++) {
            plain[c] = fields[c].shift() == 0 && fields[c].bits() == 0 && fields[c].type() != Field.Type.F64;
        }
        startLength = format.start().length() / 2;
        checkAt = startLength + format.length();
        checkFrom = format.checkFromStart() ? 0 : startLength;
        check = format.check();
        checkBytes = check.bytes();
        checkLittle = format.checkLittleEndian();
        bytes = checkAt + checkBytes;
        rows = new RowBuffer(fields.length);
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
        int n = format.rowsEach();
        rows.need(n);
        int first = rows.count;
        int payload = at + startLength;
        for (int c = 0; c < fields.length; c++) {
            Field field = fields[c];
            double[] column = rows.columns[c];
            int place = payload + field.offset();
            if (plain[c]) {
                straight(field, data, place, column, first, n);
                continue;
            }
            for (int row = 0; row < n; row++) {
                column[first + row] = field.read(data, place);
                place += field.stride();
            }
        }
        rows.count += n;
    }

    /** As {@link Field#read}, of a whole number or a short float with all its bits, without a loop over its bytes. */
    private static void straight(Field field, byte[] data, int from, double[] column, int first, int n) {
        boolean little = field.littleEndian();
        int stride = field.stride();
        int place = from;
        for (int row = first; row < first + n; row++, place += stride) {
            column[row] = switch (field.type()) {
                case U8 -> data[place] & 0xff;
                case I8 -> data[place];
                case U16 ->
                    little ? (short) LITTLE_16.get(data, place) & 0xffff : (short) BIG_16.get(data, place) & 0xffff;
                case I16 -> little ? (short) LITTLE_16.get(data, place) : (short) BIG_16.get(data, place);
                case U24 -> three(data, place, little);
                case I24 -> three(data, place, little) << 8 >> 8;
                case U32 -> (little ? (int) LITTLE_32.get(data, place) : (int) BIG_32.get(data, place)) & 0xffffffffL;
                case I32 -> little ? (int) LITTLE_32.get(data, place) : (int) BIG_32.get(data, place);
                default ->
                    Float.intBitsToFloat(little ? (int) LITTLE_32.get(data, place) : (int) BIG_32.get(data, place));
            };
        }
    }

    private static int three(byte[] data, int at, boolean little) {
        int low = data[little ? at : at + 2] & 0xff;
        int high = data[little ? at + 2 : at] & 0xff;
        return high << 16 | (data[at + 1] & 0xff) << 8 | low;
    }
}
