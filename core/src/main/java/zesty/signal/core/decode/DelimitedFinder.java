package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Recognises delimited text from its first bytes: which delimiter, how many columns, what the header calls them, and
 * which column is the board's clock.
 */
public final class DelimitedFinder {
    /** How many bytes are looked at, at most. */
    public static final int LOOK = 1 << 16;

    private static final Pattern LABEL = Pattern.compile("[\\p{L}_#%°].*");
    private static final Pattern UNIT = Pattern.compile("(.+?)\\s*[\\[(]([^\\])]*)[\\])]");

    private DelimitedFinder() {}

    /**
     * @return the format, or empty when too little of the bytes makes sense: fewer than one line of numbers, or numbers
     *     in less than a fifth of the lines
     */
    public static Optional<DelimitedFormat> find(byte[] bytes, int length) {
        return find(bytes, length, DelimitedFormat.DELIMITERS);
    }

    /** As {@link #find(byte[], int)}, for a stream whose delimiter is known. */
    public static Optional<DelimitedFormat> find(byte[] bytes, int length, char delimiter) {
        return find(bytes, length, String.valueOf(delimiter));
    }

    /**
     * @return whether the first line has its front cut off: its clock is far from where the next two lines' clocks say it
     *     should be. Without a clock there is no telling
     */
    public static boolean startsMidLine(byte[] bytes, int length, DelimitedFormat format) {
        if (format.clock() == null) {
            return false;
        }
        List<String> lines = TextLines.of(bytes, Math.min(length, LOOK)).lines();
        NumberText number = new NumberText(format.decimalComma());
        double[] ticks = new double[3];
        for (int i = 0; i < 3; i++) {
            String[] fields = i < lines.size()
                    ? Fields.split(lines.get(i), format.delimiter(), format.trailingDelimiter())
                    : null;
            if (fields == null || fields.length != format.columns().size()) {
                return false;
            }
            byte[] field = fields[format.clock().column()].getBytes(StandardCharsets.UTF_8);
            ticks[i] = number.parse(field, 0, field.length);
            if (number.stop != field.length) {
                return false;
            }
        }
        double step = Math.abs(ticks[2] - ticks[1]);
        return Math.abs(ticks[0] - (ticks[1] - step)) > 3 * step;
    }

    private static Optional<DelimitedFormat> find(byte[] bytes, int length, String delimiters) {
        TextLines text = TextLines.of(bytes, Math.min(length, LOOK));
        List<String> lines = text.lines();
        Reading best = null;
        for (char delimiter : delimiters.toCharArray()) {
            for (boolean decimalComma : new boolean[] {false, true}) {
                if (decimalComma && (delimiter == ',' || !text.has(','))) {
                    continue;
                }
                Reading reading = read(lines, delimiter, decimalComma);
                if (reading != null && (best == null || reading.values() > best.values())) {
                    best = reading;
                }
            }
        }
        if (best == null || best.good().size() * 5 < lines.size()) {
            return Optional.empty();
        }
        return Optional.of(format(lines, best));
    }

    /** How the lines look with one delimiter: the indices of the good ones and their common width. */
    private record Reading(char delimiter, boolean decimalComma, boolean trailing, int width, List<Integer> good) {
        long values() {
            return (long) good.size() * width;
        }
    }

    private static Reading read(List<String> lines, char delimiter, boolean decimalComma) {
        Map<Integer, List<Integer>> byWidth = new HashMap<>();
        int trailing = 0;
        int numeric = 0;
        for (int i = 0; i < lines.size(); i++) {
            if (lines.get(i).isEmpty()) {
                continue;
            }
            String[] fields = Fields.split(lines.get(i), delimiter, false);
            if (!allNumbers(fields, decimalComma)) {
                continue;
            }
            numeric++;
            if (fields.length > 1 && fields[fields.length - 1].isEmpty()) {
                trailing++;
            }
            byWidth.computeIfAbsent(fields.length, k -> new ArrayList<>()).add(i);
        }
        Map.Entry<Integer, List<Integer>> most = null;
        for (Map.Entry<Integer, List<Integer>> entry : byWidth.entrySet()) {
            if (most == null || entry.getValue().size() > most.getValue().size()) {
                most = entry;
            }
        }
        if (most == null) {
            return null;
        }
        boolean allTrail = trailing == numeric && most.getKey() > 1 && numeric > 1;
        return new Reading(
                delimiter, decimalComma, allTrail, allTrail ? most.getKey() - 1 : most.getKey(), most.getValue());
    }

    static boolean allNumbers(String[] fields, boolean decimalComma) {
        NumberText number = new NumberText(decimalComma);
        boolean any = false;
        for (String field : fields) {
            byte[] bytes = field.getBytes(StandardCharsets.UTF_8);
            number.parse(bytes, 0, bytes.length);
            boolean whole = bytes.length > 0 && number.stop == bytes.length;
            if (!whole && !NumberText.isMissing(field)) {
                return false;
            }
            any |= whole;
        }
        return any;
    }

    private static DelimitedFormat format(List<String> lines, Reading reading) {
        int firstGood = reading.good().get(0);
        String header = "";
        String[] labels = null;
        for (int i = firstGood - 1; i >= 0 && labels == null; i--) {
            String[] fields = Fields.split(lines.get(i), reading.delimiter(), reading.trailing());
            if (fields.length == reading.width() && allLabels(fields)) {
                labels = fields;
                header = lines.get(i);
            }
        }
        if (reading.width() == 1
                && labels != null
                && header.contains(" ")
                && !UNIT.matcher(header).matches()) {
            // With a single column any sentence has the right width: a banner, not a name.
            labels = null;
            header = "";
        }
        List<Column> columns = columns(labels, reading.width());
        List<String[]> rows = reading.good().stream()
                .map(i -> Fields.split(lines.get(i), reading.delimiter(), reading.trailing()))
                .toList();
        List<double[]> values = new ArrayList<>();
        for (int c = 0; c < columns.size(); c++) {
            values.add(values(rows, reading.decimalComma(), c));
        }
        Roles.Found roles = Roles.find(columns, values);
        return new DelimitedFormat(
                reading.delimiter(),
                reading.decimalComma(),
                reading.trailing(),
                header,
                roles.columns(),
                roles.clock());
    }

    private static boolean allLabels(String[] fields) {
        for (String field : fields) {
            if (!LABEL.matcher(field).matches() || NumberText.isMissing(field)) {
                return false;
            }
        }
        return true;
    }

    static List<Column> columns(String[] labels, int width) {
        List<Column> columns = new ArrayList<>();
        Set<String> taken = new HashSet<>();
        for (int i = 0; i < width; i++) {
            String name = labels == null ? "column" + (i + 1) : labels[i];
            String unit = "";
            Matcher matcher = UNIT.matcher(name);
            if (matcher.matches()) {
                name = matcher.group(1);
                unit = matcher.group(2).strip();
            }
            columns.add(new Column(Columns.unique(name.strip(), taken), UnitWords.orSame(unit)));
        }
        return columns;
    }

    private static double[] values(List<String[]> rows, boolean decimalComma, int column) {
        NumberText number = new NumberText(decimalComma);
        double[] values = new double[rows.size()];
        int n = 0;
        for (String[] row : rows) {
            byte[] field = row[column].getBytes(StandardCharsets.UTF_8);
            double value = number.parse(field, 0, field.length);
            if (number.stop == field.length) {
                values[n++] = value;
            }
        }
        return java.util.Arrays.copyOf(values, n);
    }
}
