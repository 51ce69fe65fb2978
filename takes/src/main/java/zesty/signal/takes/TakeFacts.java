package zesty.signal.takes;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;

/** Writes what a take says of itself. */
final class TakeFacts {
    private TakeFacts() {}

    /** @param checked whether the take's rows carry checksums */
    static void put(Connection connection, boolean checked, String key, String value) throws SQLException {
        try (PreparedStatement insert =
                connection.prepareStatement("INSERT OR REPLACE INTO take VALUES (?, ?" + (checked ? ", ?)" : ")"))) {
            insert.setString(1, key);
            insert.setString(2, value);
            if (checked) {
                insert.setLong(3, Checks.of(key, value));
            }
            insert.executeUpdate();
        }
        Tally.renew(connection, "take");
    }
}
