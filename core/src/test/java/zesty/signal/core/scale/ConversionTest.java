package zesty.signal.core.scale;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import zesty.signal.core.prove.Fit;
import zesty.signal.core.prove.FitModel;
import zesty.signal.core.prove.Fitting;
import zesty.signal.core.prove.ReferencePoint;

/** Conversions and fits against published tables and the vectors of prove.py. */
class ConversionTest {
    /** From the published tables, in °C and mV, rounded there to 1 µV. */
    @ParameterizedTest
    @CsvSource({
        "K,-200,-5.891", "K,-100,-3.554", "K,-10,-0.392", "K,25,1.000", "K,100,4.096", "K,500,20.644",
        "K,1000,41.276", "K,1372,54.886", "J,-210,-8.095", "J,100,5.269", "J,500,27.393", "J,760,42.919",
        "J,1000,57.953", "J,1200,69.553", "T,-200,-5.603", "T,-100,-3.379", "T,100,4.279", "T,400,20.872",
        "E,-200,-8.825", "E,100,6.319", "E,500,37.005", "E,1000,76.373", "N,-200,-3.990", "N,100,2.774",
        "N,1000,36.256", "N,1300,47.513", "S,-50,-0.236", "S,100,0.646", "S,1000,9.587", "S,1700,17.947",
        "R,-50,-0.226", "R,100,0.647", "R,1000,10.506", "R,1700,20.222", "B,100,0.033", "B,600,1.792",
        "B,1000,4.834", "B,1800,13.591"
    })
    void thermocouplesAgreeWithThePublishedTables(ThermocoupleType type, double celsius, double millivolts) {
        assertThat(type.millivolts(celsius)).isCloseTo(millivolts, within(0.0005001));
    }

    static Stream<ThermocoupleType> types() {
        return Arrays.stream(ThermocoupleType.values());
    }

    @ParameterizedTest
    @MethodSource("types")
    void thermocouplesGoThereAndBackOverTheirWholeRange(ThermocoupleType type) {
        // Type B has one temperature for a voltage from 21 °C on only.
        double low = type == ThermocoupleType.B ? 25 : type.lowest();
        for (int i = 0; i <= 4000; i++) {
            double celsius = low + (type.highest() - low) * i / 4000;
            double back = type.celsius(type.millivolts(celsius));
            // Where the curve lies flat a rounding of the voltage is more of a degree.
            double flat = Math.abs(type.millivolts(Math.min(type.highest(), celsius + 0.01))
                            - type.millivolts(Math.max(type.lowest(), celsius - 0.01)))
                    / 0.02;
            double rounding = 4e-16 * Math.max(1, Math.abs(type.millivolts(celsius))) / Math.max(flat, 1e-9);
            assertThat(back).isCloseTo(celsius, within(1e-9 * Math.max(1, Math.abs(celsius)) + 50 * rounding));
        }
        assertThat(type.celsius(type.highestMillivolts() + 0.01)).isNaN();
        assertThat(type.celsius(type.lowestMillivolts() - 0.01)).isNaN();
    }

    @Test
    void theColdJunctionIsAddedAsVoltage() {
        Thermocouple at25 = new Thermocouple(ThermocoupleType.K, 25);
        assertThat(at25.apply(0)).isCloseTo(25, within(1e-9));
        // 20.644 mV at 500 °C less 1.000 mV at 25 °C, both rounded to 1 µV at 42 µV a degree.
        assertThat(at25.apply(19.644)).isCloseTo(500, within(0.03));
        assertThatThrownBy(() -> new Thermocouple(ThermocoupleType.S, -80))
                .hasMessageContaining("-50 to 1768.1".replace('-', '\u2212'));
    }

    private record Vector(String name, double[] in, double[] out) {}

    static Stream<Vector> vectors() throws IOException {
        String all = new String(
                ConversionTest.class.getResourceAsStream("/reference/prove.csv").readAllBytes(),
                StandardCharsets.UTF_8);
        return all.lines()
                .map(line -> line.split(";"))
                .map(parts -> new Vector(parts[0], numbers(parts[1]), numbers(parts[2])));
    }

    private static double[] numbers(String text) {
        return Arrays.stream(text.split(" ")).mapToDouble(Double::parseDouble).toArray();
    }

    private static Offset<Double> relative(double value) {
        return within(1e-9 * Math.max(1e-3, Math.abs(value)));
    }

