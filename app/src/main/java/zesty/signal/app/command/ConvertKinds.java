package zesty.signal.app.command;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import zesty.signal.core.scale.AnalogTemperature;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Divider;
import zesty.signal.core.scale.Echo;
import zesty.signal.core.scale.Height;
import zesty.signal.core.scale.MagneticCurrent;
import zesty.signal.core.scale.Shunt;
import zesty.signal.core.scale.Thermistor;
import zesty.signal.core.scale.Thermocouple;
import zesty.signal.core.scale.ThermocoupleType;

/** The conversions of {@code convert}, each with its settings. */
final class ConvertKinds {
    private static final List<String> COUNTS = List.of("ref", "bits", "steps");

    private ConvertKinds() {}

    /** A conversion with what turns a VALUE into what it takes. */
    record Ready(Conversion conversion, boolean ohms, double voltsPerCount) {
        double apply(double value) {
            if (ohms) {
                return ((Thermistor) conversion).law().celsius(value);
            }
            return conversion.apply(value * voltsPerCount);
        }
    }

    /** @param counts whether VALUE is converter counts */
    private record Kind(boolean counts, List<String> keys, Function<Asked, Conversion> make) {}

    private static final Map<String, Kind> KINDS = new LinkedHashMap<>();

    static {
        KINDS.put(
                "linear10mv",
                new Kind(true, List.of("offset"), s -> AnalogTemperature.tenMillivolts(s.number("offset", 0))));
        KINDS.put(
                "ntc-beta",
                new Kind(
                        true,
                        List.of("beta", "r0", "t0", "series", "side", "input"),
                        s -> s.thermistor(
                                new Thermistor.Beta(s.number("beta", 3950), s.number("r0", 10000), s.number("t0", 25)),
                                s.number("series", 10000))));
        KINDS.put(
                "ntc-steinhart",
                new Kind(
                        true,
                        List.of("a", "b", "c", "series", "side", "input"),
                        s -> s.thermistor(
                                new Thermistor.ThreeCoefficients(s.needed("a"), s.needed("b"), s.needed("c")),
                                s.number("series", 10000))));
        KINDS.put(
                "divider",
                new Kind(true, List.of("top", "bottom"), s -> new Divider(s.needed("top"), s.needed("bottom"))));
        KINDS.put(
                "shunt",
                new Kind(
                        true,
                        List.of("ohms", "gain", "zero"),
                        s -> new Shunt(s.number("ohms", 0.1), s.number("gain", 1), s.number("zero", 0))));
        KINDS.put(
                "hall-current",
                new Kind(
                        true,
                        List.of("zero", "sensitivity"),
                        s -> new MagneticCurrent(s.number("zero", s.ref() / 2), s.needed("sensitivity"))));
        for (ThermocoupleType type : ThermocoupleType.values()) {
            KINDS.put(
                    "thermocouple-" + type.name().toLowerCase(Locale.ROOT),
                    new Kind(false, List.of("cold"), s -> new Thermocouple(type, s.number("cold", 0))));
        }
        KINDS.put("echo-distance", new Kind(false, List.of("temp"), s -> new Echo(s.number("temp", 20), 0)));
        KINDS.put("pressure-altitude", new Kind(false, List.of("sea"), s -> new Height(s.number("sea", 1013.25))));
    }

    /** @return the keys of the settings that the kind takes */
    static List<String> keys(String name) {
        Kind kind = kind(name);
        List<String> keys = new ArrayList<>(kind.keys());
        if (kind.counts()) {
            keys.addAll(COUNTS);
        }
        return keys;
    }

    private static Kind kind(String name) {
        Kind kind = KINDS.get(name);
        if (kind == null) {
            throw new Refusal("no conversion is called '" + name + "'; there are " + String.join(", ", KINDS.keySet()));
        }
        return kind;
    }

    static Ready ready(String name, Map<String, String> settings) {
        Kind kind = kind(name);
        Asked asked = new Asked(name, settings);
        try {
            Conversion conversion = kind.make().apply(asked);
            boolean ohms = asked.choice("input", List.of("counts", "ohms")).equals("ohms");
            double perCount = kind.counts() ? asked.ref() / asked.steps() : 1;
            return new Ready(conversion, ohms, perCount);
        } catch (IllegalArgumentException e) {
            throw new Refusal(name + ": " + e.getMessage());
        }
    }

    /** The settings as they were given. */
    private record Asked(String kind, Map<String, String> settings) {
        double number(String key, double otherwise) {
            return settings.containsKey(key) ? Inputs.number("--set " + key, settings.get(key)) : otherwise;
        }

        double needed(String key) {
            if (!settings.containsKey(key)) {
                throw new Refusal(kind + " needs --set " + key + "=…");
            }
            return number(key, 0);
        }

        String choice(String key, List<String> choices) {
            String chosen = settings.getOrDefault(key, choices.get(0));
            if (!choices.contains(chosen)) {
                throw new Refusal("--set " + key + " is " + String.join(" or ", choices) + ", was '" + chosen + "'");
            }
            return chosen;
        }

        double ref() {
            double ref = number("ref", 5);
            if (!(ref > 0)) {
                throw new Refusal("--set ref must be above 0 V, was " + settings.get("ref"));
            }
            return ref;
        }

        double steps() {
            double bits = number("bits", 10);
            if (bits != Math.rint(bits) || bits < 1 || bits > 32) {
                throw new Refusal("--set bits must be a whole number from 1 to 32, was " + settings.get("bits"));
            }
            double steps = number("steps", Math.scalb(1.0, (int) bits));
            if (!(steps > 0)) {
                throw new Refusal("--set steps must be above 0, was " + settings.get("steps"));
            }
            return steps;
        }

        Conversion thermistor(Thermistor.Law law, double series) {
            String side = choice("side", List.of("low", "high"));
            return new Thermistor(law, series, side.equals("low") ? Thermistor.Side.LOW : Thermistor.Side.HIGH, ref());
        }
    }
}
