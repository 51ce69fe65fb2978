package zesty.signal.core.read.muscle;

import java.util.List;
import java.util.Optional;
import zesty.signal.core.read.Port;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.scale.Digits;

/** Muscle activity, raw or as a ready-made envelope: bursts, effort against the hardest pull, share of the time. */
public final class Muscle implements ReaderKind {
    public static final String NAME = "muscle";
    static final String RAW = "raw";
    private static final double LEAST_RAW_HZ = 400;
    private static final double LEAST_ENVELOPE_HZ = 10;

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return "when a muscle works, and how hard against its hardest pull";
    }

    @Override
    public List<Port> ports() {
        return List.of(new Port("muscle", "", "electrodes on a muscle, raw or as an envelope"));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.choice(
                        "kind", List.of(RAW, "envelope"), "kind", "the raw signal, or an envelope made on the board"),
                Setting.span("rest", "rest", "when the muscle rests; by itself: the quietest stretches"),
                Setting.number(
                        "hardest",
                        Setting.AUTO,
                        1e-12,
                        1e12,
                        "",
                        "hardest pull",
                        "the envelope at the hardest pull; by itself: the highest burst of the record"));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo("percent", "effort now", "%", 0, "the envelope at the end, of the hardest pull"),
                new ScalarInfo("baseline", "rest", ScalarInfo.OF_PORT, -1, "mean of the envelope at rest"),
                new ScalarInfo("snr_db", "signal over noise", "dB", 1, "RMS in bursts over RMS at rest"),
                new ScalarInfo("duty", "share of the time", "", 2, "in bursts"));
    }

    @Override
    public List<String> otherKeys() {
        return List.of("bursts");
    }

    @Override
    public boolean onBody() {
        return true;
    }

    @Override
    public double windowSeconds() {
        return 30;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        boolean raw = settings.text("kind").equals(RAW);
        double least = raw ? LEAST_RAW_HZ : LEAST_ENVELOPE_HZ;
        return rateHz >= least
                ? Optional.empty()
                : Optional.of((raw ? "a raw muscle signal" : "an envelope") + " needs " + Digits.of(least)
                        + " samples/s or more, not " + Digits.of(rateHz)
                        + (raw && rateHz >= LEAST_ENVELOPE_HZ
                                ? "; if it is a ready-made envelope, set kind=envelope"
                                : ""));
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        return new MuscleReader(
                settings.text("kind").equals(RAW), settings.span("rest"), settings.number("hardest"), rateHz);
    }
}
