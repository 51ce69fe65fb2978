package zesty.signal.takes;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.temporal.ChronoField;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zesty.signal.core.text.Messages;

/**
 * The column of a file that tells when each row was taken, and how to read it.
 *
 * @param column its place
 * @param secondsEach what one of its unit is, in s; NaN where it holds dates or times of day
 * @param dates how its dates are written; null where it holds none, or such as name their offset
 * @param words what was guessed of it; empty where the header says it
 */
public record CsvClock(int column, double secondsEach, DateTimeFormatter dates, String words) {
    private static final Map<String, Double> UNITS = Map.ofEntries(
            Map.entry("s", 1.0),
            Map.entry("sec", 1.0),
            Map.entry("seconds", 1.0),
            Map.entry("ms", 1e-3),
            Map.entry("msec", 1e-3),
            Map.entry("millis", 1e-3),
            Map.entry("milliseconds", 1e-3),
            Map.entry("us", 1e-6),
            Map.entry("µs", 1e-6),
            Map.entry("μs", 1e-6),
            Map.entry("micros", 1e-6),
            Map.entry("microseconds", 1e-6),
            Map.entry("min", 60.0),
            Map.entry("h", 3600.0));
    private static final Pattern CALLED =
            Pattern.compile("(?i)(t|time|timestamp|time stamp|clock|date|datetime|date time|zeit|elapsed)");
    private static final Pattern WITH_UNIT = Pattern.compile("(?i)(.*?)(?:[ _]*[\\[(]([^\\])]+)[\\])]|_([a-zµμ]+))");
    private static final double DAY = 86_400;
    private static final double COUNTER = 4294967296.0;
    /** A counter that began again goes on within so long; one that fell to less began anew with its board. */
    private static final double GOES_ON_SECONDS = 60;

    private static final List<DateTimeFormatter> DATES =
            List.of(date("uuuu-MM-dd"), date("dd.MM.uuuu"), date("MM/dd/uuuu"), date("dd/MM/uuuu"), date("uuuu/MM/dd"));

    private static DateTimeFormatter date(String pattern) {
        return new DateTimeFormatterBuilder()
                .appendPattern(pattern)
                .appendPattern("[' ']['T'][' ']HH:mm[:ss]")
                .optionalStart()
                .appendFraction(ChronoField.NANO_OF_SECOND, 1, 9, true)
                .optionalEnd()
                .optionalStart()
                .appendLiteral(',')
                .appendFraction(ChronoField.NANO_OF_SECOND, 1, 9, false)
                .optionalEnd()
                .toFormatter(Locale.ROOT);
    }

    /**
     * @param headers as the file writes them
     * @param rows a few of the first
     * @return the column that tells the time; nothing where none looks like one
     */
    static Optional<CsvClock> of(List<String> headers, List<String[]> rows, CsvShape shape) {
        for (int pass = 0; pass < 2; pass++) {
            for (int c = 0; c < headers.size(); c++) {
                String name = headers.get(c).strip();
                // The plain name is looked for first: a board's own clock may stand beside it.
                if (pass == 0 ? bare(name).equals(Table.TIME) : looksLikeTime(name)) {
                    return Optional.of(of(c, headers, rows, shape));
                }
            }
        }
        return Optional.empty();
    }

    private static boolean looksLikeTime(String name) {
        Matcher unit = WITH_UNIT.matcher(name);
        String called = unit.matches() && unitOf(name) != null ? unit.group(1).strip() : name;
        return CALLED.matcher(called).matches()
                || List.of("seconds", "millis", "micros", "milliseconds", "microseconds")
                        .contains(name.toLowerCase(Locale.ROOT));
    }

    /** @return seconds of a header's unit; null where it names none of time */
    private static Double unitOf(String header) {
        Double named = UNITS.get(header.strip().toLowerCase(Locale.ROOT));
        if (named != null && header.strip().length() > 2) {
            return named;
        }
        Matcher matcher = WITH_UNIT.matcher(header.strip());
        if (!matcher.matches()) {
            return null;
        }
        String unit = matcher.group(2) != null ? matcher.group(2) : matcher.group(3);
        return UNITS.get(unit.strip().toLowerCase(Locale.ROOT));
    }

    private static String bare(String header) {
        Matcher matcher = WITH_UNIT.matcher(header);
        return matcher.matches() && matcher.group(2) != null ? matcher.group(1).strip() : header;
    }

