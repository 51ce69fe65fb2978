package zesty.signal.core.read.tone;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Recorded;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.spectrum.EvenRecord;
import zesty.signal.core.spectrum.Lines;
import zesty.signal.core.spectrum.Welch;
import zesty.signal.core.spectrum.Window;
import zesty.signal.core.text.Messages;

/** Finds the lines of a sound, the fundamental that they are harmonics of, and how much of the sound that explains. */
final class ToneReader extends Recorded {
    /** Short looks tell which lines there are, also where they waver; the whole record then tells where exactly. */
    private static final double LOOK_SECONDS = 0.25;

    private static final int SHORTEST = 128;
    private static final int MOST_LINES = 24;
    /** Around a harmonic its energy lies within this, as a share, waver included. */
    private static final double AROUND = 0.03;

    private static final double CLEAR = 5;
    private static final int HARMONICS = 16;
    /** A line so much lower than the highest is its ripple, not a harmonic, as a ratio of amplitudes. */
    private static final double LEAST_AMPLITUDE = 0.01;

    /** A line of this share of the highest harmonic, and no harmonic itself, is another tone. */
    private static final double UNRELATED = 0.6;
    /** What is left of the confidence then. */
    private static final double TWO_TONES = 0.4;

    /** Harmonics of one tone share at least this part of the time in which they sound, though high ones die away sooner. */
    private static final double AT_ONCE = 0.3;

    private static final double PITCH_SECONDS = 60;
    private static final double SURE = 0.5;
    private static final int FEWEST_LOOKS = 4;
    /** A half step. */
    private static final double ELSEWHERE = 0.06;

    private final double fromHz;
    private final double toHz;
    private final double rateHz;

    ToneReader(double fromHz, double toHz, double rateHz) {
        super(1);
        this.fromHz = fromHz;
        this.toHz = toHz;
        this.rateHz = rateHz;
    }

    /** @param several whether it is known to be more than one tone */
    private record Found(double hz, double confidence, boolean several) {
        Found(double hz, double confidence) {
            this(hz, confidence, false);
        }

        Found asSeveral() {
            return new Found(hz, Math.min(confidence, TWO_TONES), true);
        }
    }

    @Override
    protected Reading read(Segment stretch) {
        double[] there = stretch.present(0);
        double mean = Arrays.stream(there).average().orElse(Double.NaN);
        double square =
                Arrays.stream(there).map(v -> (v - mean) * (v - mean)).average().orElse(Double.NaN);
        double level = square > 0 ? 10 * Math.log10(square) : Double.NaN;
        EvenRecord even = EvenRecord.of(stretch.ports(), stretch.seconds(), stretch.runs(), stretch::measured, rateHz);
        int[] longest = even.runs().stream()
                .max((a, b) -> Integer.compare(a[1] - a[0], b[1] - b[0]))
                .orElse(new int[2]);
        double[] x = Arrays.copyOfRange(even.axes()[0], longest[0], longest[1]);
        Item.Trace pitch = pitch(even);
        Found found = x.length < SHORTEST || !(square > 0)
                ? new Found(Double.NaN, 0)
                : together(x, steady(find(x), pitch.values()));
        List<Item> items = new ArrayList<>();
        items.add(new Item.Scalar("hz", found.hz()));
        items.add(new Item.Scalar("level_db", level));
        items.add(new Item.Scalar("confidence", found.confidence()));
        items.add(new Item.Word("note", Notes.note(found.hz())));
        Loudness loudness = Loudness.of(stretch.ports()[0], stretch.runs(), rateHz);
        items.add(new Item.Scalar("level_dba", loudness.weighted()));
        items.add(new Item.Scalar("loudest_db", loudness.loudest()));
        items.add(new Item.Scalar("l10_db", loudness.exceeded()[0]));
        items.add(new Item.Scalar("l50_db", loudness.exceeded()[1]));
        items.add(new Item.Scalar("l90_db", loudness.exceeded()[2]));
        double[] at = new double[loudness.starts().length];
        for (int i = 0; i < at.length; i++) {
            at[i] = stretch.seconds()[loudness.starts()[i]] + Loudness.PIECE_SECONDS / 2;
        }
        items.add(new Item.Trace("level", "dB", "db", at, loudness.levels()));
        items.add(pitch);
        return new Reading(quality(x.length, square, found), items, working(found, level));
    }

