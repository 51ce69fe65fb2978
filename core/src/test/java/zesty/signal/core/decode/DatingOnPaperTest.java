package zesty.signal.core.decode;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;

/** Rows that are dated one by one by hand: each time, each gap and each count is one that can be worked out on paper. */
class DatingOnPaperTest {
    private static Rows rows(double[]... columns) {
        return new Rows(columns, columns[0].length);
    }

    private static Timestamper topics() {
        return new Timestamper(new BoardClock(0, 1e4, 0), null, Double.NaN, 100, true);
    }

    /** Messages come when they come: none is lost between them, and a link that was away is told without a count. */
    @Test
    void messagesOfTopicsHaveTheirOwnTimesAndARateOfAll() {
        Timestamper timestamper = topics();
        assertThat(timestamper.rateHz()).isNaN();
        timestamper.date(rows(new double[] {50_000}), 9, 0);
        assertThat(timestamper.rateHz()).isNaN();
        Block more = timestamper.date(rows(new double[] {50_000, 52_500, 90_000}), 13, 0);
        assertThat(more.gaps()).isEmpty();
        assertThat(more.lastSeconds()).isEqualTo(4);
        // Four in four seconds: three steps.
        assertThat(timestamper.rateHz()).isEqualTo(0.75);
        timestamper.relink();
        Block back = timestamper.date(rows(new double[] {170_000, 170_001}), 21, 0);
        assertThat(back.gaps()).containsExactly(new Gap(4, 12, 0));
        assertThat(timestamper.gapCount()).isEqualTo(1);
        assertThat(timestamper.lostRows()).isZero();
        assertThat(timestamper.rateUncertainty()).isZero();
        assertThat(timestamper.arrivalPeriodSeconds()).isNaN();
        assertThat(timestamper.date(rows(new double[] {170_500}), 21.1, 0).gaps())
                .isEmpty();
    }

    /** How late rows come against their own time, as the standard deviation of the last thirty blocks or so. */
    @Test
    void jitterIsHowUnevenlyRowsArrive() {
        Timestamper timestamper = new Timestamper(new BoardClock(0, 1e3, 0), Double.NaN, 100);
        Random random = new Random(2);
        double of = 0;
        for (int i = 0; i < 4000; i++) {
            timestamper.date(rows(new double[] {100 * i}), 5 + 0.1 * i + 0.02 * random.nextGaussian(), 0);
            of += i < 1000 ? 0 : timestamper.jitterSeconds() / 3000;
        }
        assertThat(of).isCloseTo(0.02, within(0.001));
        assertThat(timestamper.rateHz()).isCloseTo(10, within(1e-9));
    }

    /** A leap that nothing explains waits for what follows; at the end a small one is believed and a large one is not. */
    @ParameterizedTest
    @CsvSource({"2900, 0, 29", "2000, 1, 10", "500, 1, 10"})
    void whatLeapsAtTheVeryEndIsWeighed(double stamp, long wrong, double seconds) {
        Timestamper timestamper = new Timestamper(new BoardClock(0, 100, 0), Double.NaN, 100);
        double[] stamps = new double[101];
        Arrays.setAll(stamps, i -> i < 100 ? 10 * i + 7 : stamp + 7);
        // Eleven times as far as all of the record, or back.
        stamps[100] = stamp == 2000 ? 1e6 : stamps[100];
        Block block = timestamper.date(rows(stamps), 5, 0);
        assertThat(block.rows()).isEqualTo(100);
        assertThat(timestamper.holds()).isTrue();
        Block rest = timestamper.rest();
        assertThat(rest.rows()).isEqualTo(1);
        assertThat(rest.lastSeconds()).isCloseTo(seconds, within(1e-9));
        assertThat(timestamper.wrongStamps()).isEqualTo(wrong);
        assertThat(timestamper.holds()).isFalse();
    }

