package zesty.signal.boards.sim;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.read.PulseKind;
import zesty.signal.core.read.PulseReader;
import zesty.signal.core.read.PulseReading;
import zesty.signal.core.sample.TimeBase;

/** The pulse reader against what the simulated board knows to be true. */
class PulseTruthTest {
    /** A beat found within this of a true one is that one: the usual window of beat-by-beat comparison. */
    private static final double MATCH_SECONDS = 0.15;

    /** What was found, held against the truth. */
    record Score(int truth, int found, int matched) {
        static Score of(double[] found, List<Double> truth, double from, double to, List<double[]> without) {
            List<Double> real = truth.stream()
                    .filter(t -> t >= from && t <= to && !inside(t, without))
                    .toList();
            List<Double> seen = new ArrayList<>();
            for (double beat : found) {
                if (beat >= from - MATCH_SECONDS && beat <= to + MATCH_SECONDS && !inside(beat, without)) {
                    seen.add(beat);
                }
            }
            int matched = 0;
            for (double t : real) {
                if (seen.stream().anyMatch(b -> Math.abs(b - t) <= MATCH_SECONDS)) {
                    matched++;
                }
            }
            return new Score(real.size(), seen.size(), matched);
        }

        static boolean inside(double t, List<double[]> stretches) {
            return stretches.stream().anyMatch(s -> t >= s[0] - 0.5 && t <= s[1] + 1.5);
        }

        double sensitivity() {
            return (double) matched / truth;
        }

        double predictivity() {
            return (double) matched / found;
        }
    }

    private static PulseReading read(PulseModel model, double rate, double seconds) {
        PulseReader reader = new PulseReader(PulseKind.OPTICAL, rate);
        int n = (int) (rate * seconds);
        double[] counts = new double[n];
        for (int i = 0; i < n; i++) {
            counts[i] = Math.max(0, Math.min(1023, Math.rint(model.next())));
        }
        reader.accept(counts, n, new TimeBase.Steady(0, 1 / rate));
        reader.finish();
        return reader.reading();
    }

    private static double trueMean(List<Double> truth, double from, double to) {
        List<Double> inside = truth.stream().filter(t -> t >= from && t <= to).toList();
        return 60 * (inside.size() - 1) / (inside.get(inside.size() - 1) - inside.get(0));
    }

    @ParameterizedTest
    @CsvSource({
        "1,74,200,118", "2,42,200,118", "3,190,200,118", "4,60,50,118", "5,120,500,118", "6,150,100,-118",
        "7,42,50,-118", "8,185,50,118", "9,90,250,-60", "10,55,500,118", "11,45,100,90", "12,175,500,-118"
    })
    void goodSignalGivesNearlyEveryBeatAndNoOther(long seed, double bpm, double rate, double amplitude) {
        PulseModel model = new PulseModel(PulseModel.Settings.usual(seed)
                .withRate(rate)
                .withBeats(bpm)
                .withSlips(false)
                .withSignal(amplitude, 2.5, rate > 110 ? 4 : 0));
        PulseReading reading = read(model, rate, 300);
        Score score = Score.of(reading.beats(), model.truth(), 1, 299, List.of());
        assertThat(score.sensitivity()).as("%s", score).isGreaterThanOrEqualTo(0.99);
        assertThat(score.predictivity()).as("%s", score).isGreaterThanOrEqualTo(0.99);
        assertThat(reading.meanBpm()).isCloseTo(trueMean(model.truth(), 0, 300), within(0.5));
        assertThat(reading.upright()).isEqualTo(amplitude > 0);
        assertThat(reading.quality().segments()).isGreaterThanOrEqualTo(6);
    }

    @ParameterizedTest
    @ValueSource(longs = {21, 22, 23, 24})
    void poorSignalStillGivesNineteenInTwenty(long seed) {
        PulseModel model =
                new PulseModel(PulseModel.Settings.usual(seed).withSlips(false).withSignal(28, 6, 12));
        PulseReading reading = read(model, 200, 300);
        Score score = Score.of(reading.beats(), model.truth(), 1, 299, List.of());
        assertThat(score.sensitivity()).as("%s", score).isGreaterThanOrEqualTo(0.95);
        assertThat(score.predictivity()).as("%s", score).isGreaterThanOrEqualTo(0.95);
        assertThat(reading.meanBpm()).isCloseTo(trueMean(model.truth(), 0, 300), within(0.5));
    }

