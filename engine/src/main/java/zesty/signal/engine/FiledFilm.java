package zesty.signal.engine;

import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.picture.Film;
import zesty.signal.takes.Take;

/** The pictures of a source of a take that is too long for memory: each is read from its file when it is asked for. Any thread; all that read wait for each other. */
record FiledFilm(Take take, int source, PictureFormat format) implements FormatFilm {
    @Override
    public long start() {
        return 0;
    }

    @Override
    public long end() {
        return take.rows(source);
    }

    @Override
    public boolean isAtHand() {
        return false;
    }

    @Override
    public boolean sameSource(Film other) {
        return other instanceof FiledFilm one && one.take == take && one.source == source;
    }

    @Override
    public double[] raw(long row) {
        synchronized (take) {
            return take.frame(source, row);
        }
    }
}
