package zesty.signal.takes;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Locale;
import zesty.signal.core.text.Messages;

/** Makes a take whole whose recording broke off: its rows are safe, its pyramid is made anew. */
final class TakeRepair {
    private final Connection connection;
    private final boolean checked;

    /** @param checked whether the take's rows carry checksums */
    TakeRepair(Connection connection, boolean checked) {
        this.connection = connection;
        this.checked = checked;
    }

    void mend(Take take) throws SQLException {
        Transactions.whole(connection, () -> {
            try (Statement statement = connection.createStatement()) {
                statement.execute("DELETE FROM pyramid");
            }
            for (int c = 0; c < take.columns().size(); c++) {
                rebuild(take, c);
            }
            String said = String.format(
                    Locale.ROOT, Messages.of("takes.the-recording-broke-off-d-rows-2f"), take.rows(), take.seconds());
            TakeFacts.put(connection, checked, "mended", said);
            TakeFacts.put(connection, checked, "state", "whole");
        });
    }

    private void rebuild(Take take, int column) throws SQLException {
        PyramidBuilder builder = new PyramidBuilder(column + 1, checked);
        try (PreparedStatement insert = connection.prepareStatement(PyramidBuilder.insert(checked))) {
            for (int piece = 0; piece < take.pieces(take.sourceOf(column)); piece++) {
                double[] values = take.values(column, piece);
                builder.add(values, values.length, insert);
            }
            builder.finish(insert);
        }
    }
}
