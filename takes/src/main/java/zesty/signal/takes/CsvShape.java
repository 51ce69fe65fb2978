package zesty.signal.takes;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.text.Messages;

/**
 * How a file of separated values is written, recognised from its first lines.
 *
 * @param delimiter comma, semicolon or tab
 * @param decimalComma whether 1,5 is one and a half
 * @param headerRecord how many records that are no comments stand before the header
 */
public record CsvShape(char delimiter, boolean decimalComma, int headerRecord) {
    private static final String DELIMITERS = "\t;,";
    private static final int LINES = 50;
    private static final int CHARACTERS = 1 << 18;
    private static final Pattern COMMA_NUMBER = Pattern.compile("[-+]?\\d+,\\d+([eE][-+]?\\d+)?");
    private static final Pattern POINT_NUMBER = Pattern.compile("[-+]?\\d*\\.\\d+([eE][-+]?\\d+)?");

    /** What {@link #of} assumes of a file that shows nothing else. */
    static final CsvShape PLAIN = new CsvShape(',', false, 0);

    /** @throws IOException when the file cannot be read */
    public static CsvShape of(Path file) throws IOException {
        List<String> lines = new ArrayList<>();
        try (InputStream in = Files.newInputStream(file);
                BufferedReader text = new BufferedReader(new InputStreamReader(in, StandardCharsets.UTF_8))) {
            int characters = 0;
            // A line may be as long as the file: what does not fit is no help.
            StringBuilder line = new StringBuilder();
            for (int c = text.read(); c >= 0 && lines.size() < LINES && characters < CHARACTERS; c = text.read()) {
                characters++;
                if (c == '\n' || c == '\r') {
                    keep(lines, line);
                } else {
                    line.append((char) c);
                }
            }
            keep(lines, line);
        }
        return of(lines);
    }

    private static void keep(List<String> lines, StringBuilder line) {
        String text = line.toString().replace("\uFEFF", "");
        if (!text.isBlank() && !comment(text)) {
            lines.add(text);
        }
        line.setLength(0);
    }

    /** @return whether a line is a comment, as its first sign says, or tells a spreadsheet how cells are parted */
    static boolean comment(String firstCell) {
        String text = firstCell.replace("\uFEFF", "").strip();
        return text.startsWith("#")
                || text.startsWith("%")
                || text.startsWith("//")
                || text.toLowerCase(Locale.ROOT).startsWith("sep=") && text.length() <= 5;
    }

    private static CsvShape of(List<String> lines) {
        if (lines.isEmpty()) {
            return PLAIN;
        }
        char delimiter = ',';
        int best = 0;
        for (char one : DELIMITERS.toCharArray()) {
            int fields = steady(lines, one);
            if (fields > best) {
                best = fields;
                delimiter = one;
            }
        }
        int commas = 0;
        int points = 0;
        for (String line : lines) {
            for (String cell : cells(line, delimiter)) {
                commas += COMMA_NUMBER.matcher(cell).matches() ? 1 : 0;
                points += POINT_NUMBER.matcher(cell).matches() ? 1 : 0;
            }
        }
        return new CsvShape(delimiter, delimiter != ',' && commas > 0 && points == 0, preamble(lines, delimiter, best));
    }

    /** @return how many fields more than half of the lines have with that delimiter, less one; 0 where they differ */
    private static int steady(List<String> lines, char delimiter) {
        int[] counts = lines.stream()
                .mapToInt(line -> cells(line, delimiter).size() - 1)
                .sorted()
                .toArray();
        int middle = counts[counts.length / 2];
        long same = Arrays.stream(counts).filter(count -> count == middle).count();
        return 2 * same > counts.length ? middle : 0;
    }

    /** Titles and dates before the header have fewer cells than the table. */
    private static int preamble(List<String> lines, char delimiter, int commas) {
        int at = 0;
        while (commas > 0
                && at < lines.size()
                && cells(lines.get(at), delimiter).size() - 1 < commas) {
            at++;
        }
        boolean headed = at > 0
                && at + 1 < lines.size()
                && cells(lines.get(at), delimiter).stream().noneMatch(CsvShape::numeric)
                && cells(lines.get(at + 1), delimiter).stream().anyMatch(CsvShape::numeric);
        return headed ? at : 0;
    }

    private static boolean numeric(String cell) {
        return cell.matches("[-+]?[.,]?\\d.*");
    }

    /** @return the cells of one line, quotes heeded; a quoted line break is not */
    private static List<String> cells(String line, char delimiter) {
        List<String> cells = new ArrayList<>();
        boolean quoted = false;
        StringBuilder cell = new StringBuilder();
        for (char c : line.toCharArray()) {
            if (c == '"') {
                quoted = !quoted;
            } else if (c == delimiter && !quoted) {
                cells.add(cell.toString().strip());
                cell.setLength(0);
            } else {
                cell.append(c);
            }
        }
        cells.add(cell.toString().strip());
        return cells;
    }

    /** @return the number in a cell; NaN when it holds none */
    public double number(String cell) {
        String text = cell.strip();
        if (decimalComma) {
            text = text.replace(',', '.');
        }
        if (text.isEmpty() || "0123456789".indexOf(text.charAt(text.length() - 1)) < 0 && !text.endsWith(".")) {
            return Double.NaN;
        }
        try {
            double value = Double.parseDouble(text);
            return Double.isInfinite(value) ? Double.NaN : value;
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }

    /** @return in words what was guessed of it; empty for nothing */
    public String words() {
        String parted = delimiter == ',' ? "" : Messages.of("takes.cells-parted-by", DelimitedFormat.nameOf(delimiter));
        String comma = decimalComma ? Messages.of("takes.a-decimal-comma") : "";
        String skipped = headerRecord == 0
                ? ""
                : Messages.of(
                        "takes.before-the-header-left-out",
                        (parted.isEmpty() ? "" : "; ")
                                + headerRecord
                                + (headerRecord == 1 ? Messages.of("takes.line") : Messages.of("takes.lines")));
        return parted + comma + skipped;
    }
}
