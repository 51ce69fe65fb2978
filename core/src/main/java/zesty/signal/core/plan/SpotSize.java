package zesty.signal.core.plan;

import zesty.signal.core.text.Messages;

/**
 * What a heat picture's pixels see at a distance.
 *
 * @param pixel width of what one pixel sees, in m
 * @param spot smallest thing whose temperature is read whole, in m: optics smear over the neighbours, so a pixel must lie whole within
 *     it wherever it falls, and its neighbours, too
 */
public record SpotSize(double pixel, double spot) {
    /** Pixels across the smallest spot that is read whole. */
    private static final double PIXELS = 3;

    /**
     * @param pixels across the picture. @param viewDegrees field of view across it. @param metres from the sensor
     * @throws IllegalArgumentException where one of them makes no sense
     */
    public static SpotSize of(int pixels, double viewDegrees, double metres) {
        Plan.above("pixels", pixels);
        Plan.above("distance", metres);
        if (!(viewDegrees > 0) || !(viewDegrees < 180)) {
            throw new IllegalArgumentException(Messages.of("plan.a-field-of-view-lies-between-0-and", viewDegrees));
        }
        double pixel = 2 * metres * Math.tan(Math.toRadians(viewDegrees / 2)) / pixels;
        return new SpotSize(pixel, PIXELS * pixel);
    }
}
