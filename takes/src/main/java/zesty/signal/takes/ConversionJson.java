package zesty.signal.takes;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import zesty.signal.core.scale.AnalogTemperature;
import zesty.signal.core.scale.Chained;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Decibels;
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

/** A conversion as JSON: its kind and its numbers. */
final class ConversionJson {
    private ConversionJson() {}

    static void put(ObjectNode node, Conversion conversion) {
        if (conversion instanceof Line line) {
            node.put("kind", "line").put("slope", line.slope()).put("offset", line.offset());
        } else if (conversion instanceof Polynomial polynomial) {
            numbers(node.put("kind", "polynomial").putArray("coefficients"), polynomial.coefficients());
        } else if (conversion instanceof ValueTable table) {
            node.put("kind", "table");
            numbers(node.putArray("x"), table.x());
            numbers(node.putArray("y"), table.y());
        } else if (conversion instanceof Thermistor thermistor) {
            thermistor(node, thermistor);
        } else if (conversion instanceof Divider divider) {
            node.put("kind", "divider").put("top", divider.topOhms()).put("bottom", divider.bottomOhms());
        } else if (conversion instanceof Shunt shunt) {
            node.put("kind", "shunt")
                    .put("ohms", shunt.ohms())
                    .put("gain", shunt.gain())
                    .put("zero", shunt.zeroVolts());
        } else if (conversion instanceof MagneticCurrent current) {
            node.put("kind", "magnetic_current")
                    .put("zero", current.zeroVolts())
                    .put("sensitivity", current.voltsPerAmp());
        } else if (conversion instanceof AnalogTemperature analog) {
            node.put("kind", "analog_temperature")
                    .put("slope", analog.voltsPerDegree())
                    .put("offset", analog.offsetVolts());
        } else if (conversion instanceof Thermocouple thermocouple) {
            node.put("kind", "thermocouple")
                    .put("type", thermocouple.type().name())
                    .put("cold", thermocouple.coldCelsius());
        } else if (conversion instanceof Echo echo) {
            node.put("kind", "echo").put("temp", echo.celsius()).put("humidity", echo.humidity());
        } else if (conversion instanceof Height height) {
            node.put("kind", "height").put("sea", height.seaHpa());
        } else if (conversion instanceof Decibels decibels) {
            node.put("kind", "decibels").put("reference", decibels.reference());
        } else if (conversion instanceof Chained chained) {
            node.put("kind", "chained");
            put(node.putObject("first"), chained.first());
            put(node.putObject("second"), chained.second());
        } else if (conversion instanceof Formula formula) {
            node.put("kind", "formula").put("text", formula.text()).put("unit", formula.unit());
            new TreeMap<>(formula.constants()).forEach(node.putObject("constants")::put);
            formula.columns().forEach(node.putArray("columns")::add);
        }
    }

    private static void thermistor(ObjectNode node, Thermistor thermistor) {
        node.put("kind", "thermistor")
                .put("series", thermistor.seriesOhms())
                .put("side", Nodes.lower(thermistor.side()))
                .put("supply", thermistor.supplyVolts());
        if (thermistor.law() instanceof Thermistor.Beta beta) {
            node.put("beta", beta.beta()).put("r0", beta.r0()).put("t0", beta.t0Celsius());
        } else if (thermistor.law() instanceof Thermistor.ThreeCoefficients three) {
            node.put("a", three.a()).put("b", three.b()).put("c", three.c());
        }
    }

    private static void numbers(ArrayNode array, List<Double> values) {
        values.forEach(array::add);
    }

    /** @throws IllegalArgumentException when a key is missing or wrong, saying which and what would be right */
    static Conversion get(JsonNode node) {
        String kind = Nodes.text(node, "kind");
        return switch (kind) {
            case "line" -> new Line(Nodes.number(node, "slope"), Nodes.number(node, "offset"));
            case "polynomial" -> new Polynomial(numbers(node, "coefficients"));
            case "table" -> new ValueTable(numbers(node, "x"), numbers(node, "y"));
            case "thermistor" ->
                new Thermistor(
                        node.has("beta")
                                ? new Thermistor.Beta(
                                        Nodes.number(node, "beta"), Nodes.number(node, "r0"), Nodes.number(node, "t0"))
                                : new Thermistor.ThreeCoefficients(
                                        Nodes.number(node, "a"), Nodes.number(node, "b"), Nodes.number(node, "c")),
                        Nodes.number(node, "series"),
                        Nodes.choice(Thermistor.Side.class, Nodes.text(node, "side")),
                        Nodes.number(node, "supply"));
            case "divider" -> new Divider(Nodes.number(node, "top"), Nodes.number(node, "bottom"));
            case "shunt" ->
                new Shunt(Nodes.number(node, "ohms"), Nodes.number(node, "gain"), Nodes.number(node, "zero"));
            case "magnetic_current" ->
                new MagneticCurrent(Nodes.number(node, "zero"), Nodes.number(node, "sensitivity"));
            case "analog_temperature" ->
                new AnalogTemperature(Nodes.number(node, "slope"), Nodes.number(node, "offset"));
            case "thermocouple" ->
                new Thermocouple(
                        Nodes.choice(ThermocoupleType.class, Nodes.text(node, "type")), Nodes.number(node, "cold"));
            case "echo" -> new Echo(Nodes.number(node, "temp"), Nodes.number(node, "humidity"));
            case "height" -> new Height(Nodes.number(node, "sea"));
            case "decibels" -> new Decibels(Nodes.number(node, "reference"));
            case "chained" -> new Chained(get(node.path("first")), get(node.path("second")));
            case "formula" ->
                new Formula(
                        Nodes.text(node, "text"),
                        constants(node.path("constants")),
                        Nodes.text(node, "unit"),
                        Nodes.texts(node, "columns"));
            default -> throw new IllegalArgumentException(Messages.of("takes.no-conversion-is-called", kind));
        };
    }

    private static List<Double> numbers(JsonNode node, String key) {
        List<Double> values = new ArrayList<>();
        for (JsonNode each : node.path(key)) {
            if (!each.isNumber()) {
                throw new IllegalArgumentException(Messages.of("takes.holds-numbers-not", key, each));
            }
            values.add(each.asDouble());
        }
        return values;
    }

    private static Map<String, Double> constants(JsonNode node) {
        Map<String, Double> constants = new TreeMap<>();
        node.fieldNames().forEachRemaining(name -> constants.put(name, Nodes.number(node, name)));
        return constants;
    }
}
