package zesty.signal.core.read.wind;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Recorded;
import zesty.signal.core.sample.Order;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * Turns pulses into wind. Between two edges the cups turned once over the pulses a turn, so the speed there is known; after
 * an edge that no other follows within 3 s they stand. Pulses come in four ways, and there is one speed.
 */
final class WindReader extends Recorded {
    private static final double STANDS_SECONDS = 3;
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

    /** The ends lie so many times as far apart as samples from the nearer one: of a sine 7 times, of noise 3 times. */
    private static final double TWO_ENDS = 8;
    /** Of pulses that last for fewer samples than this nobody knows whether they were twice as many … */
    private static final double SAMPLES_A_PULSE = 4;
    /** … where so many of them do. */
    private static final double HURRIED_SHARE = 0.05;

    /** Rows to either side that a count is held against. */
    private static final int AROUND = 20;

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

    @Override
    protected Reading read(Segment stretch) {
        Turned turned = turned(stretch);
        Speeds speeds = turned.speeds();
        boolean any = speeds.any();
        double mean = speeds.mean();
        Speeds.Extremes extremes = speeds.extremes();
        double[] values = speeds.ofSeconds();
        double[] seconds = new double[values.length];
        Arrays.setAll(seconds, i -> speeds.from() + i + 0.5);
        int force = 0;
        while (force < FORCES.length && mean >= FORCES[force]) {
            force++;
        }
        List<Item> items = new ArrayList<>();
        items.add(new Item.Scalar("mean_mps", mean));
        items.add(new Item.Scalar("gust_mps", extremes.gust()));
        items.add(new Item.Scalar("lull_mps", extremes.lull()));
        items.add(new Item.Scalar("beaufort", any ? force : Double.NaN));
        for (int minutes : Wind.MEANS_MINUTES) {
            items.add(new Item.Scalar("mean_" + minutes + "min_mps", speeds.newest(60 * minutes)));
        }
        items.add(new Item.Scalar("turbulence", turbulence(values, mean)));
        items.add(new Item.Trace("series", "m/s", "mps", seconds, values));
        Vane vane = vane(stretch, speeds);
        items.add(new Item.Scalar("from_deg", vane.mean()));
        items.add(new Item.Scalar("from_spread_deg", vane.spread()));
        items.add(new Item.Records("rose", List.of("from_deg", "share", "mps"), List.of(vane.rose())));
        items.add(new Item.Word("force", any ? force + ": " + WORDS[force] : ""));
        items.add(new Item.Word("also", any ? alsoIn(mean) : ""));
        items.add(new Item.Scalar("bounces", turned.bounces()));
        return new Reading(WindQuality.of(turned, stretch.length(), values), items, working(turned));
    }

    private Turned turned(Segment stretch) {
        return switch (input) {
            case Wind.COUNT -> counted(stretch);
            case Wind.EDGES -> timed(stretch.present(0), Double.NaN, Double.NaN);
            default -> wave(stretch);
        };
    }

    private Turned counted(Segment stretch) {
        double[] pulses = stretch.ports()[0];
        Turned asPulses = counted(stretch, pulses, Turned.Counts.SINCE_THE_ROW_BEFORE);
        if (!RunningTotal.is(stretch.present(0))) {
            return asPulses;
        }
        return WindQuality.noWind(asPulses.speeds().extremes().gust())
                ? counted(stretch, RunningTotal.steps(pulses), Turned.Counts.TOTAL)
                : counted(stretch, pulses, Turned.Counts.MAYBE_A_TOTAL);
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
        if (stretch.ports().length < 2 || !speeds.any()) {
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
     */
    private Turned counted(Segment stretch, double[] pulses, Turned.Counts counts) {
        Speeds speeds = new Speeds();
        int stalls = 0;
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
                stalls++;
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
        return new Turned(speeds, counts, 0, stalls, false);
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
    private Turned timed(double[] all, double from, double until) {
        Speeds speeds = new Speeds();
        double[] edges = Edges.withoutBounces(all);
        Turned found = Turned.of(speeds, all.length - edges.length);
        if (edges.length == 0) {
            if (until > from) {
                speeds.add(from, until, 0);
            }
            return found;
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
        return found;
    }

    private Turned wave(Segment stretch) {
        double[] there = stretch.present(0);
        if (there.length < 3) {
            return Turned.of(new Speeds(), 0);
        }
        double low = Order.quantile(there, 0.02);
        double high = Order.quantile(there, 0.98);
        double[] found = new double[stretch.length()];
        int count = 0;
        if (isWave(there, low, high)) {
            for (int[] run : stretch.runs()) {
                count = Edges.ofWave(stretch.ports()[0], stretch.seconds(), run[0], run[1], low, high, found, count);
            }
        }
        double[] edges = Arrays.copyOf(found, count);
        double[] seconds = stretch.seconds();
        return timed(edges, seconds[0], seconds[seconds.length - 1] + 1 / rateHz)
                .hurriedIf(count > 2 && Order.quantile(gaps(edges), HURRIED_SHARE) * rateHz < SAMPLES_A_PULSE);
    }

    private static double[] gaps(double[] edges) {
        double[] gaps = new double[edges.length - 1];
        Arrays.setAll(gaps, i -> edges[i + 1] - edges[i]);
        return gaps;
    }

    /** Both ends of a wave lie far apart against its noise; a line that stands still has only one. */
    private static boolean isWave(double[] x, double low, double high) {
        // Of a fast wave most changes are edges, and nothing is known of its noise by them: but its samples lie at both
        // ends.
        return high > low && (high - low > 8 * noise(x) || high - low > TWO_ENDS * fromEnds(x, low, high));
    }

    /** How far samples usually are from the nearer end. */
    private static double fromEnds(double[] x, double low, double high) {
        return Order.median(Arrays.stream(x)
                .map(v -> Math.min(Math.abs(v - low), Math.abs(v - high)))
                .toArray());
    }

    /** From the changes from sample to sample, most of which are no edges. */
    private static double noise(double[] x) {
        double[] changes = new double[x.length - 1];
        for (int i = 1; i < x.length; i++) {
            changes[i - 1] = Math.abs(x[i] - x[i - 1]);
        }
        return Order.median(changes) / 0.954;
    }

    private List<String> working(Turned turned) {
        if (!turned.speeds().any()) {
            return List.of();
        }
        return List.of(Messages.of(
                "read.wind.speed-m-s-per-hz-turns-a-second-m",
                Digits.of(factor),
                Digits.of(offset),
                Digits.of(STANDS_SECONDS),
                Digits.fixed(turned.speeds().length(), 1),
                Digits.fixed(turned.speeds().mean(), 2)));
    }
}
