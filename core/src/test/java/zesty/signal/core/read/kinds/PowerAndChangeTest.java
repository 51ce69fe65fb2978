package zesty.signal.core.read.kinds;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;
import zesty.signal.core.sample.TimeBase;

/** Supplies, cells and changes after a moment, by their definitions on paper and on what cheap sensors make of them. */
class PowerAndChangeTest {
    private static Reading read(String kind, Map<String, String> settings, double[] seconds, double[]... ports) {
        ReaderKind of = ReaderKinds.of(kind);
        double step = seconds.length < 2 ? 1 : seconds[1] - seconds[0];
        Reader reader = of.reader(Settings.of(of, settings), 1 / step);
        reader.named(IntStream.rangeClosed(1, ports.length)
                .mapToObj(p -> "cell " + p)
                .toList());
        reader.accept(ports, seconds.length, new TimeBase.Explicit(seconds));
        reader.finish();
        return reader.reading();
    }

    private static double[] times(int n, double step) {
        return IntStream.range(0, n).mapToDouble(i -> i * step).toArray();
    }

    @Test
    void chargeAndEnergyAreTrapezoidsOverTheTimesThereAreAndNothingAcrossAGap() {
        // 2 A rising to 4 A in an hour at 12 V: 3 Ah, 36 Wh; then a gap of an hour; then half an hour at 1 A and 10 V.
        double[] seconds = {0, 1200, 2400, 3600, 7800, 9000, 9600};
        double[] amps = {2, 2 + 2 / 3.0, 2 + 4 / 3.0, 4, 1, 1, 1};
        double[] volts = {12, 12, 12, 12, 10, 10, 10};
        Reading reading = read("supply", Map.of("capacity", "10"), seconds, amps, volts);
        assertThat(reading.scalar("charge_ah")).isCloseTo(3.5, within(1e-12));
        assertThat(reading.scalar("energy_wh")).isCloseTo(41, within(1e-12));
        assertThat(reading.scalar("mean_a")).isCloseTo(3.5 / 1.5, within(1e-12));
        assertThat(reading.scalar("peak_w")).isEqualTo(48);
        assertThat(reading.scalar("missing_s")).isEqualTo(4200);
        assertThat(reading.scalar("left_s")).isCloseTo((10 - 3.5) / (3.5 / 1.5) * 3600, within(1e-9));
        assertThat(reading.scalar("resistance_ohm")).isNaN();
        assertThat(reading.quality().share()).isLessThan(0.7);
        assertThat(read("supply", Map.of(), seconds, amps).scalar("energy_wh")).isNaN();
    }

    @ParameterizedTest
    @CsvSource({"1000, 1, true", "1, 1000, true", "1, 1, false"})
    void milliampsAndMillivoltsReadAsAmpsAndVoltsAreDoubted(double currents, double voltages, boolean doubted) {
        double[] seconds = times(60, 1);
        double[] amps = Arrays.stream(seconds).map(t -> currents * (2 + t / 60)).toArray();
        double[] volts =
                Arrays.stream(seconds).map(t -> voltages * (12.6 - t / 600)).toArray();
        Reading reading = read("supply", Map.of(), seconds, amps, volts);
        assertThat(reading.quality().share() < 0.3).isEqualTo(doubted);
    }

    @ParameterizedTest
    @CsvSource({"0.15,0.002,1", "0.05,0.004,2", "0.4,0.01,3", "0.15,0.002,4"})
    void innerResistanceComesFromLoadStepsInNoiseAndSlowRampsGiveNone(double ohms, double noise, long seed) {
        Random random = new Random(seed);
        double[] seconds = times(1200, 1);
        double[] amps = new double[1200];
        double[] volts = new double[1200];
        double[] ramp = new double[1200];
        for (int i = 0; i < 1200; i++) {
            amps[i] = (i / 75 % 2 == 0 ? 0.2 : 2.4 + 0.3 * (i / 150 % 3)) + noise * random.nextGaussian();
            volts[i] = 12.6 - 1e-4 * i - ohms * amps[i] + noise * random.nextGaussian();
            ramp[i] = 1 + 0.8 * Math.sin(i / 90.0) + noise * random.nextGaussian();
        }
        Reading reading = read("supply", Map.of("cutoff", "10"), seconds, amps, volts);
        assertThat(reading.scalar("resistance_ohm")).isCloseTo(ohms, within(0.05 * ohms + noise));
        assertThat(reading.quality().share()).as("a step in the last tenth").isLessThanOrEqualTo(0.5);
        assertThat(read("supply", Map.of(), seconds, ramp, volts).scalar("resistance_ohm"))
                .isNaN();
        // Steady to the end: 0.1 mV a second from 12.6 V less the load's drop.
        double[] steady = new double[1200];
        Arrays.fill(steady, 1);
        double[] falling = new double[1200];
        Arrays.setAll(falling, i -> 12.5 - 1e-4 * i);
        Reading last = read("supply", Map.of("cutoff", "11"), seconds, steady, falling);
        assertThat(last.scalar("left_s")).isCloseTo((12.5 - 0.1199 - 11) / 1e-4, within(1e-3));
        assertThat(last.quality().share()).isEqualTo(1);
        assertThat(read("supply", Map.of("cutoff", "11"), seconds, steady, seconds)
                        .scalar("left_s"))
                .isNaN();
    }

