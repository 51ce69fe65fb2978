package zesty.signal.core.read.muscle;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
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
    /** And in rest levels: a spread that is measured too small begins nothing. */
    private static final double LEAST_RATIO = 1.45;

    private static final double REST_BLOCK_SECONDS = 0.25;
    private static final double REST_SHARE = 0.25;
    private static final double SPREAD_SECONDS = 0.005;
    private static final double HUM_CLEAR = 12;

    private final boolean raw;
    private final MuscleSettings settings;
    private final double rateHz;

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
        return new Effort(envelope, activity, rest, bursts, hum, power > 0 ? humPower / power : 0);
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
                for (int k = 1; k <= 3 && k * mains < 0.45 * rateHz; k++) {
                    Hum.out(clean, k * hz, rateHz);
                }
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

    private static double at(double[] rising, double share) {
        return rising[(int) Math.min(rising.length - 1, Math.floor(share * rising.length))];
    }

    private List<Burst> bursts(
            List<int[]> runs, double[] envelope, double[] edge, double[] activity, Rest rest, Rest quick) {
        double begins = Math.max(rest.level() + BEGINS * rest.spread(), LEAST_RATIO * rest.level());
        double lasts = Math.max(quick.level() + LASTS * quick.spread(), 1.15 * quick.level());
        int merge = (int) Math.round(settings.gapSeconds() * rateHz);
        double shortest = settings.shortestSeconds() + (raw ? EDGE_SECONDS : 0);
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
