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
import zesty.signal.core.text.Messages;

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
        return Messages.of("read.motion.lean-turn-and-steps-and-whether-it");
    }

    @Override
    public String gives() {
        return Messages.of("read.motion.tilt-heading-steps");
    }

    @Override
    public Nature nature() {
        return Nature.NOISE;
    }

    @Override
    public List<Suggestion> suggestions() {
        return List.of(new Suggestion("lowpass:10@2", Messages.of("read.motion.what-shakes-and-is-no-leaning-goes")));
    }

    @Override
    public List<Port> ports() {
        return List.of(
                new Port("ax", "g", Messages.of("read.motion.acceleration-forward")),
                new Port("ay", "g", Messages.of("read.motion.acceleration-to-the-left")),
                new Port("az", "g", Messages.of("read.motion.acceleration-up")),
                new Port("gx", "°/s", Messages.of("read.motion.turning-about-x")),
                new Port("gy", "°/s", Messages.of("read.motion.turning-about-y")),
                new Port("gz", "°/s", Messages.of("read.motion.turning-about-z")),
                new Port("mx", "µT", Messages.of("read.motion.magnetic-field-along-x")),
                new Port("my", "µT", Messages.of("read.motion.magnetic-field-along-y")),
                new Port("mz", "µT", Messages.of("read.motion.magnetic-field-along-z")));
    }

    @Override
    public int fewestPorts() {
        return 3;
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                Messages.of("read.motion.motion-unit-six-axes"),
                20,
                1,
                100,
                6,
                Messages.of("read.motion.axis-signs-the-gyro-drifts-a"),
                List.of(
                        Messages.of("read.motion.unit-fixed-to-the-body-x-forward"),
                        Messages.of("read.motion.bus-lines-short-with-pull-ups"),
                        Messages.of("read.motion.away-from-magnets-and-motors"))));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.choice(
                        "fusion",
                        List.of("on", "off"),
                        Messages.of("read.motion.fusion"),
                        Messages.of("read.motion.whether-turning-is-used-to-steady")),
                Setting.number(
                        DECLINATION,
                        "0",
                        -180,
                        180,
                        "\u00b0",
                        Messages.of("read.motion.declination"),
                        Messages.of("read.motion.how-far-east-of-north-a-compass")),
                Setting.list(
                        FACES,
                        Axes.NUMBERS,
                        Axes.NUMBERS,
                        Messages.of("read.motion.faces"),
                        Messages.of("read.motion.how-the-axes-lie-from-the-six")),
                Setting.list(
                        STILL,
                        3,
                        3,
                        Messages.of("read.motion.at-rest"),
                        Messages.of("read.motion.what-the-gyro-reads-at-rest-in-s")),
                Setting.list(
                        FIELD,
                        Axes.NUMBERS,
                        Axes.NUMBERS,
                        Messages.of("read.motion.field"),
                        Messages.of("read.motion.the-iron-in-it-from-the-figure-of")));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo(
                        "roll",
                        Messages.of("read.motion.roll"),
                        "°",
                        1,
                        Messages.of("read.motion.lean-to-the-right-at-the-end")),
                new ScalarInfo(
                        "pitch",
                        Messages.of("read.motion.pitch"),
                        "°",
                        1,
                        Messages.of("read.motion.nose-down-at-the-end")),
                new ScalarInfo(
                        "heading",
                        Messages.of("read.motion.heading"),
                        "°",
                        0,
                        Messages.of("read.motion.clockwise-from-north-at-the-end")),
                new ScalarInfo(
                        "roll_period_s",
                        Messages.of("read.motion.roll-period"),
                        "s",
                        2,
                        Messages.of("read.motion.from-one-roll-to-the-next-on")),
                new ScalarInfo(
                        "repetitions",
                        Messages.of("read.motion.repetitions"),
                        "",
                        0,
                        Messages.of("read.motion.swings-of-the-angle-that-swings")),
                new ScalarInfo(
                        "depth_deg",
                        Messages.of("read.motion.depth"),
                        "\u00b0",
                        0,
                        Messages.of("read.motion.of-the-middle-repetition-from-end")),
                new ScalarInfo(
                        "pace_per_min",
                        Messages.of("read.motion.pace"),
                        "times/min",
                        1,
                        Messages.of("read.motion.repetitions-a-minute")),
                new ScalarInfo(
                        "smoothness",
                        Messages.of("read.motion.smoothness"),
                        "",
                        2,
                        Messages.of("read.motion.spectral-arc-length-of-the")),
                new ScalarInfo(
                        "movements",
                        Messages.of("read.motion.movements"),
                        "",
                        0,
                        Messages.of("read.motion.from-standstill-to-standstill")),
                new ScalarInfo(
                        "steps",
                        Messages.of("read.motion.steps"),
                        "",
                        0,
                        Messages.of("read.motion.of-somebody-walking-with-it")),
                new ScalarInfo(
                        "activity_g",
                        Messages.of("read.motion.activity"),
                        "g",
                        3,
                        Messages.of("read.motion.rms-of-the-length-of-acceleration")));
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
                : Optional.of(Messages.of(
                        "read.motion.motion-needs-samples-s-or-more-not", Digits.of(LEAST_HZ), Digits.of(rateHz)));
    }

    @Override
    public void check(Settings settings, double[][] ports) {
        if (ports.length % 3 != 0) {
            throw new ReaderException(Messages.of("read.motion.motion-takes-3-6-or-9-columns-ax", ports.length));
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
