package zesty.signal.core.read.pulse;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import zesty.signal.core.act.Band;
import zesty.signal.core.clean.Suggestion;
import zesty.signal.core.read.Nature;
import zesty.signal.core.read.Need;
import zesty.signal.core.read.Port;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.scale.Digits;

/** The pulse: beats, their rate and variability, from light through the skin or from electrodes. */
public final class Pulse implements ReaderKind {
    /** A signal looks like one from so many segments of quality on. */
    private static final int LIKE_SEGMENTS = 5;

    /** Its name. */
    public static final String NAME = "pulse";
    /** The headline's key. */
    public static final String RATE = "rate_bpm.mean";
    /** The setting that says where the signal comes from. */
    public static final String SOURCE = "kind";

    private static final double HIGHEST_RATE_HZ = 1e5;
    private static final String BPM = "beats/min";

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return "beats, their rate and variability, from light through the skin or from electrodes";
    }

    @Override
    public String gives() {
        return "beats, heart rate, variability";
    }

    @Override
    public Optional<String> looksLike(Reading reading) {
        double rate = reading.scalar(RATE);
        return reading.quality().segments() >= LIKE_SEGMENTS && rate > 0
                ? Optional.of("Looks like one: " + Digits.fixed(rate, 0) + " a minute.")
                : Optional.empty();
    }

    @Override
    public Nature nature() {
        return Nature.ON_A_LEVEL;
    }

    @Override
    public List<Suggestion> suggestions() {
        return List.of(
                new Suggestion("bandpass:0.5..8@2", "an optical pulse lies between half a beat and a few harmonics"),
                new Suggestion(
                        "baseline:0.6 | hum:50@1",
                        "a heart by electrodes: wander and mains go, the beat keeps its shape"));
    }

    @Override
    public List<Port> ports() {
        return List.of(new Port("signal", "", "the pulse as it is measured, of either polarity"));
    }

    @Override
    public List<Need> needs() {
        return List.of(
                new Need(
                        "optical, at a finger or an ear",
                        20,
                        0.15,
                        25,
                        1,
                        "Pressure, movement and light from outside hide the beats; a lamp flickers at twice the mains frequency.",
                        List.of(
                                "sensor output to an analogue pin",
                                "ground of sensor and board joined",
                                "finger still, light kept off",
                                "body on battery power only")),
                new Need(
                        "electrodes with an amplifier",
                        40,
                        1,
                        40,
                        1,
                        "Mains hum and the muscles beside the heart; the slope of the R wave needs the rate.",
                        List.of(
                                "amplifier output to an analogue pin",
                                "ground of amplifier and board joined",
                                "three electrodes, leads twisted",
                                "body on battery power only")));
    }

    @Override
    public List<Setting> settings() {
        return List.of(Setting.choice(
                SOURCE,
                List.of(PulseSource.OPTICAL.word(), PulseSource.ELECTRICAL.word()),
                "measured by",
                "light through the skin, or electrodes"));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo(RATE, "rate", BPM, 0, "60000 over the mean interval in ms"),
                new ScalarInfo("rate_bpm.min", "slowest", BPM, 0, "from the longest interval"),
                new ScalarInfo("rate_bpm.max", "fastest", BPM, 0, "from the shortest interval"),
                new ScalarInfo("interval_ms.mean", "interval", "ms", 1, "mean time from beat to beat"),
                new ScalarInfo("interval_ms.sdnn", "SDNN", "ms", 0, "standard deviation of the intervals"),
                new ScalarInfo(
                        "interval_ms.rmssd",
                        "RMSSD",
                        "ms",
                        0,
                        "root mean square of the change from interval to interval"),
                new ScalarInfo("pnn50_percent", "pNN50", "%", 0, "share of such changes of over 50 ms"),
                new ScalarInfo("set_aside_percent", "rejected", "%", 0, "share of the peaks that is rejected"),
                new ScalarInfo("early", "early beats", "", 0, "beats well before their time"),
                new ScalarInfo("lf_ms2", "slow part", "ms²", 0, "power of the intervals from 0.04 to 0.15 Hz"),
                new ScalarInfo("hf_ms2", "fast part", "ms²", 0, "power of the intervals from 0.15 to 0.4 Hz"),
                new ScalarInfo("breathing_per_min", "breaths", "/min", 0, "from the beats' height and their intervals"),
                new ScalarInfo(
                        "recovery_bpm", "recovery", BPM, 0, "fall in the minute after the fastest quarter minute"));
    }

    @Override
    public List<String> detailKeys() {
        return List.of("interval_ms.sdnn", "early");
    }

    @Override
    public List<String> otherKeys() {
        return List.of("beats", "rejected", "rate", "doubtful", "state");
    }

    @Override
    public boolean onBody() {
        return true;
    }

    @Override
    public boolean editable() {
        return true;
    }

    @Override
    public Map<String, Band> usualBands() {
        // A resting adult's pulse is usually within 60 to 100 beats a minute.
        return Map.of(RATE, new Band(60, 100, 3));
    }

    @Override
    public double windowSeconds() {
        return 20;
    }

    @Override
    public double eventSeconds() {
        return 180;
    }

    /** Short beside the rise of an optical beat, 0.15 to 0.25 s, and beside the whole of an electrical one. */
    @Override
    public double longestHoleSeconds(Settings settings) {
        return settings.text("kind").equals("electrical") ? 0.08 : 0.15;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        PulseSource source = PulseSource.of(settings.text(SOURCE));
        if (rateHz >= source.lowestRateHz && rateHz <= HIGHEST_RATE_HZ) {
            return Optional.empty();
        }
        return Optional.of("a pulse of kind " + source.word() + " needs " + Digits.of(source.lowestRateHz) + " to "
                + Digits.of(HIGHEST_RATE_HZ) + " samples/s, not " + Digits.of(rateHz));
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        return new PulseReader(PulseSource.of(settings.text(SOURCE)), rateHz);
    }
}
