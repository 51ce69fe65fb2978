package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;

/** Takes a template from lines that say the same with other numbers. */
final class SentenceFinder {
    private static final Set<String> FILLERS = Set.of(
            "is",
            "at",
            "of",
            "the",
            "a",
            "an",
            "reads",
            "reading",
            "value",
            "now",
            "and",
            "or",
            "which",
            "that",
            "was",
            "it",
            "equals",
            "with",
            "to",
            "in",
            "on",
            "are",
            "by",
            "about",
            "so",
            "currently",
            "got",
            "have",
            "has",
            "=",
            ">");
    private static final int MOST_NUMBERS = 256;

    private SentenceFinder() {}

    /** A line taken apart: what stands around its numbers, and the numbers. */
    private record Parted(List<String> pieces, List<Double> numbers, boolean comma) {
        String signature() {
            return String.join("\0", pieces).replaceAll("[ \t]+", " ");
        }
    }

    static Optional<StreamFormat> find(TextLines text) {
        Optional<StreamFormat> best = Optional.empty();
        int most = 0;
        for (boolean comma : new boolean[] {false, true}) {
            Map<String, List<Parted>> groups = new LinkedHashMap<>();
            for (String line : text.lines()) {
                Parted parted = part(line, comma);
                if (!parted.numbers().isEmpty() && parted.numbers().size() <= MOST_NUMBERS) {
                    groups.computeIfAbsent(parted.signature(), k -> new ArrayList<>())
                            .add(parted);
                }
            }
            for (List<Parted> group : groups.values()) {
                if (group.size() > most) {
                    most = group.size();
                    best = Optional.of(format(group, comma, text));
                }
            }
        }
        return best;
    }

    private static Parted part(String line, boolean comma) {
        List<String> pieces = new ArrayList<>();
        List<Double> numbers = new ArrayList<>();
        NumberText number = new NumberText(comma);
        byte[] bytes = line.getBytes(StandardCharsets.UTF_8);
        int start = 0;
        int at = 0;
        while (at < bytes.length) {
            boolean digit = bytes[at] >= '0' && bytes[at] <= '9';
            boolean sign = (bytes[at] == '-' || bytes[at] == '+') && at + 1 < bytes.length && digit(bytes[at + 1]);
            // A minus between digits, as in a date, is no sign; a digit within a word is part of the word.
            boolean glued = at > 0 && (digit(bytes[at - 1]) || sign && letter(bytes[at - 1]));
            if ((digit || sign) && !glued) {
                double value = number.parse(bytes, at, bytes.length);
                if (number.stop > 0) {
                    pieces.add(new String(bytes, start, at - start, StandardCharsets.UTF_8));
                    numbers.add(value);
                    start = number.stop;
                    at = number.stop;
                    continue;
                }
            }
            at++;
        }
        pieces.add(new String(bytes, start, bytes.length - start, StandardCharsets.UTF_8));
        return new Parted(pieces, numbers, comma);
    }

    private static boolean digit(byte b) {
        return b >= '0' && b <= '9';
    }

    private static boolean letter(byte b) {
        return b >= 'A' && b <= 'Z' || b >= 'a' && b <= 'z' || b == '_';
    }

    private static StreamFormat format(List<Parted> alike, boolean comma, TextLines text) {
        int width = alike.get(0).numbers().size();
        // Words that hold the sign which stands for a number look alike with fewer numbers.
        List<Parted> group =
                alike.stream().filter(one -> one.numbers().size() == width).toList();
        List<String> pieces = new ArrayList<>();
        List<double[]> values = new ArrayList<>();
        StringBuilder piece = new StringBuilder(group.get(0).pieces().get(0));
        for (int c = 0; c < width; c++) {
            int column = c;
            double[] own =
                    group.stream().mapToDouble(p -> p.numbers().get(column)).toArray();
            boolean constant = java.util.Arrays.stream(own).distinct().count() == 1 && own.length > 2;
            String next = group.get(0).pieces().get(c + 1);
            boolean inWord = piece.length() > 0 && Character.isLetter(piece.charAt(piece.length() - 1));
            if (constant && inWord && width > 1 && own[0] == Math.rint(own[0])) {
                // The 2 of CO2 is no reading.
                piece.append((long) own[0]).append(next);
                continue;
            }
            pieces.add(piece.toString());
            values.add(own);
            piece = new StringBuilder(next);
        }
        if (values.isEmpty()) {
            int column = width - 1;
            values.add(group.stream().mapToDouble(p -> p.numbers().get(column)).toArray());
            pieces.add(group.get(0).pieces().get(0));
            piece = new StringBuilder(group.get(0).pieces().get(width));
        }
        pieces.add(piece.toString());
        String[] header = header(pieces, text);
        List<Column> columns = columns(pieces, header);
        Roles.Found roles = Roles.find(columns, values);
        return new SentenceFormat(
                pieces, header == null ? "" : header[header.length - 1], roles.columns(), comma, roles.clock());
    }

    /** @return names from a header line, and last the line itself; null when no line of as many labels is there */
    private static String[] header(List<String> pieces, TextLines text) {
        String between = pieces.size() > 2 ? pieces.get(1) : "";
        String mark = between.strip();
        String delimiter = between.contains(",")
                ? ","
                : between.contains(";")
                        ? ";"
                        : between.contains("\t") ? "\t" : mark.matches("\\p{Punct}") ? Pattern.quote(mark) : null;
        if (delimiter == null) {
            return null;
        }
        // Of several, a banner among them, the last one stands right above the numbers.
        String[] last = null;
        for (String line : text.lines()) {
            String[] fields = line.split(delimiter, -1);
            boolean labels = fields.length == pieces.size() - 1;
            for (String field : fields) {
                labels &= field.strip().matches("[\\p{L}_#%°].*");
            }
            if (labels && !part(line, false).signature().equals(String.join("\0", pieces))) {
                String[] found = java.util.Arrays.copyOf(fields, fields.length + 1);
                found[fields.length] = line;
                last = found;
            }
        }
        return last;
    }

    private static List<Column> columns(List<String> pieces, String[] header) {
        List<Column> columns = new ArrayList<>();
        Set<String> taken = new HashSet<>();
        List<Column> above = header == null ? List.of() : DelimitedFinder.columns(header, pieces.size() - 1);
        String before = pieces.get(0);
        String last = "";
        for (int c = 0; c + 1 < pieces.size(); c++) {
            UnitWords.Taken unit = UnitWords.take(pieces.get(c + 1));
            String name = header == null ? name(before) : above.get(c).name();
            String kept = unit != null
                    ? unit.unit()
                    : header == null ? "" : above.get(c).unit();
            if (name.isEmpty()) {
                name = last.isEmpty() ? "column" + (c + 1) : kept.isEmpty() ? last : last + " in " + kept;
            } else {
                last = name;
            }
            columns.add(new Column(Columns.unique(name, taken), kept));
            before = unit == null ? pieces.get(c + 1) : unit.rest();
        }
        return columns;
    }

    /** The last words before the number that name something. */
    private static String name(String before) {
        List<String> words = new ArrayList<>();
        for (String word : before.split("[^\\p{L}\\p{N}_°%/#-]+")) {
            if (word.matches(".*\\p{L}.*") && !FILLERS.contains(word.toLowerCase(java.util.Locale.ROOT))) {
                words.add(word);
            }
        }
        int from = Math.max(0, words.size() - 2);
        return String.join(" ", words.subList(from, words.size()));
    }
}
