package zesty.signal.core.read.joint;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Recorded;
import zesty.signal.core.read.motion.Cycles;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Works a stretch of a joint out: the axis of its hinge from all of it, the angle run by run. */
final class JointReader extends Recorded {
    /** What a hinge leaves of its constraint with noise and straps that give; more is another kind of joint. */
    private static final double MOST_MISFIT = 0.25;
    /** A joint whose axis stands upright for more than this share of the time is in doubt. */
    private static final double LEAST_LED = 0.7;
    /** Gravity and turning this far apart, in degrees, is more than a limb's own acceleration does. */
    private static final double MOST_APART = 14;
    /** Less than this between its ends, in degrees, bends no joint. */
    private static final double LEAST_RANGE = 8;

    /** One sign of the axis is told from the other when gravity agrees so much less with it: a factor, and degrees beyond. */
    private static final double CLEARLY = 2;

    private static final double CLEARLY_DEGREES = 0.5;

    private static final double FEWEST_SECONDS = 1;

    private final double start;
    private final double rateHz;

    JointReader(double start, double rateHz) {
        super(Joint.PORTS);
        this.start = start;
        this.rateHz = rateHz;
    }

    @Override
    protected Reading read(Segment stretch) {
        List<int[]> runs = stretch.runs();
        int n = runs.stream().mapToInt(run -> run[1] - run[0]).sum();
        double[][] w1 = rates(stretch, runs, 3, n);
        double[][] w2 = rates(stretch, runs, 9, n);
        HingeAxes axes = n < FEWEST_SECONDS * rateHz ? null : HingeAxes.of(w1, w2);
        if (axes == null) {
            return new Reading(
                    new Quality(n == 0 ? 0 : 0.1, List.of(Messages.of("read.joint.the-joint-has-not-moved-yet-bend"))),
                    items(new double[0], new double[0], Cycles.NONE),
                    List.of());
        }
        Angles angles = angles(stretch, runs, axes);
        boolean eitherWay = false;
        if (axes.first() != null && axes.second() != null) {
            // The constraint knows no sign: the wrong one is what gravity contradicts, unless all goes on in one plane.
            Angles flipped = angles(stretch, runs, axes.secondFlipped());
            double less = Math.min(angles.apart(), flipped.apart());
            double more = Math.max(angles.apart(), flipped.apart());
            boolean told = more > CLEARLY * less + CLEARLY_DEGREES;
            boolean alike = HingeAxes.dot(axes.first(), axes.second()) >= 0;
            eitherWay = !told && Math.abs(angles.range() - flipped.range()) > LEAST_RANGE;
            boolean flip = told ? flipped.apart() < angles.apart() : !alike;
            angles = flip ? flipped : angles;
        }
        double[] all = angles.degrees();
        double low = Arrays.stream(all).min().orElse(Double.NaN);
        double high = Arrays.stream(all).max().orElse(Double.NaN);
        if (-low > high) {
            // Which way is bending nobody can know: it is where it goes furthest from the start.
            for (int i = 0; i < all.length; i++) {
                all[i] = -all[i];
            }
        }
        for (int i = 0; i < all.length; i++) {
            all[i] += start;
        }
        Cycles cycles = Cycles.NONE;
        int at = 0;
        int longest = 0;
        for (int[] run : runs) {
            int length = run[1] - run[0];
            if (length > longest) {
                longest = length;
                cycles = Cycles.of(
                        Arrays.copyOfRange(stretch.seconds(), run[0], run[1]),
                        Arrays.copyOfRange(all, at, at + length));
            }
            at += length;
        }
        return new Reading(
                quality(axes, angles, eitherWay, runs.size()),
                items(angles.seconds(), all, cycles),
                working(axes, angles));
    }

    private static double[][] rates(Segment stretch, List<int[]> runs, int port, int n) {
        double[][] rates = new double[n][];
        int at = 0;
        for (int[] run : runs) {
            for (int i = run[0]; i < run[1]; i++) {
                rates[at++] = three(stretch, port, i);
            }
        }
        return rates;
    }

    private static double[] three(Segment stretch, int port, int i) {
        return new double[] {stretch.ports()[port][i], stretch.ports()[port + 1][i], stretch.ports()[port + 2][i]};
    }

    /** @param led share of the samples that gravity led. @param apart as a {@link JointAngle} has it, of all runs. @param foreign of all runs */
    private record Angles(double[] seconds, double[] degrees, double led, double apart, double foreign) {
        double range() {
            return Arrays.stream(degrees).max().orElse(0)
                    - Arrays.stream(degrees).min().orElse(0);
        }
    }

