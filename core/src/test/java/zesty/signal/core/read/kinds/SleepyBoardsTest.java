package zesty.signal.core.read.kinds;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;
import zesty.signal.core.sample.TimeBase;

/**
 * Boards that sleep and send, and batteries side by side, by models that were written from what such things do: duty cycles with
 * jitter, converters of few counts, noise that grows with the current, drift, gaps; cells with resistances of their own.
 */
class SleepyBoardsTest {
    private static Reading read(
            String kind, Map<String, String> settings, double[] seconds, double rate, double[]... ports) {
        ReaderKind of = ReaderKinds.of(kind);
        Reader reader = of.reader(Settings.of(of, settings), rate);
        reader.named(
                IntStream.range(0, ports.length).mapToObj(p -> "b" + (p + 1)).toList());
        reader.accept(ports, seconds.length, new TimeBase.Explicit(seconds));
        reader.finish();
        return reader.reading();
    }

    /** What a sleepy board draws: its states one after the other, each a little longer or shorter than usual. */
    private record Duty(double[] amps, double[] share, double[] drawn) {
        static Duty of(Random random, int samples, double rate, double[] amps, double[] lasts, double jitter) {
            double[] drawn = new double[samples];
            double[] share = new double[amps.length];
            int state = 0;
            double until = lasts[0];
            for (int i = 0; i < samples; i++) {
                while (i / rate >= until) {
                    state = (state + 1) % amps.length;
                    until += Math.max(2 / rate, lasts[state] * (1 + jitter * random.nextGaussian()));
                }
                drawn[i] = amps[state];
                share[state] += 1.0 / samples;
            }
            return new Duty(amps, share, drawn);
        }
    }

    private static List<double[]> states(Reading reading) {
        return reading.items().stream()
                .filter(item -> item.key().equals("states"))
                .map(item -> ((Item.Records) item).records())
                .findFirst()
                .orElseThrow();
    }

    /** @param noise share of the current that is noise. @param step of the converter, in A */
    @ParameterizedTest
    @CsvSource({"0.005, 0.00001", "0.02, 0.0001", "0.04, 0.0005", "0.01, 0.001"})
    void theStatesOfADutyCycleAreFoundWithTheirSharesAndWhatADayCosts(double noise, double step) {
        int right = 0;
        int runs = 25;
        double rate = 100;
        int samples = 12_000;
        for (int run = 0; run < runs; run++) {
            Random random = new Random(1000 + run);
            double sending = 0.08 + 0.1 * random.nextDouble();
            Duty duty = Duty.of(
                    random,
                    samples,
                    rate,
                    new double[] {0.0012, 0.02 + 0.01 * random.nextDouble(), sending},
                    new double[] {3 + 2 * random.nextDouble(), 0.5, 0.12},
                    0.15);
            double[] seconds = new double[samples];
            double[] measured = new double[samples];
            double charge = 0;
            for (int i = 0; i < samples; i++) {
                seconds[i] = i / rate;
                double wander = 1 + 0.01 * Math.sin(i / 3000.0);
                double came =
                        duty.drawn()[i] * (wander + noise * random.nextGaussian()) + 0.3 * step * random.nextGaussian();
                measured[i] = Math.rint(came / step) * step;
                charge += duty.drawn()[i] * wander / rate / 3600;
            }
            Reading reading = read("supply", Map.of(), seconds, rate, measured);
            assertThat(reading.scalar("charge_ah")).isCloseTo(charge, within(0.02 * charge + 0.05 * step * 120 / 3600));
            List<double[]> found = states(reading);
            boolean ok = found.size() == 3;
            for (int s = 0; ok && s < 3; s++) {
                ok = Math.abs(found.get(s)[0] - duty.amps()[s]) < 0.04 * duty.amps()[s] + 0.5 * step
                        && Math.abs(found.get(s)[1] - duty.share()[s]) < 0.01
                        && Math.abs(found.get(s)[2] - 24 * found.get(s)[0] * found.get(s)[1]) < 1e-9;
            }
            right += ok ? 1 : 0;
        }
        assertThat(right).as("of " + runs).isGreaterThanOrEqualTo(runs - 2);
    }

    /** What goes over all values has no states, and noise has none either. */
    @Test
    void whatDoesNotSwitchIsOneState() {
        Random random = new Random(5);
        double[] seconds = IntStream.range(0, 6000).mapToDouble(i -> i / 50.0).toArray();
        for (int run = 0; run < 20; run++) {
            double[] swing = new double[6000];
            double[] noise = new double[6000];
            double period = 200 + 50 * run;
            Arrays.setAll(swing, i -> 1 + 0.8 * Math.sin(2 * Math.PI * i / period) + 0.01 * random.nextGaussian());
            Arrays.setAll(noise, i -> 0.4 + 0.05 * random.nextGaussian());
            assertThat(states(read("supply", Map.of(), seconds, 50, swing))).hasSize(1);
            assertThat(states(read("supply", Map.of(), seconds, 50, noise))).hasSize(1);
        }
    }

