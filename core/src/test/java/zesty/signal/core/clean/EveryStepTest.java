package zesty.signal.core.clean;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What each step owes beside its arithmetic: a stream that is the record, late; how late; how far it looks; what it refuses. */
class EveryStepTest {
    private static final double RATE = 200;

    private static double[] noise(long seed, int n) {
        return new Random(seed).doubles(n, -1, 1).toArray();
    }

    private static Step step(String text) {
        return Recipe.parse(text).steps().get(0);
    }

    /** What comes live is what the whole record has, so many samples later, once its windows are full. */
    @ParameterizedTest
    @CsvSource({
        "baseline:0.3,40",
        "median:7,3",
        "median:0.1s,10",
        "despike:3@3,3",
        "smooth:11@3,5",
        "smooth:1001@2,500",
        "fill:0.05,11",
        "offset:2,0",
        "rectify,0"
    })
    void aStreamIsTheRecordLate(String text, int late) {
        double[] whole = noise(3, 9000);
        whole[4500] = 40;
        double[] live = whole.clone();
        step(text).onceThrough(whole, RATE);
        Stage stage = step(text).stage(RATE, Start.SETTLED);
        stage.apply(live, 0, live.length);
        assertThat(stage.delaySamples()).isEqualTo(late);
        assertThat(step(text).delaySamples(RATE)).isEqualTo(late);
        for (int i = 4400; i < whole.length - late; i++) {
            assertThat(live[i + late]).as("%d", i).isCloseTo(whole[i], within(1e-9));
        }
    }

    /** One that begins anew remembers nothing. */
    @Test
    void aStageThatBeginsAnewIsAsGoodAsNew() {
        for (Step step : Recipe.examples()) {
            if (step instanceof Detrend) {
                continue;
            }
            for (Start start : Start.values()) {
                double[] first = noise(5, 3000);
                first[40] = Double.NaN;
                first[1700] = 30;
                double[] again = first.clone();
                Stage stage = new Chain(List.of(step.stage(RATE, start)));
                stage.apply(first, 0, first.length);
                stage.reset();
                stage.apply(again, 0, again.length);
                assertThat(again).as("%s, %s", step.text(), start).containsExactly(first);
            }
        }
    }

    /**
     * Delays at 200 samples/s. Of filters at a frequency that they pass, of which the phase's slope is taken here from the answer to a
     * single 1: Σ n·h(n)·z⁻ⁿ ÷ Σ h(n)·z⁻ⁿ.
     */
    @ParameterizedTest
    @CsvSource({
        "highpass:0.5@2,2",
        "bandpass:0.5..8@2,2",
        "bandstop:48..52@2,12",
        "notch:50@30,12.5",
        "comb:50@15,12.5",
        "comb:20@15,5"
    })
    void filtersAreAsLateAsTheirAnswerToASingleOne(String text, double hz) {
        double[] answer = new double[40_000];
        answer[0] = 1;
        step(text).stage(RATE, Start.FROM_REST).apply(answer, 0, answer.length);
        double real = 0, imaginary = 0, topReal = 0, topImaginary = 0;
        for (int n = 0; n < answer.length; n++) {
            double cos = Math.cos(2 * Math.PI * hz / RATE * n);
            double sin = -Math.sin(2 * Math.PI * hz / RATE * n);
            real += answer[n] * cos;
            imaginary += answer[n] * sin;
            topReal += n * answer[n] * cos;
            topImaginary += n * answer[n] * sin;
        }
        double slope = (topReal * real + topImaginary * imaginary) / (real * real + imaginary * imaginary);
        assertThat(step(text).delaySamples(RATE)).isCloseTo(slope, within(1e-6));
        // What is forgotten after so many samples is below a part in 10⁸ of what was there at most.
        long context = step(text).context(RATE);
        double highest = Arrays.stream(answer).map(Math::abs).max().orElseThrow();
        double left = Arrays.stream(answer).skip(context).map(Math::abs).max().orElseThrow();
        assertThat(left).isLessThan(1e-8 * highest);
        assertThat(Arrays.stream(answer).skip(context / 2).map(Math::abs).max().orElseThrow())
                .isGreaterThan(1e-8 * highest);
    }

