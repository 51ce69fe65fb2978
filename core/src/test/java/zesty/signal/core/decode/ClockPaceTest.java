package zesty.signal.core.decode;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.SampleRate;

/** Boards' clocks as they are: coarse, short, of loops that are not on time, and of boards that are told to go slower. */
class ClockPaceTest {
    private static final int ROWS = 6000;

    /** A board whose truth is known: when each row that came was taken, and how many did not come. */
    private static final class Board {
        final Random random = new Random(5);
        final double ticksPerSecond;
        final double wrap;
        final double[] taken = new double[ROWS];
        final double[] stamps = new double[ROWS];
        final double[] dated = new double[ROWS];
        int came;
        int lost;
        Timestamper timestamper;

        Board(double ticksPerSecond, double wrap) {
            this.ticksPerSecond = ticksPerSecond;
            this.wrap = wrap;
        }

        void row(double seconds, double lossShare) {
            if (random.nextDouble() < lossShare && came > 100) {
                lost++;
                return;
            }
            taken[came] = seconds;
            double ticks = Math.floor(seconds * ticksPerSecond + 1e-9);
            stamps[came++] = wrap > 0 ? ticks % wrap : ticks;
        }

        /** Dates them in bursts, as they arrive. */
        Board dated() {
            timestamper = new Timestamper(new BoardClock(0, ticksPerSecond, wrap), Double.NaN, 100);
            int done = 0;
            for (int from = 0; from < came; ) {
                int to = Math.min(came, from + 1 + random.nextInt(40));
                double[] part = Arrays.copyOfRange(stamps, from, to);
                Block block = timestamper.date(new Rows(new double[][] {part}, part.length), taken[to - 1] + 0.01, 0);
                for (int row = 0; row < block.rows(); row++) {
                    dated[done++] = block.time().secondsAt(row);
                }
                from = to;
            }
            assertThat(done).isEqualTo(came);
            return this;
        }

        /** Never further from when they were taken than a tick, and never before the row before. */
        void isOnTime() {
            for (int row = 0; row < came; row++) {
                assertThat(dated[row])
                        .as("row %d", row)
                        .isCloseTo(taken[row] - taken[0], within(1.05 / ticksPerSecond));
                assertThat(dated[row]).as("row %d", row).isGreaterThanOrEqualTo(row == 0 ? 0 : dated[row - 1]);
            }
        }
    }

    /** About a row a tick: two ticks from row to row are where the next one fell, at any rate, and also where a loop wavers. */
    @ParameterizedTest
    @CsvSource({
        "800, 0",
        "833, 0",
        "860, 0",
        "860, 0.03",
        "940, 0",
        "980, 0",
        "995, 0",
        "999, 0",
        "1000, 0.05",
        "1000, 0.2",
        "990, 0.1",
        "1100, 0.1"
    })
    void twoTicksFromRowToRowAreNoLostRow(double rateHz, double late) {
        Board board = new Board(1000, BoardClock.WRAP_32_BIT);
        for (int i = 0; i < ROWS; i++) {
            board.row((i + late * board.random.nextGaussian()) / rateHz + 0.5, 0);
        }
        board.dated().isOnTime();
        assertThat(board.timestamper.lostRows()).isLessThanOrEqualTo(rateHz > 998 && rateHz < 1000 ? 2 : 0);
        assertThat(board.timestamper.rateHz()).isCloseTo(rateHz, within(0.003 * rateHz));
    }

    /** As fast as the ticks: two of them are a lost row, which the first few distances between such steps tell. */
    @ParameterizedTest
    @CsvSource({"0.002", "0.01", "0.03", "0.12", "0.3"})
    void atARowATickLostOnesAreCounted(double share) {
        Board board = new Board(1000, BoardClock.WRAP_32_BIT);
        for (int i = 0; i < ROWS; i++) {
            board.row(0.5 + i / 1000.0, share);
        }
        board.dated().isOnTime();
        assertThat(board.timestamper.lostRows()).isBetween(board.lost * 9L / 10 - 1, (long) board.lost);
        assertThat(board.timestamper.nominalRateHz()).isCloseTo(1000, within(share > 0.1 ? 5.0 : 0));
    }