    @ParameterizedTest
    @MethodSource("vectors")
    void agreesWithTheReference(Vector vector) {
        if (vector.name().startsWith("fit ")) {
            int n = vector.in().length / 3;
            List<ReferencePoint> points = java.util.stream.IntStream.range(0, n)
                    .mapToObj(i -> new ReferencePoint(vector.in()[i], vector.in()[n + i], vector.in()[2 * n + i]))
                    .toList();
            Fit fit = Fitting.fit(FitModel.valueOf(vector.name().substring(4)), points);
            for (ReferencePoint point : points) {
                double expected = 0;
                for (int k = vector.out().length - 1; k >= 0; k--) {
                    expected = expected * point.raw() + vector.out()[k];
                }
                assertThat(fit.apply(point.raw())).isCloseTo(expected, relative(expected));
            }
            assertThat(fit.coefficients()).hasSameSizeAs(vector.out());
            return;
        }
        Converter tenBits = new Converter(10, 5, Divisor.STEPS);
        double x = vector.in()[0];
        Conversion conversion =
                switch (vector.name()) {
                    case "beta low" ->
                        new Thermistor(new Thermistor.Beta(3950, 10_000, 25), 10_000, Thermistor.Side.LOW, 5);
                    case "beta high" ->
                        new Thermistor(new Thermistor.Beta(3950, 10_000, 25), 10_000, Thermistor.Side.HIGH, 5);
                    case "three" ->
                        new Thermistor(
                                new Thermistor.ThreeCoefficients(1.009249522e-3, 2.378405444e-4, 2.019202697e-7),
                                10_000,
                                Thermistor.Side.LOW,
                                5);
                    case "echo" -> new Echo(vector.in()[1], 0);
                    case "height" -> new Height(1013.25);
                    default -> new Decibels(vector.in()[1]);
                };
        boolean counts = conversion instanceof Thermistor;
        Scaling scaling = new Scaling(counts ? tenBits : null, conversion, List.of(), conversion.unit());
        assertThat(scaling.apply(x)).isCloseTo(vector.out()[0], relative(vector.out()[0]));
        assertThat(scaling.invert(scaling.apply(x))).isCloseTo(x, relative(x));
        double[] block = {x, Double.NaN, x};
        double[] scaled = new double[3];
        scaling.apply(block, scaled, 3);
        assertThat(scaled).containsExactly(scaling.apply(x), Double.NaN, scaling.apply(x));
    }

    @Test
    void whatHasNoAnswerIsMissingAndWhatMakesNoSenseIsRefused() {
        Thermistor thermistor = new Thermistor(new Thermistor.Beta(3950, 10_000, 25), 10_000, Thermistor.Side.LOW, 5);
        assertThat(thermistor.apply(0)).isNaN();
        assertThat(thermistor.apply(5)).isNaN();
        ValueTable table = new ValueTable(List.of(0.0, 10.0, 20.0), List.of(5.0, 1.0, 0.0));
        assertThat(table.apply(15)).isEqualTo(0.5);
        assertThat(table.invert(0.5)).isEqualTo(15);
        assertThat(table.apply(21)).isNaN();
        assertThatThrownBy(() -> Line.through(1, 5, 1, 6)).hasMessageContaining("two points that differ");
        assertThatThrownBy(() -> new Shunt(0, 1, 0)).hasMessage("the shunt must be above 0, was 0");
        assertThatThrownBy(() -> Fitting.fit(
                        FitModel.CUBIC,
                        List.of(new ReferencePoint(1, 1), new ReferencePoint(2, 2), new ReferencePoint(3, 3))))
                .hasMessage("a curve of degree 3 needs 4 points that differ, there are 3");
    }

    @Test
    void aFormulaSaysWhereItIsWrong() {
        Formula chip = new Formula("c0 + c1*x", Map.of("c0", -41.5, "c1", 0.000122), "°C");
        assertThat(chip.apply(499_180)).isCloseTo(-41.5 + 0.000122 * 499_180, within(1e-12));
        assertThat(new Formula("1/(x-2)", Map.of(), "").apply(2)).isNaN();
        assertThatThrownBy(() -> new Formula("2*volts + 1", Map.of(), ""))
                .hasMessageContaining("'volts' at place 3 of the formula is no known name; there are x");
        assertThatThrownBy(() -> new Formula("2*(x", Map.of(), "")).hasMessageContaining("'2*(x' is no formula");
        assertThatThrownBy(() -> new Formula("x * amp", Map.of(), "W", List.of("amps")))
                .isInstanceOfSatisfying(
                        FormulaException.class, e -> assertThat(e.pointed()).isEqualTo("x * amp\n    ^"));
        assertThatThrownBy(() -> new Formula("1e3 * root(x)", Map.of(), ""))
                .hasMessageContaining("'root' at place 7 of the formula is no known function; there are sqrt");
        assertThat(new Formula("2.5e1*sqrt(x) + pi - e", Map.of(), "").apply(16))
                .isCloseTo(100 + Math.PI - Math.E, within(1e-12));
        assertThatThrownBy(() -> new Formula("(x + 2*(x)", Map.of(), ""))
                .isInstanceOfSatisfying(
                        FormulaException.class, e -> assertThat(e.place()).isZero());
        assertThatThrownBy(() -> new Formula("x) + 2", Map.of(), ""))
                .isInstanceOfSatisfying(
                        FormulaException.class, e -> assertThat(e.place()).isEqualTo(1));
    }

