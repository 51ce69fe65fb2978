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
        return "knocks, taps and strikes: when each happened and how high it went";
    }

    @Override
    public String gives() {
        return "knocks and taps, counted";
    }

    @Override
    public Optional<String> looksLike(Reading reading) {
        int hits = reading.events("hits").size();
        return reading.quality().segments() >= LIKE_SEGMENTS && hits > 2
                ? Optional.of("Looks like it: " + hits + " knocks.")
                : Optional.empty();
    }

    @Override
    public Nature nature() {
        return Nature.TONES;
    }

    @Override
    public List<Suggestion> suggestions() {
        return List.of(new Suggestion("highpass:2@2", "gravity and the drift of the sensor go"));
    }

    @Override
    public List<Port> ports() {
        return List.of(new Port("signal", "", "a knock sensor, or any signal that jumps"));
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                "knock sensor",
                1500,
                1,
                40,
                1,
                "What was struck rings on; weak hits drown in it.",
                List.of(
                        "sensor glued to what is struck",
                        "a resistor across it, about 1 MΩ",
                        "its voltage limited to what the pin takes")));
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
                        "threshold",
                        "a hit begins where the signal passes this; auto: what a quiet segment does not reach"),
                Setting.number(
                        "release",
                        Setting.AUTO,
                        -Double.MAX_VALUE,
                        Double.MAX_VALUE,
                        "",
                        "release",
                        "a hit is over once the signal has come back past this; auto: half way to rest"),
                Setting.number(
                        "dead",
                        Setting.AUTO,
                        0,
                        3600,
                        "s",
                        "dead time",
                        "after a hit no other one for so long; auto: only what rises out of the ringing is one"),
                Setting.choice(
                        "direction",
                        List.of("rise", "fall"),
                        "direction",
                        "whether a hit makes the signal rise or fall"),
                Setting.rising("zones", "zones", "heights over rest that are worth one, two, three \u2026 points"));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo("count", "hits", "", 0, "how many"),
                new ScalarInfo("threshold", "threshold", ScalarInfo.OF_PORT, -1, "what the signal had to pass"),
                new ScalarInfo("release", "release", ScalarInfo.OF_PORT, -1, "what it had to come back past"),
                new ScalarInfo("rate_per_min", "rate", "hits/min", 1, "from the first hit to the last"),
                new ScalarInfo("in_a_row", "in a row", "", 0, "the longest run without a pause of 2 s"),
                new ScalarInfo("points", "points", "", 0, "the total of the zones; none without zones"),
                new ScalarInfo("dead_s", "dead time", "s", 3, "how long after a hit none was looked for"));
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
                : Optional.of("hits need " + Digits.of(LEAST_HZ) + " samples/s or more, not " + Digits.of(rateHz));
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
            throw new ReaderException("release must lie on the quiet side of the threshold " + Digits.of(threshold)
                    + ", was " + Digits.of(release));
        }
        if (Double.isNaN(threshold) && !Double.isNaN(release)) {
            throw new ReaderException("release is only taken together with a threshold; set both");
        }
        return new HitsReader(threshold, release, settings.number("dead"), sign, settings.numbers("zones"), rateHz);
    }
}
