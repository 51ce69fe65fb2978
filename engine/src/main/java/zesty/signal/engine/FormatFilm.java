package zesty.signal.engine;

import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.picture.Film;
import zesty.signal.core.picture.PictureSetup;

/** The pictures of a stream of a format, which says how large they are and what is made of them. */
interface FormatFilm extends Film {
    PictureFormat format();

    @Override
    default int width() {
        return format().width();
    }

    @Override
    default int height() {
        return format().rows();
    }

    @Override
    default PictureSetup setup() {
        return format().setup();
    }
}
