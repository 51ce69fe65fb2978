package zesty.signal.core.read.muscle;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Recorded;
import zesty.signal.core.sample.Order;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.spectrum.Lines;
import zesty.signal.core.spectrum.Welch;
import zesty.signal.core.spectrum.Window;

/**
 * Finds bursts by two thresholds on the envelope, the upper one to begin and the lower one to last (after P. Bonato, T.
 * D'Alessio and M. Knaflitz 1998, "A statistical method for the measurement of muscle activation intervals from surface
 * myoelectric signal during gait": a double threshold), both counted in spreads of the envelope at rest.
 */
final class MuscleReader extends Recorded {
    /** The envelope of a raw signal: RMS over this, in s; the shorter one finds the ends. */
    private static final double ENVELOPE_SECONDS = 0.1;

    private static final double EDGE_SECONDS = 0.04;
    /** Below this lie movement, the heart and drift; muscle has most of its power above it. */
    private static final double LOWEST_HZ = 30;
    /** A burst is no shorter than this, in s. */
    private static final double SHORTEST_SECONDS = 0.04;

    private static final double MERGE_SECONDS = 0.12;
    /** In spreads of the envelope at rest. */
    private static final double BEGINS = 6;

    private static final double LASTS = 2.5;
    /** And in rest levels: a spread that is measured too small begins nothing. */
    private static final double LEAST_RATIO = 1.45;

    private static final double REST_BLOCK_SECONDS = 0.25;
    private static final double REST_SHARE = 0.25;
    private static final double HUM_CLEAR = 12;

    private final boolean raw;
    private final double[] restSpan;
    private final double hardest;
    private final double rateHz;

    MuscleReader(boolean raw, double[] restSpan, double hardest, double rateHz) {
        super(1);
        this.raw = raw;
        this.restSpan = restSpan;
        this.hardest = hardest;
        this.rateHz = rateHz;
    }

    private record Burst(int from, int to, double peak, double mean) {}

    private record Rest(double level, double spread, boolean[] quiet) {}

    @Override
    protected Reading read(Stretch stretch) {
        int n = stretch.length();
        double[] envelope = new double[n];
        double[] edge = new double[n];
        double[] activity = new double[n];
        List<String> hum = new ArrayList<>();
        for (int[] run : stretch.runs()) {
            double[] part = Arrays.copyOfRange(stretch.ports()[0], run[0], run[1]);
            double[] clean = raw ? cleaned(part, hum) : part;
            double[] slow = raw
                    ? rms(clean, ENVELOPE_SECONDS)
                    : Arrays.stream(clean).map(Math::abs).toArray();
            double[] fast = raw ? rms(clean, EDGE_SECONDS) : slow;
            System.arraycopy(slow, 0, envelope, run[0], slow.length);
            System.arraycopy(fast, 0, edge, run[0], fast.length);
            System.arraycopy(clean, 0, activity, run[0], clean.length);
        }
        Rest rest = rest(stretch, envelope);
        Rest quick = raw ? rest(stretch, edge) : rest;
        List<Burst> bursts = rest == null ? List.of() : bursts(stretch, envelope, edge, activity, rest, quick);
        return answer(stretch, envelope, rest, bursts, hum);
    }

    private double[] cleaned(double[] x, List<String> hum) {
        if (x.length < 64) {
            return x;
        }
        double mean = Arrays.stream(x).average().orElse(0);
        double[] clean = Arrays.stream(x).map(v -> v - mean).toArray();
        Recipe.parse("highpass:" + LOWEST_HZ + "@2").bothWays(clean, rateHz);
        for (double mains : new double[] {50, 60}) {
            double hz = humHz(clean, mains);
            if (hz > 0) {
                if (!hum.contains(Digits.of(mains))) {
                    hum.add(Digits.of(mains));
                }
                for (int k = 1; k <= 3 && k * mains < 0.45 * rateHz; k++) {
                    Hum.out(clean, k * hz, rateHz);
                }
            }
        }
        return clean;
    }

    /** @return where mains of about that frequency stand out; 0 where they do not */
    private double humHz(double[] x, double mains) {
        int segment = (int) Math.min(x.length, Math.round(rateHz));
        double[] density = Welch.of(x, List.of(new int[] {0, x.length}), rateHz, Window.HANN, segment, 0.5)
                .density();
        double bin = rateHz / segment;
        return Lines.of(density, bin, mains - 1.5 - bin, mains + 1.5 + bin, 1).stream()
                .filter(line -> line.clear() > HUM_CLEAR)
                .mapToDouble(Lines.Line::hz)
                .findFirst()
                .orElse(0);
    }

    /** The root of the mean square around each sample. */
    private double[] rms(double[] x, double seconds) {
        int half = (int) Math.max(1, Math.round(seconds * rateHz / 2));
        double[] sums = new double[x.length + 1];
        for (int i = 0; i < x.length; i++) {
            sums[i + 1] = sums[i] + x[i] * x[i];
        }
        double[] rms = new double[x.length];
        for (int i = 0; i < x.length; i++) {
            int from = Math.max(0, i - half);
            int to = Math.min(x.length, i + half + 1);
            rms[i] = Math.sqrt(Math.max(0, sums[to] - sums[from]) / (to - from));
        }
        return rms;
    }

