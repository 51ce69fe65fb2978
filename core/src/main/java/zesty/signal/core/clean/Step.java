package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;

/** One step of a recipe, as the maker writes it. */
public sealed interface Step {

    /** @return the step in the words of a recipe, {@code lowpass:8@2} */
    String text();

    /** @return the step in a few words, for its tile */
    String words();

    /** @return what it does to a signal, in a sentence that goes on from its name */
    String about();

    /**
     * @return the stage that runs it on a stream
     * @throws RecipeException when it cannot be run at this rate, saying why
     */
    Stage stage(double sampleRateHz, Start start);

    /** Runs the step over a whole record, in place, forward once from rest. */
    default void onceThrough(double[] data, double sampleRateHz) {
        Stage stage = stage(sampleRateHz, Start.FROM_REST);
        if (stage instanceof Centred centred) {
            centred.whole(data);
        } else {
            stage.apply(data, 0, data.length);
        }
    }

    /** Runs the step over a whole record, in place, forward and back where it has a delay to undo. */
    default void bothWays(double[] data, double sampleRateHz) {
        onceThrough(data, sampleRateHz);
    }

    /** @return whether it takes the signal's level off, so that what is left swings about zero */
    default boolean removesLevel() {
        return false;
    }

    /** @return by how many samples it makes the signal late on a stream, as far as that is one number */
    default double delaySamples(double sampleRateHz) {
        return stage(sampleRateHz, Start.SETTLED).delaySamples();
    }

    /**
     * @return how many samples either way have a say in what one becomes, but for less than a part in 10⁸: so many are
     *     enough to work out a part of a long record; {@link Long#MAX_VALUE} when all of it has
     */
    default long context(double sampleRateHz) {
        return stage(sampleRateHz, Start.SETTLED).delaySamples();
    }

    /** A step that is a cascade of sections. */
    sealed interface Filter extends Step {
        /** @throws RecipeException when a corner does not fit the rate */
        Sections sections(double sampleRateHz);

        /** @return a frequency that it lets pass, in Hz, to state its delay at */
        double typicalHz();

        @Override
        default double delaySamples(double sampleRateHz) {
            return sections(sampleRateHz).delaySamples(Math.min(0.45, typicalHz() / sampleRateHz));
        }

        @Override
        default Stage stage(double sampleRateHz, Start start) {
            return new SectionFilter(sections(sampleRateHz), start);
        }

        @Override
        default long context(double sampleRateHz) {
            return sections(sampleRateHz).settlingSamples();
        }

        @Override
        default void bothWays(double[] data, double sampleRateHz) {
            Sections sections = sections(sampleRateHz);
            SectionFilter filter = new SectionFilter(sections, Start.SETTLED);
            BothWays.run(data, filter, 3 * (sections.poles() + 1));
        }
    }

    record LowPass(double hz, int order) implements Filter {
        @Override
        public String text() {
            return "lowpass:" + Digits.exact(hz) + "@" + order;
        }

        @Override
        public String words() {
            return "below " + Digits.of(hz) + " Hz";
        }

        @Override
        public String about() {
            return "what is quicker than " + Digits.of(hz) + " Hz goes";
        }

        @Override
        public double typicalHz() {
            return hz / 4;
        }

        @Override
        public Sections sections(double rate) {
            Words.corner(text(), hz, rate);
            return FilterDesign.lowPass(rate, hz, order);
        }
    }

    record HighPass(double hz, int order) implements Filter {
        @Override
        public String text() {
            return "highpass:" + Digits.exact(hz) + "@" + order;
        }

        @Override
        public String words() {
            return "above " + Digits.of(hz) + " Hz";
        }

        @Override
        public String about() {
            return "the level and what is slower than " + Digits.of(hz) + " Hz go";
        }

        @Override
        public double typicalHz() {
            return 4 * hz;
        }

        @Override
        public boolean removesLevel() {
            return true;
        }

        @Override
        public Sections sections(double rate) {
            Words.corner(text(), hz, rate);
            return FilterDesign.highPass(rate, hz, order);
        }
    }

    record BandPass(double lowHz, double highHz, int order) implements Filter {
        @Override
        public String text() {
            return "bandpass:" + Digits.exact(lowHz) + ".." + Digits.exact(highHz) + "@" + order;
        }

        @Override
        public String words() {
            return "band " + Digits.of(lowHz) + "–" + Digits.of(highHz) + " Hz";
        }

