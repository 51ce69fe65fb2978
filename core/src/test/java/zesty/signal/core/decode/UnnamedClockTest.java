package zesty.signal.core.decode;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Random;
import java.util.function.IntToDoubleFunction;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A first column without a name that goes on as only a clock does is one; nothing else is. */
class UnnamedClockTest {
    private static BoardClock clock(int rows, IntToDoubleFunction first, String pattern) {
        Random random = new Random(2);
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < rows; i++) {
            text.append(String.format(Locale.ROOT, pattern, first.applyAsDouble(i)))
                    .append(';')
                    .append(500 + random.nextInt(40))
                    .append('\n');
        }
        byte[] bytes = text.toString().getBytes(StandardCharsets.US_ASCII);
        return DelimitedFinder.find(bytes, bytes.length).orElseThrow().clock();
    }

    @Test
    void wholeEvenStepsOfSevenDigitsAreAClock() {
        BoardClock micros = clock(100, i -> 1_200_000 + 5000.0 * i, "%.0f");
        assertThat(micros.column()).isZero();
        assertThat(micros.ticksPerSecond()).isEqualTo(1e6);
        assertThat(micros.wrapTicks()).isEqualTo(BoardClock.WRAP_32_BIT);
        // A loop that is late by a few µs, and rows that are lost now and then.
        Random random = new Random(1);
        assertThat(clock(100, i -> 1_200_000 + 8264.0 * i + random.nextInt(12), "%.0f"))
                .isNotNull();
        assertThat(clock(100, i -> 9_000_000 + 10_000.0 * (i + i / 9), "%.0f")).isNotNull();
        // Milliseconds of a board that has run for an hour.
        assertThat(clock(100, i -> 3_600_000 + 10.0 * i, "%.0f").ticksPerSecond())
                .isEqualTo(1e3);
    }

    @Test
    void whatGoesOnOtherwiseIsNone() {
        Random random = new Random(3);
        // Too short to be sure, too small a number, with decimals, uneven, going up and down, one by one.
        assertThat(clock(12, i -> 1_200_000 + 5000.0 * i, "%.0f")).isNull();
        assertThat(clock(100, i -> 200 + 5.0 * i, "%.0f")).isNull();
        assertThat(clock(100, i -> 1_013_250.5 + 7 * i, "%.1f")).isNull();
        double[] walk = {2e6};
        assertThat(clock(100, i -> walk[0] += 1000 + random.nextInt(3000), "%.0f"))
                .isNull();
        assertThat(clock(100, i -> 2_000_000 + 40_000 * Math.sin(i / 7.0), "%.0f"))
                .isNull();
        assertThat(clock(100, i -> 4_000_000 + i, "%.0f")).isNull();
        assertThat(clock(100, i -> 4_000_000, "%.0f")).isNull();
    }

    private static Role behindTheClock(IntToDoubleFunction second) {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < 100; i++) {
            text.append(1_200_000 + 5000 * i)
                    .append(';')
                    .append((long) second.applyAsDouble(i))
                    .append(";512\n");
        }
        byte[] bytes = text.toString().getBytes(StandardCharsets.US_ASCII);
        return DelimitedFinder.find(bytes, bytes.length)
                .orElseThrow()
                .columns()
                .get(1)
                .role();
    }

    /** Behind such a clock a number that goes up by one, rows lost now and then, is the row's own. */
    @Test
    void theRowsOwnNumberIsKnownByHowItGoes() {
        assertThat(behindTheClock(i -> 7 + i + i / 9 * 3)).isEqualTo(Role.SEQUENCE);
        Random late = new Random(4);
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < 100; i++) {
            text.append(1_200_000 + 5000 * i + late.nextInt(700))
                    .append(';')
                    .append(i)
                    .append(";512\n");
        }
        byte[] bytes = text.toString().getBytes(StandardCharsets.US_ASCII);
        assertThat(DelimitedFinder.find(bytes, bytes.length).orElseThrow().clock())
                .isNotNull();
        assertThat(clock(100, i -> 1_200_000 + 5000 * i + late.nextInt(700), "%.0f"))
                .isNull();
        assertThat(behindTheClock(i -> 7 + 2 * i)).isEqualTo(Role.VALUE);
        assertThat(behindTheClock(i -> i % 20)).isEqualTo(Role.VALUE);
        assertThat(behindTheClock(i -> 300 + 50 * Math.sin(i / 9.0))).isEqualTo(Role.VALUE);
    }

    /**
     * Rows of a board that go on beside their arrival, as a reader that looks every 15 ms sees them, until it is told; each comes up
     * to 30 ms late, and its turns scatter by a third.
     */
    @ParameterizedTest
    @CsvSource({
        "100, 1000, 0, 1000",
        "100, 1000, 0.3, 1000",
        "40, 1000000, 0, 1000000",
        "900, 1, 0.1, 1",
        "12, 1005, 0, 1000",
        "100, 930, 0, 0",
        "100, 1040, 0, 0",
        "100, -1000, 0, 0",
        "100, 0, 0, 0"
    })
    void aNumberThatCountsTimeBesideArrivalIsAClock(double rateHz, double aSecond, double lost, double ticks) {
        Random random = new Random(5);
        ClockByArrival clock = ClockByArrival.of(new DelimitedFormat(',', false, false, "", Columns.unnamed(3), null));
        double[][] columns = new double[3][(int) (6 * rateHz)];
        int rows = 0;
        double seen = 0;
        double arrival = 0;
        int number = 0;
        for (double now = 0;
                now < 1.2 || clock.wantsMore(arrival);
                now += (0.7 + 0.6 * random.nextDouble()) / rateHz, number++) {
            arrival = Math.max(arrival, now + 0.03 * random.nextDouble());
            if (random.nextDouble() < lost) {
                continue;
            }
            if (rows > 0 && arrival > seen + 0.015) {
                seen = arrival;
                clock.saw(columns[0][rows - 1], seen);
            }
            columns[0][rows] = aSecond == 1 ? now : Math.floor(2000 + aSecond * now);
            columns[1][rows] = number;
            columns[2][rows++] = random.nextInt(9);
        }
        StreamFormat told = clock.told(new Rows(columns, rows));
        assertThat(told.clock() == null ? 0 : told.clock().ticksPerSecond()).isEqualTo(ticks);
        // The rows' number is one behind a clock only.
        assertThat(told.columns().get(1).role() == Role.SEQUENCE).isEqualTo(ticks > 0 && rateHz > 20);
    }

    /** A count of rows at a thousand a second is no more a clock than it is a count. */
    @Test
    void aCountOfRowsStaysAChannel() {
        ClockByArrival clock = ClockByArrival.of(new DelimitedFormat(',', false, false, "", Columns.unnamed(2), null));
        double[][] columns = new double[2][2000];
        for (int i = 0; i < 2000; i++) {
            columns[0][i] = i;
            if (i % 15 == 0) {
                clock.saw(i, i * 1e-3);
            }
        }
        assertThat(clock.told(new Rows(columns, 2000)).clock()).isNull();
        assertThat(ClockByArrival.of(new DelimitedFormat(',', false, false, "", Columns.unnamed(1), null)))
                .isNull();
    }
}
