package zesty.signal.core.act;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The map against rules run one by one, and the proposed hysteresis against ten minutes of noise. */
class TunedOnEventsTest {
    private static final Watch X = new Watch.Column("x");

    /** Knocks of 0.2 s with heights 8 to 12 over noise of 1, one every two seconds or so, and smaller ones that are none. */
    private static double[] knocks(Random random, double[] x, double rateHz) {
        List<Double> truth = new ArrayList<>();
        for (int i = 0; i < x.length; i++) {
            x[i] = random.nextGaussian();
        }
        for (double t = 1; t < x.length / rateHz - 1; t += 1.5 + random.nextDouble()) {
            boolean real = random.nextInt(4) > 0;
            double height = real ? 8 + 4 * random.nextDouble() : 3 + random.nextDouble();
            if (real) {
                truth.add(t);
            }
            for (int i = 0; i < 0.2 * rateHz; i++) {
                x[(int) (t * rateHz) + i] += height * Math.exp(-i / (0.08 * rateHz));
            }
        }
        return truth.stream().mapToDouble(Double::doubleValue).toArray();
    }

    private static double[] even(double from, double to, int n) {
        double[] all = new double[n];
        for (int i = 0; i < n; i++) {
            all[i] = from + (to - from) * i / (n - 1);
        }
        return all;
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void eachPlaceOfTheMapIsARuleRun(long seed) {
        Random random = new Random(20_261_131 + seed);
        double rate = 50 + random.nextInt(100);
        double[] x = new double[(int) (rate * 60)];
        double[] truth = knocks(random, x, rate);
        for (int i = 0; i < 40; i++) {
            x[random.nextInt(x.length)] = Double.NaN;
        }
        boolean above = seed % 2 == 0;
        double[] watched = above ? x : Arrays.stream(x).map(v -> -v).toArray();
        double[] seconds = new double[x.length];
        Arrays.setAll(seconds, i -> i / rate);
        double dead = random.nextInt(2) * 0.3;
        double[] thresholds = above ? even(-1, 12, 14) : even(-12, 1, 14);
        double[] hystereses = even(0, 6, 5);
        ThresholdMap map = ThresholdMap.of(
                ThresholdMap.Ground.of(watched, seconds, truth, 0.15), above, thresholds, hystereses, dead);
        assertThat(map.events()).isEqualTo(truth.length);
        for (int r = 0; r < hystereses.length; r++) {
            for (int c = 0; c < thresholds.length; c++) {
                Condition when = above ? new Condition.Above(thresholds[c]) : new Condition.Below(thresholds[c]);
                Rule.OnSamples rule =
                        new Rule.OnSamples("r", X, when, hystereses[r], new Rule.Holds(0, 0, dead, false));
                List<RuleSpans.On> on = RuleSpans.of(rule, seconds, watched);
                boolean[] taken = new boolean[truth.length];
                int found = 0;
                for (RuleSpans.On one : on) {
                    for (int k = 0; k < truth.length; k++) {
                        if (!taken[k] && Math.abs(truth[k] - one.from()) <= 0.15) {
                            taken[k] = true;
                            found++;
                            break;
                        }
                    }
                }
                assertThat(map.found()[r][c])
                        .as("%s %s", thresholds[c], hystereses[r])
                        .isEqualTo(found);
                assertThat(map.invented()[r][c]).isEqualTo(on.size() - found);
            }
        }
        ThresholdMap.Best best = map.best();
        // Between the small knocks with their noise and the true ones.
        assertThat(Math.abs(thresholds[best.column()])).isBetween(4.0, 9.0);
        assertThat(map.f1(best.row(), best.column())).isGreaterThan(0.95);
        ThresholdMap.Check check = ThresholdMap.check(
                ThresholdMap.Ground.of(watched, seconds, truth, 0.15), above, thresholds, hystereses, dead);
        assertThat(check.events()).isEqualTo(truth.length - truth.length / 2);
        assertThat(check.found()).isGreaterThan((int) (0.8 * check.events()));
    }

    @Test
    void whereOnlyTheirNumberIsKnownThatIsWhatCounts() {
        Random random = new Random(7);
        double[] x = new double[6000];
        double[] truth = knocks(random, x, 100);
        double[] seconds = new double[x.length];
        Arrays.setAll(seconds, i -> i / 100.0);
        ThresholdMap map = ThresholdMap.of(
                ThresholdMap.Ground.counted(x, seconds, truth.length), true, even(0, 12, 25), even(0, 4, 5), 0);
        ThresholdMap.Best best = map.best();
        assertThat(map.found()[best.row()][best.column()]).isEqualTo(truth.length);
        assertThat(map.invented()[best.row()][best.column()]).isZero();
    }

    /** White and slow noise at several rates, with the limit in its midst: on once at most, in ten minutes. */
    @ParameterizedTest
    @ValueSource(doubles = {1, 5, 50, 250})
    void withTheProposedHysteresisNoiseTurnsNothingBackAndForth(double rateHz) {
        for (int round = 0; round < 20; round++) {
            Random random = new Random(1000 + round);
            boolean slow = round % 2 == 1;
            double[] x = new double[(int) (600 * rateHz)];
            double[] seconds = new double[x.length];
            double last = 0;
            for (int i = 0; i < x.length; i++) {
                double white = 0.4 * random.nextGaussian();
                last = slow ? 0.5 * last + white : white;
                x[i] = 60 + Math.rint(20 * last) / 20;
                seconds[i] = i / rateHz;
            }
            double[] seen = Arrays.copyOf(x, (int) Math.min(x.length, Math.max(60, 20 * rateHz)));
            double proposed = Flicker.hysteresis(seen, rateHz);
            double middle = 60 + (round - 10) * 0.05;
            Rule.OnSamples without = new Rule.OnSamples("r", X, new Condition.Above(middle), 0, Rule.Holds.NONE);
            Rule.OnSamples with = new Rule.OnSamples("r", X, new Condition.Above(middle), proposed, Rule.Holds.NONE);
            assertThat(RuleSpans.of(without, seconds, x).size()).isGreaterThan(20);
            assertThat(RuleSpans.of(with, seconds, x).size())
                    .as("hysteresis %s", proposed)
                    .isLessThanOrEqualTo(1);
        }
    }

    @Test
    void noiseIsWhatIsLeftOfASlowSwingAndAStep() {
        Random random = new Random(5);
        double[] x = new double[3000];
        for (int i = 0; i < x.length; i++) {
            x[i] = 20 * Math.sin(2 * Math.PI * i / 3000.0) + (i > 1500 ? 30 : 0) + 0.5 * random.nextGaussian();
        }
        assertThat(Flicker.noise(x, 50)).isCloseTo(0.5, within(0.03));
        assertThat(Flicker.noise(new double[5], 50)).isNaN();
    }

    /** By hand: a map whose best places are marked; of 5 events all are found there, elsewhere one is missing. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // A square against a line that is as long: the middle of the square.
                ".......,.###...,.###..#,.###...,####### | 2 | 2 | 1 | 3",
                // A wide one against a high one: what lies to the sides counts first, then up and down.
                "#####..,#####..,#####..,.......,......# | 1 | 2 | 0 | 4",
                // A single place, and the ends of the map.
                ".......,.......,.....#. | 2 | 5 | 5 | 5",
                "......#,......#,......# | 0 | 6 | 6 | 6",
                // Of an even number the lower of the two in the middle.
                ".......,..####.,....... | 1 | 3 | 2 | 5"
            })
    void theBestPlaceIsTheOneWithMostRoomAround(String map, int row, int column, double from, double to) {
        String[] rows = map.split(",");
        int[][] found = new int[rows.length][rows[0].length()];
        int[][] invented = new int[rows.length][rows[0].length()];
        for (int r = 0; r < rows.length; r++) {
            for (int c = 0; c < rows[0].length(); c++) {
                found[r][c] = rows[r].charAt(c) == '#' ? 5 : 4;
            }
        }
        double[] thresholds = even(0, rows[0].length() - 1, rows[0].length());
        ThresholdMap.Best best = new ThresholdMap(thresholds, even(0, 1, rows.length), found, invented, 5).best();
        assertThat(best).isEqualTo(new ThresholdMap.Best(row, column, from, to));
    }
}