        @Override
        public String about() {
            return "what is slower or quicker than the band goes, the level too";
        }

        @Override
        public double typicalHz() {
            return Math.sqrt(lowHz * highHz);
        }

        @Override
        public boolean removesLevel() {
            return true;
        }

        @Override
        public Sections sections(double rate) {
            Words.corner(text(), highHz, rate);
            return FilterDesign.bandPass(rate, lowHz, highHz, order);
        }
    }

    record BandStop(double lowHz, double highHz, int order) implements Filter {
        @Override
        public String text() {
            return "bandstop:" + Digits.exact(lowHz) + ".." + Digits.exact(highHz) + "@" + order;
        }

        @Override
        public String words() {
            return "without " + Digits.of(lowHz) + "–" + Digits.of(highHz) + " Hz";
        }

        @Override
        public String about() {
            return "what lies in the band goes";
        }

        @Override
        public double typicalHz() {
            return lowHz / 4;
        }

        @Override
        public Sections sections(double rate) {
            Words.corner(text(), highHz, rate);
            return FilterDesign.bandStop(rate, lowHz, highHz, order);
        }
    }

    record Notch(double hz, double q) implements Filter {
        @Override
        public String text() {
            return "notch:" + Digits.exact(hz) + "@" + Digits.exact(q);
        }

        @Override
        public String words() {
            return "notch " + Digits.of(hz) + " Hz";
        }

        @Override
        public String about() {
            return "one frequency goes, " + Digits.about(hz / q, 2) + " Hz wide";
        }

        @Override
        public double typicalHz() {
            return hz / 4;
        }

        @Override
        public Sections sections(double rate) {
            Words.corner(text(), hz, rate);
            return FilterDesign.notch(rate, hz, q);
        }
    }

    record Mean(int samples) implements Step {
        @Override
        public String text() {
            return "mean:" + samples;
        }

        @Override
        public String words() {
            return "mean of " + samples;
        }

        @Override
        public String about() {
            return "noise evens out, and what is quick is blurred";
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new MovingMean(samples, start);
        }

        @Override
        public void bothWays(double[] data, double rate) {
            BothWays.run(data, new MovingMean(samples, Start.SETTLED), 3 * samples);
        }

        @Override
        public long context(double rate) {
            return 2L * samples;
        }

        @Override
        public double delaySamples(double rate) {
            return (samples - 1) / 2.0;
        }
    }

    record Median(int samples) implements Step {
        @Override
        public String text() {
            return "median:" + samples;
        }

        @Override
        public String words() {
            return "median of " + samples;
        }

        @Override
        public String about() {
            return "single jumps go, steps stay steep";
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new MovingMedian(samples);
        }
    }

    record Smooth(int samples, int degree) implements Step {
        @Override
        public String text() {
            return "smooth:" + samples + "@" + degree;
        }

        @Override
        public String words() {
            return "smooth over " + samples;
        }

        @Override
        public String about() {
            return "noise evens out, the height of peaks stays";
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new PolynomialSmoother(samples, degree);
        }
    }

    record Despike(int half, double k) implements Step {
        @Override
        public String text() {
            return "despike:" + half + "@" + Digits.exact(k);
        }

        @Override
        public String words() {
            return "without spikes";
        }

        @Override
        public String about() {
            return "a sample that stands out from its neighbours becomes their median; all others stay";
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new Despiker(half, k);
        }
    }

    record Rectify() implements Step {
        @Override
        public String text() {
            return "rectify";
        }

        @Override
        public String words() {
            return "upright";
        }

        @Override
        public String about() {
            return "what swings below zero is turned up";
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new Pointwise(Math::abs);
        }
    }

    record Rms(double seconds) implements Step {
        @Override
        public String text() {
            return "rms:" + Digits.exact(seconds);
        }

        @Override
        public String words() {
            return "RMS of " + Digits.of(seconds) + " s";
        }

        @Override
        public String about() {
            return "how strong it is, whichever way it swings";
        }

        private int samples(double rate) {
            double samples = Math.rint(seconds * rate);
            if (!(samples >= 1 && samples <= 1e7)) {
                throw new RecipeException(text() + ": " + seconds + " s at " + Digits.exact(rate)
                        + " samples/s is no window; at least one sample is " + Digits.exact(1 / rate) + " s");
            }
            return (int) samples;
        }

        private List<Stage> parts(double rate, Start start) {
            return List.of(
                    new Pointwise(x -> x * x),
                    new MovingMean(samples(rate), start),
                    new Pointwise(x -> Math.sqrt(Math.max(0, x))));
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new Chain(parts(rate, start));
        }

