package zesty.signal.boards.sim;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.core.sample.TimeBase;

/** The pulse reader against what models that know nothing of it know to be true. Two minutes a record. */
class PulseTruthTest {
    private static final double SECONDS = 130;
    /** A beat found within this of a true one is that one, once the fixed lag between their moments is off. */
    private static final double SAME_SECONDS = 0.1;

    private static Reader reader(String kind, double rate) {
        Pulse pulse = new Pulse();
        return pulse.reader(Settings.of(pulse, Map.of(Pulse.SOURCE, kind)), rate);
    }

    private static Reading read(String kind, double rate, double[] x) {
        Reader reader = reader(kind, rate);
        reader.accept(new double[][] {x}, x.length, new TimeBase.Steady(0, 1 / rate));
        reader.finish();
        return reader.reading();
    }

    private static Set<PulseMode> modes(String words) {
        Set<PulseMode> modes = EnumSet.noneOf(PulseMode.class);
        for (String word : words.split("\\+")) {
            if (!word.equals("good")) {
                modes.add(PulseMode.valueOf(word.toUpperCase(java.util.Locale.ROOT)));
            }
        }
        return modes;
    }

    /** Share of the true beats that were found, share of those found that are true, and the lag between them. */
    private record Score(double sensitivity, double predictivity, double lag) {
        static Score of(double[] found, List<Double> truth, List<double[]> without) {
            double[] real = truth.stream()
                    .mapToDouble(t -> t)
                    .filter(t -> t > 1 && t < SECONDS - 1 && !inside(t, without, 0.3))
                    .toArray();
            double[] lags = Arrays.stream(real).map(t -> off(found, t)).sorted().toArray();
            double lag = found.length == 0 ? 0 : lags[lags.length / 2];
            double[] seen = Arrays.stream(found).map(t -> t - lag).toArray();
            double[] all = truth.stream().mapToDouble(t -> t).toArray();
            long matched = Arrays.stream(real)
                    .filter(t -> Math.abs(off(seen, t)) < SAME_SECONDS)
                    .count();
            double[] asked = Arrays.stream(seen)
                    .filter(t -> t > 1 && t < SECONDS - 1 && !inside(t, without, 0.3))
                    .toArray();
            long right = Arrays.stream(asked)
                    .filter(t -> Math.abs(off(all, t)) < SAME_SECONDS)
                    .count();
            return new Score(
                    (double) matched / real.length, asked.length == 0 ? 0 : (double) right / asked.length, lag);
        }

        private static double off(double[] sorted, double t) {
            double best = 9;
            for (double one : sorted) {
                best = Math.abs(one - t) < Math.abs(best) ? one - t : best;
            }
            return best;
        }
    }

    private static boolean inside(double t, List<double[]> stretches, double margin) {
        return stretches.stream().anyMatch(s -> t >= s[0] - margin && t <= s[1] + margin);
    }

    @ParameterizedTest(name = "{0} {1}/s")
    @CsvSource({
        "good,50,0.99",
        "good,200,0.99",
        "good,1000,0.99",
        "good,25,0.97",
        "upside,100,0.99",
        "breath,200,0.99",
        "effort,200,0.99",
        "humps,100,0.97",
        "humps+upside,200,0.97",
        "faint,200,0.97",
        "faint+grain,100,0.97",
        "grain,200,0.97",
        "grain,50,0.97",
        "hum,200,0.97",
        "hum,130,0.97",
        "hum+grain,500,0.97",
        "wander,200,0.97",
        "wander,50,0.97",
        "faint+grain+wander,250,0.97",
        "wander+hum+upside,200,0.97",
        "contact,200,0.97",
        "breath+humps+grain,100,0.97",
        "effort+wander+grain,200,0.97",
        "faint+wander,25,0.97"
    })
    void anOpticalPulseIsReadBeatByBeat(String words, double rate, double least) {
        for (long seed = 1; seed <= 2; seed++) {
            FingerSignal signal = new FingerSignal(seed, rate, modes(words));
            double[] x = new double[(int) (SECONDS * rate)];
            Arrays.setAll(x, i -> signal.next());
            Reading reading = read("optical", rate, x);
            Score score = Score.of(reading.times("beats"), signal.truth(), signal.doubtful());
            assertThat(score.sensitivity()).as("seed %d %s", seed, score).isGreaterThanOrEqualTo(least);
            assertThat(score.predictivity()).as("seed %d %s", seed, score).isGreaterThanOrEqualTo(least);
            // A fixed point between foot and top.
            assertThat(score.lag()).as("seed %d", seed).isBetween(-0.2, 0.03);
        }
    }

