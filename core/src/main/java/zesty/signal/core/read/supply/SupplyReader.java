package zesty.signal.core.read.supply;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Recorded;
import zesty.signal.core.read.Settings;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Integrals over the record's own times, and what steps of the load say. */
final class SupplyReader extends Recorded {
    /** What is further apart than so many periods is a gap. */
    private static final double GAP_PERIODS = 3;

    private static final double HOUR = 3600;
    private static final double MUCH_MISSING = 0.05;
    /** No battery that a maker measures gives more, in A or in V: it is another unit, or the converter's steps. */
    private static final double MOST = 1000;

    private final double cutoff;
    private final double capacity;
    private final double rateHz;

    SupplyReader(Settings settings, double rateHz) {
        super(1);
        cutoff = settings.number("cutoff");
        capacity = settings.number("capacity");
        this.rateHz = rateHz;
    }

    /** A quantity over time: its integral, and over how long that goes. */
    private record Sum(double integral, double seconds, double missing) {
        double mean() {
            return seconds > 0 ? integral / seconds : Double.NaN;
        }
    }

    private Sum sum(double[] seconds, double[] x) {
        double integral = 0;
        double covered = 0;
        double missing = 0;
        for (int i = 1; i < x.length; i++) {
            double step = seconds[i] - seconds[i - 1];
            if (step > GAP_PERIODS / rateHz * (1 + 1e-9)) {
                missing += step;
            } else {
                integral += step * (x[i] + x[i - 1]) / 2;
                covered += step;
            }
        }
        return new Sum(integral, covered, missing);
    }

    @Override
    protected Reading read(Segment stretch) {
        boolean both = stretch.ports().length > 1;
        int n = 0;
        double[] seconds = new double[stretch.length()];
        double[] amps = new double[stretch.length()];
        double[] volts = new double[stretch.length()];
        for (int i = 0; i < stretch.length(); i++) {
            if (stretch.measured(i)) {
                seconds[n] = stretch.seconds()[i];
                amps[n] = stretch.ports()[0][i];
                volts[n++] = both ? stretch.ports()[1][i] : Double.NaN;
            }
        }
        seconds = Arrays.copyOf(seconds, n);
        amps = Arrays.copyOf(amps, n);
        volts = Arrays.copyOf(volts, n);
        Sum charge = sum(seconds, amps);
        double[] watts = new double[n];
        for (int i = 0; i < n; i++) {
            watts[i] = amps[i] * volts[i];
        }
        Sum energy = sum(seconds, watts);
        double[] resistance = both && n > 0 ? resistance(amps, volts) : new double[] {Double.NaN, Double.NaN, 0};
        double left = left(seconds, volts, charge, both);
        List<Item> items = new ArrayList<>();
        items.add(new Item.Scalar("charge_ah", n < 2 ? Double.NaN : charge.integral() / HOUR));
        items.add(new Item.Scalar("energy_wh", both && n > 1 ? energy.integral() / HOUR : Double.NaN));
        items.add(new Item.Scalar("mean_a", charge.mean()));
        items.add(new Item.Scalar("peak_a", Arrays.stream(amps).max().orElse(Double.NaN)));
        items.add(new Item.Scalar("mean_w", both ? energy.mean() : Double.NaN));
        items.add(new Item.Scalar("peak_w", both ? Arrays.stream(watts).max().orElse(Double.NaN) : Double.NaN));
        items.add(new Item.Scalar("resistance_ohm", resistance[0], resistance[1]));
        items.add(new Item.Scalar("left_s", left));
        items.add(new Item.Scalar("missing_s", charge.missing()));
        items.add(new Item.Records("states", List.of("mean_a", "share", "ah_a_day"), States.of(amps)));
        boolean unsteady = left == left && !(capacity > 0) && loadStepsIn(amps, lastTenth(seconds));
        double beyond = Math.max(largest(amps), both ? largest(volts) : 0);
        return new Reading(
                quality(n, charge, resistance, unsteady, beyond), items, working(charge, energy, resistance, both));
    }

    private static double largest(double[] x) {
        return Arrays.stream(x).map(Math::abs).filter(v -> v > MOST).max().orElse(0);
    }

