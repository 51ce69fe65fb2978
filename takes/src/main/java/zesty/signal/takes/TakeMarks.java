package zesty.signal.takes;

import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import zesty.signal.core.text.Messages;

/** The marks of a take; the ends of those that are spans lie in a table of their own, which older takes have not. One thread. */
final class TakeMarks {
    private final TakeFile file;

    TakeMarks(TakeFile file) {
        this.file = file;
    }

    /** @return those that read right, in the order of time; what does not is told */
    List<Mark> read() {
        return List.copyOf(byId().values());
    }

    private Map<Long, Mark> byId() {
        Map<Long, Double> ends = ends();
        Map<Long, Mark> marks = new LinkedHashMap<>();
        file.each("mark", "id, seconds, text", " ORDER BY seconds, id", (row, check) -> {
            long id = row.getLong(1);
            double at = row.getDouble(2);
            if (file.right(check, at, row.getString(3)) && row.getString(3) != null) {
                double until = ends.getOrDefault(id, Double.NaN);
                marks.put(id, new Mark(at, until < at ? Double.NaN : until, row.getString(3)));
            } else {
                file.damage().tell(Messages.of("takes.a-mark-does-not-check-and-is-left"));
            }
        });
        return marks;
    }

    private Map<Long, Double> ends() {
        Map<Long, Double> ends = new HashMap<>();
        if (!hasEnds()) {
            return ends;
        }
        // Whatever version the take is of: this table came with checksums.
        try (Statement statement = file.connection().createStatement();
                ResultSet row = statement.executeQuery("SELECT mark, seconds, check_sum FROM mark_end")) {
            while (row.next()) {
                if (row.getLong(3) == Checks.of(row.getLong(1), row.getDouble(2))) {
                    ends.put(row.getLong(1), row.getDouble(2));
                } else {
                    file.damage().tell(Messages.of("takes.the-end-of-a-mark-does-not-check"));
                }
            }
        } catch (SQLException e) {
            file.damage().tell(Messages.of("takes.a-part-of-its-table-mark-end"));
        }
        return ends;
    }

    private boolean hasEnds() {
        try (Statement statement = file.connection().createStatement()) {
            return TakeSchema.hasTable(statement, TakeSchema.MARK_ENDS);
        } catch (SQLException e) {
            file.damage().tell(Messages.of("takes.whether-its-marks-have-ends-cannot"));
            return false;
        }
    }

    /** Within a change of the take. */
    void add(List<Mark> marks) throws SQLException {
        if (marks.isEmpty()) {
            return;
        }
        boolean checked = file.checked();
        if (marks.stream().anyMatch(Mark::isSpan)) {
            try (Statement statement = file.connection().createStatement()) {
                statement.execute(TakeSchema.CREATE_MARK_ENDS);
            }
        }
        try (PreparedStatement insert = file.connection()
                .prepareStatement(
                        checked
                                ? "INSERT INTO mark (seconds, text, check_sum) VALUES (?, ?, ?)"
                                : "INSERT INTO mark (seconds, text) VALUES (?, ?)")) {
            for (Mark mark : marks) {
                insert.setDouble(1, mark.seconds());
                insert.setString(2, mark.text().strip());
                if (checked) {
                    insert.setLong(3, Checks.of(mark.seconds(), mark.text().strip()));
                }
                insert.executeUpdate();
                if (mark.isSpan()) {
                    end(lastId(), mark.untilSeconds());
                }
            }
        }
        renew();
    }

    private long lastId() throws SQLException {
        try (Statement statement = file.connection().createStatement();
                ResultSet result = statement.executeQuery("SELECT last_insert_rowid()")) {
            return result.getLong(1);
        }
    }

    private void end(long mark, double seconds) throws SQLException {
        try (PreparedStatement insert = file.connection().prepareStatement(TakeSchema.INSERT_MARK_END)) {
            insert.setLong(1, mark);
            insert.setDouble(2, seconds);
            insert.setLong(3, Checks.of(mark, seconds));
            insert.executeUpdate();
        }
    }

    /** Takes each of these off once. Within a change of the take. */
    void remove(List<Mark> gone) throws SQLException {
        List<Mark> left = new ArrayList<>(gone);
        boolean ends = hasEnds();
        for (Map.Entry<Long, Mark> one : byId().entrySet()) {
            if (left.remove(one.getValue())) {
                delete("mark", "id", one.getKey());
                if (ends) {
                    delete(TakeSchema.MARK_ENDS, "mark", one.getKey());
                }
            }
        }
        renew();
    }

    private void delete(String table, String column, long id) throws SQLException {
        try (PreparedStatement delete =
                file.connection().prepareStatement("DELETE FROM " + table + " WHERE " + column + " = ?")) {
            delete.setLong(1, id);
            delete.executeUpdate();
        }
    }

    private void renew() throws SQLException {
        Tally.renew(file.connection(), "mark");
        if (hasEnds()) {
            Tally.renew(file.connection(), TakeSchema.MARK_ENDS);
        }
    }
}