    @ParameterizedTest(name = "{0} {1}/s")
    @CsvSource({
        "good,250,0.99",
        "good,1000,0.99",
        "good,100,0.97",
        "upside,360,0.99",
        "effort,500,0.99",
        "early,500,0.97",
        "early+upside,250,0.97",
        "tall,250,0.97",
        "tall+grain,500,0.97",
        "hum,250,0.97",
        "hum,500,0.97",
        "hum+early,360,0.97",
        "wander,250,0.97",
        "muscle,500,0.97",
        "muscle+hum,1000,0.97",
        "movement,250,0.97",
        "faint+grain,500,0.97",
        "grain+wander+early,500,0.97"
    })
    void anElectricalHeartIsReadBeatByBeat(String words, double rate, double least) {
        for (long seed = 1; seed <= 2; seed++) {
            HeartSignal signal = new HeartSignal(seed, rate, modes(words));
            double[] x = new double[(int) (SECONDS * rate)];
            Arrays.setAll(x, i -> signal.next());
            Reading reading = read("electrical", rate, x);
            Score score = Score.of(reading.times("beats"), signal.truth(), signal.doubtful());
            assertThat(score.sensitivity()).as("seed %d %s", seed, score).isGreaterThanOrEqualTo(least);
            assertThat(score.predictivity()).as("seed %d %s", seed, score).isGreaterThanOrEqualTo(least);
            assertThat(Math.abs(score.lag())).as("R, seed %d", seed).isLessThan(0.015);
            if (words.equals("early")) {
                double[] told = reading.events("beats").stream()
                        .filter(e -> e.kind().equals("early"))
                        .mapToDouble(Event::startSeconds)
                        .toArray();
                long named = signal.early().stream()
                        .filter(t -> t > 2 && t < SECONDS - 2)
                        .filter(t -> Math.abs(Score.off(told, t)) < SAME_SECONDS)
                        .count();
                long all = signal.early().stream()
                        .filter(t -> t > 2 && t < SECONDS - 2)
                        .count();
                assertThat((double) named / all).isGreaterThan(0.9);
                assertThat(told.length).isLessThanOrEqualTo((int) (1.1 * all) + 1);
            }
        }
    }

    /** Noise of a density that falls as 1/f^power, by filters an octave apart. */
    private static double[] noise(String kind, int n, double rate, Random random) {
        double[] x = new double[n];
        double[] state = new double[14];
        double walk = 0;
        double bump = 0;
        for (int i = 0; i < n; i++) {
            double w = random.nextGaussian();
            switch (kind) {
                case "white" -> x[i] = 8 * w;
                case "brown" -> {
                    walk += w - 0.05 * walk / rate;
                    x[i] = 2 * walk;
                }
                case "pink" -> {
                    for (int k = 0; k < state.length; k++) {
                        double a = Math.exp(-2 * Math.PI * 0.02 * Math.pow(2, k) / rate);
                        state[k] = a * state[k] + Math.sqrt(1 - a * a) * random.nextGaussian();
                        x[i] += 5 * state[k];
                    }
                }
                case "hum" -> x[i] = 60 * Math.sin(2 * Math.PI * 50.02 * i / rate) + 2 * w;
                case "handling" -> {
                    if (random.nextDouble() < 1.2 / rate) {
                        bump += 80 * random.nextGaussian();
                    }
                    bump -= bump / (rate * 0.15);
                    walk += 0.5 * w - 0.3 * walk / rate;
                    x[i] = bump + walk + w;
                }
                default -> throw new IllegalArgumentException(kind);
            }
            x[i] = Math.rint(512 + x[i]);
        }
        return x;
    }

