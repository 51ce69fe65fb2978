package zesty.signal.exchange.foreign;

import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zesty.signal.core.decode.Columns;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.TakeException;

/** What a board kept while it was unplugged and prints at once: numbers one or more a line, with or without headings. */
public final class DumpFile implements ForeignFile {
    private static final Pattern INTERVAL =
            Pattern.compile("(?i).*\\b(?:interval|period|every)\\b\\D*?([-+.0-9]+)\\s*(ms|s|sec|min|m|h)?\\b.*");
    private static final Pattern NUMBER = Pattern.compile("[-+]?(\\d+\\.?\\d*|\\.\\d+)([eE][-+]?\\d+)?");

    /** How the numbers of several columns follow each other. */
    public enum Layout {
        /** A line a row. */
        ROWS,
        /** All of the first column, then all of the second. */
        BLOCKS,
        /** One of each by turns. */
        INTERLEAVED
    }

    /** A line of numbers, or a heading; which line of the file it is. */
    private record Line(int at, String heading, double[] numbers) {}

    private final String said;
    private final Layout layout;
    private final List<String> names;
    private final List<double[]> values = new ArrayList<>();
    private double periodSeconds = Double.NaN;

    /**
     * @param names of the columns; none where headings name them, or there is but one
     * @throws TakeException when a line makes no sense or columns differ in length, saying which is short
     */
    public DumpFile(Path file, Layout layout, List<String> names) throws TakeException {
        this(read(file), String.valueOf(file), layout, names);
    }

    /** @param text what a board printed, {@code said} how to call that */
    public DumpFile(String text, String said, Layout layout, List<String> names) throws TakeException {
        this.said = said;
        this.layout = layout;
        this.names = new ArrayList<>(names);
        List<Line> lines = lines(text);
        switch (layout) {
            case ROWS -> rows(lines);
            case BLOCKS -> blocks(lines);
            case INTERLEAVED -> turns(lines);
        }
        if (this.names.isEmpty() || values.isEmpty() || values.get(0).length == 0) {
            throw new TakeException(Messages.of("foreign.holds-no-numbers", said));
        }
        List<String> once = Columns.distinct(this.names);
        this.names.clear();
        this.names.addAll(once);
    }

    private static String read(Path file) throws TakeException {
        try {
            return Files.readString(file);
        } catch (MalformedInputException e) {
            throw new TakeException(Messages.of("foreign.is-no-text", file), e);
        } catch (IOException e) {
            throw new TakeException(Messages.of("foreign.cannot-be-read", file), e);
        }
    }

    private List<Line> lines(String text) throws TakeException {
        List<Line> lines = new ArrayList<>();
        String[] all = text.replace("\uFEFF", "").split("\\R");
        for (int i = 0; i < all.length; i++) {
            String line = all[i].strip();
            Matcher interval = INTERVAL.matcher(line);
            if (line.isEmpty()) {
                continue;
            }
            if (interval.matches()) {
                periodSeconds = Double.parseDouble(interval.group(1)) * unit(interval.group(2));
                continue;
            }
            String[] cells = line.split("[,;\\s]+");
            long numbers = Arrays.stream(cells)
                    .filter(cell -> NUMBER.matcher(cell).matches())
                    .count();
            if (numbers == cells.length) {
                lines.add(new Line(
                        i + 1,
                        "",
                        Arrays.stream(cells).mapToDouble(Double::parseDouble).toArray()));
            } else if (!NUMBER.matcher(cells[0]).matches()) {
                lines.add(new Line(i + 1, line, null));
            } else {
                String wrong = Arrays.stream(cells)
                        .filter(cell -> !NUMBER.matcher(cell).matches())
                        .findFirst()
                        .orElse("");
                throw new TakeException(Messages.of("foreign.line-where-a-number-should-be", said, (i + 1), wrong));
            }
        }
        return lines;
    }

    private static double unit(String text) {
        return switch (text == null ? "s" : text.toLowerCase(Locale.ROOT)) {
            case "ms" -> 1e-3;
            case "min", "m" -> 60;
            case "h" -> 3600;
            default -> 1;
        };
    }

    /** A heading's name: its words without what frames them. */
    private static String name(String heading) {
        String name =
                heading.replaceAll("^[^\\p{L}\\d]+|[^\\p{L}\\d\\])]+$", "").strip();
        return name.isEmpty() ? heading : name;
    }

    private void rows(List<Line> lines) throws TakeException {
        int width = names.size();
        List<double[]> rows = new ArrayList<>();
        for (Line line : lines) {
            if (line.numbers() == null) {
                // A heading above the rows names them; any other is the board's talk.
                String[] cells = line.heading().split("[,;\\t]+|\\s{2,}");
                if (names.isEmpty() && rows.isEmpty()) {
                    width = cells.length;
                    Arrays.stream(cells).map(DumpFile::name).forEach(names::add);
                }
                continue;
            }
            width = width == 0 ? line.numbers().length : width;
            if (line.numbers().length != width) {
                throw new TakeException(Messages.of(
                        "foreign.line-where-a-row-has", said, line.at(), numbers(line.numbers().length), width));
            }
            rows.add(line.numbers());
        }
        for (int c = names.size(); c < width; c++) {
            names.add(width == 1 ? "value" : Messages.of("foreign.value", (c + 1)));
        }
        for (int c = 0; c < width; c++) {
            int column = c;
            values.add(rows.stream().mapToDouble(row -> row[column]).toArray());
        }
    }

