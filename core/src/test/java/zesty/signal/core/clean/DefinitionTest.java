package zesty.signal.core.clean;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Steps against their definitions, worked out the slow way. */
class DefinitionTest {
    private static double[] noise(long seed, int n) {
        return new Random(seed).doubles(n, -1, 1).toArray();
    }

    /** |H|² = 1 / (1 + Ω^2n), with the frequencies bent as the bilinear transform bends them. */
    @ParameterizedTest
    @CsvSource({"1,200,8", "2,200,8", "3,1000,0.5", "8,1000,0.5", "5,44100,18000", "12,250,40", "16,100,20"})
    void butterworthGainsAreTheFormulasOwn(int order, double rate, double hz) {
        Sections low = FilterDesign.lowPass(rate, hz, order);
        Sections high = FilterDesign.highPass(rate, hz, order);
        double corner = Math.tan(Math.PI * hz / rate);
        for (double share = 0.1; share < 0.5; share += 0.037) {
            double f = share * rate;
            double omega = Math.tan(Math.PI * share) / corner;
            double expected = 1 / Math.sqrt(1 + Math.pow(omega, 2 * order));
            assertThat(low.gain(share)).as("low at %s Hz", f).isCloseTo(expected, within(1e-9 + 1e-6 * expected));
            double expectedHigh = 1 / Math.sqrt(1 + Math.pow(omega, -2 * order));
            assertThat(high.gain(share)).as("high at %s Hz", f).isCloseTo(expectedHigh, within(1e-6));
        }
        assertThat(low.gain(hz / rate)).isCloseTo(Math.sqrt(0.5), within(1e-7));
        assertThat(low.poles()).isEqualTo(order);
    }

    @ParameterizedTest
    @CsvSource({"1,200,0.5,8", "2,200,0.5,8", "4,200,0.5,8", "3,500,48,52", "8,1000,20,200"})
    void bandGainsAreTheFormulasOwn(int order, double rate, double lowHz, double highHz) {
        Sections pass = FilterDesign.bandPass(rate, lowHz, highHz, order);
        Sections stop = FilterDesign.bandStop(rate, lowHz, highHz, order);
        double a = Math.tan(Math.PI * lowHz / rate);
        double b = Math.tan(Math.PI * highHz / rate);
        for (double share = 0.011; share < 0.49; share += 0.029) {
            double w = Math.tan(Math.PI * share);
            double omega = (w * w - a * b) / (w * (b - a));
            double expected = 1 / Math.sqrt(1 + Math.pow(omega * omega, order));
            assertThat(pass.gain(share)).isCloseTo(expected, within(1e-7));
            double expectedStop = 1 / Math.sqrt(1 + Math.pow(1 / (omega * omega), order));
            assertThat(stop.gain(share)).isCloseTo(expectedStop, within(1e-6));
        }
        assertThat(pass.poles()).isEqualTo(2 * order);
    }

    @Test
    void groupDelayIsThePhasesOwnSlope() {
        // The phase measured on a sine in the steady state, at two frequencies close by.
        Sections sections = FilterDesign.bandPass(200, 0.5, 8, 2);
        double f = 2;
        double step = 0.01;
        double slope = (phase(sections, f + step, 200) - phase(sections, f - step, 200)) / (2 * step * 2 * Math.PI);
        assertThat(sections.delaySamples(f / 200)).isCloseTo(-slope * 200, within(0.02));
    }

    private static double phase(Sections sections, double hz, double rate) {
        int n = 100_000;
        double[] x = new double[n];
        for (int i = 0; i < n; i++) {
            x[i] = Math.sin(2 * Math.PI * hz * i / rate);
        }
        new SectionFilter(sections, Start.FROM_REST).apply(x, 0, n);
        double sine = 0;
        double cosine = 0;
        // A whole number of periods at the end: 100 periods of either frequency.
        int length = (int) Math.round(100 * rate / hz);
        for (int i = n - length; i < n; i++) {
            sine += x[i] * Math.sin(2 * Math.PI * hz * i / rate);
            cosine += x[i] * Math.cos(2 * Math.PI * hz * i / rate);
        }
        return Math.atan2(cosine, sine);
    }

