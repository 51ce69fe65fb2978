package zesty.signal.boards.sim;

import java.util.Random;

/** Gusty wind with a lull now and then. */
final class MastheadWind {
    private final Random random;
    private double gust;
    private double newest;

    private final boolean calm;

    /** @param calm hardly any wind, and a minute of none in every three */
    MastheadWind(Random random, boolean calm) {
        this.random = random;
        this.calm = calm;
    }

    /** @return the wind at {@code t} seconds, in m/s; to be asked for in order of time */
    double speed(double t) {
        gust += (random.nextGaussian() * 0.9 - gust) / 6;
        if (calm) {
            newest = t % 180 > 20 && t % 180 < 80 ? 0 : Math.max(0, 1.1 + 0.3 * gust);
            return newest;
        }
        boolean lull = t % 31 > 27;
        newest = lull ? 0 : Math.max(0.9, 6.5 + 2.4 * Math.sin(2 * Math.PI * t / 13) + 2 * gust);
        return newest;
    }

    double newest() {
        return newest;
    }
}
