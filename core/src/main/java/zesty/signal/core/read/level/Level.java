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
        return "mean, range and noise, and when it crosses from band to band";
    }

    @Override
    public String title() {
        return "Level and bands";
    }

    @Override
    public String gives() {
        return "mean, noise, time in a band";
    }

    @Override
    public List<Port> ports() {
        return List.of(new Port("signal", "", "any channel"));
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                "any slow quantity",
                2,
                1,
                100,
                1,
                "The reference voltage; the sensor warms itself.",
                List.of("sensor output to an analogue pin", "ground of sensor and board joined")));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.rising(
                        "bands", "edges between bands", "in the channel's unit, parted by commas; none: one band"),
                Setting.number(
                        "hysteresis",
                        "0",
                        0,
                        Double.MAX_VALUE,
                        "",
                        "hysteresis",
                        "a band is left half of this beyond its edge, so that noise at an edge does not flicker"));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo("mean", "mean", ScalarInfo.OF_PORT, -1, "of all samples"),
                new ScalarInfo(
                        "noise",
                        "noise",
                        ScalarInfo.OF_PORT,
                        -1,
                        "standard deviation of one sample, slopes not counted"),
                new ScalarInfo("min", "lowest", ScalarInfo.OF_PORT, -1, "the lowest sample"),
                new ScalarInfo("max", "highest", ScalarInfo.OF_PORT, -1, "the highest sample"));
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
                return Optional.of("hysteresis must be less than twice the narrowest band, which is "
                        + Digits.of(edges[i] - edges[i - 1]) + " wide; was " + Digits.of(hysteresis));
            }
        }
        return rateHz > 0
                ? Optional.empty()
                : Optional.of("a level needs a rate above 0 samples/s, not " + Digits.of(rateHz));
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        return new LevelReader(settings.numbers("bands"), settings.number("hysteresis"), rateHz);
    }
}