    @Test
    void medianAndSpikesAreWhatTheirDefinitionsSay() {
        double[] x = noise(4, 400);
        x[100] = 50;
        x[101] = -80;
        double[] median = x.clone();
        Recipe.parse("median:9").onceThrough(median, 100);
        double[] despiked = x.clone();
        Recipe.parse("despike:4@3").onceThrough(despiked, 100);
        for (int i = 0; i < x.length; i++) {
            double[] window = Arrays.copyOfRange(x, Math.max(0, i - 4), Math.min(x.length, i + 5));
            double middle = middle(window);
            assertThat(median[i]).isEqualTo(middle);
            double[] away = Arrays.stream(window).map(v -> Math.abs(v - middle)).toArray();
            boolean out = Math.abs(x[i] - middle) > 3 * 1.4826 * middle(away);
            assertThat(despiked[i]).isEqualTo(out ? middle : x[i]);
        }
        assertThat(despiked[100]).isBetween(-1.0, 1.0);
    }

    private static double middle(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        int n = sorted.length;
        return n % 2 == 1 ? sorted[n / 2] : (sorted[n / 2 - 1] + sorted[n / 2]) / 2;
    }

    @Test
    void smoothingLeavesAPolynomialOfItsDegreeAlone() {
        double[] cubic = new double[200];
        for (int i = 0; i < cubic.length; i++) {
            double t = (i - 90) / 40.0;
            cubic[i] = 3 - 2 * t + 0.5 * t * t - 0.7 * t * t * t;
        }
        double[] smoothed = cubic.clone();
        Recipe.parse("smooth:21@3").onceThrough(smoothed, 100);
        for (int i = 0; i < cubic.length; i++) {
            assertThat(smoothed[i]).isCloseTo(cubic[i], within(1e-10));
        }
        double[] quartic = cubic.clone();
        Arrays.setAll(quartic, i -> Math.pow((i - 90) / 40.0, 4));
        double[] bent = quartic.clone();
        Recipe.parse("smooth:21@3").onceThrough(bent, 100);
        assertThat(Math.abs(bent[150] - quartic[150])).isGreaterThan(1e-4);
    }

    @Test
    void theLiveLineIsTheLeastSquaresLineOfAllSoFar() {
        double[] x = noise(6, 300);
        Arrays.setAll(x, i -> x[i] + 0.3 * i - 40);
        double[] live = x.clone();
        Recipe.parse("detrend").stage(100, Start.SETTLED).apply(live, 0, live.length);
        for (int end : new int[] {2, 3, 50, 299}) {
            double n = end + 1;
            double sx = 0, sy = 0, sxx = 0, sxy = 0;
            for (int i = 0; i <= end; i++) {
                sx += i;
                sy += x[i];
                sxx += (double) i * i;
                sxy += i * x[i];
            }
            double slope = (n * sxy - sx * sy) / (n * sxx - sx * sx);
            double line = (sy - slope * sx) / n + slope * end;
            assertThat(live[end]).isCloseTo(x[end] - line, within(1e-9));
        }
    }

    @Test
    void aMeanOverMillionsOfSamplesDoesNotCreep() {
        // A million counts of a billion each, then nothing: a running sum alone would leave its rounding behind.
        Stage mean = Recipe.parse("mean:100").stage(100, Start.FROM_REST);
        double[] large = new Random(7).doubles(1_000_000, 1e9, 2e9).toArray();
        mean.apply(large, 0, large.length);
        double[] nothing = new double[250];
        mean.apply(nothing, 0, nothing.length);
        assertThat(nothing[249]).isZero();
    }

    @Test
    void aCombIsANotchAtEachMultipleAndAsWideAtEach() {
        double[] x = noise(9, 4000);
        double[] comb = x.clone();
        Recipe.parse("comb:50@15").onceThrough(comb, 500);
        double[] one = x.clone();
        Recipe.parse("notch:50@15 | notch:100@30 | notch:150@45 | notch:200@60").onceThrough(one, 500);
        for (int i = 0; i < x.length; i++) {
            assertThat(comb[i]).isCloseTo(one[i], within(1e-10));
        }
    }

