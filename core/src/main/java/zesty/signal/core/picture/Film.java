package zesty.signal.core.picture;

/** The pictures of a line of samples, one a row: what lanes and benches draw. Any thread. */
public interface Film {
    int width();

    int height();

    /** @return what they are made right and shown by */
    PictureSetup setup();

    /** @return the first row whose picture is at hand */
    long start();

    /** @return one past the newest row */
    long end();

    /** @return the picture of a row as it came, row by row from the top; null where it is missing or not at hand yet. The caller's own */
    double[] raw(long row);

    /** @return whether pictures come at once, and not from a file */
    default boolean isAtHand() {
        return true;
    }

    /** @return whether both give the same pictures as they came */
    boolean sameSource(Film other);

    /** @return the picture of a row made right; null where it is missing or not at hand yet */
    default double[] frame(long row) {
        double[] came = raw(row);
        return came == null ? null : setup().mend().of(came, width());
    }
}
