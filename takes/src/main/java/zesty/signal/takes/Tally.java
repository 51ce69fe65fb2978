package zesty.signal.takes;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import zesty.signal.core.text.Messages;

/**
 * How many rows each table of a take has and what their checksums add up to, written in the same transaction as they are:
 * a row that is gone has no checksum that could fail. One thread.
 */
final class Tally {
    static final String TABLE = "tally";
    static final String CREATE = "CREATE TABLE tally (name TEXT PRIMARY KEY, rows INTEGER NOT NULL, "
            + "total INTEGER NOT NULL, check_sum INTEGER NOT NULL) WITHOUT ROWID";

    /** Tables that are read whole when a take is opened. */
    private static final List<String> SMALL = List.of(
            "take", "channel_column", "source", "block", "mark", "gap", TakeSchema.MARK_ENDS, DecisionTable.NAME);

    /** @param rows of a table, or of a source. @param total of their checksums; 0 of a source */
    record Count(long rows, long total) {
        Count plus(long check) {
            return new Count(rows + 1, total + check);
        }
    }

    private final Connection connection;
    private final Map<String, Count> counts = new LinkedHashMap<>();
    private final Map<String, Count> written = new HashMap<>();

    Tally(Connection connection) {
        this.connection = connection;
    }

    /** @return under what a source's rows are counted */
    static String rowsOf(int source) {
        return "rows " + source;
    }

    /** A row with that checksum was written to the table. */
    void add(String table, long check) {
        counts.put(table, counts.getOrDefault(table, new Count(0, 0)).plus(check));
    }

    /** A source has so many rows. */
    void rows(int source, long rows) {
        counts.put(rowsOf(source), new Count(rows, 0));
    }

    /** Writes what has changed, into the transaction at hand. */
    void write() throws SQLException {
        for (Map.Entry<String, Count> one : counts.entrySet()) {
            if (!one.getValue().equals(written.get(one.getKey()))) {
                put(connection, one.getKey(), one.getValue());
                written.put(one.getKey(), one.getValue());
            }
        }
    }

    /** Counts a table anew, in whose rows something was changed. */
    void renew(String table) throws SQLException {
        counts.put(table, counted(connection, table));
    }

    /** Counts a table anew and writes it, where the take keeps counts. */
    static void renew(Connection connection, String table) throws SQLException {
        if (kept(connection)) {
            put(connection, table, counted(connection, table));
        }
    }

    static boolean kept(Connection connection) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            return TakeSchema.hasTable(statement, TABLE);
        }
    }

    static void put(Connection connection, String name, Count count) throws SQLException {
        try (PreparedStatement insert =
                connection.prepareStatement("INSERT OR REPLACE INTO tally VALUES (?, ?, ?, ?)")) {
            insert.setString(1, name);
            insert.setLong(2, count.rows());
            insert.setLong(3, count.total());
            insert.setLong(4, Checks.of(name, count.rows(), count.total()));
            insert.executeUpdate();
        }
    }

    private static Count counted(Connection connection, String table) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet result =
                        statement.executeQuery("SELECT count(*), coalesce(sum(check_sum), 0) FROM " + table)) {
            return result.next() ? new Count(result.getLong(1), result.getLong(2)) : new Count(0, 0);
        }
    }

    /** @return what a take says of its tables and sources; what does not check of it is told and left out */
    static Map<String, Count> read(Connection connection, Damage damage) {
        Map<String, Count> counts = new HashMap<>();
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery("SELECT name, rows, total, check_sum FROM tally")) {
            while (result.next()) {
                Count count = new Count(result.getLong(2), result.getLong(3));
                String name = result.getString(1);
                if (name != null && result.getLong(4) == Checks.of(name, count.rows(), count.total())) {
                    counts.put(name, count);
                } else {
                    damage.tell(Messages.of("takes.what-says-how-many-rows-its-table", name));
                }
            }
        } catch (SQLException e) {
            damage.tell(Messages.of("takes.what-says-how-many-rows-it-has"));
        }
        return counts;
    }

    /** Holds the tables against what is said of them, and tells where rows are gone, or are too many. */
    static void compare(Connection connection, Map<String, Count> said, boolean several, Damage damage) {
        for (String table : SMALL) {
            boolean optional = table.equals("source") && !several
                    || (table.equals(TakeSchema.MARK_ENDS) || table.equals(DecisionTable.NAME))
                            && !said.containsKey(table);
            if (optional) {
                continue;
            }
            Count due = said.get(table);
            if (due == null) {
                damage.tell(Messages.of("takes.what-says-how-many-rows-its-table-2", table));
                continue;
            }
            try {
                Count there = counted(connection, table);
                if (there.rows() != due.rows()) {
                    damage.tell(Messages.of("takes.of-rows-of-its-table-are-there", due.rows(), table, there.rows()));
                } else if (there.total() != due.total()) {
                    damage.tell(Messages.of("takes.the-rows-of-its-table-are-not", table));
                }
            } catch (SQLException e) {
                damage.tell(Messages.of("takes.a-part-of-its-table-cannot-be-read", table));
            }
        }
    }
}
