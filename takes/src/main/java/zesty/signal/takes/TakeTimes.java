package zesty.signal.takes;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;

/**
 * The times of a take of one source without a clock, set right at its end: each row comes a period after the one before
 * it, and gaps keep their length. A part of one transaction; one thread.
 */
final class TakeTimes {
    /** Below this share the times are right enough already. */
    private static final double RIGHT_ENOUGH = 1e-6;

    private final Connection connection;

    TakeTimes(Connection connection) {
        this.connection = connection;
    }

    private record Gap(long id, double start, double end, long missing) {}

    private record Span(long firstRow, int rows, double first, double period) {}

    /** @return the take's length now */
    double setRight(double period, double length) throws SQLException {
        List<Gap> gaps = gaps();
        List<Span> spans = spans();
        boolean right = spans.stream().allMatch(s -> s.rows() < 2 || Math.abs(s.period() / period - 1) < RIGHT_ENOUGH);
        // Rows counted by a sequence have gaps within their blocks, and their times from it.
        boolean within =
                gaps.stream().anyMatch(g -> spans.stream().noneMatch(s -> Math.abs(s.first() - g.end()) < 1e-6));
        if (spans.isEmpty() || within || right && gaps.isEmpty()) {
            return length;
        }
        double next = 0;
        double last = 0;
        int gap = 0;
        List<double[]> moved = new ArrayList<>();
        try (PreparedStatement block = connection.prepareStatement(
                        "UPDATE block SET first_seconds = ?, period_seconds = ?, check_sum = ? WHERE first_row = ?");
                PreparedStatement silence = connection.prepareStatement(
                        "UPDATE gap SET start_seconds = ?, end_seconds = ?, check_sum = ? WHERE id = ?")) {
            for (Span span : spans) {
                if (gap < gaps.size() && gaps.get(gap).end() <= span.first() + 1e-9) {
                    Gap own = gaps.get(gap++);
                    double end = last + (own.end() - own.start());
                    silence.setDouble(1, last);
                    silence.setDouble(2, end);
                    silence.setLong(3, Checks.of(0, last, end, own.missing()));
                    silence.setLong(4, own.id());
                    silence.executeUpdate();
                    next = end;
                }
                moved.add(new double[] {span.first(), next});
                block.setDouble(1, next);
                block.setDouble(2, period);
                block.setLong(3, Checks.of(0, span.firstRow(), span.rows(), next, period));
                block.setLong(4, span.firstRow());
                block.executeUpdate();
                last = next + (span.rows() - 1) * period;
                next = last + period;
            }
        }
        moveMarks(moved);
        DecisionTable.move(connection, was -> moved(moved, was));
        try (Statement statement = connection.createStatement()) {
            statement.executeUpdate("DELETE FROM block_values WHERE column_id = " + TakeSchema.timesOf(0));
        }
        return last;
    }

    /** Blocks with a time each are of rows of this same stream, too: their first and last tell the period they were given. */
    private List<Span> spans() throws SQLException {
        List<Span> spans = new ArrayList<>();
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery(
                        "SELECT first_row, rows, first_seconds, period_seconds FROM block ORDER BY first_row")) {
            while (result.next()) {
                double period = result.getDouble(4);
                spans.add(new Span(
                        result.getLong(1), result.getInt(2), result.getDouble(3), result.wasNull() ? 0 : period));
            }
        }
        return spans;
    }

    private List<Gap> gaps() throws SQLException {
        List<Gap> gaps = new ArrayList<>();
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery(
                        "SELECT id, start_seconds, end_seconds, missing FROM gap ORDER BY start_seconds")) {
            while (result.next()) {
                gaps.add(new Gap(result.getLong(1), result.getDouble(2), result.getDouble(3), result.getLong(4)));
            }
        }
        return gaps;
    }

    /** A mark stays at the row it was made at: by the block it lies in. So does the end of a span. */
    private void moveMarks(List<double[]> moved) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            try (ResultSet result = statement.executeQuery("SELECT id, seconds, text FROM mark");
                    PreparedStatement update =
                            connection.prepareStatement("UPDATE mark SET seconds = ?, check_sum = ? WHERE id = ?")) {
                while (result.next()) {
                    double now = moved(moved, result.getDouble(2));
                    update.setDouble(1, now);
                    update.setLong(2, Checks.of(now, result.getString(3)));
                    update.setLong(3, result.getLong(1));
                    update.executeUpdate();
                }
            }
            if (!TakeSchema.hasTable(statement, TakeSchema.MARK_ENDS)) {
                return;
            }
            try (ResultSet result = statement.executeQuery("SELECT mark, seconds FROM mark_end");
                    PreparedStatement update = connection.prepareStatement(
                            "UPDATE mark_end SET seconds = ?, check_sum = ? WHERE mark = ?")) {
                while (result.next()) {
                    double now = moved(moved, result.getDouble(2));
                    update.setDouble(1, now);
                    update.setLong(2, Checks.of(result.getLong(1), now));
                    update.setLong(3, result.getLong(1));
                    update.executeUpdate();
                }
            }
        }
    }

    private static double moved(List<double[]> moved, double was) {
        int i = 0;
        while (i + 1 < moved.size() && moved.get(i + 1)[0] <= was) {
            i++;
        }
        double[] from = moved.get(i);
        double[] to = i + 1 < moved.size() ? moved.get(i + 1) : new double[] {from[0] + 1, from[1] + 1};
        double share = (was - from[0]) / Math.max(1e-9, to[0] - from[0]);
        return Math.max(0, from[1] + share * (to[1] - from[1]));
    }
}
