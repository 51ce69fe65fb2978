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
import zesty.signal.core.text.Messages;

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
        return Messages.of("read.pulse.beats-their-rate-and-variability");
    }

    @Override
    public String gives() {
        return Messages.of("read.pulse.beats-heart-rate-variability");
    }

    @Override
    public Optional<String> looksLike(Reading reading) {
        double rate = reading.scalar(RATE);
        return reading.quality().segments() >= LIKE_SEGMENTS && rate > 0
                ? Optional.of(Messages.of("read.pulse.looks-like-one-a-minute", Digits.fixed(rate, 0)))
                : Optional.empty();
    }

    @Override
    public Nature nature() {
        return Nature.ON_A_LEVEL;
    }

    @Override
    public List<Suggestion> suggestions() {
        return List.of(
                new Suggestion("bandpass:0.5..8@2", Messages.of("read.pulse.an-optical-pulse-lies-between-half")),
                new Suggestion("baseline:0.6 | hum:50@1", Messages.of("read.pulse.a-heart-by-electrodes-wander-and")));
    }

    @Override
    public List<Port> ports() {
        return List.of(new Port("signal", "", Messages.of("read.pulse.the-pulse-as-it-is-measured-of")));
    }

    @Override
    public List<Need> needs() {
        return List.of(
                new Need(
                        Messages.of("read.pulse.optical-at-a-finger-or-an-ear"),
                        20,
                        0.15,
                        25,
                        1,
                        Messages.of("read.pulse.pressure-movement-and-light-from"),
                        List.of(
                                Messages.of("read.pulse.sensor-output-to-an-analogue-pin"),
                                Messages.of("read.pulse.ground-of-sensor-and-board-joined"),
                                Messages.of("read.pulse.finger-still-light-kept-off"),
                                Messages.of("read.pulse.body-on-battery-power-only"))),
                new Need(
                        Messages.of("read.pulse.electrodes-with-an-amplifier"),
                        40,
                        1,
                        40,
                        1,
                        Messages.of("read.pulse.mains-hum-and-the-muscles-beside"),
                        List.of(
                                Messages.of("read.pulse.amplifier-output-to-an-analogue"),
                                Messages.of("read.pulse.ground-of-amplifier-and-board"),
                                Messages.of("read.pulse.three-electrodes-leads-twisted"),
                                Messages.of("read.pulse.body-on-battery-power-only"))));
    }

    @Override
    public List<Setting> settings() {
        return List.of(Setting.choice(
                SOURCE,
                List.of(PulseSource.OPTICAL.word(), PulseSource.ELECTRICAL.word()),
                Messages.of("read.pulse.measured-by"),
                Messages.of("read.pulse.light-through-the-skin-or")));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo(
                        RATE,
                        Messages.of("read.pulse.rate"),
                        BPM,
                        0,
                        Messages.of("read.pulse.60000-over-the-mean-interval-in-ms")),
                new ScalarInfo(
                        "rate_bpm.min",
                        Messages.of("read.pulse.slowest"),
                        BPM,
                        0,
                        Messages.of("read.pulse.from-the-longest-interval")),
                new ScalarInfo(
                        "rate_bpm.max",
                        Messages.of("read.pulse.fastest"),
                        BPM,
                        0,
                        Messages.of("read.pulse.from-the-shortest-interval")),
                new ScalarInfo(
                        "interval_ms.mean",
                        Messages.of("read.pulse.interval"),
                        "ms",
                        1,
                        Messages.of("read.pulse.mean-time-from-beat-to-beat")),
                new ScalarInfo(
                        "interval_ms.sdnn",
                        Messages.of("read.pulse.sdnn"),
                        "ms",
                        0,
                        Messages.of("read.pulse.standard-deviation-of-the")),
                new ScalarInfo(
                        "interval_ms.rmssd",
                        Messages.of("read.pulse.rmssd"),
                        "ms",
                        0,
                        Messages.of("read.pulse.root-mean-square-of-the-change")),
                new ScalarInfo(
                        "pnn50_percent",
                        Messages.of("read.pulse.pnn50"),
                        "%",
                        0,
                        Messages.of("read.pulse.share-of-such-changes-of-over-50")),
                new ScalarInfo(
                        "set_aside_percent",
                        Messages.of("read.pulse.rejected"),
                        "%",
                        0,
                        Messages.of("read.pulse.share-of-the-peaks-that-is")),
                new ScalarInfo(
                        "early",
                        Messages.of("read.pulse.early-beats"),
                        "",
                        0,
                        Messages.of("read.pulse.beats-well-before-their-time")),
                new ScalarInfo(
                        "lf_ms2",
                        Messages.of("read.pulse.slow-part"),
                        "ms²",
                        0,
                        Messages.of("read.pulse.power-of-the-intervals-from-0-04")),
                new ScalarInfo(
                        "hf_ms2",
                        Messages.of("read.pulse.fast-part"),
                        "ms²",
                        0,
                        Messages.of("read.pulse.power-of-the-intervals-from-0-15")),
                new ScalarInfo(
                        "breathing_per_min",
                        Messages.of("read.pulse.breaths"),
                        "/min",
                        0,
                        Messages.of("read.pulse.from-the-beats-height-and-their")),
                new ScalarInfo(
                        "recovery_bpm",
                        Messages.of("read.pulse.recovery"),
                        BPM,
                        0,
                        Messages.of("read.pulse.fall-in-the-minute-after-the")));
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
        return Optional.of(Messages.of(
                "read.pulse.a-pulse-of-kind-needs-to-samples-s",
                source.word(),
                Digits.of(source.lowestRateHz),
                Digits.of(HIGHEST_RATE_HZ),
                Digits.of(rateHz)));
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        return new PulseReader(PulseSource.of(settings.text(SOURCE)), rateHz);
    }
}
