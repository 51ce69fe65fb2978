package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Takes a line of labelled numbers apart. */
final class Labels {
    /** A label, and the sign that ends it. */
    private static final Pattern LABEL =
            Pattern.compile("[,;|\\t ]*([\\p{L}_][^:=,;|<>{}\"]{0,39}?)\\s*(?:[:=]|=>|->)\\s*");

    private static final Pattern NEXT = Pattern.compile("^\\s*[,;|]\\s*");

    private Labels() {}

    /**
     * A label with its number.
     *
     * @param missing whether a word stands for a number that is not there
     */
    record Pair(String label, double value, boolean missing, String unit) {}

    /** @return the pairs of the line; null when some of it is anything else, or a value is no number */
    static List<Pair> of(String line, NumberText number) {
        List<Pair> pairs = new ArrayList<>();
        String rest = line.strip();
        while (!rest.isEmpty()) {
            Matcher label = LABEL.matcher(rest);
            if (!label.lookingAt()) {
                return null;
            }
            String after = rest.substring(label.end());
            byte[] bytes = after.getBytes(StandardCharsets.UTF_8);
            double value = number.parse(bytes, 0, bytes.length);
            boolean missing = number.stop < 0;
            String tail;
            if (missing) {
                String word = after.split("[\\s,;|]", 2)[0];
                Double state = StateWords.of(word);
                if (state == null && (!NumberText.isMissing(word) || word.isEmpty())) {
                    return null;
                }
                if (state != null) {
                    value = state;
                    missing = false;
                }
                tail = after.substring(word.length());
            } else {
                tail = new String(bytes, number.stop, bytes.length - number.stop, StandardCharsets.UTF_8);
            }
            Tail parted = part(tail);
            if (parted == null) {
                return null;
            }
            pairs.add(new Pair(label.group(1).strip(), value, missing, parted.unit()));
            rest = parted.rest();
        }
        return pairs.isEmpty() ? null : pairs;
    }

    private record Tail(String unit, String rest) {}

    /** Parts what follows a number into its unit and the pairs that follow. */
    private static Tail part(String tail) {
        if (tail.isBlank()) {
            return new Tail("", "");
        }
        Matcher next = NEXT.matcher(tail);
        if (next.lookingAt()) {
            return new Tail("", tail.substring(next.end()));
        }
        String[] parts = tail.split("[,;|]", 2);
        boolean more = parts.length > 1;
        String before = parts[0].strip();
        boolean labelFollows = before.matches(".*[:=].*");
        if (!labelFollows) {
            // All of it up to the separator, or the line's end, is the unit: a word or two, no sentence.
            boolean unit = before.length() <= 16 && before.split("\\s+").length <= 2 && !before.matches(".*\\d\\s.*");
            return unit ? new Tail(UnitWords.orSame(strip(before)), more ? parts[1] : "") : null;
        }
        UnitWords.Taken taken = UnitWords.take(before);
        if (taken != null && !taken.rest().matches("^\\s*[:=].*")) {
            String rest = tail.strip();
            return new Tail(taken.unit(), rest.substring(rest.length() - remainder(rest, taken.rest())));
        }
        return Character.isWhitespace(tail.charAt(0)) ? new Tail("", tail) : null;
    }

    /** The rest was taken from the part before a separator: with what follows it, it is longer by that. */
    private static int remainder(String whole, String restOfPart) {
        int at = restOfPart.isEmpty() ? whole.length() : whole.indexOf(restOfPart);
        return whole.length() - Math.max(0, at);
    }

    private static String strip(String unit) {
        return unit.replaceAll("^[(\\[]|[)\\].]$", "");
    }
}
