package zesty.signal.core.read.pulse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;
import zesty.signal.core.sample.TimeBase;

/**
 * The numbers of a pulse, each against the beats that were put into the signal: means and spreads as sums over them, the
 * spectrum of the intervals against the sines they were drawn from, breathing, recovery, and beats changed by hand.
 */
class PulseNumbersTest {
    private static final double RATE = 250;
    /** A peak between samples is found to a few ms; over many beats that is what an interval is off by. */
    private static final double JITTER_MS = 2;

    /** Beats one after the other, each after an interval that a function of time tells. */
    private static double[] beats(double seconds, DoubleUnaryOperator interval) {
        List<Double> beats = new ArrayList<>();
        for (double t = 0.6; t < seconds - 0.6; t += interval.applyAsDouble(t)) {
            beats.add(t);
        }
        return beats.stream().mapToDouble(Double::doubleValue).toArray();
    }

    /** R waves of 10 ms with a T wave after each. @param height of a beat at its time */
    private static double[] signal(double[] beats, double seconds, DoubleUnaryOperator height, Random random) {
        double[] x = new double[(int) (seconds * RATE)];
        for (double beat : beats) {
            double high = height.applyAsDouble(beat);
            for (int i = (int) Math.max(0, (beat - 0.4) * RATE); i < Math.min(x.length, (beat + 0.6) * RATE); i++) {
                double off = i / RATE - beat;
                x[i] += high * 100 * Math.exp(-0.5 * Math.pow(off / 0.010, 2));
                x[i] += high * 22 * Math.exp(-0.5 * Math.pow((off - 0.24) / 0.04, 2));
            }
        }
        for (int i = 0; i < x.length; i++) {
            x[i] += 1.2 * random.nextGaussian();
        }
        return x;
    }

    private static Reader read(double[] x) {
        Pulse kind = new Pulse();
        Reader reader = kind.reader(Settings.of(kind, Map.of(Pulse.SOURCE, "electrical")), RATE);
        reader.accept(new double[][] {x}, x.length, new TimeBase.Steady(0, 1 / RATE));
        reader.finish();
        return reader;
    }

    private static double[] intervals(double[] beats) {
        double[] ms = new double[beats.length - 1];
        Arrays.setAll(ms, i -> 1000 * (beats[i + 1] - beats[i]));
        return ms;
    }

    private static double deviation(double[] of) {
        double mean = Arrays.stream(of).average().orElseThrow();
        return Math.sqrt(Arrays.stream(of).map(v -> (v - mean) * (v - mean)).sum() / (of.length - 1));
    }

    @ParameterizedTest
    @CsvSource({"1,0.85,0.03", "2,0.7,0.06", "3,1.05,0.02", "4,0.6,0.04"})
    void meansAndSpreadsAreThoseOfTheBeats(long seed, double mean, double spread) {
        Random random = new Random(seed);
        double[] beats = beats(150, t -> mean + spread * Math.max(-2, Math.min(2, random.nextGaussian())));
        Reading reading = read(signal(beats, 150, t -> 1, random)).reading();
        double[] ms = intervals(beats);
        double average = Arrays.stream(ms).average().orElseThrow();
        double squares = 0;
        int over = 0;
        for (int i = 1; i < ms.length; i++) {
            squares += (ms[i] - ms[i - 1]) * (ms[i] - ms[i - 1]) / (ms.length - 1);
            over += Math.abs(ms[i] - ms[i - 1]) > 50 ? 1 : 0;
        }
        assertThat(reading.times("beats")).hasSize(beats.length);
        assertThat(reading.scalar("interval_ms.mean")).isCloseTo(average, within(0.2));
        assertThat(reading.scalar("rate_bpm.mean")).isCloseTo(60_000 / average, within(0.05));
        assertThat(reading.scalar("interval_ms.sdnn")).isCloseTo(deviation(ms), within(JITTER_MS));
        assertThat(reading.scalar("interval_ms.rmssd")).isCloseTo(Math.sqrt(squares), within(2 * JITTER_MS));
        // Changes within the jitter of 50 ms may fall on either side.
        assertThat(reading.scalar("pnn50_percent")).isCloseTo(100.0 * over / (ms.length - 1), within(6.0));
        assertThat(reading.scalar("rate_bpm.min"))
                .isCloseTo(60_000 / Arrays.stream(ms).max().orElseThrow(), within(0.6));
        assertThat(reading.scalar("rate_bpm.max"))
                .isCloseTo(60_000 / Arrays.stream(ms).min().orElseThrow(), within(0.9));
        assertThat(reading.scalar("set_aside_percent")).isLessThan(2);
        assertThat(reading.scalar("early")).isZero();
    }

