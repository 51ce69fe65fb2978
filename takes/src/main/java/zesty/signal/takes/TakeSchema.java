package zesty.signal.takes;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import zesty.signal.core.text.Messages;

/**
 * The tables of a take: version 4, whose rows are counted. In version 3 each row carries a checksum, but nobody counts
 * them; versions 1 (one source) and 2 (several) had neither.
 * See docs/TAKE-FORMAT.md.
 */
final class TakeSchema {
    /** The bytes "ZEST". */
    static final int APPLICATION_ID = 0x5A455354;

    static final int VERSION = 4;
    /** From this version on rows carry checksums. */
    static final int CHECKED = 3;
    /** From this version on rows are counted. */
    static final int COUNTED = 4;

    /** Rows in a cell of pyramid level 1; each level above holds 16 times as many. */
    static final int CELL = 1024;

    static final int FAN = 16;
    static final int LEVELS = 3;

    private static final List<String> TABLES = List.of(
            "CREATE TABLE take (key TEXT PRIMARY KEY, value TEXT NOT NULL, check_sum INTEGER NOT NULL) WITHOUT ROWID",
            "CREATE TABLE channel_column (id INTEGER PRIMARY KEY, name TEXT NOT NULL, unit TEXT NOT NULL, "
                    + "check_sum INTEGER NOT NULL)",
            "CREATE TABLE block_values (first_row INTEGER NOT NULL, column_id INTEGER NOT NULL, width INTEGER NOT NULL, "
                    + "divisor REAL NOT NULL, base INTEGER NOT NULL, data BLOB NOT NULL, "
                    + "check_sum INTEGER NOT NULL, PRIMARY KEY (column_id, first_row)) WITHOUT ROWID",
            "CREATE TABLE mark (id INTEGER PRIMARY KEY, seconds REAL NOT NULL, text TEXT NOT NULL, "
                    + "check_sum INTEGER NOT NULL)",
            "CREATE TABLE pyramid (column_id INTEGER NOT NULL, level INTEGER NOT NULL, first_cell INTEGER NOT NULL, "
                    + "data BLOB NOT NULL, check_sum INTEGER NOT NULL, PRIMARY KEY (column_id, level, first_cell)) WITHOUT ROWID");

    private static final List<String> ONE = List.of(
            "CREATE TABLE block (first_row INTEGER PRIMARY KEY, rows INTEGER NOT NULL, first_seconds REAL NOT NULL, "
                    + "period_seconds REAL, check_sum INTEGER NOT NULL)",
            "CREATE TABLE gap (id INTEGER PRIMARY KEY, start_seconds REAL NOT NULL, end_seconds REAL NOT NULL, "
                    + "missing INTEGER NOT NULL, check_sum INTEGER NOT NULL)");

    private static final List<String> SEVERAL = List.of(
            "CREATE TABLE source (id INTEGER PRIMARY KEY, name TEXT NOT NULL, first_column INTEGER NOT NULL, "
                    + "columns INTEGER NOT NULL, check_sum INTEGER NOT NULL)",
            "CREATE TABLE block (source INTEGER NOT NULL, first_row INTEGER NOT NULL, rows INTEGER NOT NULL, "
                    + "first_seconds REAL NOT NULL, period_seconds REAL, check_sum INTEGER NOT NULL, "
                    + "PRIMARY KEY (source, first_row)) WITHOUT ROWID",
            "CREATE TABLE gap (id INTEGER PRIMARY KEY, source INTEGER NOT NULL, start_seconds REAL NOT NULL, "
                    + "end_seconds REAL NOT NULL, missing INTEGER NOT NULL, check_sum INTEGER NOT NULL)");

    /** Only a take with changes made by hand has this table; who does not know it loses nothing else. */
    static final String EDITS = "hand_edit";

    static final String CREATE_EDITS = "CREATE TABLE IF NOT EXISTS hand_edit (id INTEGER PRIMARY KEY, "
            + "reader TEXT NOT NULL, put_in INTEGER NOT NULL, seconds REAL NOT NULL)";

    /** Only a take with marks over spans has this table: where they end, by the mark's id. */
    static final String MARK_ENDS = "mark_end";

    static final String CREATE_MARK_ENDS = "CREATE TABLE IF NOT EXISTS mark_end (mark INTEGER PRIMARY KEY, "
            + "seconds REAL NOT NULL, check_sum INTEGER NOT NULL)";

    static final String INSERT_MARK_END = "INSERT INTO mark_end (mark, seconds, check_sum) VALUES (?, ?, ?)";

    private TakeSchema() {}

    static boolean hasTable(Statement statement, String name) throws SQLException {
        try (ResultSet result =
                statement.executeQuery("SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = '" + name + "'")) {
            return result.next();
        }
    }

    /** @return which table is not one of its own, in words; null when all are */
    static String missing(Statement statement) throws SQLException {
        for (String table : List.of("take", "channel_column", "block", "block_values", "mark", "gap", "pyramid")) {
            if (!hasTable(statement, table)) {
                return Messages.of("takes.its-table-is-not-there-or-is-none", table);
            }
        }
        try (ResultSet others = statement.executeQuery(
                "SELECT name FROM sqlite_master WHERE type IN ('view', 'trigger') OR sql LIKE '%VIRTUAL%' LIMIT 1")) {
            return others.next() ? Messages.of("takes.it-holds-a-which-no-take-has", others.getString(1)) : null;
        }
    }

    /** @return the column under which the times of a source are kept */
    static int timesOf(int source) {
        return -source;
    }

    static Connection connect(Path file) throws SQLException {
        return connect(file, "");
    }

    /** @param how what else the database is to be told, as {@code ?key=value} */
    static Connection connect(Path file, String how) throws SQLException {
        // As an address of a file, whose signs are written out, no name can be taken for options.
        return DriverManager.getConnection(
                "jdbc:sqlite:" + file.toAbsolutePath().toUri().toASCIIString() + how);
    }

    /** Makes the tables; what is there is not there before the connection commits, so that half a take is never found. */
    static void create(Connection connection, boolean several) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            statement.execute("PRAGMA journal_mode = WAL");
            statement.execute("PRAGMA synchronous = NORMAL");
            connection.setAutoCommit(false);
            statement.execute("PRAGMA application_id = " + APPLICATION_ID);
            statement.execute("PRAGMA user_version = " + VERSION);
            for (String table : TABLES) {
                statement.execute(table);
            }
            statement.execute(Tally.CREATE);
            for (String table : several ? SEVERAL : ONE) {
                statement.execute(table);
            }
        }
    }
}
