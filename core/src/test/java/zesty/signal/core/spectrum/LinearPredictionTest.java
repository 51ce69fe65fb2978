package zesty.signal.core.spectrum;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Holes of records that are known where they have them, and of records so short that what fills them is worked on paper. */
class LinearPredictionTest {
    private static double[] filled(double... x) {
        LinearPrediction.fill(x);
        return x;
    }

    /** Two tones without noise, on a level. */
    private static double[] tones(int count) {
        double[] x = new double[count];
        Arrays.setAll(x, i -> 3 + Math.sin(0.9 * i) + 0.4 * Math.sin(0.31 * i + 1));
        return x;
    }

    private static double worst(double[] x, double[] truth) {
        double worst = 0;
        for (int i = 0; i < x.length; i++) {
            worst = Math.max(worst, Math.abs(x[i] - truth[i]));
        }
        return worst;
    }

    @Test
    void whatIsTooShortToPredictIsAStraightLine() {
        assertThat(filled(1, 2, 3)).containsExactly(1, 2, 3);
        assertThat(filled(1, Double.NaN, Double.NaN, 4)).containsExactly(1, 2, 3, 4);
        assertThat(filled(1, Double.NaN, 5, Double.NaN, 3)).containsExactly(1, 3, 5, 4, 3);
    }

    /**
     * Of 1, 2, ?, 4 the mean is 7/3, and of the one pair the reflection −2 · (4/9)/(17/9) = −8/17. The sum of both squared errors,
     * (v + 8/51)² + (5/3 − 8/17 v)², is least at v = 544/1059.
     */
    @Test
    void aPredictionFromOneSampleIsThatOfPaper() {
        assertThat(filled(1, 2, Double.NaN, 4)[2]).isCloseTo(7 / 3.0 + 544 / 1059.0, within(1e-8));
        assertThat(filled(4, Double.NaN, 2, 1)[1]).isCloseTo(7 / 3.0 + 544 / 1059.0, within(1e-8));
    }

    @ParameterizedTest
    @CsvSource({"1, 400", "1, 1", "1, 798", "5, 400", "20, 60", "20, 720"})
    void tonesGoOnThroughAHole(int length, int at) {
        double[] x = tones(800);
        Arrays.fill(x, at, Math.min(799, at + length), Double.NaN);
        assertThat(worst(filled(x), tones(800))).isLessThan(0.003 * length);
    }

    /** Of more than 256 samples nothing is made up. */
    @Test
    void aLongHoleIsAStraightLine() {
        double[] x = tones(1200);
        Arrays.fill(x, 400, 657, Double.NaN);
        double[] straight = new double[257];
        Arrays.setAll(straight, i -> x[399] + (x[657] - x[399]) * (i + 1) / 258);
        double[] one = filled(x.clone());
        assertThat(Arrays.copyOfRange(one, 400, 657)).containsExactly(straight, within(1e-9));
    }

    @Test
    void holesThatComeRegularlyAreFilledAlike() {
        double[] x = tones(4096);
        for (int i = 13; i < 4095; i++) {
            x[i] = i % 24 < 3 ? Double.NaN : x[i];
        }
        assertThat(worst(filled(x), tones(4096))).isLessThan(0.001);
    }

    /** A piece has a prediction of its own, so that another tone after it is met as well. */
    @Test
    void anotherToneLaterIsMetAsWell() {
        double[] other = new double[4096];
        Arrays.setAll(other, i -> Math.sin(i < 2048 ? 0.9 * i : 1.4 * i));
        double[] x = other.clone();
        Arrays.fill(x, 500, 510, Double.NaN);
        Arrays.fill(x, 3500, 3510, Double.NaN);
        assertThat(worst(filled(x), other)).isLessThan(0.01);
    }

    /** Of clean tones in short pieces a prediction is a little off: what it made of a longer hole was a hundred times as high as they are. */
    @ParameterizedTest
    @CsvSource({"12, 1", "12, 2", "12, 5", "24, 1", "24, 3", "24, 5"})
    void nothingIsPutInThatGoesFartherThanWhatWasMeasured(int turn, int missing) {
        double[] x = tones(4096);
        for (int i = 1; i < 4095; i++) {
            x[i] = i % turn < missing || i >= 1020 && i < 1030 ? Double.NaN : x[i];
        }
        assertThat(Arrays.stream(filled(x)).map(v -> Math.abs(v - 3)).max().orElse(9))
                .isLessThan(1.55 * 1.4);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 30, 100, 198})
    void aFlatRecordStaysFlat(int at) {
        double[] x = new double[200];
        Arrays.fill(x, 5);
        x[at] = Double.NaN;
        assertThat(filled(x)).containsOnly(5);
    }

    @Test
    void noiseIsNotToldByWhatCameBeforeAndTonesAre() {
        Random random = new Random(1);
        double[] noise = random.doubles(4000).toArray();
        assertThat(LinearPrediction.untold(noise)).isCloseTo(1, within(0.05));
        assertThat(LinearPrediction.untold(tones(4000))).isLessThan(1e-3);
        double[] half = tones(4000);
        Arrays.setAll(half, i -> half[i] - 3 + Math.sqrt(12 * 0.58) * (noise[i] - 0.5));
        // Of the half that is noise nothing is told, and through it little less of the tones.
        assertThat(LinearPrediction.untold(half)).isBetween(0.5, 0.6);
        half[2000] = Double.NaN;
        assertThat(LinearPrediction.untold(half)).isBetween(0.5, 0.6);
    }
}
