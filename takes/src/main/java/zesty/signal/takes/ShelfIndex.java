package zesty.signal.takes;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import zesty.signal.core.text.Messages;

/**
 * What the shelf shows of its takes, kept beside them so that it need not open each: by file, size and time of change. The takes are the
 * truth: an index that is missing, of another version or damaged is made anew, and without one the shelf is only slower. One thread.
 */
final class ShelfIndex {
    /** Its name in the folder of the takes. */
    static final String NAME = ".index";

    private static final int APPLICATION_ID = 0x5A494458;
    private static final int VERSION = 2;
    private static final String LINES = "\n";

    private final Path file;

    ShelfIndex(Path folder) {
        file = folder.resolve(NAME);
    }

    /** @return what it knows, by file; nothing where there is no index that can be read */
    Map<Path, Shelf.Entry> read() {
        Map<Path, Shelf.Entry> known = new HashMap<>();
        if (!Files.exists(file)) {
            return known;
        }
        try (Connection connection = TakeSchema.connect(file);
                Statement statement = connection.createStatement()) {
            if (number(statement, "application_id") != APPLICATION_ID || number(statement, "user_version") != VERSION) {
                return known;
            }
            try (ResultSet row = statement.executeQuery("SELECT * FROM entry")) {
                while (row.next()) {
                    Shelf.Entry entry = entry(row);
                    known.put(entry.file(), entry);
                }
            }
        } catch (SQLException | RuntimeException e) {
            // It is made anew from the takes.
            known.clear();
        }
        return known;
    }

    private static int number(Statement statement, String pragma) throws SQLException {
        try (ResultSet result = statement.executeQuery("PRAGMA " + pragma)) {
            return result.next() ? result.getInt(1) : 0;
        }
    }

    private Shelf.Entry entry(ResultSet row) throws SQLException {
        return new Shelf.Entry(
                file.resolveSibling(row.getString("file")),
                FileTime.from(row.getLong("changed"), TimeUnit.NANOSECONDS),
                row.getLong("bytes"),
                row.getString("title"),
                Instant.parse(row.getString("started")),
                row.getDouble("seconds"),
                lines(row.getString("columns")),
                drawing(row.getBytes("drawing")),
                row.getString("mended"),
                "",
                row.getString("rig"),
                row.getString("notes"),
                lines(row.getString("tags")),
                lines(row.getString("marks")),
                row.getString("numbers") == null ? null : lines(row.getString("numbers")));
    }

    private static List<String> lines(String text) {
        return text.isEmpty() ? List.of() : List.of(text.split(LINES, -1));
    }

    private static String joined(List<String> texts) {
        return String.join(
                LINES, texts.stream().map(text -> text.replace(LINES, " ")).toList());
    }

    private static List<Shelf.Drawing> drawing(byte[] data) {
        ByteBuffer bytes = ByteBuffer.wrap(data);
        List<Shelf.Drawing> lanes = new ArrayList<>();
        while (bytes.hasRemaining()) {
            int place = bytes.getInt();
            double[] extremes = new double[bytes.getInt()];
            for (int i = 0; i < extremes.length; i++) {
                extremes[i] = bytes.getFloat();
            }
            lanes.add(new Shelf.Drawing(place, extremes));
        }
        return lanes;
    }

    private static byte[] packed(List<Shelf.Drawing> lanes) {
        int size = lanes.stream()
                .mapToInt(lane -> 2 * Integer.BYTES + Float.BYTES * lane.extremes().length)
                .sum();
        ByteBuffer bytes = ByteBuffer.allocate(size);
        for (Shelf.Drawing lane : lanes) {
            bytes.putInt(lane.place()).putInt(lane.extremes().length);
            for (double one : lane.extremes()) {
                bytes.putFloat((float) one);
            }
        }
        return bytes.array();
    }

    /**
     * Keeps what is new and forgets what is gone; where that cannot be written, nothing is lost but time.
     *
     * @param fresh entries that it does not know, or as something else
     * @param gone files that are no longer there
     */
    void update(Collection<Shelf.Entry> fresh, Collection<Path> gone) {
        if (fresh.isEmpty() && gone.isEmpty()) {
            return;
        }
        try {
            put(fresh, gone);
        } catch (SQLException first) {
            // One that another version made, or that is damaged: it is only an index.
            try {
                Files.deleteIfExists(file);
                put(fresh, gone);
            } catch (SQLException | IOException e) {
                // A folder that cannot be written to has none; its takes are read each time.
                return;
            }
        }
    }

    private void put(Collection<Shelf.Entry> fresh, Collection<Path> gone) throws SQLException {
        boolean there = Files.exists(file);
        try (Connection connection = TakeSchema.connect(file);
                Statement statement = connection.createStatement()) {
            if (there && number(statement, "application_id") != APPLICATION_ID
                    || there && number(statement, "user_version") != VERSION) {
                throw new SQLException(Messages.of("takes.it-is-of-another-kind"));
            }
            connection.setAutoCommit(false);
            statement.execute("PRAGMA application_id = " + APPLICATION_ID);
            statement.execute("PRAGMA user_version = " + VERSION);
            statement.execute(
                    "CREATE TABLE IF NOT EXISTS entry (file TEXT PRIMARY KEY, changed INTEGER, bytes INTEGER, title TEXT, "
                            + "started TEXT, seconds REAL, columns TEXT, drawing BLOB, mended TEXT, rig TEXT, notes TEXT, tags TEXT, marks TEXT, numbers TEXT)");
            try (PreparedStatement delete = connection.prepareStatement("DELETE FROM entry WHERE file = ?")) {
                for (Path one : gone) {
                    delete.setString(1, one.getFileName().toString());
                    delete.executeUpdate();
                }
            }
            try (PreparedStatement insert = connection.prepareStatement(
                    "INSERT OR REPLACE INTO entry VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)")) {
                for (Shelf.Entry one : fresh) {
                    insert(insert, one);
                }
            }
            connection.commit();
        }
    }

    private static void insert(PreparedStatement insert, Shelf.Entry one) throws SQLException {
        insert.setString(1, one.file().getFileName().toString());
        insert.setLong(2, one.changed().to(TimeUnit.NANOSECONDS));
        insert.setLong(3, one.bytes());
        insert.setString(4, one.title());
        insert.setString(5, one.started().toString());
        insert.setDouble(6, one.seconds());
        insert.setString(7, joined(one.columns()));
        insert.setBytes(8, packed(one.drawing()));
        insert.setString(9, one.mended());
        insert.setString(10, one.rig());
        insert.setString(11, one.notes());
        insert.setString(12, joined(one.tags()));
        insert.setString(13, joined(one.marks()));
        insert.setString(14, one.numbers() == null ? null : joined(one.numbers()));
        insert.executeUpdate();
    }
}
