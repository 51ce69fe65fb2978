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
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.Reading;

/** Sounds made of partials, and pulls of a muscle as band-limited noise whose strength goes up and down. */
class ToneAndMuscleTest {
    private static double cents(double a, double b) {
        return 1200 * Math.abs(Math.log(a / b)) / Math.log(2);
    }

    private static double[] sound(
            double hz, double[] heights, double noise, double rate, double seconds, Random random) {
        double[] x = new double[(int) (seconds * rate)];
        for (int k = 0; k < heights.length; k++) {
            double phase = 2 * Math.PI * random.nextDouble();
            for (int i = 0; i < x.length; i++) {
                x[i] += heights[k] * Math.sin(2 * Math.PI * hz * (k + 1) * i / rate + phase);
            }
        }
        for (int i = 0; i < x.length; i++) {
            x[i] += noise * random.nextGaussian();
        }
        return x;
    }

    /** Half a second a note, whole steps of equal temperament up from 220 Hz. */
    @Test
    void aToneSungUpAScaleIsFollowedNoteByNote() {
        double rate = 8000;
        double[] scale = {0, 2, 4, 5, 7, 9, 11, 12};
        double[] x = new double[(int) (scale.length * rate / 2)];
        for (int i = 0; i < x.length; i++) {
            double hz = 220 * Math.pow(2, scale[(int) (2 * i / rate)] / 12);
            double t = i / rate;
            x[i] = 0.3 * Math.sin(2 * Math.PI * hz * t) + Math.sin(4 * Math.PI * hz * t + 1);
        }
        Item.Trace pitch = Asked.of("tone", rate, x).trace("pitch").orElseThrow();
        assertThat(pitch.seconds()).hasSize(2 * scale.length);
        for (int k = 0; k < pitch.seconds().length; k++) {
            double hz = 220 * Math.pow(2, scale[k / 2] / 12);
            // Within a tenth of a half step: a look of a quarter of a second tells 4 Hz, and its centre far less.
            assertThat(cents(pitch.values()[k], hz))
                    .as("at " + pitch.seconds()[k])
                    .isLessThan(10);
        }
    }

    @ParameterizedTest(name = "{0} Hz, partials {1}, noise {2}")
    @CsvSource({
        "110.3,1,0.01",
        "220.7,1 0.6 0.4 0.3,0.05",
        "146.9,0.2 1 0.4 0.2,0.1",
        "196.1,0 0.8 1 0.6 0.4,0.05",
        "233.3,0 0 1 0.8 0.7,0.02",
        "41.2,0.5 1 0.6 0.3,0.05",
        "1661.2,1,0.1",
        "311.1,1 0.7 0.5,1.5",
        "440,0.3 0.2 1 0.2,0.2"
    })
    void theFundamentalIsNamedWhicheverPartialIsStrongest(double hz, String partials, double noise) {
        double[] heights = Arrays.stream(partials.split(" "))
                .mapToDouble(Double::parseDouble)
                .toArray();
        for (int seed = 0; seed < 3; seed++) {
            double[] x = sound(hz, heights, noise, 8000, 2, new Random(seed));
            Reading reading = Asked.of("tone", 8000, x);
            assertThat(cents(reading.scalar("hz"), hz))
                    .as("seed %d: %.2f Hz", seed, reading.scalar("hz"))
                    .isLessThan(3);
            double mean = Arrays.stream(x).average().orElse(0);
            double square =
                    Arrays.stream(x).map(v -> (v - mean) * (v - mean)).average().orElse(0);
            assertThat(reading.scalar("level_db")).isCloseTo(10 * Math.log10(square), within(1e-9));
            if (noise < 0.2) {
                assertThat(reading.scalar("confidence")).isGreaterThan(0.8);
            }
        }
    }