    /** @return null where there is too little */
    private Rest rest(Stretch stretch, double[] envelope) {
        int n = stretch.length();
        if (n < 8 || stretch.runs().isEmpty()) {
            return null;
        }
        boolean[] quiet = new boolean[n];
        if (restSpan != null) {
            for (int i = 0; i < n; i++) {
                double at = stretch.seconds()[i];
                quiet[i] = at >= restSpan[0] && at <= restSpan[1];
            }
        } else {
            int block = (int) Math.max(4, Math.round(REST_BLOCK_SECONDS * rateHz));
            List<double[]> blocks = new ArrayList<>();
            for (int[] run : stretch.runs()) {
                for (int at = run[0]; at + block <= run[1]; at += block) {
                    double mean =
                            Arrays.stream(envelope, at, at + block).average().orElse(0);
                    blocks.add(new double[] {mean, at});
                }
            }
            if (blocks.isEmpty()) {
                return null;
            }
            double[] means = blocks.stream().mapToDouble(b -> b[0]).toArray();
            double low = Order.quantile(means, REST_SHARE / 2);
            // Rest is what is about as quiet as the quietest; where all is alike, all of it.
            for (double[] one : blocks) {
                if (one[0] <= 1.35 * low) {
                    Arrays.fill(quiet, (int) one[1], (int) one[1] + block, true);
                }
            }
        }
        double[] values = new double[n];
        int count = 0;
        for (int i = 0; i < n; i++) {
            if (quiet[i]) {
                values[count++] = envelope[i];
            }
        }
        if (count < 4) {
            return null;
        }
        double[] there = Arrays.copyOf(values, count);
        double level = Arrays.stream(there).average().orElse(0);
        double spread = Math.max(
                (Order.quantile(there, 0.84) - Order.quantile(there, 0.16)) / 2,
                (Order.quantile(there, 0.975) - Order.quantile(there, 0.5)) / 1.96);
        return new Rest(level, spread, quiet);
    }

    private List<Burst> bursts(
            Stretch stretch, double[] envelope, double[] edge, double[] activity, Rest rest, Rest quick) {
        double begins = Math.max(rest.level() + BEGINS * rest.spread(), LEAST_RATIO * rest.level());
        double lasts = Math.max(quick.level() + LASTS * quick.spread(), 1.15 * quick.level());
        int merge = (int) Math.round(MERGE_SECONDS * rateHz);
        double shortest = SHORTEST_SECONDS + (raw ? EDGE_SECONDS : 0);
        List<int[]> spans = new ArrayList<>();
        for (int[] run : stretch.runs()) {
            int i = run[0];
            while (i < run[1]) {
                if (!(envelope[i] > begins)) {
                    i++;
                    continue;
                }
                int last = spans.isEmpty() ? run[0] : Math.max(run[0], spans.get(spans.size() - 1)[1]);
                int from = i;
                while (from > last && (edge[from - 1] > lasts || edge[from] > begins)) {
                    from--;
                }
                // The short look may not be up yet where the long one is.
                while (from < run[1] - 1 && edge[from] <= lasts) {
                    from++;
                }
                int to = Math.max(i, from);
                int below = 0;
                int end = to;
                while (to < run[1] && below <= merge) {
                    if (edge[to] > lasts) {
                        below = 0;
                        end = to + 1;
                    } else {
                        below++;
                    }
                    to++;
                }
                if (!spans.isEmpty()
                        && from - spans.get(spans.size() - 1)[1] <= merge
                        && spans.get(spans.size() - 1)[1] > run[0]) {
                    spans.get(spans.size() - 1)[1] = Math.max(end, spans.get(spans.size() - 1)[1]);
                } else {
                    spans.add(new int[] {from, end});
                }
                i = Math.max(to, i + 1);
            }
        }
        List<Burst> found = new ArrayList<>();
        for (int[] span : spans) {
            if ((span[1] - span[0]) / rateHz < shortest || raw && lasting(activity, span) < SHORTEST_SECONDS) {
                continue;
            }
            int from = raw ? sharpened(edge, span[0], 1, lasts, quick.level(), stretch.length()) : span[0];
            int to = raw ? sharpened(edge, span[1] - 1, -1, lasts, quick.level(), stretch.length()) + 1 : span[1];
            if (to - from < 1) {
                continue;
            }
            double peak = 0;
            double mean = 0;
            for (int i = from; i < to; i++) {
                peak = Math.max(peak, envelope[i]);
                mean += envelope[i] / (to - from);
            }
            found.add(new Burst(from, to, peak, mean));
        }
        return found;
    }

