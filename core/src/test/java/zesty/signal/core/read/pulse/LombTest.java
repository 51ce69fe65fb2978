package zesty.signal.core.read.pulse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;

class LombTest {
    /** At each frequency it is what a sine and a cosine, fitted by least squares, take off the squares: half of it, by the variance. */
    @Test
    void powersAreWhatLeastSquaresTakeOff() {
        Random random = new Random(4);
        for (int round = 0; round < 20; round++) {
            int n = 20 + random.nextInt(300);
            double[] t = new double[n];
            double[] v = new double[n];
            for (int i = 0; i < n; i++) {
                t[i] = (i == 0 ? 1e4 * random.nextDouble() : t[i - 1]) + 0.4 + random.nextDouble();
                v[i] = 3 + 5 * Math.sin(2 * Math.PI * 0.22 * t[i]) + random.nextGaussian();
            }
            Lomb lomb = new Lomb(t, v);
            double[] level = straightened(t, v);
            double[] powers = lomb.powers(0.05, 0.0007, 500);
            for (int k = 0; k < powers.length; k += 49) {
                double hz = 0.05 + 0.0007 * k;
                double squares = taken(t, level, hz);
                assertThat(powers[k])
                        .isCloseTo(0.5 * squares / lomb.variance(), within(1e-6 * (1 + powers[k])))
                        .isCloseTo(lomb.power(hz), within(1e-6 * (1 + powers[k])));
            }
        }
    }

    private static double[] straightened(double[] t, double[] v) {
        double meanT = java.util.Arrays.stream(t).average().orElseThrow();
        double meanV = java.util.Arrays.stream(v).average().orElseThrow();
        double tv = 0;
        double tt = 0;
        for (int i = 0; i < t.length; i++) {
            tv += (t[i] - meanT) * (v[i] - meanV);
            tt += (t[i] - meanT) * (t[i] - meanT);
        }
        double[] level = new double[t.length];
        for (int i = 0; i < t.length; i++) {
            level[i] = v[i] - meanV - tv / tt * (t[i] - meanT);
        }
        return level;
    }

    /** By the normal equations of two unknowns. */
    private static double taken(double[] t, double[] v, double hz) {
        double cc = 0;
        double ss = 0;
        double cs = 0;
        double cv = 0;
        double sv = 0;
        for (int i = 0; i < t.length; i++) {
            double c = Math.cos(2 * Math.PI * hz * t[i]);
            double s = Math.sin(2 * Math.PI * hz * t[i]);
            cc += c * c;
            ss += s * s;
            cs += c * s;
            cv += c * v[i];
            sv += s * v[i];
        }
        double determinant = cc * ss - cs * cs;
        double a = (cv * ss - sv * cs) / determinant;
        double b = (sv * cc - cv * cs) / determinant;
        return a * cv + b * sv;
    }
}
