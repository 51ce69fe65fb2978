package zesty.signal.core.picture;

/**
 * The colours of a heat picture, from cold to hot: from deep rind over fern and lemon to paper, each step as much lighter as every
 * other to the eye (lightness of CIE 1976), so that it reads without colour vision and on a grey print.
 */
public final class HeatScale {
    private static final int STEPS = 256;
    /** Red, green, blue of the product's colours from dark to light. */
    private static final int[][] STOPS = {{0x22, 0x30, 0x2a}, {0x2f, 0x7d, 0x4f}, {0xf2, 0xb6, 0x32}, {0xff, 0xfd, 0xf8}
    };
    /** What is missing: no colour of the scale. */
    private static final int MISSING = 0xff8a8fa8;

    private static final int[] ARGB = ramp();

    private HeatScale() {}

    private static int[] ramp() {
        double from = lightness(along(0));
        double to = lightness(along(STOPS.length - 1));
        int[] ramp = new int[STEPS];
        for (int i = 0; i < STEPS; i++) {
            double wanted = from + (to - from) * i / (STEPS - 1);
            double low = 0;
            double high = STOPS.length - 1;
            // Along the stops it only gets lighter.
            for (int k = 0; k < 40; k++) {
                double middle = (low + high) / 2;
                if (lightness(along(middle)) < wanted) {
                    low = middle;
                } else {
                    high = middle;
                }
            }
            double[] colour = along(high);
            ramp[i] = 0xff000000
                    | (int) Math.round(255 * colour[0]) << 16
                    | (int) Math.round(255 * colour[1]) << 8
                    | (int) Math.round(255 * colour[2]);
        }
        return ramp;
    }

    /** @return red, green, blue, 0 to 1, between two stops */
    private static double[] along(double place) {
        int step = (int) Math.min(STOPS.length - 2, Math.floor(place));
        double share = place - step;
        double[] colour = new double[3];
        for (int c = 0; c < 3; c++) {
            colour[c] = (STOPS[step][c] * (1 - share) + STOPS[step + 1][c] * share) / 255;
        }
        return colour;
    }

    private static double lightness(double[] colour) {
        return lightness(colour[0], colour[1], colour[2]);
    }

    /** @return how light a colour of red, green and blue from 0 to 1 looks, 0 to 100 (CIE 1976) */
    public static double lightness(double red, double green, double blue) {
        double y = 0.2126 * linear(red) + 0.7152 * linear(green) + 0.0722 * linear(blue);
        return y > 0.008856 ? 116 * Math.cbrt(y) - 16 : 903.3 * y;
    }

    private static double linear(double part) {
        return part <= 0.04045 ? part / 12.92 : Math.pow((part + 0.055) / 1.055, 2.4);
    }

    /** @return the colour at a share of the scale, held within it; that of what is missing for NaN */
    public static int argb(double share) {
        if (share != share) {
            return MISSING;
        }
        return ARGB[(int) Math.round(Math.max(0, Math.min(1, share)) * (STEPS - 1))];
    }
}
