package zesty.signal.core.read;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * Something that can be set of a reader. From this one description come the command line's {@code --set}, the rig's
 * JSON, the control on screen and its tooltip.
 *
 * @param key as written after {@code --set}
 * @param shape what kind of value it takes
 * @param usual what it is unless it is set; {@link #AUTO} where the reader finds it itself
 * @param choices the words to choose from; empty unless it is a choice
 * @param low least number allowed
 * @param high greatest number allowed
 * @param unit of the number; empty for none or the port's own
 * @param words what it is, short, for a label
 * @param tip what it does, in a sentence, for a tooltip
 */
public record Setting(
        String key,
        Shape shape,
        String usual,
        List<String> choices,
        double low,
        double high,
        String unit,
        String words,
        String tip) {
    /** Found by the reader itself. */
    public static final String AUTO = "auto";

    private static final int LONGEST_WORDS = 60;

    /** What kind of value a setting takes. */
    public enum Shape {
        /** One of some words. */
        CHOICE,
        /** A number. */
        NUMBER,
        /** Rising numbers parted by commas, or nothing. */
        RISING,
        /** A stretch of time, {@code A..B} in s, or nothing. */
        SPAN,
        /** Some words of the maker's own, or nothing. */
        WORDS,
        /** Numbers parted by commas, in groups of {@code low} and {@code high} of them at most, or nothing: what a picture captured. */
        LIST
    }

    public Setting {
        choices = List.copyOf(choices);
    }

    public static Setting choice(String key, List<String> choices, String words, String tip) {
        return new Setting(key, Shape.CHOICE, choices.get(0), choices, Double.NaN, Double.NaN, "", words, tip);
    }

    public static Setting number(
            String key, String usual, double low, double high, String unit, String words, String tip) {
        return new Setting(key, Shape.NUMBER, usual, List.of(), low, high, unit, words, tip);
    }

    public static Setting rising(String key, String words, String tip) {
        return new Setting(key, Shape.RISING, "", List.of(), -Double.MAX_VALUE, Double.MAX_VALUE, "", words, tip);
    }

    public static Setting span(String key, String words, String tip) {
        return new Setting(key, Shape.SPAN, "", List.of(), 0, Double.MAX_VALUE, "s", words, tip);
    }

    public static Setting words(String key, String words, String tip) {
        return new Setting(key, Shape.WORDS, "", List.of(), Double.NaN, Double.NaN, "", words, tip);
    }

    /** @param group numbers that belong together; {@code most} of all of them */
    public static Setting list(String key, int group, int most, String words, String tip) {
        return new Setting(key, Shape.LIST, "", List.of(), group, most, "", words, tip);
    }

    /** @return what may be written, in words */
    public String allowed() {
        return switch (shape) {
            case CHOICE -> String.join(Messages.of("read.or"), choices);
            case NUMBER ->
                Messages.of(
                        "read.a-number",
                        (usual.equals(AUTO) ? Messages.of("read.or-2", AUTO) : ""),
                        range(),
                        (unit.isEmpty() ? "" : " " + unit));
            case RISING -> Messages.of("read.rising-numbers-parted-by-commas");
            case SPAN -> Messages.of("read.a-segment-from-to-in-s-such-as-2-5");
            case WORDS -> Messages.of("read.some-words-letters-at-most", LONGEST_WORDS);
            case LIST ->
                low == high
                        ? Messages.of("read.numbers-parted-by-commas-or", Digits.of(low))
                        : Messages.of(
                                "read.numbers-parted-by-commas-at-most",
                                (low > 1 ? Messages.of("read.in-groups-of", Digits.of(low)) : ""),
                                Digits.of(high));
        };
    }

    private String range() {
        boolean from = low > -Double.MAX_VALUE;
        boolean to = high < Double.MAX_VALUE;
        return from && to
                ? Messages.of("read.from-to", Digits.of(low), Digits.of(high))
                : from
                        ? Messages.of("read.of-or-more", Digits.of(low))
                        : to ? Messages.of("read.of-or-less", Digits.of(high)) : "";
    }

    /** @throws ReaderException when the text is no value for it, saying what would be */
    void check(String text) {
        boolean right = text.equals(usual)
                || switch (shape) {
                    case CHOICE -> choices.contains(text);
                    case NUMBER -> {
                        double value = parse(text);
                        yield value >= low && value <= high;
                    }
                    case RISING -> rising(text) != null;
                    case SPAN -> stretch(text) != null;
                    case LIST -> {
                        double[] numbers = list(text);
                        yield numbers != null && numbers.length % low == 0 && numbers.length <= high;
                    }
                    case WORDS -> text.length() <= LONGEST_WORDS && text.chars().noneMatch(Character::isISOControl);
                };
        if (!right) {
            throw new ReaderException(Messages.of("read.takes-was", key, allowed(), text));
        }
    }

    /** @return the numbers; null when they are no rising numbers */
    static double[] rising(String text) {
        if (text.isBlank()) {
            return new double[0];
        }
        List<Double> numbers = new ArrayList<>();
        for (String part : text.split(",", -1)) {
            double value = parse(part);
            if (Double.isNaN(value) || !numbers.isEmpty() && !(value > numbers.get(numbers.size() - 1))) {
                return null;
            }
            numbers.add(value);
        }
        return numbers.stream().mapToDouble(Double::doubleValue).toArray();
    }

    /** @return the numbers; null when something among them is none */
    static double[] list(String text) {
        if (text.isBlank()) {
            return new double[0];
        }
        double[] numbers =
                Arrays.stream(text.split(",", -1)).mapToDouble(Setting::parse).toArray();
        return Arrays.stream(numbers).anyMatch(Double::isNaN) ? null : numbers;
    }

    /** @return from and to; null when it is no stretch */
    static double[] stretch(String text) {
        double[] ends = Arrays.stream(text.split("\\.\\.", -1))
                .mapToDouble(Setting::parse)
                .toArray();
        return ends.length == 2 && ends[0] >= 0 && ends[1] > ends[0] ? ends : null;
    }

    /** @return the number; NaN when it is none that counts */
    static double parse(String text) {
        String plain = text.strip();
        try {
            // Words such as NaN and suffixes such as 1d are numbers for the language only.
            double value = plain.matches("[-+0-9.eE]+") ? Double.parseDouble(plain) : Double.NaN;
            return Double.isInfinite(value) ? Double.NaN : value;
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }
}