    @ParameterizedTest
    @CsvSource({
        "optical,white,100",
        "optical,pink,200",
        "optical,brown,50",
        "optical,brown,500",
        "optical,hum,200",
        "optical,handling,100",
        "electrical,white,250",
        "electrical,pink,500",
        "electrical,brown,360",
        "electrical,hum,250",
        "electrical,handling,500"
    })
    void nothingThereMeansNoBeatInTenMinutes(String kind, String noise, double rate) {
        double[] x = noise(noise, (int) (600 * rate), rate, new Random(4242));
        Reading reading = read(kind, rate, x);
        assertThat(reading.times("beats")).isEmpty();
        assertThat(reading.quality().segments()).isZero();
        assertThat(reading.quality().reasons()).anyMatch(reason -> reason.contains("Is the sensor on"));
        assertThat(reading.scalar(Pulse.RATE)).isNaN();
    }

    @Test
    void aMinuteOfTappingIsSaidToBeDoubtfulAndLeavesNothingBehind() {
        FingerSignal signal = new FingerSignal(5, 200, EnumSet.of(PulseMode.TAPPING));
        double[] x = new double[(int) (SECONDS * 200)];
        Arrays.setAll(x, i -> signal.next());
        Reading reading = read("optical", 200, x);
        double[] beats = reading.times("beats");
        double usual = 60 / reading.scalar(Pulse.RATE);
        double told = Arrays.stream(beats).filter(t -> t > 31 && t < 89).count() * usual / 58;
        assertThat(told).as("share of the minute that beats are told in").isLessThan(0.6);
        assertThat(reading.events("doubtful")).anyMatch(e -> e.startSeconds() < 45 && !e.believed());
        // Back within 5 s of its end, and the spread is that of the beats that were seen.
        assertThat(Arrays.stream(beats).filter(t -> t > 90 && t < 95).count()).isGreaterThanOrEqualTo(3);
        assertThat(reading.scalar("interval_ms.sdnn")).isLessThan(120);
    }

    @Test
    void aFingerThatGoesIsHeldThenLostAndComesBack() {
        FingerSignal signal = new FingerSignal(6, 200, EnumSet.of(PulseMode.LIFTED));
        Reader reader = reader("optical", 200);
        double firstRate = Double.NaN;
        double held = Double.NaN;
        double again = Double.NaN;
        for (int i = 0; i < 200 * 80; i++) {
            double t = i / 200.0;
            reader.accept(new double[][] {{signal.next()}}, 1, new TimeBase.Steady(t, 0.005));
            if (i % 20 == 0) {
                Reading now = reader.reading(t - 20, t);
                firstRate = Double.isNaN(firstRate) && now.scalar(Pulse.RATE) > 0 ? t : firstRate;
                held = Double.isNaN(held) && t > 30 && now.word("state").equals("held") ? t : held;
                Reading latest = reader.reading(60, t);
                again = t > 60 && Double.isNaN(again) && latest.scalar(Pulse.RATE) > 0 ? t : again;
            }
        }
        double interval = signal.truth().get(1) - signal.truth().get(0);
        // The reader looks about a second ahead; four beats and that.
        assertThat(firstRate).isLessThan(signal.truth().get(0) + 4 * interval + 1.2);
        assertThat(held).isBetween(30.5, 32.6);
        assertThat(again).isLessThan(60 + 4 * interval + 2.2);
        reader.finish();
        assertThat(Arrays.stream(reader.reading().times("beats")).filter(t -> t > 31 && t < 60))
                .isEmpty();
    }

