package zesty.signal.app.window.bench;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import zesty.signal.core.scale.AnalogTemperature;
import zesty.signal.core.scale.Chained;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Decibels;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Divider;
import zesty.signal.core.scale.Echo;
import zesty.signal.core.scale.Formula;
import zesty.signal.core.scale.Height;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.MagneticCurrent;
import zesty.signal.core.scale.Polynomial;
import zesty.signal.core.scale.Shunt;
import zesty.signal.core.scale.Thermistor;
import zesty.signal.core.scale.Thermocouple;
import zesty.signal.core.scale.ThermocoupleType;
import zesty.signal.core.scale.ValueTable;
import zesty.signal.core.text.Messages;

/** A conversion as boxes to write in, and back. */
public final class ConversionForm {
    private ConversionForm() {}

    /** A box: its label, what stands in it, and how wide it is in signs. */
    public record Box(String label, String text, int width) {
        Box(String label, double value) {
            this(label, Digits.box(value), 7);
        }
    }

    public static List<Box> boxes(Conversion conversion) {
        if (conversion instanceof Line line) {
            return List.of(
                    new Box(Messages.of("bench.slope"), line.slope()),
                    new Box(Messages.of("bench.offset"), line.offset()));
        }
        if (conversion instanceof Polynomial polynomial) {
            return List.of(new Box(Messages.of("bench.coefficients-c0-c1"), list(polynomial.coefficients()), 30));
        }
        if (conversion instanceof ValueTable table) {
            return List.of(
                    new Box(Messages.of("bench.result"), list(table.x()), 18),
                    new Box(Messages.of("bench.stands-for"), list(table.y()), 18));
        }
        if (conversion instanceof Thermistor thermistor) {
            List<Box> boxes = new ArrayList<>();
            if (thermistor.law() instanceof Thermistor.Beta beta) {
                boxes.add(new Box(Messages.of("bench.beta-k"), beta.beta()));
                boxes.add(new Box("R0, Ω", beta.r0()));
                boxes.add(new Box("at, °C", beta.t0Celsius()));
            } else if (thermistor.law() instanceof Thermistor.ThreeCoefficients three) {
                boxes.add(new Box("a", three.a()));
                boxes.add(new Box("b", three.b()));
                boxes.add(new Box("c", three.c()));
            }
            boxes.add(new Box(Messages.of("bench.series-resistor"), thermistor.seriesOhms()));
            boxes.add(new Box(Messages.of("bench.supply-v"), thermistor.supplyVolts()));
            return boxes;
        }
        if (conversion instanceof Divider divider) {
            return List.of(
                    new Box(Messages.of("bench.top"), divider.topOhms()),
                    new Box(Messages.of("bench.bottom"), divider.bottomOhms()));
        }
        if (conversion instanceof Shunt shunt) {
            return List.of(
                    new Box(Messages.of("bench.shunt"), shunt.ohms()),
                    new Box(Messages.of("bench.gain"), shunt.gain()),
                    new Box(Messages.of("bench.zero-v"), shunt.zeroVolts()));
        }
        if (conversion instanceof MagneticCurrent current) {
            return List.of(
                    new Box(Messages.of("bench.zero-v"), current.zeroVolts()),
                    new Box(Messages.of("bench.sensitivity-v-a"), current.voltsPerAmp()));
        }
        if (conversion instanceof AnalogTemperature analog) {
            return List.of(
                    new Box(Messages.of("bench.slope-v-c"), analog.voltsPerDegree()),
                    new Box(Messages.of("bench.at-0-c-v"), analog.offsetVolts()));
        }
        if (conversion instanceof Thermocouple thermocouple) {
            return List.of(
                    new Box(Messages.of("bench.type"), thermocouple.type().name(), 3),
                    new Box(Messages.of("bench.cold-junction-c"), thermocouple.coldCelsius()));
        }
        if (conversion instanceof Echo echo) {
            return List.of(
                    new Box(Messages.of("bench.air-c"), echo.celsius()),
                    new Box(Messages.of("bench.humidity-0-1"), echo.humidity()));
        }
        if (conversion instanceof Height height) {
            return List.of(new Box(Messages.of("bench.at-sea-level-hpa"), height.seaHpa()));
        }
        if (conversion instanceof Decibels decibels) {
            return List.of(new Box(Messages.of("bench.0-db-is"), decibels.reference()));
        }
        if (conversion instanceof Formula formula) {
            return List.of(
                    new Box(Messages.of("bench.formula-of-x-and-columns"), formula.text(), 22),
                    new Box(Messages.of("bench.constants"), constants(formula.constants()), 24));
        }
        return List.of();
    }

