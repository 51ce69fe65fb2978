package zesty.signal.core.decode;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;

class TimestamperTest {
    private static final BoardClock MICROS = new BoardClock(0, 1e6, BoardClock.WRAP_32_BIT);

    private static final BoardClock MILLIS = new BoardClock(0, 1e3, BoardClock.WRAP_32_BIT);

    private static Rows ticks(LongStream values) {
        double[] column = values.mapToDouble(v -> Math.floorMod(v, 1L << 32)).toArray();
        return new Rows(new double[][] {column}, column.length);
    }

    private static LongStream every5ms(long from, int count) {
        return LongStream.range(0, count).map(i -> from + 5000 * i);
    }

    @Test
    void theClockIsUnwrappedAndAMissingRowIsAGap() {
        Timestamper timestamper = new Timestamper(MICROS, Double.NaN, 100);
        long start = (1L << 32) - 1_000_000;
        Block first = timestamper.date(ticks(every5ms(start, 400)), 2, 0);
        assertThat(first.time().secondsAt(399)).isCloseTo(399 * 0.005, within(1e-9));
        assertThat(first.gaps()).isEmpty();
        Block second = timestamper.date(ticks(every5ms(start + 403 * 5000L, 10)), 2.1, 0);
        assertThat(second.gaps()).singleElement().satisfies(gap -> {
            assertThat(gap.missing()).isEqualTo(3);
            assertThat(gap.startSeconds()).isCloseTo(1.995, within(1e-9));
            assertThat(gap.endSeconds()).isCloseTo(2.015, within(1e-9));
        });
        assertThat(timestamper.lostRows()).isEqualTo(3);
        assertThat(timestamper.nominalRateHz()).isEqualTo(200);
    }

    /** A board that writes its card once a second: its clock goes on off the grid, and nothing was sent meanwhile. */
    @Test
    void whatABoardDidNotSendIsNotLost() {
        Timestamper timestamper = new Timestamper(MICROS, Double.NaN, 100);
        LongStream pausing = LongStream.range(0, 2000).map(i -> 5000 * i + 43_200 * (i / 190));
        Block block = timestamper.date(ticks(pausing), 11, 0);
        assertThat(block.gaps()).hasSize(10).allMatch(gap -> gap.missing() == 0);
        assertThat(timestamper.lostRows()).isZero();
    }

    @Test
    void aRestartedBoardGoesOnByArrivalAndAReopenedRunningOneByItsClock() {
        Timestamper restarted = new Timestamper(MICROS, Double.NaN, 100);
        restarted.date(ticks(every5ms(50_000_000, 200)), 1.0, 0);
        Block after = restarted.date(ticks(every5ms(0, 200)), 4.0, 0);
        assertThat(after.time().secondsAt(0)).isCloseTo(0.995 + 3, within(1e-9));
        assertThat(after.gaps()).hasSize(1);

        Timestamper running = new Timestamper(MICROS, Double.NaN, 100);
        running.date(ticks(every5ms(50_000_000, 200)), 1.0, 0);
        running.relink();
        Block resumed = running.date(ticks(every5ms(50_000_000 + 2_500_000, 200)), 2.6, 0);
        assertThat(resumed.time().secondsAt(0)).isCloseTo(2.5, within(1e-9));
        assertThat(resumed.gaps()).singleElement().satisfies(gap -> assertThat(gap.missing())
                .isEqualTo(300));
    }

    /** The computer stood still and read the last rows late, so that arrival saw a shorter silence than there was. */
    @Test
    void aBoardThatIsFurtherOnThanNobodyHeardItIsTheSameRun() {
        Timestamper late = new Timestamper(MICROS, Double.NaN, 100);
        late.date(ticks(every5ms(50_000_000, 200)), 3.7, 0);
        late.relink();
        Block resumed = late.date(ticks(every5ms(54_500_000, 200)), 4.55, 0);
        assertThat(resumed.time().secondsAt(0)).isCloseTo(4.5, within(1e-9));
        assertThat(resumed.gaps()).singleElement().satisfies(gap -> assertThat(gap.missing())
                .isEqualTo(700));

        Timestamper anew = new Timestamper(MICROS, Double.NaN, 100);
        anew.date(ticks(every5ms(200_000, 20)), 0.3, 0);
        anew.relink();
        Block after = anew.date(ticks(every5ms(1_000_000, 20)), 4.3, 0);
        assertThat(after.time().secondsAt(0)).isCloseTo(0.095 + 4, within(1e-9));
    }