    /** Asleep for 50 s, awake for 8, sending for 2, ten times over. */
    @Test
    void theStatesOfADutyCycleAreFoundWithTheirShares() {
        Random random = new Random(9);
        double[] seconds = times(1200, 0.5);
        double[] amps = Arrays.stream(seconds)
                .map(t -> (t % 60 < 50 ? 0.002 : t % 60 < 58 ? 0.03 : 0.25) + 0.0002 * random.nextGaussian())
                .toArray();
        List<double[]> states = read("supply", Map.of(), seconds, amps).items().stream()
                .filter(item -> item.key().equals("states"))
                .flatMap(item -> ((Item.Records) item).records().stream())
                .toList();
        assertThat(states).hasSize(3);
        double[][] wanted = {{0.002, 50 / 60.0}, {0.03, 8 / 60.0}, {0.25, 2 / 60.0}};
        for (int s = 0; s < 3; s++) {
            assertThat(states.get(s)[0]).isCloseTo(wanted[s][0], within(0.05 * wanted[s][0]));
            assertThat(states.get(s)[1]).isCloseTo(wanted[s][1], within(0.01));
            assertThat(states.get(s)[2])
                    .isCloseTo(24 * wanted[s][0] * wanted[s][1], within(0.1 * wanted[s][0] * 24 * wanted[s][1]));
        }
    }

    /** A logger's row a second, a load of five seconds now and then. */
    @ParameterizedTest
    @ValueSource(ints = {5, 6, 9, 20})
    void loadsOfAFewSamplesTellTheResistanceToo(int on) {
        Random random = new Random(on);
        double[] seconds = times(300, 1);
        double[] amps = new double[300];
        double[] volts = new double[300];
        for (int i = 0; i < 300; i++) {
            amps[i] = (i % 40 < 40 - on ? 0.1 : 1.6) + 0.002 * random.nextGaussian();
            volts[i] = 12.4 - 0.2 * amps[i] + 0.002 * random.nextGaussian();
        }
        assertThat(read("supply", Map.of(), seconds, amps, volts).scalar("resistance_ohm"))
                .isCloseTo(0.2, within(0.005));
    }

    private static Reading cells(double[] sags, double[] slopes, double noise, long seed, boolean loaded) {
        Random random = new Random(seed);
        double[] seconds = times(1200, 1);
        double[][] volts = new double[sags.length][1200];
        for (int i = 0; i < 1200; i++) {
            double load = loaded && i / 100 % 2 == 1 ? 1 : 0;
            for (int c = 0; c < sags.length; c++) {
                volts[c][i] = 4.1 + 0.01 * c - slopes[c] * i / 3600 - sags[c] * load + noise * random.nextGaussian();
            }
        }
        return read("cells", Map.of("cutoff", "3"), seconds, volts);
    }

