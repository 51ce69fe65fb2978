package zesty.signal.core.read.kinds;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;

/** Cups that turn as the wind blows, and things that answer when they are switched, with the truth on paper. */
class WindAndStepTest {
    /** The wind in m/s at a moment: two steady stretches, a gust of 1 − cos (K. Pratt 1953), and cups that stand. */
    private static double wind(double t) {
        if (t >= 60 && t < 75) {
            return 0;
        }
        double base = t < 30 ? 5 : 8;
        return t >= 40 && t < 48 ? base + 4 * (1 - Math.cos(2 * Math.PI * (t - 40) / 8)) / 2 : base;
    }

    /** @return when the contact closed, for cups of 0.8 m/s a turn a second that start at 0.5 m/s */
    private static double[] edges(int perTurn) {
        List<Double> edges = new ArrayList<>();
        double turns = 0;
        for (int i = 0; i < 90 * 5000; i++) {
            double speed = wind(i / 5000.0);
            double before = turns;
            turns += speed > 0 ? (speed - 0.5) / 0.8 / 5000 : 0;
            if (Math.floor(turns * perTurn) > Math.floor(before * perTurn)) {
                edges.add(i / 5000.0);
            }
        }
        return edges.stream().mapToDouble(Double::doubleValue).toArray();
    }

    private static double meanWind() {
        double sum = 0;
        for (int i = 0; i < 90_000; i++) {
            sum += wind(i / 1000.0) / 90_000;
        }
        return sum;
    }

    private static double turbulence() {
        double mean = meanWind();
        double squares = 0;
        for (int i = 0; i < 90_000; i++) {
            squares += Math.pow(wind(i / 1000.0) - mean, 2) / 90_000;
        }
        return Math.sqrt(squares) / mean;
    }

