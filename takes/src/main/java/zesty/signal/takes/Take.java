package zesty.signal.takes;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Gap;

/** A stored take, open for reading. A take whose recording broke off is mended when it is opened, and says so. */
public final class Take implements AutoCloseable {
    private final Path file;
    private final Connection connection;
    private final Map<String, String> facts = new HashMap<>();
    private final List<Column> columns = new ArrayList<>();
    private final List<Share> shares = new ArrayList<>();
    private boolean several;
    private double lastSeconds;

    /** What a source has of the take; its columns count from 0. */
    private record Share(String name, int firstColumn, int columns, long rows) {}

    private Take(Path file, Connection connection) {
        this.file = file;
        this.connection = connection;
    }

    /**
     * Opens a take, and mends it if its recording broke off.
     *
     * @throws TakeException when it is no take, of a later version, still being recorded by another process, or damaged
     */
    public static Take open(Path file) throws TakeException {
        if (!Files.isRegularFile(file)) {
            throw new TakeException(file + " is not there");
        }
        Take take = null;
        try {
            Connection connection = TakeSchema.connect(file);
            take = new Take(file, connection);
            take.check();
            take.load();
            if (take.fact("state").equals("recording")) {
                if (ProcessMark.runs(take.fact("process"))) {
                    throw new TakeException(file + " is still being recorded; stop the recording first");
                }
                new TakeMender(connection, take.columns.size(), take::blocksOfColumn)
                        .mend(take.rows(), take.lastSeconds);
                take.load();
            }
            return take;
        } catch (SQLException e) {
            closeQuietly(take);
            throw new TakeException(file + " is no take, or is damaged: " + e.getMessage(), e);
        } catch (TakeException e) {
            closeQuietly(take);
            throw e;
        }
    }

    private static void closeQuietly(Take take) {
        if (take != null) {
            try {
                take.close();
            } catch (TakeException e) {
                // The first error is the one to tell.
            }
        }
    }

    private void check() throws SQLException, TakeException {
        if (number("PRAGMA application_id") != TakeSchema.APPLICATION_ID) {
            throw new TakeException(file + " is no take; a take ends in .zest and is made by recording or importing");
        }
        long version = number("PRAGMA user_version");
        if (version > TakeSchema.SEVERAL_SOURCES) {
            throw new TakeException(file + " was written by a later version (format " + version
                    + ", this one reads up to " + TakeSchema.SEVERAL_SOURCES + ")");
        }
    }

