package zesty.signal.takes;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import zesty.signal.core.sample.Packed;

/** Writes the pictures of a take: a table that only a take with pictures has, a row each. One thread. */
final class FrameTable implements AutoCloseable {
    static final String NAME = "frame";
    private static final String CREATE =
            "CREATE TABLE IF NOT EXISTS frame (source INTEGER NOT NULL, row INTEGER NOT NULL, "
                    + "across INTEGER NOT NULL, down INTEGER NOT NULL, check_sum INTEGER NOT NULL, width INTEGER NOT NULL, "
                    + "divisor REAL NOT NULL, base INTEGER NOT NULL, data BLOB NOT NULL, PRIMARY KEY (source, row))";

    private final Connection connection;
    private PreparedStatement insert;

    FrameTable(Connection connection) {
        this.connection = connection;
    }

    static boolean isThere(Connection connection) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            return TakeSchema.hasTable(statement, NAME);
        }
    }

    /** Into the transaction at hand. @param row of its source, from 0. @return the row's checksum */
    long add(int source, long row, int across, double[] frame) throws SQLException {
        if (insert == null) {
            try (Statement statement = connection.createStatement()) {
                statement.execute(CREATE);
            }
            insert = connection.prepareStatement("INSERT INTO frame VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)");
        }
        Packed packed = Packed.of(frame, frame.length);
        int down = frame.length / across;
        long check = check(source, row, across, down, packed);
        insert.setInt(1, source);
        insert.setLong(2, row);
        insert.setInt(3, across);
        insert.setInt(4, down);
        insert.setLong(5, check);
        insert.setInt(6, packed.width());
        insert.setDouble(7, packed.divisor());
        insert.setLong(8, packed.base());
        insert.setBytes(9, packed.data());
        insert.executeUpdate();
        return check;
    }

    static long check(int source, long row, int across, int down, Packed packed) {
        return Checks.of(source, row, across, down, packed.width(), packed.divisor(), packed.base(), packed.data());
    }

    @Override
    public void close() throws SQLException {
        if (insert != null) {
            insert.close();
        }
    }
}
