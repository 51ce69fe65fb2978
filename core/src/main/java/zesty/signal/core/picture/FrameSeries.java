package zesty.signal.core.picture;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zesty.signal.core.text.Messages;

/**
 * Pictures of one size, each with its time.
 *
 * @param seconds of each, never falling
 * @param frames one array a picture, row by row from the top; NaN where a pixel is missing. Not copied and not to be changed
 */
public record FrameSeries(int width, int height, double[] seconds, double[][] frames) {
    private static final Pattern PIXEL = Pattern.compile("r(\\d+)c(\\d+)");

    public FrameSeries {
        if (width < 1 || height < 1 || seconds.length != frames.length) {
            throw new IllegalArgumentException(Messages.of(
                    "picture.pictures-need-a-width-and-a-height", width, height, frames.length, seconds.length));
        }
    }

    /** Gives the values of a column by its name, one a picture. */
    public interface Columns<E extends Exception> {
        double[] of(String name) throws E;
    }

    /**
     * Puts pictures together from columns r1c1, r1c2, … that a stream of pictures is kept as; other columns are passed over.
     *
     * @throws IllegalArgumentException when they make no picture, saying what is missing
     */
    public static <E extends Exception> FrameSeries of(List<String> names, Columns<E> columns, double[] seconds)
            throws E {
        int width = 0;
        int height = 0;
        int pixels = 0;
        for (String name : names) {
            Matcher pixel = PIXEL.matcher(name);
            if (pixel.matches()) {
                height = Math.max(height, Integer.parseInt(pixel.group(1)));
                width = Math.max(width, Integer.parseInt(pixel.group(2)));
                pixels++;
            }
        }
        if (pixels == 0 || pixels != width * height) {
            throw new IllegalArgumentException(
                    pixels == 0
                            ? Messages.of("picture.it-holds-no-picture-columns-r1c1")
                            : Messages.of("picture.its-picture-is-not-whole-pixels-of", pixels, width, height));
        }
        double[][] frames = new double[seconds.length][pixels];
        for (String name : names) {
            Matcher pixel = PIXEL.matcher(name);
            if (pixel.matches()) {
                int at = (Integer.parseInt(pixel.group(1)) - 1) * width + Integer.parseInt(pixel.group(2)) - 1;
                double[] values = columns.of(name);
                for (int f = 0; f < frames.length; f++) {
                    frames[f][at] = values[f];
                }
            }
        }
        return new FrameSeries(width, height, seconds, frames);
    }

    /** @return the name of a pixel's column, where each has one */
    public static String pixel(int x, int y) {
        return "r" + (y + 1) + "c" + (x + 1);
    }

    public int count() {
        return frames.length;
    }

    public double at(int frame, int x, int y) {
        return frames[frame][y * width + x];
    }
}