    /** Delay, how far it looks either way, the longest hole that is filled for it (a decade of what it remembers, ¼ to 1 s). */
    @ParameterizedTest
    @CsvSource({
        "mean:10,4.5,20,0.25",
        "mean:0.1s,9.5,40,0.25",
        "rms:0.1,9.5,40,0.25",
        "exp:0.2,4,83,0.25",
        "exp:1,0,1,0.25",
        "exp:0.01,99,1833,1",
        "hum:50@1,0,1200,0.75",
        "hum:50@2,0,600,0.375",
        "differentiate,0.5,1,0.25",
        "baseline:0.6,80,80,0.25",
        "wavelet:4@3,102,1031,0.644375",
        "wavelet:7@3,254,1255,0.784375",
        "smooth:11@3,5,5,0.25",
        "mean:10 | median:5,6.5,22,0.25"
    })
    void delaysAndReachesAreThoseOfPaper(String text, double late, long context, double hole) {
        Recipe recipe = Recipe.parse(text);
        assertThat(recipe.delaySeconds(RATE)).isCloseTo(late / RATE, within(1e-12));
        assertThat(recipe.context(RATE)).isEqualTo(context);
        assertThat(recipe.longestHoleSeconds(RATE)).isCloseTo(hole, within(1e-12));
    }

