package zesty.signal.app.window.drawing;

/** Colours of a lane's picture, each 0xAARRGGBB and opaque. */
public record LaneColours(int card, int grid, int gridStrong, int gap, int gapLine, int ink, int line) {

    private static final int RED_AND_BLUE = 0xff00ff;
    private static final int GREEN = 0x00ff00;
    /** Half a step of red and of blue, and of green, so that what is cut off is rounded. */
    private static final int HALF_RED_AND_BLUE = 0x800080;

    private static final int HALF_GREEN = 0x008000;

    /** @return colour b laid over colour a with the given weight, 0 … 1; in steps of 1/256, for it is worked out for most pixels of a lane */
    public static int mix(int a, int b, float weight) {
        int w = weight <= 0 ? 0 : weight >= 1 ? 256 : (int) (weight * 256 + 0.5f);
        int rest = 256 - w;
        int redAndBlue = ((a & RED_AND_BLUE) * rest + (b & RED_AND_BLUE) * w + HALF_RED_AND_BLUE) >>> 8;
        int green = ((a & GREEN) * rest + (b & GREEN) * w + HALF_GREEN) >>> 8;
        return 0xff000000 | redAndBlue & RED_AND_BLUE | green & GREEN;
    }
}
