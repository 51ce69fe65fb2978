package zesty.signal.takes;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Locale;
import java.util.function.IntFunction;

/** Makes a take whole whose recording broke off: its rows are safe, its pyramid is made anew. */
final class TakeMender {
    private final Connection connection;
    private final int columns;
    private final IntFunction<String> blocksOf;

    /** @param blocksOf the table of the blocks of a column, that counts from 0 */
    TakeMender(Connection connection, int columns, IntFunction<String> blocksOf) {
        this.blocksOf = blocksOf;
        this.connection = connection;
        this.columns = columns;
    }

    void mend(long rows, double seconds) throws SQLException, TakeException {
        connection.setAutoCommit(false);
        try (Statement statement = connection.createStatement()) {
            statement.execute("DELETE FROM pyramid");
            for (int c = 1; c <= columns; c++) {
                rebuild(c);
            }
            String said = String.format(
                    Locale.ROOT,
                    "The recording broke off. %d rows, %.2f s, are here; at most the last second before that is missing.",
                    rows,
                    seconds);
            try (PreparedStatement insert = connection.prepareStatement("INSERT OR REPLACE INTO take VALUES (?, ?)")) {
                insert.setString(1, "mended");
                insert.setString(2, said);
                insert.executeUpdate();
                insert.setString(1, "state");
                insert.setString(2, "whole");
                insert.executeUpdate();
            }
            connection.commit();
        } finally {
            connection.setAutoCommit(true);
        }
    }

    private void rebuild(int column) throws SQLException, TakeException {
        PyramidBuilder builder = new PyramidBuilder(column);
        try (PreparedStatement query = connection.prepareStatement(
                        "SELECT b.rows, v.width, v.divisor, v.base, v.data FROM block_values v " + "JOIN "
                                + blocksOf.apply(column - 1)
                                + " b USING (first_row) WHERE v.column_id = ? ORDER BY v.first_row");
                PreparedStatement insert = connection.prepareStatement("INSERT INTO pyramid VALUES (?, ?, ?, ?)")) {
            query.setInt(1, column);
            try (ResultSet result = query.executeQuery()) {
                while (result.next()) {
                    double[] values = new double[result.getInt(1)];
                    new Packed(result.getInt(2), result.getDouble(3), result.getLong(4), result.getBytes(5))
                            .unpack(values, 0, values.length);
                    builder.add(values, values.length, insert);
                }
            }
            builder.finish(insert);
        }
    }
}