    @Test
    void whatTakesTheLevelOffAndWhatFillsSaysSo() {
        assertThat(Recipe.examples().stream().filter(Step::removesLevel).map(one -> one.text()
                        .split(":")[0]))
                .containsExactlyInAnyOrder("bandpass", "highpass", "baseline", "differentiate", "integrate", "detrend");
        assertThat(Recipe.parse("mean:3 | highpass:1@2").removesLevel()).isTrue();
        assertThat(Recipe.parse("mean:3 | rectify").removesLevel()).isFalse();
        assertThat(Recipe.parse("mean:3 | fill:0.1").fillsByItself()).isTrue();
        assertThat(Recipe.parse("mean:3").fillsByItself()).isFalse();
        assertThat(Recipe.examples().stream().map(Step::about)).allMatch(about -> about.length() > 10);
        assertThat(step("offset:-2.5").words()).isEqualTo("2.5 less");
        assertThat(step("offset:2.5").words()).isEqualTo("2.5 more");
        assertThat(step("mean:0.1s").words()).isEqualTo("mean of 0.1 s");
        assertThat(step("median:0.1s").words()).isEqualTo("median of 0.1 s");
        assertThat(step("median:0.1s").about()).isEqualTo(step("median:5").about());
        assertThat(step("mean:0.1s").about()).isEqualTo(step("mean:5").about());
        assertThat(step("resample:50").words()).contains("50");
        assertThatThrownBy(() -> step("resample:50").stage(RATE, Start.SETTLED)).hasMessageContaining("resample:50");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "bandpass:0.5..100@2",
                "bandstop:48..100@2",
                "highpass:100@2",
                "notch:100@30",
                "comb:100@15",
                "hum:100@1",
                "envelope:100",
                "integrate:100"
            })
    void aCornerAtHalfTheRateIsRefused(String text) {
        assertThatThrownBy(() -> Recipe.parse(text).stage(RATE, Start.SETTLED))
                .isInstanceOf(RecipeException.class)
                .hasMessage(text + ": 100 Hz is not below half of 200 samples/s; it must be below 100 Hz");
        assertThat(Recipe.parse(text).stage(RATE + 1, Start.SETTLED)).isNotNull();
    }

    @Test
    void whatNoRateMakesRightIsRefused() {
        assertThatThrownBy(() -> Recipe.parse("hum:50@25").stage(RATE, Start.SETTLED))
                .hasMessageContaining("half way");
        assertThatThrownBy(() -> Recipe.parse("rms:0.002").stage(RATE, Start.SETTLED))
                .hasMessageContaining("0.005");
        assertThat(Recipe.parse("rms:0.0025").steps()).hasSize(1);
        for (double rate : new double[] {0, -1, Double.NaN, Double.POSITIVE_INFINITY}) {
            Recipe mean = Recipe.parse("mean:3");
            assertThatThrownBy(() -> mean.stage(rate, Start.SETTLED)).hasMessageContaining("rate must be");
            assertThatThrownBy(() -> mean.onceThrough(new double[9], rate)).hasMessageContaining("rate must be");
            assertThatThrownBy(() -> mean.bothWays(new double[9], rate)).hasMessageContaining("rate must be");
        }
        for (String edge :
                List.of("exp:1", "smooth:5@4", "smooth:13@10", "wavelet:1@3", "wavelet:8@3", "lowpass:8@16")) {
            assertThat(Recipe.parse(edge).text()).isEqualTo(edge);
        }
        for (String beyond : List.of(
                "exp:0",
                "smooth:5@5",
                "smooth:13@11",
                "smooth:13@-1",
                "wavelet:0@3",
                "wavelet:9@3",
                "wavelet:1.5@3",
                "lowpass:8@17",
                "notch:50@0.5",
                "comb:50@0.5",
                "bandpass:8..8@2",
                "detrend:1",
                "differentiate:1")) {
            assertThatThrownBy(() -> Recipe.parse(beyond)).as(beyond).isInstanceOf(RecipeException.class);
        }
    }

    /** Over a record hum is known from its first sample, since it looks back before it goes forward. */
    @Test
    void humGoesFromTheFirstSampleOfARecord() {
        double[] slow = new double[2000];
        Arrays.setAll(slow, i -> Math.sin(2 * Math.PI * 1.3 * i / RATE));
        double[] x = slow.clone();
        Arrays.setAll(
                x, i -> x[i] + 2 * Math.sin(2 * Math.PI * 50 * i / RATE + 1) + Math.cos(2 * Math.PI * 25 * i / RATE));
        step("hum:25@0.5").bothWays(x, RATE);
        for (int i = 0; i < x.length; i++) {
            assertThat(x[i]).as("%d", i).isCloseTo(slow[i], within(0.1));
        }
    }

    /** Both ways is forward and back: a mean of eleven weighs like a triangle of 21, without delay. */
    @Test
    void bothWaysIsForwardAndBack() {
        double[] one = new double[400];
        one[200] = 1;
        double[] timed = one.clone();
        step("mean:0.055s").bothWays(timed, RATE);
        for (int i = 0; i < one.length; i++) {
            assertThat(timed[i]).isCloseTo(Math.max(0, 11 - Math.abs(i - 200)) / 121.0, within(1e-12));
        }
        // The ends go on as they came, turned round: a line stays a line.
        double[] line = new double[50];
        Arrays.setAll(line, i -> 3 + 0.5 * i);
        step("mean:11").bothWays(line, RATE);
        for (int i = 0; i < line.length; i++) {
            assertThat(line[i]).as("%d", i).isCloseTo(3 + 0.5 * i, within(1e-9));
        }
        // The integral of 2π·cos(2π·t) is sin(2π·t), whatever level it stands on; a corner of 0.2 Hz takes a high-pass
        // of the first
        // order off, both ways, before and after: 1/(1 + 0.04) twice.
        double[] x = new double[8000];
        Arrays.setAll(x, i -> 5 + 2 * Math.PI * Math.cos(2 * Math.PI * i / RATE));
        step("integrate:0.2").bothWays(x, RATE);
        for (int i = 2000; i < 6000; i++) {
            assertThat(x[i]).as("%d", i).isCloseTo(Math.sin(2 * Math.PI * i / RATE) / 1.04 / 1.04, within(0.001));
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '!',
            value = {
                "highpass:5@2 | highpass:2@2!highpass:2@2 does nothing",
                "envelope:6 | notch:50@30!notch:50@30 does nothing",
                "lowpass:8@2 | rectify | notch:50@30!",
                "lowpass:8@2 | notch:8@30!",
                "highpass:8@2 | notch:8@30!",
                "lowpass:8@2 | lowpass:8@2!lowpass:8@2 does nothing",
                "highpass:8@2 | highpass:8@2!highpass:8@2 does nothing",
                "highpass:2@2!",
                "highpass:8@2 | lowpass:8@2!leaves nothing"
            })
    void whatIsLeftIsTakenForWhatItIs(String recipe, String said) {
        List<String> remarks = Remarks.of(Recipe.parse(recipe), 1000);
        if (said == null) {
            assertThat(remarks).isEmpty();
        } else {
            assertThat(remarks).singleElement().asString().contains(said);
        }
    }
}
