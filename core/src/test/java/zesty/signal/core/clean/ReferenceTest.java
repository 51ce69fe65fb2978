package zesty.signal.core.clean;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Recipes against vectors made with a scientific library by src/test/python/reference.py. */
class ReferenceTest {
    private static final Path FOLDER = Path.of("src/test/resources/reference");

    static Stream<String> cases() throws IOException {
        return Files.readAllLines(FOLDER.resolve("clean.csv")).stream();
    }

    @ParameterizedTest
    @MethodSource("cases")
    void equalsTheScientificLibrary(String line) throws IOException {
        String[] parts = line.split(";");
        double[] data = Arrays.stream(
                        Files.readString(FOLDER.resolve("input.csv")).strip().split(","))
                .mapToDouble(Double::parseDouble)
                .toArray();
        Recipe recipe = Recipe.parse(parts[0]);
        double rate = Double.parseDouble(parts[1]);
        if (parts[2].equals("once")) {
            recipe.onceThrough(data, rate);
        } else {
            recipe.bothWays(data, rate);
        }
        double rms = Double.parseDouble(parts[3]);
        double worst = 0;
        for (String cell : Arrays.copyOfRange(parts, 4, parts.length)) {
            String[] pair = cell.split(":");
            worst = Math.max(worst, Math.abs(data[Integer.parseInt(pair[0])] - Double.parseDouble(pair[1])));
        }
        assertThat(worst / rms).as(parts[0] + " " + parts[2]).isLessThan(1e-9);
    }

    @Test
    void anUnevenCurveIsBroughtToASteadyRateAsTheScientificLibraryDoes() throws IOException {
        List<double[]> rows = Files.readAllLines(FOLDER.resolve("resample.csv")).stream()
                .map(line -> Arrays.stream(line.split(","))
                        .mapToDouble(Double::parseDouble)
                        .toArray())
                .toList();
        double[] seconds = rows.get(0);
        // At 250 Hz from about 100: nothing can fold, and the curve is that of Akima to the rounding of the vectors.
        Resampler.Steady steady = Resampler.steady(seconds, rows.get(1), 100, 250);
        assertThat(steady.firstSeconds() * 250).isCloseTo(Math.ceil(seconds[0] * 250), within(1e-9));
        assertThat(steady.values()).hasSize(rows.get(2).length * 13 - 12 + (steady.values().length - 1) % 13);
        // Within two samples of an end there are no neighbours to draw by, and each library meets that in its own way.
        for (int k = 1; k < rows.get(2).length - 1; k++) {
            assertThat(steady.values()[13 * k]).as("value %d", k).isCloseTo(rows.get(2)[k], within(1e-6));
        }
    }

    @Test
    void whatWouldFoldAtTheNewRateIsTakenOffAndWhatIsSlowerStays() {
        double[] seconds = new double[20_000];
        double[] values = new double[seconds.length];
        for (int i = 0; i < seconds.length; i++) {
            seconds[i] = i / 1000.0;
            values[i] = Math.sin(2 * Math.PI * 3 * seconds[i]) + Math.sin(2 * Math.PI * 47 * seconds[i]);
        }
        // 47 Hz would fold to 3 Hz at 50 a second.
        double[] slow = Resampler.steady(seconds, values, 1000, 50).values();
        assertThat(slow).hasSize(1000);
        for (int i = 100; i < 900; i++) {
            assertThat(slow[i]).isCloseTo(Math.sin(2 * Math.PI * 3 * i / 50.0), within(2e-3));
        }
        assertThatThrownBy(() -> Recipe.parse("resample:50").stage(1000, Start.SETTLED))
                .hasMessageContaining("a channel keeps the rows received");
        assertThatThrownBy(() -> Resampler.steady(new double[] {0, 1}, new double[] {1, 2}, 1, 50))
                .hasMessage("resample:50: 2 samples in a segment are too few for a curve; it takes 5 at least");
    }
}
