package zesty.signal.takes;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.text.Messages;

/** The samples of a take: columns, rows of each source, gaps, and the small drawings of them. One thread. */
final class TakeData implements AutoCloseable {
    /** A table of columns that says it has more is damaged. */
    private static final int MOST_COLUMNS = 100_000;

    private final TakeFile file;
    private final List<Column> columns = new ArrayList<>();
    private final List<Share> shares = new ArrayList<>();
    private double lastSeconds;

    /** What a source has of the take; its columns count from 0. */
    private record Share(String name, int firstColumn, int columns, TakeRows rows) {}

    TakeData(TakeFile file) {
        this.file = file;
        load();
    }

    /** Reads anew which rows there are. */
    void load() {
        columns.clear();
        Map<String, Tally.Count> said = Map.of();
        if (file.counted()) {
            said = Tally.read(file.connection(), file.damage());
            Tally.compare(file.connection(), said, file.several(), file.damage());
        }
        file.each("channel_column", "id, name, unit", " ORDER BY id", (row, check) -> {
            // Columns whose names are gone still have their numbers.
            unnamed(Math.min(row.getInt(1) - 1, MOST_COLUMNS));
            if (file.right(check, row.getInt(1), row.getString(2), row.getString(3))
                    && row.getString(2) != null
                    && row.getString(3) != null) {
                columns.add(new Column(row.getString(2), row.getString(3)));
            } else {
                columns.add(new Column("column" + (columns.size() + 1), ""));
                file.damage().tell(Messages.of("takes.the-name-of-column-does-not-check", columns.size()));
            }
        });
        if (said.containsKey("channel_column")) {
            unnamed((int) Math.min(said.get("channel_column").rows(), MOST_COLUMNS));
        }
        close();
        lastSeconds = 0;
        if (file.several()) {
            file.each("source", "id, name, first_column, columns", " ORDER BY id", (row, check) -> {
                int first = row.getInt(3) - 1;
                int count = row.getInt(4);
                boolean fits = first >= 0 && count >= 0 && (long) first + count <= columns.size();
                if (fits && file.right(check, row.getInt(1), row.getString(2), first + 1, count)) {
                    share(row.getString(2), first, count);
                } else {
                    share("source" + (shares.size() + 1), columns.size(), 0);
                    file.damage().tell(Messages.of("takes.source-is-lost-what-says-which", (shares.size())));
                }
            });
        }
        if (shares.isEmpty()) {
            share("", 0, columns.size());
        }
        for (int source = 0; source < shares.size(); source++) {
            Tally.Count due = said.get(Tally.rowsOf(source));
            long there = shares.get(source).rows().rows();
            if (due != null && due.rows() != there) {
                file.damage().tell(Messages.of("takes.of-rows-that-were-recorded-are", due.rows(), there));
            } else if (due == null && file.counted()) {
                file.damage().tell(Messages.of("takes.what-says-how-many-rows-were"));
            }
        }
    }

    /** Fills the list of columns up to so many, with names that count them. */
    private void unnamed(int count) {
        while (columns.size() < count) {
            columns.add(new Column("column" + (columns.size() + 1), ""));
        }
    }

    private void share(String name, int firstColumn, int count) {
        TakeRows rows = new TakeRows(
                file.connection(), file.several(), file.checked(), shares.size(), file.bytes(), file.damage());
        lastSeconds = Math.max(lastSeconds, rows.lastSeconds());
        shares.add(new Share(name, firstColumn, count, rows));
    }

    /** @return index of the source that a column is of */
    int sourceOf(int column) {
        int source = 0;
        for (int s = 0; s < shares.size(); s++) {
            source = shares.get(s).columns() > 0 && column >= shares.get(s).firstColumn() ? s : source;
        }
        return source;
    }

    /** @return how many sources it was recorded from */
    int sources() {
        return shares.size();
    }

    /** @return what a source was called; empty for the first */
    String sourceName(int source) {
        return shares.get(source).name();
    }