    /** The beat moved by 110 ms of 850 is no "early" one (18 %), but its two intervals would triple the spread. */
    @Test
    void aBeatThatADisturbanceMovedSaysNothingOfTheSpread() {
        Random random = new Random(21);
        double[] beats = beats(60, t -> 0.85 + 0.012 * Math.max(-2, Math.min(2, random.nextGaussian())));
        double spread = deviation(intervals(beats));
        double[] moved = beats.clone();
        moved[30] += 0.11;
        Reading reading = read(signal(moved, 60, t -> 1, random)).reading();
        assertThat(deviation(intervals(moved))).isGreaterThan(1.8 * spread);
        assertThat(reading.times("beats")).hasSize(beats.length);
        assertThat(reading.scalar("interval_ms.sdnn")).isCloseTo(spread, within(JITTER_MS));
    }

    /** Wander lifts the signal to the converter's end and a beat comes as it returns: both are as high as the end. */
    @Test
    void aBeatCutAtTheConvertersEndIsNotTakenForTheEdgeOfWhatLiesFlatThere() {
        Random random = new Random(22);
        double[] beats = beats(60, t -> 0.9 + 0.01 * random.nextGaussian());
        double[] x = signal(beats, 60, t -> 1, random);
        List<Double> cut = new ArrayList<>();
        for (int b = 8; b < beats.length - 3; b += 8) {
            cut.add(beats[b]);
            // The end is 100; the lift comes up fast, and falls below the end 50 ms before the beat.
            for (int i = (int) ((beats[b] - 0.6) * RATE); i < (beats[b] + 0.3) * RATE; i++) {
                double since = i / RATE - beats[b] + 0.05;
                x[i] += Math.max(0, Math.min(100 - 1200 * since, 700 * (since + 0.51)));
            }
        }
        double[] ended = Arrays.stream(x).map(v -> Math.min(100, v)).toArray();
        double[] found = read(ended).reading().times("beats");
        for (double beat : cut) {
            assertThat(Arrays.stream(found).map(f -> Math.abs(f - beat)).min().orElseThrow())
                    .as("beat at " + beat)
                    .isLessThan(0.015);
        }
    }

    @ParameterizedTest
    @CsvSource({"0.1,25,0.25,0", "0.25,20,0.1,0", "0.1,30,0.28,15"})
    void theSpectrumOfTheIntervalsIsThatOfTheSinesTheyWereDrawnFrom(
            double oneHz, double oneMs, double otherHz, double otherMs) {
        double[] beats = beats(
                300,
                t -> 0.8
                        + 0.001 * oneMs * Math.sin(2 * Math.PI * oneHz * t)
                        + 0.001 * otherMs * Math.sin(2 * Math.PI * otherHz * t + 1));
        Reading reading = read(signal(beats, 300, t -> 1, new Random(5))).reading();
        // A sine of height a has the power a²/2, in the band its frequency lies in.
        double slow = (oneHz < 0.15 ? oneMs * oneMs : 0) / 2 + (otherHz < 0.15 ? otherMs * otherMs : 0) / 2;
        double fast = (oneHz < 0.15 ? 0 : oneMs * oneMs) / 2 + (otherHz < 0.15 ? 0 : otherMs * otherMs) / 2;
        // An interval averages the sine over its length: at 0.28 Hz that costs a sixth of the power.
        assertThat(reading.scalar("lf_ms2")).isBetween(0.8 * slow - 4, 1.1 * slow + 8);
        assertThat(reading.scalar("hf_ms2")).isBetween(0.7 * fast - 4, 1.1 * fast + 8);
        Reading short1 =
                read(signal(beats(100, t -> 0.8), 100, t -> 1, new Random(6))).reading();
        assertThat(short1.scalar("lf_ms2")).isNaN();
        assertThat(short1.working()).anyMatch(line -> line.contains("needs two minutes"));
    }

    @ParameterizedTest
    @CsvSource({"12", "17", "24"})
    void breathingIsReadFromHeightAndInterval(double breaths) {
        double hz = breaths / 60;
        double[] beats = beats(120, t -> 0.8 + 0.03 * Math.sin(2 * Math.PI * hz * t));
        double[] x = signal(beats, 120, t -> 1 + 0.12 * Math.sin(2 * Math.PI * hz * t), new Random(7));
        assertThat(read(x).reading().scalar("breathing_per_min")).isCloseTo(breaths, within(1.0));
        Random random = new Random(8);
        double[] none = beats(120, t -> 0.8 + 0.01 * random.nextGaussian());
        assertThat(read(signal(none, 120, t -> 1, random)).reading().scalar("breathing_per_min"))
                .isNaN();
    }

