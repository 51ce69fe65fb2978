package zesty.signal.core.decode;

import java.util.Arrays;
import java.util.List;
import java.util.function.Supplier;
import zesty.signal.core.sample.Block;

/**
 * Times of a file that were stamped by a clock about as coarse as the rows: several share one, or some have two ticks between them.
 * They are put evenly between the ticks, as those of a board that is read live; other times stay as they are.
 */
public final class CoarseStamps {
    private static final int PIECE = 1024;
    /** One step in so many without a tick is of rows that share stamps. */
    private static final double SHARED = 50;
    /** Of fewer steps of two ticks it cannot be told what they are. */
    private static final int FEW = 8;
    /** The {@link Spacing#scatter} of even distances: 0.2 with every twentieth row lost, 0.5 and more of chance. */
    private static final double EVEN = 0.3;
    /** As many longer steps as this, as a share of what chance would have, are of lost rows. */
    private static final double BY_CHANCE = 0.5;
    /** Steps are whole ticks but for this share of one, nearly all of them. */
    private static final double WHOLE = 0.02;

    private static final double NEARLY_ALL = 0.99;
    /** What clocks of boards and loggers tell apart: to a whole hour, in s. */
    private static final double FINEST_SECONDS = 1e-9;

    private static final double COARSEST_SECONDS = 3600;

    private final double tick;
    private final Timestamper timestamper;
    private double first = Double.NaN;

    private CoarseStamps(double tick) {
        this.tick = tick;
        timestamper = new Timestamper(new BoardClock(0, 1 / tick, 0), Double.NaN, 1 / tick);
    }

    /**
     * @param some times of a file, never falling, that tell how fine they are
     * @param values columns of the same rows, or of the first of them, which tell where some were lost; NaN where there is no number.
     *     Asked for only where times alone do not tell
     * @return null where they are fine enough
     */
    public static CoarseStamps of(double[] some, Supplier<List<double[]>> values) {
        double tick = tick(some);
        return Double.isNaN(tick) || !coarse(some, tick, values) ? null : new CoarseStamps(tick);
    }

    /**
     * @param seconds all of a file's times, never falling
     * @param values as above
     * @return the times of the rows; the same where they are fine
     */
    public static double[] spread(double[] seconds, Supplier<List<double[]>> values) {
        CoarseStamps stamps = of(seconds, values);
        return stamps == null ? seconds : stamps.next(seconds);
    }

    /** @param seconds the times of the next rows. @return when these were taken */
    public double[] next(double[] seconds) {
        first = first == first || seconds.length == 0 ? first : seconds[0];
        double[] spread = new double[seconds.length];
        int done = 0;
        for (int from = 0; from < seconds.length; from += PIECE) {
            int to = Math.min(seconds.length, from + PIECE);
            double[] ticks = new double[to - from];
            int begin = from;
            Arrays.setAll(ticks, i -> Math.rint((seconds[begin + i] - first) / tick));
            // A file waits for nobody: each row arrives when it was stamped.
            Block block = timestamper.date(new Rows(new double[][] {ticks}, ticks.length), seconds[to - 1], 0);
            for (int row = 0; row < block.rows(); row++) {
                spread[done++] = first + block.time().secondsAt(row);
            }
        }
        return done == seconds.length ? spread : seconds;
    }

    /** @return the least step there is, where all others are whole ones of it; NaN where they are not */
    private static double tick(double[] seconds) {
        double least = Double.POSITIVE_INFINITY;
        double most = 0;
        for (int i = 1; i < seconds.length; i++) {
            double step = seconds[i] - seconds[i - 1];
            most = Math.max(most, step);
        }
        for (int i = 1; i < seconds.length; i++) {
            double step = seconds[i] - seconds[i - 1];
            // What rounding leaves between equal texts is no step.
            least = step > 1e-7 * most ? Math.min(least, step) : least;
        }
        int whole = 0;
        for (int i = 1; i < seconds.length; i++) {
            double ticks = (seconds[i] - seconds[i - 1]) / least;
            whole += Math.abs(ticks - Math.rint(ticks)) <= WHOLE ? 1 : 0;
        }
        boolean told =
                whole >= NEARLY_ALL * (seconds.length - 1) && least >= FINEST_SECONDS && least <= COARSEST_SECONDS;
        return told ? least : Double.NaN;
    }

    /** Whether steps of two ticks stand as far from each other as a rate between the ticks has them, not as chance has lost rows. */
    private static boolean coarse(double[] seconds, double tick, Supplier<List<double[]>> values) {
        int none = 0;
        int ones = 0;
        int twos = 0;
        int longer = 0;
        int since = -1;
        Spacing spacing = new Spacing();
        for (int i = 1; i < seconds.length; i++) {
            int ticks = (int) Math.min(TickSteps.MOST, Math.rint((seconds[i] - seconds[i - 1]) / tick));
            none += ticks == 0 ? 1 : 0;
            ones += ticks == 1 ? 1 : 0;
            twos += ticks == 2 ? 1 : 0;
            longer += ticks >= TickSteps.MOST ? 1 : 0;
            if (ticks == 2 && since >= 0) {
                spacing.saw(i - since);
            }
            // Across a longer step nobody knows how far it would have been.
            since = ticks >= TickSteps.MOST ? -1 : ticks == 2 ? i : since;
        }
        boolean even =
                spacing.count() >= FEW && spacing.scatter() < EVEN && (double) longer * ones < BY_CHANCE * twos * twos;
        return none * SHARED > seconds.length || even && !RegularLosses.told(seconds, tick, values.get());
    }
}
