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
import zesty.signal.core.text.Messages;

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
        return Messages.of("read.vibration.how-strong-a-shaking-is-how-spiky");
    }

    @Override
    public String gives() {
        return Messages.of("read.vibration.rms-peaks-spectrum-lines");
    }

    @Override
    public Nature nature() {
        return Nature.TONES;
    }

    @Override
    public List<Suggestion> suggestions() {
        return List.of(new Suggestion("highpass:2@2", Messages.of("read.vibration.gravity-and-the-drift-of-the")));
    }

    @Override
    public List<Port> ports() {
        return List.of(
                new Port("ax", "", Messages.of("read.vibration.an-axis-of-an-accelerometer-or-a")),
                new Port("ay", "", Messages.of("read.vibration.the-second-axis")),
                new Port("az", "", Messages.of("read.vibration.the-third-axis")));
    }

    @Override
    public int fewestPorts() {
        return 1;
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                Messages.of("read.vibration.accelerometer-three-axes"),
                500,
                0.3,
                60,
                3,
                Messages.of("read.vibration.tones-above-half-the-rate-are"),
                List.of(
                        Messages.of("read.vibration.sensor-screwed-or-glued-down"),
                        Messages.of("read.vibration.bus-lines-short-with-pull-ups"),
                        Messages.of("read.vibration.range-set-larger-than-the"))));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.number(
                        "peaks",
                        "5",
                        1,
                        50,
                        "",
                        Messages.of("read.vibration.lines"),
                        Messages.of("read.vibration.how-many-lines-are-told-the")),
                Setting.choice(
                        "unit",
                        List.of("g", "m/s2", "counts"),
                        Messages.of("read.vibration.unit"),
                        Messages.of("read.vibration.what-the-numbers-are-in-of-counts")),
                Setting.number(
                        TURNS,
                        Setting.AUTO,
                        0.05,
                        1e5,
                        "Hz",
                        Messages.of("read.vibration.turns"),
                        Messages.of("read.vibration.how-often-a-second-it-turns-auto")),
                Setting.number(
                        "from",
                        "10",
                        0.5,
                        1e5,
                        "Hz",
                        Messages.of("read.vibration.velocity-from"),
                        Messages.of("read.vibration.slower-than-this-is-left-out-of")),
                Setting.choice(
                        "bands",
                        List.of("thirds", "octaves"),
                        Messages.of("read.vibration.bands"),
                        Messages.of("read.vibration.how-wide-the-bands-are")),
                Setting.list(
                        GOOD,
                        3,
                        60,
                        Messages.of("read.vibration.good-state"),
                        Messages.of("read.vibration.hz-amplitude-and-scatter-of-each")),
                Setting.list(
                        SEEN,
                        1,
                        21,
                        Messages.of("read.vibration.seen-before"),
                        Messages.of("read.vibration.another-rate-and-the-lines-seen-at")));
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
                        "rms",
                        Messages.of("read.vibration.rms"),
                        ScalarInfo.OF_PORT,
                        -1,
                        Messages.of("read.vibration.of-what-is-left-once-the-mean-is")),
                new ScalarInfo(
                        "peak",
                        Messages.of("read.vibration.peak"),
                        ScalarInfo.OF_PORT,
                        -1,
                        Messages.of("read.vibration.the-furthest-from-the-mean-of-all")),
                new ScalarInfo(
                        "crest",
                        Messages.of("read.vibration.crest-factor"),
                        "",
                        2,
                        Messages.of("read.vibration.peak-over-rms-1-41-for-a-sine-3-to")),
                new ScalarInfo(
                        "kurtosis",
                        Messages.of("read.vibration.kurtosis"),
                        "",
                        2,
                        Messages.of("read.vibration.3-for-gaussian-noise-1-5-for-a")),
                new ScalarInfo(
                        "clipped",
                        Messages.of("read.vibration.clipped"),
                        "",
                        3,
                        Messages.of("read.vibration.share-of-the-samples-at-an-end-of")),
                new ScalarInfo(
                        "velocity_mm_s",
                        Messages.of("read.vibration.velocity"),
                        "mm/s",
                        2,
                        Messages.of("read.vibration.rms-integrated-in-the-spectrum")),
                new ScalarInfo(
                        "displacement_um",
                        Messages.of("read.vibration.way"),
                        "\u00b5m",
                        1,
                        Messages.of("read.vibration.rms-integrated-twice-in-the")),
                new ScalarInfo(
                        "turning_hz",
                        Messages.of("read.vibration.turns"),
                        "Hz",
                        2,
                        Messages.of("read.vibration.as-set-or-the-line-that-others-are")));
    }

    @Override
    public List<String> otherKeys() {
        return List.of("peaks", "orders", "bands", "trend", "state", "grown", "unfolded");
    }

    @Override
    public double windowSeconds() {
        return 10;
    }

    /** Of a longer one little could be predicted from both sides; levels are of measured samples only. */
    @Override
    public double longestHoleSeconds(Settings settings) {
        return LONGEST_HOLE_SECONDS;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        return rateHz >= LEAST_HZ
                ? Optional.empty()
                : Optional.of(Messages.of(
                        "read.vibration.vibration-needs-samples-s-or-more", Digits.of(LEAST_HZ), Digits.of(rateHz)));
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        double peaks = settings.number("peaks");
        if (peaks != Math.rint(peaks)) {
            throw new ReaderException(
                    Messages.of("read.vibration.peaks-takes-a-whole-number-from-1", settings.text("peaks")));
        }
        return new VibrationReader((int) peaks, settings, rateHz);
    }
}
