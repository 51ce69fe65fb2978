package zesty.signal.core.scale;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.junit.jupiter.params.provider.Arguments.arguments;

import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Each conversion with one value worked by hand, there and back, and what the window says of it. */
class EveryConversionTest {
    private static final Thermistor.Law BETA = new Thermistor.Beta(3950, 10_000, 25);
    private static final Conversion DIVIDER = new Divider(30_000, 7500);

    /** Conversion, what it takes, its unit, a value, what becomes of it, how far that may be off, its words, its sum. */
    static Stream<Arguments> all() {
        return Stream.of(
                arguments(Line.SAME, "", "", 7, 7, 0, "raw", "1 × 7 + 0"),
                arguments(new Line(2, -3), "", "", 4, 5, 0, "a line", "2 × 4 − 3"),
                arguments(
                        new Polynomial(List.of(1.0, 2.0)),
                        "",
                        "",
                        3,
                        7,
                        0,
                        "a polynomial of degree 1",
                        "1, 2 in powers of 3"),
                arguments(
                        new ValueTable(List.of(0.0, 10.0, 30.0), List.of(5.0, 3.0, -1.0)),
                        "",
                        "",
                        15,
                        2,
                        1e-12,
                        "a table of 3 points",
                        "between the points around 15"),
                arguments(
                        new Thermistor(BETA, 10_000, Thermistor.Side.LOW, 5),
                        "V",
                        "°C",
                        2.5,
                        25,
                        1e-9,
                        "thermistor, to ground",
                        "R = 10000 Ω, by its law"),
                // At 50 °C: 10 kΩ · e^(3950 · (1/323.15 − 1/298.15)) = 3588.2 Ω.
                arguments(
                        new Thermistor(BETA, 10_000, Thermistor.Side.HIGH, 5),
                        "V",
                        "°C",
                        5 * 10_000 / 13_588.2,
                        50,
                        0.001,
                        "thermistor, to the supply",
                        "R = 3588.2 Ω, by its law"),
                arguments(DIVIDER, "V", "V", 1, 5, 0, "divider 30000 over 7500 Ω", "1 × (30000 + 7500) ÷ 7500"),
                arguments(
                        new Shunt(0.1, 20, 0.5),
                        "V",
                        "A",
                        2.5,
                        1,
                        1e-12,
                        "shunt 0.1 Ω, gain 20",
                        "(2.5 − 0.5) ÷ (0.1 × 20)"),
                arguments(
                        new MagneticCurrent(2.5, 0.2),
                        "V",
                        "A",
                        2.9,
                        2,
                        1e-12,
                        "magnetic current sensor, 0.2 V/A",
                        "(2.9 − 2.5) ÷ 0.2"),
                arguments(
                        AnalogTemperature.tenMillivolts(0.5),
                        "V",
                        "°C",
                        0.75,
                        25,
                        1e-12,
                        "analog temperature, 10 mV/°C from 0.5 V",
                        "(0.75 − 0.5) ÷ 0.01"),
                // The published table has 4.096 mV at 100 °C.
                arguments(
                        new Thermocouple(ThermocoupleType.K, 0),
                        "mV",
                        "°C",
                        4.096,
                        100,
                        0.02,
                        "thermocouple type K, cold junction at 0 °C",
                        "4.096 mV + 0 mV, by the reference function"),
                // 331.3 · √(293.15 ÷ 273.15) = 343.215 m/s when dry, a five-hundredth of 8 % faster in half damp air.
                arguments(
                        new Echo(20, 0), "µs", "m", 2000, 0.343215, 1e-6, "echo at 20 °C", "2000 µs ÷ 2 × 343.215 m/s"),
                arguments(
                        new Echo(20, 0.5),
                        "µs",
                        "m",
                        2000,
                        0.343215 * 1.0008,
                        1e-6,
                        "echo at 20 °C",
                        "2000 µs ÷ 2 × 343.489 m/s"),
                arguments(
                        new Echo(0, 1),
                        "µs",
                        "m",
                        2e6,
                        331.3 * (1 + 0.0016 * Math.exp(-1.16)),
                        1e-9,
                        "echo at 0 °C",
                        "2000000 µs ÷ 2 × 331.466 m/s"),
                // The standard atmosphere: 898.746 hPa at 1 km, 54.7489 hPa at 20 km.
                arguments(
                        new Height(1013.25),
                        "hPa",
                        "m",
                        898.746,
                        1000,
                        0.05,
                        "height, 1013.25 hPa at sea level",
                        "898.746 hPa of 1013.25 by the standard atmosphere"),
                arguments(
                        new Height(1013.25),
                        "hPa",
                        "m",
                        54.7489,
                        20_000,
                        0.05,
                        "height, 1013.25 hPa at sea level",
                        "54.7489 hPa of 1013.25 by the standard atmosphere"),
                arguments(new Decibels(2), "", "dB", 20, 20, 1e-12, "decibels above 2", "20 × log10(20 ÷ 2)"),
                arguments(
                        new Chained(DIVIDER, new Line(2, 1)),
                        "V",
                        "V",
                        1,
                        11,
                        0,
                        "divider 30000 over 7500 Ω, then a line",
                        "1 × (30000 + 7500) ÷ 7500 = 5, then 2 × 5 + 1"),
                arguments(
                        new Formula("c*x", Map.of("c", 0.5), "kg"),
                        "",
                        "kg",
                        6,
                        3,
                        0,
                        "formula c*x",
                        "c*x with x = 6"));
    }

