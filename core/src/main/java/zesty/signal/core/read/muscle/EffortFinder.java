package zesty.signal.core.read.muscle;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.DoubleStream;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.read.muscle.Effort.Burst;
import zesty.signal.core.read.muscle.Effort.Rest;
import zesty.signal.core.sample.Order;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.spectrum.Lines;
import zesty.signal.core.spectrum.Welch;
import zesty.signal.core.spectrum.Window;

/**
 * Works the effort out of a muscle's signal: its envelope, what it is at rest, and the bursts, found by two thresholds on
 * the envelope, the upper one to begin and the lower one to last (after P. Bonato, T. D'Alessio and M. Knaflitz 1998, "A
 * statistical method for the measurement of muscle activation intervals from surface myoelectric signal during gait": a
 * double threshold), both counted in spreads of the envelope at rest. The ends may be looked for on the energy operator
 * x²[n] − x[n−1]·x[n+1] instead, which counts quick changes for more (X. Li, P. Zhou and A. Aruin 2007, "Teager–Kaiser
 * energy operation of surface EMG improves muscle activity onset detection").
 *
 * <p>Longer than others: rest, bursts and ends are found in turns, each from what the other two were a moment ago.
 */
final class EffortFinder {
    /** The envelope of a raw signal: RMS over this, in s; the shorter one finds the ends. */
    private static final double ENVELOPE_SECONDS = 0.1;

    private static final double EDGE_SECONDS = 0.04;
    /** Below this lie movement, the heart and drift; muscle has most of its power above it. */
    private static final double LOWEST_HZ = 30;
    /** In spreads of the envelope at rest. */
    static final double BEGINS = 6;

    static final double LASTS = 2.5;
    /** Of an envelope, whose level at rest holds the board's own offset, a pull has this share of the range at least. */
    private static final double LEAST_OF_RANGE = 0.03;
    /** Rest of an envelope moves this share of its range, and so many times its noise. */
    private static final double RESTS_OF_RANGE = 0.04;

    private static final double RESTS_NOISES = 4;
    /** Of a raw signal, in rest levels: a spread that is measured too small begins nothing. */
    private static final double LEAST_RATIO = 1.45;

    private static final double REST_BLOCK_SECONDS = 0.25;
    private static final double REST_SHARE = 0.25;
    /** A burst of so many blocks may hold a rest that has risen; so many quiet ones follow each other then. */
    private static final int RISEN_BLOCKS = 12;

    private static final int RISEN_RUN = 3;
    /** A muscle at rest is at most so many times as loud as before; of an envelope, by this share of its range. */
    private static final double MOST_RISEN = 4;

    private static final double MOST_RISEN_OF_RANGE = 0.15;

    private static final double SPREAD_SECONDS = 0.005;
    private static final double HUM_CLEAR = 12;

    private final boolean raw;
    private final MuscleSettings settings;
    private final double rateHz;
    private boolean risen;

    EffortFinder(MuscleSettings settings, double rateHz) {
        raw = settings.raw();
        this.settings = settings;
        this.rateHz = rateHz;
    }

