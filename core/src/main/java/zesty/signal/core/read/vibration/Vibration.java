package zesty.signal.core.read.vibration;

import java.util.List;
import java.util.Map;
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

/** Vibration of one to three axes: RMS, peak, crest factor, kurtosis, the strongest lines, the share clipped. */
public final class Vibration implements ReaderKind {
    public static final String NAME = "vibration";
    /** In s from the sample before it to the one after. */
    public static final double LONGEST_HOLE_SECONDS = 0.06;

    /** The setting of the turning speed. */
    public static final String TURNS = "turns";

    /** Settings that a picture captures: the lines of a good state, and the lines seen at another rate. */
    public static final String GOOD = "good";

    public static final String SEEN = "seen";
    private static final double LEAST_HZ = 10;

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return "how strong a shaking is, how spiky, and which tones it is made of";
    }

    @Override
    public String gives() {
        return "RMS, peaks, spectrum lines";
    }

    @Override
    public Nature nature() {
        return Nature.TONES;
    }

    @Override
    public List<Suggestion> suggestions() {
        return List.of(new Suggestion("highpass:2@2", "gravity and the drift of the sensor go"));
    }

    @Override
    public List<Port> ports() {
        return List.of(
                new Port("ax", "", "an axis of an accelerometer, or a knock sensor"),
                new Port("ay", "", "the second axis"),
                new Port("az", "", "the third axis"));
    }

    @Override
    public int fewestPorts() {
        return 1;
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                "accelerometer, three axes",
                500,
                0.3,
                60,
                3,
                "Tones above half the rate are aliased; a range that is too small clips.",
                List.of(
                        "sensor screwed or glued down",
                        "bus lines short, with pull-ups",
                        "range set larger than the strongest shake")));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.number("peaks", "5", 1, 50, "", "lines", "how many lines are told, the strongest first"),
                Setting.choice(
                        "unit",
                        List.of("g", "m/s2", "counts"),
                        "unit",
                        "what the numbers are in; of counts there is no velocity"),
                Setting.number(
                        TURNS,
                        Setting.AUTO,
                        0.05,
                        1e5,
                        "Hz",
                        "turns",
                        "how often a second it turns; auto: the line that others are harmonics of"),
                Setting.number(
                        "from",
                        "10",
                        0.5,
                        1e5,
                        "Hz",
                        "velocity from",
                        "slower than this is left out of velocity and way"),
                Setting.choice("bands", List.of("thirds", "octaves"), "bands", "how wide the bands are"),
                Setting.list(GOOD, 3, 60, "good state", "Hz, amplitude and scatter of each line while all was well"),
                Setting.list(
                        SEEN,
                        1,
                        21,
                        "seen before",
                        "another rate and the lines seen at it: which of them are aliased"));
    }

    @Override
    public Map<String, String> settingsFor(String unit) {
        return switch (unit) {
            case "g" -> Map.of();
            case "m/s²", "m/s2" -> Map.of("unit", "m/s2");
            default -> Map.of("unit", "counts");
        };
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo(
                        "rms", "RMS", ScalarInfo.OF_PORT, -1, "of what is left once the mean is taken off each axis"),
                new ScalarInfo(
                        "peak", "peak", ScalarInfo.OF_PORT, -1, "the furthest from the mean, of all axes together"),
                new ScalarInfo("crest", "crest factor", "", 2, "peak over RMS; 1.41 for a sine, 3 to 5 for noise"),
                new ScalarInfo("kurtosis", "kurtosis", "", 2, "3 for Gaussian noise, 1.5 for a sine, more for knocks"),
                new ScalarInfo("clipped", "clipped", "", 3, "share of the samples at an end of the range"),
                new ScalarInfo(
                        "velocity_mm_s",
                        "velocity",
                        "mm/s",
                        2,
                        "RMS, integrated in the spectrum from the stated frequency up"),
                new ScalarInfo("displacement_um", "way", "\u00b5m", 1, "RMS, integrated twice in the spectrum"),
                new ScalarInfo("turning_hz", "turns", "Hz", 2, "as set, or the line that others are harmonics of"));
    }

    @Override
    public List<String> otherKeys() {
        return List.of("peaks", "orders", "bands", "trend", "state", "grown", "unfolded");
    }

    @Override
    public double windowSeconds() {
        return 10;
    }

    /** A line across it adds a little noise to the spectrum; levels are of measured samples only. */
    @Override
    public double longestHoleSeconds(Settings settings) {
        return LONGEST_HOLE_SECONDS;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        return rateHz >= LEAST_HZ
                ? Optional.empty()
                : Optional.of(
                        "vibration needs " + Digits.of(LEAST_HZ) + " samples/s or more, not " + Digits.of(rateHz));
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        double peaks = settings.number("peaks");
        if (peaks != Math.rint(peaks)) {
            throw new ReaderException("peaks takes a whole number from 1 to 50, was " + settings.text("peaks"));
        }
        return new VibrationReader((int) peaks, settings, rateHz);
    }
}
