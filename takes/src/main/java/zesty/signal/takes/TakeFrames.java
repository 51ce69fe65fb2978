package zesty.signal.takes;

import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zesty.signal.core.decode.Column;
import zesty.signal.core.sample.Packed;
import zesty.signal.core.text.Messages;

/**
 * The pictures of a take, read one by one: from its table of pictures, or, of an older take, from a column a pixel. One that does
 * not check is missing, and told. One thread.
 */
final class TakeFrames implements AutoCloseable {
    private static final Pattern PIXEL = Pattern.compile("r(\\d+)c(\\d+)");
    private static final int MOST_PIXELS = 1 << 20;

    /** How large the pictures of a source are, and where they are. @param pixels index of each pixel's column; null for the table */
    private record Size(int width, int height, int[] pixels) {}

    private final TakeFile file;
    private final TakeData data;
    private final Map<Integer, Size> sizes = new HashMap<>();
    private PreparedStatement query;
    private int keptPiece = -1;
    private int keptSource = -1;
    private double[][] kept = {};

    TakeFrames(TakeFile file, TakeData data) {
        this.file = file;
        this.data = data;
        try {
            boolean table = FrameTable.isThere(file.connection());
            for (int source = 0; source < data.sources(); source++) {
                Size size = table ? ofTable(source) : null;
                size = size == null ? ofColumns(source) : size;
                if (size != null) {
                    sizes.put(source, size);
                }
            }
        } catch (SQLException e) {
            file.damage().tell(Messages.of("takes.its-pictures-cannot-be-read"));
        }
    }

    private Size ofTable(int source) throws SQLException {
        Tally.Count due =
                file.counted() ? Tally.read(file.connection(), new Damage()).get(FrameTable.NAME) : null;
        try (PreparedStatement statement = file.connection()
                .prepareStatement("SELECT across, down FROM frame WHERE source = ? ORDER BY row LIMIT 1")) {
            statement.setInt(1, source);
            try (ResultSet row = statement.executeQuery()) {
                int width = row.next() ? row.getInt(1) : 0;
                int height = width > 0 ? row.getInt(2) : 0;
                if (width < 1 || height < 1 || (long) width * height > MOST_PIXELS) {
                    return null;
                }
                if (source == 0 && due != null) {
                    count(due.rows());
                }
                return new Size(width, height, null);
            }
        }
    }

    private void count(long due) throws SQLException {
        try (PreparedStatement statement = file.connection().prepareStatement("SELECT count(*) FROM frame");
                ResultSet row = statement.executeQuery()) {
            long there = row.next() ? row.getLong(1) : 0;
            if (there != due) {
                file.damage().tell(Messages.of("takes.of-pictures-that-were-recorded-are", due, there));
            }
        }
    }

    private Size ofColumns(int source) {
        Map<Long, Integer> places = new HashMap<>();
        int width = 0;
        int height = 0;
        List<Column> columns = data.columnsOf(source);
        for (int c = 0; c < columns.size(); c++) {
            String name = columns.get(c).name();
            Matcher pixel = PIXEL.matcher(name.substring(name.indexOf('/') + 1));
            if (pixel.matches() && name.length() < 16) {
                int y = Integer.parseInt(pixel.group(1));
                int x = Integer.parseInt(pixel.group(2));
                height = Math.max(height, y);
                width = Math.max(width, x);
                places.put((long) y << 32 | x, data.firstColumn(source) + c);
            }
        }
        if (places.isEmpty() || places.size() != (long) width * height || places.size() < 2) {
            return null;
        }
        int[] pixels = new int[width * height];
        for (int p = 0; p < pixels.length; p++) {
            Integer at = places.get((long) (p / width + 1) << 32 | p % width + 1);
            if (at == null) {
                return null;
            }
            pixels[p] = at;
        }
        return new Size(width, height, pixels);
    }

    /** @return width and height of a source's pictures; null where it has none */
    int[] size(int source) {
        Size size = sizes.get(source);
        return size == null ? null : new int[] {size.width(), size.height()};
    }

    /** @return whether each pixel is a column as well, as in older takes */
    boolean asColumns(int source) {
        return sizes.containsKey(source) && sizes.get(source).pixels() != null;
    }

    /** @return the picture of a row of a source, of the rows that are there; null where it is missing or does not check */
    double[] frame(int source, long row) {
        Size size = sizes.get(source);
        if (size == null || row < 0 || row >= data.rows(source)) {
            return null;
        }
        return size.pixels() == null ? stored(source, data.storedRow(source, row), size) : ofPiece(source, row, size);
    }

    private double[] stored(int source, long row, Size size) {
        try {
            if (query == null) {
                query = file.connection()
                        .prepareStatement("SELECT across, down, check_sum, width, divisor, base, data FROM frame "
                                + "WHERE source = ? AND row = ?");
            }
            query.setInt(1, source);
            query.setLong(2, row);
            try (ResultSet result = query.executeQuery()) {
                if (!result.next()) {
                    return null;
                }
                Packed packed =
                        new Packed(result.getInt(4), result.getDouble(5), result.getLong(6), result.getBytes(7));
                int pixels = size.width() * size.height();
                boolean whole = result.getInt(1) == size.width()
                        && result.getInt(2) == size.height()
                        && packed.holds(pixels)
                        && result.getLong(3) == FrameTable.check(source, row, size.width(), size.height(), packed);
                if (whole) {
                    double[] frame = new double[pixels];
                    packed.unpack(frame, 0, pixels);
                    return frame;
                }
            }
            file.damage().tell(Messages.of("takes.the-picture-of-row-does-not-check", row));
        } catch (SQLException e) {
            file.damage().tell(Messages.of("takes.a-part-of-its-pictures-cannot-be"));
        }
        return null;
    }

    private double[] ofPiece(int source, long row, Size size) {
        int piece = data.pieceOf(source, row);
        if (piece != keptPiece || source != keptSource) {
            kept = new double[size.pixels().length][];
            for (int p = 0; p < kept.length; p++) {
                kept[p] = data.values(size.pixels()[p], piece);
            }
            keptPiece = piece;
            keptSource = source;
        }
        int at = (int) (row - data.rowOf(source, piece));
        double[] frame = new double[kept.length];
        for (int p = 0; p < frame.length; p++) {
            frame[p] = kept[p][at];
        }
        return frame;
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