    private long number(String query) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery(query)) {
            return result.next() ? result.getLong(1) : 0;
        }
    }

    private void load() throws SQLException {
        facts.clear();
        columns.clear();
        try (Statement statement = connection.createStatement()) {
            try (ResultSet result = statement.executeQuery("SELECT key, value FROM take")) {
                while (result.next()) {
                    facts.put(result.getString(1), result.getString(2));
                }
            }
            try (ResultSet result = statement.executeQuery("SELECT name, unit FROM channel_column ORDER BY id")) {
                while (result.next()) {
                    columns.add(new Column(result.getString(1), result.getString(2)));
                }
            }
        }
        several = number("PRAGMA user_version") == TakeSchema.SEVERAL_SOURCES;
        shares.clear();
        lastSeconds = 0;
        if (several) {
            try (Statement statement = connection.createStatement();
                    ResultSet result =
                            statement.executeQuery("SELECT name, first_column, columns FROM source ORDER BY id")) {
                while (result.next()) {
                    shares.add(share(result.getString(1), result.getInt(2) - 1, result.getInt(3)));
                }
            }
        } else {
            shares.add(share("", 0, columns.size()));
        }
    }

    private Share share(String name, int firstColumn, int count) throws SQLException {
        String blocks = TakeSchema.blocksOf(several, shares.size());
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery("SELECT first_row, rows, first_seconds, period_seconds FROM "
                        + blocks + " ORDER BY first_row DESC LIMIT 1")) {
            if (result.next()) {
                double[] seconds = new double[result.getInt(2)];
                blockTimes(shares.size(), result, seconds, 0);
                lastSeconds = Math.max(lastSeconds, seconds[seconds.length - 1]);
            }
        } catch (TakeException e) {
            throw new SQLException(e.getMessage(), e);
        }
        return new Share(name, firstColumn, count, number("SELECT coalesce(max(first_row + rows), 0) FROM " + blocks));
    }

    /** @return index of the source that a column is of */
    public int sourceOf(int column) {
        int source = 0;
        for (int s = 0; s < shares.size(); s++) {
            source = shares.get(s).columns() > 0 && column >= shares.get(s).firstColumn() ? s : source;
        }
        return source;
    }

    /** @return how many sources it was recorded from */
    public int sources() {
        return shares.size();
    }

    /** @return what a source was called; empty for the first */
    public String sourceName(int source) {
        return shares.get(source).name();
    }

    /** @return index of a source's first column */
    public int firstColumn(int source) {
        return shares.get(source).firstColumn();
    }

    private String blocksOfColumn(int column) {
        return TakeSchema.blocksOf(several, sourceOf(column));
    }

    private String fact(String key) {
        return facts.getOrDefault(key, "");
    }

    public Path file() {
        return file;
    }

    public String title() {
        return fact("title");
    }

    public String notes() {
        return fact("notes");
    }

    /** @return what was mended and what may be missing, in words; empty when nothing was */
    public String mended() {
        return fact("mended");
    }

    /** @return when the recording began, by the calendar of the computer that made it */
    public Instant started() {
        try {
            return Instant.parse(fact("started"));
        } catch (DateTimeParseException e) {
            return Instant.EPOCH;
        }
    }

    public List<Column> columns() {
        return List.copyOf(columns);
    }

    /** @return rows of all sources together */
    public long rows() {
        return shares.stream().mapToLong(Share::rows).sum();
    }

    /** @return rows of a source */
    public long rows(int source) {
        return shares.get(source).rows();
    }

    /** @return from the first row to the last, in s */
    public double seconds() {
        return lastSeconds;
    }

    /** @return the rig in force when it was recorded. @throws TakeException when it does not read */
    public Rig rig() throws TakeException {
        return RigJson.read(fact("rig"), file + ", its rig");
    }

    /** @return the values of a column, as they arrived; NaN where one is missing. Holds 8 bytes a row in memory */
    public double[] column(int index) throws TakeException {
        double[] values = new double[Math.toIntExact(rows(sourceOf(index)))];
        try (PreparedStatement query = connection.prepareStatement(
                "SELECT v.first_row, b.rows, v.width, v.divisor, v.base, v.data FROM block_values v " + "JOIN "
                        + blocksOfColumn(index) + " b USING (first_row) WHERE v.column_id = ? ORDER BY v.first_row")) {
            query.setInt(1, index + 1);
            try (ResultSet result = query.executeQuery()) {
                while (result.next()) {
                    packed(result, 3).unpack(values, result.getInt(1), result.getInt(2));
                }
            }
            return values;
        } catch (SQLException e) {
            throw damaged(e);
        }
    }

    private static Packed packed(ResultSet result, int at) throws SQLException {
        return new Packed(result.getInt(at), result.getDouble(at + 1), result.getLong(at + 2), result.getBytes(at + 3));
    }

    /** @return the time of each row of the first source, in s from the take's first */
    public double[] times() throws TakeException {
        return times(0);
    }

    /** @return the time of each row of a source, in s from the take's first */
    public double[] times(int source) throws TakeException {
        double[] times = new double[Math.toIntExact(rows(source))];
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery("SELECT first_row, rows, first_seconds, period_seconds FROM "
                        + TakeSchema.blocksOf(several, source) + " ORDER BY first_row")) {
            while (result.next()) {
                blockTimes(source, result, times, result.getInt(1));
            }
            return times;
        } catch (SQLException e) {
            throw damaged(e);
        }
    }

    private void blockTimes(int source, ResultSet block, double[] into, int offset) throws SQLException, TakeException {
        int count = block.getInt(2);
        double first = block.getDouble(3);
        double period = block.getDouble(4);
        if (!block.wasNull()) {
            for (int row = 0; row < count; row++) {
                into[offset + row] = first + row * period;
            }
            return;
        }
        try (PreparedStatement query = connection.prepareStatement(
                "SELECT width, divisor, base, data FROM block_values WHERE column_id = ? AND first_row = ?")) {
            query.setInt(1, TakeSchema.timesOf(source));
            query.setLong(2, block.getLong(1));
            try (ResultSet result = query.executeQuery()) {
                if (!result.next()) {
                    throw new TakeException(file + ": the times of row " + block.getLong(1) + " are missing");
                }
                packed(result, 1).unpack(into, offset, count);
            }
        }
    }

    /** @return the gaps of the first source */
    public List<Gap> gaps() throws TakeException {
        return gaps(0);
    }

    /** @return the gaps of a source */
    public List<Gap> gaps(int source) throws TakeException {
        List<Gap> gaps = new ArrayList<>();
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery("SELECT start_seconds, end_seconds, missing FROM gap "
                        + (several ? "WHERE source = " + source + " " : "") + "ORDER BY start_seconds")) {
            while (result.next()) {
                gaps.add(new Gap(result.getDouble(1), result.getDouble(2), result.getLong(3)));
            }
            return gaps;
        } catch (SQLException e) {
            throw damaged(e);
        }
    }

    public List<Mark> marks() throws TakeException {
        List<Mark> marks = new ArrayList<>();
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery("SELECT seconds, text FROM mark ORDER BY seconds, id")) {
            while (result.next()) {
                marks.add(new Mark(result.getDouble(1), result.getString(2)));
            }
            return marks;
        } catch (SQLException e) {
            throw damaged(e);
        }
    }

    /** @return the changes made by hand to the events of its readers, by the reader, in the order they were made */
    public Map<String, List<HandEdit>> edits() throws TakeException {
        Map<String, List<HandEdit>> edits = new HashMap<>();
        try (Statement statement = connection.createStatement()) {
            if (!TakeSchema.hasTable(statement, TakeSchema.EDITS)) {
                return edits;
            }
            try (ResultSet result =
                    statement.executeQuery("SELECT reader, put_in, seconds FROM hand_edit ORDER BY id")) {
                while (result.next()) {
                    edits.computeIfAbsent(result.getString(1), key -> new ArrayList<>())
                            .add(new HandEdit(result.getInt(2) != 0, result.getDouble(3)));
                }
            }
            return edits;
        } catch (SQLException | IllegalArgumentException e) {
            throw new TakeException(file + " is damaged: " + e.getMessage(), e);
        }
    }

    /** Keeps the changes made by hand to the events of a reader, in the place of those before. */
    public void edit(String reader, List<HandEdit> edits) throws TakeException {
        try (Statement statement = connection.createStatement()) {
            statement.execute(TakeSchema.CREATE_EDITS);
            connection.setAutoCommit(false);
            try (PreparedStatement delete = connection.prepareStatement("DELETE FROM hand_edit WHERE reader = ?");
                    PreparedStatement insert = connection.prepareStatement(
                            "INSERT INTO hand_edit (reader, put_in, seconds) VALUES (?, ?, ?)")) {
                delete.setString(1, reader);
                delete.executeUpdate();
                for (HandEdit edit : edits) {
                    insert.setString(1, reader);
                    insert.setInt(2, edit.in() ? 1 : 0);
                    insert.setDouble(3, edit.seconds());
                    insert.executeUpdate();
                }
            }
            connection.commit();
        } catch (SQLException e) {
            throw new TakeException(file + " cannot keep the change: " + e.getMessage(), e);
        }
    }

    /** @return lowest and highest of each cell of a column, in turn: at most so many cells, of a long take few of them */
    public double[] overview(int column, int mostCells) throws TakeException {
        long rows = rows(sourceOf(column));
        if (rows <= (long) TakeSchema.CELL * mostCells * 2) {
            return extremes(column(column), mostCells);
        }
        int level = 1;
        long cells = (rows + TakeSchema.CELL - 1) / TakeSchema.CELL;
        while (cells > mostCells && level < TakeSchema.LEVELS) {
            cells = (cells + TakeSchema.FAN - 1) / TakeSchema.FAN;
            level++;
        }
        double[] extremes = new double[Math.toIntExact(2 * cells)];
        try (PreparedStatement query = connection.prepareStatement(
                "SELECT first_cell, data FROM pyramid WHERE column_id = ? AND level = ? ORDER BY first_cell")) {
            query.setInt(1, column + 1);
            query.setInt(2, level);
            try (ResultSet result = query.executeQuery()) {
                while (result.next()) {
                    ByteBuffer data = ByteBuffer.wrap(result.getBytes(2)).order(ByteOrder.LITTLE_ENDIAN);
                    for (int i = 2 * result.getInt(1); data.hasRemaining() && i < extremes.length; i++) {
                        extremes[i] = data.getDouble();
                    }
                }
            }
            return extremes;
        } catch (SQLException e) {
            throw damaged(e);
        }
    }

    private static double[] extremes(double[] values, int mostCells) {
        int cells = Math.min(mostCells, values.length);
        double[] extremes = new double[2 * cells];
        java.util.Arrays.fill(extremes, Double.NaN);
        for (int i = 0; i < values.length; i++) {
            int low = 2 * (int) ((long) i * cells / values.length);
            extremes[low] = values[i] >= extremes[low] || Double.isNaN(values[i]) ? extremes[low] : values[i];
            extremes[low + 1] =
                    values[i] <= extremes[low + 1] || Double.isNaN(values[i]) ? extremes[low + 1] : values[i];
        }
        return extremes;
    }

    /** Changes the title. */
    public void rename(String title) throws TakeException {
        if (title.isBlank()) {
            throw new TakeException("a take needs a name");
        }
        try (PreparedStatement update =
                connection.prepareStatement("INSERT OR REPLACE INTO take VALUES ('title', ?)")) {
            update.setString(1, title.strip());
            update.executeUpdate();
            facts.put("title", title.strip());
        } catch (SQLException e) {
            throw new TakeException(file + " cannot be renamed: " + e.getMessage(), e);
        }
    }

    private TakeException damaged(SQLException e) {
        return new TakeException(file + " is damaged: " + e.getMessage(), e);
    }

    @Override
    public void close() throws TakeException {
        try {
            connection.close();
        } catch (SQLException e) {
            throw new TakeException(file + " could not be closed: " + e.getMessage(), e);
        }
    }
}