    private static void isTheWind(Reading reading, double slack) {
        assertThat(reading.scalar("mean_mps")).isCloseTo(meanWind(), within(0.02 * meanWind() + slack));
        // Over the three seconds about its top the gust has lost a little.
        double gust = 8 + 2 * (1 + Math.sin(2 * Math.PI * 1.5 / 8) / (2 * Math.PI * 1.5 / 8));
        assertThat(reading.scalar("gust_mps")).isCloseTo(gust, within(0.3 + slack));
        assertThat(reading.scalar("lull_mps")).isZero();
        assertThat(reading.scalar("beaufort")).isEqualTo(4);
        // The newest minute: 30 to 90 s, with the gust of 2 m/s more over 8 s and 15 s of standing.
        assertThat(reading.scalar("mean_1min_mps")).isCloseTo((45 * 8 + 8 * 2) / 60.0, within(0.2 + slack));
        assertThat(reading.scalar("mean_2min_mps")).isNaN();
        assertThat(reading.scalar("turbulence")).isCloseTo(turbulence(), within(0.03 + slack));
        Item.Trace series = reading.trace("series").orElseThrow();
        int right = 0;
        for (int i = 0; i < series.seconds().length; i++) {
            right += Math.abs(series.values()[i] - wind(series.seconds()[i])) < 1.2 ? 1 : 0;
            double t = series.seconds()[i];
            if (t > 63.5 && t < 74) {
                assertThat(series.values()[i]).as("standing at %.1f s", t).isZero();
            }
        }
        assertThat(right).isGreaterThan(series.seconds().length * 9 / 10);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 4})
    void countsEdgesAndTheWaveTellTheSameWind(int perTurn) {
        Map<String, String> cups = Map.of("factor", "0.8", "offset", "0.5", "per_turn", String.valueOf(perTurn));
        double[] edges = edges(perTurn);
        double[] counts = new double[180];
        for (double edge : edges) {
            counts[(int) (edge * 2)]++;
        }
        isTheWind(Asked.of("wind", 2, with(cups, "count"), counts), 0.15);
        isTheWind(Asked.of("wind", 1, with(cups, "edges"), edges), 0.05);
        double[] wave = new double[90 * 400];
        Random random = new Random(perTurn);
        for (double edge : edges) {
            double width = Math.min(0.02, 0.3 / perTurn / 12);
            for (int i = (int) Math.ceil(edge * 400); i < Math.min(wave.length, (edge + width) * 400 + 1); i++) {
                wave[i] = 900;
            }
        }
        Arrays.setAll(wave, i -> wave[i] + 40 + 8 * random.nextGaussian());
        isTheWind(Asked.of("wind", 400, with(cups, "level"), wave), 0.1);
    }

    /** Many programs send what they counted since their start, in 8 or 16 bits or more; taken for pulses a row that is no wind of this earth. */
    @ParameterizedTest
    @CsvSource({"0, 1e9", "250, 256", "65400, 65536"})
    void countsFromTheStartOnAreKnownByTheirSize(int before, double full) {
        double[] totals = new double[180];
        int k = 0;
        double[] edges = edges(2);
        for (int i = 0; i < totals.length; i++) {
            while (k < edges.length && edges[k] < (i + 1) / 2.0) {
                k++;
            }
            totals[i] = (before + k) % full;
        }
        Map<String, String> cups = Map.of("factor", "0.8", "offset", "0.5", "per_turn", "2");
        Reading reading = Asked.of("wind", 2, with(cups, "count"), totals);
        isTheWind(reading, 0.15);
        assertThat(reading.quality().share()).isEqualTo(0.8);
        assertThat(reading.quality().reasons()).anyMatch(one -> one.contains("from the board's start on"));
        // Where they are few yet nobody can tell, and that is said.
        Reading few = Asked.of("wind", 2, with(cups, "count"), Arrays.copyOfRange(totals, before == 0 ? 0 : 20, 34));
        assertThat(few.quality().share()).isLessThanOrEqualTo(0.8);
        double[] storm = new double[60];
        Arrays.setAll(storm, i -> 90 + i * 7 % 10);
        assertThat(Asked.of("wind", 1, storm).quality().reasons().get(0)).startsWith("no wind blows at 9");
    }

    /** Directions about north, drawn with a spread of 14°; a calm in which the vane points south says nothing. */
    @Test
    void aVanesMeanIsOfVectorsAcrossNorthAndACalmDoesNotCount() {
        Random random = new Random(17);
        int n = 4 * 200;
        double[] pulses = new double[n];
        double[] vane = new double[n];
        for (int i = 0; i < n; i++) {
            boolean calm = i >= n / 2 && i < n / 2 + 80;
            pulses[i] = calm ? 0 : 2;
            vane[i] = calm ? 180 : Math.floorMod(Math.round(355 + 14 * random.nextGaussian()), 360);
        }
        Reading reading = Asked.of("wind", 4, Map.of("factor", "0.8"), pulses, vane);
        // Of 720 draws the mean is known to half a degree.
        assertThat(reading.scalar("from_deg")).isCloseTo(355, within(1.6));
        assertThat(reading.scalar("from_spread_deg")).isCloseTo(14, within(1.2));
        List<double[]> rose = reading.records("rose");
        assertThat(rose).hasSize(16);
        assertThat(rose.stream().mapToDouble(one -> one[1]).sum()).isCloseTo(1, within(1e-9));
        // 337.5 to 22.5 is three of sixteen: within −1.25 … 1.96 deviations lie 87 %.
        assertThat(rose.get(15)[1] + rose.get(0)[1] + rose.get(1)[1]).isCloseTo(0.95, within(0.05));
        assertThat(rose.get(8)[1]).isLessThan(0.01);
        assertThat(rose.get(0)[2]).isCloseTo(0.8 * 8, within(0.1));
        assertThat(reading.word("force")).startsWith("4: ");
        assertThat(reading.word("also")).contains("20.7 km/h, 11.2 knots, 12.9 mph");
        assertThatThrownBy(() -> ReaderKinds.of("wind")
                        .check(Settings.of(ReaderKinds.of("wind"), Map.of("input", "edges")), new double[2][3]))
                .isInstanceOf(ReaderException.class)
                .hasMessageContaining("counted pulses");
    }

    private static Map<String, String> with(Map<String, String> cups, String input) {
        Map<String, String> set = new java.util.HashMap<>(cups);
        set.put("input", input);
        return set;
    }

    @Test
    void aContactThatBouncesIsCountedOnceAndSaidToBounce() {
        Random random = new Random(6);
        double[] clean = edges(1);
        List<Double> rough = new ArrayList<>();
        int bounces = 0;
        for (double edge : clean) {
            rough.add(edge);
            for (int k = random.nextInt(3); k > 0; k--) {
                rough.add(rough.get(rough.size() - 1) + 0.0005 + 0.001 * random.nextDouble());
                bounces++;
            }
        }
        double[] seen = rough.stream().mapToDouble(Double::doubleValue).toArray();
        Map<String, String> cups = Map.of("input", "edges", "factor", "0.8", "offset", "0.5");
        Reading reading = Asked.of("wind", 1, cups, seen);
        assertThat(reading.scalar("bounces")).isEqualTo(bounces);
        assertThat(reading.scalar("mean_mps"))
                .isCloseTo(Asked.of("wind", 1, cups, clean).scalar("mean_mps"), within(0.02));
        assertThat(reading.quality().reasons()).anyMatch(reason -> reason.contains("the contact bounces"));
    }

    @Test
    void calmIsZeroAndNotNothingAndSteadyPulsesAreExact() {
        Reading calm = Asked.of("wind", 1, new double[120]);
        assertThat(calm.scalar("mean_mps")).isZero();
        assertThat(calm.scalar("gust_mps")).isZero();
        assertThat(calm.scalar("beaufort")).isZero();
        assertThat(calm.quality().reasons()).contains("calm: no pulse received");
        double[] four = new double[60];
        Arrays.fill(four, 4);
        Reading steady = Asked.of("wind", 1, Map.of("factor", "1.5", "offset", "0.25"), four);
        assertThat(steady.scalar("mean_mps")).isCloseTo(4 * 1.5 + 0.25, within(1e-12));
        assertThat(steady.scalar("lull_mps")).isCloseTo(6.25, within(1e-12));
        // One pulse every other second: slow, but no standing.
        double[] slow = new double[60];
        for (int i = 0; i < 60; i += 2) {
            slow[i] = 1;
        }
        assertThat(Asked.of("wind", 1, slow).scalar("mean_mps")).isCloseTo(0.5, within(0.02));
        ReaderKind wind = ReaderKinds.of("wind");
        Settings edges = Settings.of(wind, Map.of("input", "edges"));
        assertThat(wind.needsRate(edges)).isFalse();
        assertThatThrownBy(() -> wind.check(edges, new double[][] {{1, 2, 1.5}}))
                .isInstanceOf(ReaderException.class)
                .hasMessageContaining("row 3 has 1.5 after 2");
        Settings counts = Settings.of(wind, Map.of());
        assertThatThrownBy(() -> wind.check(counts, new double[][] {{1, -2}}))
                .hasMessageContaining("cannot be below 0");
    }

    /** Of a fast wave most changes from sample to sample are edges; a line that hums stands still all the same. */
    @ParameterizedTest
    @CsvSource({"30, 100, 0.6", "20, 50, 0.6", "7, 200, 1"})
    void aFastWaveIsNoCalmAndIsDoubtedWhereSamplesHardlyFollow(double hz, double rate, double quality) {
        Random random = new Random(8);
        double[] wave = new double[(int) (60 * rate)];
        double[] hum = new double[wave.length];
        for (int i = 0; i < wave.length; i++) {
            wave[i] = ((i * hz / rate + 0.2) % 1 < 0.4 ? 3.2 : 0.1) + 0.02 * random.nextGaussian();
            hum[i] = 3.2 + 0.1 * Math.sin(2 * Math.PI * 50 * i / 220.0) + 0.02 * random.nextGaussian();
        }
        Reading reading = Asked.of("wind", rate, Map.of("input", "level"), wave);
        assertThat(reading.scalar("mean_mps")).isCloseTo(hz, within(0.1));
        assertThat(reading.quality().share()).isEqualTo(quality);
        assertThat(Asked.of("wind", 220, Map.of("input", "level"), hum).scalar("mean_mps"))
                .isZero();
    }

    @ParameterizedTest
    @CsvSource({
        "0.3,2.5,0.8,20,0.001",
        "0.3,2.5,0.0,50,0.01",
        "-1.7,1.2,1.5,10,0.01",
        "2.0,4.0,0.3,20,0.04",
        "0.05,8.0,3.0,5,0.01"
    })
    void aFirstOrderWithDeadTimeIsFoundWithinItsNoise(double gain, double tau, double dead, double rate, double noise) {
        for (int seed = 0; seed < 2; seed++) {
            Random random = new Random(seed);
            int n = (int) (60 * rate);
            double[] input = new double[n];
            double[] response = new double[n];
            double size = seed % 2 == 0 ? 25 : -25;
            for (int i = 0; i < n; i++) {
                double t = i / rate - 8;
                input[i] = 40 + (t >= 0 ? size : 0);
                double way = t > dead ? 1 - Math.exp(-(t - dead) / tau) : 0;
                response[i] = 21 + gain * size * way + noise * Math.abs(gain * size) * random.nextGaussian();
            }
            Reading reading = Asked.of("step", rate, input, response);
            // Of n samples within a time constant each number is known to about noise / √n of its size.
            double bound = 5 * noise / Math.sqrt(tau * rate);
            assertThat(reading.scalar("gain")).isCloseTo(gain, within(Math.abs(gain) * (0.005 + bound)));
            assertThat(reading.scalar("tau_s")).isCloseTo(tau, within(tau * (0.02 + 2 * bound)));
            assertThat(reading.scalar("dead_s")).isCloseTo(dead, within(1 / rate + tau * bound));
            assertThat(reading.scalar("rise_s"))
                    .isCloseTo(Math.log(9) * tau, within(Math.log(9) * tau * (0.02 + 2 * bound)));
            assertThat(reading.scalar("baseline")).isCloseTo(21, within(Math.abs(gain * size) * (noise + 0.001)));
            assertThat(settled(reading)).isTrue();
            assertThat(reading.scalar("rms_residual"))
                    .isCloseTo(noise * Math.abs(gain * size), within(0.2 * noise * Math.abs(gain * size)));
        }
    }

    private static boolean settled(Reading reading) {
        return reading.items().stream()
                .anyMatch(item -> item instanceof Item.Flag flag && flag.key().equals("settled") && flag.value());
    }

    /** A heater at 0, 20, 60 or 50, 100 and 40 percent: its gain is 0.8, its time constant 6 s, a dead time of 2 s before. */
    @ParameterizedTest
    @CsvSource({"0,60", "0.4,60", "2,60", "0,50", "2,50"})
    void aStaircaseIsAStepEach(double noise, double third) {
        double[] levels = {0, 20, third, 100, 40};
        Random random = new Random(4);
        double[] input = new double[5 * 45 * 10];
        double[] response = new double[input.length];
        double warm = 0;
        for (int i = 0; i < input.length; i++) {
            input[i] = levels[i / 450] + noise / 2 * random.nextGaussian();
            response[i] = 20 + warm + noise * random.nextGaussian();
            double reached = i < 20 ? 0 : 0.8 * levels[(i - 20) / 450];
            warm = reached + (warm - reached) * Math.exp(-0.1 / 6);
        }
        Reading reading = Asked.of("step", 10, input, response);
        assertThat(reading.scalar("steps")).isEqualTo(4);
        assertThat(reading.scalar("gain")).isCloseTo(0.8, within(0.01 + 0.015 * noise));
        assertThat(reading.scalar("tau_s")).isCloseTo(6, within(0.1 + 0.4 * noise));
        assertThat(reading.scalar("dead_s")).isCloseTo(2, within(0.1 + 0.2 * noise));
        assertThat(reading.quality().segments()).isGreaterThanOrEqualTo(7);
    }

    @Test
    void aSwingingAnswerIsASecondOrderAndSeveralStepsAgree() {
        int n = 4000;
        double[] input = new double[n];
        double[] response = new double[n];
        double x = 0;
        double v = 0;
        for (int i = 0; i < n; i++) {
            input[i] = i / 1000 % 2;
            response[i] = 10 + 3 * x;
            // x″ = ω²(u − x) − 2ζωx′ with ω = 2/s, ζ = 0.4, in steps far shorter than a sample.
            for (int k = 0; k < 50; k++) {
                double force = 4 * (input[i] - x) - 2 * 0.4 * 2 * v;
                v += force * 0.02 / 50;
                x += v * 0.02 / 50;
            }
        }
        Reading reading = Asked.of("step", 50, input, response);
        assertThat(reading.scalar("gain")).isCloseTo(3, within(0.02));
        assertThat(reading.scalar("steps")).isEqualTo(3);
        // Of such a system, 10 to 90 % takes 1.4652/ω, found by inverting its step response.
        assertThat(reading.scalar("rise_s")).isCloseTo(1.4652 / 2, within(0.03));
        assertThat(reading.working()).anyMatch(line -> line.contains("Second order, damping 0.40"));
    }

    @Test
    void noResponseIsAnAnswerAndAnUnfinishedOneIsSaidToBe() {
        Random random = new Random(2);
        double[] input = new double[800];
        Arrays.fill(input, 200, 800, 5);
        double[] dead = new double[800];
        Arrays.setAll(dead, i -> 20 + 0.1 * random.nextGaussian());
        Reading none = Asked.of("step", 20, input, dead);
        assertThat(none.scalar("gain")).isCloseTo(0, within(0.005));
        assertThat(settled(none)).isFalse();
        assertThat(none.scalar("tau_s")).isNaN();
        assertThat(none.scalar("dead_s")).isNaN();
        assertThat(none.scalar("rise_s")).isNaN();
        assertThat(none.quality().reasons()).anyMatch(reason -> reason.contains("is the power on"));
        double[] slow = new double[800];
        Arrays.setAll(slow, i -> i < 200 ? 20 : 20 + 30 * (1 - Math.exp(-(i - 200) / 20.0 / 40)));
        Reading unfinished = Asked.of("step", 20, input, slow);
        assertThat(settled(unfinished)).isFalse();
        assertThat(unfinished.quality().reasons()).anyMatch(reason -> reason.contains("it has not settled"));
        Reading never = Asked.of("step", 20, new double[800], slow);
        assertThat(never.quality().reasons()).anyMatch(reason -> reason.contains("the input does not step"));
    }
}
