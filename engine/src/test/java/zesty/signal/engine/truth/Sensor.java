package zesty.signal.engine.truth;

import java.util.Random;

/** What cheap sensors do to a signal, in place. */
final class Sensor {
    private Sensor() {}

    static double between(Random random, double low, double high) {
        return low + (high - low) * random.nextDouble();
    }

    /** @return drawn so that each octave is as likely */
    static double octaves(Random random, double low, double high) {
        return low * Math.pow(high / low, random.nextDouble());
    }

    static void noise(double[] x, double deviation, Random random) {
        for (int i = 0; i < x.length; i++) {
            x[i] += deviation * random.nextGaussian();
        }
    }

    /** Slow wander: noise through a first-order low-pass of that corner, of that standard deviation. */
    static void wander(double[] x, double rateHz, double cornerHz, double deviation, Random random) {
        double share = 1 - Math.exp(-2 * Math.PI * cornerHz / rateHz);
        double gain = deviation * Math.sqrt((2 - share) / share);
        double y = deviation * random.nextGaussian();
        for (int i = 0; i < x.length; i++) {
            y += share * (gain * random.nextGaussian() - y);
            x[i] += y;
        }
    }

    static void hum(double[] x, double rateHz, double hz, double amplitude, Random random) {
        double phase = between(random, 0, 2 * Math.PI);
        for (int i = 0; i < x.length; i++) {
            double at = 2 * Math.PI * hz * i / rateHz + phase;
            x[i] += amplitude * (Math.sin(at) + 0.2 * Math.sin(3 * at));
        }
    }

    /** The contact changes: the level steps at random moments. @return when, in samples */
    static int[] steps(double[] x, int count, double size, Random random) {
        int[] at = new int[count];
        for (int k = 0; k < count; k++) {
            at[k] = (int) (x.length * between(random, 0.1, 0.9));
            double step = size * (random.nextBoolean() ? 1 : -1) * between(random, 0.5, 1);
            for (int i = at[k]; i < x.length; i++) {
                x[i] += step;
            }
        }
        return at;
    }

    /** Rounds to whole counts within a converter's range. */
    static void counts(double[] x, double low, double high) {
        for (int i = 0; i < x.length; i++) {
            x[i] = Math.max(low, Math.min(high, Math.rint(x[i])));
        }
    }
}