    @Test
    void aWaveringVoiceHasTheToneItWaversAboutAndALongGlideHasNone() {
        double[] vibrato = new double[16_000];
        double[] glide = new double[16_000];
        double a = 0;
        double b = 0;
        for (int i = 0; i < vibrato.length; i++) {
            double t = i / 8000.0;
            a += 2 * Math.PI * 247 * Math.pow(2, 0.3 / 12 * Math.sin(2 * Math.PI * 5 * t)) / 8000;
            b += 2 * Math.PI * 200 * Math.pow(2, t) / 8000;
            vibrato[i] = Math.sin(a) + 0.5 * Math.sin(2 * a);
            glide[i] = Math.sin(b);
        }
        assertThat(cents(Asked.of("tone", 8000, vibrato).scalar("hz"), 247)).isLessThan(8);
        assertThat(Asked.of("tone", 8000, glide).scalar("confidence")).isLessThan(0.5);
    }

    @Test
    void noiseAndTwoTonesThatHaveNothingToDoWithEachOtherAreNoTone() {
        Random random = new Random(4);
        double[] white = sound(100, new double[0], 1, 8000, 2, random);
        assertThat(Asked.of("tone", 8000, white).scalar("confidence")).isLessThan(0.2);
        double walk = 0;
        double[] brown = new double[16_000];
        for (int i = 0; i < brown.length; i++) {
            walk = 0.999 * walk + random.nextGaussian();
            brown[i] = walk;
        }
        assertThat(Asked.of("tone", 8000, brown).scalar("confidence")).isLessThan(0.5);
        double[] first = sound(261.6, new double[] {1}, 0.01, 8000, 2, random);
        double[] second = sound(261.6 * 1.383, new double[] {1.1}, 0, 8000, 2, random);
        double[] both = new double[first.length];
        Arrays.setAll(both, i -> first[i] + second[i]);
        assertThat(Asked.of("tone", 8000, both).scalar("confidence")).isBetween(0.2, 0.6);
        assertThat(Asked.of("tone", 8000, new double[16_000]).quality().reasons())
                .containsExactly("silence: every sample is the same");
        assertThat(Asked.of("tone", 8000, sound(440, new double[] {1}, 0, 8000, 1, random))
                        .word("note"))
                .isEqualTo("A4");
        // Below what is looked for there is no tone, whatever hums there.
        double[] hums = sound(50, new double[] {1}, 0.01, 8000, 2, random);
        Arrays.setAll(hums, i -> hums[i] + 0.4 * Math.sin(2 * Math.PI * 523.3 * i / 8000));
        Reading above = Asked.of("tone", 8000, Map.of("from", "80", "to", "2000"), hums);
        assertThat(cents(above.scalar("hz"), 523.3)).isLessThan(3);
        assertThatThrownBy(() -> Asked.of("tone", 8000, Map.of("from", "500", "to", "400"), hums))
                .isInstanceOf(ReaderException.class)
                .hasMessageContaining("from must lie below to");
    }

    /** Two that beat, the three of a major chord as a keyboard has them, two in turn: nearly harmonics of something deep. */
    @Test
    void tonesThatBeatAChordAndTwoInTurnAreNoOneTone() {
        Random random = new Random(9);
        double rate = 8000;
        double[] beat = sound(233, new double[] {1}, 0.02, rate, 2.5, random);
        double[] chord = sound(220, new double[] {1}, 0.02, rate, 2.5, random);
        double[] turn = sound(200, new double[] {1}, 0.02, rate, 2.5, random);
        double[] stiff = new double[beat.length];
        for (int i = 0; i < beat.length; i++) {
            double t = 2 * Math.PI * i / rate;
            beat[i] += 0.9 * Math.sin(239 * t);
            chord[i] += Math.sin(277.18 * t) + Math.sin(329.63 * t);
            turn[i] = i < 9600 ? turn[i] : Math.sin(300 * t);
            // A string: each harmonic a little higher than its place, as the square of its number.
            for (int k = 1; k <= 4; k++) {
                stiff[i] += Math.sin(110 * k * Math.sqrt(1 + 1e-4 * k * k) * t) / k;
            }
        }
        for (double[] none : List.of(beat, chord, turn)) {
            Reading reading = Asked.of("tone", rate, none);
            assertThat(reading.scalar("confidence")).isLessThan(0.5);
            assertThat(reading.quality().reasons()).singleElement().asString().startsWith("more than one tone");
        }
        Reading string = Asked.of("tone", rate, stiff);
        assertThat(cents(string.scalar("hz"), 110)).isLessThan(3);
        assertThat(string.scalar("confidence")).isGreaterThan(0.9);
    }

