package zesty.signal.app.window.drawing;

import java.nio.IntBuffer;
import java.util.HashMap;
import java.util.Map;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.paint.Color;
import zesty.signal.core.picture.Film;
import zesty.signal.core.picture.FramePainter;
import zesty.signal.core.picture.FrameRange;
import zesty.signal.core.picture.PictureSetup;
import zesty.signal.core.picture.Turned;
import zesty.signal.core.sample.Times;

/** Pictures of a film side by side along a time axis, all by one scale. JavaFX thread only. */
public final class FilmStrip extends ImageView {
    private static final int BETWEEN = 4;
    /** The scale is looked at anew so often, in s. */
    private static final double RESCALE_SECONDS = 1;

    /** Less than this share off, the scale stays: a strip must not flicker. */
    private static final double SAME_SHARE = 0.03;

    private final FrameStore store;
    private final Map<Long, int[]> painted = new HashMap<>();
    private final FrameRange range = new FrameRange();
    private PixelBuffer<IntBuffer> buffer;
    private int[] pixels = {};
    private int width;
    private int height;
    private Film shown;
    private PictureSetup setup;
    private int shownHeight;
    private double rescaledAt = Double.NEGATIVE_INFINITY;

    public FilmStrip(FrameStore store) {
        this.store = store;
        setSmooth(false);
        setManaged(false);
    }

    /** @return how wide one picture is at a height, in pixels */
    public static int thumb(Film film, int high) {
        Turned how = Turned.of(film.width(), film.height(), film.setup());
        return Math.max(6, Math.min(3 * high, high * how.seenWidth() / how.seenHeight()));
    }

    /** Paints the pictures between two moments. @param now seconds on any steady clock */
    public void paint(Film film, Times times, double from, double to, int wide, int high, Color ground, double now) {
        if (wide < 8 || high < 8 || times == null) {
            return;
        }
        fit(wide, high);
        java.util.Arrays.fill(pixels, argb(ground));
        if (shown == null || !film.sameSource(shown) || !film.setup().equals(setup) || shownHeight != high) {
            painted.clear();
            shown = film;
            setup = film.setup();
            shownHeight = high;
            rescaledAt = Double.NEGATIVE_INFINITY;
        }
        int thumb = thumb(film, high);
        int places = Math.max(1, wide / (thumb + BETWEEN));
        double step = (to - from) / places;
        rescale(film, times, from, to, step, now);
        if (Double.isNaN(range.low())) {
            return;
        }
        painted.keySet().removeIf(row -> row < film.start() || painted.size() > 4 * places);
        for (long k = (long) Math.floor(from / step); k <= Math.ceil(to / step); k++) {
            long row = row(film, times, (k + 0.5) * step, step);
            int[] one = row < 0 ? null : thumb(film, row, thumb, high);
            int left = (int) Math.round(((k + 0.5) * step - from) / (to - from) * wide) - thumb / 2;
            for (int y = 0; one != null && y < high; y++) {
                int first = Math.max(0, -left);
                int last = Math.min(thumb, wide - left);
                if (last > first) {
                    System.arraycopy(one, y * thumb + first, pixels, y * wide + left + first, last - first);
                }
            }
        }
        buffer.updateBuffer(all -> null);
    }

    private static int argb(Color colour) {
        return 0xff000000
                | (int) Math.round(255 * colour.getRed()) << 16
                | (int) Math.round(255 * colour.getGreen()) << 8
                | (int) Math.round(255 * colour.getBlue());
    }

    /** @return the row whose picture stands for a moment; −1 where none is near */
    private static long row(Film film, Times times, double moment, double step) {
        long row = Math.min(times.firstAtOrAfter(moment), times.end() - 1);
        if (row < film.start() || row >= film.end() || row < times.start()) {
            return -1;
        }
        if (row > film.start() && row - 1 >= times.start()) {
            boolean before = moment - times.secondsAt(row - 1) < Math.abs(times.secondsAt(row) - moment);
            row = before ? row - 1 : row;
        }
        return Math.abs(times.secondsAt(row) - moment) <= Math.max(step, 0.01) ? row : -1;
    }

    private void rescale(Film film, Times times, double from, double to, double step, double now) {
        if (now - rescaledAt < RESCALE_SECONDS && !Double.isNaN(range.low())) {
            return;
        }
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (long k = (long) Math.floor(from / step); k <= Math.ceil(to / step); k++) {
            long row = row(film, times, (k + 0.5) * step, step);
            double[] frame = row < 0 ? null : store.frame(film, row);
            if (frame != null) {
                double[] ends = PictureSetup.summaries(frame);
                low = Math.min(low, ends[1]);
                high = Math.max(high, ends[0]);
            }
        }
        if (low > high) {
            return;
        }
        rescaledAt = now;
        double room = SAME_SHARE * (high - low);
        boolean same = Math.abs(low - range.low()) < room && Math.abs(high - range.high()) < room;
        if (!same) {
            painted.clear();
            range.hold(low, high);
        }
    }

    private int[] thumb(Film film, long row, int wide, int high) {
        int[] one = painted.get(row);
        double[] frame = one != null ? null : store.frame(film, row);
        if (frame != null) {
            one = new int[wide * high];
            Turned how = Turned.of(film.width(), film.height(), film.setup());
            FramePainter.paint(
                    one, wide, new FramePainter.Place(0, 0, wide, high), frame, how, range.low(), range.high(), false);
            painted.put(row, one);
        }
        return one;
    }

    private void fit(int wide, int high) {
        if (buffer != null && width == wide && height == high) {
            return;
        }
        width = wide;
        height = high;
        IntBuffer ints = IntBuffer.allocate(wide * high);
        pixels = ints.array();
        buffer = new PixelBuffer<>(wide, high, ints, PixelFormat.getIntArgbPreInstance());
        setImage(new WritableImage(buffer));
    }
}
