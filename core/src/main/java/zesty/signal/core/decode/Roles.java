package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import zesty.signal.core.sample.Order;

/** Tells which column is the clock, the sequence or the station, by its name and by how its numbers go. */
final class Roles {
    private static final Set<String> CLOCKS = Set.of(
            "t",
            "t_us",
            "t_ms",
            "t_s",
            "time",
            "time_us",
            "time_ms",
            "time_s",
            "us",
            "ms",
            "micros",
            "millis",
            "clock",
            "seconds",
            "timestamp",
            "uptime",
            "uptime_ms",
            "ts");
    private static final Set<String> DAYS = Set.of("date", "datetime", "date_time", "date time", "when");
    private static final Pattern UNNAMED = Pattern.compile("column\\d+");
    /** Seconds since 1970 of the years 1998 to 2100. */
    private static final double FIRST_DAY = 9e8;

    private static final double LAST_DAY = 4.102e9;
    private static final Set<String> SEQUENCES = Set.of(
            "seq",
            "sequence",
            "n",
            "no",
            "nr",
            "#",
            "index",
            "idx",
            "i",
            "sample",
            "packet",
            "frame",
            "count",
            "counter",
            "ping");
    private static final Set<String> STATIONS = Set.of(Stations.TOPIC, "station", "node", "id", "cell", "bank");

    /** A clock that nobody named has seven digits, and goes on by so many ticks and as evenly as this. */
    private static final double LEAST_CLOCK = 1e6;

    private static final int FEWEST_TICKS = 20;
    private static final double LEAST_STEP = 5;
    private static final double EVEN_SHARE = 0.02;
    /** A clock stays so near to its rows' count, in steps, at nearly all rows. */
    private static final double NEAR_STEPS = 1.5;
    /** So many different stamps are those of a clock that runs, however many rows share one. */
    private static final int RUNNING = 16;

    /** A row overtakes so many others at most, in steps. */
    private static final double MOST_OVERTAKEN = 8;

    private Roles() {}

    record Found(List<Column> columns, BoardClock clock) {}

    /** @param values the numbers of each column as they came, missing ones left out */
    static Found find(List<Column> columns, List<double[]> values) {
        List<Column> found = new ArrayList<>(columns);
        BoardClock clock = null;
        for (int c = 0; c < found.size(); c++) {
            Column column = found.get(c);
            String name = column.name().toLowerCase(Locale.ROOT);
            double[] own = values.get(c);
            boolean edge = name.contains("edge");
            boolean behindClock = c == 1 && clock != null && clock.column() == 0 && nameless(found, 0);
            boolean unnamed =
                    c == 0 && found.size() > 1 && UNNAMED.matcher(name).matches();
            // A board whose loop does other things is late now and then; that rows carry a count says that it is one of
            // a program.
            boolean counted = unnamed && found.size() > 2 && nameless(found, 1) && countsUp(values.get(1));
            if (clock == null && unnamed && (ticks(own) || counted && ticksByCount(own, values.get(1)))) {
                clock = new BoardClock(c, ticksPerSecond(name, "", own), BoardClock.WRAP_32_BIT);
            } else if (clock == null
                    && own.length >= 2
                    && (CLOCKS.contains(name)
                                    || DAYS.contains(name)
                                    || UNNAMED.matcher(name).matches() && isDate(own)
                            ? runs(own)
                            : edge && rises(own))) {
                double ticks = ticksPerSecond(name, column.unit(), own);
                clock = new BoardClock(c, ticks, ticks == 1 ? 0 : BoardClock.WRAP_32_BIT);
                if (edge) {
                    found.set(c, column.withRole(Role.EDGE));
                }
            } else if (SEQUENCES.contains(name) && found.size() > 1 && own.length >= 3 && countsUp(own)
                    || behindClock && numbersRows(found, own)) {
                found.set(c, column.withRole(Role.SEQUENCE));
            } else if (STATIONS.contains(name) && found.size() > 1 && isStation(own, name)) {
                found.set(c, column.withRole(Role.STATION));
            }
        }
        return new Found(found, clock);
    }

    /** @return the columns of a stream that nobody named, of which the first turned out to be that clock: its count stands behind it */
    static List<Column> behindClock(List<Column> columns, Rows rows) {
        List<Column> found = new ArrayList<>(columns);
        if (columns.size() > 1 && numbersRows(columns, Arrays.copyOf(rows.columns()[1], rows.count()))) {
            found.set(1, columns.get(1).withRole(Role.SEQUENCE));
        }
        return found;
    }

    /**
     * A board that sends its clock without a word sends its count behind it.
     *
     * @param second the numbers of the column behind the clock
     */
    private static boolean numbersRows(List<Column> columns, double[] second) {
        return columns.size() > 2
                && nameless(columns, 1)
                && second.length >= FEWEST_TICKS
                && rises(second)
                && countsUp(second);
    }

    static boolean nameless(List<Column> columns, int index) {
        return UNNAMED.matcher(columns.get(index).name().toLowerCase(Locale.ROOT))
                .matches();
    }

    /** @param name in small letters. @return whether a column of that name is a clock */
    static boolean isClock(String name) {
        return CLOCKS.contains(name);
    }

