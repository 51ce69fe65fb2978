package zesty.signal.takes;

import java.io.IOException;
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
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Gap;

/**
 * A stored take, open for reading. A take whose recording broke off is mended when it is opened, and says so; where its
 * folder may only be read, a copy is. What of it does not check is left out, piece by piece, and told by {@link #damage}.
 * One thread.
 */
public final class Take implements AutoCloseable {
    /** Rows in each of {@link #cells}. */
    public static final int CELL = TakeSchema.CELL;

    /** A table of columns that says it has more is damaged. */
    private static final int MOST_COLUMNS = 100_000;

    private final Path file;
    private final Connection connection;
    /** Where the take was copied to because it could not be mended where it is; null where it was not. */
    private final Path copy;

    private final boolean readOnly;
    private final Map<String, String> facts = new HashMap<>();
    private final List<Column> columns = new ArrayList<>();
    private final List<Share> shares = new ArrayList<>();
    private final Damage damage = new Damage();
    private boolean several;
    private boolean checked;
    private boolean counted;
    private double lastSeconds;

    /** What a source has of the take; its columns count from 0. */
    private record Share(String name, int firstColumn, int columns, TakeRows rows) {}

    private Take(Path file, Connection connection, Path copy, boolean readOnly) {
        this.file = file;
        this.connection = connection;
        this.copy = copy;
        this.readOnly = readOnly;
    }

    /**
     * Opens a take, and mends it if its recording broke off.
     *
     * @throws TakeException when it is no take, of a later version, still being recorded by another process, or damaged
     *     so that nothing of it can be read
     */
    public static Take open(Path file) throws TakeException {
        Path folder = file.toAbsolutePath().getParent();
        return open(file, Files.isWritable(file) && Files.isWritable(folder));
    }

    /** @param writable whether the take and its folder may be written to */
    static Take open(Path file, boolean writable) throws TakeException {
        if (!Files.isRegularFile(file)) {
            throw new TakeException(file + DiskWords.absent(file) + (Files.isDirectory(file) ? ", no take" : ""));
        }
        Take take = null;
        Path copy = null;
        try {
            Path at = file;
            if (!writable && unfinished(file)) {
                copy = TakeCopy.of(file);
                at = copy;
            }
            String how = writable || copy != null ? "" : "?immutable=1";
            take = new Take(file, TakeSchema.connect(at, how), copy, !writable);
            take.check();
            take.load();
            if (take.fact("state").equals("recording")) {
                if (ProcessMark.runs(take.fact("process"))) {
                    throw new TakeException(file + " is still being recorded; stop the recording first");
                }
                new TakeRepair(take.connection, take.checked).mend(take);
                take.load();
            }
            return take;
        } catch (SQLException e) {
            closeQuietly(take, copy);
            throw new TakeException(file + " is no take, or cannot be read: " + DiskWords.of(e), e);
        } catch (IOException e) {
            closeQuietly(take, copy);
            throw e instanceof TakeException said
                    ? said
                    : new TakeException(file + " cannot be opened: " + DiskWords.of(e), e);
        }
    }

    /** Whether there is something to be mended before it can be read whole. */
    private static boolean unfinished(Path file) throws SQLException, IOException {
        Path log = file.resolveSibling(file.getFileName() + "-wal");
        if (Files.exists(log) && Files.size(log) > 0) {
            return true;
        }
        try (Connection looked = TakeSchema.connect(file, "?immutable=1");
                Statement statement = looked.createStatement();
                ResultSet result = statement.executeQuery("SELECT value FROM take WHERE key = 'state'")) {
            return result.next() && "recording".equals(result.getString(1));
        }
    }

    private static void closeQuietly(Take take, Path copy) {
        try {
            if (take != null) {
                take.close();
            } else {
                TakeCopy.delete(copy);
            }
        } catch (TakeException e) {
            // The first error is the one to tell.
        }
    }

    private void check() throws SQLException, TakeException {
        if (number("SELECT count(*) FROM sqlite_master") == 0) {
            throw new TakeException(
                    file + " holds nothing: it is empty, or its recording ended before the first row was saved");
        }
        if (number("PRAGMA application_id") != TakeSchema.APPLICATION_ID) {
            throw new TakeException(file + " is no take; a take ends in .zest and is made by recording or importing");
        }
        long version = number("PRAGMA user_version");
        if (version > TakeSchema.VERSION) {
            throw new TakeException(file + " was written by a later version (format " + version
                    + ", this one reads up to " + TakeSchema.VERSION + ")");
        }
        checked = version >= TakeSchema.CHECKED;
        counted = version >= TakeSchema.COUNTED;
        try (Statement statement = connection.createStatement()) {
            // What a take does not have could compute without end, or stand for something else.
            statement.execute("PRAGMA trusted_schema = OFF");
            several = TakeSchema.hasTable(statement, "source");
            String missing = TakeSchema.missing(statement);
            if (missing != null) {
                throw new TakeException(file + " is damaged or no take: " + missing);
            }
        }
    }