    /** One tone is none where the looks at it, each sure of its own, find it at another place: a glide, a tune. */
    private static Found steady(Found found, double[] pitch) {
        double[] sure = Arrays.stream(pitch).filter(hz -> hz == hz).toArray();
        if (sure.length < FEWEST_LOOKS || Double.isNaN(found.hz())) {
            return found;
        }
        // A short look may well take a harmonic of the same tone for it, or the other way round.
        long there = Arrays.stream(sure)
                .map(hz -> Math.max(hz / found.hz(), found.hz() / hz))
                .filter(ratio -> Math.abs(ratio / Math.rint(ratio) - 1) < ELSEWHERE)
                .count();
        return new Found(found.hz(), found.confidence() * there / sure.length, found.several());
    }

    /** One tone is none where its harmonics do not sound at the same time: two tones in turn, as if of something deeper. */
    private Found together(double[] x, Found found) {
        int look = (int) Math.max(SHORTEST, Math.round(LOOK_SECONDS * rateHz));
        boolean apart =
                found.confidence() > TWO_TONES && Sounding.together(x, found.hz(), rateHz, look, HARMONICS) < AT_ONCE;
        return apart ? found.asSeveral() : found;
    }

    /** The tone of each quarter of a second, of the newest minute; a gap where there is none to rely on. */
    private Item.Trace pitch(EvenRecord record) {
        int look = (int) Math.max(SHORTEST, Math.round(LOOK_SECONDS * rateHz));
        List<double[]> found = new ArrayList<>();
        for (int r = 0; r < record.runs().size(); r++) {
            int[] run = record.runs().get(r);
            int from = Math.max(run[0], record.axes()[0].length - (int) (PITCH_SECONDS * rateHz));
            for (int at = from; at + look <= run[1]; at += look) {
                double[] x = Arrays.copyOfRange(record.axes()[0], at, at + look);
                Found one = find(x);
                found.add(new double[] {
                    record.begins()[r] + (at - run[0] + look / 2.0) / rateHz,
                    one.confidence() > SURE ? one.hz() : Double.NaN
                });
            }
        }
        return new Item.Trace(
                "pitch",
                "Hz",
                "hz",
                found.stream().mapToDouble(one -> one[0]).toArray(),
                found.stream().mapToDouble(one -> one[1]).toArray());
    }

    private Found find(double[] x) {
        int look = Integer.highestOneBit((int) Math.max(SHORTEST, 2 * LOOK_SECONDS * rateHz - 1));
        int segment = Math.min(look, x.length);
        List<int[]> run = List.of(new int[] {0, x.length});
        double[] coarse = Welch.of(x, run, rateHz, Window.HANN, segment, 0.5).density();
        double binHz = rateHz / segment;
        List<Lines.Line> lines = Lines.of(coarse, binHz, fromHz * 0.97, rateHz / 2, MOST_LINES);
        if (lines.isEmpty()) {
            return new Found(Double.NaN, 0);
        }
        double strongest = lines.get(0).amplitude();
        lines = Partials.together(lines.stream()
                .filter(line -> line.amplitude() > LEAST_AMPLITUDE * strongest)
                .toList());
        double about = Partials.fundamental(lines, fromHz, toHz, 0.25 * binHz);
        if (Double.isNaN(about)) {
            // Lines that are no harmonics of anything: the strongest is the best guess, and no more than a guess.
            double guess = lines.stream()
                    .filter(line -> line.hz() >= fromHz && line.hz() <= toHz)
                    .max(java.util.Comparator.comparingDouble(Lines.Line::amplitude))
                    .map(Lines.Line::hz)
                    .orElse(Double.NaN);
            return Double.isNaN(guess) ? new Found(guess, 0) : doubted(exactly(x, guess, 1), lines);
        }
        return doubted(exactly(x, about, HARMONICS), lines);
    }

