package zesty.signal.engine;

import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.picture.Film;
import zesty.signal.core.picture.FrameRing;
import zesty.signal.core.picture.PictureSetup;

/** The pictures of a running stream, as far back as they are kept. Any thread. */
record RunningFilm(FrameRing frames, PictureFormat format) implements Film {
    @Override
    public int width() {
        return format.width();
    }

    @Override
    public int height() {
        return format.rows();
    }

    @Override
    public PictureSetup setup() {
        return format.setup();
    }

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
        return other instanceof RunningFilm one && one.frames == frames;
    }

    @Override
    public double[] raw(long row) {
        return frames.frame(row);
    }
}
