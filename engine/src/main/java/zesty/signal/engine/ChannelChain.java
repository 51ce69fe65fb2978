package zesty.signal.engine;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.function.IntFunction;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.RecipeException;
import zesty.signal.core.clean.Stage;
import zesty.signal.core.clean.Start;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ExtraInputs;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.Holes;
import zesty.signal.core.sample.Segments;
import zesty.signal.core.scale.Scaling;

/**
 * A channel's way from what arrived to what is read: scaled, then cleaned as on a stream. The live trail and stored takes
 * run the same one, so that they read the same. A column that comes only with some of the rows has a rate of its own and
 * is worked on without the rows between.
 */
final class ChannelChain {
    /** A column that has a value in fewer of its rows than this is one that comes with some of them only. */
    private static final double SPARSE = 0.7;

    /** A row that was measured, one without a value in this column, and one that no row stands for. */
    private static final byte MEASURED = 0;

    private static final byte NO_VALUE = 1;
    private static final byte NO_ROW = 2;

    /** What came out of a segment of rows. */
    static final class Part {
        /** One value a row; NaN in rows without one. */
        final double[] rows;
        /** The values alone, those filled in among them, and their times. The same arrays where each row has one. */
        final double[] values;

        final double[] seconds;
        /** Of each value that went in and was filled, how long its hole is, in s; 0 of those measured. Null for none. */
        final double[] holes;
        /** Whether it began anew before these. */
        final boolean cut;

        Part(double[] rows, double[] values, double[] seconds, double[] holes, boolean cut) {
            this.rows = rows;
            this.values = values;
            this.seconds = seconds;
            this.holes = holes;
            this.cut = cut;
        }
    }

    private final Channel channel;
    private final int column;
    private final ExtraInputs extraInputs;
    private final double streamRateHz;
    private final double rateHz;
    private final boolean sparse;
    private final Stage stage;
    private final double delaySeconds;
    private final String trouble;
    private final double longestHoleSeconds;
    private final boolean holds;
    private final Holes rowHoles = new Holes();
    /** What went into a stage that looks ahead and has not come out yet, by its kind; how many of those are not measured. */
    private final byte[] within;

    private int withinAt;
    private int notMeasured;
    /** Outputs of rows that are still to come. */
    private final ArrayDeque<Double> early = new ArrayDeque<>();

    private double lastValue = Double.NaN;
    private double lastSeconds = Double.NaN;
    private int held;
    private double[] latestOthers = {};

    /**
     * @param column index of its column among those of its stream
     * @param rateHz rows a second of its stream
     * @param rowsEach rows from one of its values to the next: 1 where each row has one
     */
    ChannelChain(Rig rig, Channel channel, int column, double rateHz, double rowsEach) {
        this.channel = channel;
        this.column = column;
        sparse = rowsEach > 1;
        streamRateHz = rateHz;
        this.rateHz = rateHz / rowsEach;
        ExtraInputs found;
        String wrong = "";
        try {
            found = ExtraInputs.of(rig, channel);
        } catch (IllegalArgumentException e) {
            found = ExtraInputs.NONE;
            wrong = e.getMessage();
        }
        extraInputs = found;
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
        longestHoleSeconds =
                stage == null ? Recipe.LEAST_HOLE_SECONDS : channel.recipe().longestHoleSeconds(this.rateHz);
        holds = !channel.recipe().fillsByItself();
        within = new byte[stage == null ? 0 : stage.delaySamples()];
    }

