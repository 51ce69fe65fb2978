package zesty.signal.takes;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;

/** The tables of a take, version 1. See docs/TAKE-FORMAT.md. */
final class TakeSchema {
    /** The bytes "ZEST". */
    static final int APPLICATION_ID = 0x5A455354;

    static final int VERSION = 1;

    /** Rows in a cell of pyramid level 1; each level above holds 16 times as many. */
    static final int CELL = 1024;

    static final int FAN = 16;
    static final int LEVELS = 3;

    private static final List<String> TABLES = List.of(
            "CREATE TABLE take (key TEXT PRIMARY KEY, value TEXT NOT NULL) WITHOUT ROWID",
            "CREATE TABLE channel_column (id INTEGER PRIMARY KEY, name TEXT NOT NULL, unit TEXT NOT NULL)",
            "CREATE TABLE block (first_row INTEGER PRIMARY KEY, rows INTEGER NOT NULL, first_seconds REAL NOT NULL, "
                    + "period_seconds REAL)",
            "CREATE TABLE block_values (first_row INTEGER NOT NULL, column_id INTEGER NOT NULL, width INTEGER NOT NULL, "
                    + "divisor REAL NOT NULL, base INTEGER NOT NULL, data BLOB NOT NULL, "
                    + "PRIMARY KEY (column_id, first_row)) WITHOUT ROWID",
            "CREATE TABLE mark (id INTEGER PRIMARY KEY, seconds REAL NOT NULL, text TEXT NOT NULL)",
            "CREATE TABLE gap (id INTEGER PRIMARY KEY, start_seconds REAL NOT NULL, end_seconds REAL NOT NULL, "
                    + "missing INTEGER NOT NULL)",
            "CREATE TABLE pyramid (column_id INTEGER NOT NULL, level INTEGER NOT NULL, first_cell INTEGER NOT NULL, "
                    + "data BLOB NOT NULL, PRIMARY KEY (column_id, level, first_cell)) WITHOUT ROWID");

    private TakeSchema() {}

    static Connection connect(Path file) throws SQLException {
        return DriverManager.getConnection("jdbc:sqlite:" + file.toAbsolutePath());
    }

    static void create(Connection connection) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            statement.execute("PRAGMA application_id = " + APPLICATION_ID);
            statement.execute("PRAGMA user_version = " + VERSION);
            statement.execute("PRAGMA journal_mode = WAL");
            statement.execute("PRAGMA synchronous = NORMAL");
            for (String table : TABLES) {
                statement.execute(table);
            }
        }
    }
}
