package zesty.signal.takes;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.Arrays;

/** Gathers the extremes of one column, level by level, and stores them in runs of cells. */
final class PyramidBuilder {
    private static final int RUN = 64;

    private final int columnId;
    private final boolean checked;
    private final Level[] levels = new Level[TakeSchema.LEVELS];

    PyramidBuilder(int columnId) {
        this(columnId, true);
    }

    /** @param checked whether the take's rows carry checksums */
    PyramidBuilder(int columnId, boolean checked) {
        this.columnId = columnId;
        this.checked = checked;
        int size = TakeSchema.CELL;
        for (int i = 0; i < levels.length; i++, size *= TakeSchema.FAN) {
            levels[i] = new Level(size);
        }
    }

    /** @return the statement that stores a run */
    static String insert(boolean checked) {
        return "INSERT INTO pyramid VALUES (?, ?, ?, ?" + (checked ? ", ?)" : ")");
    }

    private static final class Level {
        final int size;
        final double[] run = new double[2 * RUN];
        int filled;
        int inRun;
        long firstCell;

        Level(int size) {
            this.size = size;
            Arrays.fill(run, Double.NaN);
        }

        /** Takes samples of one cell. @return whether the run is full */
        boolean add(double[] values, int from, int to) {
            int at = 2 * inRun;
            double low = run[at];
            double high = run[at + 1];
            for (int i = from; i < to; i++) {
                double value = values[i];
                low = value >= low ? low : value == value ? value : low;
                high = value <= high ? high : value == value ? value : high;
            }
            run[at] = low;
            run[at + 1] = high;
            filled += to - from;
            if (filled == size) {
                filled = 0;
                inRun++;
            }
            return inRun == RUN;
        }
    }

    void add(double[] values, int length, PreparedStatement insert) throws SQLException {
        for (int l = 0; l < levels.length; l++) {
            int at = 0;
            while (at < length) {
                int end = Math.min(length, at + levels[l].size - levels[l].filled);
                if (levels[l].add(values, at, end)) {
                    store(l, insert);
                }
                at = end;
            }
        }
    }

    /** Stores what is begun, the last cell of each level being a part of one. */
    void finish(PreparedStatement insert) throws SQLException {
        for (int l = 0; l < levels.length; l++) {
            store(l, insert);
        }
    }

    private void store(int l, PreparedStatement insert) throws SQLException {
        Level level = levels[l];
        int cells = level.inRun + (level.filled > 0 ? 1 : 0);
        if (cells == 0) {
            return;
        }
        ByteBuffer data = ByteBuffer.allocate(cells * 16).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < 2 * cells; i++) {
            data.putDouble(level.run[i]);
        }
        insert.setInt(1, columnId);
        insert.setInt(2, l + 1);
        insert.setLong(3, level.firstCell);
        insert.setBytes(4, data.array());
        if (checked) {
            insert.setLong(5, Checks.of(columnId, l + 1, level.firstCell, data.array()));
        }
        insert.executeUpdate();
        level.firstCell += level.inRun;
        level.inRun = 0;
        Arrays.fill(level.run, Double.NaN);
    }
}