    /** @return a chain for values that are read as they are */
    static ChannelChain plain(String name, int column, double rateHz) {
        return new ChannelChain(
                null, new Channel(name, name, Scaling.asItCame(""), Recipe.NONE, true), column, rateHz, 1);
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

    /** @return rows a second of its stream */
    double streamRateHz() {
        return streamRateHz;
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
    boolean sameExtraInputs(ChannelChain other) {
        return extraInputs.equals(other.extraInputs) && trouble.equals(other.trouble);
    }

    /** @return the newest values of the other columns that it takes in */
    double[] latestOthers() {
        return latestOthers.length == channel.scaling().columns().size()
                ? latestOthers
                : new double[channel.scaling().columns().size()];
    }

    /** @return the longest hole that is filled rather than begun anew after, in s */
    double longestHoleSeconds() {
        return longestHoleSeconds;
    }

    /** @return what its column is called */
    String name() {
        return channel.column();
    }

    /**
     * Works rows with no row missing within. What is missing before them is filled where it is short.
     *
     * @param columns the stream's columns by index; {@code from … to - 1} count
     * @param seconds the rows' times, the first one at {@code from}
     * @param stepSeconds as {@link Segments.Segment#stepSeconds}
     */
    Part part(IntFunction<double[]> columns, int from, int to, double[] seconds, double stepSeconds) {
        int n = to - from;
        double[] raw = Arrays.copyOfRange(columns.apply(column), from, to);
        double[][] others = extraInputs.values(columns, from, n);
        latestOthers = new double[others.length];
        for (int c = 0; c < others.length; c++) {
            latestOthers[c] = others[c][n - 1];
        }
        channel.scaling().apply(raw, others, raw, n);
        boolean cut = stepSeconds > longestHoleSeconds;
        if (cut) {
            gap();
        }
        double[] when = from == 0 && seconds.length == n ? seconds : Arrays.copyOfRange(seconds, from, to);
        if (sparse) {
            return sparse(raw, when, cut, stepSeconds > 0);
        }
        int missing = stepSeconds > 0 && !cut ? rowHoles.missing(stepSeconds, rateHz) : 0;
        if (missing == 0 && notMeasured == 0 && (!holds || allThere(raw))) {
            lastValue = raw[n - 1];
            lastSeconds = when[n - 1];
            if (stage != null) {
                stage.apply(raw, 0, n);
            }
            return new Part(raw, raw, when, null, cut);
        }
        return filled(raw, when, missing, stepSeconds, cut);
    }

    private static boolean allThere(double[] values) {
        double sum = 0;
        for (double value : values) {
            sum += value * 0;
        }
        return sum == sum;
    }

    /** Rows after a hole of some that are missing, or without a value in some; one that has none is the last one's. */
    private Part filled(double[] raw, double[] when, int missing, double stepSeconds, boolean cut) {
        int n = raw.length + missing;
        double[] values = new double[n];
        double[] seconds = new double[n];
        double[] holes = new double[n];
        byte[] kinds = new byte[n];
        double before = lastValue == lastValue ? lastValue : raw[0];
        double after = raw[0] == raw[0] ? raw[0] : before;
        for (int k = 0; k < missing; k++) {
            double share = (k + 1.0) / (missing + 1);
            values[k] = before + (after - before) * share;
            seconds[k] = when[0] - stepSeconds * (1 - share);
            holes[k] = stepSeconds;
            kinds[k] = NO_ROW;
        }
        for (int i = 0; i < raw.length; i++) {
            int at = missing + i;
            values[at] = raw[i];
            seconds[at] = when[i];
            if (raw[i] == raw[i]) {
                held = 0;
                lastValue = raw[i];
                lastSeconds = when[i];
            } else if (holds) {
                kinds[at] = NO_VALUE;
                holes[at] = ++held / rateHz;
                values[at] = holes[at] <= longestHoleSeconds ? lastValue : Double.NaN;
            }
        }
        if (stage != null) {
            stage.apply(values, 0, n);
        }
        double[] rows = new double[raw.length];
        int row = 0;
        for (int i = 0; i < n; i++) {
            byte out = kinds[i];
            if (within.length > 0) {
                out = within[withinAt];
                within[withinAt] = kinds[i];
                withinAt = (withinAt + 1) % within.length;
                notMeasured += (kinds[i] != MEASURED ? 1 : 0) - (out != MEASURED ? 1 : 0);
            }
            if (out != NO_ROW) {
                early.add(out == MEASURED ? values[i] : Double.NaN);
            }
            if (kinds[i] != NO_ROW) {
                rows[row++] = early.remove();
            }
        }
        return new Part(rows, values, seconds, holes, cut);
    }

    private Part sparse(double[] raw, double[] when, boolean cut, boolean rowsMissing) {
        int n = raw.length;
        int first = 0;
        while (first < n && raw[first] != raw[first]) {
            first++;
        }
        double step = first < n && lastSeconds == lastSeconds ? when[first] - lastSeconds : 0;
        int missing = rowsMissing && step <= longestHoleSeconds ? rowHoles.missing(step, rateHz) : 0;
        boolean begins = rowsMissing && !cut && step > longestHoleSeconds && step > Gap.PERIODS / rateHz;
        if (begins) {
            gap();
        }
        double[] values = new double[n + missing];
        double[] seconds = new double[n + missing];
        double[] holes = missing > 0 ? new double[n + missing] : null;
        int[] row = new int[n + missing];
        int count = 0;
        for (; count < missing; count++) {
            double share = (count + 1.0) / (missing + 1);
            values[count] = lastValue + (raw[first] - lastValue) * share;
            seconds[count] = lastSeconds + step * share;
            holes[count] = step;
        }
        for (int i = first; i < n; i++) {
            if (!Double.isNaN(raw[i])) {
                values[count] = raw[i];
                seconds[count] = when[i];
                row[count++] = i;
                lastValue = raw[i];
                lastSeconds = when[i];
            }
        }
        values = Arrays.copyOf(values, count);
        if (stage != null) {
            stage.apply(values, 0, count);
        }
        Arrays.fill(raw, Double.NaN);
        for (int i = missing; i < count; i++) {
            raw[row[i]] = values[i];
        }
        double[] filled = holes == null ? null : Arrays.copyOf(holes, count);
        return new Part(raw, values, Arrays.copyOf(seconds, count), filled, cut || begins);
    }

    void gap() {
        if (stage != null) {
            stage.reset();
        }
        Arrays.fill(within, MEASURED);
        notMeasured = 0;
        early.clear();
        lastValue = Double.NaN;
        lastSeconds = Double.NaN;
        held = 0;
        rowHoles.restart();
    }
}
