package zesty.signal.core.read.level;

import java.util.List;
import java.util.Optional;
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

/** The level of any channel: mean, range, noise, and when it crosses from band to band. */
public final class Level implements ReaderKind {
    /** Its name. */
    public static final String NAME = "level";
    /** How long a stretch it speaks of live, in s. */
    static final double WINDOW_SECONDS = 10;

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return Messages.of("read.level.mean-range-and-noise-and-when-it");
    }

    @Override
    public String title() {
        return Messages.of("read.level.level-and-bands");
    }

    @Override
    public String gives() {
        return Messages.of("read.level.mean-noise-time-in-a-band");
    }

    @Override
    public List<Port> ports() {
        return List.of(new Port("signal", "", Messages.of("read.level.any-channel")));
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                Messages.of("read.level.any-slow-quantity"),
                2,
                1,
                100,
                1,
                Messages.of("read.level.the-reference-voltage-the-sensor"),
                List.of(
                        Messages.of("read.level.sensor-output-to-an-analogue-pin"),
                        Messages.of("read.level.ground-of-sensor-and-board-joined"))));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.rising(
                        "bands",
                        Messages.of("read.level.edges-between-bands"),
                        Messages.of("read.level.in-the-channel-s-unit-parted-by")),
                Setting.number(
                        "hysteresis",
                        "0",
                        0,
                        Double.MAX_VALUE,
                        "",
                        Messages.of("read.level.hysteresis"),
                        Messages.of("read.level.a-band-is-left-half-of-this-beyond")));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo(
                        "mean",
                        Messages.of("read.level.mean"),
                        ScalarInfo.OF_PORT,
                        -1,
                        Messages.of("read.level.of-all-samples")),
                new ScalarInfo(
                        "noise",
                        Messages.of("read.level.noise"),
                        ScalarInfo.OF_PORT,
                        -1,
                        Messages.of("read.level.standard-deviation-of-one-sample")),
                new ScalarInfo(
                        "min",
                        Messages.of("read.level.lowest"),
                        ScalarInfo.OF_PORT,
                        -1,
                        Messages.of("read.level.the-lowest-sample")),
                new ScalarInfo(
                        "max",
                        Messages.of("read.level.highest"),
                        ScalarInfo.OF_PORT,
                        -1,
                        Messages.of("read.level.the-highest-sample")));
    }

    @Override
    public List<String> detailKeys() {
        return List.of("min", "max");
    }

    @Override
    public List<String> otherKeys() {
        return List.of("crossings", "time_in_band");
    }

    @Override
    public double windowSeconds() {
        return WINDOW_SECONDS;
    }

    @Override
    public double eventSeconds() {
        return 180;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        double hysteresis = settings.number("hysteresis");
        double[] edges = settings.numbers("bands");
        for (int i = 1; i < edges.length; i++) {
            if (hysteresis >= 2 * (edges[i] - edges[i - 1])) {
                return Optional.of(Messages.of(
                        "read.level.hysteresis-must-be-less-than-twice",
                        Digits.of(edges[i] - edges[i - 1]),
                        Digits.of(hysteresis)));
            }
        }
        return rateHz > 0
                ? Optional.empty()
                : Optional.of(Messages.of("read.level.a-level-needs-a-rate-above-0", Digits.of(rateHz)));
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        return new LevelReader(settings.numbers("bands"), settings.number("hysteresis"), rateHz);
    }
}
