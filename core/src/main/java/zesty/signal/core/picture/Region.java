package zesty.signal.core.picture;

import java.util.Locale;
import zesty.signal.core.text.Messages;

/**
 * A part of a picture that is a channel of its own: a box, a point (a box of one pixel), or a line.
 *
 * @param name of its channel, never empty
 * @param x1 column where it begins, from 0. @param y1 row. @param x2 and {@code y2} where it ends, itself part of it
 * @param limit in the picture's unit, for the share above it; NaN for none
 */
public record Region(String name, Form form, int x1, int y1, int x2, int y2, Measure measure, double limit) {
    /** What it is drawn as. */
    public enum Form {
        BOX,
        LINE
    }

    /** Which number it gives, one a picture. */
    public enum Measure {
        HOTTEST,
        COLDEST,
        MEAN,
        /** Share of its pixels above the limit, in %. */
        ABOVE;

        /** @return as files and the window have it */
        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    public Region {
        if (name.isBlank()) {
            throw new IllegalArgumentException(Messages.of("picture.a-part-of-a-picture-needs-a-name"));
        }
        if (x1 < 0 || y1 < 0 || x2 < 0 || y2 < 0 || form == Form.BOX && (x2 < x1 || y2 < y1)) {
            throw new IllegalArgumentException(
                    Messages.of("picture.a-box-runs-from-low-to-high-from-0", x1, x2, y1, y2));
        }
        if (measure == Measure.ABOVE && Double.isNaN(limit)) {
            throw new IllegalArgumentException(Messages.of("picture.the-share-above-a-limit-needs-the"));
        }
    }

    /** @return a box between two corners, whichever they are */
    public static Region box(String name, int xa, int ya, int xb, int yb, Measure measure) {
        return new Region(
                name,
                Form.BOX,
                Math.min(xa, xb),
                Math.min(ya, yb),
                Math.max(xa, xb),
                Math.max(ya, yb),
                measure,
                Double.NaN);
    }

    public boolean isPoint() {
        return x1 == x2 && y1 == y2;
    }

    /** @return whether it lies within a picture of that size */
    public boolean fits(int width, int height) {
        return Math.max(x1, x2) < width && Math.max(y1, y2) < height;
    }

    public Region withName(String other) {
        return new Region(other, form, x1, y1, x2, y2, measure, limit);
    }

    public Region withMeasure(Measure other, double otherLimit) {
        return new Region(name, form, x1, y1, x2, y2, other, otherLimit);
    }

    /** @return the unit of its channel in a picture of that unit */
    public String unit(String ofPicture) {
        return measure == Measure.ABOVE ? "%" : ofPicture;
    }

    /** @return the values along it, of a line from its begin to its end, nearest pixels; of a box row by row */
    public double[] profile(double[] frame, int width) {
        if (form == Form.BOX) {
            double[] values = new double[(x2 - x1 + 1) * (y2 - y1 + 1)];
            int n = 0;
            for (int y = y1; y <= y2; y++) {
                for (int x = x1; x <= x2; x++) {
                    values[n++] = frame[y * width + x];
                }
            }
            return values;
        }
        int steps = Math.max(Math.abs(x2 - x1), Math.abs(y2 - y1));
        double[] values = new double[steps + 1];
        for (int i = 0; i <= steps; i++) {
            double share = steps == 0 ? 0 : (double) i / steps;
            long x = Math.round(x1 + share * (x2 - x1));
            long y = Math.round(y1 + share * (y2 - y1));
            values[i] = frame[(int) (y * width + x)];
        }
        return values;
    }

    /** @return its number of a picture; NaN where all its pixels are missing */
    public double of(double[] frame, int width) {
        double high = Double.NaN;
        double low = Double.NaN;
        double sum = 0;
        int above = 0;
        int n = 0;
        for (double value : profile(frame, width)) {
            if (value == value) {
                high = n == 0 ? value : Math.max(high, value);
                low = n == 0 ? value : Math.min(low, value);
                sum += value;
                above += value > limit ? 1 : 0;
                n++;
            }
        }
        return switch (measure) {
            case HOTTEST -> high;
            case COLDEST -> low;
            case MEAN -> n == 0 ? Double.NaN : sum / n;
            case ABOVE -> n == 0 ? Double.NaN : 100.0 * above / n;
        };
    }
}