        @Override
        public void bothWays(double[] data, double rate) {
            List<Stage> parts = parts(rate, Start.SETTLED);
            parts.get(0).apply(data, 0, data.length);
            BothWays.run(data, parts.get(1), 3 * samples(rate));
            parts.get(2).apply(data, 0, data.length);
        }

        @Override
        public long context(double rate) {
            return 2L * samples(rate);
        }

        @Override
        public double delaySamples(double rate) {
            return (samples(rate) - 1) / 2.0;
        }
    }

    record Envelope(double hz) implements Step {
        @Override
        public String text() {
            return "envelope:" + Digits.exact(hz);
        }

        @Override
        public String words() {
            return "envelope " + Digits.of(hz) + " Hz";
        }

        @Override
        public String about() {
            return "how strong it is, as a line";
        }

        private LowPass smoother(double rate) {
            Words.corner(text(), hz, rate);
            return new LowPass(hz, 2);
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new Chain(List.of(new Pointwise(Math::abs), smoother(rate).stage(rate, start)));
        }

        @Override
        public long context(double rate) {
            return smoother(rate).context(rate);
        }

        @Override
        public double delaySamples(double rate) {
            return smoother(rate).delaySamples(rate);
        }

        @Override
        public void bothWays(double[] data, double rate) {
            new Rectify().onceThrough(data, rate);
            smoother(rate).bothWays(data, rate);
        }
    }

    record Detrend() implements Step {
        @Override
        public String text() {
            return "detrend";
        }

        @Override
        public String words() {
            return "without its straight line";
        }

        @Override
        public String about() {
            return "the straight line through all of a stretch goes";
        }

        @Override
        public boolean removesLevel() {
            return true;
        }

        @Override
        public long context(double rate) {
            return Long.MAX_VALUE;
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new LineRemover();
        }

        @Override
        public void onceThrough(double[] data, double rate) {
            LineRemover.removeLine(data);
        }
    }

    record Offset(double x) implements Step {
        @Override
        public String text() {
            return "offset:" + Digits.exact(x);
        }

        @Override
        public String words() {
            return Digits.of(Math.abs(x)) + (x < 0 ? " less" : " more");
        }

        @Override
        public String about() {
            return "the same is added to every sample";
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new Pointwise(value -> value + x);
        }
    }

    record Scale(double x) implements Step {
        @Override
        public String text() {
            return "scale:" + Digits.exact(x);
        }

        @Override
        public String words() {
            return "times " + Digits.of(x);
        }

        @Override
        public String about() {
            return "every sample is so many times as large";
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new Pointwise(value -> value * x);
        }
    }

    record Exponential(double alpha) implements Step {
        @Override
        public String text() {
            return "exp:" + Digits.exact(alpha);
        }

        @Override
        public String words() {
            return "weight " + Digits.of(alpha) + " for the newest";
        }

        @Override
        public String about() {
            return "noise evens out, older samples fade";
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new ExponentialMean(alpha, start);
        }

        @Override
        public void bothWays(double[] data, double rate) {
            BothWays.run(data, new ExponentialMean(alpha, Start.SETTLED), 6);
        }

        @Override
        public long context(double rate) {
            return alpha < 1 ? (long) Math.ceil(Math.log(Sections.NOTHING) / Math.log1p(-alpha)) : 1;
        }

        @Override
        public double delaySamples(double rate) {
            return (1 - alpha) / alpha;
        }
    }

    /** A notch at a frequency and at each of its multiples below half the rate, all equally wide. */
    record Comb(double hz, double q) implements Filter {
        private static final int MOST = 10;

        @Override
        public String text() {
            return "comb:" + Digits.exact(hz) + "@" + Digits.exact(q);
        }

        @Override
        public String words() {
            return "comb of " + Digits.of(hz) + " Hz";
        }

        @Override
        public String about() {
            return "a frequency and its multiples go";
        }

        @Override
        public double typicalHz() {
            return hz / 4;
        }

        @Override
        public Sections sections(double rate) {
            Words.corner(text(), hz, rate);
            Sections all = FilterDesign.notch(rate, hz, q);
            for (int k = 2; k <= MOST && k * hz < 0.49 * rate; k++) {
                all = all.then(FilterDesign.notch(rate, k * hz, k * q));
            }
            return all;
        }
    }

