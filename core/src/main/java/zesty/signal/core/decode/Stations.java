package zesty.signal.core.decode;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Digits;

/** One stream, several stations in turn: each has rows of its own at times of its own, and channels of its own. */
public final class Stations {
    private static final Pattern OWN = Pattern.compile("(.+) (-?\\d+(?:\\.\\d+)?)");

    /** The column that says which topic of a broker a row came under. */
    public static final String TOPIC = "topic";
    /** The column of a number that came without a name. */
    public static final String BARE = "value";

    private Stations() {}

    /** @return what a station's share of a column is called: volts 4 */
    public static String columnOf(String column, double station) {
        return column + " " + Digits.exact(station);
    }

    /** @return the stream's column behind a station's own, or the name itself where it is one of the stream's */
    public static String streamColumn(StreamFormat format, String name) {
        if (format.indexOf(name) >= 0 || format.indexOf(Role.STATION) < 0) {
            return name;
        }
        Matcher own = OWN.matcher(name);
        return own.matches() ? own.group(1) : name;
    }

    /** @return index in the stream of the column behind that name; −1 when there is none */
    public static int indexOf(StreamFormat format, String name) {
        return format.indexOf(streamColumn(format, name));
    }

    /** @return the station that the name belongs to; NaN when it is of none */
    public static double stationOf(StreamFormat format, String name) {
        if (format.indexOf(name) >= 0 || format.indexOf(Role.STATION) < 0) {
            return Double.NaN;
        }
        Matcher own = OWN.matcher(name);
        return own.matches() ? Double.parseDouble(own.group(2)) : Double.NaN;
    }

    /**
     * Parts a block by the station that each row is of, in the order in which they turn up. Gaps are left out: what is
     * a gap for one station is none for another.
     *
     * @param column index of the column that says the station; rows where it is missing are left out
     */
    public static Map<Double, Block> part(Block block, int column) {
        double[] stations = block.columns()[column];
        Map<Double, int[]> rowsOf = new LinkedHashMap<>();
        Map<Double, Integer> counts = new LinkedHashMap<>();
        for (int row = 0; row < block.rows(); row++) {
            double station = stations[row];
            if (Double.isNaN(station)) {
                continue;
            }
            int n = counts.merge(station, 1, Integer::sum);
            int[] rows = rowsOf.computeIfAbsent(station, k -> new int[8]);
            if (n > rows.length) {
                rows = Arrays.copyOf(rows, n * 2);
                rowsOf.put(station, rows);
            }
            rows[n - 1] = row;
        }
        Map<Double, Block> parts = new LinkedHashMap<>();
        rowsOf.forEach((station, rows) -> parts.put(station, pick(block, rows, counts.get(station))));
        return parts;
    }

    private static Block pick(Block block, int[] rows, int count) {
        double[][] columns = new double[block.columns().length][count];
        double[] seconds = new double[count];
        for (int i = 0; i < count; i++) {
            seconds[i] = block.time().secondsAt(rows[i]);
            for (int c = 0; c < columns.length; c++) {
                columns[c][i] = block.columns()[c][rows[i]];
            }
        }
        return new Block(new TimeBase.Explicit(seconds), columns, count, java.util.List.of());
    }
}
