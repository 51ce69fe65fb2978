package zesty.signal.core.read.motion;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Recorded;
import zesty.signal.core.read.Settings;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Works a stretch of motion out, run by run. */
final class MotionReader extends Recorded {
    private static final String[] FACES = {"+x", "-x", "+y", "-y", "+z", "-z"};
    /** A face is up where its axis reads more than this, in g. */
    private static final double FACE_G = 0.75;

    /** The field of the earth is as strong whichever way the unit is turned, up to noise and what the sensor's own scales are off. */
    private static final double UNEVEN = 0.06;

    private final boolean fusion;
    private final double rateHz;
    private final double declination;
    private final Axes lean;
    /** How the unit is turned in the body, for turning and field, whose axes lie like those of the acceleration. */
    private final double[] turned;

    private final Axes still;
    private final Axes field;

    MotionReader(Settings settings, double rateHz) {
        super(3);
        this.fusion = settings.text("fusion").equals("on");
        this.rateHz = rateHz;
        declination = settings.number(Motion.DECLINATION);
        lean = Axes.of(settings.list(Motion.FACES));
        turned = Faces.turn(lean);
        double[] rest = settings.list(Motion.STILL);
        still = new Axes(Axes.AS_THEY_COME.matrix(), rest.length == 0 ? new double[3] : rest).then(turned);
        field = Axes.of(settings.list(Motion.FIELD)).then(turned);
    }

    @Override
    protected Reading read(Segment stretch) {
        int n = stretch.length();
        int axes = stretch.ports().length;
        double[] roll = missing(n);
        double[] pitch = missing(n);
        double[] heading = missing(n);
        List<Event> events = new ArrayList<>();
        int steps = 0;
        int irregular = 0;
        int count = 0;
        double squares = 0;
        double strength = 0;
        double strengths = 0;
        Cycles rolls = null;
        Cycles swings = null;
        Smoothness smooth = Smoothness.NONE;
        int longest = 0;
        int[] faces = new int[FACES.length];
        GyroScale scale = new GyroScale();
        for (int[] run : stretch.runs()) {
            Attitude attitude = new Attitude(fusion);
            scale.begin();
            double[] length = new double[run[1] - run[0]];
            double[][] felt = new double[3][length.length];
            double[] turning = new double[axes >= 6 ? length.length : 0];
            for (int i = run[0]; i < run[1]; i++) {
                double[] a = lean.apply(three(stretch, 0, i));
                double[] m = axes >= 9 ? field.apply(three(stretch, 6, i)) : null;
                double[] w = axes >= 6 ? still.apply(three(stretch, 3, i)) : null;
                double step = stretch.seconds()[i] - stretch.seconds()[Math.max(run[0], i - 1)];
                attitude.next(step, a, w, m);
                if (w != null) {
                    turning[i - run[0]] = attitude.speed(w);
                    scale.next(step, a, w);
                }
                roll[i] = attitude.roll();
                pitch[i] = attitude.pitch();
                heading[i] = m == null ? attitude.heading() : trueHeading(attitude.heading());
                double g = norm(a);
                length[i - run[0]] = g;
                for (int axis = 0; axis < 3; axis++) {
                    felt[axis][i - run[0]] = a[axis];
                }
                squares += (g - 1) * (g - 1);
                double own = m == null ? 0 : norm(m);
                strength += own;
                strengths += own * own;
                count++;
                for (int f = 0; f < FACES.length; f++) {
                    faces[f] += (f % 2 == 0 ? 1 : -1) * a[f / 2] > FACE_G ? 1 : 0;
                }
            }
            Happenings happened = new Happenings(Arrays.copyOfRange(stretch.seconds(), run[0], run[1]), length, rateHz);
            events.addAll(happened.events(felt));
            steps += happened.steps();
            irregular += happened.irregular();
            if (run[1] - run[0] > longest) {
                longest = run[1] - run[0];
                double[] seconds = Arrays.copyOfRange(stretch.seconds(), run[0], run[1]);
                rolls = Cycles.of(seconds, Arrays.copyOfRange(roll, run[0], run[1]));
                Cycles nods = Cycles.of(seconds, Arrays.copyOfRange(pitch, run[0], run[1]));
                swings = nods.count() > 0 && !(rolls.depth() > nods.depth()) ? nods : rolls;
                smooth = Smoothness.of(turning, rateHz);
            }
        }
        int face = 0;
        for (int f = 1; f < FACES.length; f++) {
            face = faces[f] > faces[face] ? f : face;
        }
        List<Item> items = new ArrayList<>();
        items.add(new Item.Numbers("roll_deg", "°", roll));
        items.add(new Item.Numbers("pitch_deg", "°", pitch));
        items.add(new Item.Numbers("heading_deg", "°", heading));
        items.add(new Item.Scalar("roll", last(roll)));
        items.add(new Item.Scalar("pitch", last(pitch)));
        items.add(new Item.Scalar("heading", last(heading)));
        boolean swung = swings != null && swings.count() > 0;
        items.add(new Item.Scalar(
                "roll_period_s",
                rolls == null ? Double.NaN : rolls.periodSeconds(),
                rolls == null ? Double.NaN : rolls.periodUncertainty()));
        items.add(new Item.Scalar("repetitions", swings == null ? Double.NaN : swings.count()));
        items.add(new Item.Scalar("depth_deg", swung ? swings.depth() : Double.NaN));
        items.add(new Item.Scalar("pace_per_min", swung ? 60 / swings.periodSeconds() : Double.NaN));
        items.add(new Item.Scalar("smoothness", smooth.arc()));
        items.add(new Item.Scalar("movements", axes < 6 ? Double.NaN : smooth.movements()));
        items.add(new Item.Scalar("steps", count == 0 ? Double.NaN : steps));
        items.add(new Item.Scalar("activity_g", count == 0 ? Double.NaN : Math.sqrt(squares / count)));
        items.add(new Item.Word("face", faces[face] > 0 ? FACES[face] : ""));
        items.add(new Item.Events("events", List.of("t_s", "kind"), events));
        return new Reading(
                quality(
                        stretch,
                        count,
                        axes,
                        strength,
                        strengths,
                        irregular,
                        steps,
                        fusion ? contradiction(scale) : ""),
                items,
                working(axes, count, strength));
    }