    @Test
    void afterEffortTheRateFallsByWhatItFell() {
        // 75 a minute, up to 150 at 120 s, and down by half in each 40 s after.
        DoubleUnaryOperator bpm =
                t -> t < 90 ? 75 : t < 120 ? 75 + 75 * (t - 90) / 30 : 75 + 75 * Math.pow(0.5, (t - 120) / 40);
        double[] beats = beats(260, t -> 60 / bpm.applyAsDouble(t));
        Reading reading = read(signal(beats, 260, t -> 1, new Random(9))).reading();
        // The fastest quarter minute is the one about the top; a minute after its end, on the way down.
        assertThat(reading.scalar("recovery_bpm")).isBetween(35.0, 58.0);
        double[] steady = beats(260, t -> 0.8);
        assertThat(read(signal(steady, 260, t -> 1, new Random(9))).reading().scalar("recovery_bpm"))
                .isNaN();
    }

    @Test
    void anEarlyBeatIsABeatOfItsOwnKindAndLeavesTheSpreadAlone() {
        List<Double> all = new ArrayList<>();
        List<Double> early = new ArrayList<>();
        int n = 0;
        for (double t = 0.6; t < 119; n++) {
            all.add(t);
            boolean next = n % 17 == 12;
            // It comes 0.3 s too soon, and a pause makes up for it.
            t += next ? 0.5 : n % 17 == 13 ? 1.1 : 0.8 + 0.02 * Math.sin(n);
            if (next) {
                early.add(t);
            }
        }
        double[] beats = all.stream().mapToDouble(Double::doubleValue).toArray();
        Reading reading = read(signal(beats, 120, t -> 1, new Random(10))).reading();
        assertThat(reading.times("beats")).hasSize(beats.length);
        assertThat(reading.scalar("early")).isCloseTo(early.size(), within(0.5));
        assertThat(reading.events("beats").stream()
                        .filter(e -> e.kind().equals("early"))
                        .mapToDouble(Event::startSeconds)
                        .toArray())
                .usingComparatorWithPrecision(0.01)
                .containsExactly(early.stream().mapToDouble(Double::doubleValue).toArray());
        // Of normal intervals alone: 20 ms of a sine, and not the 300 ms of what came early.
        assertThat(reading.scalar("interval_ms.sdnn")).isCloseTo(14.2, within(4.0));
    }

    @Test
    void whatIsTakenOutAndPutInByHandIsWhatTheNumbersAreMadeOf() {
        double[] beats = beats(60, t -> 0.8);
        Reader reader = read(signal(beats, 60, t -> 1, new Random(11)));
        double[] found = reader.reading().times("beats");
        assertThat(found).hasSize(beats.length);
        reader.edited(List.of(new HandEdit(false, found[20]), new HandEdit(true, found[40] + 0.3)));
        double[] changed = reader.reading().times("beats");
        assertThat(changed).hasSize(found.length).doesNotContain(found[20]).contains(found[40] + 0.3);
        // Over the hole there is no interval; where one was put in there are two, of 300 and 500 ms.
        assertThat(reader.reading().scalar("rate_bpm.min")).isCloseTo(75, within(0.7));
        assertThat(reader.reading().scalar("rate_bpm.max")).isCloseTo(200, within(3.0));
        // One that is not there cannot be taken out, one that is there cannot be put in twice.
        reader.edited(List.of(new HandEdit(false, found[5] + 0.4), new HandEdit(true, found[7])));
        assertThat(reader.reading().times("beats")).containsExactly(found);
        reader.edited(List.of());
        assertThat(reader.reading().times("beats")).containsExactly(found);
        // A span that does not reach the change is as it was.
        reader.edited(List.of(new HandEdit(false, found[20])));
        assertThat(reader.reading(30, 50).times("beats"))
                .containsExactly(
                        Arrays.stream(found).filter(t -> t >= 30 && t <= 50).toArray());
    }

    /** The doubt of what stands between two beats goes with its interval: of a new one nothing is known. */
    @Test
    void ofIntervalsMadeByHandNothingIsKnown() {
        Between.Bump high = new Between.Bump(0.8, 0.3);
        Between.Bump none = Between.Bump.UNKNOWN;
        Beats found = new Beats(
                PulseSource.ELECTRICAL,
                new double[] {1, 2, 3, 4},
                new double[] {1, 1, 1, 1},
                new double[] {1, 1, 1, 1},
                new boolean[] {false, true, true, true},
                new boolean[4],
                new double[] {2.51},
                true,
                1,
                new Between.Bump[] {none, high, high, high});
        Beats fewer = found.edited(List.of(new HandEdit(false, 3)), 0, 9);
        assertThat(fewer.bumps()).containsExactly(none, high, none);
        assertThat(fewer.followsOn()).containsExactly(false, true, false);
        assertThat(fewer.rejected()).containsExactly(2.51, 3);
        Beats more = found.edited(List.of(new HandEdit(true, 2.5)), 0, 9);
        assertThat(more.bumps()).containsExactly(none, high, none, none, high);
        assertThat(more.followsOn()).containsExactly(false, true, true, true, true);
        assertThat(more.byHand()).containsExactly(false, false, true, false, false);
        assertThat(more.rejected()).isEmpty();
    }
}