    /** A log of a board that was started anew: nothing tells how long that took, and nothing is lost but the order. */
    @Test
    void aClockThatStepsBackInALogIsAGapAndTimeGoesOn() {
        LongStream log = LongStream.concat(every5ms(90_000_000, 300), every5ms(1000, 300));
        Block block = new Timestamper(MICROS, Double.NaN, 100).date(ticks(log), 3, 0);
        assertThat(block.gaps()).singleElement().satisfies(gap -> {
            assertThat(gap.startSeconds()).isCloseTo(299 * 0.005, within(1e-9));
            assertThat(gap.missing()).isZero();
        });
        for (int row = 1; row < 600; row++) {
            double step = block.time().secondsAt(row) - block.time().secondsAt(row - 1);
            assertThat(step).isCloseTo(0.005, within(row == 300 ? 0.005 : 1e-9));
        }
    }

    /** A board that stamps rows by whole milliseconds: the rate between two of them, many rows in one, and no invented losses. */
    @ParameterizedTest
    @ValueSource(doubles = {130, 333, 700, 1500, 2000, 10_000})
    void aClockCoarserThanItsRowsTellsTheirRate(double rateHz) {
        Timestamper timestamper = new Timestamper(MILLIS, Double.NaN, 100);
        int each = (int) Math.ceil(rateHz / 20);
        Block last = null;
        for (int first = 0; first < 6 * rateHz; first += each) {
            last = timestamper.date(millis(first, each, rateHz), (first + each) / rateHz, 0);
        }
        // Each row in its own time within the millisecond: no step is long enough to pass for a gap.
        for (int row = 1; row < each; row++) {
            double step = last.time().secondsAt(row) - last.time().secondsAt(row - 1);
            assertThat(step).isBetween(0.0, Gap.PERIODS / rateHz);
        }
        assertThat(timestamper.nominalRateHz()).isCloseTo(rateHz, within(0.002 * rateHz));
        assertThat(timestamper.lostRows()).isZero();
    }

    /** Where the link was away the rows' own numbers tell how many came to nothing, to the row; whole turns the time. */
    @ParameterizedTest
    @CsvSource({"0, true, true", "256, true, true", "0, false, true", "0, true, false", "0, false, false"})
    void acrossAReopenedLinkTheNumbersTellExactlyHowManyAreLost(double wrap, boolean byClock, boolean dated) {
        double rateHz = 2000;
        Timestamper timestamper =
                new Timestamper(byClock ? MILLIS : null, new BoardSequence(1, wrap, 1), Double.NaN, rateHz);
        // It says its header again to whoever calls: that it began anew its clock would tell. And it comes late.
        Rows rows = numbered(millis(4000 + 1227, 100, rateHz), 4000 + 1227, wrap);
        Rows later = new Rows(rows.columns(), rows.count(), null, new int[] {0});
        if (dated) {
            for (int first = 0; first < 4000; first += 100) {
                timestamper.date(numbered(millis(first, 100, rateHz), first, wrap), (first + 100) / rateHz, 0);
            }
            timestamper.relink();
        } else {
            later = numbered(millis(0, 4000, rateHz), 0, wrap).joined(later);
        }
        Block resumed = timestamper.date(later, 5327 / rateHz + 0.031, 0);
        assertThat(resumed.gaps()).singleElement().satisfies(gap -> assertThat(gap.missing())
                .isEqualTo(1227));
        assertThat(timestamper.lostRows()).isEqualTo(1227);
    }

    @Test
    void aClockThatStandsStillTellsNoRate() {
        Timestamper timestamper = new Timestamper(MILLIS, Double.NaN, 100);
        timestamper.date(ticks(LongStream.range(0, 200).map(i -> 77)), 1, 0);
        assertThat(timestamper.rateHz()).isNaN();
    }

    /** Of 980 rows a second every fiftieth millisecond has none: with numbers that is known to be no gap. */
    @Test
    void rowsALittleSlowerThanTheTicksHaveNoGapsWhereNumbersSaySo() {
        Timestamper timestamper = new Timestamper(MILLIS, new BoardSequence(1, 0, 1), Double.NaN, 100);
        // The first of them comes among the first rows.
        for (int first = 40; first < 9800; first += 49) {
            timestamper.date(numbered(millis(first, 49, 980), first, 0), (first + 49) / 980.0, 0);
        }
        assertThat(timestamper.gapCount()).isZero();
        assertThat(timestamper.lostRows()).isZero();
        assertThat(timestamper.rateHz()).isCloseTo(980, within(2.0));
    }

