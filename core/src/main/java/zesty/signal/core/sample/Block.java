package zesty.signal.core.sample;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.text.Messages;

/**
 * Some rows of a stream, by column: {@code columns[c][row]}. The stage that made it owns the arrays until it hands the
 * block on; whoever receives it may keep it but not write to it.
 *
 * @param time when each row was taken
 * @param columns one array a column, each at least {@code rows} long; NaN is a missing value
 * @param rows how many rows count
 * @param gaps gaps that end at a row of this block, in order
 * @param frames the picture of each row, line by line from the top; null where rows carry none
 */
public record Block(TimeBase time, double[][] columns, int rows, List<Gap> gaps, double[][] frames) {
    /** Rows without pictures. */
    public Block(TimeBase time, double[][] columns, int rows, List<Gap> gaps) {
        this(time, columns, rows, gaps, null);
    }

    public Block {
        if (frames != null && frames.length < rows) {
            throw new IllegalArgumentException(Messages.of("sample.there-are-pictures-rows", frames.length, rows));
        }
        for (double[] column : columns) {
            if (column.length < rows) {
                throw new IllegalArgumentException(
                        Messages.of("sample.a-column-holds-values-rows", column.length, rows));
            }
        }
        gaps = List.copyOf(gaps);
    }

    /** @return the time of the last row, in seconds; the block must hold one */
    public double lastSeconds() {
        return time.secondsAt(rows - 1);
    }

    /** @return these rows with other columns, or more of them */
    public Block withColumns(double[][] others) {
        return new Block(time, others, rows, gaps, frames);
    }

    /** @return the first {@code count} rows of this block; the arrays are shared */
    public Block head(int count) {
        if (count >= rows) {
            return this;
        }
        double end = count == 0 ? Double.NEGATIVE_INFINITY : time.secondsAt(count - 1);
        return new Block(
                time,
                columns,
                count,
                gaps.stream().filter(gap -> gap.endSeconds() <= end).toList(),
                frames);
    }

    /** @return the rows of this block from {@code first} on; copied unless that is all of them */
    public Block tail(int first) {
        if (first == 0) {
            return this;
        }
        double[][] rest = new double[columns.length][];
        for (int c = 0; c < rest.length; c++) {
            rest[c] = Arrays.copyOfRange(columns[c], first, rows);
        }
        double[] seconds = new double[rows - first];
        for (int row = first; row < rows; row++) {
            seconds[row - first] = time.secondsAt(row);
        }
        double start = seconds.length == 0 ? Double.POSITIVE_INFINITY : seconds[0];
        return new Block(
                new TimeBase.Explicit(seconds),
                rest,
                rows - first,
                gaps.stream().filter(gap -> gap.endSeconds() >= start).toList(),
                frames == null ? null : Arrays.copyOfRange(frames, first, rows));
    }

    /** @return the rows of all blocks in one, with a time each; a single block as it is. At least one is needed */
    public static Block join(List<Block> blocks) {
        if (blocks.size() == 1) {
            return blocks.get(0);
        }
        int total = blocks.stream().mapToInt(Block::rows).sum();
        double[][] joined = new double[blocks.get(0).columns.length][total];
        double[] seconds = new double[total];
        double[][] frames = blocks.get(0).frames == null ? null : new double[total][];
        List<Gap> gaps = new ArrayList<>();
        int at = 0;
        for (Block block : blocks) {
            for (int c = 0; c < joined.length; c++) {
                System.arraycopy(block.columns[c], 0, joined[c], at, block.rows);
            }
            if (frames != null) {
                System.arraycopy(block.frames, 0, frames, at, block.rows);
            }
            for (int row = 0; row < block.rows; row++) {
                seconds[at + row] = block.time.secondsAt(row);
            }
            gaps.addAll(block.gaps);
            at += block.rows;
        }
        return new Block(new TimeBase.Explicit(seconds), joined, total, gaps, frames);
    }
}
