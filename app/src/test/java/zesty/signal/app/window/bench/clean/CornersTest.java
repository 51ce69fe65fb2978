package zesty.signal.app.window.bench.clean;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.Start;

/** Corners as handles, without a window: wherever they are pulled, a recipe comes of it that runs. */
class CornersTest {
    private static final String ALL =
            "median:5 | bandpass:0.5..8@2 | notch:50@30 | lowpass:30@4 | highpass:0.1@1 | bandstop:48..52@2 | mean:3";

    @Test
    void eachFilterHasItsHandlesInOrder() {
        assertThat(Corners.of(Recipe.parse(ALL)))
                .extracting(Corners.Corner::hz)
                .containsExactly(0.5, 8.0, 50.0, 30.0, 0.1, 48.0, 52.0);
        assertThat(Corners.of(Recipe.parse("median:5 | rectify"))).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "0,0.7312,bandpass:0.731..8@2",
        "1,14.04,bandpass:0.5..14@2",
        "0,20,bandpass:7.6..8@2",
        "1,0.1,bandpass:0.5..0.525@2"
    })
    void onlyWhatIsPulledMovesAndEdgesDoNotPass(int which, double hz, String expected) {
        Recipe recipe = Recipe.parse("bandpass:0.5..8@2");
        assertThat(Corners.moved(recipe, Corners.of(recipe).get(which), hz, 200).text())
                .isEqualTo(expected);
    }

    @Test
    void whereverAHandleIsPulledTheRecipeRuns() {
        Random random = new Random(2);
        Recipe recipe = Recipe.parse(ALL);
        for (int i = 0; i < 2000; i++) {
            List<Corners.Corner> corners = Corners.of(recipe);
            Corners.Corner corner = corners.get(random.nextInt(corners.size()));
            double wanted = 200 * (random.nextDouble() - 0.3);
            Recipe moved = Corners.moved(recipe, corner, wanted, 200);
            // Designing its filters would refuse what cannot be, at 200 samples/s.
            moved.stage(200, Start.SETTLED);
            assertThat(Recipe.parse(moved.text())).isEqualTo(moved);
            assertThat(moved.steps()).hasSameSizeAs(recipe.steps());
            assertThat(moved.steps().get(0)).isEqualTo(recipe.steps().get(0));
        }
    }
}
