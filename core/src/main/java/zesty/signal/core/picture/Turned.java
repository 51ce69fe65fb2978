package zesty.signal.core.picture;

/**
 * How a picture is looked at: mirrored, then turned to the right by quarters. Places on the sensor and places in sight, both from
 * the top left.
 *
 * @param width of the sensor. @param height of the sensor
 */
public record Turned(int width, int height, int quarters, boolean mirrored) {
    public static Turned of(int width, int height, PictureSetup setup) {
        return new Turned(width, height, setup.quarterTurns(), setup.mirrored());
    }

    public int seenWidth() {
        return quarters % 2 == 0 ? width : height;
    }

    public int seenHeight() {
        return quarters % 2 == 0 ? height : width;
    }

    /** @return {x, y} in sight of a place on the sensor, in pixels of it; whole numbers are corners of pixels */
    public double[] seen(double x, double y) {
        double sx = mirrored ? width - x : x;
        return switch (quarters) {
            case 1 -> new double[] {height - y, sx};
            case 2 -> new double[] {width - sx, height - y};
            case 3 -> new double[] {y, width - sx};
            default -> new double[] {sx, y};
        };
    }

    /** @return {x, y} on the sensor of a place in sight */
    public double[] sensor(double seenX, double seenY) {
        double sx;
        double y;
        switch (quarters) {
            case 1 -> {
                sx = seenY;
                y = height - seenX;
            }
            case 2 -> {
                sx = width - seenX;
                y = height - seenY;
            }
            case 3 -> {
                sx = width - seenY;
                y = seenX;
            }
            default -> {
                sx = seenX;
                y = seenY;
            }
        }
        return new double[] {mirrored ? width - sx : sx, y};
    }
}