    @ParameterizedTest(name = "{6}: {3}")
    @MethodSource("all")
    void isWorkedOutAsByHandAndSaysHow(
            Conversion conversion,
            String takes,
            String unit,
            double x,
            double y,
            double off,
            String words,
            String sum) {
        Offset<Double> near = within(Math.max(off, 1e-12));
        assertThat(conversion.apply(x)).isCloseTo(y, near);
        double[] many = {x, x, x};
        conversion.apply(many, 2);
        assertThat(many).containsExactly(conversion.apply(x), conversion.apply(x), x);
        if (!(conversion instanceof Formula)) {
            double slope = Math.abs(conversion.apply(1.001 * x) - conversion.apply(x)) / (0.001 * x);
            assertThat(conversion.invert(y)).isCloseTo(x, within(Math.max(2 * off / slope, 1e-9 * Math.abs(x))));
        }
        assertThat(conversion.takes()).isEqualTo(takes);
        assertThat(conversion.unit()).isEqualTo(unit);
        assertThat(conversion.words()).isEqualTo(words);
        assertThat(conversion.sum(x)).isEqualTo(sum);
    }

    /** Three resistances of a curve that was fitted through them: 25.4 kΩ at 5 °C, 10 kΩ at 25 °C, 4.37 kΩ at 45 °C. */
    @Test
    void threeCoefficientsGoBackToTheResistanceTheyCameFrom() {
        Thermistor.Law law = new Thermistor.ThreeCoefficients(1.283e-3, 2.362e-4, 9.285e-8);
        for (double ohms : new double[] {400, 10_000, 300_000}) {
            assertThat(law.ohms(law.celsius(ohms))).isCloseTo(ohms, within(1e-7 * ohms));
        }
        double ln = Math.log(10_000);
        assertThat(law.celsius(10_000)).isEqualTo(1 / (1.283e-3 + 2.362e-4 * ln + 9.285e-8 * ln * ln * ln) - 273.15);
        assertThat(law.celsius(0)).isNaN();
        assertThat(law.celsius(-1)).isNaN();
    }

    @Test
    void aConversionEndsWhereItHasNoAnswer() {
        assertThat(new Polynomial(List.of(1.0, 2.0, 3.0)).apply(2)).isEqualTo(17);
        assertThat(new Polynomial(List.of(1.0, 2.0, 3.0)).invert(17)).isNaN();
        assertThat(new Formula("2*x", Map.of(), "").invert(4)).isNaN();
        ValueTable hill = new ValueTable(List.of(0.0, 1.0, 2.0), List.of(0.0, 1.0, 0.0));
        assertThat(hill.invert(0.5)).isNaN();
        assertThat(List.of(hill.apply(0), hill.apply(1), hill.apply(2))).containsExactly(0.0, 1.0, 0.0);
        assertThat(new ValueTable(List.of(0.0, 1.0, 2.0), List.of(0.0, 0.0, 1.0)).invert(0))
                .isNaN();
        assertThat(new ValueTable(List.of(0.0, 1.0), List.of(4.0, 8.0)).invert(5))
                .isEqualTo(0.25);
        assertThat(new Decibels(1).apply(0)).isNaN();
        assertThat(new Height(1000).apply(0)).isNaN();
        assertThatThrownBy(() -> new Polynomial(List.of(1.0))).hasMessageContaining("2 to 16");
        assertThatThrownBy(() -> new Polynomial(List.of(1.0, 0.0))).hasMessageContaining("2 to 16");
        assertThatThrownBy(() -> new Line(1, Double.NaN)).hasMessageContaining("must not be 0");
        assertThatThrownBy(() -> new MagneticCurrent(2.5, 0)).hasMessageContaining("must not be 0");
        assertThatThrownBy(() -> new AnalogTemperature(0, 1)).hasMessageContaining("must not be 0");
        assertThatThrownBy(() -> new Shunt(1, 1, Double.NaN)).hasMessageContaining("zero");
        assertThatThrownBy(() -> new Echo(20, 1.1)).hasMessageContaining("0 to 1");
        assertThatThrownBy(() -> new Divider(-1, 1)).hasMessageContaining("0 or above");
        assertThat(new Divider(0, 1).apply(3)).isEqualTo(3);
        assertThat(Line.through(1, 2, 3, 6)).isEqualTo(new Line(2, 0));
    }

