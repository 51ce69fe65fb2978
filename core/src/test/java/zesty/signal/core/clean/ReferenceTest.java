package zesty.signal.core.clean;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.stream.Stream;
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
}
