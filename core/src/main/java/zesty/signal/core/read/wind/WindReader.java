package zesty.signal.core.read.wind;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Recorded;
import zesty.signal.core.sample.Order;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * Turns pulses into wind. Between two edges the cups turned once over the pulses a turn, so the speed there is known; after
 * an edge that no other follows within 3 s they stand. Longer than others: four ways in which pulses come, one speed.
 */
final class WindReader extends Recorded {
    private static final double STANDS_SECONDS = 3;
    private static final double GUST_SECONDS = 3;
    private static final double GRID_SECONDS = 0.25;
    /** From force 1 on, in m/s: the international scale of wind force. */
    private static final double[] FORCES = {0.3, 1.6, 3.4, 5.5, 8.0, 10.8, 13.9, 17.2, 20.8, 24.5, 28.5, 32.7};

    /** What each force does, in words of our own. */
    private static final String[] WORDS = {
        Messages.of("read.wind.smoke-rises-straight-the-water-is"),
        Messages.of("read.wind.smoke-drifts-the-water-creeps"),
        Messages.of("read.wind.felt-on-the-cheek-the-water-is"),
        Messages.of("read.wind.leaves-keep-moving-the-first"),
        Messages.of("read.wind.dust-lifts-small-waves-with-a"),
        Messages.of("read.wind.bushes-sway-white-tips-everywhere"),
        Messages.of("read.wind.wires-hum-the-first-large-waves"),
        Messages.of("read.wind.walking-against-it-is-work-foam"),
        Messages.of("read.wind.twigs-break-off-long-waves-with"),
        Messages.of("read.wind.tiles-loosen-thick-streaks-of-foam"),
        Messages.of("read.wind.trees-come-down-the-sea-is-white"),
        Messages.of("read.wind.damage-all-round-ships-are-lost-to"),
        Messages.of("read.wind.everything-flies-air-and-water-are")
    };

    /** Rows to either side that a count is held against. */
    private static final int AROUND = 20;
    /** A second so many times as fast as any that is not beside it is no wind. */
    private static final double UNLIKELY = 3;

    private static final int FEWEST_SECONDS = 10;
    /** Beyond the gusts of any storm but a few, in m/s. */
    private static final double MOST_MPS = 70;

    private final String input;
    private final double factor;
    private final double offset;
    private final double perTurn;
    private final double rateHz;

    WindReader(String input, double factor, double offset, double perTurn, double rateHz) {
        super(1);
        this.input = input;
        this.factor = factor;
        this.offset = offset;
        this.perTurn = perTurn;
        this.rateHz = rateHz;
    }

    /** Speeds that hold from one moment to the next. */
    private static final class Speeds {
        private double[] until = new double[256];
        private double[] mps = new double[256];
        private int count;
        private double from = Double.NaN;

        void add(double begin, double end, double speed) {
            if (Double.isNaN(from)) {
                from = begin;
            }
            if (count == until.length) {
                until = Arrays.copyOf(until, 2 * count);
                mps = Arrays.copyOf(mps, 2 * count);
            }
            until[count] = end;
            mps[count++] = speed;
        }

        double end() {
            return count == 0 ? from : until[count - 1];
        }

        /** @return metres of wind that have gone by at moments rising from the start, each */
        double[] way(double[] at) {
            double[] way = new double[at.length];
            double gone = 0;
            double since = from;
            int k = 0;
            for (int i = 0; i < at.length; i++) {
                while (k < count && until[k] <= at[i]) {
                    gone += (until[k] - since) * mps[k];
                    since = until[k++];
                }
                way[i] = gone + (k < count ? (at[i] - since) * mps[k] : 0);
            }
            return way;
        }
    }