    /** @return −ΔV/ΔI by least squares over all steps, its standard error, and how many there are */
    private static double[] resistance(double[] amps, double[] volts) {
        List<double[]> pairs = new ArrayList<>();
        for (LoadSteps.Step step : LoadSteps.in(amps)) {
            double dv = LoadSteps.changeOf(volts, step);
            if (dv == dv) {
                pairs.add(new double[] {step.change(), dv});
            }
        }
        double up = 0;
        double down = 0;
        for (double[] pair : pairs) {
            up -= pair[0] * pair[1];
            down += pair[0] * pair[0];
        }
        if (pairs.isEmpty()) {
            return new double[] {Double.NaN, Double.NaN, 0};
        }
        double ohms = up / down;
        double squares = 0;
        for (double[] pair : pairs) {
            squares += Math.pow(pair[1] + ohms * pair[0], 2);
        }
        int n = pairs.size();
        return new double[] {ohms, n < 2 ? Double.NaN : Math.sqrt(squares / (n - 1) / down), n};
    }

    private double left(double[] seconds, double[] volts, Sum charge, boolean both) {
        if (capacity > 0) {
            double amps = charge.mean();
            return amps > 0 ? Math.max(0, capacity - charge.integral() / HOUR) / amps * HOUR : Double.NaN;
        }
        if (!both || Double.isNaN(cutoff) || seconds.length < 2) {
            return Double.NaN;
        }
        return Slope.of(seconds, volts, lastTenth(seconds)).secondsTo(cutoff, volts[seconds.length - 1]);
    }

    /** @return index of the first sample of the last tenth of the record, of two samples at least */
    private static int lastTenth(double[] seconds) {
        int n = seconds.length;
        double begin = seconds[n - 1] - (seconds[n - 1] - seconds[0]) / 10;
        int from = 0;
        while (seconds[from] < begin - 1e-9) {
            from++;
        }
        return Math.min(from, n - 2);
    }

    private static boolean loadStepsIn(double[] amps, int from) {
        return LoadSteps.in(amps).stream().anyMatch(step -> step.at() > from);
    }

    /** @param beyond a current or a voltage that there is not; 0 for none */
    private static Quality quality(int n, Sum charge, double[] resistance, boolean unsteady, double beyond) {
        if (n < 3) {
            return new Quality(0, List.of(Messages.of("read.supply.too-few-samples", n)));
        }
        List<String> reasons = new ArrayList<>();
        double share = 1;
        double whole = charge.seconds() + charge.missing();
        if (charge.missing() > 0) {
            double part = charge.missing() / whole;
            share = Math.max(0.3, 1 - part);
            reasons.add(Messages.of(
                    "read.supply.s-of-were-not-measured-nothing-is",
                    Digits.about(charge.missing(), 3),
                    Digits.about(whole, 3),
                    (part > MUCH_MISSING ? Messages.of("read.supply.so-charge-and-energy-are-too-small") : "")));
        }
        if (beyond > 0) {
            share = Math.min(share, 0.2);
            reasons.add(Messages.of("read.supply.no-battery-gives", Digits.about(beyond, 3)));
        }
        if (unsteady) {
            share = Math.min(share, 0.5);
            reasons.add(Messages.of("read.supply.the-load-changed-within-the-last"));
        }
        if (resistance[2] > 0 && !(resistance[0] > 0)) {
            share = Math.min(share, 0.4);
            reasons.add(Messages.of("read.supply.the-voltage-rises-with-the-current"));
        } else if (resistance[1] > 0.3 * Math.abs(resistance[0])) {
            share = Math.min(share, 0.6);
            reasons.add(Messages.of("read.supply.steps-of-the-load-disagree-about"));
        }
        return new Quality(share, reasons);
    }

    private static List<String> working(Sum charge, Sum energy, double[] resistance, boolean both) {
        List<String> words = new ArrayList<>();
        words.add(Messages.of(
                "read.supply.mean-current-a-over-s-ah",
                Digits.about(charge.mean(), 4),
                Digits.about(charge.seconds(), 4),
                Digits.about(charge.integral() / HOUR, 4)));
        if (both) {
            words.add(Messages.of(
                    "read.supply.mean-power-w-wh",
                    Digits.about(energy.mean(), 4),
                    Digits.about(energy.integral() / HOUR, 4)));
            words.add(
                    resistance[2] == 0
                            ? Messages.of("read.supply.the-load-does-not-step-so-its")
                            : Messages.of(
                                    "read.supply.steps-of-the-load",
                                    (int) resistance[2],
                                    Digits.about(resistance[0], 3)));
        }
        return words;
    }
}
