package zesty.signal.core.picture;

import zesty.signal.core.text.Messages;

/**
 * What one picture, or a box in it, says; missing pixels are passed over.
 *
 * @param share of its pixels above the limit; NaN without one
 */
public record FrameNumbers(Spot hottest, Spot coldest, double mean, double share) {
    /** A pixel and its value. */
    public record Spot(double value, int x, int y) {}

    /**
     * A part of a picture, both ends in.
     *
     * @throws IllegalArgumentException when it does not run from low to high
     */
    public record Box(int x1, int x2, int y1, int y2) {
        public Box {
            if (x1 < 0 || y1 < 0 || x2 < x1 || y2 < y1) {
                throw new IllegalArgumentException(
                        Messages.of("picture.a-box-runs-from-low-to-high-from-0", x1, x2, y1, y2));
            }
        }

        /** @return a box of all of a picture */
        public static Box whole(FrameSeries series) {
            return new Box(0, series.width() - 1, 0, series.height() - 1);
        }
    }

    /** @param limit NaN for none */
    public static FrameNumbers of(FrameSeries series, int frame, Box box, double limit) {
        double high = Double.NEGATIVE_INFINITY;
        double low = Double.POSITIVE_INFINITY;
        int hot = -1;
        int cold = -1;
        double sum = 0;
        int above = 0;
        int n = 0;
        for (int y = box.y1(); y <= box.y2(); y++) {
            for (int x = box.x1(); x <= box.x2(); x++) {
                double value = series.at(frame, x, y);
                if (value != value) {
                    continue;
                }
                n++;
                sum += value;
                above += value > limit ? 1 : 0;
                if (value > high) {
                    high = value;
                    hot = y * series.width() + x;
                }
                if (value < low) {
                    low = value;
                    cold = y * series.width() + x;
                }
            }
        }
        return new FrameNumbers(
                spot(high, hot, series),
                spot(low, cold, series),
                n == 0 ? Double.NaN : sum / n,
                n == 0 || Double.isNaN(limit) ? Double.NaN : (double) above / n);
    }

    private static Spot spot(double value, int at, FrameSeries series) {
        return at < 0 ? new Spot(Double.NaN, 0, 0) : new Spot(value, at % series.width(), at / series.width());
    }
}