    @Override
    protected Reading read(Segment stretch) {
        int[] bounces = {0};
        int[] stalls = {0};
        Speeds speeds =
                switch (input) {
                    case Wind.COUNT -> counted(stretch, stretch.ports()[0], stalls);
                    case Wind.EDGES -> timed(stretch.present(0), Double.NaN, Double.NaN, bounces);
                    default -> wave(stretch, bounces);
                };
        boolean rising = input.equals(Wind.COUNT) && RunningTotal.is(stretch.present(0));
        // No wind blows like that: it is a count from the start on.
        boolean total = rising && speeds.end() > speeds.from && extremes(speeds)[1] > MOST_MPS;
        if (total) {
            stalls[0] = 0;
            speeds = counted(stretch, RunningTotal.steps(stretch.ports()[0]), stalls);
        }
        double length = speeds.end() - speeds.from;
        boolean any = length > 0;
        double mean = any ? speeds.way(new double[] {speeds.end()})[0] / length : Double.NaN;
        double[] extremes = any ? extremes(speeds) : new double[] {Double.NaN, Double.NaN};
        double[] seconds = new double[any ? (int) Math.max(1, Math.floor(length + 1e-9)) : 0];
        double[] values = new double[seconds.length];
        for (int i = 0; i < seconds.length; i++) {
            double from = speeds.from + i;
            double[] way = speeds.way(new double[] {from, Math.min(from + 1, speeds.end())});
            seconds[i] = from + 0.5;
            values[i] = (way[1] - way[0]) / Math.min(1, length);
        }
        int force = 0;
        while (force < FORCES.length && mean >= FORCES[force]) {
            force++;
        }
        List<Item> items = new ArrayList<>();
        items.add(new Item.Scalar("mean_mps", mean));
        items.add(new Item.Scalar("gust_mps", extremes[1]));
        items.add(new Item.Scalar("lull_mps", extremes[0]));
        items.add(new Item.Scalar("beaufort", any ? force : Double.NaN));
        for (int minutes : Wind.MEANS_MINUTES) {
            items.add(new Item.Scalar("mean_" + minutes + "min_mps", newest(speeds, 60 * minutes)));
        }
        items.add(new Item.Scalar("turbulence", turbulence(values, mean)));
        items.add(new Item.Trace("series", "m/s", "mps", seconds, values));
        Vane vane = vane(stretch, speeds);
        items.add(new Item.Scalar("from_deg", vane.mean()));
        items.add(new Item.Scalar("from_spread_deg", vane.spread()));
        items.add(new Item.Records("rose", List.of("from_deg", "share", "mps"), List.of(vane.rose())));
        items.add(new Item.Word("force", any ? force + ": " + WORDS[force] : ""));
        items.add(new Item.Word("also", any ? alsoIn(mean) : ""));
        items.add(new Item.Scalar("bounces", bounces[0]));
        return new Reading(
                quality(stretch, length, mean, extremes[1], rising, total, bounces[0], stalls[0], values),
                items,
                working(mean, length, bounces[0]));
    }

    private static String alsoIn(double mps) {
        return Messages.of(
                "read.wind.km-h-knots-mph",
                Digits.fixed(3.6 * mps, 1),
                Digits.fixed(mps * 3600 / 1852, 1),
                Digits.fixed(mps * 3600 / 1609.344, 1));
    }

    /** What the vane said, each row with the wind that blew up to it. */
    private Vane vane(Segment stretch, Speeds speeds) {
        Vane vane = new Vane();
        if (stretch.ports().length < 2 || speeds.count == 0) {
            return vane;
        }
        double[] at = stretch.seconds();
        double[] way = speeds.way(at);
        for (int[] run : stretch.runs()) {
            for (int i = Math.max(1, run[0] + 1); i < run[1]; i++) {
                double apart = at[i] - at[i - 1];
                vane.add(stretch.ports()[1][i], (way[i] - way[i - 1]) / apart, apart);
            }
        }
        return vane;
    }

    /** @return the mean of the newest so many seconds; NaN where the record is shorter */
    private static double newest(Speeds speeds, double seconds) {
        double from = speeds.end() - seconds;
        if (!(from >= speeds.from - 1e-9)) {
            return Double.NaN;
        }
        double[] way = speeds.way(new double[] {from, speeds.end()});
        return (way[1] - way[0]) / seconds;
    }

    /** The spread of the means of a second over the mean. */
    private static double turbulence(double[] values, double mean) {
        if (values.length < 2 || !(mean > 0)) {
            return Double.NaN;
        }
        double own = Arrays.stream(values).average().orElse(0);
        double squares = Arrays.stream(values).map(v -> (v - own) * (v - own)).sum();
        return Math.sqrt(squares / (values.length - 1)) / mean;
    }

    private double speed(double hz) {
        return hz > 0 ? factor * hz / perTurn + offset : 0;
    }