    @Test
    void aFormulaTakesInOtherColumnsRowByRow() {
        Formula power = new Formula("x * amps", Map.of(), "W", List.of("amps", "degrees"));
        assertThat(power.columns()).containsExactly("amps");
        assertThat(power.apply(12)).isNaN();
        assertThat(power.at(new double[] {3}).apply(12)).isEqualTo(36);
        Scaling scaling = new Scaling(new Converter(10, 5, Divisor.STEPS, false, "vref"), power, List.of(), "W");
        assertThat(scaling.columns()).containsExactly("vref", "amps");
        double[] counts = {512, 512, 512, 512};
        double[][] others = {{5, 4, Double.NaN, 5}, {2, 2, 2, Double.NaN}};
        double[] watts = new double[4];
        scaling.apply(counts, others, watts, 4);
        assertThat(watts).containsExactly(5, 4, Double.NaN, Double.NaN);
        assertThat(scaling.at(new double[] {4, 2}).apply(512)).isEqualTo(4);
        assertThat(Chained.of(power, new Line(2, 1)).at(new double[] {3}).apply(12))
                .isEqualTo(73);
    }

    @ParameterizedTest
    @CsvSource({
        "x * amps,W,V,A,''",
        "x * amps,mW,V,A,the result is 1000 times too small for mW",
        "x * amps,V,V,A,'the result is not in V, by the units of what goes in (V, A)'",
        "x + amps,V,V,A,'it adds or compares quantities of different units (V, A)'",
        "x + amps,V,V,V,''",
        "x^amps,V,V,V,it adds or compares quantities of different units (V)",
        "x / amps,m/s,m,s,''",
        "x / amps,km/h,m,s,the result is 3.6 times too small for km/h",
        "x * amps,W,mV,A,the result is 1000 times too large for W",
        "x,W,V,V,'the result is not in W, by the units of what goes in (V)'",
        "2 * x * amps,V,V,A,''",
        "x * amps,widgets,V,A,''"
    })
    void aFormulasUnitsAreChecked(String text, String unit, String of, String ofOther, String remark) {
        Formula formula = new Formula(text, Map.of(), unit, List.of("amps"));
        assertThat(formula.unitRemark(List.of(of, ofOther))).isEqualTo(remark);
    }

    @Test
    void manyValuesAtOnceAreTheSameAsOneByOne() {
        Random random = new Random(6);
        double[] raw = random.doubles(20_000, 0, 5)
                .map(v -> random.nextBoolean() ? Math.rint(v * 200) / 200 : v)
                .toArray();
        raw[777] = Double.NaN;
        raw[778] = -0.0;
        raw[779] = 0.0;
        List<Conversion> all = List.of(
                new Thermocouple(ThermocoupleType.K, 20),
                new Thermistor(new Thermistor.Beta(3950, 10_000, 25), 10_000, Thermistor.Side.LOW, 5),
                new Height(3),
                new Formula("1/x + c", Map.of("c", 0.5), ""));
        for (Conversion conversion : all) {
            double[] many = raw.clone();
            conversion.apply(many, many.length);
            for (int i = 0; i < raw.length; i++) {
                assertThat((Double) many[i])
                        .as("%s of %s", conversion.words(), raw[i])
                        .isEqualTo((Double) conversion.apply(raw[i]));
            }
        }
    }

    @Test
    void signedCodesStandForVoltagesOnEitherSide() {
        Converter signed = new Converter(16, 2.048, Divisor.STEPS, true, "");
        assertThat(signed.volts(-32768)).isEqualTo(-2.048);
        assertThat(signed.volts(16384)).isEqualTo(1.024);
        assertThat(signed.highestCode()).isEqualTo(32767);
        assertThat(signed.lowestCode()).isEqualTo(-32768);
        assertThat(new Converter(16, 2.048, Divisor.STEPS).lowestCode()).isZero();
        assertThat(new Converter(16, 2.048, Divisor.HIGHEST_CODE, true, "").volts(32767))
                .isEqualTo(2.048);
    }

    @ParameterizedTest
    @CsvSource({
        "°C,°F,100,212",
        "°C,K,-40,233.15",
        "°F,°C,-40,-40",
        "m/s,kn,10,19.438444924406",
        "m/s,km/h,10,36",
        "m/s,mph,10,22.369362920544",
        "g,m/s²,1,9.80665",
        "V,mV,1.5,1500",
        "kg,lb,1,2.2046226218488",
        "hPa,mmHg,1013.25,760.00000000",
        "m,ft,1,3.2808398950131",
        "Hz,beats/min,1.25,75",
        "A,mA,0.02,20"
    })
    void unitsGoOverIntoEachOther(String from, String to, double value, double expected) {
        Line line = UnitBook.line(from, to);
        assertThat(line.apply(value)).isCloseTo(expected, within(1e-6 * Math.abs(expected)));
        assertThat(UnitBook.line(to, from).apply(line.apply(value))).isCloseTo(value, relative(value));
    }

    @Test
    void oneUnitIsNotShownInAnotherKind() {
        assertThatThrownBy(() -> UnitBook.line("°C", "V")).hasMessageContaining("it can in °C, °F, K");
        assertThat(UnitBook.alternatives("widgets")).containsExactly("widgets");
    }
}
