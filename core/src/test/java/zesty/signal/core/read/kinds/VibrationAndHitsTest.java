package zesty.signal.core.read.kinds;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.assertj.core.api.Assertions.withinPercentage;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.Reading;

/** Shaking and striking, from sums on paper and from struck plates (P. Morse and K. Ingard 1968: modes that die away). */
class VibrationAndHitsTest {
    private static List<double[]> peaks(Reading reading) {
        return reading.items().stream()
                .filter(item -> item.key().equals("peaks"))
                .findFirst()
                .map(item -> ((Item.Records) item).records())
                .orElseThrow();
    }

    @Test
    void theSumsAreThoseOnPaper() {
        // A square wave of ±2 about 7: RMS, peak 2, crest 1, kurtosis 1.
        double[] square = new double[1000];
        Arrays.setAll(square, i -> 7 + (i / 5 % 2 == 0 ? 2 : -2));
        Reading reading = Asked.of("vibration", 100, square);
        assertThat(reading.scalar("rms")).isCloseTo(2, within(1e-12));
        assertThat(reading.scalar("peak")).isCloseTo(2, within(1e-12));
        assertThat(reading.scalar("crest")).isCloseTo(1, within(1e-12));
        assertThat(reading.scalar("kurtosis")).isCloseTo(1, within(1e-12));
        // A sine over whole turns: kurtosis 3/2, crest √2.
        double[] sine = new double[2000];
        Arrays.setAll(sine, i -> Math.sin(2 * Math.PI * i / 40));
        Reading pure = Asked.of("vibration", 400, sine);
        assertThat(pure.scalar("kurtosis")).isCloseTo(1.5, within(1e-9));
        assertThat(pure.scalar("crest")).isCloseTo(Math.sqrt(2), within(1e-9));
        assertThat(pure.scalar("clipped")).isZero();
        double[] noise = new Random(1).doubles(50_000).map(u -> u).toArray();
        Random random = new Random(2);
        Arrays.setAll(noise, i -> random.nextGaussian());
        assertThat(Asked.of("vibration", 1000, noise).scalar("kurtosis")).isCloseTo(3, within(0.1));
    }

    @Test
    void velocityAndWayAreThoseOfASineOnPaperAndOrdersAreItsHarmonics() {
        double rate = 3200;
        Random random = new Random(11);
        double[] x = new double[(int) (12 * rate)];
        double[] height = {0.5, 0.2, 0, 0.05};
        for (int i = 0; i < x.length; i++) {
            x[i] = 1 + 0.001 * random.nextGaussian() + 0.4 * Math.sin(2 * Math.PI * 1.3 * i / rate);
            for (int k = 0; k < height.length; k++) {
                x[i] += height[k] * Math.sin(2 * Math.PI * 48.3 * (k + 1) * i / rate + k);
            }
        }
        Reading reading = Asked.of("vibration", rate, x);
        double velocity = 0;
        double way = 0;
        for (int k = 0; k < height.length; k++) {
            double turn = 2 * Math.PI * 48.3 * (k + 1);
            velocity += Math.pow(height[k] * 9.80665 / turn, 2) / 2;
            way += Math.pow(height[k] * 9.80665 / turn / turn, 2) / 2;
        }
        // A Hann window spreads a tone over a few bins, whose weights differ by less than two per cent here.
        assertThat(reading.scalar("velocity_mm_s")).isCloseTo(1e3 * Math.sqrt(velocity), withinPercentage(2));
        assertThat(reading.scalar("displacement_um")).isCloseTo(1e6 * Math.sqrt(way), withinPercentage(4));
        assertThat(reading.scalar("turning_hz")).isCloseTo(48.3, within(0.05));
        List<double[]> orders = reading.records("orders");
        assertThat(orders).hasSize(8);
        for (int k = 0; k < height.length; k++) {
            assertThat(orders.get(k)[2]).as("order " + (k + 1)).isCloseTo(height[k], within(0.01));
        }
        // In m/s² the same numbers are less by the weight of one; counts have no velocity.
        Reading metres = Asked.of("vibration", rate, Map.of("unit", "m/s2", "turns", "24.15"), x);
        assertThat(metres.scalar("velocity_mm_s") * 9.80665).isCloseTo(reading.scalar("velocity_mm_s"), within(1e-9));
        assertThat(metres.records("orders").get(1)[2]).isCloseTo(0.5, within(0.01));
        assertThat(metres.records("orders").get(0)[2]).isZero();
        assertThat(Asked.of("vibration", rate, Map.of("unit", "counts"), x).scalar("velocity_mm_s"))
                .isNaN();
    }