    /**
     * @param x the signal; NaN outside the runs
     * @param seconds when each sample was
     * @param runs begin and end of each run without a gap
     */
    Effort effort(double[] x, double[] seconds, List<int[]> runs) {
        double[] envelope = new double[x.length];
        double[] edge = new double[x.length];
        double[] activity = new double[x.length];
        List<String> hum = new ArrayList<>();
        double humPower = 0;
        double power = 0;
        for (int[] run : runs) {
            double[] part = Arrays.copyOfRange(x, run[0], run[1]);
            double[] before = raw ? highPassed(part) : part;
            double[] clean = raw ? withoutHum(before.clone(), hum) : part;
            for (int i = 0; raw && i < part.length; i++) {
                humPower += (before[i] - clean[i]) * (before[i] - clean[i]);
                power += before[i] * before[i];
            }
            double[] slow = raw ? rms(clean, ENVELOPE_SECONDS) : sizes(clean);
            double[] fast = raw ? rms(settings.energy() ? energy(clean) : clean, EDGE_SECONDS) : slow;
            System.arraycopy(slow, 0, envelope, run[0], slow.length);
            System.arraycopy(fast, 0, edge, run[0], fast.length);
            System.arraycopy(clean, 0, activity, run[0], clean.length);
        }
        Rest rest = rest(seconds, runs, envelope);
        Rest quick = raw ? rest(seconds, runs, edge) : rest;
        if (rest != null && settings.restLevel() == settings.restLevel()) {
            double ratio = settings.restLevel() / rest.level();
            rest = rest.at(settings.restLevel());
            quick = raw ? quick.at(quick.level() * ratio) : rest;
        }
        List<Burst> bursts = rest == null ? List.of() : bursts(runs, envelope, edge, activity, rest, quick);
        return new Effort(envelope, activity, rest, bursts, hum, power > 0 ? humPower / power : 0, risen);
    }

    /** The root of the energy operator, so that it is as large as the signal it is worked out from. */
    private static double[] energy(double[] x) {
        double[] energy = new double[x.length];
        for (int i = 1; i + 1 < x.length; i++) {
            energy[i] = Math.sqrt(Math.abs(x[i] * x[i] - x[i - 1] * x[i + 1]));
        }
        return energy;
    }

    private double[] highPassed(double[] x) {
        if (x.length < 64) {
            return x;
        }
        double mean = 0;
        for (double value : x) {
            mean += value / x.length;
        }
        double[] clean = new double[x.length];
        for (int i = 0; i < x.length; i++) {
            clean[i] = x[i] - mean;
        }
        Recipe.parse("highpass:" + LOWEST_HZ + "@2").bothWays(clean, rateHz);
        return clean;
    }

    /** Takes mains and its next harmonics out, in place. @return the same array */
    private double[] withoutHum(double[] clean, List<String> hum) {
        if (clean.length < 64) {
            return clean;
        }
        int segment = (int) Math.min(clean.length, Math.round(rateHz));
        double[] density = Welch.of(clean, List.of(new int[] {0, clean.length}), rateHz, Window.HANN, segment, 0.5)
                .density();
        for (double mains : new double[] {50, 60}) {
            double hz = humHz(density, rateHz / segment, mains);
            if (hz > 0) {
                if (!hum.contains(Digits.of(mains))) {
                    hum.add(Digits.of(mains));
                }
                double[] harmonics = DoubleStream.of(hz, 2 * hz, 3 * hz)
                        .filter(one -> one < 0.45 * rateHz)
                        .toArray();
                Hum.out(clean, rateHz, harmonics);
            }
        }
        return clean;
    }

    /** @return where mains of about that frequency stand out; 0 where they do not */
    private static double humHz(double[] density, double bin, double mains) {
        return Lines.of(density, bin, mains - 1.5 - bin, mains + 1.5 + bin, 1).stream()
                .filter(line -> line.clear() > HUM_CLEAR)
                .mapToDouble(Lines.Line::hz)
                .findFirst()
                .orElse(0);
    }