    /** @return index of a source's first column */
    int firstColumn(int source) {
        return shares.get(source).firstColumn();
    }

    List<Column> columns() {
        return List.copyOf(columns);
    }

    /** @return the columns of a source */
    List<Column> columnsOf(int source) {
        Share share = shares.get(source);
        return columns.subList(share.firstColumn(), share.firstColumn() + share.columns());
    }

    /** @return rows of all sources together */
    long rows() {
        return shares.stream().mapToLong(share -> share.rows().rows()).sum();
    }

    /** @return rows of a source */
    long rows(int source) {
        return shares.get(source).rows().rows();
    }

    /** @return from the first row to the last, in s */
    double seconds() {
        return lastSeconds;
    }

    /** @return the values of a column, as they arrived; NaN where one is missing. Holds 8 bytes a row in memory */
    double[] column(int index) throws TakeException {
        TakeRows rows = shares.get(sourceOf(index)).rows();
        double[] values = new double[fitting(rows.rows())];
        int at = 0;
        for (int piece = 0; piece < rows.pieces(); piece++) {
            double[] one = values(index, piece);
            System.arraycopy(one, 0, values, at, one.length);
            at += one.length;
        }
        return values;
    }

    private int fitting(long rows) throws TakeException {
        if (rows > Integer.MAX_VALUE - 8) {
            throw new TakeException(Messages.of("takes.has-rows-more-than-2147483639", file.path(), rows));
        }
        return (int) rows;
    }

    /** @return into how many pieces the rows of a source were written */
    int pieces(int source) {
        return shares.get(source).rows().pieces();
    }

    /** @return index of a piece's first row among the rows of its source */
    long rowOf(int source, int piece) {
        return shares.get(source).rows().rowOf(piece);
    }

    /** @return index of the piece that holds a row of a source */
    int pieceOf(int source, long row) {
        return shares.get(source).rows().pieceOf(row);
    }

    /** @return under which number a row of a source was written */
    long storedRow(int source, long row) {
        return shares.get(source).rows().storedRow(row);
    }

    /** @return the time of a piece's first row, in s from the take's first */
    double firstSeconds(int source, int piece) {
        return shares.get(source).rows().firstSeconds(piece);
    }

    /** @return seconds from row to row within a piece; NaN where each row has a time of its own */
    double periodSeconds(int source, int piece) {
        return shares.get(source).rows().periodSeconds(piece);
    }

    /** @return the values of a column in one piece; NaN where one is missing */
    double[] values(int column, int piece) {
        return shares.get(sourceOf(column))
                .rows()
                .values(piece, column + 1, columns.get(column).name());
    }

    /** @return the times of one piece of a source, in s from the take's first row */
    double[] times(int source, int piece) {
        return shares.get(source).rows().times(piece);
    }

    /** @return the time of each row of the first source, in s from the take's first */
    double[] times() throws TakeException {
        return times(0);
    }

    /** @return the time of each row of a source, in s from the take's first */
    double[] times(int source) throws TakeException {
        TakeRows rows = shares.get(source).rows();
        double[] times = new double[fitting(rows.rows())];
        int at = 0;
        for (int piece = 0; piece < rows.pieces(); piece++) {
            double[] one = rows.times(piece);
            System.arraycopy(one, 0, times, at, one.length);
            at += one.length;
        }
        return times;
    }

    /** @return the gaps of a source, with those that damage has made */
    List<Gap> gaps(int source) {
        List<Gap> gaps = new ArrayList<>(shares.get(source).rows().lost());
        String of = file.several() ? " WHERE source = " + source : "";
        file.each("gap", "start_seconds, end_seconds, missing", of + " ORDER BY start_seconds", (row, check) -> {
            double start = row.getDouble(1);
            double end = row.getDouble(2);
            long missing = row.getLong(3);
            if (file.right(check, source, start, end, missing) && start <= end && missing >= 0) {
                gaps.add(new Gap(start, end, missing));
            } else {
                file.damage().tell(Messages.of("takes.a-gap-does-not-check-and-is-left"));
            }
        });
        gaps.sort(Comparator.comparingDouble(Gap::startSeconds));
        return gaps;
    }

