package zesty.signal.core.read.tone;

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

/** The tone of a sound: its fundamental, also where a harmonic is stronger or it is missing, and the level. */
public final class Tone implements ReaderKind {
    public static final String NAME = "tone";
    private static final double LEAST_HZ = 100;

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return Messages.of("read.tone.the-tone-of-a-sound-and-how-loud");
    }

    @Override
    public String title() {
        return Messages.of("read.tone.sound");
    }

    @Override
    public String gives() {
        return Messages.of("read.tone.pitch-and-level");
    }

    @Override
    public Nature nature() {
        return Nature.TONES;
    }

    @Override
    public List<Suggestion> suggestions() {
        return List.of(new Suggestion("highpass:60@2", Messages.of("read.tone.rumble-and-the-hum-of-the-mains-go")));
    }

    @Override
    public List<Port> ports() {
        return List.of(new Port("sound", "", Messages.of("read.tone.a-waveform-a-microphone-a-pickup")));
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                Messages.of("read.tone.microphone-module-waveform"),
                4000,
                1,
                60,
                1,
                Messages.of("read.tone.rumble-of-the-room-a-level-module"),
                List.of(
                        Messages.of("read.tone.module-output-to-an-analogue-pin"),
                        Messages.of("read.tone.module-that-gives-the-waveform-not"))));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.number(
                        "from",
                        "20",
                        1,
                        1e6,
                        "Hz",
                        Messages.of("read.tone.from"),
                        Messages.of("read.tone.no-tone-is-looked-for-below-this")),
                Setting.number(
                        "to",
                        Setting.AUTO,
                        1,
                        1e6,
                        "Hz",
                        Messages.of("read.tone.to"),
                        Messages.of("read.tone.nor-above-this-auto-half-the-rate")));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo(
                        "hz",
                        Messages.of("read.tone.tone"),
                        "Hz",
                        2,
                        Messages.of("read.tone.the-fundamental-even-where-a")),
                new ScalarInfo(
                        "level_db",
                        Messages.of("read.tone.level"),
                        "dB",
                        1,
                        Messages.of("read.tone.20-log-of-the-rms-its-mean-off")),
                new ScalarInfo(
                        "confidence",
                        Messages.of("read.tone.confidence"),
                        "",
                        2,
                        Messages.of("read.tone.share-of-the-sound-that-this-tone")),
                new ScalarInfo(
                        "level_dba",
                        Messages.of("read.tone.a-weighted"),
                        "dB",
                        1,
                        Messages.of("read.tone.level-weighted-by-a-iec-61672")),
                new ScalarInfo(
                        "loudest_db",
                        Messages.of("read.tone.loudest"),
                        "dB",
                        1,
                        Messages.of("read.tone.the-loudest-eighth-of-a-second")),
                new ScalarInfo(
                        "l10_db",
                        Messages.of("read.tone.l10"),
                        "dB",
                        1,
                        Messages.of("read.tone.level-exceeded-for-a-tenth-of-the")),
                new ScalarInfo(
                        "l50_db",
                        Messages.of("read.tone.l50"),
                        "dB",
                        1,
                        Messages.of("read.tone.level-exceeded-for-half-of-the")),
                new ScalarInfo(
                        "l90_db",
                        Messages.of("read.tone.l90"),
                        "dB",
                        1,
                        Messages.of("read.tone.level-exceeded-for-nine-tenths-of")));
    }

    @Override
    public List<String> otherKeys() {
        return List.of("note", "level", "pitch");
    }

    @Override
    public double windowSeconds() {
        return 1;
    }

    /** Longer ones would be heard as clicks. */
    @Override
    public double longestHoleSeconds(Settings settings) {
        return 0.03;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        if (!(rateHz >= LEAST_HZ)) {
            return Optional.of(Messages.of(
                    "read.tone.a-tone-needs-samples-s-or-more-not", Digits.of(LEAST_HZ), Digits.of(rateHz)));
        }
        double to = to(settings, rateHz);
        return settings.number("from") < to && to <= rateHz / 2
                ? Optional.empty()
                : Optional.of(Messages.of(
                        "read.tone.from-must-lie-below-to-and-to-at",
                        Digits.of(rateHz / 2),
                        settings.text("from"),
                        settings.text("to")));
    }

    private static double to(Settings settings, double rateHz) {
        double to = settings.number("to");
        return Double.isNaN(to) ? rateHz / 2 : to;
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        return new ToneReader(settings.number("from"), to(settings, rateHz), rateHz);
    }
}
