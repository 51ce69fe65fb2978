package zesty.signal.takes;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.Packed;
import zesty.signal.core.text.Messages;

/**
 * The rows of one source of a take, piece by piece as they were written. Each piece stands for itself: one that does not
 * check costs its own rows and nothing else. Rows count without those of pieces that are lost. One thread.
 */
final class TakeRows implements AutoCloseable {
    /** No recording writes pieces as long as this. */
    private static final int MOST_ROWS = 1 << 24;
    /** Two times that differ by less, in s, may be the same one rounded. */
    private static final double FALLEN_SECONDS = 1e-6;

    /** A run of rows; without a period each has a time of its own. */
    private record Piece(long firstRow, int rows, double first, double period, long at) {
        boolean steady() {
            return !Double.isNaN(period);
        }
    }

    private final Connection connection;
    private final boolean checked;
    private final int source;
    private final Damage damage;
    private final long mostRows;
    private final List<Piece> pieces = new ArrayList<>();
    private final List<Gap> lost = new ArrayList<>();
    /** By piece: whether its own times were looked at, and are right. */
    private final Boolean[] dated;

    private PreparedStatement query;
    private long rows;

    /**
     * @param several whether blocks say of which source they are
     * @param checked whether rows carry checksums
     * @param fileBytes the file's length: no more rows than that can be in it
     */
    TakeRows(Connection connection, boolean several, boolean checked, int source, long fileBytes, Damage damage) {
        this.connection = connection;
        this.checked = checked;
        this.source = source;
        this.damage = damage;
        mostRows = Math.min(MOST_ROWS, Math.max(fileBytes, 1));
        Map<Long, Piece> found = new TreeMap<>();
        String all = "SELECT first_row, rows, first_seconds, period_seconds, " + (checked ? "check_sum" : "NULL")
                + " FROM block" + (several ? " WHERE source = " + source : "") + " ORDER BY first_row";
        if (!scan(all, found)) {
            // Where the way forward is broken, what lies behind is reached from the other end.
            scan(all + " DESC", found);
        }
        for (Piece piece : found.values()) {
            line(piece);
        }
        dated = new Boolean[pieces.size()];
    }

