package zesty.signal.core.read.vibration;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;
import zesty.signal.core.sample.TimeBase;

/** What was kept of a vibration: a good state to compare with, and the lines of another rate; tones are sines on paper. */
class HeldStateTest {
    private record Tone(double hz, double amplitude) {}

    /** Tones whose strength wavers by a twentieth from second to second, in noise. */
    private static double[] shaking(double rate, int seconds, long seed, Tone... tones) {
        Random random = new Random(seed);
        double[] x = new double[(int) (rate * seconds)];
        for (Tone tone : tones) {
            double phase = random.nextDouble() * 7;
            for (int s = 0; s < seconds; s++) {
                double strength = tone.amplitude * (1 + 0.05 * random.nextGaussian());
                for (int i = (int) (s * rate); i < (s + 1) * rate; i++) {
                    x[i] += strength * Math.sin(2 * Math.PI * tone.hz * i / rate + phase);
                }
            }
        }
        for (int i = 0; i < x.length; i++) {
            x[i] += 0.02 * random.nextGaussian();
        }
        return x;
    }

    private static Reading read(double[] x, double rate, Map<String, String> set) {
        Vibration kind = new Vibration();
        Reader reader = kind.reader(Settings.of(kind, set), rate);
        reader.accept(new double[][] {x}, x.length, new TimeBase.Steady(0, 1 / rate));
        reader.finish();
        return reader.reading();
    }

    private static String kept(Reading reading) {
        return reading.records("state").stream()
                .map(one -> one[0] + "," + one[1] + "," + one[2])
                .collect(Collectors.joining(","));
    }

    @ParameterizedTest
    @CsvSource({"1", "2", "3", "4"})
    void theLineThatGrewAndTheNewOneAreNamedAndTheOthersAreNot(long seed) {
        Tone hum = new Tone(46, 1);
        Tone second = new Tone(92, 0.3);
        Tone third = new Tone(138, 0.2);
        String good = kept(read(shaking(1600, 20, seed, hum, second, third), 1600, Map.of()));
        assertThat(good.split(",")).hasSize(9);
        double[] same = shaking(1600, 20, seed + 50, hum, second, third);
        assertThat(read(same, 1600, Map.of("good", good)).records("grown")).allMatch(one -> one[4] == 0);
        double[] worn = shaking(1600, 20, seed + 90, hum, new Tone(92, 0.6), third, new Tone(211, 0.15));
        List<double[]> grown = read(worn, 1600, Map.of("good", good)).records("grown").stream()
                .filter(one -> one[4] == 1)
                .toList();
        assertThat(grown).hasSize(2);
        assertThat(grown).anySatisfy(one -> {
            assertThat(one[0]).isCloseTo(92, within(0.5));
            assertThat(one[2] / one[1]).isCloseTo(2, within(0.15));
        });
        assertThat(grown).anySatisfy(one -> {
            assertThat(one[0]).isCloseTo(211, within(0.5));
            assertThat(one[1]).isZero();
        });
    }

    /** 900 Hz at 1600/s shows at 700, at 1000/s at 100; 347 Hz stays where it is at both. */
    @Test
    void aFoldedLineIsToldByRecordingAtAnotherRate() {
        Tone[] tones = {new Tone(900, 1), new Tone(347, 0.5)};
        double[] slow = shaking(1000, 8, 4, tones);
        String seen = "1000,"
                + read(slow, 1000, Map.of()).records("peaks").stream()
                        .map(one -> String.valueOf(one[0]))
                        .collect(Collectors.joining(","));
        List<double[]> unfolded =
                read(shaking(1600, 8, 5, tones), 1600, Map.of("seen", seen)).records("unfolded");
        assertThat(unfolded).hasSize(2);
        assertThat(unfolded.get(0)[0]).isCloseTo(700, within(0.3));
        assertThat(unfolded.get(0)[2]).isCloseTo(900, within(0.6));
        assertThat(unfolded.get(1)[2]).isCloseTo(347, within(0.3));
        assertThat(read(slow, 1000, Map.of("seen", seen)).records("unfolded")).isEmpty();
    }
}
