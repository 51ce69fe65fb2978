package zesty.signal.core.picture;

import java.util.ArrayList;
import java.util.List;

/** Paints pictures of numbers into pixels, and finds their lines of one value. No toolkit in it. */
public final class FramePainter {
    private FramePainter() {}

    /** Where in the pixels it is painted. */
    public record Place(int x, int y, int width, int height) {}

    /**
     * @param pixels rows of {@code stride}. @param low and {@code high} ends of the scale
     * @param smooth whether values between pixels are shown in between, for looking only
     */
    public static void paint(
            int[] pixels, int stride, Place at, double[] frame, Turned how, double low, double high, boolean smooth) {
        double span = Math.max(1e-9, high - low);
        for (int j = 0; j < at.height(); j++) {
            double seenY = (j + 0.5) * how.seenHeight() / at.height();
            for (int i = 0; i < at.width(); i++) {
                double seenX = (i + 0.5) * how.seenWidth() / at.width();
                double[] on = how.sensor(seenX, seenY);
                double value = smooth ? between(frame, how, on[0], on[1]) : at(frame, how, (int) on[0], (int) on[1]);
                int x = at.x() + i;
                int y = at.y() + j;
                if (x >= 0 && x < stride && y >= 0 && (y + 1) * stride <= pixels.length) {
                    pixels[y * stride + x] = HeatScale.argb((value - low) / span);
                }
            }
        }
    }

    private static double at(double[] frame, Turned how, int x, int y) {
        int column = Math.max(0, Math.min(how.width() - 1, x));
        int row = Math.max(0, Math.min(how.height() - 1, y));
        return frame[row * how.width() + column];
    }

    private static double between(double[] frame, Turned how, double x, double y) {
        double left = Math.floor(x - 0.5);
        double top = Math.floor(y - 0.5);
        double right = x - 0.5 - left;
        double down = y - 0.5 - top;
        double above =
                at(frame, how, (int) left, (int) top) * (1 - right) + at(frame, how, (int) left + 1, (int) top) * right;
        double below = at(frame, how, (int) left, (int) top + 1) * (1 - right)
                + at(frame, how, (int) left + 1, (int) top + 1) * right;
        return above * (1 - down) + below * down;
    }

    /** A piece of a line of one value, in places on the sensor; the middles of pixels are halves. */
    public record Piece(double x1, double y1, double x2, double y2) {}

    /** @return where a picture passes a value: between the middles of four pixels, straight. Missing ones part it */
    public static List<Piece> contour(double[] frame, int width, double value) {
        List<Piece> pieces = new ArrayList<>();
        int height = frame.length / width;
        double[] xs = new double[4];
        double[] ys = new double[4];
        for (int y = 0; y + 1 < height; y++) {
            for (int x = 0; x + 1 < width; x++) {
                double a = frame[y * width + x] - value;
                double b = frame[y * width + x + 1] - value;
                double c = frame[(y + 1) * width + x + 1] - value;
                double d = frame[(y + 1) * width + x] - value;
                if (Double.isNaN(a + b + c + d)) {
                    continue;
                }
                int n = 0;
                n = cross(a, b, x + 0.5, y + 0.5, 1, 0, xs, ys, n);
                n = cross(b, c, x + 1.5, y + 0.5, 0, 1, xs, ys, n);
                n = cross(d, c, x + 0.5, y + 1.5, 1, 0, xs, ys, n);
                n = cross(a, d, x + 0.5, y + 0.5, 0, 1, xs, ys, n);
                if (n >= 2) {
                    pieces.add(new Piece(xs[0], ys[0], xs[1], ys[1]));
                }
                if (n == 4) {
                    pieces.add(new Piece(xs[2], ys[2], xs[3], ys[3]));
                }
            }
        }
        return pieces;
    }

    private static int cross(
            double from, double to, double x, double y, double dx, double dy, double[] xs, double[] ys, int n) {
        if (from < 0 == to < 0) {
            return n;
        }
        double share = from / (from - to);
        xs[n] = x + dx * share;
        ys[n] = y + dy * share;
        return n + 1;
    }
}