    /** Whether it only rises, but for a wrap, a restart and a first half line. */
    static boolean rises(double[] values) {
        int falls = 0;
        for (int i = 1; i < values.length; i++) {
            if (!(values[i] > values[i - 1])) {
                falls++;
            }
        }
        return falls <= 3 && falls * 4 <= values.length;
    }

    /**
     * As {@link #rises}, of a clock by name: lines faster than its ticks, or sent in a burst, may share one, and datagrams
     * overtake each other by a few steps.
     */
    private static boolean runs(double[] values) {
        int falls = 0;
        int overtaken = 0;
        double step = (values[values.length - 1] - values[0]) / (values.length - 1);
        for (int i = 1; i < values.length; i++) {
            double fall = values[i - 1] - values[i];
            overtaken += fall > 0 && fall <= MOST_OVERTAKEN * step ? 1 : 0;
            falls += fall > MOST_OVERTAKEN * Math.max(0, step) ? 1 : 0;
        }
        long different = Arrays.stream(values).distinct().count();
        return overtaken * 5 <= values.length
                && falls <= 3
                && falls * 4 <= values.length
                && different >= 2
                && (different * 8 >= values.length || different >= RUNNING);
    }

    /** Whether they are seconds since 1970, as a date and a time of day become. */
    private static boolean isDate(double[] values) {
        double step = (values[values.length - 1] - values[0]) / (values.length - 1);
        return values[0] > FIRST_DAY && values[values.length - 1] < LAST_DAY && step > 0 && step < 500;
    }

    /** Whether a column without a name is a clock all the same: a large whole number that goes on in even steps, rows lost now and then. */
    private static boolean ticks(double[] values) {
        if (values.length < FEWEST_TICKS || values[values.length - 1] < LEAST_CLOCK) {
            return false;
        }
        double step = step(values);
        int even = 0;
        for (int i = 1; i < values.length; i++) {
            double own = values[i] - values[i - 1];
            even += Math.abs(own - step) <= EVEN_SHARE * step + 2 ? 1 : 0;
            if (values[i] != Math.rint(values[i])) {
                return false;
            }
        }
        return step >= LEAST_STEP && even * 10 >= (values.length - 1) * 8;
    }

    /**
     * The same where rows carry their number: a loop that has other things to do sends late and leaves rows out, but its clock never
     * leaves the straight line over the count.
     */
    private static boolean ticksByCount(double[] values, double[] numbers) {
        int n = values.length - 1;
        if (numbers.length != values.length || n < FEWEST_TICKS || values[n] < LEAST_CLOCK) {
            return false;
        }
        double step = (values[n] - values[0]) / (numbers[n] - numbers[0]);
        int near = 0;
        for (int i = 1; i <= n; i++) {
            if (values[i] != Math.rint(values[i]) || !(values[i] > values[i - 1])) {
                return false;
            }
            near += Math.abs(values[i] - values[0] - step * (numbers[i] - numbers[0])) <= NEAR_STEPS * step ? 1 : 0;
        }
        return step >= LEAST_STEP && near * 10 >= n * 9;
    }

    private static double step(double[] values) {
        return Order.median(Trends.steps(values));
    }

    /** Whether they go up by one mostly, as the numbers of rows do. */
    static boolean countsUp(double[] values) {
        int ones = 0;
        for (int i = 1; i < values.length; i++) {
            ones += values[i] == values[i - 1] + 1 ? 1 : 0;
        }
        return ones * 10 >= (values.length - 1) * 7;
    }

    private static boolean isStation(double[] values, String name) {
        double[] different = Arrays.stream(values).distinct().toArray();
        boolean whole = Arrays.stream(different).allMatch(v -> v == Math.rint(v) && v >= 0 && v < 1e6);
        // Some words mean nothing else; of the others the number must be seen to come again.
        boolean surely = name.equals("station") || name.equals("node");
        if (name.equals(Stations.TOPIC)) {
            return Arrays.stream(different).allMatch(v -> v == Math.rint(v) && v > 0);
        }
        return whole
                && different.length >= 2
                && different.length <= 64
                && Arrays.stream(different).allMatch(v -> v < 1000)
                && (surely || different.length * 2 <= values.length);
    }

    static double ticksPerSecond(String name, String unit, double[] values) {
        String hint = unit.isEmpty() ? name : unit.toLowerCase(Locale.ROOT);
        if (hint.endsWith("us") || hint.endsWith("µs") || hint.endsWith("μs") || hint.startsWith("micros")) {
            return 1e6;
        }
        if (hint.endsWith("ms") || hint.startsWith("millis")) {
            return 1e3;
        }
        if (hint.equals("s") || hint.endsWith("_s") || hint.equals("seconds") || hint.equals("t")) {
            return 1;
        }
        if (isDate(values)) {
            return 1;
        }
        // Without a word for it: whole steps of a thousand and more are microseconds, whole smaller ones milliseconds.
        double step = (values[values.length - 1] - values[0]) / (values.length - 1);
        return step >= 500 ? 1e6 : step >= 1 ? 1e3 : 1;
    }
}