    private record Pull(double from, double to) {}

    /**
     * Interference as noise between about 50 and 150 Hz (E. Shwedyk, R. Balasubramanian and R. N. Scott 1977, "A
     * nonstationary model for the electromyogram": noise of a shape times a strength), in noise of 1.
     */
    private static double[] forearm(List<Pull> pulls, double gain, double rate, double seconds, Random random) {
        double[] x = new double[(int) (seconds * rate)];
        double low = 0;
        double lower = 0;
        double scale = 0;
        double[] shaped = new double[x.length];
        double pole = Math.exp(-2 * Math.PI * 140 / rate);
        double slow = Math.exp(-2 * Math.PI * 45 / rate);
        for (int i = 0; i < x.length; i++) {
            low = pole * low + (1 - pole) * random.nextGaussian();
            lower = slow * lower + (1 - slow) * low;
            shaped[i] = low - lower;
            scale += shaped[i] * shaped[i] / x.length;
        }
        for (int i = 0; i < x.length; i++) {
            double t = i / rate;
            double strength = 0;
            for (Pull pull : pulls) {
                strength = Math.max(
                        strength, Math.max(0, Math.min(1, Math.min((t - pull.from()) / 0.04, (pull.to() - t) / 0.04))));
            }
            x[i] = 512 + 10 * (gain * strength * shaped[i] / Math.sqrt(scale) + random.nextGaussian());
        }
        return x;
    }

    private static List<Pull> pulls(Random random) {
        List<Pull> pulls = new ArrayList<>();
        for (double at = 1.5 + random.nextDouble(); at < 26; ) {
            double to = at + 0.4 + 1.5 * random.nextDouble();
            pulls.add(new Pull(at, to));
            at = to + 0.8 + 2 * random.nextDouble();
        }
        return pulls;
    }

    @Test
    void heartbeatsInTheLeadsAreDoubtedAsPulls() {
        double[] x = forearm(List.of(new Pull(3, 5), new Pull(9, 11), new Pull(15, 17)), 30, 1000, 20, new Random(12));
        Reading pure = Asked.of("muscle", 1000, x);
        assertThat(pure.quality().share()).isEqualTo(1);
        for (double beat = 0.5; beat < 20; beat += 0.82) {
            for (int i = 0; i < x.length; i++) {
                double off = (i / 1000.0 - beat) / 0.012;
                x[i] += 130 * Math.exp(-off * off);
            }
        }
        Reading beats = Asked.of("muscle", 1000, x);
        int pulls = ((Item.Events) beats.items().stream()
                        .filter(item -> item.key().equals("bursts"))
                        .findFirst()
                        .orElseThrow())
                .events()
                .size();
        assertThat(pulls == 3 || beats.quality().share() < 0.9)
                .as("%d pulls, %s", pulls, beats.quality())
                .isTrue();
    }

