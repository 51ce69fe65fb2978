package zesty.signal.core.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Pictures whose spots, means and faults are known. */
class FramesTest {
    /** A round spot of a given radius (1 sigma, in pixels) that creeps along, on noise in steps of a tenth. */
    private static FrameSeries spot(double radius, double creep, int stuckAt, double stuck, long seed) {
        Random random = new Random(seed);
        int width = 16;
        int height = 12;
        double[][] frames = new double[20][width * height];
        double[] seconds = new double[20];
        for (int f = 0; f < 20; f++) {
            seconds[f] = f / 4.0;
            for (int p = 0; p < width * height; p++) {
                double dx = p % width - 6 - creep * f;
                double dy = p / width - 5;
                double heat = 40 * Math.exp(-(dx * dx + dy * dy) / (2 * radius * radius));
                frames[f][p] = Math.rint(10 * (20 + heat + 0.3 * random.nextGaussian())) / 10;
            }
            if (stuckAt >= 0) {
                frames[f][stuckAt] = Double.isNaN(stuck) ? 20.4 : frames[f][stuckAt] + stuck;
            }
        }
        return new FrameSeries(width, height, seconds, frames);
    }

    private static int count(boolean[] dead) {
        int n = 0;
        for (boolean one : dead) {
            n += one ? 1 : 0;
        }
        return n;
    }

    @ParameterizedTest
    @CsvSource({"1,0.1", "1,0", "1.5,0.2", "3,0", "0.85,0.1"})
    void aSpotIsNoFaultHoweverSmallAndStill(double radius, double creep) {
        for (long seed = 1; seed <= 10; seed++) {
            assertThat(count(DeadPixels.of(spot(radius, creep, -1, 0, seed))))
                    .as("seed %d", seed)
                    .isZero();
        }
    }

    @ParameterizedTest
    @CsvSource({"100,NaN", "0,NaN", "181,12", "15,-8", "30,9"})
    void aPixelThatNeverChangesOrAlwaysStandsOutIsFoundAndNoOther(int at, double by) {
        for (long seed = 1; seed <= 10; seed++) {
            boolean[] dead = DeadPixels.of(spot(1.5, 0.1, at, by, seed));
            assertThat(dead[at]).as("seed %d", seed).isTrue();
            assertThat(count(dead)).as("seed %d", seed).isEqualTo(1);
        }
    }

    @Test
    void aSceneThatDoesNotChangeHasNoDeadPixels() {
        double[][] still = new double[6][24];
        for (double[] frame : still) {
            for (int p = 0; p < 24; p++) {
                frame[p] = p;
            }
        }
        assertThat(count(DeadPixels.of(new FrameSeries(6, 4, new double[6], still))))
                .isZero();
    }

    /**
     * Columns that are warmer by turns, and one pixel that stands 3 out: by more than 5 · 1.4826 · step ÷ √2 it must. In a cold column
     * it stands 3 − step above its neighbours, which is enough below 0.4806; in a warm one 3, below 0.5723.
     */
    @ParameterizedTest
    @CsvSource({"0,0,true", "0.47,0,true", "0.49,0,false", "0.56,5,true", "0.58,5,false"})
    void howFarOneMustStandOutGoesByTheNoise(double step, int at, boolean found) {
        double[][] frames = new double[6][12];
        for (int f = 0; f < frames.length; f++) {
            for (int p = 0; p < 12; p++) {
                frames[f][p] = f % 2 + step * (p % 4 % 2) + (p == at ? 3 : 0);
            }
        }
        boolean[] dead = DeadPixels.of(new FrameSeries(4, 3, new double[6], frames));
        assertThat(dead[at]).isEqualTo(found);
        assertThat(count(dead)).isEqualTo(found ? 1 : 0);
    }

    @Test
    void numbersOfAPictureAndOfABoxPassOverWhatIsMissing() {
        double[] frame = {1, 2, 3, 4, Double.NaN, 6, 7, 8, 9};
        FrameSeries series = new FrameSeries(3, 3, new double[] {0}, new double[][] {frame});
        FrameNumbers all = FrameNumbers.of(series, 0, FrameNumbers.Box.whole(series), 6);
        assertThat(all.hottest()).isEqualTo(new FrameNumbers.Spot(9, 2, 2));
        assertThat(all.coldest()).isEqualTo(new FrameNumbers.Spot(1, 0, 0));
        assertThat(all.mean()).isEqualTo(5);
        assertThat(all.share()).isEqualTo(3 / 8.0);
        double[][] turned = {{9, 8, 7, 6, 6, 2, 3, 4, 6}};
        FrameNumbers other = FrameNumbers.of(
                new FrameSeries(3, 3, new double[] {0}, turned), 0, new FrameNumbers.Box(0, 2, 0, 2), 6);
        assertThat(other.coldest()).isEqualTo(new FrameNumbers.Spot(2, 2, 1));
        assertThat(other.share()).isEqualTo(3 / 9.0);
        // Of two that are alike the first is told.
        assertThat(FrameNumbers.of(
                        new FrameSeries(2, 2, new double[] {0}, new double[][] {{3, 3, 3, 3}}),
                        0,
                        new FrameNumbers.Box(0, 1, 0, 1),
                        0))
                .isEqualTo(new FrameNumbers(new FrameNumbers.Spot(3, 0, 0), new FrameNumbers.Spot(3, 0, 0), 3, 1));
        FrameNumbers box = FrameNumbers.of(series, 0, new FrameNumbers.Box(1, 2, 0, 1), Double.NaN);
        assertThat(box.hottest()).isEqualTo(new FrameNumbers.Spot(6, 2, 1));
        assertThat(box.mean()).isCloseTo(11 / 3.0, within(1e-12));
        assertThat(box.share()).isNaN();
    }

    @Test
    void columnsOfPixelsMakeAPictureAndOneThatIsNotWholeIsRefused() {
        double[][] values = {{9, 9}, {1, 5}, {2, 6}, {3, 7}, {4, 8}};
        List<String> names = List.of("hottest", "r1c1", "r1c2", "r2c1", "r2c2");
        FrameSeries series = FrameSeries.of(names, name -> values[names.indexOf(name)], new double[] {0, 1});
        assertThat(series.at(1, 1, 0)).isEqualTo(6);
        assertThat(series.at(0, 0, 1)).isEqualTo(3);
        assertThatThrownBy(() -> FrameSeries.of(names.subList(0, 4), name -> values[0], new double[] {0, 1}))
                .hasMessage("its picture is not whole: 3 pixels of 2 × 2");
    }
}