    /** A board that is told to go slower, or faster, loses nothing, and the rate is soon the new one. */
    @ParameterizedTest
    @CsvSource({
        "1000000, 500, 0.5",
        "1000000, 500, 0.3",
        "1000000, 200, 2",
        "1000, 100, 0.5",
        "1000, 100, 3",
        "10000, 860, 0.6",
        "1000000, 100, 0.8",
        "1000, 125, 0.1",
        "1000000, 2, 5"
    })
    void atAnotherPaceNothingIsLost(double ticksPerSecond, double rateHz, double by) {
        Board board = new Board(ticksPerSecond, 0);
        double now = 1;
        for (int i = 0; i < ROWS; i++) {
            board.row(now + 0.02 * board.random.nextDouble() / rateHz, 0);
            now += 1 / (i < ROWS / 2 ? rateHz : by * rateHz);
        }
        board.dated().isOnTime();
        assertThat(board.timestamper.rateHz()).isCloseTo(by * rateHz, within(0.005 * by * rateHz));
        // The first few cannot be told from such that were lost.
        assertThat(board.timestamper.gapCount()).isLessThanOrEqualTo(by < 0.625 ? 12 : 0);
    }

    /** Counters of 16 bits begin again every 66 ms: what stands behind then is not late. Two rows lost in a row are counted. */
    @ParameterizedTest
    @CsvSource({"100, 0.005", "333, 0.01", "1000, 0.01"})
    void aShortCounterThatBeginsAgainIsNoRowThatIsLate(double rateHz, double share) {
        Board board = new Board(1e6, 65_536);
        for (int i = 0; i < ROWS; i++) {
            board.row(0.5 + i / rateHz, share);
        }
        board.dated().isOnTime();
        assertThat(board.timestamper.lateRows()).isZero();
        assertThat(board.timestamper.lostRows()).isEqualTo(board.lost);
    }

    /** Of fifteen steps of a loop that wavers by a tenth the middle one is off by two percent; of thousands the mean is not. */
    @Test
    void theRateOfALoopThatIsNotOnTimeIsTheMeanOfMany() {
        Board board = new Board(1e6, 0);
        for (int i = 0; i < ROWS; i++) {
            board.row(0.5 + (i + 0.1 * board.random.nextDouble()) / 250, 0.01);
        }
        board.dated().isOnTime();
        assertThat(board.timestamper.rateHz()).isCloseTo(250, within(0.25));
        assertThat(board.timestamper.lostRows()).isEqualTo(board.lost);
    }

    /** Without a clock three stretches of seconds tell another pace; stalls and the bursts after them, that are as long, tell none. */
    @ParameterizedTest
    @CsvSource({
        "100, 1, 0.1",
        "100, 0.5, 0.1",
        "500, 0.3, 0.02",
        "50, 2, 0.1",
        "20, 0.8, 0.05",
        "200, 1, 0.3",
        "200, 0.4, 0.3"
    })
    void withoutAClockAnotherPaceIsTakenWithinSeconds(double rateHz, double by, double burst) {
        Random random = new Random(9);
        Timestamper timestamper = new Timestamper(null, Double.NaN, rateHz);
        double next = 10;
        double last = 0;
        double delivered = 10;
        while (delivered < 130) {
            // Of a steady board the computer reads late now and then, by up to five seconds.
            delivered += by == 1 && random.nextInt(200) == 0
                    ? 5 * random.nextDouble()
                    : burst * (0.7 + 0.6 * random.nextDouble());
            int rows = 0;
            for (; next <= delivered; next += 1 / (next < 70 ? rateHz : by * rateHz)) {
                rows++;
            }
            if (rows > 0) {
                Block block = timestamper.date(new Rows(new double[][] {new double[rows]}, rows), delivered, 0);
                assertThat(block.time().secondsAt(0)).isGreaterThanOrEqualTo(last);
                last = block.lastSeconds();
            }
        }
        assertThat(timestamper.rateHz()).isCloseTo(by * rateHz, within(0.025 * by * rateHz));
        // Of several paces none is that of all rows, by which a take's times could be set right at its end.
        assertThat(Double.isNaN(timestamper.arrivalPeriodSeconds())).isEqualTo(by != 1);
        assertThat(timestamper.lostRows()).isZero();
        assertThat(timestamper.gapCount()).isBetween(by == 1 ? 0L : 1L, by == 1 ? 0L : 2L);
        assertThat(last).isCloseTo(next - 10, within(by > 1 ? 4.0 : 1.0));
    }