    @Test
    void theChangeASecondOfARampIsItsSlopeAndOverARecordItIsNotLate() {
        double[] ramp = new double[200];
        Arrays.setAll(ramp, i -> 7 + 3 * i / 100.0);
        double[] stored = ramp.clone();
        Recipe.parse("differentiate").bothWays(stored, 100);
        assertThat(stored).containsOnly(new double[] {3}, within(1e-9));
        double[] sine = new double[1000];
        Arrays.setAll(sine, i -> Math.sin(2 * Math.PI * 2 * i / 1000.0));
        Recipe.parse("differentiate").bothWays(sine, 1000);
        double gain = Math.sin(2 * Math.PI * 2 / 1000.0) * 1000;
        for (int i = 1; i < 999; i++) {
            // The central difference of a sine is its cosine, less by sin x / x.
            assertThat(sine[i]).isCloseTo(gain * Math.cos(2 * Math.PI * 2 * i / 1000.0), within(1e-9));
        }
        double[] live = ramp.clone();
        Recipe.parse("differentiate").onceThrough(live, 100);
        assertThat(live[0]).isCloseTo(700, within(1e-9));
        assertThat(live[150]).isCloseTo(3, within(1e-9));
    }

    @Test
    void theIntegralOfAToneIsOverItsTurningSpeedAndALevelDoesNotRunAway() {
        for (boolean record : new boolean[] {true, false}) {
            double[] x = new double[40_000];
            Arrays.setAll(x, i -> 5 + Math.cos(2 * Math.PI * 20 * i / 1000.0));
            Recipe recipe = Recipe.parse("integrate:0.5");
            if (record) {
                recipe.bothWays(x, 1000);
            } else {
                recipe.onceThrough(x, 1000);
            }
            double most = 0;
            for (int i = 20_000; i < 30_000; i++) {
                most = Math.max(most, Math.abs(x[i]));
            }
            // Corners at 0.5 Hz take a thousandth at 20 Hz, the trapezoid as much; the crest may lie between samples.
            assertThat(most).as(record ? "record" : "stream").isCloseTo(1 / (2 * Math.PI * 20), within(5e-5));
        }
    }

    @Test
    void aWindowInSecondsIsAsManySamplesAsTheRateGives() {
        double[] x = noise(10, 500);
        for (String[] same : new String[][] {{"mean:0.1s", "mean:20"}, {"median:0.1s", "median:21"}}) {
            double[] timed = x.clone();
            double[] counted = x.clone();
            Recipe.parse(same[0]).onceThrough(timed, 200);
            Recipe.parse(same[1]).onceThrough(counted, 200);
            assertThat(timed).isEqualTo(counted);
            assertThat(Recipe.parse(same[0]).text()).isEqualTo(same[0]);
        }
        org.assertj.core.api.Assertions.assertThatThrownBy(
                        () -> Recipe.parse("median:100s").stage(1000, Start.SETTLED))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining("1 to 10001 are possible");
    }

    /** A beat of 80 ms on a wander ten times as high: a beat on a slope pulls a median along, so that a twentieth of the wander is left. */
    @Test
    void aBaselineGoesAndTheShapeOfABeatStays() {
        double[] beats = new double[6000];
        for (int i = 0; i < beats.length; i++) {
            double off = (i % 400 - 200) / 500.0;
            beats[i] = Math.exp(-0.5 * Math.pow(off / 0.012, 2))
                    - 0.25 * Math.exp(-0.5 * Math.pow((off - 0.03) / 0.01, 2));
        }
        double[] wandering = new double[beats.length];
        Arrays.setAll(wandering, i -> beats[i] + 10 * Math.sin(2 * Math.PI * 0.15 * i / 500) + 3);
        Recipe.parse("baseline:0.6").onceThrough(wandering, 500);
        double worst = 0;
        for (int i = 300; i < beats.length - 300; i++) {
            worst = Math.max(worst, Math.abs(wandering[i] - beats[i]));
        }
        assertThat(worst).isLessThan(0.5);
        // As the definition says, the slow way.
        double[] x = noise(8, 300);
        double[] taken = x.clone();
        Recipe.parse("baseline:0.3").onceThrough(taken, 100);
        double[] once = new double[x.length];
        for (int i = 0; i < x.length; i++) {
            once[i] = middle(Arrays.copyOfRange(x, Math.max(0, i - 5), Math.min(x.length, i + 6)));
        }
        for (int i = 0; i < x.length; i++) {
            double level = middle(Arrays.copyOfRange(once, Math.max(0, i - 15), Math.min(x.length, i + 16)));
            assertThat(taken[i]).isCloseTo(x[i] - level, within(1e-15));
        }
    }