    @Test
    void bandsHoldThePowerThatLiesInThemAndTheTrendIsThatOfEachSecond() {
        double rate = 2000;
        Random random = new Random(12);
        double[] x = new double[(int) (30 * rate)];
        Arrays.setAll(x, i -> (1 + i / rate / 30) * random.nextGaussian());
        Reading reading = Asked.of("vibration", rate, Map.of("unit", "counts"), x);
        double square = reading.scalar("rms") * reading.scalar("rms");
        for (double[] band : reading.records("bands")) {
            // White noise: a third's share is its width of the 1000 Hz there are.
            double width = band[0] * (Math.pow(10, 0.05) - Math.pow(10, -0.05));
            double slack = 5 / Math.sqrt(width * 30);
            assertThat(band[1] * band[1] / square)
                    .as(band[0] + " Hz")
                    .isCloseTo(width / 1000, within(slack * width / 1000));
        }
        assertThat(reading.records("bands").get(reading.records("bands").size() - 1)[0])
                .isCloseTo(794.3, within(0.1));
        double[] trend = reading.trace("trend").orElseThrow().values();
        assertThat(trend).hasSize(30);
        assertThat(trend[0]).isCloseTo(1.017, within(0.07));
        assertThat(trend[29]).isCloseTo(1.983, within(0.14));
        assertThat(Asked.of("vibration", rate, Map.of("bands", "octaves"), x).records("bands"))
                .hasSizeLessThan(reading.records("bands").size() / 2);
    }

    @Test
    void threeAxesAreOneVectorAndGravityIsNoShaking() {
        double[][] axes = new double[3][4000];
        double[] aim = {0.6, 0, 0.8};
        for (int i = 0; i < 4000; i++) {
            for (int a = 0; a < 3; a++) {
                axes[a][i] = aim[a] * 0.5 * Math.sin(2 * Math.PI * 31 * i / 800.0) + (a == 2 ? 1 : 0);
            }
        }
        Reading reading = Asked.of("vibration", 800, axes);
        assertThat(reading.scalar("rms")).isCloseTo(0.5 / Math.sqrt(2), within(1e-6));
        assertThat(reading.scalar("peak")).isCloseTo(0.5, within(1e-4));
        // However it is aimed, a tone along one line keeps its height.
        assertThat(peaks(reading).get(0)[0]).isCloseTo(31, within(0.01));
        assertThat(peaks(reading).get(0)[1]).isCloseTo(0.5, within(0.005));
    }

