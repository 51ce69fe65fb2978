package zesty.signal.core.read.muscle;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Recorded;
import zesty.signal.core.read.muscle.Effort.Burst;
import zesty.signal.core.read.muscle.Effort.Rest;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Says of a stretch when its muscle worked and how hard; of two muscles also how they share the work. */
final class MuscleReader extends Recorded {
    /** A heartbeat in the leads, or a knock of one, lasts less long than a pull, in s … */
    private static final double SLIGHT_SECONDS = 0.1;
    /** … and is less high, as a share of the highest. */
    private static final double SLIGHT_SHARE = 0.1;

    private static final double SLIGHT_QUALITY = 0.5;

    /** A run of so many samples at the signal's end of range is clipped: noise does not stay there. */
    private static final int CLIPPED_RUN = 3;

    private static final double RISEN_QUALITY = 0.6;
    private static final double CLIPPED_SHARE = 0.01;

    private final boolean raw;
    private final MuscleSettings settings;
    private final double rateHz;
    private final EffortFinder finder;
    private final EffortFinder otherFinder;

    MuscleReader(MuscleSettings settings, double rateHz) {
        super(1);
        raw = settings.raw();
        this.settings = settings;
        this.rateHz = rateHz;
        finder = new EffortFinder(settings, rateHz);
        // What is given of rest and hardest pull is the first muscle's.
        otherFinder = new EffortFinder(settings.ofAnother(), rateHz);
    }

    @Override
    protected Reading read(Segment came) {
        // Hum is taken out by its phase, which uneven samples do not keep.
        Segment stretch = raw ? came.even(rateHz) : came;
        Effort effort = finder.effort(stretch.ports()[0], stretch.seconds(), stretch.runs());
        Effort other = stretch.ports().length > 1
                ? otherFinder.effort(stretch.ports()[1], stretch.seconds(), stretch.runs())
                : null;
        return answer(came, stretch, effort, other);
    }

    private Reading answer(Segment came, Segment stretch, Effort effort, Effort other) {
        Rest rest = effort.rest();
        double base = rest == null ? Double.NaN : rest.level();
        double most = settings.hardest() == settings.hardest() ? settings.hardest() : effort.highest();
        int n = stretch.length();
        double now = n == 0 ? Double.NaN : effort.envelope()[n - 1];
        boolean[] in = effort.active();
        Fatigue tired = raw ? Fatigue.of(effort, stretch.seconds(), rateHz) : Fatigue.NONE;
        List<Item> items = new ArrayList<>();
        items.add(new Item.Events(
                "bursts",
                List.of("onset_s", "offset_s", "peak", "mean", "percent"),
                events(stretch, effort, base, most)));
        items.add(new Item.Scalar("percent", percent(now, base, most)));
        items.add(new Item.Scalar("baseline", base));
        items.add(new Item.Scalar("snr_db", ratio(stretch, in, rest)));
        items.add(new Item.Scalar("duty", n == 0 ? Double.NaN : (double) count(in) / n));
        items.add(new Item.Scalar("spread_percent", spread(effort)));
        double cut = clipped(came.ports()[0], came == stretch ? in : at(came, stretch, in));
        items.add(new Item.Scalar("clipped_percent", 100 * cut));
        items.add(new Item.Scalar("hum_percent", raw ? 100 * effort.humShare() : Double.NaN));
        items.add(new Item.Scalar("fatigue_hz_per_s", tired.slopeHz(), tired.uncertaintyHz()));
        items.add(new Item.Trace("median_frequency", "Hz", "hz", tired.seconds(), tired.medianHz()));
        together(items, stretch, in, effort, other);
        return new Reading(
                quality(stretch, effort, most, cut),
                items,
                working(base, most, rest, tired),
                refusal(stretch, rest, most));
    }

    private List<Event> events(Segment stretch, Effort effort, double base, double most) {
        List<Event> events = new ArrayList<>();
        for (Burst burst : effort.bursts()) {
            double from = stretch.seconds()[burst.from()];
            double to = stretch.seconds()[burst.to() - 1] + 1 / rateHz;
            double percent = percent(burst.peak(), base, most);
            double area = (burst.mean() - base) * (burst.to() - burst.from()) / rateHz;
            events.add(new Event(
                    "pull", from, to, burst.peak(), true, "", from, to, burst.peak(), burst.mean(), percent, area));
        }
        return events;
    }

