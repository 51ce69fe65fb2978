package zesty.signal.core.read.muscle;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import zesty.signal.core.clean.Suggestion;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
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

/** Muscle activity, raw or as a ready-made envelope: bursts, effort against the hardest pull, share of the time. */
public final class Muscle implements ReaderKind {
    /** A signal looks like one from so many segments of quality on. */
    private static final int LIKE_SEGMENTS = 5;

    private static final double LIKE_SECONDS = 0.5;

    public static final String NAME = "muscle";
    /** The key of the pulls. */
    public static final String BURSTS = "bursts";
    /** Where among a pull's numbers its percent of the hardest stands. */
    public static final int PERCENT_FIELD = 4;
    /** The setting of the envelope at rest. */
    public static final String REST_LEVEL = "rest-level";
    /** The setting of the envelope at the hardest pull. */
    public static final String HARDEST = "hardest";
    /** The setting that says in the maker's words where the electrodes sit. */
    public static final String PLACE = "place";

    static final String RAW = "raw";
    private static final double LEAST_RAW_HZ = 400;
    private static final double LEAST_ENVELOPE_HZ = 10;

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return Messages.of("read.muscle.when-a-muscle-works-and-how-hard");
    }

    @Override
    public String gives() {
        return Messages.of("read.muscle.effort-contractions-fatigue");
    }

    @Override
    public Optional<String> looksLike(Reading reading) {
        // A knock is over at once; a muscle is held.
        long pulls = reading.events("bursts").stream()
                .filter(event -> event.endSeconds() - event.startSeconds() >= LIKE_SECONDS)
                .count();
        return reading.quality().segments() >= LIKE_SEGMENTS
                        && pulls > 1
                        && 2 * pulls > reading.events("bursts").size()
                ? Optional.of(Messages.of("read.muscle.looks-like-one-contractions", pulls))
                : Optional.empty();
    }

    @Override
    public Nature nature() {
        return Nature.NOISE_THAT_LEAPS;
    }

    @Override
    public List<Suggestion> suggestions() {
        return List.of(
                new Suggestion(
                        "highpass:20@2 | hum:50@1", Messages.of("read.muscle.movement-lies-below-20-hz-mains-is")),
                new Suggestion("highpass:20@2 | envelope:6", Messages.of("read.muscle.the-strength-alone-as-a-line")));
    }

    @Override
    public List<Port> ports() {
        return List.of(
                new Port("muscle", "", Messages.of("read.muscle.electrodes-on-a-muscle-raw-or-as")),
                new Port("other", "", Messages.of("read.muscle.a-second-muscle-to-see-how-they")));
    }

    @Override
    public int fewestPorts() {
        return 1;
    }

    @Override
    public List<Need> needs() {
        return List.of(
                new Need(
                        Messages.of("read.muscle.electrodes-raw-signal"),
                        450,
                        1,
                        60,
                        1,
                        Messages.of("read.muscle.mains-hum-movement-of-the-leads-a"),
                        List.of(
                                Messages.of("read.muscle.amplifier-output-to-an-analogue"),
                                Messages.of("read.muscle.reference-electrode-on-bone"),
                                Messages.of("read.muscle.no-motor-on-the-same-supply"),
                                Messages.of("read.muscle.body-on-battery-power-only"))),
                new Need(
                        Messages.of("read.muscle.module-that-makes-the-envelope"),
                        10,
                        2,
                        40,
                        1,
                        Messages.of("read.muscle.the-module-smooths-fast-pulls"),
                        List.of(
                                Messages.of("read.muscle.module-output-to-an-analogue-pin"),
                                Messages.of("read.muscle.reference-electrode-on-bone"),
                                Messages.of("read.muscle.body-on-battery-power-only"))));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.choice(
                        "kind",
                        List.of(RAW, "envelope"),
                        Messages.of("read.muscle.kind"),
                        Messages.of("read.muscle.the-raw-signal-or-an-envelope-made")),
                Setting.span(
                        "rest",
                        Messages.of("read.muscle.rest"),
                        Messages.of("read.muscle.when-the-muscle-rests-auto-the")),
                Setting.number(
                        REST_LEVEL,
                        Setting.AUTO,
                        1e-12,
                        1e12,
                        "",
                        Messages.of("read.muscle.level-at-rest"),
                        Messages.of("read.muscle.the-envelope-at-rest-as-captured")),
                Setting.number(
                        HARDEST,
                        Setting.AUTO,
                        1e-12,
                        1e12,
                        "",
                        Messages.of("read.muscle.hardest-pull"),
                        Messages.of("read.muscle.the-envelope-at-the-hardest-pull")),
                Setting.choice(
                        "onset",
                        List.of("rms", "energy"),
                        Messages.of("read.muscle.ends-by"),
                        Messages.of("read.muscle.what-finds-the-ends-of-a-pull-the")),
                Setting.number(
                        "shortest",
                        "0.04",
                        0.01,
                        5,
                        "s",
                        Messages.of("read.muscle.shortest-pull"),
                        Messages.of("read.muscle.less-than-this-is-no-pull")),
                Setting.number(
                        "gap",
                        "0.12",
                        0,
                        5,
                        "s",
                        Messages.of("read.muscle.gap"),
                        Messages.of("read.muscle.pulls-nearer-than-this-are-one")),
                Setting.words(
                        PLACE,
                        Messages.of("read.muscle.place"),
                        Messages.of("read.muscle.where-the-electrodes-sit-in-your")));
    }

    /** The effort of its last moment says little of a record. */
    @Override
    public String mainNumber() {
        return "duty";
    }

    @Override
    public Set<String> ofWhole() {
        return Set.of("percent", "baseline", "snr_db");
    }

    @Override
    public Map<String, String> learned(Map<String, String> settings, Reading whole) {
        Map<String, String> learned = new HashMap<>(settings);
        double hardest = 0;
        for (Item item : whole.items()) {
            if (item instanceof Item.Scalar scalar && scalar.key().equals("baseline") && scalar.value() > 0) {
                learned.putIfAbsent(REST_LEVEL, Digits.exact(scalar.value()));
                learned.remove("rest");
            } else if (item instanceof Item.Events bursts && bursts.key().equals("bursts")) {
                for (Event burst : bursts.events()) {
                    hardest = Math.max(hardest, burst.believed() ? burst.size() : 0);
                }
            }
        }
        if (hardest > 0) {
            learned.putIfAbsent(HARDEST, Digits.exact(hardest));
        }
        return learned;
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo(
                        "percent",
                        Messages.of("read.muscle.effort-now"),
                        "%",
                        0,
                        Messages.of("read.muscle.the-envelope-at-the-end-of-the")),
                new ScalarInfo(
                        "baseline",
                        Messages.of("read.muscle.rest"),
                        ScalarInfo.OF_PORT,
                        -1,
                        Messages.of("read.muscle.mean-of-the-envelope-at-rest")),
                new ScalarInfo(
                        "snr_db",
                        Messages.of("read.muscle.signal-over-noise"),
                        "dB",
                        1,
                        Messages.of("read.muscle.rms-in-bursts-over-rms-at-rest")),
                new ScalarInfo(
                        "duty",
                        Messages.of("read.muscle.share-of-the-time"),
                        "",
                        2,
                        Messages.of("read.muscle.in-bursts")),
                new ScalarInfo(
                        "spread_percent",
                        Messages.of("read.muscle.pulls-differ-by"),
                        "%",
                        0,
                        Messages.of("read.muscle.standard-deviation-over-mean-of")),
                new ScalarInfo(
                        "clipped_percent",
                        Messages.of("read.muscle.cut-off"),
                        "%",
                        1,
                        Messages.of("read.muscle.samples-of-the-pulls-at-the-end-of")),
                new ScalarInfo(
                        "hum_percent",
                        Messages.of("read.muscle.mains"),
                        "%",
                        0,
                        Messages.of("read.muscle.share-of-the-power-that-was-mains")),
                new ScalarInfo(
                        "fatigue_hz_per_s",
                        Messages.of("read.muscle.median-frequency"),
                        "Hz/s",
                        2,
                        Messages.of("read.muscle.its-slope-in-the-longest-pull-of-5")),
                new ScalarInfo(
                        "overlap",
                        Messages.of("read.muscle.together"),
                        "",
                        2,
                        Messages.of("read.muscle.of-two-muscles-both-at-work-of-the")),
                new ScalarInfo(
                        "balance_percent",
                        Messages.of("read.muscle.share-of-the-first"),
                        "%",
                        0,
                        Messages.of("read.muscle.of-two-muscles-the-first-one-s")));
    }

    @Override
    public List<String> otherKeys() {
        return List.of("bursts", "median_frequency", "other_bursts");
    }

    @Override
    public boolean onBody() {
        return true;
    }

    @Override
    public double windowSeconds() {
        return 30;
    }

    /** About the window of a raw signal's envelope; a ready-made one has been smoothed longer. */
    @Override
    public double longestHoleSeconds(Settings settings) {
        return settings.text("kind").equals(RAW) ? 0.08 : 0.2;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        boolean raw = settings.text("kind").equals(RAW);
        double least = raw ? LEAST_RAW_HZ : LEAST_ENVELOPE_HZ;
        return rateHz >= least
                ? Optional.empty()
                : Optional.of(Messages.of(
                        "read.muscle.needs-samples-s-or-more-not",
                        (raw ? Messages.of("read.muscle.a-raw-muscle-signal") : Messages.of("read.muscle.an-envelope")),
                        Digits.of(least),
                        Digits.of(rateHz),
                        (raw && rateHz >= LEAST_ENVELOPE_HZ
                                ? Messages.of("read.muscle.if-it-is-a-ready-made-envelope-set")
                                : "")));
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        return new MuscleReader(MuscleSettings.of(settings), rateHz);
    }

    /**
     * The envelope that the reader works with, as for a capture of rest or of the hardest pull.
     *
     * @param x a stretch without a gap, at least a tenth of a second
     * @param settings of the reader, of which the kind of signal counts
     * @return one value a sample, in the unit of {@code x}
     */
    public static double[] envelope(double[] x, double rateHz, Settings settings) {
        double[] seconds = new double[x.length];
        Arrays.setAll(seconds, i -> i / rateHz);
        return new EffortFinder(MuscleSettings.of(settings), rateHz)
                .effort(x, seconds, List.of(new int[] {0, x.length}))
                .envelope();
    }
}
