package zesty.signal.core.scale;

import zesty.signal.core.text.Messages;

/** y = slope · x + offset. */
public record Line(double slope, double offset) implements Conversion {
    /** What came, as it came. */
    public static final Line SAME = new Line(1, 0);

    public Line {
        if (slope == 0 || !Double.isFinite(slope) || !Double.isFinite(offset)) {
            throw new IllegalArgumentException(Messages.of("scale.the-slope-must-not-be-0-and-both", slope, offset));
        }
    }

    /** @return whether it leaves a number as it came */
    public boolean isSame() {
        return slope == 1 && offset == 0;
    }

    /** @return the line through two points, which must differ in both */
    public static Line through(double x1, double y1, double x2, double y2) {
        if (x1 == x2 || y1 == y2) {
            throw new IllegalArgumentException(Messages.of(
                    "scale.two-points-that-differ-in-both",
                    Digits.of(x1),
                    Digits.of(y1),
                    Digits.of(x2),
                    Digits.of(y2)));
        }
        double slope = (y2 - y1) / (x2 - x1);
        return new Line(slope, y1 - slope * x1);
    }

    @Override
    public double apply(double x) {
        return slope * x + offset;
    }

    @Override
    public double invert(double y) {
        return (y - offset) / slope;
    }

    @Override
    public void apply(double[] values, int length) {
        for (int i = 0; i < length; i++) {
            values[i] = slope * values[i] + offset;
        }
    }

    @Override
    public String unit() {
        return "";
    }

    @Override
    public String takes() {
        return "";
    }

    @Override
    public String words() {
        return equals(SAME) ? Messages.of("scale.raw") : Messages.of("scale.a-line");
    }

    @Override
    public String sum(double x) {
        return Digits.of(slope) + " × " + Digits.of(x) + (offset < 0 ? " \u2212 " : " + ")
                + Digits.of(Math.abs(offset));
    }
}