    @Test
    void intervalsOnPaperGiveTheNumbersOnPaper() {
        // R peaks exactly 0.8 s and 0.9 s apart in turn: mean 850 ms, every difference ±100 ms, all over 50.
        double rate = 500;
        double[] x = new double[(int) (rate * 140)];
        double step = 0.8;
        int n = 0;
        for (double at = 0.7; at < 139; at += step, step = 1.7 - step, n++) {
            for (int i = (int) ((at - 0.1) * rate); i < (at + 0.1) * rate; i++) {
                double u = (i / rate - at) / 0.012;
                x[i] += Math.rint(600 * Math.exp(-0.5 * u * u) * (1 - 0.3 * u * u));
            }
        }
        Reading reading = read("electrical", rate, x);
        assertThat(reading.times("beats")).hasSize(n);
        assertThat(reading.scalar("interval_ms.mean")).isCloseTo(850, within(0.5));
        assertThat(reading.scalar(Pulse.RATE)).isCloseTo(60 / 0.85, within(0.05));
        assertThat(reading.scalar("interval_ms.sdnn")).isCloseTo(50, within(0.7));
        assertThat(reading.scalar("interval_ms.rmssd")).isCloseTo(100, within(0.8));
        assertThat(reading.scalar("pnn50_percent")).isEqualTo(100);
        assertThat(reading.scalar("early")).isZero();
        assertThat(reading.scalar("set_aside_percent")).isZero();
    }

    @Test
    void breathingAndTheBandsOfTheIntervalsAreThoseOfTheModel() {
        HeartSignal signal = new HeartSignal(9, 250, EnumSet.noneOf(PulseMode.class));
        double[] x = new double[250 * 180];
        Arrays.setAll(x, i -> signal.next());
        Reading reading = read("electrical", 250, x);
        // The model breathes at 0.25 Hz, and has a rhythm at 0.1 Hz of 2 % and one of 2.5 % with the breath.
        assertThat(reading.scalar("breathing_per_min")).isCloseTo(15, within(1.0));
        // Of the model's own beats, by another way: intervals joined by straight lines, and their periodogram.
        double[] beats =
                signal.truth().stream().mapToDouble(Double::doubleValue).toArray();
        double low = bandPower(beats, 0.04, 0.15);
        double high = bandPower(beats, 0.15, 0.4);
        assertThat(reading.scalar("lf_ms2")).isCloseTo(low, within(0.2 * low));
        assertThat(reading.scalar("hf_ms2")).isCloseTo(high, within(0.2 * high));
        double[] half = Arrays.copyOf(x, 250 * 100);
        Reading shorter = read("electrical", 250, half);
        assertThat(shorter.scalar("lf_ms2")).isNaN();
        assertThat(shorter.working()).anyMatch(line -> line.contains("needs two minutes; these are 100 s"));
    }

    @Test
    void recoveryAfterAnEffortIsTheFallInAMinute() {
        HeartSignal signal = new HeartSignal(3, 250, EnumSet.of(PulseMode.EFFORT));
        double[] x = new double[250 * 170];
        Arrays.setAll(x, i -> signal.next());
        // From 130 towards 70 with a time constant of 35 s: after a minute 60 · (1 − e^(−60/35)) = 49 lower.
        assertThat(read("electrical", 250, x).scalar("recovery_bpm")).isCloseTo(49, within(6.0));
    }

    /** The power of the intervals between beats in a band, in ms², by four values a second between them. */
    private static double bandPower(double[] beats, double from, double to) {
        double step = 0.25;
        int n = (int) ((beats[beats.length - 1] - beats[1]) / step);
        double[] even = new double[n];
        int k = 1;
        for (int i = 0; i < n; i++) {
            double t = beats[1] + i * step;
            while (beats[k + 1] < t) {
                k++;
            }
            double share = (t - beats[k]) / (beats[k + 1] - beats[k]);
            double one = 1000 * (beats[k] - beats[k - 1]);
            even[i] = one + share * (1000 * (beats[k + 1] - beats[k]) - one);
        }
        double mean = Arrays.stream(even).average().orElseThrow();
        double power = 0;
        for (int f = 1; f < n / 2; f++) {
            double hz = f / (n * step);
            if (hz >= from && hz < to) {
                double real = 0;
                double imaginary = 0;
                for (int i = 0; i < n; i++) {
                    real += (even[i] - mean) * Math.cos(2 * Math.PI * f * i / n);
                    imaginary += (even[i] - mean) * Math.sin(2 * Math.PI * f * i / n);
                }
                // What straight lines between the beats take off a tone.
                double u = Math.PI * hz * mean / 1000;
                double gain = Math.pow(Math.sin(u) / u, 2);
                power += 2 * (real * real + imaginary * imaginary) / n / n / (gain * gain);
            }
        }
        return power;
    }
}