    /** Of two muscles, the other null where there is one: how long they work together, of the time that either does, and the first one's share of it all. */
    private static void together(List<Item> items, Segment stretch, boolean[] in, Effort effort, Effort other) {
        boolean[] also = other == null ? new boolean[in.length] : other.active();
        int both = 0;
        int either = 0;
        for (int i = 0; i < in.length; i++) {
            both += in[i] && also[i] ? 1 : 0;
            either += in[i] || also[i] ? 1 : 0;
        }
        // Each against its own hardest pull: the counts of two pairs of electrodes say nothing of each other.
        double first = effort.bursts().isEmpty()
                ? 0
                : effort.area() / (effort.highest() - effort.rest().level());
        double second = other == null || other.bursts().isEmpty()
                ? 0
                : other.area() / (other.highest() - other.rest().level());
        items.add(new Item.Scalar("overlap", other == null || either == 0 ? Double.NaN : (double) both / either));
        items.add(new Item.Scalar(
                "balance_percent", other == null || either == 0 ? Double.NaN : 100 * first / (first + second)));
        List<Event> events = new ArrayList<>();
        for (Burst burst : other == null ? List.<Burst>of() : other.bursts()) {
            double from = stretch.seconds()[burst.from()];
            double to = stretch.seconds()[burst.to() - 1];
            events.add(new Event("other", from, to, burst.peak(), true, "", from, to));
        }
        items.add(new Item.Events("other_bursts", List.of("onset_s", "offset_s"), events));
    }

    private static int count(boolean[] flags) {
        int n = 0;
        for (boolean flag : flags) {
            n += flag ? 1 : 0;
        }
        return n;
    }

    /** @return by how much the pulls' heights differ, as a standard deviation over their mean; NaN for less than two */
    private static double spread(Effort effort) {
        double[] peaks = effort.bursts().stream().mapToDouble(Burst::peak).toArray();
        if (peaks.length < 2) {
            return Double.NaN;
        }
        double mean = Arrays.stream(peaks).average().orElse(0);
        double squares = Arrays.stream(peaks).map(p -> (p - mean) * (p - mean)).sum();
        return 100 * Math.sqrt(squares / (peaks.length - 1)) / mean;
    }

    /** What was cut off is seen on samples as they came: a spline through them goes beyond. @return of each whether it lies in a pull */
    private static boolean[] at(Segment came, Segment stretch, boolean[] in) {
        boolean[] at = new boolean[came.length()];
        int k = 0;
        for (int i = 0; i < at.length; i++) {
            while (k + 1 < in.length && stretch.seconds()[k + 1] <= came.seconds()[i]) {
                k++;
            }
            at[i] = in[k];
        }
        return at;
    }

    /** @return of the samples in pulls, the share that stays at the lowest or at the highest value there is */
    private static double clipped(double[] x, boolean[] in) {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (double value : x) {
            low = value < low ? value : low;
            high = value > high ? value : high;
        }
        int stuck = 0;
        int pulls = 0;
        int run = 0;
        for (int i = 0; i < x.length; i++) {
            pulls += in[i] ? 1 : 0;
            boolean at = in[i] && (x[i] == low || x[i] == high);
            run = at && i > 0 && x[i] == x[i - 1] ? run + 1 : at ? 1 : 0;
            stuck += run == CLIPPED_RUN ? CLIPPED_RUN : run > CLIPPED_RUN ? 1 : 0;
        }
        return pulls == 0 ? Double.NaN : (double) stuck / pulls;
    }

    private static double percent(double value, double base, double most) {
        return most > base ? 100 * (value - base) / (most - base) : Double.NaN;
    }

    /** RMS in bursts over RMS at rest, of the signal as it came, less its mean at rest (an envelope: as it is). */
    private double ratio(Segment stretch, boolean[] in, Rest rest) {
        if (rest == null) {
            return Double.NaN;
        }
        double[] x = stretch.ports()[0];
        double mean = 0;
        int quiet = 0;
        for (int i = 0; i < x.length; i++) {
            if (rest.quiet()[i] && !in[i] && x[i] == x[i]) {
                mean += x[i];
                quiet++;
            }
        }
        mean = raw && quiet > 0 ? mean / quiet : 0;
        double active = 0;
        double still = 0;
        int actives = 0;
        for (int i = 0; i < x.length; i++) {
            double square = (x[i] - mean) * (x[i] - mean);
            if (square != square) {
                continue;
            }
            if (in[i]) {
                active += square;
                actives++;
            } else if (rest.quiet()[i]) {
                still += square;
            }
        }
        return actives > 0 && quiet > 0 && still > 0 ? 10 * Math.log10(active / actives / (still / quiet)) : Double.NaN;
    }