    /** The change a second: on a stream since the sample before, over a record about each sample. */
    record Differentiate() implements Step {
        @Override
        public String text() {
            return "differentiate";
        }

        @Override
        public String words() {
            return "change a second";
        }

        @Override
        public String about() {
            return "how fast it changes";
        }

        @Override
        public boolean removesLevel() {
            return true;
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new SectionFilter(new Sections(new double[] {rate, -rate, 0, 0, 0}, 0), start);
        }

        @Override
        public void bothWays(double[] data, double rate) {
            double before = data.length == 0 ? 0 : data[0];
            for (int i = 0; i < data.length; i++) {
                double here = data[i];
                double after = i + 1 < data.length ? data[i + 1] : here;
                boolean inside = i > 0 && i + 1 < data.length;
                data[i] = (after - before) * rate / (inside ? 2 : 1);
                before = here;
            }
        }

        @Override
        public long context(double rate) {
            return 1;
        }

        @Override
        public double delaySamples(double rate) {
            return 0.5;
        }
    }

    /** The integral over time by trapezoids, of what is quicker than a corner: slower would run away. */
    record Integrate(double hz) implements Step {
        @Override
        public String text() {
            return "integrate:" + Digits.exact(hz);
        }

        @Override
        public String words() {
            return "integral above " + Digits.of(hz) + " Hz";
        }

        @Override
        public String about() {
            return "what it adds up to, as far as it is quicker than the corner";
        }

        @Override
        public boolean removesLevel() {
            return true;
        }

        @Override
        public Stage stage(double rate, Start start) {
            Words.corner(text(), hz, rate);
            double half = 1 / (2 * rate);
            double pole = Math.exp(-2 * Math.PI * hz / rate);
            Sections leaky = new Sections(new double[] {half, half, 0, -pole, 0}, 1);
            return new SectionFilter(leaky.then(FilterDesign.highPass(rate, hz, 1)), start);
        }

        @Override
        public void bothWays(double[] data, double rate) {
            HighPass high = new HighPass(hz, 1);
            high.bothWays(data, rate);
            double sum = 0;
            double before = data.length == 0 ? 0 : data[0];
            for (int i = 0; i < data.length; i++) {
                double here = data[i];
                sum += (before + here) / (2 * rate);
                data[i] = sum;
                before = here;
            }
            high.bothWays(data, rate);
        }

        @Override
        public long context(double rate) {
            return 2 * new HighPass(hz, 1).context(rate);
        }

        @Override
        public double delaySamples(double rate) {
            return 0;
        }
    }

    /** A window that is told in seconds: as many samples as the rate gives. */
    record Timed(boolean median, double seconds) implements Step {
        @Override
        public String text() {
            return (median ? "median:" : "mean:") + Digits.exact(seconds) + "s";
        }

        @Override
        public String words() {
            return (median ? "median of " : "mean of ") + Digits.of(seconds) + " s";
        }

        @Override
        public String about() {
            return median ? "single jumps go, steps stay steep" : "noise evens out, and what is quick is blurred";
        }

        private Step counted(double rate) {
            double samples = median ? 2 * Math.floor(seconds * rate / 2) + 1 : Math.rint(seconds * rate);
            int most = median ? StepParser.LONGEST_CENTRED : StepParser.LONGEST_WINDOW;
            int window = Words.window(text(), samples, rate, 1, most);
            return median ? new Median(window) : new Mean(window);
        }

        @Override
        public Stage stage(double rate, Start start) {
            return counted(rate).stage(rate, start);
        }

        @Override
        public void bothWays(double[] data, double rate) {
            counted(rate).bothWays(data, rate);
        }

        @Override
        public long context(double rate) {
            return counted(rate).context(rate);
        }

        @Override
        public double delaySamples(double rate) {
            return counted(rate).delaySamples(rate);
        }
    }

    /** What wanders below is taken off without bending what is quicker. */
    record Wander(double seconds) implements Step {
        @Override
        public String text() {
            return "baseline:" + Digits.exact(seconds);
        }

        @Override
        public String words() {
            return "wander taken off";
        }

        @Override
        public String about() {
            return "a level that wanders goes, the shape of a beat stays";
        }

        private int samples(double rate) {
            return Words.window(text(), 2 * Math.floor(seconds * rate / 2) + 1, rate, 3, StepParser.LONGEST_CENTRED);
        }

        @Override
        public boolean removesLevel() {
            return true;
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new Baseline(samples(rate));
        }

