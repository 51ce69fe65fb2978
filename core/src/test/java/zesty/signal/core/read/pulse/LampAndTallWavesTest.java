package zesty.signal.core.read.pulse;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;
import zesty.signal.core.sample.TimeBase;

/** What looks like beats and is none: lamp light folded down to the pace of the heart, and T waves as tall as R. */
class LampAndTallWavesTest {
    private static final double LASTS = 80;

    private static List<Double> beats(double aMinute, Random random) {
        List<Double> beats = new ArrayList<>();
        for (double t = 0.5; t < LASTS - 1; t += 60 / aMinute * (1 + 0.03 * random.nextGaussian())) {
            beats.add(t);
        }
        return beats;
    }

    private static double bell(double t, double at, double wide) {
        return Math.exp(-Math.pow((t - at) / wide, 2));
    }

    private static Reading read(String kind, double rate, DoubleUnaryOperator signal) {
        double[] x = new double[(int) (LASTS * rate)];
        Arrays.setAll(x, i -> Math.rint(signal.applyAsDouble(i / rate)));
        Pulse pulse = new Pulse();
        Reader reader = pulse.reader(Settings.of(pulse, Map.of("kind", kind)), rate);
        reader.accept(new double[][] {x}, x.length, new TimeBase.Steady(0, 1 / rate));
        reader.finish();
        return reader.reading();
    }

    /** @return how many of the beats have none found within a tenth of a second of the usual delay, and the reverse */
    private static int off(List<Double> beats, double[] found) {
        double[] delays = Arrays.stream(found)
                .map(f -> beats.stream()
                        .mapToDouble(b -> f - b)
                        .filter(d -> d > -0.1)
                        .min()
                        .orElse(Double.NaN))
                .sorted()
                .toArray();
        double delay = delays.length == 0 ? 0 : delays[delays.length / 2];
        long missed = beats.stream()
                .filter(b -> Arrays.stream(found).noneMatch(f -> Math.abs(f - b - delay) < 0.1))
                .count();
        long invented = Arrays.stream(found)
                .filter(f -> beats.stream().noneMatch(b -> Math.abs(f - b - delay) < 0.1))
                .count();
        return (int) (missed + invented);
    }

    @ParameterizedTest
    @CsvSource({"50.6,1", "49.4,2", "25.3,3"})
    void lampLightAtThePaceOfTheHeartTakesNoBeat(double rate, long seed) {
        Random random = new Random(seed);
        List<Double> beats = beats(70, random);
        Reading reading = read(
                "optical",
                rate,
                t -> 2000
                        + 150 * Math.sin(2 * Math.PI * 100 * t)
                        + 3 * random.nextGaussian()
                        + 300
                                * beats.stream()
                                        .mapToDouble(b -> bell(t, b + 0.12, 0.07) + 0.35 * bell(t, b + 0.38, 0.1))
                                        .sum());
        assertThat(off(beats, reading.times("beats"))).isLessThanOrEqualTo(4);
    }

    @ParameterizedTest
    @CsvSource({"4", "5", "6"})
    void wavesAsTallAsTheBeatAreNoEarlyBeats(long seed) {
        Random random = new Random(seed);
        List<Double> beats = beats(62, random);
        Reading reading = read(
                "electrical",
                250,
                t -> 512
                        + 2 * random.nextGaussian()
                        + 200
                                * beats.stream()
                                        .mapToDouble(b -> bell(t, b, 0.012)
                                                - 0.15 * bell(t, b - 0.025, 0.01)
                                                - 0.2 * bell(t, b + 0.03, 0.012)
                                                + 0.12 * bell(t, b - 0.16, 0.03)
                                                + bell(t, b + 0.28, 0.05))
                                        .sum());
        assertThat(off(beats, reading.times("beats"))).isLessThanOrEqualTo(2);
        assertThat(reading.scalar("early")).isZero();
    }
}