    private static double[] missing(int n) {
        double[] values = new double[n];
        Arrays.fill(values, Double.NaN);
        return values;
    }

    private static double[] three(Segment stretch, int first, int at) {
        return new double[] {stretch.ports()[first][at], stretch.ports()[first + 1][at], stretch.ports()[first + 2][at]
        };
    }

    private static double norm(double[] v) {
        return Math.sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]);
    }

    private double trueHeading(double magnetic) {
        double turn = (magnetic + declination) % 360;
        return turn < 0 ? turn + 360 : turn;
    }

    /** @return what gravity has against the gyro; empty for nothing */
    private static String contradiction(GyroScale scale) {
        double off = scale.off();
        if (Double.isInfinite(off)) {
            return Messages.of("read.motion.the-gyro-says-the-same");
        }
        String order = scale.order();
        if (!order.isEmpty()) {
            return Messages.of("read.motion.gravity-goes-as-the-gyro", order);
        }
        return off == off ? Messages.of("read.motion.by-gravity-it-turns-times", Digits.about(off, 2)) : "";
    }

    private static double last(double[] values) {
        return values.length == 0 ? Double.NaN : values[values.length - 1];
    }

    private Quality quality(
            Segment stretch,
            int count,
            int axes,
            double strength,
            double strengths,
            int irregular,
            int steps,
            String contradiction) {
        if (count < 3) {
            return new Quality(0, List.of(Messages.of("read.motion.too-few-samples", stretch.length())));
        }
        double mean = 0;
        for (int[] run : stretch.runs()) {
            for (int i = run[0]; i < run[1]; i++) {
                mean += norm(lean.apply(three(stretch, 0, i))) / count;
            }
        }
        List<String> reasons = new ArrayList<>();
        double share = 1;
        if (!(mean > 0.6 && mean < 1.6)) {
            share = 0.2;
            reasons.add(Messages.of("read.motion.acceleration-is-on-average-not", Digits.about(mean, 3)));
        }
        if (!contradiction.isEmpty()) {
            share = Math.min(share, 0.2);
            reasons.add(contradiction);
        }
        double earth = strength / count;
        if (axes >= 9 && !FieldFit.earthly(earth)) {
            share = Math.min(share, 0.5);
            reasons.add(Messages.of("read.motion.the-field-is-t-not-that-of-the", Digits.about(earth, 3)));
        }
        double spread = Math.sqrt(Math.max(0, strengths / count - earth * earth));
        if (axes >= 9 && spread > UNEVEN * earth) {
            share = Math.min(share, 0.5);
            reasons.add(
                    Messages.of("read.motion.the-field-s-strength-changes-by", Digits.fixed(100 * spread / earth, 0)));
        }
        if (irregular > 0) {
            share = Math.min(share, irregular > steps ? 0.6 : 0.8);
            reasons.add(Messages.of("read.motion.rises-at-a-walking-pace-do-not", irregular));
        }
        if (axes < 9) {
            reasons.add(
                    axes < 6
                            ? Messages.of("read.motion.no-gyro-and-no-field-no-heading")
                            : Messages.of("read.motion.no-field-the-heading-counts-from"));
        }
        return new Quality(share, reasons);
    }

    private static List<String> working(int axes, int count, double strength) {
        if (count == 0) {
            return List.of();
        }
        List<String> words = new ArrayList<>();
        words.add(Messages.of(
                "read.motion.roll-atan2-ay-az-pitch-atan2-ax-ay",
                (axes >= 6
                        ? Messages.of("read.motion.which-the-gyro-turns-and-gravity")
                        : Messages.of("read.motion.smoothed"))));
        if (axes >= 9) {
            words.add(Messages.of("read.motion.heading-from-the-field-laid-level", Digits.about(strength / count, 3)));
        }
        return words;
    }
}
