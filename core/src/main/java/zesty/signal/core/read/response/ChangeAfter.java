package zesty.signal.core.read.response;

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

/** The change after a moment: how far a signal went from where it was, how soon, and how soon it came back half way. */
public final class ChangeAfter implements ReaderKind {
    public static final String NAME = "response";

    static final String AT = "at";
    static final String MARK = "mark";

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return "what changed after a moment: how far, how soon, and how soon half of it was gone again";
    }

    @Override
    public String title() {
        return "Change after a marker";
    }

    @Override
    public String gives() {
        return "change, delay, recovery";
    }

    @Override
    public List<Port> ports() {
        return List.of(new Port("x", "", "any signal"));
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                "any slow quantity",
                2,
                1,
                100,
                1,
                "Its own wander: repeat the event several times.",
                List.of("sensor output to an analogue pin", "ground of sensor and board joined")));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.number(
                        AT, Setting.AUTO, 0, Double.MAX_VALUE, "s", "at", "when it happened, from the first sample on"),
                Setting.words(MARK, "marker", "the first marker of that text, of a take; in place of a time"),
                Setting.number("before", "10", 1e-6, 1e6, "s", "before", "how long before it the baseline is taken"),
                Setting.number("until", "60", 1e-6, 1e6, "s", "until", "how long after it the peak is looked for"),
                Setting.number(
                        "smooth", "0", 0, 1e6, "s", "smoothing", "a centred moving mean over so long; 0 for none"));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo("change", "change", ScalarInfo.OF_PORT, -1, "peak less baseline"),
                new ScalarInfo(
                        "latency_s", "delay", "s", 2, "from the moment to the first sample past half the change"),
                new ScalarInfo(
                        "half_recovery_s",
                        "half recovery",
                        "s",
                        2,
                        "from the peak to the first later sample that is back within half the change"),
                new ScalarInfo("baseline", "baseline", ScalarInfo.OF_PORT, -1, "mean before the moment"),
                new ScalarInfo("sd", "standard deviation before", ScalarInfo.OF_PORT, -1, "of the samples before it"),
                new ScalarInfo("peak", "peak", ScalarInfo.OF_PORT, -1, "where it was furthest from the baseline"),
                new ScalarInfo("peak_t_s", "peak at", "s", 2, "when that was"));
    }

    @Override
    public List<String> otherKeys() {
        return List.of("moments");
    }

    @Override
    public double windowSeconds() {
        return 120;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        return Optional.empty();
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        if (!settings.text(MARK).isBlank() && !settings.text(AT).equals(Setting.AUTO)) {
            throw new ReaderException("at and mark both say when; give one of them");
        }
        return new ChangeReader(settings);
    }
}
