package zesty.signal.core.read.hits;

import java.util.List;
import java.util.Optional;
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

/** Knocks, taps and strikes: when each happened and how high it went. */
public final class Hits implements ReaderKind {
    /** A signal looks like one from so many segments of quality on. */
    private static final int LIKE_SEGMENTS = 5;

    public static final String NAME = "hits";
    private static final double LEAST_HZ = 50;

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return Messages.of("read.hits.knocks-taps-and-strikes-when-each");
    }

    @Override
    public String gives() {
        return Messages.of("read.hits.knocks-and-taps-counted");
    }

    @Override
    public Optional<String> looksLike(Reading reading) {
        int hits = reading.events("hits").size();
        return reading.quality().segments() >= LIKE_SEGMENTS && hits > 2
                ? Optional.of(Messages.of("read.hits.looks-like-it-knocks", hits))
                : Optional.empty();
    }

    @Override
    public Nature nature() {
        return Nature.TONES;
    }

    @Override
    public List<Suggestion> suggestions() {
        return List.of(new Suggestion("highpass:2@2", Messages.of("read.hits.gravity-and-the-drift-of-the")));
    }

    @Override
    public List<Port> ports() {
        return List.of(new Port("signal", "", Messages.of("read.hits.a-knock-sensor-or-any-signal-that")));
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                Messages.of("read.hits.knock-sensor"),
                1500,
                1,
                40,
                1,
                Messages.of("read.hits.what-was-struck-rings-on-weak-hits"),
                List.of(
                        Messages.of("read.hits.sensor-glued-to-what-is-struck"),
                        Messages.of("read.hits.a-resistor-across-it-about-1-m"),
                        Messages.of("read.hits.its-voltage-limited-to-what-the"))));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.number(
                        "threshold",
                        Setting.AUTO,
                        -Double.MAX_VALUE,
                        Double.MAX_VALUE,
                        "",
                        Messages.of("read.hits.threshold"),
                        Messages.of("read.hits.a-hit-begins-where-the-signal")),
                Setting.number(
                        "release",
                        Setting.AUTO,
                        -Double.MAX_VALUE,
                        Double.MAX_VALUE,
                        "",
                        Messages.of("read.hits.release"),
                        Messages.of("read.hits.a-hit-is-over-once-the-signal-has")),
                Setting.number(
                        "dead",
                        Setting.AUTO,
                        0,
                        3600,
                        "s",
                        Messages.of("read.hits.dead-time"),
                        Messages.of("read.hits.after-a-hit-no-other-one-for-so")),
                Setting.choice(
                        "direction",
                        List.of("rise", "fall"),
                        Messages.of("read.hits.direction"),
                        Messages.of("read.hits.whether-a-hit-makes-the-signal")),
                Setting.rising(
                        "zones",
                        Messages.of("read.hits.zones"),
                        Messages.of("read.hits.heights-over-rest-that-are-worth")));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo("count", Messages.of("read.hits.hits"), "", 0, Messages.of("read.hits.how-many")),
                new ScalarInfo(
                        "threshold",
                        Messages.of("read.hits.threshold"),
                        ScalarInfo.OF_PORT,
                        -1,
                        Messages.of("read.hits.what-the-signal-had-to-pass")),
                new ScalarInfo(
                        "release",
                        Messages.of("read.hits.release"),
                        ScalarInfo.OF_PORT,
                        -1,
                        Messages.of("read.hits.what-it-had-to-come-back-past")),
                new ScalarInfo(
                        "rate_per_min",
                        Messages.of("read.hits.rate"),
                        "hits/min",
                        1,
                        Messages.of("read.hits.from-the-first-hit-to-the-last")),
                new ScalarInfo(
                        "in_a_row",
                        Messages.of("read.hits.in-a-row"),
                        "",
                        0,
                        Messages.of("read.hits.the-longest-run-without-a-pause-of")),
                new ScalarInfo(
                        "points",
                        Messages.of("read.hits.points"),
                        "",
                        0,
                        Messages.of("read.hits.the-total-of-the-zones-none")),
                new ScalarInfo(
                        "dead_s",
                        Messages.of("read.hits.dead-time"),
                        "s",
                        3,
                        Messages.of("read.hits.how-long-after-a-hit-none-was")));
    }

    @Override
    public List<String> otherKeys() {
        return List.of("hits");
    }

    @Override
    public double windowSeconds() {
        return 20;
    }

    /** A hit may lie within; that is told by the share that was filled. */
    @Override
    public double longestHoleSeconds(Settings settings) {
        return 0.08;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        return rateHz >= LEAST_HZ
                ? Optional.empty()
                : Optional.of(Messages.of(
                        "read.hits.hits-need-samples-s-or-more-not", Digits.of(LEAST_HZ), Digits.of(rateHz)));
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        double threshold = settings.number("threshold");
        double release = settings.number("release");
        int sign = settings.text("direction").equals("fall") ? -1 : 1;
        if (sign * release >= sign * threshold) {
            throw new ReaderException(Messages.of(
                    "read.hits.release-must-lie-on-the-quiet-side", Digits.of(threshold), Digits.of(release)));
        }
        if (Double.isNaN(threshold) && !Double.isNaN(release)) {
            throw new ReaderException(Messages.of("read.hits.release-is-only-taken-together"));
        }
        return new HitsReader(threshold, release, settings.number("dead"), sign, settings.numbers("zones"), rateHz);
    }
}
