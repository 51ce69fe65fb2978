package zesty.signal.core.decode;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.sample.Block;

/** Rates and times from arrivals as bad as links make them; the truth is when the rows were sampled. */
class ArrivalClockFitTest {
    /** When each row arrives, never before the one before it. @param late what is added to when it was sampled, in s */
    private static double[] arrivals(int rows, double rate, DoubleUnaryOperator late) {
        double[] at = new double[rows];
        double newest = Double.NEGATIVE_INFINITY;
        for (int k = 0; k < rows; k++) {
            double sampled = k / rate;
            newest = Math.max(newest, sampled + late.applyAsDouble(sampled));
            at[k] = newest;
        }
        return at;
    }

    /** Tells a line of each arrival as a reader that looks every 15 ms would see them. */
    private static ArrivalClockFit seen(double[] at, double untilSeconds) {
        ArrivalClockFit line = new ArrivalClockFit();
        int k = 0;
        for (double now = at[0]; now <= untilSeconds; now += 0.015) {
            while (k < at.length && at[k] <= now) {
                k++;
            }
            line.saw(k, now);
        }
        return line;
    }

    @ParameterizedTest
    @CsvSource({"199.3,1", "50.07,2", "997,3", "20.02,4"})
    void theRateIsKnownToTwoInAThousandInTenSecondsAndTenTimesBetterInTwoMinutes(double rate, long seed) {
        for (boolean even : new boolean[] {false, true}) {
            Random random = new Random(seed);
            double[] at = arrivals(
                    (int) (125 * rate),
                    rate,
                    t -> 0.03 + (even ? 0.02 * random.nextGaussian() : -0.02 * Math.log(1 - random.nextDouble())));
            ArrivalClockFit soon = seen(at, at[0] + 10);
            assertThat(1 / soon.periodSeconds()).isCloseTo(rate, within(0.002 * rate));
            assertThat(soon.uncertainty()).isLessThan(0.02);
            ArrivalClockFit later = seen(at, at[0] + 120);
            assertThat(1 / later.periodSeconds()).isCloseTo(rate, within(0.0002 * rate));
            assertThat(later.uncertainty()).isLessThan(soon.uncertainty());
        }
    }

    @Test
    void whatWaitedInABufferMovesNothing() {
        Random random = new Random(9);
        // Half a minute at once, then as they come.
        double[] at = arrivals(200 * 40, 200, t -> t < 30 ? 30 - t : 0.002 + 0.004 * random.nextDouble());
        assertThat(1 / seen(at, 32).periodSeconds()).isCloseTo(200, within(1.0));
        assertThat(1 / seen(at, 39.9).periodSeconds()).isCloseTo(200, within(0.2));
        // Half a minute ten times too fast, then as they come.
        double[] drained = arrivals(200 * 60, 200, t -> Math.max(0.002, (30 - t) - (30 - t) * 0.1 - 1e-9));
        double[] squeezed = new double[drained.length];
        for (int k = 0; k < squeezed.length; k++) {
            squeezed[k] = k < 6000 ? 30 + k * 0.0005 : Math.max(33, k / 200.0 + 3 + 0.004 * random.nextDouble());
        }
        assertThat(1 / seen(squeezed, 32.9).periodSeconds()).isCloseTo(2000, within(40.0));
        assertThat(1 / seen(squeezed, 43).periodSeconds()).isCloseTo(200, within(2.0));
    }

    @Test
    void burstsAndStallsMoveNothing() {
        Random random = new Random(10);
        double[] at = arrivals(100 * 30, 100, t -> {
            double packed = Math.ceil(t / 0.25) * 0.25 - t;
            boolean stalled = t % 9 > 6 && t % 9 < 7.5;
            return packed + (stalled ? 7.5 - t % 9 : 0) + 0.01 * random.nextDouble();
        });
        assertThat(1 / seen(at, 12).periodSeconds()).isCloseTo(100, within(1.0));
        assertThat(1 / seen(at, 29).periodSeconds()).isCloseTo(100, within(0.2));
    }

    private static Rows rows(int count) {
        double[] values = new double[count];
        return new Rows(new double[][] {values}, count);
    }

    @Test
    void aBacklogIsDatedBackwardsNotSqueezed() {
        // 6000 rows that waited, known to come at 200/s from the second that followed.
        double[] at = arrivals(6000 + 400, 200, t -> t < 30 ? 30 - t : 0.003);
        ArrivalClockFit line = new ArrivalClockFit();
        int known = 0;
        for (double now = 30; now < 31.2; now += 0.015) {
            while (known < at.length && at[known] <= now) {
                known++;
            }
            line.saw(known, now);
        }
        assertThat(line.enough()).isTrue();
        Timestamper timestamper =
                new Timestamper(null, Double.NaN, Timestamper.nominal(1 / line.periodSeconds(), line.uncertainty()));
        timestamper.goOn(line);
        Block block = timestamper.date(rows(known), 31.2, 0);
        assertThat(block.time().secondsAt(0)).isCloseTo(0, within(1e-9));
        assertThat(block.time().secondsAt(6000)).isCloseTo(30, within(0.1));
        assertThat(block.gaps()).isEmpty();
    }

    @Test
    void whatTurnsOutToHaveBeenSqueezedIsToldAsAStretchOfUnknownTime() {
        Timestamper timestamper = new Timestamper(null, Double.NaN, 2000);
        double last = -1;
        long gaps = 0;
        for (int k = 0; k < 6000 + 200 * 20; k += 10) {
            double arrival = k < 6000 ? k * 0.0005 : 3 + (k - 6000) / 200.0;
            Block block = timestamper.date(rows(10), arrival, 0);
            assertThat(block.time().secondsAt(0)).isGreaterThan(last);
            last = block.lastSeconds();
            gaps += block.gaps().size();
        }
        assertThat(timestamper.rateHz()).isCloseTo(200, within(1.0));
        assertThat(gaps).isBetween(1L, 3L);
        assertThat(timestamper.lostRows()).isZero();
        // The last ten seconds stand right to each other.
        double before = timestamper.date(rows(1), 23.05, 0).lastSeconds();
        double after = timestamper.date(rows(200), 24.05, 0).lastSeconds();
        assertThat(after - before).isCloseTo(1, within(0.05));
    }
}