    @ParameterizedTest(name = "{0} dB, hum {1}, {2}/s")
    @CsvSource({
        "20,0,1000,0.02,0.05",
        "16,0,1000,0.02,0.05",
        "16,1,2000,0.02,0.05",
        "16,0,500,0.02,0.05",
        "8,0,1000,0.04,0.09"
    })
    void onsetsOfPullsAreFound(double db, double hum, double rate, double median, double ninetieth) {
        List<Double> off = new ArrayList<>();
        for (int seed = 0; seed < 8; seed++) {
            Random random = new Random(seed);
            List<Pull> pulls = pulls(random);
            double[] x = forearm(pulls, Math.pow(10, db / 20), rate, 30, random);
            for (int i = 0; i < x.length; i++) {
                x[i] += 15 * hum * Math.sin(2 * Math.PI * 50.1 * i / rate);
            }
            Reading reading = Asked.of("muscle", rate, x);
            List<Event> found = reading.events("bursts");
            assertThat(found).as("seed %d", seed).hasSize(pulls.size());
            double duty = 0;
            for (int k = 0; k < pulls.size(); k++) {
                // Half way up the ramp is where the pull is half there.
                off.add(Math.abs(found.get(k).startSeconds() - pulls.get(k).from() - 0.02));
                duty += (pulls.get(k).to() - pulls.get(k).from()) / 30;
            }
            assertThat(reading.scalar("duty")).isCloseTo(duty, within(0.02));
            assertThat(found.stream().mapToDouble(e -> e.values()[4]).max().orElse(0))
                    .isCloseTo(100, within(1e-9));
            if (hum == 0) {
                // Signal and noise add up in squares.
                double truth = 10 * Math.log10(1 + Math.pow(10, db / 10));
                assertThat(reading.scalar("snr_db")).isCloseTo(truth, within(1.5));
            }
        }
        double[] sorted = off.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        assertThat(sorted[sorted.length / 2]).isLessThan(median);
        assertThat(sorted[sorted.length * 9 / 10]).isLessThan(ninetieth);
    }

    /** A loop whose turns last now longer and now shorter: hum keeps its phase by the times of its rows only. */
    @Test
    void humIsTakenOutOfUnevenSamples() {
        Random random = new Random(4);
        List<Pull> pulls = pulls(random);
        double[] fine = forearm(pulls, 20, 16_000, 30, random);
        int n = 29_000;
        double[] seconds = new double[n];
        double[] x = new double[n];
        for (int i = 0; i < n; i++) {
            seconds[i] = i == 0 ? 0 : seconds[i - 1] + 0.001 * Math.max(0.3, 1 + 0.15 * random.nextGaussian());
            x[i] = fine[(int) (seconds[i] * 16_000)] + 300 * Math.sin(2 * Math.PI * 50 * seconds[i]);
        }
        Reading reading = Asked.at("muscle", (n - 1) / seconds[n - 1], seconds, x);
        List<Pull> whole =
                pulls.stream().filter(pull -> pull.to() < seconds[n - 1] - 1).toList();

        assertThat(reading.events("bursts").size()).isBetween(whole.size(), pulls.size());
        for (int k = 0; k < whole.size(); k++) {
            assertThat(reading.events("bursts").get(k).startSeconds())
                    .isCloseTo(whole.get(k).from(), within(0.1));
        }
        // What stands at an end of the range is told as if it had come evenly.
        double[] high = Arrays.stream(seconds)
                .map(t -> Math.min(600, fine[(int) (t * 16_000)]))
                .toArray();
        double[] even = new double[n];
        Arrays.setAll(even, i -> Math.min(600, fine[16 * i]));
        double cut = Asked.of("muscle", 1000, even).scalar("clipped_percent");
        assertThat(cut).isGreaterThan(5);
        assertThat(Asked.at("muscle", (n - 1) / seconds[n - 1], seconds, high).scalar("clipped_percent"))
                .isCloseTo(cut, within(0.2 * cut));
    }

    @ParameterizedTest
    @ValueSource(strings = {"noise", "hum", "heart", "spikes"})
    void tenMinutesOfRestHaveNoBurst(String what) {
        Random random = new Random(11);
        double[] x = forearm(List.of(), 0, 1000, 600, random);
        for (int i = 0; i < x.length; i++) {
            double t = i / 1000.0;
            double beat = t % 0.86 - 0.4;
            x[i] += switch (what) {
                case "hum" -> 20 * Math.sin(2 * Math.PI * 50 * t) + 5 * Math.sin(2 * Math.PI * 150 * t);
                case "heart" ->
                    25 * Math.exp(-0.5 * Math.pow(beat / 0.011, 2))
                            - 8 * Math.exp(-0.5 * Math.pow((beat - 0.03) / 0.015, 2));
                case "spikes" -> random.nextInt(4000) == 0 ? 300 : 0;
                default -> 0;
            };
        }
        assertThat(Asked.of("muscle", 1000, x).events("bursts")).as(what).isEmpty();
    }

