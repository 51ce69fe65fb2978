package zesty.signal.app.window.drawing;

import java.util.List;
import javafx.scene.paint.Color;

/**
 * The colours of a heat picture, from cold to hot: from deep rind over fern and lemon to paper, each step as much lighter as every
 * other to the eye, so that it reads without colour vision and on a grey print.
 */
public final class HeatScale {
    private static final int STEPS = 256;
    /** What is missing: no colour of the scale. */
    private static final int MISSING = 0xff8a8fa8;

    private static final int[] ARGB = ramp();

    private HeatScale() {}

    private static int[] ramp() {
        List<Color> stops = Palette.HEAT;
        double from = lightness(stops.get(0));
        double to = lightness(stops.get(stops.size() - 1));
        int[] ramp = new int[STEPS];
        for (int i = 0; i < STEPS; i++) {
            double wanted = from + (to - from) * i / (STEPS - 1);
            double low = 0;
            double high = stops.size() - 1;
            // Along the stops it only gets lighter.
            for (int k = 0; k < 40; k++) {
                double middle = (low + high) / 2;
                if (lightness(along(stops, middle)) < wanted) {
                    low = middle;
                } else {
                    high = middle;
                }
            }
            Color colour = along(stops, high);
            ramp[i] = 0xff000000
                    | (int) Math.round(255 * colour.getRed()) << 16
                    | (int) Math.round(255 * colour.getGreen()) << 8
                    | (int) Math.round(255 * colour.getBlue());
        }
        return ramp;
    }

    private static Color along(List<Color> stops, double place) {
        int step = (int) Math.min(stops.size() - 2, Math.floor(place));
        return stops.get(step).interpolate(stops.get(step + 1), place - step);
    }

    /** @return how light a colour looks, 0 to 100 (CIE 1976) */
    static double lightness(Color colour) {
        double y = 0.2126 * linear(colour.getRed())
                + 0.7152 * linear(colour.getGreen())
                + 0.0722 * linear(colour.getBlue());
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
