package zesty.signal.app.show;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.charset.StandardCharsets;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zesty.signal.core.text.Messages;

/** The texts of the page, in the language of the window, put where the page leaves a place for them. */
final class PageWords {
    private static final Pattern PLACE = Pattern.compile("\\{\\{([a-z0-9.-]+)}}");

    private PageWords() {}

    static byte[] in(byte[] page) {
        String text = new String(page, StandardCharsets.UTF_8);
        return PLACE.matcher(text)
                .replaceAll(place -> Matcher.quoteReplacement(
                        switch (place.group(1)) {
                            case "language" -> Messages.language().getLanguage();
                            case "words" -> all();
                            default -> Messages.of(place.group(1));
                        }))
                .getBytes(StandardCharsets.UTF_8);
    }

    /** @return those that the page's script says, as JSON; none of them holds a sign that ends a script */
    private static String all() {
        ObjectNode words = new ObjectMapper().createObjectNode();
        Messages.all(Messages.language()).forEach((key, text) -> {
            if (key.startsWith("page.")) {
                words.put(key, text);
            }
        });
        return words.toString();
    }
}
