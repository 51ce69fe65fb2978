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

        boolean add(double value) {
            int low = 2 * inRun;
            run[low] = value >= run[low] ? run[low] : value == value ? value : run[low];
            run[low + 1] = value <= run[low + 1] ? run[low + 1] : value == value ? value : run[low + 1];
            if (++filled == size) {
                filled = 0;
                inRun++;
            }
            return inRun == RUN;
        }
    }

    void add(double[] values, int length, PreparedStatement insert) throws SQLException {
        for (int l = 0; l < levels.length; l++) {
            for (int i = 0; i < length; i++) {
                if (levels[l].add(values[i])) {
                    store(l, insert);
                }
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
