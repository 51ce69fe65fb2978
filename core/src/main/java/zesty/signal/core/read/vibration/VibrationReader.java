package zesty.signal.core.read.vibration;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Recorded;
import zesty.signal.core.read.Settings;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.spectrum.EvenRecord;
import zesty.signal.core.spectrum.FineLines;
import zesty.signal.core.spectrum.Lines;
import zesty.signal.core.spectrum.Welch;
import zesty.signal.core.spectrum.Window;
import zesty.signal.core.text.Messages;

/** Works a stretch of vibration out: sums over all axes, and the lines of their common spectrum. */
final class VibrationReader extends Recorded {
    /** A look of a second tells lines a few Hz apart; a shorter record has to do with what it has. */
    private static final double LOOK_SECONDS = 1;

    private static final int SHORTEST = 64;
    /** Below this the short look shows the drift of a sensor rather than a shaking, in Hz. */
    private static final double LOWEST_HZ = 2;

    private static final double WORTH_SAYING = 0.001;

    /** The trend has a point for each of these, in s. */
    private static final double TREND_SECONDS = 1;
    /** The place of a line is known this well in a record of some seconds, in Hz. */
    private static final double FOLD_HZ = 1;
    /** Of samples that come unevenly, lines above this share of the rate are told too low, by a tenth and more. */
    private static final double HIGH = 0.3;

    private static final double UNEVEN = 0.7;
    /** Lines below this share of the highest one are of no weight here. */
    private static final double LOW = 0.05;

    /** More lines than are told are looked at for harmonics. */
    private static final int LOOKED_AT = 12;

    private final int most;
    private final double rateHz;
    private final double metres;
    private final double fromHz;
    private final double turnsHz;
    private final double parts;
    private final double[] good;
    private final double[] seen;

    VibrationReader(int most, Settings settings, double rateHz) {
        super(1);
        this.most = most;
        this.rateHz = rateHz;
        metres = Shaking.metres(settings.text("unit"));
        fromHz = settings.number("from");
        turnsHz = settings.number(Vibration.TURNS);
        good = settings.list(Vibration.GOOD);
        seen = settings.list(Vibration.SEEN);
        parts = settings.text("bands").equals("thirds") ? 10 : 10 / 3.0;
    }

    /** Sums over the samples at which every axis is there. */
    private record Sums(int count, double rms, double peak, double kurtosis, double clipped) {}

    @Override
    protected Reading read(Segment stretch) {
        Sums sums = sums(stretch);
        EvenRecord even = EvenRecord.of(stretch.ports(), stretch.seconds(), stretch.runs(), stretch::measured, rateHz);
        Shaking shaking = shaking(even);
        FineLines fine = shaking == null
                ? null
                : FineLines.of(even.axes(), even.runs(), rateHz, shaking.density(), shaking.binHz(), LOWEST_HZ);
        List<Lines.Line> all = fine == null ? List.of() : fine.lines();
        List<Lines.Line> lines = all.subList(0, Math.min(most, all.size()));
        List<Item> items = new ArrayList<>();
        items.add(new Item.Scalar("rms", sums.rms()));
        items.add(new Item.Scalar("peak", sums.peak()));
        items.add(new Item.Scalar("crest", sums.rms() > 0 ? sums.peak() / sums.rms() : Double.NaN));
        items.add(new Item.Scalar("kurtosis", sums.kurtosis()));
        items.add(new Item.Records(
                "peaks",
                List.of("hz", "amplitude"),
                lines.stream()
                        .map(line -> new double[] {line.hz(), line.amplitude()})
                        .toList()));
        items.add(new Item.Scalar("clipped", sums.clipped()));
        shaken(items, shaking, all, stretch);
        held(items, lines, even);
        return new Reading(quality(sums, lines, even), items, working(sums, lines, fine));
    }

    /** Against what was kept: a good state, and the lines at another rate. */
    private void held(List<Item> items, List<Lines.Line> lines, EvenRecord record) {
        List<Double> hz = lines.stream().map(Lines.Line::hz).toList();
        List<double[]> state = GoodState.of(hz, record.axes(), record.runs(), rateHz);
        items.add(new Item.Records("state", List.of("hz", "amplitude", "scatter"), state));
        items.add(new Item.Records(
                "grown",
                List.of("hz", "was", "now", "scatters", "grown"),
                good.length == 0 ? List.of() : GoodState.compared(good, state)));
        items.add(new Item.Records(
                "unfolded", List.of("hz", "other_hz", "true_hz"), Folding.resolved(hz, rateHz, seen, FOLD_HZ)));
    }

    private static Sums sums(Segment stretch) {
        int axes = stretch.ports().length;
        double[] mean = new double[axes];
        boolean[] clipped = new boolean[stretch.length()];
        for (int a = 0; a < axes; a++) {
            double[] there = stretch.present(a);
            for (double value : there) {
                mean[a] += value / there.length;
            }
            Clipping.mark(stretch.ports()[a], clipped);
        }
        int n = 0;
        double squares = 0;
        double fourths = 0;
        double most = 0;
        int cut = 0;
        for (int[] run : stretch.runs()) {
            for (int i = run[0]; i < run[1]; i++) {
                if (!stretch.measured(i)) {
                    continue;
                }
                double size = 0;
                for (int a = 0; a < axes; a++) {
                    double own = stretch.ports()[a][i] - mean[a];
                    size += own * own;
                }
                squares += size;
                fourths += size * size;
                most = Math.max(most, size);
                cut += clipped[i] ? 1 : 0;
                n++;
            }
        }
        if (n == 0) {
            return new Sums(0, Double.NaN, Double.NaN, Double.NaN, Double.NaN);
        }
        double square = squares / n;
        return new Sums(
                n,
                Math.sqrt(square),
                Math.sqrt(most),
                square > 0 ? fourths / n / (square * square) : Double.NaN,
                (double) cut / n);
    }