    /**
     * Pulses a row: in a row without any the cups may still turn slowly, so what comes next is spread over it. Where rows
     * are missing, a board that stalled counted on and says it in the next row; a link that lost them did not.
     *
     * @param stalls counts the rows that hold what was counted while none came
     */
    private Speeds counted(Segment stretch, double[] pulses, int[] stalls) {
        Speeds speeds = new Speeds();
        double[] seconds = stretch.seconds();
        double usual = 1 / rateHz;
        int before = -1;
        for (int[] run : stretch.runs()) {
            if (run[1] <= run[0]) {
                continue;
            }
            double last = seconds[run[0]] - usual;
            if (before >= 0 && stalled(pulses, run[0], (seconds[run[0]] - seconds[before]) * rateHz)) {
                last = seconds[before];
                stalls[0]++;
            }
            for (int i = run[0]; i < run[1]; i++) {
                if (pulses[i] > 0) {
                    if (i > run[0] && seconds[i] - usual - last >= STANDS_SECONDS) {
                        speeds.add(last, seconds[i] - usual, 0);
                        last = seconds[i] - usual;
                    }
                    speeds.add(last, seconds[i], speed(pulses[i] / (seconds[i] - last)));
                    last = seconds[i];
                }
            }
            if (seconds[run[1] - 1] > last) {
                speeds.add(last, seconds[run[1] - 1], 0);
            }
            before = run[1] - 1;
        }
        return speeds;
    }

    /**
     * @param rows how many rows' time has passed since the row before
     * @return whether the count of a row is nearer to that of so many rows around it than to that of one
     */
    private static boolean stalled(double[] pulses, int row, double rows) {
        double sum = 0;
        int n = 0;
        for (int i = Math.max(0, row - AROUND); i < Math.min(pulses.length, row + AROUND); i++) {
            if (i != row && pulses[i] == pulses[i]) {
                sum += pulses[i];
                n++;
            }
        }
        return n > 0 && sum > 0 && pulses[row] * n > sum * Math.sqrt(rows);
    }

    /** @param from and until what the record covers; NaN: from the first edge to the last */
    private Speeds timed(double[] all, double from, double until, int[] bounces) {
        Speeds speeds = new Speeds();
        double[] edges = Edges.withoutBounces(all);
        bounces[0] = all.length - edges.length;
        if (edges.length == 0) {
            if (until > from) {
                speeds.add(from, until, 0);
            }
            return speeds;
        }
        if (edges[0] > from) {
            double first = edges.length > 1 ? edges[1] - edges[0] : STANDS_SECONDS;
            // Before the first edge it turned as after it, for one pulse at the most.
            double turned = Math.min(edges[0] - from, first < STANDS_SECONDS ? first : 0);
            if (edges[0] - turned > from) {
                speeds.add(from, edges[0] - turned, 0);
            }
            if (turned > 0) {
                speeds.add(edges[0] - turned, edges[0], speed(1 / first));
            }
        }
        for (int i = 1; i < edges.length; i++) {
            double apart = edges[i] - edges[i - 1];
            speeds.add(edges[i - 1], edges[i], apart > STANDS_SECONDS ? 0 : speed(1 / apart));
        }
        double last = edges[edges.length - 1];
        if (until > last) {
            double apart = edges.length > 1 ? last - edges[edges.length - 2] : STANDS_SECONDS;
            double turns = apart < STANDS_SECONDS ? Math.min(until - last, apart) : 0;
            if (turns > 0) {
                speeds.add(last, last + turns, speed(1 / apart));
            }
            if (until > last + turns) {
                speeds.add(last + turns, until, 0);
            }
        }
        return speeds;
    }

    private Speeds wave(Segment stretch, int[] bounces) {
        double[] there = stretch.present(0);
        if (there.length < 3) {
            return new Speeds();
        }
        double low = Order.quantile(there, 0.02);
        double high = Order.quantile(there, 0.98);
        double[] found = new double[stretch.length()];
        int count = 0;
        double noise = noise(there);
        // Both ends of a wave lie far apart against its noise; a line that stands still has only one.
        if (high - low > 8 * noise && high > low) {
            for (int[] run : stretch.runs()) {
                count = Edges.ofWave(stretch.ports()[0], stretch.seconds(), run[0], run[1], low, high, found, count);
            }
        }
        double[] seconds = stretch.seconds();
        return timed(Arrays.copyOf(found, count), seconds[0], seconds[seconds.length - 1] + 1 / rateHz, bounces);
    }