    @Test
    void twoLinesAreOneAndWhatChangesNothingIsLeftOut() {
        assertThat(Chained.of(new Line(2, 1), new Line(3, 4))).isEqualTo(new Line(6, 7));
        assertThat(Chained.of(DIVIDER, Line.SAME)).isSameAs(DIVIDER);
        assertThat(Chained.of(Line.SAME, DIVIDER)).isSameAs(DIVIDER);
        assertThat(Chained.of(DIVIDER, new Decibels(1)).unit()).isEqualTo("dB");
        Formula power = new Formula("x*amps", Map.of(), "W", List.of("amps"));
        Formula less = new Formula("x-lost", Map.of(), "", List.of("lost"));
        Conversion both = Chained.of(power, less);
        assertThat(both.columns()).containsExactly("amps", "lost");
        double[] watts = {12, 10};
        both.apply(watts, new double[][] {{2, 3}, {1, 5}}, 2);
        assertThat(watts).containsExactly(23, 25);
    }

    @Test
    void whatIsEqualIsTheSameFormula() {
        Formula one = new Formula("c*x + y", Map.of("c", 2.0), "V", List.of("y"));
        assertThat(one)
                .isEqualTo(new Formula(" c*x + y", Map.of("c", 2.0), "V", List.of("y")))
                .hasSameHashCodeAs(new Formula("c*x + y", Map.of("c", 2.0), "V", List.of("y", "z")))
                .isNotEqualTo(new Formula("c*x + y", Map.of("c", 3.0), "V", List.of("y")))
                .isNotEqualTo(new Formula("c*x + y", Map.of("c", 2.0), "A", List.of("y")))
                .isNotEqualTo(new Formula("c*x - y", Map.of("c", 2.0), "V", List.of("y")));
        assertThat(one.constants()).containsExactly(Map.entry("c", 2.0));
        assertThatThrownBy(() -> new Formula("", Map.of(), "")).hasMessageContaining("how x becomes");
        assertThatThrownBy(() -> new Formula("x", Map.of("x", 1.0), "")).hasMessageContaining("'x'");
        assertThatThrownBy(() -> new Formula("x", Map.of("c", Double.NaN), "")).hasMessageContaining("c");
    }

    /** Each of its parts by the words a maker reads, and by the other columns where a reference comes with the rows. */
    @Test
    void aScalingWithCorrectionsIsTheSumOfItsSteps() {
        Converter converter = new Converter(10, 5, Divisor.STEPS);
        Scaling scaling = new Scaling(converter, DIVIDER, List.of(), "V")
                .withCorrections(List.of(new Correction("shed", 0.25, 0), new Correction("boat", -1, 0)));
        assertThat(scaling.correction()).isEqualTo(-0.75);
        assertThat(scaling.explain(512))
                .containsExactly(
                        new Scaling.Step("counts", "512", 512, "counts"),
                        new Scaling.Step("volts", "512 × 5 V ÷ 1024", 2.5, "V"),
                        new Scaling.Step("quantity", "2.5 × (30000 + 7500) ÷ 7500", 12.5, "V"),
                        new Scaling.Step("shed", "12.5 + 0.25", 12.75, "V"),
                        new Scaling.Step("boat", "12.75 − 1", 11.75, "V"));
        assertThat(scaling.apply(512)).isEqualTo(11.75);
        assertThat(scaling.invert(11.75)).isEqualTo(512);
        double[] out = new double[3];
        scaling.apply(new double[] {0, 512, 9}, out, 2);
        assertThat(out).containsExactly(-0.75, 11.75, 0);
        assertThat(scaling.stepSize()).isCloseTo(25 / 1024.0, within(1e-12));
        assertThat(new Scaling(null, new Line(-3, 0), List.of(), "").stepSize()).isEqualTo(3);
        assertThat(new Scaling(null, new Height(3), List.of(), "m").stepSize()).isZero();
        assertThat(scaling.isAsItCame()).isFalse();
        assertThat(Scaling.asItCame("g").isAsItCame()).isTrue();
        assertThat(Scaling.asItCame("g").withConversion(DIVIDER, "V").isAsItCame())
                .isFalse();
        assertThat(new Scaling(converter, Line.SAME, List.of(), "V").isAsItCame())
                .isFalse();
        assertThat(Scaling.asItCame("g").withCorrections(scaling.corrections()).isAsItCame())
                .isFalse();
        assertThat(Scaling.asItCame("g").explain(3))
                .containsExactly(
                        new Scaling.Step("raw", "3", 3, ""), new Scaling.Step("quantity", "1 × 3 + 0", 3, "g"));
        assertThat(new Scaling(converter, Line.SAME, List.of(), "V").explain(512))
                .hasSize(2);
        Scaling measured = new Scaling(new Converter(10, 5, Divisor.STEPS, false, "vref"), DIVIDER, List.of(), "V")
                .withCorrections(List.of(new Correction("shed", 1, 0)));
        measured.apply(new double[] {512, 512, 512, 512}, new double[][] {{5, 4, 0, 4}}, out, 3);
        assertThat(out).containsExactly(13.5, 11, Double.NaN);
        measured.apply(new double[] {512}, new double[0][], out, 1);
        assertThat(out[0]).isNaN();
        assertThat(measured.at(new double[] {4}).apply(512)).isEqualTo(11);
        assertThat(measured.at(new double[] {0}).apply(512)).isEqualTo(13.5);
    }
}
