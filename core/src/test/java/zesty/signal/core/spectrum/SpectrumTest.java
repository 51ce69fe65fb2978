package zesty.signal.core.spectrum;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.Test;

class SpectrumTest {
    /** The signal of core/src/test/python/welch.py. */
    private static double[] signal() {
        double[] x = new double[301];
        Arrays.setAll(x, i -> Math.sin(i * i / 700.0) + i % 7 / 5.0 - i / 400.0);
        return x;
    }

    @Test
    void densitiesAreThoseOfAScientificLibrary() throws IOException {
        double[] x = signal();
        int cases = 0;
        try (BufferedReader lines = new BufferedReader(
                new InputStreamReader(SpectrumTest.class.getResourceAsStream("/welch.csv"), StandardCharsets.UTF_8))) {
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                String[] cells = line.split(",");
                Welch welch = new Welch(
                        Double.parseDouble(cells[3]),
                        Window.valueOf(cells[0].toUpperCase(Locale.ROOT)),
                        Integer.parseInt(cells[1]),
                        Double.parseDouble(cells[2]));
                welch.add(x, 0, x.length);
                double[] density = welch.density();
                assertThat(density).hasSize(cells.length - 4);
                double highest = Arrays.stream(density).max().orElse(0);
                for (int k = 0; k < density.length; k++) {
                    double reference = Double.parseDouble(cells[k + 4]);
                    // Where a bin is nearly empty, what is left is rounding of its neighbours.
                    assertThat(density[k])
                            .as("%s of %s, bin %d", cells[0], cells[1], k)
                            .isCloseTo(reference, within(1e-9 * reference + 1e-13 * highest));
                }
                cases++;
            }
        }
        assertThat(cases).isEqualTo(8);
    }

    @Test
    void theDensityOfWhiteNoiseAddsUpToItsVariance() {
        Random random = new Random(4);
        double[] x = random.doubles(100_000, -Math.sqrt(3), Math.sqrt(3)).toArray();
        Welch welch = Welch.of(x, List.of(new int[] {0, x.length}), 500, Window.HANN, 1000, 0.5);
        // Uniform in ±√3: variance 1, spread over 250 Hz.
        assertThat(Arrays.stream(welch.density()).sum() * 0.5).isCloseTo(1, within(0.02));
        assertThat(welch.hz()[500]).isEqualTo(250);
        assertThat(welch.segments()).isEqualTo(199);
    }

    @Test
    void noSegmentLiesAcrossAGap() {
        double[] x = new double[400];
        Arrays.fill(x, 200, 400, 1000);
        List<int[]> runs = List.of(new int[] {0, 200}, new int[] {200, 400});
        Welch parted = Welch.of(x, runs, 100, Window.HANN, 64, 0.5);
        // Each side is flat, so the step between them is nowhere.
        assertThat(Arrays.stream(parted.density()).max().orElse(1)).isLessThan(1e-20);
        assertThat(parted.segments()).isEqualTo(10);
        assertThat(Arrays.stream(Welch.of(x, List.of(new int[] {0, 400}), 100, Window.HANN, 64, 0.5)
                                .density())
                        .max()
                        .orElse(0))
                .isGreaterThan(1000);
        assertThat(new Welch(100, Window.HANN, 64, 0.5).density()).containsOnly(Double.NaN);
        assertThatThrownBy(() -> new Welch(100, Window.HANN, 0, 0.5)).hasMessageContaining("a segment of at least 1");
        assertThatThrownBy(() -> new Welch(100, Window.HANN, 8, 1)).hasMessageContaining("below 1");
    }

    @Test
    void aLineHasItsPlaceAndHeightWhereverItLiesBetweenBins() {
        Random random = new Random(9);
        for (double hz : new double[] {20, 20.25, 20.5, 33.33, 47.91}) {
            double[] x = new double[4000];
            Arrays.setAll(x, i -> 0.7 * Math.sin(2 * Math.PI * hz * i / 200 + 0.4) + 0.02 * random.nextGaussian());
            double[] density = Welch.of(x, List.of(new int[] {0, 4000}), 200, Window.HANN, 256, 0.5)
                    .density();
            List<Lines.Line> lines = Lines.of(density, 200 / 256.0, 1, 100, 5);
            assertThat(lines).isNotEmpty();
            assertThat(lines.get(0).hz()).as("%.2f Hz", hz).isCloseTo(hz, within(0.02));
            assertThat(lines.get(0).amplitude()).as("%.2f Hz", hz).isCloseTo(0.7, within(0.01));
            // The others, if any, are the noise.
            assertThat(lines.stream().skip(1)).allMatch(line -> line.amplitude() < 0.02);
        }
        double[] noise = random.doubles(20_000).toArray();
        double[] flat = Welch.of(noise, List.of(new int[] {0, 20_000}), 200, Window.HANN, 256, 0.5)
                .density();
        assertThat(Lines.of(flat, 200 / 256.0, 1, 100, 5)).isEmpty();
    }

    /** A flat floor of 1 with lines put on it; energies, centres and heights are worked by hand. */
    @Test
    void linesOfADensityWorkedByHand() {
        double[] density = new double[101];
        Arrays.fill(density, 1);
        System.arraycopy(new double[] {15, 20}, 0, density, 0, 2);
        System.arraycopy(new double[] {3, 5, 10, 5, 3}, 0, density, 18, 5);
        // Of two alike the later one is taken, once.
        System.arraycopy(new double[] {9, 9}, 0, density, 30, 2);
        // The one three bins further on is part of it.
        System.arraycopy(new double[] {101, 51, 1, 8}, 0, density, 60, 4);
        density[80] = 6;
        density[90] = 6.1;
        System.arraycopy(new double[] {12, 7}, 0, density, 99, 2);
        List<Lines.Line> inside = Lines.of(density, 0.5, 10, 45, 9);
        assertThat(inside)
                .extracting(Lines.Line::hz)
                .usingComparatorForType(near(), Double.class)
                .containsExactly((100 * 60 + 50 * 61 + 7 * 63) / 157.0 / 2, 10.0, 15.25, 45.0);
        assertThat(inside)
                .extracting(Lines.Line::amplitude)
                .usingComparatorForType(near(), Double.class)
                .containsExactly(Math.sqrt(157), Math.sqrt(21), 4.0, Math.sqrt(5.1));
        assertThat(inside)
                .extracting(Lines.Line::clear)
                .usingComparatorForType(near(), Double.class)
                .containsExactly(101.0, 10.0, 9.0, 6.1);
        assertThat(Lines.of(density, 0.5, 10, 45, 2)).isEqualTo(inside.subList(0, 2));
        assertThat(Lines.of(density, 0.5, 10.1, 44.9, 9)).isEqualTo(List.of(inside.get(0), inside.get(2)));
        // At the ends only what there is counts, and never what does not change.
        assertThat(Lines.of(density, 0.5, 0, 2, 9)).singleElement().satisfies(line -> {
            assertThat(line.hz()).isCloseTo(0.5, within(1e-9));
            assertThat(line.amplitude()).isCloseTo(Math.sqrt(19), within(1e-9));
        });
        assertThat(Lines.of(density, 0.5, 48, 60, 9)).singleElement().satisfies(line -> {
            assertThat(line.hz()).isCloseTo((99 * 11 + 100 * 6) / 17.0 / 2, within(1e-9));
            assertThat(line.amplitude()).isCloseTo(Math.sqrt(17), within(1e-9));
        });
        double[] ramp = new double[101];
        Arrays.setAll(ramp, i -> i);
        ramp[50] = 1000;
        // Of the bins 26 to 74, with that one as the highest, two fifths lie below 45.
        assertThat(Lines.of(ramp, 1, 1, 100, 9)).singleElement().satisfies(line -> assertThat(line.clear())
                .isCloseTo(1000 / 45.0, within(1e-9)));
    }

    /** Ten hertz at 100/s, before and after the middle as strong as told, on each of two axes. */
    private static double change(double firstX, double secondX, double firstY, double secondY) {
        double[][] axes = new double[2][1007];
        for (int i = 0; i < 1000; i++) {
            double tone = Math.sin(2 * Math.PI * 10 * i / 100);
            axes[0][7 + i] = 5 + tone * (i < 500 ? firstX : secondX);
            axes[1][7 + i] = tone * (i < 500 ? firstY : secondY) - 1;
        }
        return new Steadiness(axes, 7, 1000, 100).change(10);
    }

    @Test
    void aLineIsAsSteadyAsItsHalvesAreAlike() {
        assertThat(change(3, 3, 4, 4)).isCloseTo(0, within(1e-6));
        // One and a half in the whole: a third less and a third more.
        assertThat(change(1, 2, 0, 0)).isCloseTo(1 / 3.0, within(1e-3));
        assertThat(change(2, 1, 2, 1)).isCloseTo(1 / 3.0, within(1e-3));
        assertThat(change(0.5, 1.5, 0, 0)).isCloseTo(0.5, within(1e-3));
        // From one axis to the other: half on each in the whole, so its height is the root of a half.
        assertThat(change(1, 0, 0, 1)).isCloseTo(Math.sqrt(2) - 1, within(1e-3));
    }

    @Test
    void spectraOneAfterTheOtherCoverTheRecordByHalves() {
        double[] x = new double[1000];
        Arrays.setAll(x, i -> i >= 500 && i < 700 ? 2 * Math.sin(2 * Math.PI * 20 * i / 100) : 0);
        x[150] = Double.NaN;
        Waterfall fall = Waterfall.of(x, 100, 9);
        assertThat(fall.density()).hasNumberOfRows(9);
        assertThat(fall.binHz()).isEqualTo(0.5);
        assertThat(fall.stepSeconds()).isEqualTo(1);
        double[] energy = Arrays.stream(fall.density())
                .mapToDouble(row -> Arrays.stream(row).sum() * 0.5)
                .toArray();
        assertThat(energy[5]).isCloseTo(2, within(1e-6));
        assertThat(energy[4]).isCloseTo(1, within(0.05));
        assertThat(energy[6]).isCloseTo(1, within(0.05));
        assertThat(new double[] {energy[2], energy[3], energy[7], energy[8]}).containsOnly(0);
        assertThat(new double[] {energy[0], energy[1]}).containsOnly(Double.NaN);
        assertThat(Waterfall.of(new double[15], 100, 9).density()).isEmpty();
        assertThat(Waterfall.of(new double[16], 100, 9).density()).hasNumberOfRows(1);
        assertThat(Waterfall.of(new double[4000], 100, 1).binHz()).isEqualTo(100 / 512.0);
    }

    private static Comparator<Double> near() {
        return (a, b) -> Math.abs(a - b) < 1e-9 ? 0 : Double.compare(a, b);
    }
}
