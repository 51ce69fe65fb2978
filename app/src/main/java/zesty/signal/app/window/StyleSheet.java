package zesty.signal.app.window;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zesty.signal.app.window.workspace.TextSize;

/**
 * The window's style sheet at a size of text: every font size in it is multiplied, but what is large already grows less, for
 * its room does not. What is given in em follows by itself.
 */
final class StyleSheet {
    private static final Pattern FONT_SIZE = Pattern.compile("(-fx-font-size: *)([0-9.]+)px");

    /** Letters of numerals, in pixels: such ones are large already, and are shown in places of one width. */
    private static final double NUMERALS = 17;

    private static final double NUMERALS_AT_MOST = 18;

    /** The sheet as a resource, without its end: the toolkit prefers one that is parsed already. */
    static final String USUAL = "zesty/signal/app/window/zesty";

    private StyleSheet() {}

    /** @return its address, for a scene */
    static String at(TextSize size) {
        if (size == TextSize.USUAL) {
            return "/" + USUAL + ".css";
        }
        String text = FONT_SIZE
                .matcher(read())
                .replaceAll(found -> Matcher.quoteReplacement(
                        found.group(1) + enlarged(Double.parseDouble(found.group(2)), size) + "px"));
        return "data:text/css;base64," + Base64.getEncoder().encodeToString(text.getBytes(StandardCharsets.UTF_8));
    }

    private static double enlarged(double pixels, TextSize size) {
        return pixels < NUMERALS ? size.of(pixels) : Math.max(pixels, NUMERALS_AT_MOST);
    }

    private static String read() {
        try (InputStream file = ZestyApplication.class.getResourceAsStream("zesty.css")) {
            return new String(file.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException("the style sheet is missing from the product", e);
        }
    }
}