    /** @return the clock of a column that is known to tell the time */
    static CsvClock of(int column, List<String> headers, List<String[]> rows, CsvShape shape) {
        String header = headers.get(column);
        String first = rows.isEmpty() ? "" : rows.get(0)[column];
        String of = Messages.of("takes.time-is-column", header);
        if (Double.isNaN(shape.number(first))) {
            // The form that most of the rows have: one that breaks it is named by its line.
            DateTimeFormatter best = null;
            long most = 0;
            for (DateTimeFormatter one : DATES) {
                long fit = rows.stream()
                        .filter(row -> date(row[column], one) != null)
                        .count();
                if (fit > most && date(first, one) != null) {
                    best = one;
                    most = fit;
                }
            }
            if (best != null) {
                String slashes = first.contains("/")
                        ? best == DATES.get(2) ? Messages.of("takes.month-first") : Messages.of("takes.day-first")
                        : "";
                return new CsvClock(column, Double.NaN, best, of + "dates" + slashes);
            }
            if (date(first, null) != null || time(first) != null) {
                return new CsvClock(
                        column,
                        Double.NaN,
                        null,
                        of + (time(first) == null ? "dates" : Messages.of("takes.times-of-day")));
            }
        }
        Double unit = unitOf(header);
        if (unit != null) {
            return new CsvClock(
                    column, unit, null, bare(header).equals(Table.TIME) ? "" : Messages.of("takes.by-its-unit", of));
        }
        if (bare(header).equals(Table.TIME)) {
            return new CsvClock(column, 1, null, "");
        }
        double guess = guess(rows, column, shape);
        return new CsvClock(
                column,
                guess,
                null,
                Messages.of("takes.taken-as", of, (guess == 1 ? "s" : guess == 1e-3 ? "ms" : "µs")));
    }

    /** Without a unit: an epoch says it by its size, whole numbers that step by two or more are milliseconds. */
    private static double guess(List<String[]> rows, int column, CsvShape shape) {
        double first = rows.isEmpty() ? Double.NaN : shape.number(rows.get(0)[column]);
        if (first > 1e14) {
            return 1e-6;
        }
        if (first > 1e11) {
            return 1e-3;
        }
        double last = rows.isEmpty() ? Double.NaN : shape.number(rows.get(rows.size() - 1)[column]);
        boolean whole = rows.stream()
                .mapToDouble(row -> shape.number(row[column]))
                .allMatch(value -> value == Math.rint(value));
        return whole && first < 1e9 && (last - first) / (rows.size() - 1) >= 2 ? 1e-3 : 1;
    }

    private static LocalDateTime date(String cell, DateTimeFormatter format) {
        String text = cell.strip();
        try {
            return format != null
                    ? LocalDateTime.parse(text, format)
                    : OffsetDateTime.parse(text.replace(' ', 'T'))
                            .withOffsetSameInstant(ZoneOffset.UTC)
                            .toLocalDateTime();
        } catch (DateTimeException e) {
            return null;
        }
    }

    private static LocalTime time(String cell) {
        try {
            return LocalTime.parse(cell.strip().replace(',', '.'));
        } catch (DateTimeException e) {
            return null;
        }
    }

    /** @return the calendar's moment of a cell; nothing where it holds none */
    public Optional<Instant> moment(String cell) {
        return Double.isNaN(secondsEach)
                ? Optional.ofNullable(date(cell, dates)).map(at -> at.toInstant(ZoneOffset.UTC))
                : Optional.empty();
    }

    /** @return the time of a number in the unit of the column, in s; of a column that holds numbers */
    double seconds(double value) {
        return secondsEach == 1 ? value : secondsEach < 1 ? value / Math.rint(1 / secondsEach) : value * secondsEach;
    }

    /** @return a cell's time, in s; NaN where it holds none. @param before the row before, by which midnight, and a counter's end, is noticed */
    double seconds(String cell, CsvShape shape, double before) {
        if (!Double.isNaN(secondsEach)) {
            double number = shape.number(cell);
            double seconds = seconds(number);
            // A board's counter of 32 bits begins again after 71 minutes, or 50 days.
            double turn = secondsEach < 1 && number >= 0 && number < COUNTER ? seconds(COUNTER) : 0;
            double turns = turn > 0 ? Math.ceil((before - seconds) / turn) : 0;
            return turns >= 1 && seconds + turns * turn - before < GOES_ON_SECONDS ? seconds + turns * turn : seconds;
        }
        LocalDateTime date = date(cell, dates);
        if (date != null) {
            Instant at = date.toInstant(ZoneOffset.UTC);
            return at.getEpochSecond() + at.getNano() * 1e-9;
        }
        LocalTime time = time(cell);
        if (time == null) {
            return Double.NaN;
        }
        double seconds = time.toNanoOfDay() * 1e-9;
        while (seconds < before - DAY / 2) {
            seconds += DAY;
        }
        return seconds;
    }
}
