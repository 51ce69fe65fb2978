package zesty.signal.engine;

import java.util.Arrays;
import java.util.function.IntFunction;
import zesty.signal.core.clean.RecipeException;
import zesty.signal.core.clean.Stage;
import zesty.signal.core.clean.Start;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Companions;
import zesty.signal.core.rig.Rig;

/**
 * A channel's way from what arrived to what is read: scaled, then cleaned as on a stream. The live trail and stored takes
 * run the same one, so that they read the same. A column that comes only with some of the rows has a rate of its own and
 * is worked on without the rows between.
 */
final class ChannelChain {
    /** A column that has a value in fewer of its rows than this is one that comes with some of them only. */
    private static final double SPARSE = 0.7;

    /** What came out of a stretch of rows. */
    static final class Part {
        /** One value a row; NaN in rows without one. */
        final double[] rows;
        /** The values alone, and their times. The same arrays where each row has one. */
        final double[] values;

        final double[] seconds;

        Part(double[] rows, double[] values, double[] seconds) {
            this.rows = rows;
            this.values = values;
            this.seconds = seconds;
        }
    }

    private final Channel channel;
    private final int column;
    private final Companions companions;
    private final double strandRateHz;
    private final double rateHz;
    private final boolean sparse;
    private final Stage stage;
    private final double delaySeconds;
    private final String trouble;
    private double[] latestOthers = {};

    /**
     * @param column index of its column among those of its stream
     * @param rateHz rows a second of its strand
     * @param rowsEach rows from one of its values to the next: 1 where each row has one
     */
    ChannelChain(Rig rig, Channel channel, int column, double rateHz, double rowsEach) {
        this.channel = channel;
        this.column = column;
        sparse = rowsEach > 1;
        strandRateHz = rateHz;
        this.rateHz = rateHz / rowsEach;
        Companions found;
        String wrong = "";
        try {
            found = Companions.of(rig, channel);
        } catch (IllegalArgumentException e) {
            found = Companions.NONE;
            wrong = e.getMessage();
        }
        companions = found;
        Stage made = null;
        double late = 0;
        try {
            made = channel.recipe().stage(this.rateHz, Start.SETTLED);
            late = channel.recipe().delaySeconds(this.rateHz);
        } catch (RecipeException e) {
            wrong = wrong.isEmpty() ? e.getMessage() : wrong;
        }
        stage = made;
        delaySeconds = late;
        trouble = wrong;
    }

    /** @return rows from one value of the column to the next, 1 where nearly each row has one */
    static double rowsEach(double[] column, int from, int to) {
        int there = 0;
        for (int i = from; i < to; i++) {
            there += Double.isNaN(column[i]) ? 0 : 1;
        }
        return rowsEach(to - from, there);
    }

    /** @return rows from one value to the next, 1 where nearly each row has one */
    static double rowsEach(long rows, long values) {
        double share = rows > 0 ? (double) values / rows : 1;
        return values > 0 && share < SPARSE ? 1 / share : 1;
    }

    Channel channel() {
        return channel;
    }

    int column() {
        return column;
    }

    /** @return rows a second of its strand */
    double strandRateHz() {
        return strandRateHz;
    }

    /** @return values a second */
    double rateHz() {
        return rateHz;
    }

    boolean sparse() {
        return sparse;
    }

    /** @return by how many samples its output stands behind because it looks ahead */
    int lateSamples() {
        return stage == null || sparse ? 0 : stage.delaySamples();
    }

    /** @return by how much its output is late in all, as far as that is one number */
    double delaySeconds() {
        return delaySeconds;
    }

    /** @return why it cannot work as it should, in words; empty when it can */
    String trouble() {
        return trouble;
    }

    /** @return whether it takes in the same other columns as another would */
    boolean sameCompanions(ChannelChain other) {
        return companions.equals(other.companions) && trouble.equals(other.trouble);
    }

    /** @return the newest values of the other columns that it takes in */
    double[] latestOthers() {
        return latestOthers.length == channel.scaling().columns().size()
                ? latestOthers
                : new double[channel.scaling().columns().size()];
    }

    /**
     * Works rows with no gap within.
     *
     * @param columns the stream's columns by index; {@code from … to - 1} count
     * @param seconds the rows' times, the first one at {@code from}
     */
    Part part(IntFunction<double[]> columns, int from, int to, double[] seconds) {
        int n = to - from;
        double[] raw = Arrays.copyOfRange(columns.apply(column), from, to);
        double[][] others = companions.values(columns, from, n);
        latestOthers = new double[others.length];
        for (int c = 0; c < others.length; c++) {
            latestOthers[c] = others[c][n - 1];
        }
        channel.scaling().apply(raw, others, raw, n);
        if (!sparse) {
            if (stage != null) {
                stage.apply(raw, 0, n);
            }
            return new Part(
                    raw, raw, from == 0 && seconds.length == n ? seconds : Arrays.copyOfRange(seconds, from, to));
        }
        double[] values = new double[n];
        double[] when = new double[n];
        int[] row = new int[n];
        int count = 0;
        for (int i = 0; i < n; i++) {
            if (!Double.isNaN(raw[i])) {
                values[count] = raw[i];
                when[count] = seconds[from + i];
                row[count++] = i;
            }
        }
        values = Arrays.copyOf(values, count);
        if (stage != null) {
            stage.apply(values, 0, count);
        }
        Arrays.fill(raw, Double.NaN);
        for (int i = 0; i < count; i++) {
            raw[row[i]] = values[i];
        }
        return new Part(raw, values, Arrays.copyOf(when, count));
    }

    void gap() {
        if (stage != null) {
            stage.reset();
        }
    }
}
