package zesty.signal.core.spectrum;

/** Whether a line is the same in both halves of a record. */
final class Steadiness {
    private final double[][] whole;
    private final double[][] first;
    private final double[][] second;
    private final double rateHz;

    /** @param axes that are looked at together, from that sample on, so many samples */
    Steadiness(double[][] axes, int from, int length, double rateHz) {
        this.rateHz = rateHz;
        whole = new double[axes.length][];
        first = new double[axes.length][];
        second = new double[axes.length][];
        int half = length / 2;
        for (int a = 0; a < axes.length; a++) {
            whole[a] = windowed(axes[a], from, length);
            first[a] = windowed(axes[a], from, half);
            second[a] = windowed(axes[a], from + length - half, half);
        }
    }

    private static double[] windowed(double[] x, int from, int n) {
        double mean = 0;
        for (int i = 0; i < n; i++) {
            mean += x[from + i] / n;
        }
        double[] out = new double[n];
        for (int i = 0; i < n; i++) {
            out[i] = (x[from + i] - mean) * (1 - Math.cos(2 * Math.PI * i / n)) * 2 / n;
        }
        return out;
    }

    /** @return by how much the height in either half is off that in the whole, as a share of it */
    double change(double hz) {
        double all = height(whole, hz);
        return Math.max(Math.abs(height(first, hz) / all - 1), Math.abs(height(second, hz) / all - 1));
    }

    private double height(double[][] axes, double hz) {
        double sum = 0;
        for (double[] axis : axes) {
            sum += square(axis, 2 * Math.PI * hz / rateHz);
        }
        return Math.sqrt(sum);
    }

    /** The squared height of one frequency (G. Goertzel 1958, "An algorithm for the evaluation of finite trigonometric series"). */
    private static double square(double[] x, double turn) {
        double c = 2 * Math.cos(turn);
        double a = 0;
        double b = 0;
        for (double value : x) {
            double next = value + c * a - b;
            b = a;
            a = next;
        }
        return a * a + b * b - c * a * b;
    }
}
