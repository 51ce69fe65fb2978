package zesty.signal.app.window.lanes;

import java.util.Locale;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Where the time grid stands and what its labels say. Live labels count back from now, stored ones from the start. */
final class TimeTicks {
    private static final double[] STEPS = {
        0.0001, 0.0002, 0.0005, 0.001, 0.002, 0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 30, 60, 120, 300,
        600, 1800, 3600, 7200, 14400
    };
    private static final double LABEL_PIXELS = 150;
    private static final int MOST = 200;

    private final double[] pixels = new double[MOST];
    private final String[] labels = new String[MOST];
    private int count;
    private double labelStep = 1;

    /** @param zero the time that is labelled 0; live, that is now, and labels are negative */
    void compute(double from, double to, int width, double zero, boolean live) {
        double wanted = (to - from) * LABEL_PIXELS / Math.max(width, 1);
        int index = STEPS.length - 1;
        for (int i = STEPS.length - 1; i >= 0 && STEPS[i] >= wanted; i--) {
            index = i;
        }
        labelStep = STEPS[index];
        double minor = labelStep / 5;
        count = 0;
        long first = (long) Math.ceil((from - zero) / minor);
        for (long k = first; k * minor + zero <= to + (to - from) / Math.max(width, 1) && count < MOST; k++) {
            pixels[count] = (k * minor + zero - from) / (to - from) * width;
            labels[count++] = Math.floorMod(k, 5) == 0 ? label(k * minor, live) : null;
        }
    }

    int count() {
        return count;
    }

    double pixel(int i) {
        return pixels[i];
    }

    boolean labelled(int i) {
        return labels[i] != null;
    }

    String label(int i) {
        return labels[i];
    }

    private String label(double seconds, boolean live) {
        if (live && Math.abs(seconds) < labelStep / 2) {
            return Messages.of("lanes.now");
        }
        return text(seconds, labelStep);
    }

    /** @return a time in words, as exact as the step asks for */
    static String text(double seconds, double step) {
        String sign = seconds < -step / 2 ? "\u2212" : "";
        double size = Math.abs(seconds);
        if (size >= 60 && step >= 1) {
            long whole = Math.round(size);
            String hours = whole >= 3600 ? whole / 3600 + ":" : "";
            String minutes = String.format(Locale.ROOT, hours.isEmpty() ? "%d:" : "%02d:", whole / 60 % 60);
            return sign + hours + minutes + String.format(Locale.ROOT, "%02d", whole % 60);
        }
        int decimals = (int) Math.max(0, Math.ceil(-Math.log10(step) - 1e-9));
        return sign + Digits.fixed(size, decimals) + " s";
    }
}