    @Test
    void anEnvelopeIsTakenAsItComesAgainstTheHardestPullThatIsGiven() {
        Random random = new Random(5);
        double[] x = new double[50 * 40];
        for (int i = 0; i < x.length; i++) {
            double t = i / 50.0;
            double level = t > 10 && t < 12 ? 300 : t > 20 && t < 23 ? 600 : 40;
            x[i] = level * (1 + 0.04 * random.nextGaussian());
        }
        Map<String, String> set = Map.of("kind", "envelope", "rest", "2..8", "hardest", "1040");
        Reading reading = Asked.of("muscle", 50, set, x);
        assertThat(reading.scalar("baseline")).isCloseTo(40, within(0.5));
        List<Event> found = reading.events("bursts");
        assertThat(found).hasSize(2);
        // 100 · (300 − 40) / (1040 − 40) and 100 · (600 − 40) / 1000, at the highest sample of each.
        assertThat(found.get(0).values()[4]).isBetween(26.0, 30.0);
        assertThat(found.get(1).values()[4]).isBetween(56.0, 63.0);
        assertThat(found.get(0).startSeconds()).isCloseTo(10.02, within(0.03));
        assertThat(found.get(1).endSeconds()).isCloseTo(23, within(0.03));
        assertThat(reading.scalar("duty")).isCloseTo(5 / 40.0, within(0.005));
        Reading weak = Asked.of("muscle", 50, Map.of("kind", "envelope", "hardest", "30"), x);
        assertThat(weak.quality().reasons()).anyMatch(reason -> reason.contains("hardest pull is not above rest"));
        Reading nowhere = Asked.of("muscle", 50, Map.of("kind", "envelope", "rest", "200..300"), x);
        assertThat(nowhere.quality().reasons()).contains("no sample lies in the rest that was given");
        assertThatThrownBy(() -> Asked.of("muscle", 50, x))
                .hasMessageContaining("if it is a ready-made envelope, set kind=envelope");
    }

    /** The published curve, IEC 61672-1 table 3, in tenths of a decibel. */
    @ParameterizedTest
    @CsvSource({
        "31.5, -39.4",
        "63, -26.2",
        "125, -16.1",
        "250, -8.6",
        "500, -3.2",
        "1000, 0",
        "2000, 1.2",
        "4000, 1.0",
        "8000, -1.1"
    })
    void aToneIsWeightedAsThePublishedCurveSays(double hz, double decibels) {
        double rate = 44_100;
        double[] x = new double[(int) (2 * rate)];
        Arrays.setAll(x, i -> 0.7 * Math.sin(2 * Math.PI * hz * i / rate));
        Reading reading = Asked.of("tone", rate, x);
        assertThat(reading.scalar("level_dba") - reading.scalar("level_db")).isCloseTo(decibels, within(0.15));
    }

    @Test
    void theLevelsExceededAreThoseOfTheTimeSpentThere() {
        Random random = new Random(4);
        double rate = 8000;
        double[] x = new double[(int) (40 * rate)];
        // For 30 s at −20 dB, for 7 s at 0 dB, for 3 s at 10 dB.
        Arrays.setAll(x, i -> random.nextGaussian() * (i < 30 * rate ? 0.1 : i < 37 * rate ? 1 : Math.sqrt(10)));
        Reading reading = Asked.of("tone", rate, x);
        assertThat(reading.scalar("l90_db")).isCloseTo(-20, within(0.4));
        assertThat(reading.scalar("l50_db")).isCloseTo(-20, within(0.4));
        assertThat(reading.scalar("l10_db")).isCloseTo(0, within(0.5));
        assertThat(reading.scalar("loudest_db")).isCloseTo(10, within(0.6));
    }
}
