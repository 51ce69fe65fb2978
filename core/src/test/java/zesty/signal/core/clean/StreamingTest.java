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
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.kinds.ReaderKinds;

class StreamingTest {
    private static double[] noise(long seed, int n) {
        Random random = new Random(seed);
        return random.doubles(n).map(u -> 512 + 100 * (u - 0.5)).toArray();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "comb:12@15",
                "hum:12@1",
                "baseline:0.3",
                "fill:0.02",
                "unclip:0.05",
                "wavelet:3@3",
                "differentiate",
                "integrate:0.5",
                "mean:0.1s",
                "median:0.1s",
                "mean:10",
                "median:7",
                "lowpass:8@5",
                "highpass:0.5@2",
                "bandpass:0.5..8@4",
                "bandstop:45..55@3",
                "notch:50@30",
                "detrend",
                "rectify",
                "envelope:6",
                "offset:-512",
                "scale:0.5",
                "exp:0.2",
                "rms:0.05",
                "smooth:11@3",
                "despike:3@3",
                "bandpass:0.5..8@2 | median:5 | mean:20"
            })
    void theSizeOfTheBlocksChangesNotOneBit(String recipe) {
        double[] whole = noise(1, 5000);
        whole[700] = Double.NaN;
        Arrays.fill(whole, 2000, 2003, Double.NaN);
        double[] pieces = whole.clone();
        Recipe.parse(recipe).stage(200, Start.SETTLED).apply(whole, 0, whole.length);
        Stage stage = Recipe.parse(recipe).stage(200, Start.SETTLED);
        Random sizes = new Random(2);
        for (int at = 0; at < pieces.length; ) {
            int n = Math.min(pieces.length - at, sizes.nextInt(1 + sizes.nextInt(300)));
            stage.apply(pieces, at, n);
            at += n;
        }
        assertThat(pieces).containsExactly(whole);
        assertThat(Arrays.stream(whole).skip(4000)).doesNotContain(Double.NaN);
    }

    @Test
    void everyStepSaysWhatItDoesAndReadsBackToItself() {
        for (Step step : Recipe.examples()) {
            assertThat(Recipe.parse(step.text()).steps()).containsExactly(step);
            assertThat(step.words()).isNotBlank().isNotEqualTo(step.about());
            // Each number it has is named, and can be put in by itself.
            List<String> values = StepArgument.values(step);
            assertThat(step.arguments()).as(step.text()).hasSameSizeAs(values);
            for (int i = 0; i < values.size(); i++) {
                int at = i;
                assertThat(StepArgument.with(step, i, values.get(i))).isEqualTo(step);
                assertThatThrownBy(() -> StepArgument.with(step, at, "many")).isInstanceOf(RecipeException.class);
            }
            // So many samples either way are enough for any part of a record, and more than it is late.
            assertThat(step.context(200)).as(step.text()).isGreaterThanOrEqualTo((long) step.delaySamples(200));
        }
        assertThat(Recipe.parse("lowpass:8@2 | detrend | mean:5").context(200)).isEqualTo(Long.MAX_VALUE);
    }

    @Test
    void oneNumberOfAStepIsChangedAndTheOthersStay() {
        Step band = Recipe.parse("bandpass:0.5..8@2").steps().get(0);
        assertThat(StepArgument.with(band, 1, " 12 ").text()).isEqualTo("bandpass:0.5..12@2");
        assertThat(StepArgument.with(band, 2, "4").text()).isEqualTo("bandpass:0.5..8@4");
        assertThatThrownBy(() -> StepArgument.with(band, 0, "9")).hasMessageContaining("below the high one");
    }

    @Test
    void settledStartGivesASteadyLevelNoBump() {
        double[] level = new double[1000];
        Arrays.fill(level, 512);
        double[] low = level.clone();
        Recipe.parse("lowpass:0.5@8").stage(1000, Start.SETTLED).apply(low, 0, 1000);
        // Eight poles within 0.003 of 1 multiply rounding by about 1e6.
        assertThat(Arrays.stream(low)).allMatch(y -> Math.abs(y - 512) < 1e-6);
        Recipe.parse("bandpass:0.5..8@2").stage(200, Start.SETTLED).apply(level, 0, 1000);
        assertThat(Arrays.stream(level)).allMatch(y -> Math.abs(y) < 1e-9);
    }

    @Test
    void aMissingSampleLeavesTheMemoryAsItWas() {
        double[] without = noise(3, 400);
        double[] with = new double[401];
        System.arraycopy(without, 0, with, 0, 200);
        with[200] = Double.NaN;
        System.arraycopy(without, 200, with, 201, 200);
        Recipe.parse("lowpass:8@4").stage(200, Start.FROM_REST).apply(without, 0, 400);
        Recipe.parse("lowpass:8@4").stage(200, Start.FROM_REST).apply(with, 0, 401);
        assertThat(with[200]).isNaN();
        assertThat(with[400]).isEqualTo(without[399]);
    }

    @Test
    void groupDelayOnPaper() {
        // A Butterworth low-pass of order 2 delays by √2/ωc · (1 + Ω²)/(1 + Ω⁴), stated at Ω = 1/4; a mean of 11 by 5.
        double expected = Math.sqrt(2) / (2 * Math.PI * 8) * (1 + 1 / 16.0) / (1 + 1 / 256.0);
        assertThat(Recipe.parse("lowpass:8@2").delaySeconds(10_000)).isCloseTo(expected, within(1e-6));
        assertThat(Recipe.parse("mean:11").delaySeconds(100)).isEqualTo(0.05);
        assertThat(Recipe.parse("median:7").stage(100, Start.SETTLED).delaySamples())
                .isEqualTo(3);
    }

    @Test
    void notchIsMinus3dBWideByExactlyHzOverQ() {
        Sections notch = FilterDesign.notch(1000, 50, 20);
        // The two −3 dB points of a bilinear notch: tan(ω/2) spans the width, symmetric in the warped frequency.
        double omega = 2 * Math.PI * 0.05;
        double beta = Math.tan(omega / 40);
        double centre = Math.acos(Math.cos(omega));
        double low = Math.acos((Math.cos(centre) + beta * Math.sqrt(beta * beta + Math.sin(centre) * Math.sin(centre)))
                / (1 + beta * beta));
        double high = Math.acos((Math.cos(centre) - beta * Math.sqrt(beta * beta + Math.sin(centre) * Math.sin(centre)))
                / (1 + beta * beta));
        assertThat((high - low) / (2 * Math.PI) * 1000).isCloseTo(50.0 / 20, within(1e-9));
        assertThat(notch.gain(low / (2 * Math.PI))).isCloseTo(Math.sqrt(0.5), within(1e-9));
        assertThat(notch.gain(high / (2 * Math.PI))).isCloseTo(Math.sqrt(0.5), within(1e-9));
        assertThat(notch.gain(0.05)).isLessThan(1e-9);
    }

    @Test
    void aRecipeReadsBackToItself() {
        String text = "bandpass:0.5..8@2 | notch:50@30 | median:5 | offset:-2.5 | rms:0.05 | detrend";
        assertThat(Recipe.parse(text).text()).isEqualTo(text);
        assertThat(Recipe.parse(" ").steps()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '!',
            value = {
                "lowpas:8@2!no step is called 'lowpas'; there are bandpass, lowpass",
                "lowpass:8!two numbers parted by @; for example lowpass:8@2",
                "median:4!an odd number of samples",
                "bandpass:8..0.5@2!low corner must be below the high one",
                "lowpass:8@0!whole number from 1 to 16",
                "mean:x!'x' is not a number",
                "exp:1.5!above 0 and at most 1",
                "lowpass:NaN@2!'NaN' is not a number",
                "rectify:3!takes nothing after it",
                "lowpass:8@2 |!an empty step",
                "lowpass:-8@2!must be above 0"
            })
    void whatMakesNoSenseIsRefusedWithWhatWould(String text, String said) {
        assertThatThrownBy(() -> Recipe.parse(text))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining(said);
    }

    @Test
    void aCornerAtHalfTheRateIsRefusedWithTheLimit() {
        assertThatThrownBy(() -> Recipe.parse("lowpass:100@2").stage(200, Start.SETTLED))
                .isInstanceOf(RecipeException.class)
                .hasMessage("lowpass:100@2: 100 Hz is not below half of 200 samples/s; it must be below 100 Hz");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '!',
            value = {
                "bandpass:0.5..8@2 | notch:50@30!notch:50@30 does nothing: 50 Hz lies outside of the 0.5 to 8 Hz",
                "highpass:20@2 | lowpass:100@2 | notch:50@1!takes 50 Hz out of the 80 Hz that are left: a Q of 7 would take a tenth",
                "lowpass:8@2 | lowpass:40@2!lowpass:40@2 does nothing: above 8 Hz is nothing left",
                "highpass:20@2 | lowpass:8@2!lowpass:8@2 leaves nothing: above 20 and below 8 Hz",
                "bandpass:0.5..8@2 | mean:5!",
                "highpass:20@2 | envelope:6 | lowpass:2@2!"
            })
    void whatRunsAndMakesLittleSenseIsSaidWithNumbers(String recipe, String said) {
        List<String> remarks = Remarks.of(Recipe.parse(recipe), 1000);
        if (said == null) {
            assertThat(remarks).isEmpty();
        } else {
            assertThat(remarks).singleElement().asString().contains(said);
        }
    }

    @Test
    void everySuggestionRunsAtTheRateItIsMadeFor() {
        for (ReaderKind kind : ReaderKinds.all()) {
            assertThat(kind.suggestions()).allSatisfy(one -> {
                assertThat(one.runsAt(1000)).isTrue();
                assertThat(Remarks.of(Recipe.parse(one.recipe()), 1000)).isEmpty();
                assertThat(one.reason()).hasSizeGreaterThan(10);
            });
        }
        // At 39 a second a muscle is not to be had, at 60 mains is not.
        assertThat(ReaderKinds.of("muscle").suggestions()).noneMatch(one -> one.runsAt(39));
        assertThat(ReaderKinds.of("pulse").suggestions())
                .filteredOn(one -> one.runsAt(60))
                .hasSize(1);
    }
}
