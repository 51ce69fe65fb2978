package zesty.signal.core.rig;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.core.scale.AnalogTemperature;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Decibels;
import zesty.signal.core.scale.Divider;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Echo;
import zesty.signal.core.scale.Formula;
import zesty.signal.core.scale.Height;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.MagneticCurrent;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.scale.Shunt;
import zesty.signal.core.scale.Thermistor;
import zesty.signal.core.scale.Thermocouple;
import zesty.signal.core.scale.ThermocoupleType;
import zesty.signal.core.text.Messages;

/**
 * A generic kind of sensor: what its chain, its plausible range, its recipe and its traps usually are. A start, to be
 * put right by proving.
 *
 * @param sensor its name, its plausible range, its traps and its caution
 * @param counts whether it usually arrives as a converter's counts
 * @param recipe as the cleaning usually begins; empty for none
 * @param reader what is usually read from it, without columns; null for none
 */
public record SensorKind(
        Sensor sensor, boolean counts, Conversion conversion, String unit, String recipe, ReaderSetup reader) {
    public SensorKind {
        Objects.requireNonNull(sensor, "sensor");
        Objects.requireNonNull(conversion, "conversion");
        Recipe.parse(recipe);
        if (sensor.kind().isBlank()) {
            throw new IllegalArgumentException("a sensor kind needs a name");
        }
    }

    private SensorKind(
            String name,
            boolean counts,
            Conversion conversion,
            String unit,
            double low,
            double high,
            String recipe,
            String trap,
            Caution caution) {
        this(new Sensor(name, low, high, trap, caution), counts, conversion, unit, recipe, null);
    }

    private SensorKind reading(String kind, Map<String, String> settings) {
        return new SensorKind(sensor, counts, conversion, unit, recipe, new ReaderSetup(kind, List.of(), settings));
    }

    public String name() {
        return sensor.kind();
    }

    /** What a beta of 3950 K and 10 kΩ at 25 °C come to as three coefficients: to be overwritten with one's own. */
    private static final Thermistor.ThreeCoefficients LIKE_BETA =
            new Thermistor.ThreeCoefficients(1 / 298.15 - Math.log(10_000) / 3950, 1.0 / 3950, 0);

    /** Signed codes of so many bits over ± a range: what the sheet of one's own sensor says, and nothing is known by heart. */
    private static Formula ofRange(double range, int bits, String unit) {
        return new Formula("x * range / 2 ^ (bits - 1)", Map.of("range", range, "bits", (double) bits), unit);
    }

    private static final List<SensorKind> ALL = List.of(
            new SensorKind("raw", false, Line.SAME, "", Double.NaN, Double.NaN, "", "", null),
            new SensorKind(
                    "analog temperature, no offset",
                    true,
                    AnalogTemperature.tenMillivolts(0),
                    "°C",
                    0,
                    125,
                    "mean:10",
                    Messages.of("rig.the-reference-is-rarely-exactly"),
                    null),
            new SensorKind(
                    "analog temperature, 0.5 V offset",
                    true,
                    AnalogTemperature.tenMillivolts(0.5),
                    "°C",
                    -40,
                    125,
                    "mean:10",
                    Messages.of("rig.the-reference-is-rarely-exactly-2"),
                    null),
            new SensorKind(
                    "thermistor to ground",
                    true,
                    new Thermistor(new Thermistor.Beta(3950, 10_000, 25), 10_000, Thermistor.Side.LOW, 5),
                    "°C",
                    -40,
                    125,
                    "mean:10",
                    Messages.of("rig.if-it-reads-colder-when-warmed-the"),
                    null),
            new SensorKind(
                    "thermistor to the supply",
                    true,
                    new Thermistor(new Thermistor.Beta(3950, 10_000, 25), 10_000, Thermistor.Side.HIGH, 5),
                    "°C",
                    -40,
                    125,
                    "mean:10",
                    Messages.of("rig.if-it-reads-colder-when-warmed-the"),
                    null),
            new SensorKind(
                    "thermistor, three coefficients",
                    true,
                    new Thermistor(LIKE_BETA, 10_000, Thermistor.Side.LOW, 5),
                    "°C",
                    -40,
                    125,
                    "mean:10",
                    Messages.of("rig.the-coefficients-belong-to-one"),
                    null),
            new SensorKind(
                    "thermocouple, in mV",
                    false,
                    new Thermocouple(ThermocoupleType.K, 20),
                    "°C",
                    -200,
                    1300,
                    "median:5",
                    Messages.of("rig.if-it-reads-cold-when-heated-its"),
                    Caution.HEAT),
            new SensorKind(
                    "voltage through a divider",
                    true,
                    new Divider(30_000, 7_500),
                    "V",
                    0,
                    25,
                    "mean:10",
                    Messages.of("rig.one-silent-station-among-many"),
                    Caution.VOLTAGE),
            new SensorKind(
                    "current, shunt with amplifier",
                    true,
                    new Shunt(0.1, 20, 0),
                    "A",
                    -10,
                    10,
                    "mean:10",
                    Messages.of("rig.the-shunt-gives-few-millivolts"),
                    Caution.CURRENT),
            new SensorKind(
                    "current, magnetic",
                    true,
                    new MagneticCurrent(2.5, 0.1),
                    "A",
                    -20,
                    20,
                    "mean:10",
                    Messages.of("rig.its-zero-moves-with-the-supply"),
                    Caution.CURRENT),
            new SensorKind(
                            "optical pulse",
                            true,
                            Line.SAME,
                            "V",
                            0,
                            5,
                            "bandpass:0.5..8@2",
                            Messages.of("rig.pressure-motion-and-light-from"),
                            Caution.BODY)
                    .reading(Pulse.NAME, Map.of(Pulse.SOURCE, "optical")),
            new SensorKind(
                            "electrical heart signal",
                            true,
                            Line.SAME,
                            "V",
                            0,
                            5,
                            "bandpass:0.5..40@2 | notch:50@30",
                            Messages.of("rig.mains-comes-in-by-the-leads-extra"),
                            Caution.BODY)
                    .reading(Pulse.NAME, Map.of(Pulse.SOURCE, "electrical")),
            new SensorKind(
                    "muscle, raw",
                    true,
                    Line.SAME,
                    "V",
                    0,
                    5,
                    "bandpass:20..450@2 | notch:50@30",
                    Messages.of("rig.placement-decides-a-motor-on-the"),
                    Caution.BODY),
            new SensorKind(
                    "muscle, envelope",
                    true,
                    Line.SAME,
                    "V",
                    0,
                    5,
                    "lowpass:4@2",
                    Messages.of("rig.each-person-s-hardest-pull-is"),
                    Caution.BODY),
            new SensorKind(
                    "acceleration, counts",
                    false,
                    ofRange(4, 16, "g"),
                    "g",
                    -4,
                    4,
                    "",
                    Messages.of("rig.at-rest-one-axis-reads-1-g-too"),
                    null),
            new SensorKind(
                    "angular rate, counts",
                    false,
                    ofRange(250, 16, "°/s"),
                    "°/s",
                    -250,
                    250,
                    "",
                    Messages.of("rig.it-drifts-tare-it-at-rest-and"),
                    null),
            new SensorKind(
                    "magnetic field, counts",
                    false,
                    ofRange(1000, 16, "µT"),
                    "µT",
                    -200,
                    200,
                    "mean:5",
                    Messages.of("rig.motors-magnets-and-iron-nearby"),
                    null),
            new SensorKind(
                    "humidity, in %",
                    false,
                    Line.SAME,
                    "%",
                    0,
                    100,
                    "median:5",
                    Messages.of("rig.read-while-it-converts-it-repeats"),
                    null),
            new SensorKind(
                    "heater, duty",
                    false,
                    Line.SAME,
                    "%",
                    0,
                    100,
                    "",
                    Messages.of("rig.if-nothing-warms-up-its-power-is"),
                    Caution.HEAT),
            new SensorKind(
                    "motor, duty",
                    false,
                    Line.SAME,
                    "%",
                    0,
                    100,
                    "",
                    Messages.of("rig.on-the-sensors-own-supply-it-looks"),
                    Caution.MOVING),
            new SensorKind(
                    "sound, waveform",
                    false,
                    ofRange(1, 16, ""),
                    "",
                    -1,
                    1,
                    "highpass:20@2",
                    Messages.of("rig.low-room-rumble-is-louder-than-it"),
                    null),
            new SensorKind(
                    "sound, level",
                    true,
                    new Decibels(0.005),
                    "dB",
                    0,
                    90,
                    "mean:10",
                    Messages.of("rig.some-modules-read-lower-for-louder"),
                    null),
            new SensorKind(
                    "wind cups, pulses a second",
                    false,
                    new Line(0.8, 0),
                    "m/s",
                    0,
                    60,
                    "",
                    Messages.of("rig.in-a-calm-nothing-comes-at-all-for"),
                    Caution.HEIGHT),
            new SensorKind(
                    "echo distance, µs",
                    false,
                    new Echo(20, 0),
                    "m",
                    0.02,
                    5,
                    "median:5",
                    Messages.of("rig.soft-or-slanted-targets-give-no"),
                    null),
            new SensorKind(
                    "weight, by reference points",
                    false,
                    Line.through(84_200, 0, 271_200, 100),
                    "kg",
                    -10,
                    200,
                    "median:5",
                    Messages.of("rig.off-centre-loads-and-creep-tare"),
                    Caution.LOAD),
            new SensorKind(
                    "pressure to height, hPa",
                    false,
                    new Height(1013.25),
                    "m",
                    -500,
                    11_000,
                    "mean:10",
                    Messages.of("rig.the-pressure-at-sea-level-changes"),
                    null),
            new SensorKind(
                    "a chip's own formula",
                    false,
                    new Formula("c0 + c1*x", Map.of("c0", -41.5, "c1", 0.000122), "°C"),
                    "°C",
                    -60,
                    150,
                    "",
                    Messages.of("rig.the-constants-come-from-the-chip"),
                    null));

    /** @return all of them, "raw" first */
    public static List<SensorKind> all() {
        return ALL;
    }

    /** @return the channel with this kind's chain; a converter that it has is kept */
    public Scaling on(Scaling before) {
        Converter converter =
                !counts ? null : before.converter() != null ? before.converter() : new Converter(10, 5, Divisor.STEPS);
        Conversion fitting = conversion;
        if (converter != null && conversion instanceof Thermistor thermistor) {
            fitting = new Thermistor(
                    thermistor.law(), thermistor.seriesOhms(), thermistor.side(), converter.referenceVolts());
        }
        return new Scaling(
                converter, fitting, List.of(), conversion.equals(Line.SAME) && !counts ? before.unit() : unit);
    }
}
