package zesty.signal.core.read.cells;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Recorded;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.supply.LoadSteps;
import zesty.signal.core.read.supply.Slope;
import zesty.signal.core.sample.Order;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Holds each cell against the others: by the sag at the load steps they share, and by the slope over the record. */
final class CellsReader extends Recorded {
    private static final double HOUR = 3600;
    /** One that stands out does so by more than so many of the others' spreads, and by this share of their median. */
    private static final double SPREADS = 3;

    private static final double SHARE = 0.1;
    /** A cell moves with a step by more than so many times its noise, levels beside a step being medians of three or five. */
    private static final double MOVES = 4;

    private final double cutoff;
    private List<String> names = List.of();

    CellsReader(Settings settings) {
        super(2);
        cutoff = settings.number("cutoff");
    }

    @Override
    public void named(List<String> columns) {
        names = List.copyOf(columns);
    }

    private String name(int cell) {
        return cell < names.size() ? names.get(cell) : "cell " + (cell + 1);
    }

    /** What one cell does; its sag is NaN without a load step. @param alone whether it has loads that the others do not feel */
    private record Cell(double mean, double sag, Slope slope, double newest, boolean alone) {}

    @Override
    protected Reading read(Segment stretch) {
        int cells = stretch.ports().length;
        int n = 0;
        double[] seconds = new double[stretch.length()];
        double[][] volts = new double[cells][stretch.length()];
        for (int i = 0; i < stretch.length(); i++) {
            if (stretch.measured(i)) {
                seconds[n] = stretch.seconds()[i];
                for (int c = 0; c < cells; c++) {
                    volts[c][n] = stretch.ports()[c][i];
                }
                n++;
            }
        }
        if (n < 2) {
            return new Reading(
                    new Quality(0, List.of(Messages.of("read.cells.too-few-rows-in-which-every-cell", n))),
                    List.of(
                            new Item.Rows("cells", List.of(), List.of()),
                            new Item.Word("weakest", ""),
                            new Item.Scalar("spread_v", Double.NaN)),
                    List.of());
        }
        seconds = Arrays.copyOf(seconds, n);
        double[] sum = new double[n];
        for (int c = 0; c < cells; c++) {
            volts[c] = Arrays.copyOf(volts[c], n);
            for (int i = 0; i < n; i++) {
                sum[i] += volts[c][i];
            }
        }
        List<LoadSteps.Step> found = LoadSteps.in(sum);
        List<LoadSteps.Step> steps =
                found.stream().filter(step -> isCommon(step, volts)).toList();
        List<Cell> all = new ArrayList<>();
        for (double[] own : volts) {
            all.add(new Cell(
                    Arrays.stream(own).average().orElse(Double.NaN),
                    sag(own, steps),
                    Slope.of(seconds, own, 0),
                    own[n - 1],
                    found.stream().anyMatch(step -> !steps.contains(step) && moves(step, own))));
        }
        return answer(all, steps.size(), found.size() - steps.size());
    }

    /** A load that only some of them feel says nothing of how they compare. @return whether most of them move with a step */
    private static boolean isCommon(LoadSteps.Step step, double[][] volts) {
        int with = 0;
        for (double[] own : volts) {
            with += moves(step, own) ? 1 : 0;
        }
        return 2 * with > volts.length;
    }

    private static boolean moves(LoadSteps.Step step, double[] own) {
        double[] leaps = new double[own.length - 1];
        for (int i = 0; i < leaps.length; i++) {
            leaps[i] = Math.abs(own[i + 1] - own[i]);
        }
        double noise = 1.4826 * Order.median(leaps) / Math.sqrt(2);
        return LoadSteps.changeOf(own, step) * Math.signum(step.change()) > MOVES * noise;
    }

    /** The drop from rest to load: at a step down what it loses, at a step up what it had lost. */
    private static double sag(double[] own, List<LoadSteps.Step> steps) {
        return steps.stream()
                .mapToDouble(step -> Math.signum(step.change()) * LoadSteps.changeOf(own, step))
                .filter(drop -> drop == drop)
                .average()
                .orElse(Double.NaN);
    }

