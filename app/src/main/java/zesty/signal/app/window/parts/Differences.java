package zesty.signal.app.window.parts;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zesty.signal.core.scale.Digits;

/** What two numbers as they are shown differ by, with as many digits as they have. */
final class Differences {
    private static final Pattern NUMBER = Pattern.compile("([-\u2212+]?\\d+(?:\\.(\\d+))?)(?: ± \\S+)?( .*)?");

    private Differences() {}

    /** @return second less first, in their unit; empty where that makes no sense */
    static String of(String first, String second) {
        Matcher a = NUMBER.matcher(first);
        Matcher b = NUMBER.matcher(second);
        if (!a.matches() || !b.matches() || !String.valueOf(a.group(3)).equals(String.valueOf(b.group(3)))) {
            return "";
        }
        int decimals = Math.max(length(a.group(2)), length(b.group(2)));
        double by = number(b.group(1)) - number(a.group(1));
        String text = Digits.fixed(by, decimals);
        return by > 0 && !text.matches("0(\\.0*)?") ? "+" + text : text;
    }

    private static int length(String decimals) {
        return decimals == null ? 0 : decimals.length();
    }

    private static double number(String text) {
        return Digits.typed(text);
    }
}
