package zesty.signal.takes;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.LinkedHashMap;
import java.util.Map;

/** Writes the marks of a take that is being recorded; ends come later, into a table made for the first of them. One thread. */
final class MarkWriter {
    private static final double WITHIN_SECONDS = 1;

    private final Connection connection;
    private final Tally tally;
    private final PreparedStatement insert;
    private final Map<Long, Mark> written = new LinkedHashMap<>();
    private long marks;
    private boolean ends;

    MarkWriter(Connection connection, Tally tally) throws SQLException {
        this.connection = connection;
        this.tally = tally;
        insert = connection.prepareStatement("INSERT INTO mark (seconds, text, check_sum, id) VALUES (?, ?, ?, ?)");
    }

    /**
     * Changes one that was written, the nearest of that text within a second: the stream's time of now is set right by each arrival.
     *
     * @param now null to take it out. @return whether there is one
     */
    boolean change(Mark was, Mark now) throws SQLException {
        Mark found = null;
        long id = 0;
        for (Map.Entry<Long, Mark> one : written.entrySet()) {
            double apart = Math.abs(one.getValue().seconds() - was.seconds());
            boolean nearer = found == null || apart < Math.abs(found.seconds() - was.seconds());
            if (one.getValue().text().equals(was.text()) && apart < WITHIN_SECONDS && nearer) {
                found = one.getValue();
                id = one.getKey();
            }
        }
        if (found == null) {
            return false;
        }
        written.remove(id);
        delete("mark", "id", id);
        if (ends) {
            delete(TakeSchema.MARK_ENDS, "mark", id);
        }
        if (now != null) {
            long fresh = add(now.seconds(), now.text());
            if (now.isSpan()) {
                end(fresh, now.untilSeconds());
            }
        }
        tally.renew("mark");
        renewEnds();
        return true;
    }

    private void delete(String table, String column, long id) throws SQLException {
        try (PreparedStatement delete =
                connection.prepareStatement("DELETE FROM " + table + " WHERE " + column + " = ?")) {
            delete.setLong(1, id);
            delete.executeUpdate();
        }
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
        written.put(marks, new Mark(seconds, text));
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