    /**
     * @param like the conversion that the boxes were made from
     * @param offered the other columns that a formula may take in
     * @throws IllegalArgumentException when what is written makes none, saying why
     */
    public static Conversion make(Conversion like, List<String> texts, String unit, List<String> offered) {
        if (like instanceof Line) {
            return new Line(number(texts.get(0)), number(texts.get(1)));
        }
        if (like instanceof Polynomial) {
            return new Polynomial(numbers(texts.get(0)));
        }
        if (like instanceof ValueTable) {
            return new ValueTable(numbers(texts.get(0)), numbers(texts.get(1)));
        }
        if (like instanceof Thermistor thermistor) {
            double[] n = new double[texts.size()];
            Arrays.setAll(n, i -> number(texts.get(i)));
            Thermistor.Law law = thermistor.law() instanceof Thermistor.Beta
                    ? new Thermistor.Beta(n[0], n[1], n[2])
                    : new Thermistor.ThreeCoefficients(n[0], n[1], n[2]);
            return new Thermistor(law, n[3], thermistor.side(), n[4]);
        }
        if (like instanceof Thermocouple) {
            return new Thermocouple(type(texts.get(0)), number(texts.get(1)));
        }
        if (like instanceof Formula) {
            return new Formula(texts.get(0), constants(texts.get(1)), unit, offered);
        }
        if (like instanceof Chained) {
            return like;
        }
        double a = number(texts.get(0));
        double b = texts.size() > 1 ? number(texts.get(1)) : 0;
        if (like instanceof Divider) {
            return new Divider(a, b);
        }
        if (like instanceof Shunt) {
            return new Shunt(a, b, number(texts.get(2)));
        }
        if (like instanceof MagneticCurrent) {
            return new MagneticCurrent(a, b);
        }
        if (like instanceof AnalogTemperature) {
            return new AnalogTemperature(a, b);
        }
        if (like instanceof Echo) {
            return new Echo(a, b);
        }
        return like instanceof Height ? new Height(a) : new Decibels(a);
    }

    private static ThermocoupleType type(String text) {
        for (ThermocoupleType type : ThermocoupleType.values()) {
            if (type.name().equalsIgnoreCase(text.strip())) {
                return type;
            }
        }
        throw new IllegalArgumentException(Messages.of("bench.the-type-is-one-of-k-j-t-e-n-s-r-b", text.strip()));
    }

    private static String list(List<Double> values) {
        return values.stream().map(Digits::exact).collect(Collectors.joining("; "));
    }

    private static List<Double> numbers(String text) {
        return Arrays.stream(text.split("[;\\s]+"))
                .filter(part -> !part.isBlank())
                .map(ConversionForm::number)
                .toList();
    }

    private static String constants(Map<String, Double> constants) {
        return new TreeMap<>(constants)
                .entrySet().stream()
                        .map(e -> e.getKey() + "=" + Digits.exact(e.getValue()))
                        .collect(Collectors.joining(" "));
    }

    private static Map<String, Double> constants(String text) {
        Map<String, Double> constants = new TreeMap<>();
        for (String part : text.split("[;\\s]+")) {
            if (!part.isBlank()) {
                String[] pair = part.split("=", 2);
                if (pair.length < 2) {
                    throw new IllegalArgumentException(Messages.of("bench.constants-are-written-as-c0-1-5-c1", part));
                }
                constants.put(pair[0].strip(), number(pair[1]));
            }
        }
        return constants;
    }

    public static double number(String text) {
        try {
            return Digits.typed(text);
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException(Messages.of("bench.a-number-such-as-0-5-belongs-here", text.strip()), e);
        }
    }
}