    /** @return lowest and highest of each cell of a column, in turn: at most so many cells, of a long take few of them */
    double[] overview(int column, int mostCells) throws TakeException {
        long rows = rows(sourceOf(column));
        if (rows <= (long) Take.CELL * mostCells * 2) {
            return extremes(column(column), mostCells);
        }
        int level = 1;
        long cells = (rows + Take.CELL - 1) / Take.CELL;
        while (cells > mostCells && level < TakeSchema.LEVELS) {
            cells = (cells + TakeSchema.FAN - 1) / TakeSchema.FAN;
            level++;
        }
        return pyramid(column, level, Math.toIntExact(cells));
    }

    /**
     * @return lowest and highest of each {@link Take#CELL} rows of a column, in turn, as they were kept while it was recorded:
     *     NaN where they were not or do not check; empty where rows are lost, for then it is not known whose they are
     */
    double[] cells(int column) {
        int source = sourceOf(column);
        return shares.get(source).rows().lost().isEmpty()
                ? pyramid(column, 1, (int) ((rows(source) + Take.CELL - 1) / Take.CELL))
                : new double[0];
    }

    private double[] pyramid(int column, int level, int cells) {
        double[] extremes = new double[2 * cells];
        Arrays.fill(extremes, Double.NaN);
        try (PreparedStatement query = file.connection()
                .prepareStatement("SELECT first_cell, data, " + (file.checked() ? "check_sum" : "0")
                        + " FROM pyramid WHERE column_id = ? AND level = ? ORDER BY first_cell")) {
            query.setInt(1, column + 1);
            query.setInt(2, level);
            try (ResultSet result = query.executeQuery()) {
                while (result.next()) {
                    byte[] stored = result.getBytes(2);
                    long first = result.getLong(1);
                    if (stored == null
                            || stored.length % 8 != 0
                            || first < 0
                            || !file.right(result.getLong(3), column + 1, level, first, stored)) {
                        file.damage()
                                .tell(Messages.of(
                                        "takes.a-part-of-the-small-drawing-of",
                                        columns.get(column).name()));
                        continue;
                    }
                    ByteBuffer data = ByteBuffer.wrap(stored).order(ByteOrder.LITTLE_ENDIAN);
                    for (long at = 2 * first; data.hasRemaining() && at < extremes.length; at++) {
                        int i = (int) at;
                        extremes[i] = data.getDouble();
                    }
                }
            }
        } catch (SQLException e) {
            file.damage()
                    .tell(Messages.of(
                            "takes.a-part-of-the-small-drawing-of-2",
                            columns.get(column).name()));
        }
        return extremes;
    }

    private static double[] extremes(double[] values, int mostCells) {
        int cells = Math.min(mostCells, values.length);
        double[] extremes = new double[2 * cells];
        Arrays.fill(extremes, Double.NaN);
        for (int i = 0; i < values.length; i++) {
            int low = 2 * (int) ((long) i * cells / values.length);
            extremes[low] = values[i] >= extremes[low] || Double.isNaN(values[i]) ? extremes[low] : values[i];
            extremes[low + 1] =
                    values[i] <= extremes[low + 1] || Double.isNaN(values[i]) ? extremes[low + 1] : values[i];
        }
        return extremes;
    }

    /** Reads all of it once. */
    void verify() {
        for (int c = 0; c < columns.size(); c++) {
            for (int piece = 0; piece < pieces(sourceOf(c)); piece++) {
                values(c, piece);
            }
        }
        for (int s = 0; s < shares.size(); s++) {
            gaps(s);
        }
    }

    /** Lets the rows go; {@link #load} reads them anew. */
    @Override
    public void close() {
        shares.forEach(share -> share.rows().close());
        shares.clear();
    }
}
