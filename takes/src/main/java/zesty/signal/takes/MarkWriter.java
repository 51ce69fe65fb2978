package zesty.signal.takes;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;

/** Writes the marks of a take that is being recorded; ends come later, into a table made for the first of them. One thread. */
final class MarkWriter {
    private final Connection connection;
    private final Tally tally;
    private final PreparedStatement insert;
    private long marks;
    private boolean ends;

    MarkWriter(Connection connection, Tally tally) throws SQLException {
        this.connection = connection;
        this.tally = tally;
        insert = connection.prepareStatement("INSERT INTO mark (seconds, text, check_sum, id) VALUES (?, ?, ?, ?)");
    }

    /** @return its number */
    long add(double seconds, String text) throws SQLException {
        insert.setDouble(1, seconds);
        insert.setString(2, text);
        long check = Checks.of(seconds, text);
        insert.setLong(3, check);
        insert.setLong(4, ++marks);
        insert.executeUpdate();
        tally.add("mark", check);
        return marks;
    }

    void end(long mark, double seconds) throws SQLException {
        if (!ends) {
            try (Statement statement = connection.createStatement()) {
                statement.execute(TakeSchema.CREATE_MARK_ENDS);
            }
            ends = true;
        }
        try (PreparedStatement end = connection.prepareStatement(TakeSchema.INSERT_MARK_END)) {
            end.setLong(1, mark);
            end.setDouble(2, seconds);
            long check = Checks.of(mark, seconds);
            end.setLong(3, check);
            end.executeUpdate();
            tally.add(TakeSchema.MARK_ENDS, check);
        }
    }

    /** Counts the ends anew, in which something was changed. */
    void renewEnds() throws SQLException {
        if (ends) {
            tally.renew(TakeSchema.MARK_ENDS);
        }
    }
}
