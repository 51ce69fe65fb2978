package zesty.signal.engine;

import java.util.HashMap;
import java.util.Map;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.picture.Film;

/** Rows with what is worked out of their pictures by a rig: the channels of regions, and those of mended pictures. Any thread may read. */
final class PictureRows implements Rows {
    private final Rows stored;
    private final Film film;
    private final int summaries;
    /** Of rows in memory each column once. */
    private final Map<Integer, double[]> whole = new HashMap<>();

    PictureRows(Rows stored, Film film) {
        this.stored = stored;
        this.film = film;
        summaries = PictureFormat.SUMMARIES;
    }

    Rows stored() {
        return stored;
    }

    @Override
    public long count() {
        return stored.count();
    }

    @Override
    public double[] seconds(long from, long to) {
        return stored.seconds(from, to);
    }

    @Override
    public boolean held() {
        return stored.held();
    }

    @Override
    public double[] values(int column, long from, long to) {
        if (column < summaries && film.setup().mend().isNone()) {
            return stored.values(column, from, to);
        }
        if (!held()) {
            return made(from, to)[column];
        }
        double[] all;
        synchronized (whole) {
            if (whole.isEmpty()) {
                double[][] made = made(0, count());
                for (int c = 0; c < made.length; c++) {
                    whole.put(c, made[c]);
                }
            }
            all = whole.get(column);
        }
        return from == 0 && to == all.length ? all : java.util.Arrays.copyOfRange(all, (int) from, (int) to);
    }

    private double[][] made(long from, long to) {
        int rows = (int) (to - from);
        double[][] frames = new double[rows][];
        for (int row = 0; row < rows; row++) {
            frames[row] = film.raw(from + row);
        }
        double[][] came = new double[summaries][];
        for (int c = 0; c < summaries; c++) {
            came[c] = stored.values(c, from, to);
        }
        return film.setup().columns(frames, rows, film.width(), came);
    }
}
