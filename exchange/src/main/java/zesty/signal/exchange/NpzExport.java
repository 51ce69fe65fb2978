package zesty.signal.exchange;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.Locale;
import java.util.Set;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * Arrays of doubles as scientific programs read them: a zip of one {@code NAME.npy} a column, and {@code t}. Format version 1.0 of
 * these arrays, little-endian.
 */
public final class NpzExport {
    private static final byte[] MAGIC = {(byte) 0x93, 'N', 'U', 'M', 'P', 'Y', 1, 0};
    private static final int ALIGNED = 64;
    private static final int[] NONE = {};

    private NpzExport() {}

    /** Writes all columns; further sources have times of their own, {@code NAME/t}. The stream stays the caller's. */
    public static void write(TakeView view, OutputStream out) throws IOException {
        ZipOutputStream zip = new ZipOutputStream(out);
        zip.setLevel(Deflater.NO_COMPRESSION);
        Set<String> names = new HashSet<>();
        for (int s = 0; s < view.sources().size(); s++) {
            TakeView.Source source = view.sources().get(s);
            begin(zip, names, s == 0 ? "t" : plain(source.name()) + "/t", source.rows());
            view.read(s, NONE, (seconds, values) -> zip.write(bytes(seconds)));
            zip.closeEntry();
            for (int c = 0; c < source.columns().size(); c++) {
                begin(zip, names, plain(source.columns().get(c).name()), source.rows());
                view.read(s, new int[] {c}, (seconds, values) -> zip.write(bytes(values[0])));
                zip.closeEntry();
            }
        }
        zip.finish();
    }

    /** @return the name without what parts folders: no column can then be taken for the time of a further source */
    private static String plain(String name) {
        return name.replace('/', '_').replace('\\', '_');
    }

    private static void begin(ZipOutputStream zip, Set<String> names, String wanted, long rows) throws IOException {
        // A column may be called as the time is.
        String name = wanted;
        for (int n = 2; !names.add(name); n++) {
            name = wanted + "_" + n;
        }
        zip.putNextEntry(new ZipEntry(name + ".npy"));
        String header = String.format(Locale.ROOT, "{'descr': '<f8', 'fortran_order': False, 'shape': (%d,), }", rows);
        int length = MAGIC.length + 2 + header.length() + 1;
        String padded = header + " ".repeat((ALIGNED - length % ALIGNED) % ALIGNED) + "\n";
        ByteBuffer head = ByteBuffer.allocate(MAGIC.length + 2).order(ByteOrder.LITTLE_ENDIAN);
        zip.write(head.put(MAGIC).putShort((short) padded.length()).array());
        zip.write(padded.getBytes(StandardCharsets.US_ASCII));
    }

    private static byte[] bytes(double[] values) {
        ByteBuffer bytes = ByteBuffer.allocate(8 * values.length).order(ByteOrder.LITTLE_ENDIAN);
        bytes.asDoubleBuffer().put(values);
        return bytes.array();
    }
}