    private Reading answer(List<Cell> all, int steps, int alone) {
        double[] sags = all.stream().mapToDouble(Cell::sag).toArray();
        double[] falls =
                all.stream().mapToDouble(cell -> -cell.slope().perSecond()).toArray();
        double[] errors = all.stream().mapToDouble(cell -> cell.slope().error()).toArray();
        List<List<Object>> rows = new ArrayList<>();
        int weak = 0;
        double[] out = new double[all.size()];
        for (int c = 0; c < out.length; c++) {
            Cell cell = all.get(c);
            double bySag = standsOut(sags, c, 0);
            // A slope is known to within its error: less is nothing that stands out.
            double bySlope = cell.alone() ? 0 : standsOut(falls, c, SPREADS * errors[c]);
            out[c] = Math.max(bySag, bySlope);
            boolean is = out[c] > 0;
            weak += is ? 1 : 0;
            rows.add(List.of(
                    name(c),
                    cell.mean(),
                    cell.sag(),
                    cell.slope().perSecond() * HOUR,
                    Double.isNaN(cutoff) ? Double.NaN : cell.slope().secondsTo(cutoff, cell.newest()),
                    is));
        }
        int weakest = IntStream.range(0, out.length)
                .boxed()
                .min(Comparator.<Integer>comparingDouble(c -> -out[c])
                        .thenComparingDouble(c -> Double.isNaN(sags[c]) ? 0 : -sags[c])
                        .thenComparingDouble(c -> all.get(c).newest()))
                .orElse(0);
        double high = all.stream().mapToDouble(Cell::mean).max().orElse(Double.NaN);
        double low = all.stream().mapToDouble(Cell::mean).min().orElse(Double.NaN);
        List<Item> items = List.of(
                new Item.Rows("cells", List.of("column", "mean_v", "sag_v", "slope_v_per_h", "left_s", "weak"), rows),
                new Item.Word("weakest", name(weakest)),
                new Item.Scalar("spread_v", high - low),
                new Item.Scalar("weak", weak),
                new Item.Scalar("load_steps", steps));
        List<String> reasons = new ArrayList<>();
        if (steps == 0) {
            reasons.add(
                    alone > 0
                            ? Messages.of("read.cells.a-load-was-switched-on-some-of")
                            : Messages.of("read.cells.no-load-was-switched-a-cell-that"));
        }
        if (all.size() == 2) {
            reasons.add(Messages.of("read.cells.with-two-cells-each-has-only-the"));
        }
        double share = steps == 0 ? 0.5 : all.size() == 2 ? 0.6 : 1;
        List<String> working = List.of(Messages.of(
                "read.cells.lowest-mean-v-highest-v",
                Digits.fixed(low, 3),
                Digits.fixed(high, 3),
                steps,
                (steps == 1 ? Messages.of("read.cells.load-step") : Messages.of("read.cells.load-steps-2"))));
        return new Reading(new Quality(share, reasons), items, working);
    }

    /** @return by how many of the others' spreads beyond what is allowed a value is larger than theirs; 0 where it does not stand out */
    private static double standsOut(double[] values, int own, double uncertain) {
        double[] others = IntStream.range(0, values.length)
                .filter(c -> c != own)
                .mapToDouble(c -> values[c])
                .toArray();
        double median = Order.median(others);
        double mean = Arrays.stream(others).average().orElse(Double.NaN);
        double squares = Arrays.stream(others).map(v -> (v - mean) * (v - mean)).sum();
        double spread = others.length < 2 ? 0 : Math.sqrt(squares / (others.length - 1));
        double more = values[own] - median;
        double needed = Math.max(Math.max(SPREADS * spread, SHARE * Math.abs(median)), uncertain);
        return more > needed ? more / Math.max(needed, 1e-300) : 0;
    }
}
