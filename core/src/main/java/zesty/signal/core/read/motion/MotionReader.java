package zesty.signal.core.read.motion;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Recorded;
import zesty.signal.core.scale.Digits;

/** Works a stretch of motion out, run by run. */
final class MotionReader extends Recorded {
    private static final String[] FACES = {"+x", "-x", "+y", "-y", "+z", "-z"};
    /** A face is up where its axis reads more than this, in g. */
    private static final double FACE_G = 0.75;

    private static final double EARTH_LEAST_UT = 20;
    private static final double EARTH_MOST_UT = 70;

    private final boolean fusion;
    private final double rateHz;

    MotionReader(boolean fusion, double rateHz) {
        super(3);
        this.fusion = fusion;
        this.rateHz = rateHz;
    }

    @Override
    protected Reading read(Stretch stretch) {
        int n = stretch.length();
        int axes = stretch.ports().length;
        double[] roll = missing(n);
        double[] pitch = missing(n);
        double[] heading = missing(n);
        List<Event> events = new ArrayList<>();
        int steps = 0;
        int count = 0;
        double squares = 0;
        double field = 0;
        int[] faces = new int[FACES.length];
        for (int[] run : stretch.runs()) {
            Attitude attitude = new Attitude(rateHz, fusion);
            double[] length = new double[run[1] - run[0]];
            for (int i = run[0]; i < run[1]; i++) {
                double[] a = three(stretch, 0, i);
                attitude.next(a, axes >= 6 ? three(stretch, 3, i) : null, axes >= 9 ? three(stretch, 6, i) : null);
                roll[i] = attitude.roll();
                pitch[i] = attitude.pitch();
                heading[i] = attitude.heading();
                length[i - run[0]] = norm(a);
                squares += Math.pow(norm(a) - 1, 2);
                field += axes >= 9 ? norm(three(stretch, 6, i)) : 0;
                count++;
                for (int f = 0; f < FACES.length; f++) {
                    faces[f] += (f % 2 == 0 ? 1 : -1) * a[f / 2] > FACE_G ? 1 : 0;
                }
            }
            Happenings happened = new Happenings(Arrays.copyOfRange(stretch.seconds(), run[0], run[1]), length, rateHz);
            events.addAll(happened.events());
            steps += happened.steps();
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
        items.add(new Item.Scalar("steps", count == 0 ? Double.NaN : steps));
        items.add(new Item.Scalar("activity_g", count == 0 ? Double.NaN : Math.sqrt(squares / count)));
        items.add(new Item.Word("face", faces[face] > 0 ? FACES[face] : ""));
        items.add(new Item.Events("events", List.of("t_s", "kind"), events));
        return new Reading(quality(stretch, count, axes, field), items, working(axes, count, field));
    }

    private static double[] missing(int n) {
        double[] values = new double[n];
        Arrays.fill(values, Double.NaN);
        return values;
    }

    private static double[] three(Stretch stretch, int first, int at) {
        return new double[] {stretch.ports()[first][at], stretch.ports()[first + 1][at], stretch.ports()[first + 2][at]
        };
    }

    private static double norm(double[] v) {
        return Math.sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]);
    }

    private static double last(double[] values) {
        return values.length == 0 ? Double.NaN : values[values.length - 1];
    }

    private static Quality quality(Stretch stretch, int count, int axes, double field) {
        if (count < 3) {
            return new Quality(0, List.of("too few samples: " + stretch.length()));
        }
        double mean = 0;
        for (int[] run : stretch.runs()) {
            for (int i = run[0]; i < run[1]; i++) {
                mean += norm(three(stretch, 0, i)) / count;
            }
        }
        List<String> reasons = new ArrayList<>();
        double share = 1;
        if (!(mean > 0.6 && mean < 1.6)) {
            share = 0.2;
            reasons.add("acceleration is " + Digits.about(mean, 3)
                    + " on average, not about 1 g: is the scale right, and is it an accelerometer?");
        }
        double earth = field / count;
        if (axes >= 9 && !(earth > EARTH_LEAST_UT && earth < EARTH_MOST_UT)) {
            share = Math.min(share, 0.5);
            reasons.add(
                    "the field is " + Digits.about(earth, 3)
                            + " µT, not that of the earth: a magnet or iron is near, or the scale is off; the heading is in doubt");
        }
        if (axes < 9) {
            reasons.add(axes < 6 ? "no gyro and no field: no heading" : "no field: the heading counts from the start");
        }
        return new Quality(share, reasons);
    }

    private static List<String> working(int axes, int count, double field) {
        if (count == 0) {
            return List.of();
        }
        List<String> words = new ArrayList<>();
        words.add("Roll = atan2(ay, az), pitch = atan2(−ax, √(ay² + az²)) of the direction of up"
                + (axes >= 6 ? ", which the gyro turns and gravity pulls right." : ", smoothed."));
        if (axes >= 9) {
            words.add("Heading from the field laid level, " + Digits.about(field / count, 3) + " µT on average.");
        }
        return words;
    }
}