    /** A logger that keeps its rows and sends them all every few seconds: what a few bursts cannot tell leaves times as they are. */
    @ParameterizedTest
    @CsvSource({"30, 15", "30, 60", "40, 22", "25, 100"})
    void aFewBurstsOfManyRowsLeaveTimesThatAreTimes(int rows, int later) {
        Timestamper timestamper = new Timestamper(null, Double.NaN, 5);
        double last = -1;
        for (int burst = 0; burst < 60; burst++) {
            int came = burst < 20 ? rows : later;
            Block block = timestamper.date(new Rows(new double[][] {new double[came]}, came), 10 + 5.2 * burst, 0);
            assertThat(block.time().secondsAt(0)).as("burst %d", burst).isGreaterThanOrEqualTo(last);
            last = block.lastSeconds();
        }
        assertThat(last).isFinite();
        assertThat(timestamper.rateHz()).isPositive();
    }

    /** A clock in seconds counts decimals of them: what it can tell apart is no second. */
    @Test
    void aClockInSecondsWithDecimalsTellsLostRows() {
        Timestamper timestamper = new Timestamper(new BoardClock(0, 1, 0), Double.NaN, 100);
        double[] stamps = IntStream.range(0, 500)
                .filter(i -> i < 40 || i % 20 != 7)
                .mapToDouble(i -> 7 + i / 5.0)
                .toArray();
        timestamper.date(new Rows(new double[][] {stamps}, stamps.length), 100, 0);
        assertThat(timestamper.lostRows()).isEqualTo(23);
        assertThat(timestamper.nominalRateHz()).isEqualTo(5);
    }

    /** Times of a file, in whole ticks: between them where rows share some or lie unevenly over them, else as they are. */
    @ParameterizedTest
    @CsvSource({
        "860, 0.001, true",
        "1700, 0.001, true",
        "2000, 0.001, true",
        "250, 0.01, true",
        "1000, 0.001, false",
        "400, 0.001, false",
        "0.00002, 86400, false",
        "3, 1, true"
    })
    void timesOfAFileAreAsFineAsTheirRows(double rateHz, double tick, boolean other) {
        double[] taken = new double[5000];
        Arrays.setAll(taken, i -> 12 * tick + i / rateHz);
        double[] stamped = Arrays.stream(taken)
                .map(t -> Math.floor(t / tick + 1e-6) * tick)
                .toArray();
        double[] spread = CoarseStamps.spread(stamped, List::of);
        assertThat(spread != stamped).isEqualTo(other);
        assertThat(spread).isSorted();
        for (int i = 0; i < taken.length; i++) {
            assertThat(spread[i]).isCloseTo(taken[i], within(1.01 * tick));
        }
        assertThat(SampleRate.of(spread)).isCloseTo(rateHz, within(0.002 * rateHz));
        // Times that tell more are left alone, also of a log that has two rows a moment.
        double[] fine = {0, 0.1, 0.2, 0.2, 0.31, 0.4};
        assertThat(CoarseStamps.spread(fine, List::of)).isSameAs(fine);
        assertThat(CoarseStamps.spread(new double[] {5, 5}, List::of)).containsExactly(5, 5);
    }

