package zesty.signal.engine;

import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.picture.Film;
import zesty.signal.core.picture.FrameRing;

/** Pictures in memory: of a running stream, as far back as they are kept, or of a take that is small. Any thread. */
record HeldFilm(FrameRing frames, PictureFormat format) implements FormatFilm {
    @Override
    public long start() {
        return frames.start();
    }

    @Override
    public long end() {
        return frames.end();
    }

    @Override
    public boolean sameSource(Film other) {
        return other instanceof HeldFilm one && one.frames == frames;
    }

    @Override
    public double[] raw(long row) {
        return frames.frame(row);
    }
}
