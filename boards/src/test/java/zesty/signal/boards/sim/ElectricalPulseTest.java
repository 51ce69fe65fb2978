package zesty.signal.boards.sim;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.read.PulseKind;
import zesty.signal.core.read.PulseReader;
import zesty.signal.core.read.PulseReading;
import zesty.signal.core.sample.TimeBase;

/** The electrical kind on a made-up heart signal: three waves a beat, hum, drift, and beats that come early. */
class ElectricalPulseTest {
    @ParameterizedTest
    @CsvSource({"1,250,62,1", "2,500,95,-1", "3,1000,48,1", "4,360,110,1"})
    void everyBeatIsFoundAlsoTheEarlyOnes(long seed, double rate, double bpm, double sign) {
        Random random = new Random(seed);
        double seconds = 180;
        List<Double> beats = new ArrayList<>();
        List<Double> early = new ArrayList<>();
        double t = 0.5;
        while (t < seconds - 0.5) {
            beats.add(t);
            double usual = 60 / bpm * (1 + 0.03 * random.nextGaussian());
            boolean comesEarly = beats.size() % 17 == 0;
            t += comesEarly ? 0.68 * usual : usual;
            if (comesEarly && t < seconds - 0.5) {
                early.add(t);
            }
        }
        double[] x = new double[(int) (seconds * rate)];
        for (int i = 0; i < x.length; i++) {
            double at = i / rate;
            x[i] = 512
                    + 40 * Math.sin(2 * Math.PI * 0.25 * at)
                    + 12 * Math.sin(2 * Math.PI * 50 * at)
                    + 4 * random.nextGaussian();
        }
        for (double beat : beats) {
            wave(x, rate, beat - 0.16, 0.025, sign * 22);
            wave(x, rate, beat - 0.028, 0.009, sign * -28);
            wave(x, rate, beat, 0.011, sign * 210);
            wave(x, rate, beat + 0.03, 0.010, sign * -45);
            wave(x, rate, beat + 0.26, 0.045, sign * 55);
        }
        PulseReader reader = new PulseReader(PulseKind.ELECTRICAL, rate);
        reader.accept(x, x.length, new TimeBase.Steady(0, 1 / rate));
        reader.finish();
        PulseReading reading = reader.reading();
        long missed =
                beats.stream().filter(b -> b > 1 && !near(reading.beats(), b)).count();
        long extra = Arrays.stream(reading.beats())
                .filter(b -> beats.stream().noneMatch(r -> Math.abs(r - b) < 0.05))
                .count();
        assertThat((double) missed / beats.size()).isLessThanOrEqualTo(0.01);
        assertThat((double) extra / beats.size()).isLessThanOrEqualTo(0.01);
        assertThat(early).hasSizeGreaterThan(5).allMatch(b -> near(reading.beats(), b));
        double trueRate = 60 * (beats.size() - 1) / (beats.get(beats.size() - 1) - beats.get(0));
        assertThat(reading.meanBpm()).isCloseTo(trueRate, within(1.0));
        assertThat(reading.upright()).isEqualTo(sign > 0);
    }

    private static boolean near(double[] found, double beat) {
        return Arrays.stream(found).anyMatch(f -> Math.abs(f - beat) < 0.05);
    }

    private static void wave(double[] x, double rate, double centre, double width, double height) {
        int from = (int) Math.max(0, (centre - 6 * width) * rate);
        int to = (int) Math.min(x.length, (centre + 6 * width) * rate);
        for (int i = from; i < to; i++) {
            double away = (i / rate - centre) / width;
            x[i] += height * Math.exp(-0.5 * away * away);
        }
    }
}
