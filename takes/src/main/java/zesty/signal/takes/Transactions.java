package zesty.signal.takes;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;

/** Changes that are made whole or not at all; what went wrong first is what is told. */
final class Transactions {
    private Transactions() {}

    @FunctionalInterface
    interface Work {
        void run() throws SQLException;
    }

    /** Runs the work in one transaction of the connection, which then commits by itself again. Thread of the connection. */
    static void whole(Connection connection, Work work) throws SQLException {
        connection.setAutoCommit(false);
        try {
            work.run();
            connection.commit();
        } catch (SQLException | RuntimeException e) {
            quietly(connection::rollback, e);
            quietly(() -> byItself(connection), e);
            throw e;
        }
        connection.setAutoCommit(true);
    }

    /** A full disk ends a transaction by itself, and the driver, which does not know, cannot end it once more. */
    private static void byItself(Connection connection) throws SQLException {
        try {
            connection.setAutoCommit(true);
        } catch (SQLException e) {
            try (Statement statement = connection.createStatement()) {
                statement.execute("BEGIN");
            }
            connection.setAutoCommit(true);
        }
    }

    private static void quietly(Work work, Exception first) {
        try {
            work.run();
        } catch (SQLException e) {
            first.addSuppressed(e);
        }
    }
}
