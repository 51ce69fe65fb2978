package zesty.signal.takes;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import zesty.signal.core.text.Messages;

/** The log of decisions of a take: a table that only a take with decisions has; it came with checksums. One thread. */
final class DecisionTable {
    static final String NAME = "decision";
    private static final String CREATE = "CREATE TABLE IF NOT EXISTS decision (id INTEGER PRIMARY KEY, "
            + "seconds REAL NOT NULL, kind TEXT NOT NULL, name TEXT NOT NULL, what TEXT NOT NULL, value REAL, "
            + "why TEXT NOT NULL, check_sum INTEGER NOT NULL)";

    private DecisionTable() {}

    static boolean isThere(Connection connection) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            return TakeSchema.hasTable(statement, NAME);
        }
    }

    /** Into the transaction at hand. @return the row's checksum */
    static long add(Connection connection, Decision one) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            statement.execute(CREATE);
        }
        try (PreparedStatement insert = connection.prepareStatement(
                "INSERT INTO decision (seconds, kind, name, what, value, why, check_sum) VALUES (?, ?, ?, ?, ?, ?, ?)")) {
            insert.setDouble(1, one.seconds());
            insert.setString(2, Nodes.lower(one.kind()));
            insert.setString(3, one.name());
            insert.setString(4, one.what());
            if (Double.isNaN(one.value())) {
                insert.setNull(5, java.sql.Types.REAL);
            } else {
                insert.setDouble(5, one.value());
            }
            insert.setString(6, one.why());
            long check = check(one);
            insert.setLong(7, check);
            insert.executeUpdate();
            return check;
        }
    }

    private static long check(Decision one) {
        return Checks.of(
                one.seconds(),
                Nodes.lower(one.kind()),
                one.name(),
                one.what(),
                Double.isNaN(one.value()) ? null : (Double) one.value(),
                one.why());
    }

    /** @return those that read right, in their order; what does not is told */
    static List<Decision> read(TakeFile file) {
        List<Decision> all = new ArrayList<>();
        try (Statement statement = file.connection().createStatement()) {
            if (!TakeSchema.hasTable(statement, NAME)) {
                return all;
            }
            try (ResultSet row = statement.executeQuery(
                    "SELECT seconds, kind, name, what, value, why, check_sum FROM decision ORDER BY id")) {
                while (row.next()) {
                    Decision one = of(row);
                    if (row.getLong(7) == check(one)) {
                        all.add(one);
                    } else {
                        file.damage().tell(Messages.of("takes.a-line-of-its-log-of-decisions"));
                    }
                }
            }
        } catch (SQLException | IllegalArgumentException e) {
            file.damage().tell(Messages.of("takes.a-part-of-its-log-of-decisions"));
        }
        return all;
    }

    private static Decision of(ResultSet row) throws SQLException {
        double value = row.getDouble(5);
        boolean none = row.wasNull();
        return new Decision(
                row.getDouble(1),
                Nodes.choice(Decision.Kind.class, String.valueOf(row.getString(2))),
                String.valueOf(row.getString(3)),
                String.valueOf(row.getString(4)),
                none ? Double.NaN : value,
                String.valueOf(row.getString(6)));
    }

    /** Sets their times right with those of the rows. */
    static void move(Connection connection, DoubleUnaryOperator moved) throws SQLException {
        if (!isThere(connection)) {
            return;
        }
        try (Statement statement = connection.createStatement();
                ResultSet row =
                        statement.executeQuery("SELECT seconds, kind, name, what, value, why, id FROM decision");
                PreparedStatement update =
                        connection.prepareStatement("UPDATE decision SET seconds = ?, check_sum = ? WHERE id = ?")) {
            while (row.next()) {
                Decision one = of(row);
                Decision now = one.at(moved.applyAsDouble(one.seconds()));
                update.setDouble(1, now.seconds());
                update.setLong(2, check(now));
                update.setLong(3, row.getLong(7));
                update.executeUpdate();
            }
        }
    }
}