    private void blocks(List<Line> lines) throws TakeException {
        Map<String, List<double[]>> headed = new LinkedHashMap<>();
        List<double[]> loose = new ArrayList<>();
        List<double[]> current = loose;
        for (Line line : lines) {
            if (line.numbers() == null) {
                current = new ArrayList<>();
                if (headed.put(name(line.heading()), current) != null) {
                    throw new TakeException(
                            Messages.of("foreign.line-the-heading-is-there-twice", said, line.at(), line.heading()));
                }
            } else {
                current.add(line.numbers());
            }
        }
        headed.values().removeIf(List::isEmpty);
        if (headed.isEmpty()) {
            parted(flat(loose));
            return;
        }
        if (!loose.isEmpty()) {
            throw new TakeException(Messages.of(
                    "foreign.numbers-stand-before-the-first",
                    said,
                    headed.keySet().iterator().next()));
        }
        if (!names.isEmpty() && names.size() != headed.size()) {
            throw new TakeException(
                    Messages.of("foreign.has-headings-where-columns-names", said, headed.size(), names.size()));
        }
        List<String> called = names.isEmpty() ? List.copyOf(headed.keySet()) : List.copyOf(names);
        headed.values().forEach(block -> values.add(flat(block)));
        even(called);
        names.clear();
        names.addAll(called);
    }

    private void even(List<String> called) throws TakeException {
        int most = values.stream().mapToInt(one -> one.length).max().orElse(0);
        List<String> shortOnes = new ArrayList<>();
        for (int c = 0; c < values.size(); c++) {
            if (values.get(c).length < most) {
                shortOnes.add(Messages.of(
                        "foreign.is-short-with-where-there-should",
                        called.get(c),
                        (most - values.get(c).length),
                        numbers(values.get(c).length),
                        most));
            }
        }
        if (!shortOnes.isEmpty()) {
            throw new TakeException(said + ": " + String.join("; ", shortOnes));
        }
    }

    private static double[] flat(List<double[]> lines) {
        return lines.stream().flatMapToDouble(Arrays::stream).toArray();
    }

    private void named() {
        if (names.isEmpty()) {
            names.add("value");
        }
    }

    /** Without headings the numbers are parted evenly; what is missing, the last column misses. */
    private void parted(double[] all) throws TakeException {
        named();
        int n = names.size();
        int rows = (all.length + n - 1) / n;
        int missing = rows * n - all.length;
        if (missing > 0) {
            throw new TakeException(Messages.of(
                    "foreign.do-not-part-evenly-into-columns-is",
                    said,
                    numbers(all.length),
                    n,
                    names.get(n - 1),
                    missing,
                    rows));
        }
        for (int c = 0; c < n; c++) {
            values.add(Arrays.copyOfRange(all, c * rows, (c + 1) * rows));
        }
    }

    private void turns(List<Line> lines) throws TakeException {
        double[] all = flat(lines.stream()
                .filter(line -> line.numbers() != null)
                .map(Line::numbers)
                .toList());
        named();
        int n = names.size();
        int over = all.length % n;
        if (over > 0) {
            throw new TakeException(Messages.of(
                    "foreign.do-not-come-out-even-by-turns-of",
                    said,
                    numbers(all.length),
                    n,
                    String.join(Messages.of("foreign.and"), names.subList(over, n)),
                    (over == n - 1 ? Messages.of("foreign.is") : Messages.of("foreign.are-each"))));
        }
        for (int c = 0; c < n; c++) {
            double[] own = new double[all.length / n];
            for (int i = 0; i < own.length; i++) {
                own[i] = all[i * n + c];
            }
            values.add(own);
        }
    }

    private static String numbers(int count) {
        return count + (count == 1 ? " number" : " numbers");
    }

    @Override
    public List<Source> sources() {
        return List.of(new Source(
                "",
                names.stream().map(DumpFile::column).toList(),
                values.get(0).length,
                timed() ? 1 / periodSeconds : 1));
    }

    /** A unit in brackets after the name is its unit. */
    private static Column column(String name) {
        Matcher unit = Pattern.compile("(.+?)\\s*[\\[(]([^\\])]*)[\\])]").matcher(name);
        return unit.matches() ? new Column(unit.group(1), unit.group(2)) : new Column(name, "");
    }

    @Override
    public boolean timed() {
        return periodSeconds > 0;
    }

    @Override
    public List<String> remarks() {
        return timed()
                ? List.of(Messages.of("foreign.a-heading-says-one-row-each-s", Digits.exact(periodSeconds)))
                : List.of();
    }

    /** @return how its numbers follow each other */
    public Layout layout() {
        return layout;
    }

    @Override
    public void read(int source, int[] columns, Taker taker) throws IOException {
        double[] seconds = new double[values.get(0).length];
        Arrays.setAll(seconds, i -> timed() ? i * periodSeconds : i);
        taker.take(seconds, Arrays.stream(columns).mapToObj(values::get).toArray(double[][]::new));
    }
}