    @ParameterizedTest
    @ValueSource(longs = {31, 32, 33, 34})
    void aSlippingFingerSpoilsOnlyItsOwnStretch(long seed) {
        PulseModel model = new PulseModel(PulseModel.Settings.usual(seed));
        PulseReading reading = read(model, 200, 600);
        assertThat(model.slips()).hasSizeGreaterThan(4);
        Score clear = Score.of(reading.beats(), model.truth(), 1, 599, model.slips());
        assertThat(clear.sensitivity()).as("%s", clear).isGreaterThanOrEqualTo(0.99);
        assertThat(clear.predictivity()).as("%s", clear).isGreaterThanOrEqualTo(0.99);
        assertThat(reading.meanBpm()).isCloseTo(trueMean(model.truth(), 0, 600), within(0.5));
        assertThat(reading.quality().reasons()).isNotEmpty();
    }

    @ParameterizedTest
    @CsvSource({"41,200,2.5,4", "42,200,9,30", "43,50,2.5,0", "44,500,20,4", "45,100,0.6,0", "46,50,12,0"})
    void noFingerMeansNoBeats(long seed, double rate, double noise, double hum) {
        PulseModel model = new PulseModel(
                PulseModel.Settings.usual(seed).withRate(rate).withFinger(false).withSignal(118, noise, hum));
        PulseReading reading = read(model, rate, 600);
        assertThat(reading.beats()).isEmpty();
        assertThat(reading.quality().segments()).isZero();
        assertThat(reading.quality().reasons()).anyMatch(reason -> reason.contains("finger"));
    }

    @Test
    void theSizeOfThePiecesChangesNothing() {
        double[] counts = new double[24_000];
        PulseModel model = new PulseModel(PulseModel.Settings.usual(51));
        for (int i = 0; i < counts.length; i++) {
            counts[i] = Math.rint(model.next());
        }
        PulseReader whole = new PulseReader(PulseKind.OPTICAL, 200);
        whole.accept(counts, counts.length, new TimeBase.Steady(0, 0.005));
        PulseReader pieces = new PulseReader(PulseKind.OPTICAL, 200);
        java.util.Random sizes = new java.util.Random(1);
        for (int at = 0; at < counts.length; ) {
            int n = Math.min(counts.length - at, 1 + sizes.nextInt(700));
            double[] seconds = new double[n];
            for (int i = 0; i < n; i++) {
                seconds[i] = 0 + (at + i) * 0.005;
            }
            pieces.accept(java.util.Arrays.copyOfRange(counts, at, at + n), n, new TimeBase.Explicit(seconds));
            at += n;
        }
        whole.finish();
        pieces.finish();
        assertThat(pieces.reading().beats()).isEqualTo(whole.reading().beats()).hasSizeGreaterThan(120);
        assertThat(pieces.reading().rejected()).isEqualTo(whole.reading().rejected());
        assertThat(pieces.reading().quality()).isEqualTo(whole.reading().quality());
    }

    @Test
    void aGapBreaksTheIntervalAndNothingElse() {
        PulseModel model = new PulseModel(PulseModel.Settings.usual(52).withSlips(false));
        PulseReader reader = new PulseReader(PulseKind.OPTICAL, 200);
        for (int i = 0; i < 24_000; i++) {
            double value = model.next();
            if (i == 12_000) {
                reader.gap();
            }
            if (i < 11_000 || i >= 12_000) {
                reader.accept(value, i * 0.005);
            }
        }
        reader.finish();
        PulseReading reading = reader.reading();
        assertThat(java.util.Arrays.stream(reading.intervalsMs())).allMatch(ms -> ms > 600 && ms < 1000);
        assertThat(java.util.Arrays.stream(reading.beats())).noneMatch(t -> t > 55.2 && t < 59.8);
        assertThat(reading.beats().length - reading.intervalsMs().length).isLessThanOrEqualTo(4);
    }

    @Test
    void intervalsOnPaper() {
        // Beats exactly 0.8 s and 1.0 s apart in turn: mean 900 ms, every difference ±200 ms.
        double rate = 100;
        double[] x = new double[(int) (rate * 91)];
        List<Double> tops = new ArrayList<>();
        for (double t = 0.7, step = 0.8; t < 90.5; t += step, step = 1.8 - step) {
            tops.add(t);
        }
        for (int i = 0; i < x.length; i++) {
            for (double top : tops) {
                double from = (i / rate - top) / (i / rate < top ? 0.06 : 0.11);
                x[i] += Math.abs(from) < 8 ? 100 * Math.exp(-0.5 * from * from) : 0;
            }
        }
        PulseReader reader = new PulseReader(PulseKind.OPTICAL, rate);
        reader.accept(x, x.length, new TimeBase.Steady(0, 1 / rate));
        reader.finish();
        PulseReading reading = reader.reading();
        assertThat(reading.beats()).hasSize(tops.size());
        // The filter sees a beat's neighbours: a few milliseconds a beat.
        assertThat(reading.meanIntervalMs()).isCloseTo(900, within(2.0));
        assertThat(reading.sdnnMs()).isCloseTo(100.5, within(8.0));
        assertThat(reading.rmssdMs()).isCloseTo(200, within(16.0));
    }
}
