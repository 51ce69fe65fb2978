package zesty.signal.core.picture;

import java.util.Arrays;
import java.util.List;
import zesty.signal.core.text.Messages;

/**
 * What makes a picture right before anything is read of it, in this order: what a lid of one temperature showed is taken off,
 * dead pixels are filled from their neighbours, and what the surface sends less of, or reflects, is taken into account.
 *
 * @param dead pixels, row by row from 0. @param lid what each pixel showed too much of a lid; empty for none
 * @param emissivity of the surface, above 0 to 1. @param reflected what it reflects, in °C
 */
public record PictureMend(List<Integer> dead, double[] lid, double emissivity, double reflected) {
    private static final double KELVIN = 273.15;
    private static final double ROOM = 20;

    /** Pictures as they come. */
    public static final PictureMend NONE = new PictureMend(List.of(), new double[0], 1, ROOM);

    public PictureMend {
        dead = List.copyOf(dead);
        if (!(emissivity > 0) || emissivity > 1) {
            throw new IllegalArgumentException(Messages.of("picture.emissivity-lies-above-0-and-up-to", emissivity));
        }
        if (!(reflected > -KELVIN) || reflected > 5000) {
            throw new IllegalArgumentException(Messages.of("picture.what-is-reflected-has-a", reflected));
        }
    }

    public PictureMend withDead(List<Integer> others) {
        return new PictureMend(others, lid, emissivity, reflected);
    }

    public PictureMend withLid(double[] other) {
        return new PictureMend(dead, other, emissivity, reflected);
    }

    public PictureMend withSurface(double otherEmissivity, double otherReflected) {
        return new PictureMend(dead, lid, otherEmissivity, otherReflected);
    }

    public boolean isNone() {
        return dead.isEmpty() && lid.length == 0 && emissivity == 1;
    }

    /** @return what each pixel shows too much, or too little, of a lid that is as warm everywhere: its own mean less that of all */
    public static double[] lidOf(List<double[]> frames) {
        int pixels = frames.get(0).length;
        double[] means = new double[pixels];
        double all = 0;
        int known = 0;
        for (int p = 0; p < pixels; p++) {
            int pixel = p;
            means[p] = frames.stream()
                    .mapToDouble(frame -> frame[pixel])
                    .filter(value -> value == value)
                    .average()
                    .orElse(Double.NaN);
            all += means[p] == means[p] ? means[p] : 0;
            known += means[p] == means[p] ? 1 : 0;
        }
        double mean = known == 0 ? 0 : all / known;
        for (int p = 0; p < pixels; p++) {
            means[p] = means[p] == means[p] ? means[p] - mean : 0;
        }
        return means;
    }

    /**
     * The temperature of a surface that sends less than a black one and reflects its surroundings: a sensor of heat rays that takes
     * it for black sees the fourth powers mixed (Stefan 1879, Boltzmann 1884).
     *
     * @param shown what the sensor shows, in °C
     */
    public double surface(double shown) {
        if (emissivity == 1) {
            return shown;
        }
        double sent = Math.pow(shown + KELVIN, 4) - (1 - emissivity) * Math.pow(reflected + KELVIN, 4);
        return sent <= 0 ? Double.NaN : Math.pow(sent / emissivity, 0.25) - KELVIN;
    }

    /** @return the picture made right; the same array where nothing is to be done */
    public double[] of(double[] frame, int width) {
        if (isNone()) {
            return frame;
        }
        double[] right = frame.clone();
        for (int p = 0; p < Math.min(lid.length, right.length); p++) {
            right[p] -= lid[p];
        }
        if (!dead.isEmpty()) {
            fill(right, width);
        }
        for (int p = 0; emissivity != 1 && p < right.length; p++) {
            right[p] = surface(right[p]);
        }
        return right;
    }

    private void fill(double[] frame, int width) {
        boolean[] isDead = new boolean[frame.length];
        for (int p : dead) {
            if (p >= 0 && p < frame.length) {
                isDead[p] = true;
            }
        }
        double[] came = frame.clone();
        for (int p = 0; p < frame.length; p++) {
            if (isDead[p]) {
                frame[p] = Double.NaN;
                for (int reach = 1; reach <= 2 && Double.isNaN(frame[p]); reach++) {
                    frame[p] = around(came, isDead, p, width, reach);
                }
            }
        }
    }

    /** @return the median of the living pixels around one */
    private static double around(double[] frame, boolean[] dead, int pixel, int width, int reach) {
        int height = frame.length / width;
        int x = pixel % width;
        int y = pixel / width;
        double[] beside = new double[(2 * reach + 1) * (2 * reach + 1)];
        int n = 0;
        for (int j = Math.max(0, y - reach); j <= Math.min(height - 1, y + reach); j++) {
            for (int i = Math.max(0, x - reach); i <= Math.min(width - 1, x + reach); i++) {
                double value = frame[j * width + i];
                if (!dead[j * width + i] && value == value) {
                    beside[n++] = value;
                }
            }
        }
        if (n == 0) {
            return Double.NaN;
        }
        Arrays.sort(beside, 0, n);
        return n % 2 == 1 ? beside[n / 2] : (beside[n / 2 - 1] + beside[n / 2]) / 2;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof PictureMend one
                && dead.equals(one.dead)
                && Arrays.equals(lid, one.lid)
                && emissivity == one.emissivity
                && reflected == one.reflected;
    }

    @Override
    public int hashCode() {
        return dead.hashCode() + 31 * Arrays.hashCode(lid) + Double.hashCode(emissivity + 7 * reflected);
    }
}