    /** From the changes from sample to sample, most of which are no edges. */
    private static double noise(double[] x) {
        double[] changes = new double[x.length - 1];
        for (int i = 1; i < x.length; i++) {
            changes[i - 1] = Math.abs(x[i] - x[i - 1]);
        }
        return Order.median(changes) / 0.954;
    }

    private static double[] extremes(Speeds speeds) {
        double length = speeds.end() - speeds.from;
        double window = Math.min(GUST_SECONDS, length);
        int steps = (int) Math.max(0, Math.floor((length - window) / GRID_SECONDS + 1e-9));
        double[] from = new double[steps + 1];
        double[] to = new double[steps + 1];
        for (int i = 0; i <= steps; i++) {
            from[i] = speeds.from + i * GRID_SECONDS;
            to[i] = from[i] + window;
        }
        double[] before = speeds.way(from);
        double[] after = speeds.way(to);
        double low = Double.MAX_VALUE;
        double high = 0;
        for (int i = 0; i <= steps; i++) {
            double mean = (after[i] - before[i]) / window;
            low = Math.min(low, mean);
            high = Math.max(high, mean);
        }
        return new double[] {low, high};
    }

    /** @return how many times as fast the fastest second is as any that is not beside it; 0 for few seconds */
    private static double beyond(double[] values) {
        int top = 0;
        for (int i = 0; i < values.length; i++) {
            top = values[i] > values[top] ? i : top;
        }
        double other = 0;
        for (int i = 0; i < values.length; i++) {
            other = Math.abs(i - top) > 2 ? Math.max(other, values[i]) : other;
        }
        return values.length < FEWEST_SECONDS || other == 0 ? 0 : values[top] / other;
    }

    private static Quality quality(
            Segment stretch,
            double length,
            double mean,
            double gust,
            boolean rising,
            boolean total,
            int bounces,
            int stalls,
            double[] values) {
        if (!(length > 0)) {
            return new Quality(
                    stretch.length() > 2 ? 0.1 : 0,
                    List.of(
                            stretch.length() == 0
                                    ? Messages.of("read.wind.nothing-has-come-yet")
                                    : Messages.of("read.wind.too-little-for-a-speed")));
        }
        List<String> reasons = new ArrayList<>();
        double share = 1;
        if (length < GUST_SECONDS) {
            share = 0.4;
            reasons.add(Messages.of("read.wind.shorter-than-the-3-s-of-a-gust"));
        }
        if (gust > MOST_MPS) {
            share = Math.min(share, 0.3);
            reasons.add(Messages.of("read.wind.no-wind-blows-at", Digits.fixed(gust, 0)));
        }
        if (rising) {
            share = Math.min(share, total ? 0.8 : 0.6);
            reasons.add(
                    total
                            ? Messages.of("read.wind.counts-never-fall")
                            : Messages.of("read.wind.counts-never-fall-are-they"));
        }
        double beyond = beyond(values);
        if (beyond > UNLIKELY) {
            share = Math.min(share, 0.3);
            reasons.add(0, Messages.of("read.wind.one-second-is-times-as-fast-as-any", Digits.fixed(beyond, 0)));
        }
        if (stalls > 0) {
            share = Math.min(share, 0.9);
            reasons.add(Messages.of(
                    "read.wind.what-was-counted-while-no-row-was",
                    stalls + (stalls == 1 ? Messages.of("read.wind.row-holds") : Messages.of("read.wind.rows-hold"))));
        }
        if (mean == 0) {
            reasons.add(Messages.of("read.wind.calm-no-pulse-received"));
        }
        if (bounces > 0) {
            reasons.add(Messages.of("read.wind.edges-left-out-the-contact-bounces", bounces));
        }
        return new Quality(share, reasons);
    }

    private List<String> working(double mean, double length, int bounces) {
        if (!(length > 0)) {
            return List.of();
        }
        return List.of(Messages.of(
                "read.wind.speed-m-s-per-hz-turns-a-second-m",
                Digits.of(factor),
                Digits.of(offset),
                Digits.of(STANDS_SECONDS),
                Digits.fixed(length, 1),
                Digits.fixed(mean, 2)));
    }
}
