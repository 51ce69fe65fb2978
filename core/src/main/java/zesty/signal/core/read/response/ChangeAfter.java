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
import zesty.signal.core.text.Messages;

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
        return Messages.of("read.response.what-changed-after-a-moment-how");
    }

    @Override
    public String title() {
        return Messages.of("read.response.change-after-a-marker");
    }

    @Override
    public String gives() {
        return Messages.of("read.response.change-delay-recovery");
    }

    @Override
    public List<Port> ports() {
        return List.of(new Port("x", "", Messages.of("read.response.any-signal")));
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                Messages.of("read.response.any-slow-quantity"),
                2,
                1,
                100,
                1,
                Messages.of("read.response.its-own-wander-repeat-the-event"),
                List.of(
                        Messages.of("read.response.sensor-output-to-an-analogue-pin"),
                        Messages.of("read.response.ground-of-sensor-and-board-joined"))));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.number(
                        AT,
                        Setting.AUTO,
                        0,
                        Double.MAX_VALUE,
                        "s",
                        Messages.of("read.response.at"),
                        Messages.of("read.response.when-it-happened-from-the-first")),
                Setting.words(
                        MARK,
                        Messages.of("read.response.marker"),
                        Messages.of("read.response.the-first-marker-of-that-text-of-a")),
                Setting.number(
                        "before",
                        "10",
                        1e-6,
                        1e6,
                        "s",
                        Messages.of("read.response.before"),
                        Messages.of("read.response.how-long-before-it-the-baseline-is")),
                Setting.number(
                        "until",
                        "60",
                        1e-6,
                        1e6,
                        "s",
                        Messages.of("read.response.until"),
                        Messages.of("read.response.how-long-after-it-the-peak-is")),
                Setting.number(
                        "smooth",
                        "0",
                        0,
                        1e6,
                        "s",
                        Messages.of("read.response.smoothing"),
                        Messages.of("read.response.a-centred-moving-mean-over-so-long")));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo(
                        "change",
                        Messages.of("read.response.change"),
                        ScalarInfo.OF_PORT,
                        -1,
                        Messages.of("read.response.peak-less-baseline")),
                new ScalarInfo(
                        "latency_s",
                        Messages.of("read.response.delay"),
                        "s",
                        2,
                        Messages.of("read.response.from-the-moment-to-the-first")),
                new ScalarInfo(
                        "half_recovery_s",
                        Messages.of("read.response.half-recovery"),
                        "s",
                        2,
                        Messages.of("read.response.from-the-peak-to-the-first-later")),
                new ScalarInfo(
                        "baseline",
                        Messages.of("read.response.baseline"),
                        ScalarInfo.OF_PORT,
                        -1,
                        Messages.of("read.response.mean-before-the-moment")),
                new ScalarInfo(
                        "sd",
                        Messages.of("read.response.standard-deviation-before"),
                        ScalarInfo.OF_PORT,
                        -1,
                        Messages.of("read.response.of-the-samples-before-it")),
                new ScalarInfo(
                        "peak",
                        Messages.of("read.response.peak"),
                        ScalarInfo.OF_PORT,
                        -1,
                        Messages.of("read.response.where-it-was-furthest-from-the")),
                new ScalarInfo(
                        "peak_t_s",
                        Messages.of("read.response.peak-at"),
                        "s",
                        2,
                        Messages.of("read.response.when-that-was")));
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
            throw new ReaderException(Messages.of("read.response.at-and-mark-both-say-when-give-one"));
        }
        return new ChangeReader(settings);
    }
}