    /** A row whose stamp is in doubt waits for the next one: those that its number says were lost before it stay counted. */
    @Test
    void whatIsLostBeforeARowInDoubtIsCounted() {
        Timestamper timestamper = new Timestamper(MILLIS, new BoardSequence(1, 0, 1), Double.NaN, 100);
        timestamper.date(numbered(millis(0, 100, 200), 0, 0), 0.5, 0);
        Rows leaping = numbered(millis(20_000, 1, 200), 103, 0);
        assertThat(timestamper.date(leaping, 0.52, 0).rows()).isZero();
        timestamper.date(numbered(millis(20_001, 50, 200), 104, 0), 0.8, 0);
        assertThat(timestamper.lostRows()).isEqualTo(3);
    }

    private static Rows millis(int first, int count, double rateHz) {
        double[] stamps = new double[count];
        Arrays.setAll(stamps, i -> Math.floor((first + i) * 1000 / rateHz));
        return new Rows(new double[][] {stamps}, count);
    }

    private static Rows numbered(Rows rows, int first, double wrap) {
        double[] numbers = new double[rows.count()];
        Arrays.setAll(numbers, i -> wrap > 0 ? (first + i) % wrap : first + i);
        return new Rows(new double[][] {rows.columns()[0], numbers}, rows.count());
    }

    @Test
    void driftOfTheBoardsClockIsMeasured() {
        Timestamper timestamper = new Timestamper(MICROS, Double.NaN, 100);
        Random jitter = new Random(4);
        // The board counts 1.000150 s in each of ours; deliveries are up to 10 ms late.
        for (int second = 0; second < 600; second++) {
            long start = Math.round(second * 1_000_150.0);
            timestamper.date(
                    ticks(LongStream.range(0, 100).map(i -> start + Math.round(i * 10_001.5))),
                    second + 1 + 0.01 * jitter.nextDouble(),
                    0);
        }
        assertThat(timestamper.driftPpm()).isCloseTo(150, within(5.0));
    }

    @Test
    void withoutAClockArrivalIsFittedToASteadyRateAndASilenceIsAGap() {
        Timestamper timestamper = new Timestamper(null, Double.NaN, 80);
        Random jitter = new Random(6);
        Block last = null;
        double lastArrival = 0;
        for (int delivery = 0; delivery < 600; delivery++) {
            // 5 rows every 50 ms, up to 20 ms late.
            lastArrival = delivery * 0.05 + 0.02 * jitter.nextDouble();
            Block block = timestamper.date(new Rows(new double[1][5], 5), lastArrival, 0.03);
            assertThat(block.gaps()).isEmpty();
            if (last != null) {
                assertThat(block.time().secondsAt(0)).isGreaterThan(last.lastSeconds());
            }
            last = block;
        }
        assertThat(timestamper.rateHz()).isCloseTo(100, within(3.0));
        assertThat(last.lastSeconds()).isCloseTo(599 * 0.05, within(0.15));
        Block after = timestamper.date(new Rows(new double[1][5], 5), lastArrival + 5, 4.9);
        assertThat(after.gaps()).singleElement().satisfies(gap -> assertThat(gap.missing())
                .isCloseTo(495, within(15L)));
        assertThat(after.time().secondsAt(4) - last.lastSeconds()).isCloseTo(5, within(0.1));
    }

    /** Eight rows a second that a busy computer reads in bursts, row by row: all of them came, none may be said to be lost. */
    @Test
    void whereTheRateIsHardlyKnownASilenceSaysNotHowManyAreLost() {
        Timestamper timestamper = new Timestamper(null, Double.NaN, 100);
        double[][] bursts = {{0, 2}, {1.5, 12}, {3.2, 14}, {5, 14}};
        for (double[] burst : bursts) {
            for (int row = 0; row < burst[1]; row++) {
                timestamper.date(new Rows(new double[1][1], 1), burst[0] + 0.001 * row, row > 0 ? 0 : 1.5);
            }
        }
        assertThat(timestamper.gapCount()).isPositive();
        assertThat(timestamper.lostRows()).isZero();
    }

    @Test
    void aStatedRateIsKept() {
        Timestamper timestamper = new Timestamper(null, 250, 100);
        timestamper.date(new Rows(new double[1][10], 10), 0.3, 0);
        Block block = timestamper.date(new Rows(new double[1][10], 10), 0.9, 0);
        assertThat(block.time().secondsAt(0)).isCloseTo(10 / 250.0, within(1e-12));
        assertThat(timestamper.rateHz()).isEqualTo(250);
    }