    private static double[] sizes(double[] x) {
        double[] sizes = new double[x.length];
        for (int i = 0; i < x.length; i++) {
            sizes[i] = Math.abs(x[i]);
        }
        return sizes;
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
    private Rest rest(double[] seconds, List<int[]> runs, double[] envelope) {
        int n = seconds.length;
        if (n < 8 || runs.isEmpty()) {
            return null;
        }
        boolean[] quiet = new boolean[n];
        double[] restSpan = settings.restSpan();
        if (restSpan != null) {
            for (int i = 0; i < n; i++) {
                double at = seconds[i];
                quiet[i] = at >= restSpan[0] && at <= restSpan[1];
            }
        } else {
            int block = (int) Math.max(4, Math.round(REST_BLOCK_SECONDS * rateHz));
            List<double[]> blocks = new ArrayList<>();
            for (int[] run : runs) {
                for (int at = run[0]; at + block <= run[1]; at += block) {
                    double mean = 0;
                    for (int i = at; i < at + block; i++) {
                        mean += envelope[i] / block;
                    }
                    double squares = 0;
                    for (int i = at; i < at + block; i++) {
                        squares += (envelope[i] - mean) * (envelope[i] - mean) / (block - 1);
                    }
                    blocks.add(new double[] {mean, at, Math.sqrt(squares)});
                }
            }
            if (blocks.isEmpty()) {
                return null;
            }
            double[] means = blocks.stream().mapToDouble(b -> b[0]).toArray();
            double low = Order.quantile(means, REST_SHARE / 2);
            // Rest is what is about as quiet as the quietest; where all is alike, all of it.
            double most = raw ? 1.35 * low : restsBelow(blocks, low, highest(envelope, runs) - low);
            for (double[] one : blocks) {
                if (one[0] <= most) {
                    Arrays.fill(quiet, (int) one[1], (int) one[1] + block, true);
                }
            }
        }
        double sum = 0;
        int count = 0;
        for (int i = 0; i < n; i++) {
            sum += quiet[i] ? envelope[i] : 0;
            count += quiet[i] ? 1 : 0;
        }
        if (count < 4) {
            return null;
        }
        // An envelope hardly changes from sample to sample: each so-many-th tells the spread as well, at less cost.
        int stride = (int) Math.max(1, Math.floor(SPREAD_SECONDS * rateHz));
        double[] some = new double[count / stride + 1];
        int kept = 0;
        int seen = 0;
        for (int i = 0; i < n; i++) {
            if (quiet[i] && seen++ % stride == 0) {
                some[kept++] = envelope[i];
            }
        }
        double[] rising = Arrays.copyOf(some, kept);
        Arrays.sort(rising);
        double spread =
                Math.max((at(rising, 0.84) - at(rising, 0.16)) / 2, (at(rising, 0.975) - at(rising, 0.5)) / 1.96);
        return new Rest(sum / count, spread, quiet);
    }

    /** An envelope stands on an offset of its own: what is quiet is told by its noise and its range, not by its level. */
    private static double restsBelow(List<double[]> blocks, double low, double range) {
        double[] noises = blocks.stream()
                .filter(one -> one[0] <= low)
                .mapToDouble(one -> one[2])
                .toArray();
        double noise = Order.median(noises);
        return low + Math.max(RESTS_NOISES * noise, Math.min(0.35 * low, RESTS_OF_RANGE * range));
    }

    private static double highest(double[] envelope, List<int[]> runs) {
        double most = Double.NEGATIVE_INFINITY;
        for (int[] run : runs) {
            for (int i = run[0]; i < run[1]; i++) {
                most = Math.max(most, envelope[i]);
            }
        }
        return most;
    }

    private static double at(double[] rising, double share) {
        return rising[(int) Math.min(rising.length - 1, Math.floor(share * rising.length))];
    }

    private List<Burst> bursts(
            List<int[]> runs, double[] envelope, double[] edge, double[] activity, Rest rest, Rest quick) {
        double range = highest(envelope, runs) - rest.level();
        double begins = raw
                ? Math.max(rest.level() + BEGINS * rest.spread(), LEAST_RATIO * rest.level())
                : rest.level() + Math.max(BEGINS * rest.spread(), LEAST_OF_RANGE * range);
        double lasts = raw
                ? Math.max(quick.level() + LASTS * quick.spread(), 1.15 * quick.level())
                : rest.level() + Math.max(LASTS * rest.spread(), LEAST_OF_RANGE / 2 * range);
        double shortest = settings.shortestSeconds() + (raw ? EDGE_SECONDS : 0);
        List<int[]> spans = new ArrayList<>();
        for (int[] span : spans(runs, envelope, edge, begins, lasts)) {
            List<int[]> within = aboveRisenRest(span, envelope, edge, rest, range);
            risen |= !within.isEmpty();
            spans.addAll(within.isEmpty() ? List.of(span) : within);
        }
        List<Burst> found = new ArrayList<>();
        for (int[] span : spans) {
            if ((span[1] - span[0]) / rateHz < shortest
                    || raw && lasting(activity, span) < settings.shortestSeconds()) {
                continue;
            }
            int from = raw ? sharpened(edge, span[0], 1, lasts, quick.level(), envelope.length) : span[0];
            int to = raw ? sharpened(edge, span[1] - 1, -1, lasts, quick.level(), envelope.length) + 1 : span[1];
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

    private List<int[]> spans(List<int[]> runs, double[] envelope, double[] edge, double begins, double lasts) {
        int merge = (int) Math.round(settings.gapSeconds() * rateHz);
        List<int[]> spans = new ArrayList<>();
        for (int[] run : runs) {
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
        return spans;
    }

    /**
     * A muscle that does not come back to its rest holds one burst on through all that follow. Where a long one has quiet
     * parts of its own, no louder than some times the rest, what stands clearly above these are the bursts.
     *
     * @return none where it is one burst
     */
    private List<int[]> aboveRisenRest(int[] span, double[] envelope, double[] edge, Rest rest, double range) {
        int block = (int) Math.max(4, Math.round(REST_BLOCK_SECONDS * rateHz));
        if (span[1] - span[0] < RISEN_BLOCKS * block || settings.restSpan() != null) {
            return List.of();
        }
        List<double[]> blocks = new ArrayList<>();
        for (int at = span[0]; at + block <= span[1]; at += block) {
            blocks.add(new double[] {mean(envelope, at, at + block), mean(edge, at, at + block), at});
        }
        double low = Order.quantile(blocks.stream().mapToDouble(b -> b[0]).toArray(), REST_SHARE / 2);
        double high = Order.quantile(blocks.stream().mapToDouble(b -> b[0]).toArray(), 0.9);
        double rise = low - rest.level();
        boolean like = raw ? low < MOST_RISEN * rest.level() : rise < MOST_RISEN_OF_RANGE * range;
        if (!like || high - low < 2 * rise) {
            return List.of();
        }
        double most = raw ? 1.35 * low : low + Math.max(0.35 * rise, RESTS_OF_RANGE * (high - low));
        double[] quiet =
                blocks.stream().filter(b -> b[0] <= most).mapToDouble(b -> b[0]).toArray();
        double level = Arrays.stream(quiet).average().orElse(low);
        double edges = blocks.stream()
                .filter(b -> b[0] <= most)
                .mapToDouble(b -> b[1])
                .average()
                .orElse(low);
        if (quiet.length < RISEN_BLOCKS / 3 || !together(blocks, most)) {
            return List.of();
        }
        // Noise that is louder is as much wider.
        double spread = raw
                ? rest.spread() * level / rest.level()
                : Math.max(rest.spread(), (Order.quantile(quiet, 0.84) - Order.quantile(quiet, 0.16)) / 2);
        double begins = raw
                ? Math.max(level + BEGINS * spread, LEAST_RATIO * level)
                : level + Math.max(BEGINS * spread, LEAST_OF_RANGE * range);
        double lasts = raw
                ? Math.max(edges * (1 + LASTS * rest.spread() / rest.level()), 1.15 * edges)
                : level + Math.max(LASTS * spread, LEAST_OF_RANGE / 2 * range);
        return spans(List.of(span), envelope, edge, begins, lasts);
    }

    /** Whether some of the quiet blocks follow each other: a muscle rests for a while, it does not only dip. */
    private static boolean together(List<double[]> blocks, double most) {
        int run = 0;
        for (double[] one : blocks) {
            run = one[0] <= most ? run + 1 : 0;
            if (run >= RISEN_RUN) {
                return true;
            }
        }
        return false;
    }

    private static double mean(double[] x, int from, int to) {
        double sum = 0;
        for (int i = from; i < to; i++) {
            sum += x[i];
        }
        return sum / (to - from);
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
}
