package zesty.signal.core.read.motion;

import java.util.List;
import java.util.Optional;
import zesty.signal.core.clean.Suggestion;
import zesty.signal.core.read.Nature;
import zesty.signal.core.read.Need;
import zesty.signal.core.read.Port;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.scale.Digits;

/** Motion of a unit of 3, 6 or 9 axes: x forward, y left, z up; at rest z reads +1 g. */
public final class Motion implements ReaderKind {
    public static final String NAME = "motion";
    /** Settings that a picture captures: how the axes lie, what the gyro reads at rest, and the iron around the field's sensor. */
    public static final String FACES = "faces";

    public static final String STILL = "still";
    public static final String FIELD = "field";
    static final String DECLINATION = "declination";
    private static final double LEAST_HZ = 10;

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return "lean, turn and steps, and whether it was tapped, shaken or dropped";
    }

    @Override
    public String gives() {
        return "tilt, heading, steps";
    }

    @Override
    public Nature nature() {
        return Nature.NOISE;
    }

    @Override
    public List<Suggestion> suggestions() {
        return List.of(new Suggestion("lowpass:10@2", "what shakes and is no leaning goes"));
    }

    @Override
    public List<Port> ports() {
        return List.of(
                new Port("ax", "g", "acceleration forward"),
                new Port("ay", "g", "acceleration to the left"),
                new Port("az", "g", "acceleration up"),
                new Port("gx", "°/s", "turning about x"),
                new Port("gy", "°/s", "turning about y"),
                new Port("gz", "°/s", "turning about z"),
                new Port("mx", "µT", "magnetic field along x"),
                new Port("my", "µT", "magnetic field along y"),
                new Port("mz", "µT", "magnetic field along z"));
    }

    @Override
    public int fewestPorts() {
        return 3;
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                "motion unit, six axes",
                20,
                1,
                100,
                6,
                "Axis signs; the gyro drifts; a magnet nearby.",
                List.of(
                        "unit fixed to the body, x forward",
                        "bus lines short, with pull-ups",
                        "away from magnets and motors")));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.choice(
                        "fusion",
                        List.of("on", "off"),
                        "fusion",
                        "whether turning is used to steady the lean; off: from gravity and field alone"),
                Setting.number(
                        DECLINATION,
                        "0",
                        -180,
                        180,
                        "\u00b0",
                        "declination",
                        "how far east of north a compass points where you are; the heading is then true"),
                Setting.list(FACES, Axes.NUMBERS, Axes.NUMBERS, "faces", "how the axes lie, from the six faces"),
                Setting.list(STILL, 3, 3, "at rest", "what the gyro reads at rest, in \u00b0/s"),
                Setting.list(FIELD, Axes.NUMBERS, Axes.NUMBERS, "field", "the iron in it, from the figure of eight"));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo("roll", "roll", "°", 1, "lean to the right, at the end"),
                new ScalarInfo("pitch", "pitch", "°", 1, "nose down, at the end"),
                new ScalarInfo(
                        "heading",
                        "heading",
                        "°",
                        0,
                        "clockwise from north, at the end; without a field from the start"),
                new ScalarInfo("roll_period_s", "roll period", "s", 2, "from one roll to the next, on average"),
                new ScalarInfo(
                        "repetitions", "repetitions", "", 0, "swings of the angle that swings most, there and back"),
                new ScalarInfo("depth_deg", "depth", "\u00b0", 0, "of the middle repetition, from end to end"),
                new ScalarInfo("pace_per_min", "pace", "times/min", 1, "repetitions a minute"),
                new ScalarInfo(
                        "smoothness",
                        "smoothness",
                        "",
                        2,
                        "spectral arc length of the rotation rate of the middle movement: \u22121.4 for one smooth stroke, more negative with every stop and start in it"),
                new ScalarInfo(
                        "movements", "movements", "", 0, "from standstill to standstill, whose smoothness is told"),
                new ScalarInfo("steps", "steps", "", 0, "of somebody walking with it"),
                new ScalarInfo("activity_g", "activity", "g", 3, "RMS of the length of acceleration less 1 g"));
    }

    @Override
    public List<String> otherKeys() {
        return List.of("roll_deg", "pitch_deg", "heading_deg", "face", "events");
    }

    @Override
    public double windowSeconds() {
        return 20;
    }

    /** Short beside a step, 0.3 s at the fastest, and beside what a body turns in. */
    @Override
    public double longestHoleSeconds(Settings settings) {
        return 0.2;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        return rateHz >= LEAST_HZ
                ? Optional.empty()
                : Optional.of("motion needs " + Digits.of(LEAST_HZ) + " samples/s or more, not " + Digits.of(rateHz));
    }

    @Override
    public void check(Settings settings, double[][] ports) {
        if (ports.length % 3 != 0) {
            throw new ReaderException(
                    "motion takes 3, 6 or 9 columns (ax ay az gx gy gz mx my mz), not " + ports.length);
        }
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        return new MotionReader(settings, rateHz);
    }
}