    @Test
    void tonesAreNamedStrongestFirstAndTheFoldedOneIsOffered() {
        Random random = new Random(5);
        double[] x = new double[8000];
        // At 1000/s a tone of 690 Hz shows at 310 Hz.
        Arrays.setAll(
                x,
                i -> 0.3 * Math.sin(2 * Math.PI * 690 * i / 1000.0)
                        + 0.8 * Math.sin(2 * Math.PI * 24.4 * i / 1000.0)
                        + 0.1 * Math.sin(2 * Math.PI * 73.2 * i / 1000.0)
                        + 0.05 * random.nextGaussian());
        Reading reading = Asked.of("vibration", 1000, Map.of("peaks", "3"), x);
        List<double[]> peaks = peaks(reading);
        assertThat(peaks).hasSize(3);
        double[][] wanted = {{24.4, 0.8}, {310, 0.3}, {73.2, 0.1}};
        for (int k = 0; k < 3; k++) {
            assertThat(peaks.get(k)[0]).isCloseTo(wanted[k][0], within(0.1));
            assertThat(peaks.get(k)[1]).isCloseTo(wanted[k][1], within(0.05 * wanted[k][1] + 0.004));
        }
        assertThat(reading.working()).anyMatch(line -> line.startsWith("310.") && line.contains("or 690."));
        double[] still = new double[8000];
        Arrays.setAll(still, i -> random.nextGaussian());
        assertThat(peaks(Asked.of("vibration", 1000, still))).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"0.7,1000", "0.9,1000", "0.7,4096", "0.95,4096"})
    void whatIsCutOffIsCountedAndWhatIsOnlyCoarseIsNot(double at, double steps) {
        double[] x = new double[6000];
        int cut = 0;
        for (int i = 0; i < x.length; i++) {
            double wave = Math.sin(2 * Math.PI * 13.7 * i / 800) * 0.8 + 0.2 * Math.sin(2 * Math.PI * 61.3 * i / 800);
            cut += Math.abs(wave) >= at ? 1 : 0;
            x[i] = Math.rint(Math.max(-at, Math.min(at, wave)) * steps) / steps;
        }
        double share = (double) cut / x.length;
        assertThat(Asked.of("vibration", 800, x).scalar("clipped")).isCloseTo(share, within(0.2 * share));
        double[] coarse = new double[6000];
        Arrays.setAll(coarse, i -> Math.rint(12 * Math.sin(2 * Math.PI * 13.7 * i / 800)));
        assertThat(Asked.of("vibration", 800, coarse).scalar("clipped")).isZero();
    }

    /**
     * Shaking with rare peaks, read to a ten-thousandth: of each record a few samples, no two of them side by side, stand at the end of
     * the range, among values of which some come twice by chance. The same records with a wider range are not cut off.
     */
    @Test
    void aFewSamplesAtTheEndAmongManyStepsAreCutOff() {
        int told = 0;
        int records = 0;
        for (long seed = 0; seed < 60; seed++) {
            Random random = new Random(seed);
            double[] whole = new double[16_000];
            Arrays.setAll(
                    whole,
                    i -> Math.rint(1e4
                                    * (0.55 * Math.sin(2 * Math.PI * 28.7 * i / 1600 + 1)
                                            + 0.12 * random.nextGaussian()))
                            / 1e4);
            double[] sorted = whole.clone();
            Arrays.sort(sorted);
            double end = sorted[sorted.length - 6 - (int) (seed % 3)];
            double[] cut = Arrays.stream(whole).map(v -> Math.min(v, end)).toArray();
            long at = Arrays.stream(cut).filter(v -> v == end).count();
            double share = Asked.of("vibration", 1600, cut).scalar("clipped");
            records++;
            told += share == at / 16_000.0 ? 1 : 0;
            assertThat(Asked.of("vibration", 1600, whole).scalar("clipped"))
                    .as("seed %d", seed)
                    .isZero();
        }
        assertThat(told).as("of %d", records).isGreaterThan(57);
    }

    /** Two or three modes that start together and die away. */
    private static double[] plate(
            double[] starts, double[] heights, double decay, double noise, double rate, Random random) {
        double[] x = new double[(int) (20 * rate)];
        double[] hz = {40 + 30 * random.nextDouble(), 90 + 20 * random.nextDouble()};
        for (int k = 0; k < starts.length; k++) {
            for (int i = (int) Math.ceil(starts[k] * rate);
                    i < Math.min(x.length, (starts[k] + 10 * decay) * rate);
                    i++) {
                double s = i / rate - starts[k];
                x[i] += heights[k]
                        * Math.exp(-s / decay)
                        * (Math.sin(2 * Math.PI * hz[0] * s) + 0.4 * Math.sin(2 * Math.PI * hz[1] * s));
            }
        }
        for (int i = 0; i < x.length; i++) {
            x[i] += noise * random.nextGaussian();
        }
        return x;
    }

    @ParameterizedTest
    @CsvSource({
        "0.03,0.005,500",
        "0.03,0.02,1000",
        "0.1,0.005,2000",
        "0.1,0.02,1000",
        "0.03,0.005,10000",
        "0.1,0.01,4000"
    })
    void everyStrikeIsOneHitHoweverLongItRings(double decay, double noise, double rate) {
        for (int seed = 0; seed < 5; seed++) {
            Random random = new Random(seed);
            List<Double> starts = new ArrayList<>();
            for (double at = 0.7 + random.nextDouble(); at < 19; at += 0.7 + 1.5 * random.nextDouble()) {
                starts.add(at);
            }
            double[] when = starts.stream().mapToDouble(Double::doubleValue).toArray();
            double[] heights = new double[when.length];
            Arrays.setAll(heights, k -> 0.4 + 0.6 * random.nextDouble());
            double[] x = plate(when, heights, decay, noise, rate, random);
            for (int sign : new int[] {1, -1}) {
                double[] seen = Arrays.stream(x).map(v -> 3 + sign * v).toArray();
                Reading reading = Asked.of("hits", rate, Map.of("direction", sign > 0 ? "rise" : "fall"), seen);
                double[] found = reading.times("hits");
                assertThat(found).as("seed %d", seed).hasSize(when.length);
                for (int k = 0; k < when.length; k++) {
                    // From the strike to its first crest, a quarter of the slowest period, and one sample.
                    assertThat(found[k] - when[k]).isBetween(-1 / rate, 0.25 / 40 + 2 / rate);
                }
                for (Event hit : reading.events("hits")) {
                    int at = (int) Math.round(hit.startSeconds() * rate);
                    double most = Arrays.stream(seen, at, Math.min(seen.length, (int) (at + 0.2 * rate)))
                            .map(v -> sign * v)
                            .max()
                            .orElseThrow();
                    assertThat(hit.size()).isEqualTo(sign * most);
                }
            }
        }
    }

    /** One mode of 50 Hz that dies with 60 ms: its crest after a quarter period, and 60 ms × ln 10 until a tenth is left. */
    @Test
    void eachHitHasItsRiseAndItsRingingAndIsWorthPoints() {
        double[] x = new double[24000];
        double[] strikes = {2, 3, 4, 8};
        double[] heights = {1, 0.5, 0.25, 1};
        for (int k = 0; k < strikes.length; k++) {
            for (int i = (int) (strikes[k] * 2000); i < x.length; i++) {
                double s = i / 2000.0 - strikes[k];
                x[i] += heights[k] * Math.exp(-s / 0.06) * Math.sin(2 * Math.PI * 50 * s);
            }
        }
        Random random = new Random(5);
        Arrays.setAll(x, i -> x[i] + 0.002 * random.nextGaussian());
        Reading reading = Asked.of("hits", 2000, Map.of("zones", "0.3,0.7"), x);
        assertThat(reading.events("hits")).hasSize(4);
        for (Event hit : reading.events("hits")) {
            assertThat(hit.values()[1]).isCloseTo(0.005, within(0.0015));
            // The last half wave above a tenth ends within half a period of that.
            assertThat(hit.values()[2]).isCloseTo(0.06 * Math.log(10), within(0.015));
        }
        // The first crest stands at 0.92 of the height: 2, 1, 0 and 2 points.
        assertThat(reading.scalar("points")).isEqualTo(5);
        assertThat(reading.scalar("in_a_row")).isEqualTo(3);
        assertThat(reading.scalar("rate_per_min")).isCloseTo(30, within(0.1));
    }

    /** A second strike that barely lifts the ringing of the first is no hit, but the reader says that it may be one. */
    @Test
    void aRiseWithinTheRingingIsToldAsDoubt() {
        Random random = new Random(4);
        for (double again : new double[] {0, 1.2}) {
            double[] x = new double[12000];
            Arrays.setAll(x, i -> 0.01 * random.nextGaussian());
            for (int at : new int[] {2000, 5000, 8000}) {
                for (int i = at; i < x.length; i++) {
                    double s = (i - at) / 2000.0;
                    x[i] += Math.exp(-s / 0.3) * Math.sin(2 * Math.PI * 90 * s);
                    // 0.1 s later, in the first one's phase: what still rings goes from 0.72 to 1.08 at most.
                    x[i] += s < 0.1 ? 0 : again * 0.3 * Math.exp(-(s - 0.1) / 0.3) * Math.sin(2 * Math.PI * 90 * s);
                }
            }
            Reading reading = Asked.of("hits", 2000, x);
            assertThat(reading.times("hits")).hasSize(3);
            if (again == 0) {
                assertThat(reading.quality().share()).isEqualTo(1);
            } else {
                assertThat(reading.quality().share()).isCloseTo(0.5, within(1e-9));
                assertThat(reading.quality().reasons())
                        .containsExactly("3 rises within ringing or noise may be hits, too");
            }
        }
    }

    /**
     * A soft strike builds up over several swings, each but a quarter higher than the one before: whether it is found or not, eight
     * hits are no sure answer beside it.
     */
    @Test
    void aStrikeThatBuildsUpSlowlyIsFoundOrDoubted() {
        for (long seed = 0; seed < 6; seed++) {
            Random random = new Random(seed);
            double[] x = new double[20_000];
            Arrays.setAll(x, i -> 0.04 * random.nextGaussian());
            for (int k = 0; k < 9; k++) {
                int at = 1500 + 2000 * k;
                for (int i = at; i < at + 1500; i++) {
                    double s = (i - at) / 1000.0;
                    double grows = k == 4 ? Math.min(1, Math.pow(1.25, (s - 0.05) * 2 * 60)) : 1;
                    x[i] += 0.55
                            * grows
                            * Math.exp(-Math.max(0, s - (k == 4 ? 0.05 : 0)) / 0.05)
                            * Math.cos(2 * Math.PI * 60 * s);
                }
            }
            Reading reading = Asked.of("hits", 1000, x);
            int found = reading.times("hits").length;
            assertThat(found).as("seed %d", seed).isBetween(8, 9);
            if (found == 8) {
                assertThat(reading.quality().share()).as("seed %d", seed).isLessThan(0.95);
                assertThat(reading.quality().reasons())
                        .singleElement()
                        .asString()
                        .contains("within ringing or noise may be");
            }
        }
    }

    @Test
    void aSecondStrikeIntoTheRingingIsAHitOfItsOwnAndAWeakOneIsMarked() {
        double[] x = plate(
                new double[] {2, 2.15, 6, 10, 10.18, 14},
                new double[] {1, 0.9, 1, 0.8, 0.8, 0.05},
                0.04,
                0.004,
                2000,
                new Random(3));
        Reading reading = Asked.of("hits", 2000, x);
        assertThat(reading.times("hits")).hasSize(6);
        assertThat(reading.events("hits")).extracting(Event::kind).startsWith("hit", "hit", "hit");
        double threshold = reading.scalar("threshold");
        assertThat(threshold).isBetween(0.012, 0.05);
    }

    @ParameterizedTest
    @ValueSource(strings = {"noise", "hum", "wander", "flat", "few counts"})
    void whereNothingHitsThereIsNoHit(String what) {
        Random random = new Random(8);
        double[] x = new double[60_000];
        double walk = 0;
        for (int i = 0; i < x.length; i++) {
            walk += 0.02 * random.nextGaussian() - walk / 1000;
            x[i] = switch (what) {
                case "noise" -> random.nextGaussian();
                case "hum" -> 3 * Math.sin(2 * Math.PI * 50.03 * i / 1000) + 0.1 * random.nextGaussian();
                case "wander" -> 5 * walk + 0.05 * random.nextGaussian();
                case "flat" -> 512;
                default -> Math.rint(512 + 0.4 * random.nextGaussian());
            };
        }
        Reading reading = Asked.of("hits", 1000, x);
        assertThat(reading.times("hits")).as(what).isEmpty();
        assertThat(reading.scalar("count")).isZero();
    }

    @Test
    void noiseOfFewCountsIsNoHitWhileOthersStrike() {
        for (int seed = 0; seed < 6; seed++) {
            Random random = new Random(seed);
            double[] when = new double[38];
            double[] heights = new double[when.length];
            Arrays.setAll(when, k -> 0.5 + 0.5 * k + 0.1 * random.nextDouble());
            Arrays.setAll(heights, k -> 90 + 300 * random.nextDouble());
            double[] x = plate(when, heights, 0.02, 2.5, 4000, random);
            // As a converter gives it: quiet windows of a few whole counts look more alike than they are.
            double[] counts = Arrays.stream(x).map(v -> Math.rint(512 + v)).toArray();
            Reading reading = Asked.of("hits", 4000, counts);
            assertThat(reading.times("hits")).as("seed %d", seed).hasSize(when.length);
            // 5 standard deviations of 2.5 counts: of 80 000 samples one in twenty records goes so far.
            assertThat(reading.scalar("threshold") - 512).isBetween(10.0, 25.0);
        }
    }

    @Test
    void aThresholdThatIsGivenIsTakenAtItsWord() {
        double[] x = {0, 0, 5, 9, 4, 0, 0, 6, 3, 6, 0, 0, 5, 0, 0, 0};
        Map<String, String> set = Map.of("threshold", "5", "release", "2");
        Reading reading = Asked.of("hits", 100, set, x);
        // Back past 2 only after the second 6: one hit from 0.07 s on.
        assertThat(reading.times("hits")).containsExactly(new double[] {0.02, 0.07, 0.12}, within(1e-9));
        assertThat(reading.events("hits")).extracting(Event::size).containsExactly(9.0, 6.0, 5.0);
        Reading dead = Asked.of("hits", 100, Map.of("threshold", "5", "release", "2", "dead", "0.095"), x);
        assertThat(dead.times("hits")).containsExactly(new double[] {0.02, 0.12}, within(1e-9));
        double[] fall = Arrays.stream(x).map(v -> 10 - v).toArray();
        Map<String, String> down = Map.of("threshold", "5", "release", "8", "direction", "fall");
        assertThat(Asked.of("hits", 100, down, fall).times("hits"))
                .containsExactly(new double[] {0.02, 0.07, 0.12}, within(1e-9));
        assertThatThrownBy(() -> Asked.of("hits", 100, Map.of("threshold", "5", "release", "6"), x))
                .isInstanceOf(ReaderException.class)
                .hasMessageContaining("release must lie on the quiet side of the threshold 5, was 6");
    }
}
