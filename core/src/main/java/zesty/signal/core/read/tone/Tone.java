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
        return "the tone of a sound and how loud it is";
    }

    @Override
    public String title() {
        return "Sound";
    }

    @Override
    public String gives() {
        return "pitch and level";
    }

    @Override
    public Nature nature() {
        return Nature.TONES;
    }

    @Override
    public List<Suggestion> suggestions() {
        return List.of(new Suggestion("highpass:60@2", "rumble and the hum of the mains go"));
    }

    @Override
    public List<Port> ports() {
        return List.of(new Port("sound", "", "a waveform: a microphone, a pickup"));
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                "microphone module, waveform",
                4000,
                1,
                60,
                1,
                "Rumble of the room; a level module gives no waveform.",
                List.of("module output to an analogue pin", "module that gives the waveform, not a level")));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.number("from", "20", 1, 1e6, "Hz", "from", "no tone is looked for below this"),
                Setting.number("to", Setting.AUTO, 1, 1e6, "Hz", "to", "nor above this; auto: half the rate"));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo("hz", "tone", "Hz", 2, "the fundamental, even where a harmonic is stronger"),
                new ScalarInfo("level_db", "level", "dB", 1, "20 log of the RMS, its mean off, against 1 unit"),
                new ScalarInfo("confidence", "confidence", "", 2, "share of the sound that this tone explains"),
                new ScalarInfo("level_dba", "A-weighted", "dB", 1, "level weighted by A (IEC 61672), against 1 unit"),
                new ScalarInfo("loudest_db", "loudest", "dB", 1, "the loudest eighth of a second"),
                new ScalarInfo("l10_db", "L10", "dB", 1, "level exceeded for a tenth of the time"),
                new ScalarInfo("l50_db", "L50", "dB", 1, "level exceeded for half of the time"),
                new ScalarInfo("l90_db", "L90", "dB", 1, "level exceeded for nine tenths of the time"));
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
            return Optional.of("a tone needs " + Digits.of(LEAST_HZ) + " samples/s or more, not " + Digits.of(rateHz));
        }
        double to = to(settings, rateHz);
        return settings.number("from") < to && to <= rateHz / 2
                ? Optional.empty()
                : Optional.of("from must lie below to, and to at most at half the rate, " + Digits.of(rateHz / 2)
                        + " Hz; were " + settings.text("from") + " and " + settings.text("to"));
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
