package zesty.signal.core.sample;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Extremes of spans of a record against a look at every sample. */
class CellPyramidTest {
    private static double[] noise(int samples, Random random) {
        double[] all = new double[samples];
        Arrays.setAll(all, i -> i % 53 == 0 || i / 700 % 9 == 4 ? Double.NaN : (float) random.nextGaussian());
        return all;
    }

    /** A cell knows its samples only together: the span is as wide as the cells that it touches. */
    private static void looked(double[] all, long from, long to, float[] found) {
        int first = (int) (from / CellPyramid.CELL * CellPyramid.CELL);
        int last = (int) Math.min(all.length, (to + CellPyramid.CELL - 1) / CellPyramid.CELL * CellPyramid.CELL);
        double least = Double.NaN;
        double most = Double.NaN;
        for (int i = first; i < last; i++) {
            least = least <= all[i] || all[i] != all[i] ? least : all[i];
            most = most >= all[i] || all[i] != all[i] ? most : all[i];
        }
        assertThat(found).containsExactly((float) least, (float) most);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 64, 65, 1023, 1024, 1025, 16_385, 300_001})
    void spansOfAnyLengthAreThoseOfTheirCells(int samples) {
        Random random = new Random(samples);
        double[] all = noise(samples, random);
        CellPyramid pyramid = new CellPyramid(samples);
        int begun = 0;
        float[] found = {1, 1};
        pyramid.range(0, samples, found);
        assertThat(found).containsExactly(Float.NaN, Float.NaN);
        while (begun < samples) {
            int length = Math.min(samples - begun, CellPyramid.CELL * (1 + random.nextInt(40)));
            double[] part = Arrays.copyOfRange(all, begun, begun + length + 3);
            Arrays.fill(part, length, length + 3, 99);
            pyramid.fill(begun, part, length);
            begun += length;
        }
        for (int trial = 0; trial < 3000; trial++) {
            int from = random.nextInt(samples);
            int to = from + 1 + random.nextInt(samples - from);
            pyramid.range(from, to, found);
            looked(all, from, to, found);
        }
        pyramid.range(-1000, samples, found);
        looked(all, 0, samples, found);
        pyramid.range(5, 5 - CellPyramid.CELL, found);
        assertThat(found).containsExactly(Float.NaN, Float.NaN);
        assertThatThrownBy(() -> pyramid.fill(1, all, 1)).hasMessageContaining("multiple of 64");
    }

    /** What an old take tells of 1024 samples at once is told of each cell, and by all levels above. */
    @ParameterizedTest
    @ValueSource(ints = {1024, 20_000, 70_000})
    void whatIsKnownOfManyCellsIsToldOfEach(int samples) {
        CellPyramid pyramid = new CellPyramid(samples);
        double[] all = new double[samples];
        for (int block = 0; block * 1024 < samples; block++) {
            pyramid.coarse(block * 16, 16, -block, block + 0.5);
            for (int i = block * 1024; i < Math.min(samples, (block + 1) * 1024); i++) {
                all[i] = i % 2 == 0 ? -block : block + 0.5;
            }
        }
        Random random = new Random(2);
        float[] found = new float[2];
        for (int trial = 0; trial < 500; trial++) {
            int from = random.nextInt(samples - 1);
            int to = from + 2 + random.nextInt(samples - from - 1);
            pyramid.range(from, Math.min(samples, to), found);
            looked(all, from, Math.min(samples, to), found);
        }
    }
}