    /**
     * Batteries on one load: each with its own voltage, resistance and drain, measured with noise and few counts, one after the other
     * of a row a little late.
     */
    private static double[][] batteries(Random random, double[] ohms, double[] voltsAnHour, int rows, boolean loaded) {
        double[][] volts = new double[ohms.length][rows];
        double load = 0;
        int next = 20 + random.nextInt(20);
        for (int i = 0; i < rows; i++) {
            if (i == next) {
                load = load == 0 && loaded ? 4 + random.nextDouble() : 0;
                next += 15 + random.nextInt(40);
            }
            for (int b = 0; b < ohms.length; b++) {
                double open = 12.6 + 0.03 * b + voltsAnHour[b] * i / 3600;
                double seen = open - ohms[b] * (0.1 + load) + 0.004 * random.nextGaussian();
                volts[b][i] = Math.rint(seen / 0.005) * 0.005;
            }
        }
        return volts;
    }

    private static boolean isWeak(Reading reading, int cell) {
        return reading.items().stream()
                .filter(item -> item.key().equals("cells"))
                .map(item -> (Boolean) ((Item.Rows) item).rows().get(cell).get(5))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void theWeakOfFiveIsNamedAndOfFiveAlikeNone() {
        int named = 0;
        int alarms = 0;
        int runs = 60;
        for (int run = 0; run < runs; run++) {
            Random random = new Random(run);
            double[] ohms = new double[5];
            double[] falls = new double[5];
            for (int b = 0; b < 5; b++) {
                ohms[b] = 0.05 * (1 + 0.06 * random.nextGaussian());
                falls[b] = -0.06 * (1 + 0.06 * random.nextGaussian());
            }
            double[] seconds = IntStream.range(0, 1200).mapToDouble(i -> i).toArray();
            Reading alike = read("cells", Map.of(), seconds, 1, batteries(random, ohms, falls, 1200, true));
            alarms += alike.scalar("weak") > 0 ? 1 : 0;
            int weak = random.nextInt(5);
            ohms[weak] *= 2.2;
            Reading one = read("cells", Map.of("cutoff", "11"), seconds, 1, batteries(random, ohms, falls, 1200, true));
            named += one.word("weakest").equals("b" + (weak + 1)) && isWeak(one, weak) && one.scalar("weak") == 1
                    ? 1
                    : 0;
            // Without a load it cannot be known, and that is said.
            Reading idle = read("cells", Map.of(), seconds, 1, batteries(random, ohms, falls, 1200, false));
            assertThat(idle.quality().share()).isLessThanOrEqualTo(0.5);
            assertThat(idle.quality().reasons()).isNotEmpty();
        }
        assertThat(named).as("named of " + runs).isGreaterThanOrEqualTo(57);
        // Three spreads of only four others are passed by chance now and then, as Student's t of three degrees says.
        assertThat(alarms).as("of alike ones").isLessThanOrEqualTo(8);
    }

    /** A station that goes out of range takes its rows with it: what is left answers, and a lead the wrong way round is said. */
    @Test
    void aStationThatDropsOutCostsItsRowsOnly() {
        Random random = new Random(77);
        double[] ohms = {0.05, 0.05, 0.14, 0.05};
        double[] falls = {-0.05, -0.05, -0.05, -0.05};
        double[] seconds = IntStream.range(0, 900).mapToDouble(i -> i).toArray();
        double[][] volts = batteries(random, ohms, falls, 900, true);
        Reading whole = read("cells", Map.of(), seconds, 1, volts);
        for (int i = 300; i < 420; i++) {
            volts[1][i] = Double.NaN;
        }
        Reading holed = read("cells", Map.of(), seconds, 1, volts);
        assertThat(whole.word("weakest")).isEqualTo("b3");
        assertThat(holed.word("weakest")).isEqualTo("b3");
        List<Double> sags = new ArrayList<>();
        for (Reading each : List.of(whole, holed)) {
            sags.add((Double) ((Item.Rows) each.items().stream()
                            .filter(item -> item.key().equals("cells"))
                            .findFirst()
                            .orElseThrow())
                    .rows()
                    .get(2)
                    .get(2));
        }
        assertThat(sags.get(0)).isCloseTo(0.14 * 4.5, within(0.08));
        assertThat(sags.get(1)).isCloseTo(sags.get(0), within(0.03));
        double[] amps = new double[900];
        double[] back = new double[900];
        for (int i = 0; i < 900; i++) {
            amps[i] = i / 60 % 2 == 0 ? 0.2 : 3;
            back[i] = 12 + 0.1 * amps[i] + 0.002 * random.nextGaussian();
        }
        Reading wrong = read("supply", Map.of(), seconds, 1, amps, back);
        assertThat(wrong.quality().share()).isLessThanOrEqualTo(0.4);
        assertThat(wrong.quality().reasons().toString()).contains("wrong way round");
    }
}