    private boolean scan(String sql, Map<Long, Piece> found) {
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery(sql)) {
            while (result.next()) {
                long firstRow = result.getLong(1);
                long count = result.getLong(2);
                double first = result.getDouble(3);
                boolean timed = !result.wasNull();
                double period = result.getDouble(4);
                Double given = result.wasNull() ? null : period;
                boolean whole = timed
                        && count > 0
                        && count <= mostRows
                        && firstRow >= 0
                        && Double.isFinite(first)
                        && (given == null || given > 0 && Double.isFinite(given))
                        && (!checked || result.getLong(5) == Checks.of(source, firstRow, count, first, given));
                if (whole) {
                    found.putIfAbsent(
                            firstRow, new Piece(firstRow, (int) count, first, given == null ? Double.NaN : period, 0));
                } else {
                    damage.tell(Messages.of("takes.the-rows-from-row-on-are-lost", firstRow));
                }
            }
            return true;
        } catch (SQLException e) {
            damage.tell(Messages.of("takes.a-part-of-the-list-of-its-rows"));
            return false;
        }
    }

    private void line(Piece next) {
        Piece before = pieces.isEmpty() ? null : pieces.get(pieces.size() - 1);
        long due = before == null ? 0 : before.firstRow() + before.rows();
        if (next.firstRow() < due || !checked && before != null && next.first() < before.first()) {
            damage.tell(Messages.of("takes.the-rows-from-row-on-are-lost-they", next.firstRow()));
            return;
        }
        if (next.firstRow() > due) {
            double from = before == null ? 0 : last(before);
            lost.add(new Gap(Math.min(from, next.first()), next.first(), next.firstRow() - due));
            damage.tell(String.format(
                    Locale.ROOT,
                    Messages.of("takes.d-rows-are-lost-between-3f-and-3f"),
                    next.firstRow() - due,
                    from,
                    next.first()));
        }
        double first = before == null ? next.first() : Math.max(before.first(), next.first());
        pieces.add(new Piece(next.firstRow(), next.rows(), first, next.period(), rows));
        rows += next.rows();
    }

    private static double last(Piece piece) {
        return piece.first() + (piece.steady() ? (piece.rows() - 1) * piece.period() : 0);
    }

    long rows() {
        return rows;
    }

    int pieces() {
        return pieces.size();
    }

    int rowsOf(int piece) {
        return pieces.get(piece).rows();
    }

    /** @return index of a piece's first row, of those that are there */
    long rowOf(int piece) {
        return pieces.get(piece).at();
    }

    double firstSeconds(int piece) {
        return pieces.get(piece).first();
    }

    /** @return seconds from row to row of a piece; NaN where each has a time of its own */
    double periodSeconds(int piece) {
        return pieces.get(piece).period();
    }

    /** @return gaps that damage has made */
    List<Gap> lost() {
        return lost;
    }

    /** @return the time of the last row, in s; 0 without any */
    double lastSeconds() {
        if (pieces.isEmpty()) {
            return 0;
        }
        double[] times = times(pieces.size() - 1);
        return times[times.length - 1];
    }

    /** @return the time of each row of a piece; evenly spread where its own do not check: its values are missing then */
    double[] times(int index) {
        Piece piece = pieces.get(index);
        double[] times = new double[piece.rows()];
        if (!piece.steady()) {
            double[] own = own(index);
            if (own.length > 0) {
                return own;
            }
        }
        double until = index + 1 < pieces.size() ? pieces.get(index + 1).first() : piece.first();
        double period = piece.steady() ? piece.period() : Math.max(0, until - piece.first()) / piece.rows();
        for (int row = 0; row < times.length; row++) {
            times[row] = piece.first() + row * period;
        }
        return times;
    }

    /** @return the times that a piece of its own times has; empty where they do not check */
    private double[] own(int index) {
        Piece piece = pieces.get(index);
        double[] times = unpacked(piece, TakeSchema.timesOf(source));
        // Its first time is as it was, and the times of its rows are rounded.
        double before = piece.first() - FALLEN_SECONDS;
        for (int row = 0; times != null && row < times.length; row++) {
            // Also without a checksum: times that fall, or are none, are not those of a recording. With one that checks
            // they fell when they were written, as those of clocks that first looked coarse once did.
            boolean could = checked || times[row] >= before - FALLEN_SECONDS;
            before = Math.max(before, times[row]);
            if (could && before < Double.POSITIVE_INFINITY) {
                times[row] = before;
            } else {
                times = null;
            }
        }
        if (times == null) {
            damage.tell(String.format(
                    Locale.ROOT, Messages.of("takes.d-rows-from-3f-s-on-are-left-out"), piece.rows(), piece.first()));
            dated[index] = false;
            return new double[0];
        }
        dated[index] = true;
        return times;
    }

    private boolean dated(int index) {
        if (pieces.get(index).steady()) {
            return true;
        }
        if (dated[index] == null) {
            own(index);
        }
        return dated[index];
    }

    /** @return the values of a column, that counts from 1, in a piece; NaN where one is missing or does not check */
    double[] values(int index, int columnId, String name) {
        Piece piece = pieces.get(index);
        double[] values = dated(index) ? unpacked(piece, columnId) : null;
        if (values == null) {
            values = new double[piece.rows()];
            Arrays.fill(values, Double.NaN);
            if (dated(index)) {
                damage.tell(String.format(
                        Locale.ROOT,
                        Messages.of("takes.column-s-d-rows-from-3f-s-on-the"),
                        name,
                        piece.rows(),
                        piece.first()));
            }
        }
        return values;
    }

    /** @return null where they are not there or do not check */
    private double[] unpacked(Piece piece, int columnId) {
        try {
            if (query == null) {
                query = connection.prepareStatement("SELECT width, divisor, base, data, "
                        + (checked ? "check_sum" : "NULL")
                        + " FROM block_values WHERE column_id = ? AND first_row = ?");
            }
            query.setInt(1, columnId);
            query.setLong(2, piece.firstRow());
            try (ResultSet result = query.executeQuery()) {
                if (!result.next()) {
                    return null;
                }
                Packed packed =
                        new Packed(result.getInt(1), result.getDouble(2), result.getLong(3), result.getBytes(4));
                if (!packed.holds(piece.rows())
                        || checked && result.getLong(5) != check(packed, piece.firstRow(), columnId)) {
                    return null;
                }
                double[] values = new double[piece.rows()];
                packed.unpack(values, 0, values.length);
                return values;
            }
        } catch (SQLException e) {
            return null;
        }
    }

    /** @return the checksum of the values of a column from that row on */
    static long check(Packed packed, long firstRow, int columnId) {
        return Checks.of(firstRow, columnId, packed.width(), packed.divisor(), packed.base(), packed.data());
    }

    /** @return index of the piece that holds a row, of the rows that are there */
    int pieceOf(long row) {
        int low = 0;
        int high = pieces.size() - 1;
        while (low < high) {
            int middle = (low + high + 1) / 2;
            if (pieces.get(middle).at() <= row) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        return low;
    }

    /** @return under which number a row was written, with those that are lost before it */
    long storedRow(long row) {
        Piece piece = pieces.get(pieceOf(row));
        return piece.firstRow() + row - piece.at();
    }

    @Override
    public void close() {
        try {
            if (query != null) {
                query.close();
            }
        } catch (SQLException e) {
            // It was only read.
        }
    }
}