    private Angles angles(Segment stretch, List<int[]> runs, HingeAxes axes) {
        List<double[]> parts = new ArrayList<>();
        List<double[]> times = new ArrayList<>();
        double led = 0;
        double squares = 0;
        double foreign = 0;
        int n = 0;
        for (int[] run : runs) {
            double[] seconds = Arrays.copyOfRange(stretch.seconds(), run[0], run[1]);
            JointAngle angle = JointAngle.of(unit(stretch, run, 0), unit(stretch, run, 6), axes, seconds);
            int length = run[1] - run[0];
            parts.add(angle.degrees());
            times.add(seconds);
            led += angle.led() * length;
            squares += angle.led() > 0 ? angle.apart() * angle.apart() * angle.led() * length : 0;
            foreign = Math.max(foreign, angle.foreign());
            n += length;
        }
        return new Angles(
                joined(times, n),
                joined(parts, n),
                n == 0 ? 0 : led / n,
                led > 0 ? Math.sqrt(squares / led) : Double.POSITIVE_INFINITY,
                foreign);
    }

    private static double[] joined(List<double[]> parts, int n) {
        double[] all = new double[n];
        int at = 0;
        for (double[] part : parts) {
            System.arraycopy(part, 0, all, at, part.length);
            at += part.length;
        }
        return all;
    }

    private static JointAngle.Unit unit(Segment stretch, int[] run, int port) {
        double[][] a = new double[run[1] - run[0]][];
        double[][] w = new double[a.length][];
        for (int i = 0; i < a.length; i++) {
            a[i] = three(stretch, port, run[0] + i);
            w[i] = three(stretch, port + 3, run[0] + i);
        }
        return new JointAngle.Unit(a, w);
    }

    private static List<Item> items(double[] seconds, double[] degrees, Cycles cycles) {
        double low = Arrays.stream(degrees).min().orElse(Double.NaN);
        double high = Arrays.stream(degrees).max().orElse(Double.NaN);
        boolean swung = cycles.count() > 0;
        return List.of(
                new Item.Scalar("angle_deg", degrees.length == 0 ? Double.NaN : degrees[degrees.length - 1]),
                new Item.Scalar("range_deg", high - low),
                new Item.Scalar("least_deg", low),
                new Item.Scalar("most_deg", high),
                new Item.Scalar("repetitions", degrees.length == 0 ? Double.NaN : cycles.count()),
                new Item.Scalar("depth_deg", swung ? cycles.depth() : Double.NaN),
                new Item.Scalar("pace_per_min", swung ? 60 / cycles.periodSeconds() : Double.NaN),
                new Item.Trace("angle", "°", "deg", seconds, degrees));
    }

    private static Quality quality(HingeAxes axes, Angles angles, boolean eitherWay, int runs) {
        double range = angles.range();
        List<String> reasons = new ArrayList<>();
        double share = 1;
        if (axes.misfit() > MOST_MISFIT) {
            share = Math.min(share, Math.max(0.1, 0.6 - axes.misfit()));
            reasons.add(
                    Messages.of("read.joint.the-units-do-not-turn-as-across-a", Digits.fixed(100 * axes.misfit(), 0)));
        }
        if (range < LEAST_RANGE) {
            share = Math.min(share, 0.3);
            reasons.add(Messages.of("read.joint.the-joint-hardly-bends-in-all-bend", Digits.fixed(range, 0)));
        }
        if (angles.led() < LEAST_LED) {
            share = Math.min(share, 0.4);
            reasons.add(Messages.of(
                    "read.joint.the-joint-s-axis-stands-upright-of", Digits.fixed(100 * (1 - angles.led()), 0)));
        } else if (Math.max(angles.apart(), angles.foreign()) > MOST_APART) {
            share = Math.min(share, 0.4);
            reasons.add(Messages.of(
                    "read.joint.turning-and-gravity-do-not-agree",
                    Digits.fixed(Math.max(angles.apart(), angles.foreign()), 0)));
        }
        if (eitherWay) {
            share = Math.min(share, 0.4);
            reasons.add(Messages.of("read.joint.all-goes-on-in-one-plane-so"));
        }
        if (runs > 1) {
            share = Math.min(share, 0.7);
            reasons.add(Messages.of("read.joint.rows-are-missing-after-each-gap"));
        }
        return new Quality(share, reasons);
    }

    private static List<String> working(HingeAxes axes, Angles angles) {
        List<String> words = new ArrayList<>();
        words.add(
                axes.first() == null || axes.second() == null
                        ? Messages.of("read.joint.one-unit-hardly-turns-and-counts")
                        : Messages.of(
                                "read.joint.axis-of-the-hinge-in-both-units", Digits.fixed(100 * axes.misfit(), 1)));
        words.add(Messages.of(
                "read.joint.angle-the-difference-of-turning",
                (angles.led() > 0
                        ? Messages.of("read.joint.and-put-right-by-gravity-the-two", Digits.fixed(angles.apart(), 1))
                        : Messages.of("read.joint.gravity-says-nothing-of-it"))));
        return words;
    }
}
