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
import zesty.signal.core.text.Messages;

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
        return Messages.of("read.wind.wind-speed-from-the-pulses-of");
    }

    @Override
    public String gives() {
        return Messages.of("read.wind.speed-gust-direction");
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
                new Port("pulses", "", Messages.of("read.wind.pulses-a-row-times-of-edges-or-the")),
                new Port("vane", "\u00b0", Messages.of("read.wind.where-the-wind-comes-from")));
    }

    @Override
    public int fewestPorts() {
        return 1;
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                Messages.of("read.wind.cups-with-a-contact"),
                40,
                3,
                2,
                1,
                Messages.of("read.wind.a-contact-bounces-calm-gives-no"),
                List.of(
                        Messages.of("read.wind.contact-to-a-digital-pin-and"),
                        Messages.of("read.wind.pull-up-and-a-capacitor-against"),
                        Messages.of("read.wind.no-climbing-alone-or-in-wind"))));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.choice(
                        "input",
                        List.of(COUNT, EDGES, LEVEL),
                        Messages.of("read.wind.input"),
                        Messages.of("read.wind.pulses-since-the-row-before-the")),
                Setting.number(
                        "factor",
                        "1",
                        1e-6,
                        1e6,
                        Messages.of("read.wind.m-s-per-hz"),
                        Messages.of("read.wind.factor"),
                        Messages.of("read.wind.wind-speed-for-one-turn-a-second")),
                Setting.number(
                        "offset",
                        "0",
                        0,
                        100,
                        "m/s",
                        Messages.of("read.wind.offset"),
                        Messages.of("read.wind.the-wind-at-which-the-cups-begin")),
                Setting.number(
                        "per_turn",
                        "1",
                        1,
                        1000,
                        "",
                        Messages.of("read.wind.pulses-a-turn"),
                        Messages.of("read.wind.how-often-the-contact-closes-in")));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo(
                        "mean_mps",
                        Messages.of("read.wind.mean"),
                        "m/s",
                        1,
                        Messages.of("read.wind.over-the-record-standing-included")),
                new ScalarInfo(
                        "gust_mps",
                        Messages.of("read.wind.gust"),
                        "m/s",
                        1,
                        Messages.of("read.wind.the-highest-mean-of-3-s")),
                new ScalarInfo(
                        "lull_mps",
                        Messages.of("read.wind.lull"),
                        "m/s",
                        1,
                        Messages.of("read.wind.the-lowest-mean-of-3-s")),
                new ScalarInfo(
                        "beaufort",
                        Messages.of("read.wind.force"),
                        "",
                        0,
                        Messages.of("read.wind.of-the-mean-0-to-12")),
                new ScalarInfo(
                        "mean_1min_mps",
                        Messages.of("read.wind.last-minute"),
                        "m/s",
                        1,
                        Messages.of("read.wind.mean-of-the-newest-minute")),
                new ScalarInfo(
                        "mean_2min_mps",
                        Messages.of("read.wind.last-2-minutes"),
                        "m/s",
                        1,
                        Messages.of("read.wind.mean-of-the-newest-two-minutes")),
                new ScalarInfo(
                        "mean_10min_mps",
                        Messages.of("read.wind.last-10-minutes"),
                        "m/s",
                        1,
                        Messages.of("read.wind.mean-of-the-newest-ten-minutes")),
                new ScalarInfo(
                        "turbulence",
                        Messages.of("read.wind.turbulence"),
                        "",
                        2,
                        Messages.of("read.wind.sd-of-the-means-of-a-second-over")),
                new ScalarInfo(
                        "from_deg",
                        Messages.of("read.wind.from"),
                        "\u00b0",
                        0,
                        Messages.of("read.wind.direction-it-blew-from-a-mean-of")),
                new ScalarInfo(
                        "from_spread_deg",
                        Messages.of("read.wind.direction-spread"),
                        "\u00b0",
                        0,
                        Messages.of("read.wind.standard-deviation-of-the")),
                new ScalarInfo(
                        "bounces",
                        Messages.of("read.wind.bounces"),
                        "",
                        0,
                        Messages.of("read.wind.edges-left-out-because-the-contact")));
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
                                ? Messages.of(
                                        "read.wind.a-square-wave-needs-samples-s-or",
                                        Digits.of(LEAST_LEVEL_HZ),
                                        Digits.of(rateHz))
                                : Messages.of("read.wind.wind-needs-a-rate-above-0-rows-s", Digits.of(rateHz)));
    }

    @Override
    public boolean needsRate(Settings settings) {
        return !settings.text("input").equals(EDGES);
    }

    @Override
    public void check(Settings settings, double[][] ports) {
        boolean edges = settings.text("input").equals(EDGES);
        if (edges && ports.length > 1) {
            throw new ReaderException(Messages.of("read.wind.a-vane-has-no-value-at-the-edges"));
        }
        for (int i = 1; edges && i < ports[0].length; i++) {
            if (!(ports[0][i] >= ports[0][i - 1])) {
                throw new ReaderException(Messages.of(
                        "read.wind.times-of-edges-must-rise-but-row",
                        (i + 1),
                        Digits.of(ports[0][i]),
                        Digits.of(ports[0][i - 1])));
            }
        }
        if (settings.text("input").equals(COUNT)) {
            for (int i = 0; i < ports[0].length; i++) {
                if (ports[0][i] < 0) {
                    throw new ReaderException(Messages.of(
                            "read.wind.pulses-a-row-cannot-be-below-0-but", (i + 1), Digits.of(ports[0][i])));
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
