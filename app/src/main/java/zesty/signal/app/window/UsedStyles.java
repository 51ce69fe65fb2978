package zesty.signal.app.window;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * Of the library's style sheet what this window can wear: the rest, for tables, calendars, charts and many more, is looked
 * through for every part of the window at each start. Pure.
 */
final class UsedStyles {
    private static final Pattern COMMENT = Pattern.compile("/\\*.*?\\*/", Pattern.DOTALL);
    private static final Pattern RULE = Pattern.compile("([^{}]+)\\{([^{}]*)\\}");
    private static final Pattern STYLE_CLASS = Pattern.compile("\\.([a-z][A-Za-z0-9-]*)");

    /** Classes that parts of this window have, and parts of their parts. */
    private static final Set<String> WORN = worn();

    private UsedStyles() {}

    private static Set<String> worn() {
        try (InputStream file = UsedStyles.class.getResourceAsStream("worn-styles.txt")) {
            return new String(file.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(line -> !line.startsWith("#"))
                    .flatMap(line -> Arrays.stream(line.split(" ")))
                    .collect(Collectors.toUnmodifiableSet());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** @return the sheet without the selectors that ask for a class nobody wears */
    static String of(String sheet) {
        StringBuilder kept = new StringBuilder();
        Matcher rule = RULE.matcher(COMMENT.matcher(sheet).replaceAll(""));
        while (rule.find()) {
            String selectors = Arrays.stream(rule.group(1).split(","))
                    .map(String::strip)
                    .filter(one -> classes(one).stream().allMatch(WORN::contains))
                    .collect(Collectors.joining(", "));
            if (!selectors.isEmpty()) {
                kept.append(selectors).append(" {").append(rule.group(2)).append("}\n");
            }
        }
        return kept.toString();
    }

    /** @return classes that the sheet speaks of and that are left out of it */
    static Set<String> leftOut(String sheet) {
        return classes(COMMENT.matcher(sheet).replaceAll("").replaceAll("\\{[^}]*\\}", " ")).stream()
                .filter(one -> !WORN.contains(one))
                .collect(Collectors.toSet());
    }

    private static List<String> classes(String selector) {
        return STYLE_CLASS
                .matcher(selector)
                .results()
                .map(found -> found.group(1))
                .toList();
    }
}