    /** Each so-many-th row is lost, or the board is as much slower: whole milliseconds are the same, and the samples tell which. */
    @ParameterizedTest
    @ValueSource(ints = {8, 10, 12, 24, 40, 100})
    void rowsLostAtEvenDistancesAreToldFromASlowerRateByTheSamples(int each) {
        double[] stamped = IntStream.range(0, 5000)
                .filter(i -> i % each != 0)
                .mapToDouble(i -> i / 1000.0)
                .toArray();
        Random random = new Random(each);
        double[] slow = new double[stamped.length];
        Arrays.setAll(slow, i -> Math.rint(20 + 3 * Math.sin(i / 700.0)));
        for (boolean lost : new boolean[] {true, false}) {
            double[] shaken = new double[stamped.length];
            Arrays.setAll(shaken, i -> {
                double t = lost ? stamped[i] : i / 1000.0 * each / (each - 1);
                return Math.sin(900 * t) + 0.4 * Math.sin(310 * t + 1) + 0.1 * random.nextGaussian();
            });
            assertThat(CoarseStamps.spread(stamped, () -> List.of(slow, shaken)) == stamped)
                    .isEqualTo(lost);
            // The same of a board that is read live, a few rows at a time.
            Timestamper live = new Timestamper(new BoardClock(0, 1000, 0), Double.NaN, 1000);
            for (int from = 0; from < stamped.length; from += 7) {
                int to = Math.min(stamped.length, from + 7);
                double[] ticks = Arrays.stream(stamped, from, to)
                        .map(t -> Math.rint(1000 * t))
                        .toArray();
                live.date(
                        new Rows(
                                new double[][] {
                                    ticks, Arrays.copyOfRange(slow, from, to), Arrays.copyOfRange(shaken, from, to)
                                },
                                to - from),
                        1 + stamped[to - 1],
                        0);
            }
            assertThat(live.lostRows()).isEqualTo(lost ? 5000 / each - (5000 % each == 0 ? 1 : 0) : 0);
            assertThat(live.rateHz()).isCloseTo(lost ? 1000 : 1000.0 * (each - 1) / each, within(0.5));
        }
        double[] noise = random.doubles(stamped.length).toArray();
        assertThat(CoarseStamps.spread(stamped, () -> List.of(slow, noise))).isNotSameAs(stamped);
    }

    /** Of two tones in noise as loud as they are, at any number of steps of two ticks: chance alone tells of no loss. */
    @Test
    void aSlowerBoardInNoiseLosesNothing() {
        for (int seed = 0; seed < 200; seed++) {
            Random random = new Random(seed);
            int each = 20 + random.nextInt(60);
            double[] stamps = IntStream.range(0, each * (8 + random.nextInt(50)))
                    .filter(i -> i % each != 0)
                    .mapToDouble(i -> i)
                    .toArray();
            double fast = 0.05 + 2 * random.nextDouble();
            double[] x = new double[stamps.length];
            Arrays.setAll(x, i -> Math.sin(0.3 * i) + 0.5 * Math.sin(fast * i) + 0.5 * random.nextGaussian());
            assertThat(RegularLosses.told(stamps, 1, List.of(x)))
                    .as("seed %d", seed)
                    .isFalse();
        }
    }

    /** What stands beside a wrong stamp may be odd, too: a row that was overtaken, one without a stamp, another wrong one. */
    @ParameterizedTest
    @CsvSource({"1, 4000", "7, 4000", "64, 4000", "1, 4293.97", "64, 4293.97"})
    void aWrongStampIsFoundWhateverStandsBesideIt(int batch, double boot) {
        Timestamper timestamper = new Timestamper(new BoardClock(0, 1e6, BoardClock.WRAP_32_BIT), Double.NaN, 100);
        double[] stamps = new double[1500];
        Arrays.setAll(stamps, i -> (Math.rint(boot * 1e6) + 4000.0 * i) % BoardClock.WRAP_32_BIT);
        for (int late : new int[] {249, 501, 900}) {
            double own = stamps[late];
            stamps[late] = stamps[late + 1];
            stamps[late + 1] = own;
        }
        stamps[500] = 3_000_000_000.0;
        stamps[800] = 77;
        stamps[801] = Double.NaN;
        stamps[1000] = 1_500_000_000;
        stamps[1001] = 2_500_000_000.0;
        int done = 0;
        for (int from = 0; from < stamps.length; from += batch) {
            double[] part = Arrays.copyOfRange(stamps, from, Math.min(stamps.length, from + batch));
            Block block = timestamper.date(new Rows(new double[][] {part}, part.length), 9 + from * 0.004, 0);
            for (int row = 0; row < block.rows(); row++, done++) {
                assertThat(block.time().secondsAt(row)).as("row %d", done).isCloseTo(done * 0.004, within(0.0081));
            }
        }
        assertThat(done).isEqualTo(stamps.length);
        assertThat(timestamper.wrongStamps()).isEqualTo(5);
        // One that was overtaken beside a wrong one was told as lost, and has come.
        assertThat(timestamper.lostRows()).isLessThanOrEqualTo(1);
    }

