package zesty.signal.core.read.wind;

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

/** Wind speed from turning cups: mean, gust, lull and force. */
public final class Wind implements ReaderKind {
    public static final String NAME = "wind";
    static final String COUNT = "count";
    static final String EDGES = "edges";
    static final String LEVEL = "level";
    private static final double LEAST_LEVEL_HZ = 50;

    /** Over so many minutes the newest mean is told. */
    static final int[] MEANS_MINUTES = {1, 2, 10};

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return "wind speed from the pulses of turning cups: mean, gust, lull";
    }

    @Override
    public String gives() {
        return "speed, gust, direction";
    }

    @Override
    public Nature nature() {
        return Nature.TONES;
    }

    @Override
    public List<Suggestion> suggestions() {
        return List.of();
    }

    @Override
    public List<Port> ports() {
        return List.of(
                new Port("pulses", "", "pulses a row, times of edges, or the square wave itself"),
                new Port("vane", "\u00b0", "where the wind comes from"));
    }

    @Override
    public int fewestPorts() {
        return 1;
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                "cups with a contact",
                40,
                3,
                2,
                1,
                "A contact bounces; calm gives no edge at all.",
                List.of(
                        "contact to a digital pin and ground",
                        "pull-up and a capacitor against bounces",
                        "no climbing alone or in wind")));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.choice(
                        "input",
                        List.of(COUNT, EDGES, LEVEL),
                        "input",
                        "pulses since the row before, the time of each edge in s, or the square wave as it is sampled"),
                Setting.number("factor", "1", 1e-6, 1e6, "m/s per Hz", "factor", "wind speed for one turn a second"),
                Setting.number("offset", "0", 0, 100, "m/s", "offset", "the wind at which the cups begin to turn"),
                Setting.number(
                        "per_turn", "1", 1, 1000, "", "pulses a turn", "how often the contact closes in one turn"));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo("mean_mps", "mean", "m/s", 1, "over the record, standing included"),
                new ScalarInfo("gust_mps", "gust", "m/s", 1, "the highest mean of 3 s"),
                new ScalarInfo("lull_mps", "lull", "m/s", 1, "the lowest mean of 3 s"),
                new ScalarInfo("beaufort", "force", "", 0, "of the mean, 0 to 12"),
                new ScalarInfo("mean_1min_mps", "last minute", "m/s", 1, "mean of the newest minute"),
                new ScalarInfo("mean_2min_mps", "last 2 minutes", "m/s", 1, "mean of the newest two minutes"),
                new ScalarInfo("mean_10min_mps", "last 10 minutes", "m/s", 1, "mean of the newest ten minutes"),
                new ScalarInfo("turbulence", "turbulence", "", 2, "SD of the means of a second over the mean"),
                new ScalarInfo("from_deg", "from", "\u00b0", 0, "direction it blew from, a mean of vectors"),
                new ScalarInfo(
                        "from_spread_deg", "direction spread", "\u00b0", 0, "standard deviation of the direction"),
                new ScalarInfo("bounces", "bounces", "", 0, "edges left out because the contact bounced"));
    }

    @Override
    public List<String> otherKeys() {
        return List.of("series", "rose", "force", "also");
    }

    @Override
    public double windowSeconds() {
        return 120;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        boolean wave = settings.text("input").equals(LEVEL);
        return rateHz > 0 && (!wave || rateHz >= LEAST_LEVEL_HZ)
                ? Optional.empty()
                : Optional.of(
                        wave
                                ? "a square wave needs " + Digits.of(LEAST_LEVEL_HZ) + " samples/s or more, not "
                                        + Digits.of(rateHz) + "; count pulses on the board instead"
                                : "wind needs a rate above 0 rows/s, not " + Digits.of(rateHz));
    }

    @Override
    public boolean needsRate(Settings settings) {
        return !settings.text("input").equals(EDGES);
    }

    @Override
    public void check(Settings settings, double[][] ports) {
        boolean edges = settings.text("input").equals(EDGES);
        if (edges && ports.length > 1) {
            throw new ReaderException("a vane has no value at the edges' own times; read it beside counted pulses");
        }
        for (int i = 1; edges && i < ports[0].length; i++) {
            if (!(ports[0][i] >= ports[0][i - 1])) {
                throw new ReaderException("times of edges must rise, but row " + (i + 1) + " has "
                        + Digits.of(ports[0][i]) + " after " + Digits.of(ports[0][i - 1]));
            }
        }
        if (settings.text("input").equals(COUNT)) {
            for (int i = 0; i < ports[0].length; i++) {
                if (ports[0][i] < 0) {
                    throw new ReaderException(
                            "pulses a row cannot be below 0, but row " + (i + 1) + " has " + Digits.of(ports[0][i]));
                }
            }
        }
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        return new WindReader(
                settings.text("input"),
                settings.number("factor"),
                settings.number("offset"),
                settings.number("per_turn"),
                rateHz);
    }
}
