package zesty.signal.takes;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.decode.Column;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.TimeBase;

/**
 * Writes a take while it is being recorded. What was committed survives the end of the process; call {@link #commit()}
 * at least once a second. One thread. After an exception nothing more can be written, and what was committed stands.
 */
public final class TakeWriter implements AutoCloseable {
    private static final String MISSING_FILE = ": the take's file or folder is gone; recording stopped";

    private final Path file;
    private final Connection connection;
    private final PreparedStatement insertBlock;
    private final PreparedStatement insertValues;
    private final PreparedStatement insertGap;
    private final PreparedStatement insertMark;
    private final PreparedStatement insertPyramid;
    private final List<PyramidBuilder> pyramids = new ArrayList<>();
    private final int columnCount;
    private double firstSeconds = Double.NaN;
    private long rows;
    private double lastSeconds;
    private boolean broken;

    private TakeWriter(Path file, Connection connection, int columnCount) throws SQLException {
        this.file = file;
        this.connection = connection;
        this.columnCount = columnCount;
        connection.setAutoCommit(false);
        insertBlock = connection.prepareStatement("INSERT INTO block VALUES (?, ?, ?, ?)");
        insertValues = connection.prepareStatement("INSERT INTO block_values VALUES (?, ?, ?, ?, ?, ?)");
        insertGap =
                connection.prepareStatement("INSERT INTO gap (start_seconds, end_seconds, missing) VALUES (?, ?, ?)");
        insertMark = connection.prepareStatement("INSERT INTO mark (seconds, text) VALUES (?, ?)");
        insertPyramid = connection.prepareStatement("INSERT INTO pyramid VALUES (?, ?, ?, ?)");
        for (int c = 1; c <= columnCount; c++) {
            pyramids.add(new PyramidBuilder(c));
        }
    }

    /**
     * Begins a take.
     *
     * @param file must not exist
     * @param rig in force; it must name the format
     * @param started when, by the computer's calendar
     * @throws TakeException when the file exists or cannot be made
     */
    public static TakeWriter create(Path file, String title, Rig rig, Instant started) throws TakeException {
        if (Files.exists(file)) {
            throw new TakeException(file + " is there already; choose another name");
        }
        try {
            Files.createDirectories(file.toAbsolutePath().getParent());
            Connection connection = TakeSchema.connect(file);
            try {
                TakeSchema.create(connection);
                TakeWriter writer =
                        new TakeWriter(file, connection, rig.format().columns().size());
                writer.describe(title, rig, started);
                return writer;
            } catch (SQLException | TakeException e) {
                connection.close();
                Files.deleteIfExists(file);
                throw e;
            }
        } catch (SQLException | IOException e) {
            if (e instanceof TakeException said) {
                throw said;
            }
            throw new TakeException(file + " cannot be written: " + e.getMessage(), e);
        }
    }

    private void describe(String title, Rig rig, Instant started) throws SQLException, TakeException {
        put("title", title);
        put("started", started.toString());
        put("state", "recording");
        put("process", ProcessMark.own());
        put("rig", RigJson.write(rig));
        try (PreparedStatement insert = connection.prepareStatement("INSERT INTO channel_column VALUES (?, ?, ?)")) {
            int id = 1;
            for (Column column : rig.format().columns()) {
                insert.setInt(1, id++);
                insert.setString(2, column.name());
                insert.setString(3, column.unit());
                insert.executeUpdate();
            }
        }
        connection.commit();
    }

    private void put(String key, String value) throws SQLException {
        try (PreparedStatement insert = connection.prepareStatement("INSERT OR REPLACE INTO take VALUES (?, ?)")) {
            insert.setString(1, key);
            insert.setString(2, value);
            insert.executeUpdate();
        }
    }