    /** Dates rows stamped in microseconds, in batches of some, as fast as a file gives them. */
    private static double[] dated(Timestamper keeper, double[] stamps, int batch) {
        double[] seconds = new double[stamps.length];
        int n = 0;
        for (int from = 0; from < stamps.length; from += batch) {
            double[] part = Arrays.copyOfRange(stamps, from, Math.min(stamps.length, from + batch));
            Block block = keeper.date(new Rows(new double[][] {part}, part.length), 1 + from * 1e-6, 0);
            for (int i = 0; i < block.rows(); i++) {
                seconds[n++] = block.time().secondsAt(i);
            }
        }
        if (keeper.holds()) {
            seconds[n++] = keeper.rest().time().secondsAt(0);
        }
        assertThat(n).isEqualTo(stamps.length);
        return seconds;
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 7, 64, 1000})
    void aStampThatItsNeighboursContradictIsRejectedAndTheLineGoesOn(int batch) {
        for (double wrong : new double[] {2_000_000, 4_294_967_290.0, 60_000_000, Double.NaN}) {
            double[] stamps = new double[1000];
            Arrays.setAll(stamps, i -> 5_000_000 + 10_000.0 * i);
            stamps[500] = wrong;
            Timestamper keeper = new Timestamper(new BoardClock(0, 1e6, BoardClock.WRAP_32_BIT), Double.NaN, 100);
            double[] seconds = dated(keeper, stamps, batch);
            for (int i = 0; i < seconds.length; i++) {
                assertThat(seconds[i]).as("row %d, stamp %f", i, wrong).isCloseTo(i * 0.01, within(1e-6));
            }
            assertThat(keeper.wrongStamps()).isEqualTo(1);
            assertThat(keeper.lostRows()).isZero();
        }
    }

    @Test
    void rowsThatOvertookEachOtherAreNotLost() {
        double[] stamps = new double[2000];
        Arrays.setAll(stamps, i -> 10_000.0 * (i % 20 == 7 ? i + 1 : i % 20 == 8 ? i - 1 : i));
        for (int batch : new int[] {1, 64, 2000}) {
            Timestamper keeper = new Timestamper(new BoardClock(0, 1e6, 0), Double.NaN, 100);
            double[] seconds = dated(keeper, stamps.clone(), batch);
            assertThat(seconds[1999]).isCloseTo(19.99, within(1e-6));
            assertThat(seconds).isSorted();
            assertThat(keeper.lateRows()).isEqualTo(100);
            // The first fifteen steps tell the pace; a row that overtook another there was counted once.
            assertThat(keeper.lostRows()).isLessThanOrEqualTo(1);
        }
    }

    /** Boards that a message wakes all at once, through a broker: a few within a tick or two, then nothing for a while. */
    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void timeNeverFallsAndMessagesOfManyTopicsKeepTheirOwn(boolean uneven) {
        for (int seed = 0; seed < 200; seed++) {
            Random random = new Random(seed);
            double[] stamps = new double[60];
            double now = 100;
            for (int i = 0; i < stamps.length; i++) {
                now += i % 5 == 0 ? 995 + random.nextInt(10) : random.nextInt(3);
                stamps[i] = now;
            }
            double[] seconds = dated(
                    new Timestamper(new BoardClock(0, 1e4, 0), null, Double.NaN, 100, uneven),
                    stamps.clone(),
                    1 + seed % 7);
            assertThat(seconds).as("seed %d", seed).isSorted();
            for (int i = 0; uneven && i < stamps.length; i++) {
                assertThat(seconds[i]).isCloseTo((stamps[i] - stamps[0]) / 1e4, within(1e-9));
            }
        }
    }

    @Test
    void aBoardThatRestartsIsNoWrongStamp() {
        double[] stamps = new double[1000];
        Arrays.setAll(stamps, i -> i < 500 ? 5_000_000 + 10_000.0 * i : 120_000 + 10_000.0 * (i - 500));
        for (int batch : new int[] {1, 64, 1000}) {
            Timestamper keeper = new Timestamper(new BoardClock(0, 1e6, 0), Double.NaN, 100);
            double[] seconds = dated(keeper, stamps, batch);
            assertThat(keeper.wrongStamps()).isZero();
            assertThat(seconds[999] - seconds[500]).isCloseTo(4.99, within(1e-6));
            assertThat(seconds[500] - seconds[499]).isBetween(0.015, 0.03);
        }
    }
}
