package zesty.signal.core.read.kinds;

import static org.assertj.core.api.Assertions.assertThat;
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
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.muscle.Placement;

/**
 * A muscle as it is: motor units that are taken in by their size as force grows, each firing at its own rate with its own
 * shape (A. J. Fuglevand, D. A. Winter and A. E. Patla 1993, "Models of recruitment and rate coding organization in
 * motor-unit pools"), shapes as second derivatives of a bell. Nothing in it is noise but the noise.
 */
class MotorUnitsTest {
    private static final int UNITS = 60;

    private record Pull(double from, double to, double force) {}

    /** @return the signal at rest with a standard deviation of 1, and pulls so many decibels above it */
    private static double[] signal(List<Pull> pulls, double db, double rate, double seconds, Random random) {
        double[] x = new double[(int) (seconds * rate)];
        for (int u = 0; u < UNITS; u++) {
            double size = Math.exp(Math.log(30) * u / UNITS);
            double threshold = 0.5 * (Math.exp(Math.log(20) * u / UNITS) - 1) / 19;
            double width = 0.0018 + 0.0012 * random.nextDouble();
            int side = random.nextBoolean() ? 1 : -1;
            for (Pull pull : pulls) {
                double t = pull.from() + 0.03 * random.nextDouble();
                while (pull.force() > threshold && t < pull.to()) {
                    double hz = 8 + 25 * (pull.force() - threshold);
                    spike(x, rate, t, side * size, width);
                    t += Math.max(0.3, 1 + 0.2 * random.nextGaussian()) / hz;
                }
            }
        }
        double squares = 0;
        int n = 0;
        for (Pull pull : pulls) {
            for (int i = (int) (pull.from() * rate); i < pull.to() * rate; i++) {
                squares += x[i] * x[i];
                n++;
            }
        }
        double gain = n == 0 ? 0 : Math.pow(10, db / 20) / Math.sqrt(squares / n);
        for (int i = 0; i < x.length; i++) {
            x[i] = gain * x[i] + random.nextGaussian();
        }
        return x;
    }

    private static void spike(double[] x, double rate, double at, double size, double width) {
        for (int i = (int) Math.max(0, (at - 6 * width) * rate); i < Math.min(x.length, (at + 6 * width) * rate); i++) {
            double u = (i / rate - at) / width;
            x[i] += size * (1 - u * u) * Math.exp(-u * u / 2);
        }
    }

    private static List<Pull> pulls(Random random) {
        List<Pull> pulls = new ArrayList<>();
        for (double at = 2 + random.nextDouble(); at < 27; ) {
            double to = at + 0.5 + 1.5 * random.nextDouble();
            pulls.add(new Pull(at, to, 0.5 + 0.5 * random.nextDouble()));
            at = to + 1 + 2 * random.nextDouble();
        }
        return pulls;
    }

    /** The bounds are those that a muscle reader is asked for at either strength. */
    @ParameterizedTest(name = "{0} dB at {1}/s, hum {2}, {3} counts")
    @CsvSource({"16,1000,0,0,0.02,0.05", "16,2000,1,0,0.02,0.05", "16,1000,0,1,0.02,0.05", "8,1000,0,0,0.04,0.09"})
    void onsetsOfTenRecordsEachAreFound(
            double db, double rate, double hum, double step, double median, double ninetieth) {
        List<Double> off = new ArrayList<>();
        int all = 0;
        int missed = 0;
        int invented = 0;
        for (int seed = 0; seed < 10; seed++) {
            Random random = new Random(seed);
            List<Pull> pulls = pulls(random);
            double[] x = signal(pulls, db, rate, 30, random);
            for (int i = 0; i < x.length; i++) {
                x[i] += 1.5 * hum * Math.sin(2 * Math.PI * 49.93 * i / rate);
                x[i] = step > 0 ? Math.rint(x[i] / step) * step : x[i];
            }
            List<Event> found = new ArrayList<>(Asked.of("muscle", rate, x).events("bursts"));
            for (Pull pull : pulls) {
                Event nearest = found.stream()
                        .filter(e -> e.startSeconds() < pull.to() && e.endSeconds() > pull.from())
                        .findFirst()
                        .orElse(null);
                all++;
                if (nearest == null) {
                    missed++;
                } else {
                    found.remove(nearest);
                    // The first units fire within 30 ms of the beginning.
                    off.add(Math.abs(nearest.startSeconds() - pull.from() - 0.015));
                }
            }
            invented += found.size();
        }
        double[] sorted = off.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        assertThat(missed).as("missed of %d", all).isLessThanOrEqualTo(all / 50);
        assertThat(invented).as("invented beside %d", all).isLessThanOrEqualTo(all / 50);
        assertThat(sorted[sorted.length / 2]).isLessThan(median);
        assertThat(sorted[sorted.length * 9 / 10]).isLessThan(ninetieth);
    }