    @Test
    void whatIsMissingIsFilledByALineUpToTheLimitAndNoFurther() {
        double[] x = new double[60];
        Arrays.setAll(x, i -> 2.0 * i);
        Arrays.fill(x, 10, 15, Double.NaN);
        Arrays.fill(x, 30, 36, Double.NaN);
        x[0] = Double.NaN;
        x[59] = Double.NaN;
        Recipe.parse("fill:0.05").onceThrough(x, 100);
        for (int i = 1; i < 59; i++) {
            if (i >= 30 && i < 36) {
                assertThat(x[i]).isNaN();
            } else {
                assertThat(x[i]).isCloseTo(2.0 * i, within(1e-12));
            }
        }
        assertThat(x[0]).isNaN();
        assertThat(x[59]).isNaN();
    }

    /** A sine cut at seven tenths of its height: what is drawn stands within a sixth of what was cut off, and nothing else moves. */
    @Test
    void whatWasCutOffIsDrawnOnWithTheSlopesOfItsSides() {
        double[] sine = new double[1000];
        Arrays.setAll(sine, i -> Math.sin(2 * Math.PI * 5 * i / 500));
        double[] cut =
                Arrays.stream(sine).map(v -> Math.max(-0.7, Math.min(0.7, v))).toArray();
        double[] mended = cut.clone();
        Recipe.parse("unclip:0.1").onceThrough(mended, 500);
        double worst = 0;
        // From the second time on the end of the range is known; the last run has no end.
        for (int i = 120; i < 950; i++) {
            worst = Math.max(worst, Math.abs(mended[i] - sine[i]));
            if (Math.abs(sine[i]) < 0.69) {
                assertThat(mended[i]).isEqualTo(cut[i]);
            }
        }
        assertThat(worst).isLessThan(0.05);
        double[] longer = cut.clone();
        Recipe.parse("unclip:0.03").onceThrough(longer, 500);
        assertThat(longer).containsExactly(cut);
    }

    /** Mains with its third harmonic that drifts from 49.7 to 50.3 Hz within 40 s, over a slow signal. */
    @Test
    void humIsFollowedWhileItDriftsAndTheRestStays() {
        double rate = 1000;
        double[] slow = new double[40_000];
        double[] x = new double[slow.length];
        double phase = 0;
        for (int i = 0; i < x.length; i++) {
            double t = i / rate;
            slow[i] = Math.sin(2 * Math.PI * 3 * t) + 0.3 * Math.sin(2 * Math.PI * 80 * t);
            phase += 2 * Math.PI * (49.7 + 0.6 * t / 40) / rate;
            x[i] = slow[i] + 2 * Math.sin(phase) + 0.5 * Math.sin(3 * phase + 1);
        }
        double[] followed = x.clone();
        Recipe.parse("hum:50@1").onceThrough(followed, rate);
        double[] notched = x.clone();
        Recipe.parse("notch:50@50 | notch:150@150").onceThrough(notched, rate);
        double left = 0;
        double fixed = 0;
        for (int i = 5000; i < x.length; i++) {
            left += Math.pow(followed[i] - slow[i], 2) / (x.length - 5000);
            fixed += Math.pow(notched[i] - slow[i], 2) / (x.length - 5000);
        }
        // Of a hum of 1.46 RMS a twentieth; a fixed notch as narrow leaves ten times as much.
        assertThat(Math.sqrt(left)).isLessThan(0.08);
        assertThat(Math.sqrt(fixed)).isGreaterThan(5 * Math.sqrt(left));
    }
}
