package zesty.signal.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvFileSource;

/** Parts before the pin, against values worked out another way: {@code core/src/test/python/parts.py}. */
class PartsTest {
    private static Plan.Converter converter(double ref) {
        return new Plan.Converter(10, ref, 0, 1);
    }

    private static double worked(String part, double a, double b, double c, double d) {
        return switch (part) {
            case "divider" -> DividerChoice.of(a, converter(b)).budget().atMaxVolts();
            case "shunt" -> ShuntChoice.of(a, b, c, converter(d)).ohms();
            case "filter" -> FilterChoice.of(a, b).aliased();
            case "thermistor" -> ThermistorChoice.of(a, b, c, d, converter(5)).ohms();
            case "pullup" -> PullUpChoice.of(a, b * 1e-12, c * 1e-9).most();
            case "bridge" -> BridgeChoice.of(a, b, c, converter(d)).gain();
            case "spot" -> SpotSize.of((int) a, b, c).spot();
            default -> throw new IllegalArgumentException(part);
        };
    }

    @ParameterizedTest
    @CsvFileSource(resources = "/reference/parts.csv", numLinesToSkip = 1)
    void valuesAreThoseOfAnotherComputation(String part, double a, Double b, Double c, Double d, double result) {
        double got = worked(part, a, b == null ? 0 : b, c == null ? 0 : c, d == null ? 0 : d);
        assertThat(got).isCloseTo(result, within(1e-6 * Math.abs(result)));
    }

    /** What comes out holds: never above the range at the worst, never hotter than rated, a resistor between its bounds. */
    @Test
    void whatIsChosenFitsAtItsWorst() {
        for (double volts = 3.5; volts < 200; volts *= 1.07) {
            DividerChoice divider = DividerChoice.of(volts, converter(3.3));
            double worst = divider.bottom() * 1.01 / (divider.top() * 0.99 + divider.bottom() * 1.01);
            assertThat(volts * worst).isLessThanOrEqualTo(3.3001);
            assertThat(divider.budget().atMaxVolts()).isGreaterThan(2.6);
        }
        for (double amps = 0.01; amps < 40; amps *= 1.3) {
            ShuntChoice shunt = ShuntChoice.of(amps, 20, 0.2, converter(5));
            assertThat(amps * amps * shunt.ohms()).isLessThanOrEqualTo(shunt.ratedWatts() / 2 * 1.0000001);
            assertThat(amps * shunt.ohms()).isLessThanOrEqualTo(0.2000001);
        }
        PullUpChoice pull = PullUpChoice.of(3.3, 100e-12, 1e-6);
        assertThat(pull.ohms()).isBetween(pull.least(), pull.most());
        // One count at 25 °C, by the difference of two dividers a thousandth of a degree apart.
        ThermistorChoice thermistor = ThermistorChoice.of(1e4, 3950, 0, 50, converter(5));
        double near = 1e4 * Math.exp(3950 * (1 / 298.151 - 1 / 298.15));
        double slope =
                (5 * thermistor.ohms() / (near + thermistor.ohms()) - 5 * thermistor.ohms() / (1e4 + thermistor.ohms()))
                        / 0.001;
        assertThat(thermistor.stepDegrees()).isCloseTo(5 / 1024.0 / slope, within(1e-4));
    }

    @Test
    void whatCannotBeIsSaid() {
        assertThatThrownBy(() -> DividerChoice.of(3, converter(5))).hasMessageContaining("no divider is needed");
        assertThatThrownBy(() -> PullUpChoice.of(5, 2e-9, 300e-9)).hasMessageContaining("shorten it to less than");
        assertThatThrownBy(() -> FilterChoice.of(60, 100)).hasMessageContaining("above twice 60");
        assertThatThrownBy(() -> SpotSize.of(32, 190, 1)).hasMessageContaining("between 0 and 180");
        assertThatThrownBy(() -> ThermistorChoice.of(1e4, 3950, 50, 0, converter(5)))
                .hasMessageContaining("from low to high");
    }
}
