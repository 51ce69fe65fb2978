package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import zesty.signal.core.decode.Column;

/** What the simulated boards share: a steady beat, one row of whole or decimal numbers at a time, and text in ASCII. */
abstract class SampledBoard implements SimulatedBoard {
    private static final int MOST_DIGITS = 6;
    private static final long[] POWERS = {1, 10, 100, 1000, 10_000, 100_000, 1_000_000};
    /** Smaller values have all their decimals as whole numbers. */
    private static final double PLAIN = 1e9;

    final Random random;
    long sample;
    private final double rateHz;
    private final List<Column> columns;
    private final double[] low;
    private final double[] high;
    final double[] row;

    /** @param columns of the stream, in order */
    SampledBoard(Setup setup, double rateHz, List<Column> columns) {
        this.rateHz = rateHz;
        this.columns = columns;
        random = new Random(setup.seed() * 7919 + getClass().getSimpleName().hashCode());
        row = new double[columns.size()];
        low = new double[row.length];
        high = new double[row.length];
        Arrays.fill(low, Double.NEGATIVE_INFINITY);
        Arrays.fill(high, Double.POSITIVE_INFINITY);
        clipped = setup.clipped();
    }

    private final boolean clipped;

    /** Bounds a column, when the board is told to clip. */
    final void range(int column, double lowest, double highest) {
        if (clipped) {
            low[column] = lowest;
            high[column] = highest;
        }
    }

    /** Measures at {@code t} seconds after the start into the row. */
    abstract void measure(double t);

    /** Writes the row as a frame. */
    abstract void write(ByteArrayOutputStream out);

    @Override
    public void next(ByteArrayOutputStream out) {
        measure(sample / rateHz);
        for (int c = 0; c < row.length; c++) {
            row[c] = Math.max(low[c], Math.min(high[c], row[c]));
        }
        write(out);
        sample++;
    }

    @Override
    public final double framesPerSecond() {
        return rateHz;
    }

    @Override
    public final List<Column> columns() {
        return columns;
    }

    @Override
    public double[][] newest() {
        return new double[][] {row.clone()};
    }

    final double noise(double size) {
        return size * random.nextGaussian();
    }

    /** A slow swing, from −1 to 1. */
    static double swing(double t, double periodSeconds) {
        return Math.sin(2 * Math.PI * t / periodSeconds);
    }

    static void text(ByteArrayOutputStream out, String text) {
        out.writeBytes(ascii(text));
    }

    static byte[] ascii(String text) {
        return text.getBytes(StandardCharsets.US_ASCII);
    }

    /** @return the value with so many decimals, as boards print it: the format of the library takes ten times as long */
    static String decimals(double value, int digits) {
        if (digits < 1 || digits > MOST_DIGITS || !(Math.abs(value) < PLAIN)) {
            return String.format(Locale.ROOT, "%." + digits + "f", value);
        }
        long ten = POWERS[digits];
        long scaled = Math.round(Math.abs(value) * ten);
        String rest = Long.toString(scaled % ten);
        return (value < 0 ? "-" : "") + scaled / ten + "." + "0".repeat(digits - rest.length()) + rest;
    }

    /** @return the value rounded to so many decimals, as the text will say it */
    static double rounded(double value, int digits) {
        return Double.parseDouble(decimals(value, digits));
    }
}
