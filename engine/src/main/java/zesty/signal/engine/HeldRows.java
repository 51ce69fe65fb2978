package zesty.signal.engine;

import java.util.Arrays;

/** Rows in memory: of a take that is small, or of one station of several. */
record HeldRows(double[][] columns, double[] times) implements Rows {
    @Override
    public long count() {
        return times.length;
    }

    @Override
    public double[] values(int column, long from, long to) {
        return part(columns[column], from, to);
    }

    @Override
    public double[] seconds(long from, long to) {
        return part(times, from, to);
    }

    @Override
    public boolean held() {
        return true;
    }

    private static double[] part(double[] all, long from, long to) {
        return from == 0 && to == all.length ? all : Arrays.copyOfRange(all, (int) from, (int) to);
    }
}