    /**
     * How long a burst lasts by where its power is: of noise, its length; of a spike, a sample. (Σx²)² ÷ Σx⁴ counts the
     * samples that matter, of Gaussian ones a third.
     */
    private double lasting(double[] activity, int[] span) {
        double squares = 0;
        double fourths = 0;
        for (int i = span[0]; i < span[1]; i++) {
            double square = activity[i] * activity[i];
            squares += square;
            fourths += square * square;
        }
        return fourths > 0 ? 3 * squares * squares / fourths / rateHz : 0;
    }

    /**
     * The short look passes the threshold as soon as its front touches a strong burst: from how strong that is just after,
     * it follows how much of the look was in it by then.
     *
     * @param inwards 1 at the begin, −1 at the end
     */
    private int sharpened(double[] edge, int at, int inwards, double threshold, double level, int length) {
        double half = EDGE_SECONDS / 2 * rateHz;
        int within = (int) Math.round(2.5 * half);
        double strong = 0;
        for (int k = 0; k <= within; k++) {
            int i = at + inwards * k;
            strong = i >= 0 && i < length ? Math.max(strong, edge[i]) : strong;
        }
        double share = (threshold * threshold - level * level) / (strong * strong - level * level);
        if (!(share > 0 && share < 1)) {
            return at;
        }
        int moved = (int) Math.round(at + inwards * half * (1 - 2 * share));
        return Math.max(0, Math.min(length - 1, moved));
    }

    private Reading answer(Stretch stretch, double[] envelope, Rest rest, List<Burst> bursts, List<String> hum) {
        double base = rest == null ? Double.NaN : rest.level();
        double most = Double.isNaN(hardest)
                ? bursts.stream().mapToDouble(Burst::peak).max().orElse(Double.NaN)
                : hardest;
        List<Event> events = new ArrayList<>();
        int active = 0;
        boolean[] in = new boolean[stretch.length()];
        for (Burst burst : bursts) {
            Arrays.fill(in, burst.from(), burst.to(), true);
            active += burst.to() - burst.from();
            double from = stretch.seconds()[burst.from()];
            double to = stretch.seconds()[burst.to() - 1] + 1 / rateHz;
            double percent = percent(burst.peak(), base, most);
            events.add(
                    new Event("pull", from, to, burst.peak(), true, "", from, to, burst.peak(), burst.mean(), percent));
        }
        double now = stretch.length() == 0 ? Double.NaN : envelope[stretch.length() - 1];
        List<Item> items = new ArrayList<>();
        items.add(new Item.Events("bursts", List.of("onset_s", "offset_s", "peak", "mean", "percent"), events));
        items.add(new Item.Scalar("percent", percent(now, base, most)));
        items.add(new Item.Scalar("baseline", base));
        items.add(new Item.Scalar("snr_db", ratio(stretch, in, rest)));
        items.add(new Item.Scalar("duty", stretch.length() == 0 ? Double.NaN : (double) active / stretch.length()));
        return new Reading(quality(stretch, rest, most, hum), items, working(base, most, rest));
    }

    private static double percent(double value, double base, double most) {
        return most > base ? 100 * (value - base) / (most - base) : Double.NaN;
    }

    /** RMS in bursts over RMS at rest, of the signal as it came, less its mean at rest (an envelope: as it is). */
    private double ratio(Stretch stretch, boolean[] in, Rest rest) {
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

    private Quality quality(Stretch stretch, Rest rest, double most, List<String> hum) {
        if (rest == null) {
            return new Quality(
                    0,
                    List.of(
                            restSpan != null && stretch.length() > 8
                                    ? "no sample lies in the rest that was given"
                                    : "too few samples: " + stretch.length()));
        }
        List<String> reasons = new ArrayList<>();
        double share = 1;
        if (!(rest.level() > 0)) {
            return new Quality(0.1, List.of("nothing comes from the muscle: every sample is the same"));
        }
        if (most <= rest.level()) {
            share = 0.1;
            reasons.add("the hardest pull is not above rest: capture it anew");
        }
        if (!hum.isEmpty()) {
            share = Math.min(share, 0.7);
            reasons.add("hum of " + String.join(" and ", hum)
                    + " Hz was taken out: use battery power, and press the electrodes down");
        }
        if (stretch.span() < 2) {
            share = Math.min(share, 0.4);
            reasons.add("too short to tell rest from effort");
        }
        return new Quality(share, reasons);
    }

    private static List<String> working(double base, double most, Rest rest) {
        if (rest == null) {
            return List.of();
        }
        List<String> words = new ArrayList<>();
        words.add("Rest: envelope " + Digits.about(base, 3) + ", spread " + Digits.about(rest.spread(), 2)
                + ". A burst begins " + Digits.of(BEGINS) + " spreads above it and ends " + Digits.of(LASTS)
                + " above.");
        if (most == most) {
            words.add("Percent = 100 · (envelope − " + Digits.about(base, 3) + ") ÷ (" + Digits.about(most, 3) + " − "
                    + Digits.about(base, 3) + ").");
        }
        words.add("Not a medical device; it diagnoses nothing.");
        return words;
    }
}
