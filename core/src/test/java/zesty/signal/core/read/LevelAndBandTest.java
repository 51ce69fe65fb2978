package zesty.signal.core.read;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import zesty.signal.core.act.Band;
import zesty.signal.core.read.level.Level;
import zesty.signal.core.sample.TimeBase;

class LevelAndBandTest {
    private static Reader level(double rate, Map<String, String> settings) {
        Level kind = new Level();
        return kind.reader(Settings.of(kind, settings), rate);
    }

    private static void feed(Reader reader, double rate, double... values) {
        reader.accept(new double[][] {values}, values.length, new TimeBase.Steady(0, 1 / rate));
    }

    @Test
    void noiseIsThatOfOneSampleWhateverTheSlopeTheBendAndTheJumps() {
        Random random = new Random(3);
        double[] data = new double[6000];
        for (int i = 0; i < data.length; i++) {
            data[i] = i * 0.01 + 5 * Math.sin(i / 300.0) + 3 * (i / 850 % 2) + 0.3 * random.nextGaussian();
        }
        Reader reader = level(100, Map.of());
        feed(reader, 100, data);
        Reading whole = reader.reading();
        // Six thousand second differences, neighbours of which are alike: about 1.2 %.
        assertThat(whole.scalar("noise")).isCloseTo(0.3, within(0.015));
        assertThat(whole.scalar("mean")).isCloseTo(Arrays.stream(data).average().orElseThrow(), within(1e-9));
        assertThat(whole.scalar("min")).isEqualTo(Arrays.stream(data).min().orElseThrow());
        assertThat(whole.scalar("max")).isEqualTo(Arrays.stream(data).max().orElseThrow());
        // A window speaks of its own samples only.
        Reading last = reader.reading(55, 60);
        assertThat(last.scalar("samples")).isEqualTo(500);
        assertThat(last.scalar("mean"))
                .isCloseTo(Arrays.stream(data, 5500, 6000).average().orElseThrow(), within(1e-9));
    }

    /** Thermometers say −127, distances 8190 or 65535, where they have no reading; a switch that is on is one. */
    @Test
    void whatASensorSaysThatHasNoReadingIsNotTakenForOneSilently() {
        Random random = new Random(9);
        double[] calm =
                random.doubles(600, 19, 23).map(v -> Math.rint(16 * v) / 16).toArray();
        double[][] words = {calm.clone(), calm.clone(), calm.clone(), calm.clone()};
        for (int i = 40; i < 600; i += 100) {
            words[0][i] = -127;
            words[1][i] = 85;
            words[2][i] = words[2][i + 1] = 8190;
            words[3][i] = 60 + random.nextDouble();
        }
        for (int k = 0; k < 4; k++) {
            Reader reader = level(10, Map.of());
            feed(reader, 10, words[k]);
            Quality quality = reader.reading().quality();
            assertThat(quality.share()).as("%d", k).isEqualTo(k < 3 ? 0.5 : 1);
            if (k < 3) {
                assertThat(quality.reasons().get(0))
                        .startsWith(List.of(
                                        "6 of 600 samples are exactly −127",
                                        "6 of 600 samples are exactly 85",
                                        "12 of 600 samples are exactly 8190")
                                .get(k));
            }
        }
        Reader door = level(10, Map.of());
        feed(door, 10, random.ints(400, 0, 2).asDoubleStream().toArray());
        assertThat(door.reading().quality().share()).isEqualTo(1);
        // A heater that is on for a third of the time.
        Reader heater = level(10, Map.of());
        double[] watts = new double[600];
        Arrays.setAll(watts, i -> i / 100 % 3 == 1 ? 1500 + random.nextInt(9) : random.nextInt(3));
        feed(heater, 10, watts);
        assertThat(heater.reading().quality().share()).isEqualTo(1);
    }

