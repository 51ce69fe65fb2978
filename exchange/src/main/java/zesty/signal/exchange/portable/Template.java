package zesty.signal.exchange.portable;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** A piece of C with places to fill. */
final class Template {
    private static final Pattern PLACE = Pattern.compile("\\$\\{(\\w+)}");

    private Template() {}

    /** @throws IllegalArgumentException when a place is not filled */
    static String of(String resource, Map<String, String> values) {
        Matcher place = PLACE.matcher(text(resource));
        StringBuilder filled = new StringBuilder();
        while (place.find()) {
            String value = values.get(place.group(1));
            if (value == null) {
                throw new IllegalArgumentException(resource + " has a place " + place.group(1) + " that is not filled");
            }
            place.appendReplacement(filled, Matcher.quoteReplacement(value));
        }
        return place.appendTail(filled).toString();
    }

    static String text(String resource) {
        try (InputStream in = Template.class.getResourceAsStream(resource)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException("the template " + resource + " does not ship", e);
        }
    }

    /** @return a text as it may stand in a comment of C: plain ASCII that does not end it */
    static String comment(String text) {
        String plain = text.replace("µ", "u")
                .replace("°", "deg ")
                .replace("Ω", "Ohm")
                .replace("·", "*")
                .replace("−", "-")
                .replace("×", "x")
                .replace("²", "^2");
        return plain.replaceAll("[^ -~]", "?").replace("*/", "* /").replace("/*", "/ *");
    }

    /** @return a name that C takes: letters, digits and _ only */
    static String identifier(String name) {
        String plain = name.replaceAll("[^A-Za-z0-9_]", "_");
        return plain.isEmpty() || Character.isDigit(plain.charAt(0)) ? "_" + plain : plain;
    }

    /** @return a number that reads back to the same value */
    static String number(double value) {
        return Double.toString(value);
    }
}