        @Override
        public void onceThrough(double[] data, double rate) {
            Baseline.remove(data, samples(rate));
        }
    }

    /** Missing values are filled, up to a limit. */
    record Fill(double seconds) implements Step {
        @Override
        public String text() {
            return "fill:" + Digits.exact(seconds);
        }

        @Override
        public String words() {
            return "filled up to " + Digits.of(seconds) + " s";
        }

        @Override
        public String about() {
            return "missing samples are drawn straight from side to side, up to the limit";
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new Filler(Words.window(text(), Math.floor(seconds * rate), rate, 1, StepParser.LONGEST_WINDOW));
        }

        @Override
        public void onceThrough(double[] data, double rate) {
            ((Mender) stage(rate, Start.FROM_REST)).whole(data);
        }
    }

    /** What was cut off at the end of the range is drawn on, up to a limit. */
    record Unclip(double seconds) implements Step {
        @Override
        public String text() {
            return "unclip:" + Digits.exact(seconds);
        }

        @Override
        public String words() {
            return "cut-off tops drawn on";
        }

        @Override
        public String about() {
            return "what was cut off at the end of the range is drawn on, up to the limit";
        }

        @Override
        public long context(double rate) {
            return Long.MAX_VALUE;
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new Unclipper(Words.window(text(), Math.floor(seconds * rate), rate, 3, StepParser.LONGEST_WINDOW));
        }

        @Override
        public void onceThrough(double[] data, double rate) {
            ((Mender) stage(rate, Start.FROM_REST)).whole(data);
        }
    }

    /** Mains and its harmonics, followed as they drift. */
    record Hum(double hz, double widthHz) implements Step {
        /** In widths: what it followed so long ago is forgotten to e^(−2π · 3). */
        private static final double FORGOTTEN = 6;

        @Override
        public String text() {
            return "hum:" + Digits.exact(hz) + "@" + Digits.exact(widthHz);
        }

        @Override
        public String words() {
            return "hum of " + Digits.of(hz) + " Hz, followed";
        }

        @Override
        public String about() {
            return "mains and its multiples go, followed as they drift";
        }

        @Override
        public Stage stage(double rate, Start start) {
            Words.corner(text(), hz, rate);
            if (!(widthHz < hz / 2)) {
                throw new RecipeException(text() + ": a width of " + Digits.exact(widthHz)
                        + " Hz reaches half way to zero; 0.5 to 2 Hz are usual");
            }
            return new HumFollower(rate, hz, widthHz);
        }

        @Override
        public long context(double rate) {
            return (long) Math.ceil(FORGOTTEN / widthHz * rate);
        }

        /** What comes first is not known yet: it runs back over the beginning before it runs forward. */
        @Override
        public void bothWays(double[] data, double rate) {
            Stage stage = stage(rate, Start.SETTLED);
            int lead = (int) Math.min(data.length, Math.ceil(3 / widthHz * rate));
            double[] mirrored = new double[lead];
            for (int i = 0; i < lead; i++) {
                mirrored[i] = data[lead - 1 - i];
            }
            stage.apply(mirrored, 0, lead);
            stage.apply(data, 0, data.length);
        }
    }

    /** Details that do not stand out of the noise at their own scale are taken off. */
    record Wavelet(int levels, double k) implements Step {
        static final int MOST_LEVELS = 8;

        @Override
        public String text() {
            return "wavelet:" + levels + "@" + Digits.exact(k);
        }

        @Override
        public String words() {
            return "details above " + Digits.of(k) + " × noise";
        }

        @Override
        public String about() {
            return "details that do not stand out of the noise go, what is steep stays steep";
        }

        @Override
        public long context(double rate) {
            // The noise is told from what came before.
            return WaveletThreshold.looksBack(levels);
        }

        @Override
        public Stage stage(double rate, Start start) {
            return new WaveletThreshold(levels, k);
        }
    }

    /** Another, steady rate: rows come and go, so that a record can be brought to it but no channel of a stream. */
    record Resample(double hz) implements Step {
        @Override
        public String text() {
            return "resample:" + Digits.exact(hz);
        }

        @Override
        public String words() {
            return Digits.of(hz) + " a second";
        }

        @Override
        public String about() {
            return "samples come at a steady rate";
        }

        @Override
        public Stage stage(double rate, Start start) {
            throw new RecipeException(
                    text() + ": a channel keeps the rows that came; a file is brought to another rate by"
                            + " ./zesty clean with this step in its recipe");
        }
    }
}