    /** A line that is no harmonic of the tone and about as high as its highest one makes two tones of it. */
    private static Found doubted(Found found, List<Lines.Line> lines) {
        double own = 0;
        double other = 0;
        for (Lines.Line line : lines) {
            double order = line.hz() / found.hz();
            boolean harmonic = order > 0.5 && Math.abs(order - Math.rint(order)) < AROUND * Math.max(1, order);
            own = harmonic ? Math.max(own, line.amplitude()) : own;
            other = harmonic ? other : Math.max(other, line.amplitude());
        }
        return other > UNRELATED * own ? found.asSeveral() : found;
    }

    /** The centre of the energy around each harmonic, over the whole record. */
    private Found exactly(double[] x, double about, int harmonics) {
        double[] density = Welch.of(x, List.of(new int[] {0, x.length}), rateHz, Window.HANN, x.length, 0)
                .density();
        double binHz = rateHz / x.length;
        double total = 0;
        for (int k = (int) Math.ceil(0.8 * fromHz / binHz); k < density.length; k++) {
            total += density[k];
        }
        double explained = 0;
        double weights = 0;
        double sum = 0;
        OneTone tone = new OneTone();
        for (int h = 1; h <= harmonics && h * about < rateHz / 2; h++) {
            double half = Math.max(AROUND * h * about / Math.sqrt(h), 2.5 * binHz);
            // Harmonics do not reach into each other.
            half = Math.min(half, 0.45 * about);
            int from = (int) Math.max(1, Math.floor((h * about - half) / binHz));
            int to = (int) Math.min(density.length - 1, Math.ceil((h * about + half) / binHz));
            double[] part = Arrays.copyOfRange(density, from, to + 1);
            double floor = zesty.signal.core.sample.Order.quantile(outside(density, from, to), 0.5);
            double energy = 0;
            double moment = 0;
            for (int i = 0; i < part.length; i++) {
                part[i] = part[i] > CLEAR * floor ? part[i] - floor : 0;
                energy += part[i];
                moment += part[i] * (from + i);
            }
            tone.add(h, part, from);
            if (energy > 0) {
                explained += energy;
                // A place that is told to a bin tells the fundamental h times as well.
                double weight = energy * h * h;
                sum += weight * moment / energy * binHz / h;
                weights += weight;
            }
        }
        if (!(weights > 0)) {
            return new Found(about, 0);
        }
        double hz = sum / weights;
        Found found = new Found(hz, Math.max(0, Math.min(1, explained / total)));
        return tone.is(hz / binHz) ? found : found.asSeveral();
    }

    /** @return what lies to either side of a band, as wide as it is */
    private static double[] outside(double[] density, int from, int to) {
        int width = Math.max(8, to - from);
        int low = Math.max(1, from - width);
        int high = Math.min(density.length, to + 1 + width);
        double[] sides = new double[Math.max(0, from - low) + Math.max(0, high - to - 1)];
        System.arraycopy(density, low, sides, 0, Math.max(0, from - low));
        System.arraycopy(density, to + 1, sides, Math.max(0, from - low), Math.max(0, high - to - 1));
        return sides;
    }

    private static Quality quality(int samples, double square, Found found) {
        if (samples < SHORTEST) {
            return new Quality(
                    0, List.of(Messages.of("read.tone.too-few-samples-without-a-gap-are", samples, SHORTEST)));
        }
        if (!(square > 0)) {
            return new Quality(0.1, List.of(Messages.of("read.tone.silence-every-sample-is-the-same")));
        }
        if (Double.isNaN(found.hz())) {
            return new Quality(0.1, List.of(Messages.of("read.tone.no-tone-nothing-stands-out-of-the")));
        }
        if (found.several()) {
            return new Quality(found.confidence(), List.of(Messages.of("read.tone.more-than-one-tone")));
        }
        return found.confidence() < 0.5
                ? new Quality(
                        found.confidence(),
                        List.of(Messages.of(
                                "read.tone.one-steady-tone-explains-only-of",
                                Digits.fixed(100 * found.confidence(), 0))))
                : new Quality(found.confidence(), List.of());
    }

    private static List<String> working(Found found, double level) {
        List<String> words = new ArrayList<>();
        if (found.hz() == found.hz()) {
            words.add(Messages.of("read.tone.fundamental-hz-the-lines-of-the", Digits.fixed(found.hz(), 3)));
        }
        if (level == level) {
            words.add(Messages.of("read.tone.level-20-log-of-the-rms-against-1", Digits.fixed(level, 2)));
        }
        return words;
    }
}