    /** Adds a block; its times are counted from the first row of the take. @throws TakeException when it will not go */
    public void append(Block block) throws TakeException {
        if (block.columns().length != columnCount) {
            throw new IllegalArgumentException(
                    "the take has " + columnCount + " columns, the block " + block.columns().length);
        }
        if (block.rows() == 0) {
            return;
        }
        if (Double.isNaN(firstSeconds)) {
            firstSeconds = block.time().secondsAt(0);
        }
        guarded(() -> {
            insertBlock.setLong(1, rows);
            insertBlock.setInt(2, block.rows());
            insertBlock.setDouble(3, block.time().secondsAt(0) - firstSeconds);
            if (block.time() instanceof TimeBase.Steady steady) {
                insertBlock.setDouble(4, steady.periodSeconds());
            } else {
                insertBlock.setNull(4, java.sql.Types.REAL);
                double[] seconds = new double[block.rows()];
                for (int row = 0; row < seconds.length; row++) {
                    seconds[row] = sinceFirst(block.time().secondsAt(row));
                }
                values(0, Packed.of(seconds, seconds.length));
            }
            insertBlock.executeUpdate();
            for (int c = 0; c < columnCount; c++) {
                values(c + 1, Packed.of(block.columns()[c], block.rows()));
                pyramids.get(c).add(block.columns()[c], block.rows(), insertPyramid);
            }
            for (Gap gap : block.gaps()) {
                if (gap.startSeconds() >= firstSeconds) {
                    insertGap.setDouble(1, sinceFirst(gap.startSeconds()));
                    insertGap.setDouble(2, sinceFirst(gap.endSeconds()));
                    insertGap.setLong(3, gap.missing());
                    insertGap.executeUpdate();
                }
            }
            rows += block.rows();
            lastSeconds = block.lastSeconds() - firstSeconds;
        });
    }

    /** A board's clock counts whole microseconds at the finest: the difference is rounded back onto them. */
    private double sinceFirst(double seconds) {
        double difference = seconds - firstSeconds;
        double micros = Math.rint(difference * 1e6);
        return Math.abs(difference * 1e6 - micros) < 1e-3 ? micros / 1e6 : difference;
    }

    private void values(int column, Packed packed) throws SQLException {
        insertValues.setLong(1, rows);
        insertValues.setInt(2, column);
        insertValues.setInt(3, packed.width());
        insertValues.setDouble(4, packed.divisor());
        insertValues.setLong(5, packed.base());
        insertValues.setBytes(6, packed.data());
        insertValues.executeUpdate();
    }

    /** Adds a mark, at seconds of the running trail. */
    public void mark(double seconds, String text) throws TakeException {
        double at = Double.isNaN(firstSeconds) ? 0 : Math.max(0, sinceFirst(seconds));
        guarded(() -> {
            insertMark.setDouble(1, at);
            insertMark.setString(2, text);
            insertMark.executeUpdate();
        });
    }

    /** Makes everything so far safe against the end of the process. @throws TakeException when the disk will not */
    public void commit() throws TakeException {
        if (!Files.exists(file)) {
            broken = true;
            throw new TakeException(file + MISSING_FILE);
        }
        guarded(connection::commit);
    }

    /** @return rows written so far */
    public long rows() {
        return rows;
    }

    /** @return seconds from the first row to the last */
    public double seconds() {
        return lastSeconds;
    }

    /** @return the take's file */
    public Path file() {
        return file;
    }

    /** Ends the take: its pyramid is completed and it is marked as whole. @throws TakeException when the disk will not */
    public void finish() throws TakeException {
        if (!Files.exists(file)) {
            broken = true;
            throw new TakeException(file + MISSING_FILE);
        }
        guarded(() -> {
            for (PyramidBuilder pyramid : pyramids) {
                pyramid.finish(insertPyramid);
            }
            put("state", "whole");
            connection.commit();
        });
    }

    @Override
    public void close() throws TakeException {
        try {
            if (broken) {
                connection.rollback();
            }
            connection.close();
        } catch (SQLException e) {
            if (!broken) {
                throw new TakeException(file + " could not be closed: " + e.getMessage(), e);
            }
        }
    }

    @FunctionalInterface
    private interface Work {
        void run() throws SQLException;
    }

    private void guarded(Work work) throws TakeException {
        if (broken) {
            throw new TakeException(file + " took an error before; nothing more can be written to it");
        }
        try {
            work.run();
        } catch (SQLException e) {
            broken = true;
            throw new TakeException(file + ": " + reason(e) + "; recording stopped, what was written is kept", e);
        }
    }

    private static String reason(SQLException e) {
        String said = String.valueOf(e.getMessage());
        if (said.contains("SQLITE_FULL") || said.contains("SQLITE_IOERR_WRITE")) {
            return "the disk is full or takes no more";
        }
        return "the disk refused (" + said + ")";
    }
}