    private static List<Object> cell(Reading reading, int index) {
        return reading.items().stream()
                .filter(item -> item instanceof Item.Rows)
                .map(item -> ((Item.Rows) item).rows().get(index))
                .findFirst()
                .orElseThrow();
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5})
    void theCellThatSagsOrFallsIsTheWeakOneAndAlikeOnesAreNot(long seed) {
        double[] alike = {0.05, 0.051, 0.049, 0.0505, 0.0495, 0.05};
        double[] slopes = {0.2, 0.201, 0.199, 0.2, 0.2, 0.2};
        Reading well = cells(alike, slopes, 0.001, seed, true);
        assertThat(well.scalar("weak")).isZero();
        assertThat(well.scalar("spread_v")).isCloseTo(0.05, within(0.002));
        double[] sagging = alike.clone();
        sagging[2] = 0.11;
        Reading sag = cells(sagging, slopes, 0.001, seed, true);
        assertThat(sag.word("weakest")).isEqualTo("cell 3");
        assertThat(sag.scalar("weak")).isEqualTo(1);
        assertThat((double) cell(sag, 2).get(2)).isCloseTo(0.11, within(0.003));
        assertThat((double) cell(sag, 0).get(2)).isCloseTo(0.05, within(0.003));
        double[] falling = slopes.clone();
        falling[4] = 0.5;
        Reading fall = cells(alike, falling, 0.001, seed, true);
        assertThat(fall.word("weakest")).isEqualTo("cell 5");
        assertThat(cell(fall, 4).get(5)).isEqualTo(true);
        // A load on one of them alone makes that one no weak cell, and is said.
        Reading alone = cells(new double[] {0, 0, 0.3, 0, 0, 0}, slopes, 0.001, seed, true);
        assertThat(alone.scalar("weak")).isZero();
        assertThat(alone.quality().share()).isLessThanOrEqualTo(0.5);
        assertThat(alone.quality().reasons().get(0)).contains("some of them only");
        // Without a load nobody can tell who sags, and that is said.
        Reading idle = cells(alike, slopes, 0.001, seed, false);
        assertThat((double) cell(idle, 0).get(2)).isNaN();
        assertThat((double) cell(idle, 0).get(3)).isCloseTo(-0.2, within(0.01));
        assertThat(idle.quality().share()).isLessThanOrEqualTo(0.5);
        assertThat(idle.scalar("weak")).isZero();
    }

    @Test
    void baselinePeakAndHalfWayTimesAreThoseOfTheDefinition() {
        // Rests at 3, climbs by one a second from 20 s to 28 s, falls by two a second back to 3.
        double[] seconds = times(121, 0.5);
        double[] x = Arrays.stream(seconds)
                .map(t -> 3 + Math.max(0, Math.min(t - 20, 8 - 2 * (t - 28))))
                .toArray();
        Reading reading = read("response", Map.of("at", "20"), seconds, x);
        assertThat(reading.scalar("baseline")).isEqualTo(3);
        assertThat(reading.scalar("sd")).isZero();
        assertThat(reading.scalar("peak")).isEqualTo(11);
        assertThat(reading.scalar("peak_t_s")).isEqualTo(28);
        assertThat(reading.scalar("change")).isEqualTo(8);
        // Half is 7: passed first at 24.5 s; back within it at 30 s, where it is 7 again.
        assertThat(reading.scalar("latency_s")).isEqualTo(4.5);
        assertThat(reading.scalar("half_recovery_s")).isEqualTo(2);
        assertThat(reading.quality().share()).isEqualTo(1);
        Reading shorter = read("response", Map.of("at", "20", "until", "4", "smooth", "1"), seconds, x);
        assertThat(shorter.scalar("peak_t_s")).isEqualTo(24);
        assertThat(shorter.scalar("peak")).isEqualTo(7);
        double[] stays = Arrays.stream(seconds).map(t -> t < 20 ? 0 : -1).toArray();
        Reading down = read("response", Map.of("at", "20"), seconds, stays);
        assertThat(down.scalar("change")).isEqualTo(-1);
        assertThat(down.scalar("latency_s")).isZero();
        assertThat(down.scalar("half_recovery_s")).isNaN();
    }

    @ParameterizedTest
    @ValueSource(longs = {11, 12, 13, 14, 15, 16, 17, 18})
    void noiseAndDriftAreNoChangeAndAClearOneIsBeyondDoubt(long seed) {
        Random random = new Random(seed);
        double[] seconds = times(2000, 0.05);
        double[] noise = Arrays.stream(seconds).map(t -> random.nextGaussian()).toArray();
        double[] drift = new double[noise.length];
        double[] clear = new double[noise.length];
        for (int i = 0; i < noise.length; i++) {
            drift[i] = 0.2 * noise[i] + 0.3 * seconds[i];
            clear[i] = noise[i] + (seconds[i] < 30 ? 0 : 12 * Math.exp(-(seconds[i] - 30) / 10));
        }
        Map<String, String> at = Map.of("at", "30");
        assertThat(read("response", at, seconds, noise).quality().share()).isLessThanOrEqualTo(0.3);
        assertThat(read("response", at, seconds, drift).quality().share()).isLessThan(0.4);
        Reading found = read("response", at, seconds, clear);
        assertThat(found.quality().share()).isEqualTo(1);
        assertThat(found.scalar("change")).isCloseTo(12, within(3.0));
        assertThat(found.scalar("latency_s")).isLessThan(1);
    }

    @Test
    void whenItHappenedMustBeSaidOnceAndLieWithinTheRecord() {
        double[] seconds = times(100, 1);
        assertThat(read("response", Map.of(), seconds, seconds).refusal()).startsWith("say when it happened");
        assertThat(read("response", Map.of("at", "120"), seconds, seconds).refusal())
                .isEqualTo("at=120 s lies outside the record, which runs from 0 to 99 s");
        assertThatThrownBy(() -> read("response", Map.of("at", "5", "mark", "gust"), seconds, seconds))
                .isInstanceOf(ReaderException.class);
    }
}
