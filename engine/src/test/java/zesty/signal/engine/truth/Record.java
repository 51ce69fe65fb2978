package zesty.signal.engine.truth;

import java.util.Arrays;
import java.util.Map;
import java.util.Random;
import zesty.signal.core.read.Reading;

/**
 * A simulated record and what is true of it. The models are written from published shapes, apart from the readers.
 *
 * @param scene what is in it, in a few words
 * @param columns one array a port
 * @param judge says what a maker would object to in an answer
 */
record Record(
        String kind,
        String scene,
        Map<String, String> settings,
        double rateHz,
        double[] seconds,
        double[][] columns,
        Judge judge) {

    /** Compares an answer with what is true. */
    @FunctionalInterface
    interface Judge {
        /** @return what is wrong with it, with numbers; empty when a maker would accept it */
        String objection(Reading reading);
    }

    /** Something that draws records. */
    @FunctionalInterface
    interface Source {
        /** @param hard 0 as a good sensor sends it, 1 as a cheap one does */
        Record draw(Random random, int hard);
    }

    static double[] times(double rateHz, double lasting) {
        double[] t = new double[(int) Math.round(rateHz * lasting)];
        Arrays.setAll(t, i -> i / rateHz);
        return t;
    }

    /** @return the record as a line sends it that loses this share of its rows, one here and one there */
    Record losing(double share, Random random) {
        boolean[] kept = new boolean[seconds.length];
        int n = 0;
        for (int i = 0; i < kept.length; i++) {
            kept[i] = i == 0 || random.nextDouble() >= share;
            n += kept[i] ? 1 : 0;
        }
        double[] t = new double[n];
        double[][] x = new double[columns.length][n];
        int at = 0;
        for (int i = 0; i < kept.length; i++) {
            if (kept[i]) {
                t[at] = seconds[i];
                for (int c = 0; c < x.length; c++) {
                    x[c][at] = columns[c][i];
                }
                at++;
            }
        }
        return new Record(
                kind, scene + ", losing " + Math.round(1000 * share) / 10.0 + " %", settings, rateHz, t, x, judge);
    }
}
