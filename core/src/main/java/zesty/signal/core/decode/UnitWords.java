package zesty.signal.core.decode;

import java.util.HashMap;
import java.util.Map;

/** The ways boards write units, and how we write them. */
final class UnitWords {
    private static final Map<String, String> KNOWN = new HashMap<>();

    static {
        know("°C", "C", "°C", "degC", "deg C", "degrees C", "celsius", "Celsius", "ºC", "*C", "'C");
        know("°F", "F", "°F", "degF", "deg F", "degrees F", "fahrenheit", "Fahrenheit", "ºF", "*F");
        know("K", "K", "kelvin");
        know("°", "°", "deg", "degrees", "degree");
        know("°/s", "°/s", "dps", "deg/s");
        know("µs", "us", "µs", "μs", "usec", "micros", "microseconds");
        know("ms", "ms", "msec", "millis", "milliseconds");
        know("s", "s", "sec", "secs", "seconds", "second");
        know("%", "%", "%RH", "percent", "pct", "% RH");
        know("V", "V", "volt", "volts", "v");
        know("mV", "mV", "millivolts", "mv");
        know("A", "A", "amp", "amps", "ampere");
        know("mA", "mA", "ma", "milliamps");
        know("µT", "uT", "µT", "μT");
        know("counts", "counts", "count", "raw");
        know("bpm", "bpm", "BPM");
        for (String same : new String[] {
            "µV",
            "uV",
            "µA",
            "uA",
            "W",
            "mW",
            "kW",
            "Wh",
            "Ah",
            "mAh",
            "Hz",
            "kHz",
            "MHz",
            "rpm",
            "g",
            "mg",
            "kg",
            "t",
            "lb",
            "oz",
            "N",
            "kN",
            "Nm",
            "m",
            "cm",
            "mm",
            "km",
            "in",
            "ft",
            "m/s",
            "m/s2",
            "m/s²",
            "km/h",
            "mph",
            "kn",
            "knots",
            "Pa",
            "hPa",
            "kPa",
            "mbar",
            "bar",
            "psi",
            "mmHg",
            "lux",
            "lx",
            "dB",
            "dBA",
            "dBm",
            "ppm",
            "ppb",
            "ohm",
            "Ohm",
            "Ω",
            "kΩ",
            "kohm",
            "rad",
            "rad/s",
            "l",
            "L",
            "ml",
            "mL",
            "l/min",
            "J",
            "T",
            "mT",
            "F/s",
            "µg/m3",
            "ug/m3",
            "min",
            "h",
            "px",
            "turns",
            "pulses",
            "beats/min",
            "steps"
        }) {
            know(same, same);
        }
        know("µV", "uV");
        know("µA", "uA");
        know("kn", "knots");
        know("Ω", "ohm", "Ohm", "ohms", "Ohms");
        know("lx", "lux");
    }

    private UnitWords() {}

    private static void know(String ours, String... theirs) {
        for (String their : theirs) {
            KNOWN.put(their, ours);
        }
    }

    /** @return the unit as we write it; null when the word is no unit known */
    static String known(String word) {
        return KNOWN.get(word.strip());
    }

    /** @return the unit as we write it, or the word itself */
    static String orSame(String word) {
        return KNOWN.getOrDefault(word.strip(), word.strip());
    }

    /**
     * Takes a unit off the front of a text: the longest of its first two words that is known.
     *
     * @return the unit as we write it and the rest; null when it does not start with one
     */
    static Taken take(String text) {
        String[] words = text.strip().split("\\s+", 3);
        String two = words.length > 1 ? words[0] + " " + bare(words[1]) : "";
        if (words.length > 1 && KNOWN.containsKey(two)) {
            return new Taken(KNOWN.get(two), words.length > 2 ? words[2] : "");
        }
        String one = bare(words[0]);
        if (!KNOWN.containsKey(one)) {
            return null;
        }
        String rest = text.strip().substring(words[0].length()).strip();
        return new Taken(KNOWN.get(one), rest);
    }

    record Taken(String unit, String rest) {}

    private static String bare(String word) {
        return word.replaceAll("[,;.!)\\]]+$", "").replaceAll("^[(\\[]", "");
    }
}
