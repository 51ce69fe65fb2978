package zesty.signal.exchange;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * One source as sound: a channel a column, whole numbers within 16 or 24 bits as they are, all else as 32-bit float. The rate
 * is the nearest whole one; the true one stands in a text chunk.
 */
public final class WavExport {
    /** By this comment our own files are known: their whole numbers are no parts of full scale. */
    public static final String MARK = "values as written";

    private static final int PCM = 1;
    private static final int FLOAT = 3;
    private static final long LONGEST = 0xFFFF_FFFFL - 4096;

    private WavExport() {}

    /**
     * What was written.
     *
     * @param rateHz the whole rate that stands in the file, and {@code trueRateHz} that of the take
     * @param bits of a value
     * @param seconds how long the file is, and {@code trueSeconds} the take: a sound has no gaps
     */
    public record Written(int rateHz, double trueRateHz, int bits, double seconds, double trueSeconds) {
        /** @return what of it differs from the take, in a sentence; empty for nothing */
        public String loss() {
            List<String> words = new ArrayList<>();
            if (rateHz != trueRateHz) {
                words.add(Messages.of("exchange.the-rate-in-the-file-is-hz-the", rateHz, Digits.exact(trueRateHz)));
            }
            if (Math.abs(trueSeconds - seconds) > Math.max(Gap.PERIODS / trueRateHz, LENGTH_TOLD * trueSeconds)) {
                words.add(Messages.of(
                        "exchange.a-sound-has-no-gaps-it-lasts",
                        Digits.fixed(seconds, 1),
                        Digits.fixed(trueSeconds, 1)));
            }
            if (bits == FLOAT_BITS) {
                words.add(Messages.of("exchange.values-are-rounded-to-32-bit-float"));
            }
            return String.join("; ", words);
        }
    }

    /** A length that differs by less is told by the rate. */
    private static final double LENGTH_TOLD = 1e-3;

    private static final int FLOAT_BITS = 32;

    /** @throws IOException also where the source does not fit into such a file, saying why */
    public static Written write(TakeView view, int source, OutputStream out) throws IOException {
        TakeView.Source of = view.sources().get(source);
        int channels = of.columns().size();
        if (!(of.rateHz() > 0)) {
            throw new IOException(Messages.of("exchange.its-rows-come-too-unevenly-for-one-2"));
        }
        int[] all = IntStream.range(0, channels).toArray();
        int[] bits = {16};
        view.read(source, all, (seconds, values) -> {
            for (double[] one : values) {
                for (double value : one) {
                    bits[0] = Math.max(bits[0], bits(value));
                }
            }
        });
        int width = bits[0] / 8;
        long data = of.rows() * channels * width;
        if (data > LONGEST) {
            throw new IOException(Messages.of("exchange.it-has-bytes-of-values-a-sound", data));
        }
        int rate = (int) Math.max(1, Math.min(Integer.MAX_VALUE, Math.round(of.rateHz())));
        out.write(header(channels, rate, width, data, comment(of)));
        double[] ends = {Double.NaN, Double.NaN};
        view.read(source, all, (seconds, values) -> {
            if (seconds.length > 0) {
                ends[0] = Double.isNaN(ends[0]) ? seconds[0] : ends[0];
                ends[1] = seconds[seconds.length - 1];
            }
            ByteBuffer bytes =
                    ByteBuffer.allocate(seconds.length * channels * width).order(ByteOrder.LITTLE_ENDIAN);
            for (int row = 0; row < seconds.length; row++) {
                for (double[] one : values) {
                    put(bytes, one[row], width);
                }
            }
            out.write(bytes.array());
        });
        if (data % 2 != 0) {
            out.write(0);
        }
        return new Written(rate, of.rateHz(), bits[0], (of.rows() - 1) / of.rateHz(), ends[1] - ends[0]);
    }

    private static int bits(double value) {
        if (value != Math.rint(value)) {
            return FLOAT_BITS;
        }
        return value >= -(1 << 15) && value < 1 << 15 ? 16 : value >= -(1 << 23) && value < 1 << 23 ? 24 : FLOAT_BITS;
    }

    private static void put(ByteBuffer bytes, double value, int width) {
        if (width == 4) {
            bytes.putFloat((float) value);
            return;
        }
        int whole = (int) value;
        for (int b = 0; b < width; b++) {
            bytes.put((byte) (whole >> 8 * b));
        }
    }

    private static String comment(TakeView.Source of) {
        StringBuilder text = new StringBuilder(MARK + "; rate " + Digits.exact(of.rateHz()) + " Hz; columns ");
        for (TakeView.Column column : of.columns()) {
            // A name may hold blanks: a tab parts them.
            text.append(column == of.columns().get(0) ? "" : "\t").append(column.name());
            if (!column.unit().isEmpty()) {
                text.append(" [").append(column.unit()).append(']');
            }
        }
        return text.toString();
    }

    private static byte[] header(int channels, int rate, int width, long data, String comment) throws IOException {
        boolean real = width == 4;
        byte[] words = comment.getBytes(StandardCharsets.UTF_8);
        int said = words.length + 1 + (words.length + 1) % 2;
        int format = real ? 18 : 16;
        int list = 4 + 8 + said;
        long all = 4 + 8 + format + (real ? 12 : 0) + 8 + list + 8 + data + data % 2;
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        text(out, "RIFF", (int) all);
        out.write("WAVE".getBytes(StandardCharsets.US_ASCII));
        text(out, "fmt ", format);
        ByteBuffer fields = ByteBuffer.allocate(format).order(ByteOrder.LITTLE_ENDIAN);
        fields.putShort((short) (real ? FLOAT : PCM)).putShort((short) channels).putInt(rate);
        fields.putInt(rate * channels * width)
                .putShort((short) (channels * width))
                .putShort((short) (8 * width));
        out.write(fields.array());
        if (real) {
            text(out, "fact", 4);
            out.write(ByteBuffer.allocate(4)
                    .order(ByteOrder.LITTLE_ENDIAN)
                    .putInt((int) (data / width / channels))
                    .array());
        }
        text(out, "LIST", list);
        out.write("INFO".getBytes(StandardCharsets.US_ASCII));
        text(out, "ICMT", said);
        out.write(words);
        out.write(new byte[said - words.length]);
        text(out, "data", (int) data);
        return out.toByteArray();
    }

    private static void text(ByteArrayOutputStream out, String name, int length) throws IOException {
        out.write(name.getBytes(StandardCharsets.US_ASCII));
        out.write(ByteBuffer.allocate(4)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putInt(length)
                .array());
    }
}