    private Quality quality(Segment stretch, Effort effort, double most, double clipped) {
        Rest rest = effort.rest();
        List<String> hum = effort.humHz();
        if (rest == null) {
            return new Quality(
                    0,
                    List.of(
                            settings.restSpan() != null && stretch.length() > 8
                                    ? Messages.of("read.muscle.no-sample-lies-in-the-rest-that")
                                    : Messages.of("read.muscle.too-few-samples", stretch.length())));
        }
        List<String> reasons = new ArrayList<>();
        double share = 1;
        if (!(rest.level() > 0)) {
            return new Quality(0.1, List.of(Messages.of("read.muscle.no-signal-from-the-muscle-every")));
        }
        if (most <= rest.level()) {
            share = 0.1;
            reasons.add(Messages.of("read.muscle.the-hardest-pull-is-not-above-rest"));
        }
        if (clipped > CLIPPED_SHARE) {
            share = Math.min(share, 0.6);
            reasons.add(Messages.of("read.muscle.pulls-are-cut-off-at-the-end-of", Digits.fixed(100 * clipped, 0)));
        }
        if (!hum.isEmpty()) {
            share = Math.min(share, 0.7);
            reasons.add(Messages.of(
                    "read.muscle.hum-of-hz-was-taken-out-use", String.join(Messages.of("read.muscle.and"), hum)));
        }
        long slight = effort.bursts().stream()
                .filter(one -> isSlight(one, effort.highest(), rest.level()))
                .count();
        if (slight > 0) {
            int all = effort.bursts().size();
            share = Math.min(share, Math.max(SLIGHT_QUALITY, 1 - (double) slight / all));
            reasons.add(Messages.of("read.muscle.short-and-slight", slight, all));
        }
        if (effort.risen()) {
            share = Math.min(share, RISEN_QUALITY);
            reasons.add(Messages.of("read.muscle.the-muscle-did-not-come-back-to"));
        }
        if (stretch.span() < 2) {
            share = Math.min(share, 0.4);
            reasons.add(Messages.of("read.muscle.too-short-to-tell-rest-from-effort"));
        }
        return new Quality(share, reasons);
    }

    private boolean isSlight(Burst one, double highest, double rest) {
        return (one.to() - one.from()) / rateHz < SLIGHT_SECONDS && one.peak() - rest < SLIGHT_SHARE * (highest - rest);
    }

    /** What makes the question and the record no match at all. */
    private String refusal(Segment stretch, Rest rest, double most) {
        if (rest == null) {
            return settings.restSpan() == null || stretch.length() <= 8
                    ? ""
                    : Messages.of(
                            "read.muscle.rest-holds-no-sample-the-record",
                            Digits.of(settings.restSpan()[0]),
                            Digits.of(settings.restSpan()[1]),
                            Digits.fixed(stretch.span(), 1));
        }
        if (!(rest.level() > 0)) {
            return Messages.of("read.muscle.there-is-no-muscle-in-it-every");
        }
        return most <= rest.level()
                ? Messages.of(
                        "read.muscle.hardest-is-not-above-rest-which-is",
                        Digits.of(most),
                        Digits.about(rest.level(), 4))
                : "";
    }

    private static List<String> working(double base, double most, Rest rest, Fatigue tired) {
        if (rest == null) {
            return List.of();
        }
        List<String> words = new ArrayList<>();
        words.add(Messages.of(
                "read.muscle.rest-envelope-sd-a-burst-begins-sd",
                Digits.about(base, 3),
                Digits.about(rest.spread(), 2),
                Digits.of(EffortFinder.BEGINS),
                Digits.of(EffortFinder.LASTS)));
        if (most == most) {
            words.add(Messages.of(
                    "read.muscle.percent-100-envelope",
                    Digits.about(base, 3),
                    Digits.about(most, 3),
                    Digits.about(base, 3)));
        }
        if (tired.slopeHz() == tired.slopeHz()) {
            words.add(Messages.of(
                    "read.muscle.in-the-longest-pull-the-median",
                    Digits.fixed(tired.startHz(), 0),
                    Digits.fixed(tired.slopeHz(), 2),
                    Digits.fixed(tired.uncertaintyHz(), 2)));
        }
        words.add(Messages.of("read.muscle.not-a-medical-device-it-diagnoses"));
        return words;
    }
}