    @Test
    void bandsAreCrossedByTheRuleToTheSample() {
        Reader reader = level(10, Map.of("bands", "10,20", "hysteresis", "2"));
        // Starts in band 0 as it lies; up at 11 or more, over two edges at once, down below 19 and below 9.
        feed(reader, 10, 9.5, 10.5, 11, 10.2, 9, 8.9, 25, 19.5, 18.9, 18.9);
        Reading reading = reader.reading();
        List<Event> crossings = reading.events("crossings");
        assertThat(crossings).extracting(Event::startSeconds).containsExactly(0.2, 0.5, 0.6000000000000001, 0.8);
        assertThat(crossings.stream().map(Event::values).toList())
                .containsExactly(new double[] {0, 1}, new double[] {1, 0}, new double[] {0, 2}, new double[] {2, 1});
        Item.Numbers held = (Item.Numbers) reading.items().stream()
                .filter(item -> item.key().equals("time_in_band"))
                .findFirst()
                .orElseThrow();
        assertThat(held.values()).containsExactly(new double[] {0.3, 0.5, 0.2}, within(1e-12));
        // An edge itself belongs to the band above it, at the very first sample too.
        Reader at = level(10, Map.of("bands", "10"));
        feed(at, 10, 10, 9.999, 10);
        assertThat(at.reading().events("crossings")).hasSize(2);
    }

    /** Of a night on a line that loses rows not every gap is kept, and the time in a band is right all the same. */
    @Test
    void timeInABandIsRightHoweverManyGapsThereAre() {
        Reader reader = level(10, Map.of("bands", "10"));
        for (int i = 0; i < 20_000; i++) {
            reader.gap();
            reader.accept(new double[][] {{12}}, 1, new TimeBase.Steady(0.3 * i, 0.1));
        }
        for (double from : new double[] {0.05, 200, 2900, 5300, 5990}) {
            Item.Numbers held = (Item.Numbers) reader.reading(from, 6000).items().stream()
                    .filter(item -> item.key().equals("time_in_band"))
                    .findFirst()
                    .orElseThrow();
            assertThat(held.values()[1]).as("from " + from).isCloseTo((6000 - from) / 3, within(0.5));
        }
    }

    @Test
    void noiseBelowTheSlackCrossesNothing() {
        Random random = new Random(8);
        double[] data = random.doubles(20_000, 19.6, 20.4).toArray();
        Reader calm = level(10, Map.of("bands", "20", "hysteresis", "1"));
        feed(calm, 10, data);
        assertThat(calm.reading().events("crossings")).isEmpty();
        Reader bare = level(10, Map.of("bands", "20"));
        feed(bare, 10, data);
        assertThat(bare.reading().events("crossings")).hasSizeGreaterThan(5000);
        assertThatThrownBy(() -> level(10, Map.of("bands", "20,10"))).hasMessageContaining("rising numbers");
        assertThatThrownBy(() -> level(10, Map.of("bands", "10,11", "hysteresis", "3")))
                .hasMessage("hysteresis must be less than twice the narrowest band, which is 1 wide; was 3");
        assertThatThrownBy(() -> level(10, Map.of("band", "20")))
                .hasMessage("level has no setting 'band'; it has bands, hysteresis");
    }

    @Test
    void aBandLetsGoOnlyAfterItsSlack() {
        Band band = new Band(60, 100, 3);
        Band.Side side = Band.Side.UNKNOWN;
        double[] rates = {80, 100.5, 98, 97.5, 96.9, 59, 62.9, 63.1, Double.NaN};
        Band.Side[] expected = {
            Band.Side.INSIDE,
            Band.Side.ABOVE,
            Band.Side.ABOVE,
            Band.Side.ABOVE,
            Band.Side.INSIDE,
            Band.Side.BELOW,
            Band.Side.BELOW,
            Band.Side.INSIDE,
            Band.Side.UNKNOWN
        };
        for (int i = 0; i < rates.length; i++) {
            side = band.next(side, rates[i]);
            assertThat(side).as("rate " + rates[i]).isEqualTo(expected[i]);
        }
        assertThatThrownBy(() -> new Band(60, 50, 0)).hasMessageContaining("low < high");
        assertThatThrownBy(() -> new Band(60, 60, 0)).hasMessageContaining("low < high");
        assertThatThrownBy(() -> new Band(60, 100, 20)).hasMessageContaining("half its width");
        assertThatThrownBy(() -> new Band(60, 100, -1)).hasMessageContaining("0 ≤ hysteresis");
        // On an edge is inside, and where it comes back to just as far as it must.
        assertThat(band.next(Band.Side.INSIDE, 60)).isEqualTo(Band.Side.INSIDE);
        assertThat(band.next(Band.Side.INSIDE, 100)).isEqualTo(Band.Side.INSIDE);
        assertThat(band.next(Band.Side.ABOVE, 97)).isEqualTo(Band.Side.INSIDE);
        assertThat(band.next(Band.Side.BELOW, 63)).isEqualTo(Band.Side.INSIDE);
    }
}