    /** A board that begins anew was silent for as long as nothing arrived, also where its first row comes alone. */
    @ParameterizedTest
    @CsvSource({"1", "3", "25"})
    void aBoardThatBeganAnewWasAwayForAsLongAsNothingCame(int batch) {
        Timestamper timestamper = new Timestamper(new BoardClock(0, 1e3, 0), Double.NaN, 100);
        double last = 0;
        for (int from = 0; from < 600; from += batch) {
            double[] part = new double[batch];
            int first = from;
            Arrays.setAll(part, i -> 20 * (first + i) + (first + i < 300 ? 9000 : -5900));
            double arrival = 40 + 0.02 * (from + batch) + (from < 300 ? 0 : 4);
            Block block = timestamper.date(new Rows(new double[][] {part}, batch), arrival, 0);
            last = block.rows() == 0 ? last : block.lastSeconds();
        }
        assertThat(last).isCloseTo(599 * 0.02 + 4, within(0.02 * batch + 0.05));
    }

    /** Rows that carry numbers and overtake each other, also at the end of a turn: what is lost is counted to the row. */
    @ParameterizedTest
    @CsvSource({"0, 256, 1", "0, 256, 40", "0, 65536, 7", "0, 0, 40", "1000, 256, 1", "1000, 256, 40", "1000000, 0, 7"})
    void rowsThatOvertakeEachOtherAreCountedOnce(double ticksPerSecond, double wrap, int batch) {
        Random random = new Random(4);
        int sent = 4000;
        int[] order = IntStream.range(0, sent)
                .filter(i -> i < 40 || i > sent - 40 || random.nextInt(100) > 0)
                .toArray();
        for (int i = 60; i + 1 < order.length; i += 2 + random.nextInt(60)) {
            int own = order[i];
            order[i] = order[i + 1];
            order[i + 1] = own;
        }
        BoardClock clock = ticksPerSecond == 0 ? null : new BoardClock(0, ticksPerSecond, 0);
        Timestamper timestamper = new Timestamper(clock, new BoardSequence(1, wrap, 1), Double.NaN, 500);
        for (int from = 0; from < order.length; from += batch) {
            int count = Math.min(batch, order.length - from);
            double[] stamps = new double[count];
            double[] numbers = new double[count];
            for (int i = 0; i < count; i++) {
                stamps[i] = Math.floor(order[from + i] * ticksPerSecond / 500);
                numbers[i] = wrap > 0 ? order[from + i] % wrap : order[from + i];
            }
            timestamper.date(new Rows(new double[][] {stamps, numbers}, count), 7 + order[from] / 500.0, 0);
        }
        assertThat(timestamper.lostRows()).isEqualTo(sent - order.length);
    }

    /** Rows of which several share a stamp: a silence between them is a gap like any other, and no other one is told. */
    @ParameterizedTest
    @CsvSource({"1200, 0.02", "1900, 3", "2500, 0.02", "2500, 3", "10000, 0.1", "10000, 3"})
    void aSilenceBetweenRowsThatShareStampsIsAGap(double rateHz, double silence) {
        Board board = new Board(1000, 0);
        for (int i = 0; i < ROWS; i++) {
            board.row(0.5 + i / rateHz + (i < ROWS / 2 ? 0 : silence), 0);
        }
        board.dated().isOnTime();
        assertThat(board.timestamper.gapCount()).isEqualTo(1);
        double due = silence * rateHz;
        assertThat((double) board.timestamper.lostRows()).isCloseTo(due, within(2 + 0.01 * due));
    }
}
