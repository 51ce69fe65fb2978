package zesty.signal.takes;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import zesty.signal.core.text.Messages;

/**
 * The file of a take: its connection, of which version it is, what of it does not check, and changes in one transaction each.
 * One thread.
 */
final class TakeFile implements AutoCloseable {
    private final Path file;
    private final Connection connection;
    /** Where the take was copied to because it could not be mended where it is; null where it was not. */
    private final Path copy;

    private final boolean readOnly;
    private final Damage damage = new Damage();
    private boolean several;
    private boolean checked;
    private boolean counted;

    private TakeFile(Path file, Connection connection, Path copy, boolean readOnly) {
        this.file = file;
        this.connection = connection;
        this.copy = copy;
        this.readOnly = readOnly;
    }

    /** @param writable whether the take and its folder may be written to */
    static TakeFile open(Path file, boolean writable) throws TakeException, SQLException, IOException {
        if (!Files.isRegularFile(file)) {
            throw new TakeException(
                    file + DiskWords.absent(file) + (Files.isDirectory(file) ? Messages.of("takes.no-take") : ""));
        }
        Path at = file;
        Path copy = null;
        if (!writable && unfinished(file)) {
            copy = TakeCopy.of(file);
            at = copy;
        }
        TakeFile opened = null;
        try {
            String how = writable || copy != null ? "" : "?immutable=1";
            opened = new TakeFile(file, TakeSchema.connect(at, how), copy, !writable);
            opened.check();
            return opened;
        } catch (SQLException | TakeException | RuntimeException e) {
            if (opened != null) {
                closeQuietly(opened);
            } else {
                TakeCopy.delete(copy);
            }
            throw e;
        }
    }

    private static void closeQuietly(TakeFile opened) {
        try {
            opened.close();
        } catch (TakeException e) {
            // The first error is the one to tell.
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

    private void check() throws SQLException, TakeException {
        if (number("SELECT count(*) FROM sqlite_master") == 0) {
            throw new TakeException(Messages.of("takes.holds-nothing-it-is-empty-or-its", file));
        }
        if (number("PRAGMA application_id") != TakeSchema.APPLICATION_ID) {
            throw new TakeException(Messages.of("takes.is-no-take-a-take-ends-in-zest-and", file));
        }
        long version = number("PRAGMA user_version");
        if (version > TakeSchema.VERSION) {
            throw new TakeException(
                    Messages.of("takes.was-written-by-a-later-version", file, version, TakeSchema.VERSION));
        }
        checked = version >= TakeSchema.CHECKED;
        counted = version >= TakeSchema.COUNTED;
        try (Statement statement = connection.createStatement()) {
            // What a take does not have could compute without end, or stand for something else.
            statement.execute("PRAGMA trusted_schema = OFF");
            several = TakeSchema.hasTable(statement, "source");
            String missing = TakeSchema.missing(statement);
            if (missing != null) {
                throw new TakeException(Messages.of("takes.is-damaged-or-no-take", file, missing));
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
    interface RowReader {
        /** @param check the row's checksum as it is stored */
        void read(ResultSet row, long check) throws SQLException;
    }

    /** Reads a table row by row; what cannot be read any more is told. */
    void each(String table, String cells, String order, RowReader reader) {
        String sql = "SELECT " + cells + ", " + (checked ? "check_sum" : "0") + " AS sum FROM " + table + order;
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery(sql)) {
            while (result.next()) {
                reader.read(result, result.getLong("sum"));
            }
        } catch (SQLException e) {
            damage.tell(Messages.of("takes.a-part-of-its-table-cannot-be-read", table));
        }
    }

    boolean right(long check, Object... cells) {
        return !checked || check == Checks.of(cells);
    }

    /** Some writing that holds whole or not at all. */
    @FunctionalInterface
    interface Change {
        void make() throws SQLException;
    }

    /**
     * Makes a change in one transaction.
     *
     * @param what is to be saved, in words, such as "a new name"
     * @throws TakeException when it may not be written, or was not: then all is as it was before
     */
    void change(String what, Change change) throws TakeException {
        if (readOnly) {
            throw new TakeException(Messages.of("takes.lies-where-nothing-can-be-written", file, what));
        }
        try {
            Transactions.whole(connection, change::make);
        } catch (SQLException e) {
            throw new TakeException(Messages.of("takes.cannot-keep", file, what, DiskWords.of(e)), e);
        }
    }

    Path path() {
        return file;
    }

    Connection connection() {
        return connection;
    }

    Damage damage() {
        return damage;
    }

    /** @return whether it can only be read */
    boolean readOnly() {
        return readOnly;
    }

    /** @return whether it says of which of several sources its rows are */
    boolean several() {
        return several;
    }

    /** @return whether its rows carry checksums */
    boolean checked() {
        return checked;
    }

    /** @return whether it says how many rows its tables have */
    boolean counted() {
        return counted;
    }

    /** @return how long it is on the disk, with what was not yet written back */
    long bytes() {
        Path at = copy == null ? file : copy;
        Path log = at.resolveSibling(at.getFileName() + "-wal");
        try {
            return Files.size(at) + (Files.exists(log) ? Files.size(log) : 0);
        } catch (IOException e) {
            return Long.MAX_VALUE;
        }
    }

    @Override
    public void close() throws TakeException {
        try {
            connection.close();
        } catch (SQLException e) {
            throw new TakeException(Messages.of("takes.could-not-be-closed", file, DiskWords.of(e)), e);
        } finally {
            TakeCopy.delete(copy);
        }
    }
}
