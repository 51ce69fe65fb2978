package zesty.signal.core.read.tone;

import java.util.Arrays;

/** When the harmonics of a tone sound: those of one tone at the same time, those of two tones in turn do not. */
final class Sounding {
    private Sounding() {}

    /**
     * @param look samples that are looked at together
     * @param harmonics how many of the tone are asked
     * @return how much of the time of the strongest harmonic and the next they share, 0 to 1; 1 where there is no other of half its height
     */
    static double together(double[] x, double hz, double rateHz, int look, int harmonics) {
        int looks = x.length / look;
        int asked = (int) Math.min(harmonics, Math.ceil(rateHz / 2 / hz) - 1);
        if (looks < 2 || asked < 2) {
            return 1;
        }
        double[][] power = new double[asked][looks];
        double[] all = new double[asked];
        double[] own = new double[look];
        for (int l = 0; l < looks; l++) {
            weigh(x, l * look, own);
            for (int h = 0; h < asked; h++) {
                power[h][l] = power(own, (h + 1) * hz / rateHz);
                all[h] += power[h][l];
            }
        }
        int first = highest(all, -1);
        int second = highest(all, first);
        if (!(all[second] > all[first] / 4)) {
            return 1;
        }
        double shared = 0;
        for (int l = 0; l < looks; l++) {
            shared += Math.min(power[first][l] / all[first], power[second][l] / all[second]);
        }
        return shared;
    }

    private static int highest(double[] all, int but) {
        int top = but == 0 ? 1 : 0;
        for (int h = 0; h < all.length; h++) {
            top = h != but && all[h] > all[top] ? h : top;
        }
        return top;
    }

    /** Under a Hann window: what is near a frequency only leaks little. */
    private static void weigh(double[] x, int from, double[] own) {
        double mean = Arrays.stream(x, from, from + own.length).average().orElse(0);
        for (int i = 0; i < own.length; i++) {
            own[i] = (x[from + i] - mean) * (1 - Math.cos(2 * Math.PI * (i + 0.5) / own.length));
        }
    }

    /** Of one frequency, in cycles a sample. */
    private static double power(double[] x, double cycles) {
        double turnCos = Math.cos(2 * Math.PI * cycles);
        double turnSin = Math.sin(2 * Math.PI * cycles);
        double cos = 1;
        double sin = 0;
        double real = 0;
        double imaginary = 0;
        for (double one : x) {
            real += one * cos;
            imaginary += one * sin;
            double next = cos * turnCos - sin * turnSin;
            sin = sin * turnCos + cos * turnSin;
            cos = next;
        }
        return real * real + imaginary * imaginary;
    }
}
