package zesty.signal.core.read.wind;

/**
 * Where the wind comes from, over many looks at a vane: means of directions are means of vectors, so that north has no seam, and
 * their spread is that of R. J. Yamartino 1984, "A comparison of several single-pass estimators of the standard deviation of wind
 * direction". The rose counts the time from each of sixteen directions with the speed that blew.
 */
final class Vane {
    static final int DIRECTIONS = 16;
    private final double[] seconds = new double[DIRECTIONS];
    private final double[] way = new double[DIRECTIONS];
    private double sines;
    private double cosines;
    private double all;

    /**
     * @param degrees from where, clockwise from north
     * @param mps how fast; a vane in a calm points anywhere, so what came at 0 does not count
     * @param forSeconds how long
     */
    void add(double degrees, double mps, double forSeconds) {
        if (!(mps > 0) || !(forSeconds > 0) || Double.isNaN(degrees)) {
            return;
        }
        sines += forSeconds * Math.sin(Math.toRadians(degrees));
        cosines += forSeconds * Math.cos(Math.toRadians(degrees));
        all += forSeconds;
        int at = Math.floorMod((int) Math.rint(degrees * DIRECTIONS / 360), DIRECTIONS);
        seconds[at] += forSeconds;
        way[at] += forSeconds * mps;
    }

    /** @return 0 … 360; NaN where nothing blew */
    double mean() {
        double degrees = Math.toDegrees(Math.atan2(sines, cosines));
        return !(all > 0) ? Double.NaN : degrees < 0 ? degrees + 360 : degrees;
    }

    /** @return in degrees; NaN where nothing blew */
    double spread() {
        if (!(all > 0)) {
            return Double.NaN;
        }
        double e = Math.sqrt(Math.max(0, 1 - (sines * sines + cosines * cosines) / (all * all)));
        return Math.toDegrees(Math.asin(e) * (1 + (2 / Math.sqrt(3) - 1) * e * e * e));
    }

    /** @return of each direction: degrees, share of the time, mean speed in m/s (0 where nothing came from there) */
    double[][] rose() {
        double[][] rose = new double[all > 0 ? DIRECTIONS : 0][];
        for (int k = 0; k < rose.length; k++) {
            rose[k] = new double[] {k * 360.0 / DIRECTIONS, seconds[k] / all, seconds[k] > 0 ? way[k] / seconds[k] : 0};
        }
        return rose;
    }
}
