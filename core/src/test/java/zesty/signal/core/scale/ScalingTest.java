package zesty.signal.core.scale;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;

class ScalingTest {
    private static final Converter STEPS = new Converter(10, 5, Divisor.STEPS);

    @Test
    void theArithmeticCanBeReadAndItsLastLineIsTheResult() {
        Scaling scaling = new Scaling(STEPS, 100, -50, "°C");
        List<Scaling.Step> lines = scaling.explain(512);
        assertThat(lines).extracting(Scaling.Step::sum).containsExactly("512", "512 × 5 V ÷ 1024", "100 × 2.5 − 50");
        assertThat(lines).extracting(Scaling.Step::result).containsExactly(512.0, 2.5, 200.0);
        assertThat(scaling.apply(512)).isEqualTo(200);
        assertThat(scaling.stepSize()).isCloseTo(500.0 / 1024, within(1e-15));
        double[] out = new double[3];
        scaling.apply(new double[] {0, 512, Double.NaN}, out, 3);
        assertThat(out).containsExactly(-50, 200, Double.NaN);
    }

    @Test
    void theTopCodeIsAStepBelowTheReferenceOrTheReferenceItself() {
        assertThat(STEPS.volts(1023)).isEqualTo(5 * 1023 / 1024.0);
        assertThat(new Converter(10, 5, Divisor.HIGHEST_CODE).volts(1023)).isEqualTo(5);
        assertThat(new Converter(24, 2.5, Divisor.STEPS).volts(1 << 23)).isEqualTo(1.25);
    }

    @Test
    void nonsenseIsRefusedWithWhatWouldBeRight() {
        assertThatThrownBy(() -> new Converter(10, 0, Divisor.STEPS))
                .hasMessage("the reference must be above 0 V, was 0.0 V");
        assertThatThrownBy(() -> new Converter(7, 5, Divisor.STEPS)).hasMessageContaining("8 to 24 bits, not 7");
        assertThatThrownBy(() -> new Scaling(null, 0, 1, "V")).hasMessageContaining("slope must not be 0");
    }

    @Test
    void numbersForPeopleAndForFiles() {
        assertThat(Digits.of(-0.00488281)).isEqualTo("−0.00488281");
        assertThat(Digits.of(1234567)).isEqualTo("1234570");
        assertThat(Digits.fixed(-0.0004, 2)).isEqualTo("0.00");
        assertThat(Digits.fixed(Double.NaN, 2)).isEqualTo("—");
        assertThat(Digits.decimalsFor(0.0049)).isEqualTo(3);
        assertThat(Digits.exact(512)).isEqualTo("512");
        assertThat(Double.parseDouble(Digits.exact(-0.0))).isEqualTo(-0.0);
        assertThat(Double.parseDouble(Digits.exact(1e-7 / 3))).isEqualTo(1e-7 / 3);
    }
}