    /** Without a clock at a rate that is known, a silence is as many rows as it has room for; by numbers it is exact. */
    @ParameterizedTest
    @CsvSource({"-1, 0, 199", "0, 205, 204", "256, 205, 204", "256, 1230, 205"})
    void aSilenceWithoutAClockIsCounted(double wrap, int next, long missing) {
        BoardSequence numbers = wrap < 0 ? null : new BoardSequence(0, wrap, 1);
        Timestamper timestamper = new Timestamper(null, numbers, Double.NaN, 100);
        int n = 0;
        double last = 0;
        for (int k = 0; k < 400; k++) {
            double[] column = new double[10];
            for (int i = 0; i < 10; i++, n++) {
                column[i] = wrap > 0 ? n % wrap : n;
            }
            last = timestamper.date(rows(column), 3 + 0.1 * k, 0).lastSeconds();
        }
        assertThat(last).isCloseTo(39.99, within(1e-6));
        timestamper.relink();
        // Two seconds without a row: the next ten arrive at 44.9 instead of 43.
        double[] column = new double[10];
        Arrays.setAll(
                column, i -> wrap > 0 ? (4000 + next % 256 - (next > 1000 ? 0 : 1) + i) % wrap : 4000 + next - 1 + i);
        Block back = timestamper.date(rows(column), 44.99, 1.9);
        assertThat(back.gaps()).hasSize(1);
        assertThat(timestamper.lostRows()).isCloseTo(missing, within(1L));
        assertThat(back.time().secondsAt(0)).isCloseTo(last + (timestamper.lostRows() + 1) / 100.0, within(1e-6));
        assertThat(timestamper.rateHz()).isCloseTo(100, within(1e-6));
        assertThat(timestamper.rateUncertainty()).isBetween(1e-9, 0.01);
    }

    @ParameterizedTest
    @CsvSource({
        "0, 1, 7, 8, 0",
        "0, 1, 7, 12, 4",
        "0, 3, 7, 12, 12",
        "256, 1, 250, 3, 8",
        "256, 1, 250, 200, 0",
        "0, 1, 254, 2, 3",
        "0, 1, 998, 1, 2",
        "0, 1, 500, 3, 0",
        "65536, 2, 65535, 0, 0",
        "65536, 2, 65535, 4, 8",
        "256, 1, 5, 5, 0"
    })
    void numbersTellWhatIsBetweenThem(double wrap, int rowsEach, double before, double after, long missing) {
        assertThat(new BoardSequence(0, wrap, rowsEach).missingBetween(before, after))
                .isEqualTo(missing);
    }

    /** Among the first fifteen steps nobody knows yet which are long: what was a gap of them is counted once it is known. */
    @ParameterizedTest
    @CsvSource({"3, 1", "7, 4", "13, 30"})
    void whatWasLostAmongTheFirstRowsIsCounted(int at, int lost) {
        Timestamper timestamper = new Timestamper(new BoardClock(0, 1e6, 0), Double.NaN, 100);
        double[] stamps = new double[60];
        Arrays.setAll(stamps, i -> 5000.0 * (i < at ? i : i + lost));
        Block block = timestamper.date(rows(stamps), 4, 0);
        assertThat(timestamper.lostRows()).isEqualTo(lost);
        assertThat(timestamper.gapCount()).isEqualTo(1);
        assertThat(timestamper.rateHz()).isCloseTo(200, within(1e-9));
        assertThat(block.lastSeconds()).isCloseTo(0.005 * (59 + lost), within(1e-12));
    }

    /** A rate is made whole where it is one within what it is known to, two percent at most, and not where it is slow. */
    @ParameterizedTest
    @CsvSource({
        "99.7, 0.01, 100",
        "99.7, 0.001, 99.7",
        "98.2, 0.5, 98",
        "24.49, 0.5, 24.49",
        "24.47, 0.5, 24",
        "4.9999, 0.01, 5",
        "3.9999, 0.1, 3.9999"
    })
    void aRateIsMadeWholeAsFarAsItIsKnown(double rateHz, double uncertainty, double nominal) {
        assertThat(Timestamper.nominal(rateHz, uncertainty)).isEqualTo(nominal);
    }
}