    private void shaken(List<Item> items, Shaking shaking, List<Lines.Line> lines, Segment stretch) {
        boolean some = shaking != null;
        List<Lines.Line> most = lines.subList(0, Math.min(LOOKED_AT, lines.size()));
        double turning = turnsHz == turnsHz ? turnsHz : some ? Shaking.turning(most, shaking.binHz()) : Double.NaN;
        items.add(new Item.Scalar("velocity_mm_s", some ? shaking.velocity(fromHz, metres) : Double.NaN));
        items.add(new Item.Scalar("displacement_um", some ? shaking.displacement(fromHz, metres) : Double.NaN));
        items.add(new Item.Scalar("turning_hz", turning));
        items.add(new Item.Records(
                "orders",
                List.of("order", "hz", "amplitude"),
                some && turning > 0 ? shaking.orders(turning, rateHz, lines) : List.of()));
        items.add(new Item.Records("bands", List.of("hz", "rms"), some ? shaking.bands(parts) : List.of()));
        items.add(trend(stretch));
    }

    /** The RMS of each second, about that second's mean. */
    private Item.Trace trend(Segment stretch) {
        int window = (int) Math.max(4, Math.round(TREND_SECONDS * rateHz));
        List<double[]> points = new ArrayList<>();
        for (int[] run : stretch.runs()) {
            for (int at = run[0]; at + window <= run[1]; at += window) {
                double square = 0;
                for (double[] axis : stretch.ports()) {
                    double sum = 0;
                    double squares = 0;
                    for (int i = at; i < at + window; i++) {
                        sum += axis[i];
                        squares += (axis[i] - axis[at]) * (axis[i] - axis[at]);
                    }
                    double off = sum / window - axis[at];
                    square += Math.max(0, squares / window - off * off);
                }
                points.add(new double[] {stretch.seconds()[at] + TREND_SECONDS / 2, Math.sqrt(square)});
            }
        }
        return new Item.Trace(
                "trend",
                "",
                "rms",
                points.stream().mapToDouble(point -> point[0]).toArray(),
                points.stream().mapToDouble(point -> point[1]).toArray());
    }

    /** Each axis has a spectrum; densities add up to that of the length of the vector. @return null for too few samples */
    private Shaking shaking(EvenRecord record) {
        int look = Integer.highestOneBit((int) Math.max(SHORTEST, Math.ceil(2 * LOOK_SECONDS * rateHz) - 1));
        int segment = Math.min(look, record.longest());
        if (segment < SHORTEST) {
            return null;
        }
        double[] density = new double[segment / 2 + 1];
        for (double[] axis : record.axes()) {
            double[] own = Welch.of(axis, record.runs(), rateHz, Window.HANN, segment, 0.5)
                    .density();
            for (int k = 0; k < density.length; k++) {
                density[k] += own[k];
            }
        }
        return new Shaking(density, rateHz / segment);
    }

    private Quality quality(Sums sums, List<Lines.Line> lines, EvenRecord even) {
        if (sums.count() < SHORTEST) {
            return new Quality(
                    sums.count() > 2 ? 0.3 : 0,
                    List.of(Messages.of("read.vibration.too-few-samples-for-a-spectrum", sums.count())));
        }
        if (!(sums.rms() > 0)) {
            return new Quality(0.2, List.of(Messages.of("read.vibration.nothing-moves-every-sample-is-the")));
        }
        if (sums.clipped() > WORTH_SAYING) {
            return new Quality(
                    Math.max(0.1, 1 - 5 * sums.clipped()),
                    List.of(Messages.of(
                            "read.vibration.of-the-samples-stand-at-an-end-of",
                            Digits.fixed(100 * sums.clipped(), 1))));
        }
        double highest = lines.stream()
                .filter(line -> line.amplitude() > LOW * lines.get(0).amplitude())
                .mapToDouble(Lines.Line::hz)
                .max()
                .orElse(0);
        if (even.unevenness() > 0 && highest > HIGH * rateHz) {
            return new Quality(
                    UNEVEN,
                    List.of(Messages.of("read.vibration.samples-come-unevenly", Digits.about(HIGH * rateHz, 2))));
        }
        return new Quality(1, List.of());
    }

    private List<String> working(Sums sums, List<Lines.Line> lines, FineLines fine) {
        List<String> words = new ArrayList<>();
        if (sums.count() > 0) {
            words.add(Messages.of(
                    "read.vibration.root-of-the-mean-square-of-samples",
                    sums.count(),
                    Digits.about(sums.rms(), 4),
                    Digits.about(sums.peak(), 4)));
        }
        if (fine != null) {
            words.add(Messages.of(
                    "read.vibration.steady-lines-hz-or-more-from-each", Digits.about(fine.resolutionHz(), 2)));
        }
        for (Lines.Line line : lines) {
            // What lies above half the rate shows mirrored at it, and cannot be told from what is there.
            words.add(Messages.of(
                    "read.vibration.hz-or-or-hz-aliased-record-at",
                    Digits.fixed(line.hz(), 2),
                    Digits.fixed(rateHz - line.hz(), 2),
                    Digits.fixed(rateHz + line.hz(), 2),
                    Digits.about(line.amplitude(), 3)));
        }
        return words;
    }
}
