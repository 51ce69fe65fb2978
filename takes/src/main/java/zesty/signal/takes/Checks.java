package zesty.signal.takes;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.zip.CRC32;

/** Checksums of the rows of a take's tables: the CRC-32 of their cells in turn, as docs/TAKE-FORMAT.md says. */
final class Checks {
    private static final int NOTHING = 0;
    private static final int WHOLE = 1;
    private static final int REAL = 2;
    private static final int TEXT = 3;
    private static final int BYTES = 4;

    private Checks() {}

    /** @param cells whole numbers, doubles, texts, bytes or null */
    static long of(Object... cells) {
        CRC32 sum = new CRC32();
        for (Object cell : cells) {
            if (cell == null) {
                sum.update(NOTHING);
            } else if (cell instanceof Double real) {
                // A database keeps no sign of zero.
                number(sum, REAL, Double.doubleToLongBits(real + 0.0));
            } else if (cell instanceof Number whole) {
                number(sum, WHOLE, whole.longValue());
            } else if (cell instanceof byte[] bytes) {
                number(sum, BYTES, bytes.length);
                sum.update(bytes);
            } else {
                byte[] text = cell.toString().getBytes(StandardCharsets.UTF_8);
                number(sum, TEXT, text.length);
                sum.update(text);
            }
        }
        return sum.getValue();
    }

    private static void number(CRC32 sum, int kind, long value) {
        ByteBuffer bytes = ByteBuffer.allocate(9).order(ByteOrder.LITTLE_ENDIAN);
        sum.update(bytes.put((byte) kind).putLong(value).flip());
    }
}