    private long number(String query) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery(query)) {
            return result.next() ? result.getLong(1) : 0;
        }
    }

    @FunctionalInterface
    private interface RowReader {
        /** @param check the row's checksum as it is stored */
        void read(ResultSet row, long check) throws SQLException;
    }

    /** Reads a table row by row; what cannot be read any more is told. */
    private void each(String table, String cells, String order, RowReader reader) {
        String sql = "SELECT " + cells + ", " + (checked ? "check_sum" : "0") + " AS sum FROM " + table + order;
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery(sql)) {
            while (result.next()) {
                reader.read(result, result.getLong("sum"));
            }
        } catch (SQLException e) {
            damage.tell("a part of its table " + table + " cannot be read");
        }
    }

    private boolean right(long check, Object... cells) {
        return !checked || check == Checks.of(cells);
    }

    private void load() {
        facts.clear();
        columns.clear();
        Map<String, Tally.Count> said = counted ? Tally.read(connection, damage) : Map.of();
        if (counted) {
            Tally.compare(connection, said, several, damage);
        }
        each("take", "key, value", "", (row, check) -> {
            String key = row.getString(1);
            String value = row.getString(2);
            if (right(check, key, value)) {
                facts.put(key, value);
            } else {
                damage.tell("its " + key + " does not check");
            }
        });
        each("channel_column", "id, name, unit", " ORDER BY id", (row, check) -> {
            // Columns whose names are gone still have their numbers.
            unnamed(Math.min(row.getInt(1) - 1, MOST_COLUMNS));
            if (right(check, row.getInt(1), row.getString(2), row.getString(3))
                    && row.getString(2) != null
                    && row.getString(3) != null) {
                columns.add(new Column(row.getString(2), row.getString(3)));
            } else {
                columns.add(new Column("column" + (columns.size() + 1), ""));
                damage.tell("the name of column " + columns.size() + " does not check");
            }
        });
        if (said.containsKey("channel_column")) {
            unnamed((int) Math.min(said.get("channel_column").rows(), MOST_COLUMNS));
        }
        closeRows();
        lastSeconds = 0;
        if (several) {
            each("source", "id, name, first_column, columns", " ORDER BY id", (row, check) -> {
                int first = row.getInt(3) - 1;
                int count = row.getInt(4);
                boolean fits = first >= 0 && count >= 0 && (long) first + count <= columns.size();
                if (fits && right(check, row.getInt(1), row.getString(2), first + 1, count)) {
                    share(row.getString(2), first, count);
                } else {
                    share("source" + (shares.size() + 1), columns.size(), 0);
                    damage.tell(
                            "source " + (shares.size()) + " is lost: what says which columns it has does not check");
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
                damage.tell("of " + due.rows() + " rows that were recorded " + there + " are there");
            } else if (due == null && counted) {
                damage.tell("what says how many rows were recorded is not there");
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
        long bytes;
        try {
            bytes = Files.size(copy == null ? file : copy);
            Path log = (copy == null ? file : copy).resolveSibling((copy == null ? file : copy).getFileName() + "-wal");
            bytes += Files.exists(log) ? Files.size(log) : 0;
        } catch (IOException e) {
            bytes = Long.MAX_VALUE;
        }
        TakeRows rows = new TakeRows(connection, several, checked, shares.size(), bytes, damage);
        lastSeconds = Math.max(lastSeconds, rows.lastSeconds());
        shares.add(new Share(name, firstColumn, count, rows));
    }

    private void closeRows() {
        shares.forEach(share -> share.rows().close());
        shares.clear();
    }

    /** @return what does not check, as far as it was read by now, in words; empty where all does */
    public List<String> damage() {
        return damage.words();
    }

    /** Reads all of it once, so that {@link #damage} tells everything. */
    public void verify() {
        for (int c = 0; c < columns.size(); c++) {
            Share share = shares.get(sourceOf(c));
            for (int piece = 0; piece < share.rows().pieces(); piece++) {
                values(c, piece);
            }
        }
        marksRead();
        for (int s = 0; s < shares.size(); s++) {
            gaps(s);
        }
    }

    /** @return whether it can only be read, since its folder may not be written to */
    public boolean readOnly() {
        return readOnly;
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
        return shares.stream().mapToLong(share -> share.rows().rows()).sum();
    }

    /** @return rows of a source */
    public long rows(int source) {
        return shares.get(source).rows().rows();
    }

    /** @return from the first row to the last, in s */
    public double seconds() {
        return lastSeconds;
    }

    /** @return the rig in force when it was recorded. @throws TakeException when it does not read */
    public Rig rig() throws TakeException {
        if (!facts.containsKey("rig")) {
            throw new TakeException(file + ": its rig cannot be read, so only the raw numbers are here");
        }
        return RigJson.read(fact("rig"), file + ", its rig");
    }

    /** @return the rig it was recorded with; where that does not read, one that takes every column as it came */
    public Rig rigOrPlain() {
        try {
            return rig();
        } catch (TakeException e) {
            damage.tell("its rig cannot be read, so its raw numbers are shown");
        }
        Rig plain = Rig.blank(title(), "stdin");
        for (int s = 0; s < sources(); s++) {
            String prefix = s == 0 ? "" : sourceName(s) + "/";
            List<Column> own = new ArrayList<>();
            for (Column column : columns.subList(
                    firstColumn(s), firstColumn(s) + shares.get(s).columns())) {
                own.add(new Column(
                        column.name().substring(column.name().startsWith(prefix) ? prefix.length() : 0),
                        column.unit()));
            }
            plain = s == 0 ? plain : plain.joined(sourceName(s), SourceSetup.at("stdin"));
            plain = own.isEmpty() ? plain : plain.fittedTo(s, new DelimitedFormat(',', false, false, "", own, null));
        }
        return plain;
    }

    /** @return the values of a column, as they arrived; NaN where one is missing. Holds 8 bytes a row in memory */
    public double[] column(int index) throws TakeException {
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
            throw new TakeException(file + " has " + rows + " rows; more than 2147483639 cannot be worked on at once");
        }
        return (int) rows;
    }

    /** @return into how many pieces the rows of a source were written */
    public int pieces(int source) {
        return shares.get(source).rows().pieces();
    }

    /** @return index of a piece's first row among the rows of its source */
    public long rowOf(int source, int piece) {
        return shares.get(source).rows().rowOf(piece);
    }

    /** @return the time of a piece's first row, in s from the take's first */
    public double firstSeconds(int source, int piece) {
        return shares.get(source).rows().firstSeconds(piece);
    }

    /** @return seconds from row to row within a piece; NaN where each row has a time of its own */
    public double periodSeconds(int source, int piece) {
        return shares.get(source).rows().periodSeconds(piece);
    }

    /** @return the values of a column in one piece; NaN where one is missing */
    public double[] values(int column, int piece) {
        return shares.get(sourceOf(column))
                .rows()
                .values(piece, column + 1, columns.get(column).name());
    }

    /** @return the times of one piece of a source, in s from the take's first row */
    public double[] times(int source, int piece) {
        return shares.get(source).rows().times(piece);
    }

    /** @return the time of each row of the first source, in s from the take's first */
    public double[] times() throws TakeException {
        return times(0);
    }

    /** @return the time of each row of a source, in s from the take's first */
    public double[] times(int source) throws TakeException {
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

    /** @return the gaps of the first source */
    public List<Gap> gaps() {
        return gaps(0);
    }

    /** @return the gaps of a source, with those that damage has made */
    public List<Gap> gaps(int source) {
        List<Gap> gaps = new ArrayList<>(shares.get(source).rows().lost());
        String of = several ? " WHERE source = " + source : "";
        each("gap", "start_seconds, end_seconds, missing", of + " ORDER BY start_seconds", (row, check) -> {
            double start = row.getDouble(1);
            double end = row.getDouble(2);
            long missing = row.getLong(3);
            if (right(check, source, start, end, missing) && start <= end && missing >= 0) {
                gaps.add(new Gap(start, end, missing));
            } else {
                damage.tell("a gap does not check and is left out");
            }
        });
        gaps.sort(Comparator.comparingDouble(Gap::startSeconds));
        return gaps;
    }

    public List<Mark> marks() {
        return marksRead();
    }

    private List<Mark> marksRead() {
        List<Mark> marks = new ArrayList<>();
        each("mark", "seconds, text", " ORDER BY seconds, id", (row, check) -> {
            if (right(check, row.getDouble(1), row.getString(2)) && row.getString(2) != null) {
                marks.add(new Mark(row.getDouble(1), row.getString(2)));
            } else {
                damage.tell("a mark does not check and is left out");
            }
        });
        return marks;
    }

    /** @return the changes made by hand to the events of its readers, by the reader, in the order they were made */
    public Map<String, List<HandEdit>> edits() {
        Map<String, List<HandEdit>> edits = new HashMap<>();
        try (Statement statement = connection.createStatement()) {
            if (!TakeSchema.hasTable(statement, TakeSchema.EDITS)) {
                return edits;
            }
            Tally.Count there = new Tally.Count(0, 0);
            try (ResultSet result =
                    statement.executeQuery("SELECT reader, put_in, seconds FROM hand_edit ORDER BY id")) {
                while (result.next()) {
                    there = there.plus(Checks.of(result.getString(1), result.getInt(2), result.getDouble(3)));
                    edits.computeIfAbsent(result.getString(1), key -> new ArrayList<>())
                            .add(new HandEdit(result.getInt(2) != 0, result.getDouble(3)));
                }
            }
            Tally.Count due = counted ? Tally.read(connection, damage).get(TakeSchema.EDITS) : null;
            if (due != null && !due.equals(there)) {
                damage.tell(
                        "of " + due.rows() + " changes made by hand " + there.rows() + " are there as they were made");
            }
            return edits;
        } catch (SQLException | IllegalArgumentException e) {
            damage.tell("a part of the changes made by hand cannot be read");
            return edits;
        }
    }

    private void changeable(String what) throws TakeException {
        if (readOnly) {
            throw new TakeException(
                    file + " lies where nothing can be written, so " + what + " cannot be saved; copy the take first");
        }
    }

    /** Keeps the changes made by hand to the events of a reader, in the place of those before. */
    public void edit(String reader, List<HandEdit> edits) throws TakeException {
        changeable("a change made by hand");
        try {
            connection.setAutoCommit(false);
            try (Statement statement = connection.createStatement()) {
                statement.execute(TakeSchema.CREATE_EDITS);
                put(reader, edits);
                connection.commit();
            } catch (SQLException e) {
                connection.rollback();
                throw e;
            } finally {
                connection.setAutoCommit(true);
            }
        } catch (SQLException e) {
            throw new TakeException(file + " cannot keep the change: " + DiskWords.of(e), e);
        }
    }

    private void put(String reader, List<HandEdit> edits) throws SQLException {
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
        if (!counted) {
            return;
        }
        Tally.Count all = new Tally.Count(0, 0);
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery("SELECT reader, put_in, seconds FROM hand_edit")) {
            while (result.next()) {
                all = all.plus(Checks.of(result.getString(1), result.getInt(2), result.getDouble(3)));
            }
        }
        Tally.put(connection, TakeSchema.EDITS, all);
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
        return pyramid(column, level, Math.toIntExact(cells));
    }

    /**
     * @return lowest and highest of each {@link #CELL} rows of a column, in turn, as they were kept while it was recorded:
     *     NaN where they were not or do not check; empty where rows are lost, for then it is not known whose they are
     */
    public double[] cells(int column) {
        int source = sourceOf(column);
        return shares.get(source).rows().lost().isEmpty()
                ? pyramid(column, 1, (int) ((rows(source) + CELL - 1) / CELL))
                : new double[0];
    }

    private double[] pyramid(int column, int level, int cells) {
        double[] extremes = new double[2 * cells];
        java.util.Arrays.fill(extremes, Double.NaN);
        try (PreparedStatement query =
                connection.prepareStatement("SELECT first_cell, data, " + (checked ? "check_sum" : "0")
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
                            || !right(result.getLong(3), column + 1, level, first, stored)) {
                        damage.tell("a part of the small drawing of "
                                + columns.get(column).name() + " does not check");
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
            damage.tell("a part of the small drawing of " + columns.get(column).name() + " cannot be read");
        }
        return extremes;
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
        changeable("a new name");
        try {
            TakeFacts.put(connection, checked, "title", title.strip());
            facts.put("title", title.strip());
        } catch (SQLException e) {
            throw new TakeException(file + " cannot be renamed: " + DiskWords.of(e), e);
        }
    }

    @Override
    public void close() throws TakeException {
        closeRows();
        try {
            connection.close();
        } catch (SQLException e) {
            throw new TakeException(file + " could not be closed: " + DiskWords.of(e), e);
        } finally {
            TakeCopy.delete(copy);
        }
    }
}