    @Test
    void strongerPullsAreMorePercentOfTheHardestAndTheSumsAreTheRecords() {
        Random random = new Random(3);
        List<Pull> pulls =
                List.of(new Pull(3, 5, 0.4), new Pull(8, 10, 0.7), new Pull(13, 15, 1), new Pull(18, 20, 0.55));
        double[] x = signal(pulls, 24, 1000, 24, random);
        Reading reading = Asked.of("muscle", 1000, x);
        List<Event> bursts = reading.events("bursts");
        assertThat(bursts).hasSize(4);
        assertThat(bursts.stream().mapToDouble(e -> e.values()[4]).max().orElseThrow())
                .isCloseTo(100, within(1e-9));
        // A peak is a matter of chance; the mean grows with the force.
        double[] mean = bursts.stream().mapToDouble(e -> e.values()[3]).toArray();
        assertThat(mean[0]).isLessThan(mean[3]);
        assertThat(mean[3]).isLessThan(mean[1]);
        assertThat(mean[1]).isLessThan(mean[2]);
        assertThat(reading.scalar("duty")).isCloseTo(8 / 24.0, within(0.02));
        for (Event burst : bursts) {
            // Peak and mean of the envelope lie above rest, the peak above the mean.
            assertThat(burst.values()[2]).isGreaterThan(burst.values()[3]);
            assertThat(burst.values()[3]).isGreaterThan(3 * reading.scalar("baseline"));
        }
        // Given what is hardest, all are percent of that; the times do not move.
        double base = reading.scalar("baseline");
        double twice = base + 2 * (bursts.get(2).values()[2] - base);
        double whole = bursts.get(2).values()[4];
        Reading half = Asked.of("muscle", 1000, Map.of("hardest", String.valueOf(twice)), x);
        assertThat(whole).isGreaterThan(60);
        assertThat(half.events("bursts").get(2).values()[4]).isCloseTo(50, within(1e-6));
        assertThat(half.times("bursts")).containsExactly(reading.times("bursts"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"nothing", "hum", "heart", "drift", "few counts", "flicker"})
    void restOfTenMinutesHasNoPullWhateverIsInIt(String what) {
        Random random = new Random(21);
        double[] x = signal(List.of(), 0, 1000, 600, random);
        double walk = 0;
        for (int i = 0; i < x.length; i++) {
            double t = i / 1000.0;
            double beat = t % 0.93 - 0.5;
            walk += 0.02 * random.nextGaussian() - walk / 20_000;
            x[i] = switch (what) {
                case "hum" -> x[i] + 6 * Math.sin(2 * Math.PI * 60.02 * t) + 2 * Math.sin(2 * Math.PI * 180.06 * t);
                case "heart" -> x[i] + 4 * Math.exp(-0.5 * Math.pow(beat / 0.012, 2));
                case "drift" -> x[i] + 20 * walk;
                case "few counts" -> Math.rint(x[i] / 2) * 2;
                case "flicker" -> x[i] + 0.8 * Math.sin(2 * Math.PI * 100 * t);
                default -> x[i];
            };
        }
        assertThat(Asked.of("muscle", 1000, x).events("bursts")).as(what).isEmpty();
    }

    @Test
    void aPullShorterThanFortyMillisecondsIsNone() {
        Random random = new Random(4);
        double[] x = new double[20_000];
        Arrays.setAll(x, i -> random.nextGaussian());
        for (int k = 0; k < 8; k++) {
            for (int i = 2000 + 2000 * k; i < 2025 + 2000 * k; i++) {
                x[i] *= 12;
            }
        }
        for (int i = 19_000; i < 19_400; i++) {
            x[i] *= 12;
        }
        List<Event> bursts = Asked.of("muscle", 1000, x).events("bursts");
        assertThat(bursts).allMatch(e -> e.endSeconds() - e.startSeconds() >= 0.04);
        assertThat(bursts)
                .anyMatch(e -> Math.abs(e.startSeconds() - 19) < 0.03 && Math.abs(e.endSeconds() - 19.4) < 0.08);
    }

    /** Shapes that widen by a known share slow the median frequency by the same. */
    @Test
    void aTiringMusclesMedianFrequencyFallsAsItsShapesWiden() {
        double[] slopes = new double[3];
        for (int k = 0; k < 3; k++) {
            Random random = new Random(31 + k);
            double[] x = new double[40_000];
            for (int u = 0; u < UNITS; u++) {
                double width = 0.002 + 0.0008 * random.nextDouble();
                int side = random.nextBoolean() ? 1 : -1;
                for (double t = 5; t < 35; t += Math.max(0.3, 1 + 0.2 * random.nextGaussian()) / 15) {
                    // After 30 s every shape is wider by k × 15 %.
                    spike(x, 1000, t, side, width * (1 + 0.15 * k * (t - 5) / 30));
                }
            }
            for (int i = 0; i < x.length; i++) {
                x[i] += 0.3 * random.nextGaussian();
            }
            Reading reading = Asked.of("muscle", 1000, x);
            slopes[k] = reading.scalar("fatigue_hz_per_s");
            assertThat(reading.trace("median_frequency").orElseThrow().values()).hasSizeBetween(55, 60);
        }
        // About 90 Hz of median: 13 % and 23 % less after 30 s.
        assertThat(slopes[0]).isCloseTo(0, within(0.12));
        assertThat(slopes[1]).isBetween(-0.55, -0.2);
        assertThat(slopes[2]).isBetween(-0.95, -0.45);
    }

    @Test
    void ofTwoMusclesTheTimeTogetherAndTheShareAreTheirPulls() {
        Random random = new Random(8);
        List<Pull> first = List.of(new Pull(3, 5, 1), new Pull(9, 11, 1));
        List<Pull> second = List.of(new Pull(4, 6, 1), new Pull(15, 16, 1));
        double[] one = signal(first, 22, 1000, 20, random);
        double[] two = signal(second, 22, 1000, 20, random);
        Reading reading = Asked.of("muscle", 1000, Map.of(), one, two);
        // Together from 4 to 5 s; either works for 6 s; the first does 4 s of the 7 s of work.
        assertThat(reading.scalar("overlap")).isCloseTo(1 / 6.0, within(0.02));
        assertThat(reading.scalar("balance_percent")).isCloseTo(100 * 4 / 7.0, within(6.0));
        assertThat(reading.times("other_bursts")).hasSize(2);
        assertThat(reading.times("other_bursts")[0]).isCloseTo(4.015, within(0.04));
    }

    @ParameterizedTest
    @ValueSource(strings = {"rms", "energy"})
    void whatWasCapturedOfRestAndHardestIsUsedAndWhatFindsTheEndsCanBeChosen(String onset) {
        Random random = new Random(5);
        List<Pull> pulls = List.of(new Pull(4, 6, 1), new Pull(6.5, 8, 1), new Pull(12, 14, 1));
        double[] x = signal(pulls, 20, 2000, 18, random);
        Reading reading =
                Asked.of("muscle", 2000, Map.of("onset", onset, "rest-level", "1", "hardest", "21", "gap", "1"), x);
        List<Event> bursts = reading.events("bursts");
        assertThat(bursts).hasSize(2);
        assertThat(reading.scalar("baseline")).isEqualTo(1);
        assertThat(bursts.get(0).values()[4]).isCloseTo(100 * (bursts.get(0).values()[2] - 1) / 20, within(1e-9));
        assertThat(bursts.get(0).startSeconds()).isCloseTo(4.015, within(0.03));
        assertThat(bursts.get(0).endSeconds()).isCloseTo(8, within(0.06));
        double[] area = bursts.stream().mapToDouble(e -> e.values()[5]).toArray();
        assertThat(area[0])
                .isCloseTo(
                        (bursts.get(0).values()[3] - 1)
                                * (bursts.get(0).endSeconds() - bursts.get(0).startSeconds()),
                        within(1e-6));
    }

    /** The same three pulls at four places: near, with mains, at the end of the converter's range, far. */
    @Test
    void placesAreRankedAndTheReasonIsWhatWasDoneToThem() {
        List<Pull> pulls = List.of(new Pull(3, 4.5, 1), new Pull(7, 8.5, 1), new Pull(11, 12.5, 1));
        List<Placement> tried = new ArrayList<>();
        for (String place : List.of("far", "cut off", "near", "by the lamp", "off the muscle")) {
            Random random = new Random(77);
            double db = place.equals("far") ? 9 : 22;
            double[] x = signal(place.equals("off the muscle") ? List.of() : pulls, db, 1000, 15, random);
            for (int i = 0; i < x.length; i++) {
                x[i] += place.equals("by the lamp") ? 9 * Math.sin(2 * Math.PI * 50 * i / 1000) : 0;
                x[i] = place.equals("cut off") ? Math.max(-9, Math.min(9, x[i])) : x[i];
            }
            tried.add(Placement.of(place, Asked.of("muscle", 1000, x)));
        }
        List<Placement> ranked = Placement.ranked(tried);
        assertThat(ranked).extracting(Placement::place).startsWith("near").endsWith("off the muscle");
        assertThat(ranked).filteredOn(p -> p.place().equals("by the lamp")).allMatch(p -> p.reason()
                .contains("mains"));
        assertThat(ranked).filteredOn(p -> p.place().equals("cut off")).allMatch(p -> p.reason()
                .contains("cut off"));
        assertThat(ranked.get(0).snrDb()).isCloseTo(22, within(2.0));
        assertThat(ranked)
                .filteredOn(p -> p.place().equals("far"))
                .allMatch(p -> p.scoreDb() < ranked.get(0).scoreDb() - 8);
    }
}
