package zesty.signal.core.scale;

import static javax.measure.MetricPrefix.CENTI;
import static javax.measure.MetricPrefix.HECTO;
import static javax.measure.MetricPrefix.KILO;
import static javax.measure.MetricPrefix.MICRO;
import static javax.measure.MetricPrefix.MILLI;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.measure.IncommensurableException;
import javax.measure.Unit;
import javax.measure.UnitConverter;
import tech.units.indriya.unit.Units;
import zesty.signal.core.text.Messages;

/** The units a quantity is wanted in, and how they go over into each other: always by a line. */
public final class UnitBook {
    private static final Map<String, Unit<?>> KNOWN = new LinkedHashMap<>();

    static {
        KNOWN.put("°C", Units.CELSIUS);
        KNOWN.put("°F", Units.KELVIN.multiply(5).divide(9).shift(459.67));
        KNOWN.put("K", Units.KELVIN);
        KNOWN.put("m/s", Units.METRE_PER_SECOND);
        KNOWN.put("km/h", Units.KILOMETRE_PER_HOUR);
        KNOWN.put("mph", Units.METRE_PER_SECOND.multiply(1609.344).divide(3600));
        KNOWN.put("kn", Units.METRE_PER_SECOND.multiply(1852).divide(3600));
        KNOWN.put("m/s²", Units.METRE_PER_SQUARE_SECOND);
        KNOWN.put("g", Units.METRE_PER_SQUARE_SECOND.multiply(9.80665));
        KNOWN.put("V", Units.VOLT);
        KNOWN.put("mV", MILLI(Units.VOLT));
        KNOWN.put("µV", MICRO(Units.VOLT));
        KNOWN.put("A", Units.AMPERE);
        KNOWN.put("mA", MILLI(Units.AMPERE));
        KNOWN.put("W", Units.WATT);
        KNOWN.put("mW", MILLI(Units.WATT));
        KNOWN.put("kg", Units.KILOGRAM);
        KNOWN.put("gram", Units.GRAM);
        KNOWN.put("oz", Units.KILOGRAM.multiply(0.028349523125));
        KNOWN.put("lb", Units.KILOGRAM.multiply(0.45359237));
        KNOWN.put("N", Units.NEWTON);
        KNOWN.put("kN", KILO(Units.NEWTON));
        KNOWN.put("m", Units.METRE);
        KNOWN.put("cm", CENTI(Units.METRE));
        KNOWN.put("mm", MILLI(Units.METRE));
        KNOWN.put("in", Units.METRE.multiply(0.0254));
        KNOWN.put("ft", Units.METRE.multiply(0.3048));
        KNOWN.put("hPa", HECTO(Units.PASCAL));
        KNOWN.put("Pa", Units.PASCAL);
        KNOWN.put("kPa", KILO(Units.PASCAL));
        KNOWN.put("mmHg", Units.PASCAL.multiply(133.322387415));
        KNOWN.put("s", Units.SECOND);
        KNOWN.put("ms", MILLI(Units.SECOND));
        KNOWN.put("µs", MICRO(Units.SECOND));
        KNOWN.put("Hz", Units.HERTZ);
        KNOWN.put("kHz", KILO(Units.HERTZ));
        KNOWN.put("beats/min", Units.HERTZ.divide(60));
    }

    private UnitBook() {}

    /** @return the unit of that sign, if it is known */
    static Optional<Unit<?>> unit(String sign) {
        return Optional.ofNullable(KNOWN.get(sign));
    }

    /** @return how many of the base units one of this unit is */
    static double inBaseUnits(Unit<?> unit) {
        try {
            UnitConverter converter = unit.getConverterToAny(unit.getSystemUnit());
            return converter.convert(1.0) - converter.convert(0.0);
        } catch (IncommensurableException e) {
            throw new IllegalArgumentException(Messages.of("scale.no-base-unit-of", unit), e);
        }
    }

    /** @return the units that a quantity in that unit can be shown in, itself first; only itself when it is unknown */
    public static List<String> alternatives(String unit) {
        Unit<?> own = KNOWN.get(unit);
        if (own == null) {
            return List.of(unit);
        }
        List<String> others = KNOWN.entrySet().stream()
                .filter(e -> !e.getKey().equals(unit) && e.getValue().isCompatible(own))
                .map(Map.Entry::getKey)
                .toList();
        return java.util.stream.Stream.concat(java.util.stream.Stream.of(unit), others.stream())
                .toList();
    }

    /**
     * @return the line from a value in one unit to the same in another
     * @throws IllegalArgumentException when they are not of one kind
     */
    public static Line line(String from, String to) {
        if (from.equals(to)) {
            return Line.SAME;
        }
        Unit<?> own = KNOWN.get(from);
        Unit<?> other = KNOWN.get(to);
        if (own == null || other == null || !own.isCompatible(other)) {
            throw new IllegalArgumentException(
                    Messages.of("scale.cannot-be-shown-in-it-can-in", from, to, String.join(", ", alternatives(from))));
        }
        try {
            UnitConverter converter = own.getConverterToAny(other);
            double zero = converter.convert(0.0);
            // Over a wide stretch the rounding of the offset does not show in the slope.
            double slope = (converter.convert(1e6) - zero) / 1e6;
            return new Line(slope, Math.abs(zero) < 1e-12 ? 0 : zero);
        } catch (IncommensurableException e) {
            throw new IllegalArgumentException(Messages.of("scale.cannot-be-shown-in", from, to), e);
        }
    }
}
