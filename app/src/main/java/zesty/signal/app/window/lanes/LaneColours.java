package zesty.signal.app.window.lanes;

/** Colours of a lane's picture, each 0xAARRGGBB and opaque. */
public record LaneColours(int card, int grid, int gridStrong, int gap, int gapLine, int ink, int line) {

    /** @return colour b laid over colour a with the given weight, 0 … 1 */
    static int mix(int a, int b, float weight) {
        float w = Math.max(0, Math.min(1, weight));
        int red = Math.round(((a >> 16) & 0xff) * (1 - w) + ((b >> 16) & 0xff) * w);
        int green = Math.round(((a >> 8) & 0xff) * (1 - w) + ((b >> 8) & 0xff) * w);
        int blue = Math.round((a & 0xff) * (1 - w) + (b & 0xff) * w);
        return 0xff000000 | red << 16 | green << 8 | blue;
    }
}
