package zesty.signal.core.decode;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.sample.Block;

/** Rows that a line sends twice, of boards whose rows are known. */
class RepeatedRowsTest {
    private static final int ROWS = 3000;

    /** Each row: clock, number, value. Datagrams of so many rows, each n-th sent again, at once or behind so many others. */
    private static List<double[]> sent(List<double[]> taken, int each, int datagram, int behind) {
        List<double[]> sent = new ArrayList<>();
        List<List<double[]>> waiting = new ArrayList<>();
        for (int from = 0, n = 1; from < taken.size(); from += datagram, n++) {
            List<double[]> one = taken.subList(from, Math.min(taken.size(), from + datagram));
            sent.addAll(one);
            waiting.add(n % each == 0 ? one : List.of());
            if (waiting.size() > behind) {
                sent.addAll(waiting.get(waiting.size() - 1 - behind));
            }
        }
        return sent;
    }

    private static List<double[]> taken(double rateHz, double ticksPerSecond, double wrap, double counts) {
        Random random = new Random(8);
        List<double[]> taken = new ArrayList<>();
        for (int i = 0; i < ROWS; i++) {
            double ticks = Math.floor(i / rateHz * ticksPerSecond + 1e-6);
            double value = Math.rint(counts * (Math.sin(0.9 * i) + 0.1 * random.nextGaussian()));
            taken.add(new double[] {wrap > 0 ? ticks % wrap : ticks, i % 256, value});
        }
        return taken;
    }

    private record Dated(Timestamper timestamper, List<double[]> rows, List<Double> seconds) {}

    /** As rows come: first those by which their format was told, then in bursts of the computer's own. */
    private static Dated dated(List<double[]> sent, BoardClock clock, BoardSequence sequence, double rateHz) {
        Random random = new Random(3);
        Dated dated =
                new Dated(new Timestamper(clock, sequence, Double.NaN, rateHz), new ArrayList<>(), new ArrayList<>());
        for (int from = 0; from < sent.size(); ) {
            int to = Math.min(sent.size(), from + (from == 0 ? 40 : 1 + random.nextInt(30)));
            double[][] columns = new double[3][to - from];
            for (int row = from; row < to; row++) {
                for (int c = 0; c < 3; c++) {
                    columns[c][row - from] = sent.get(row)[c];
                }
            }
            double arrival = to / rateHz * ROWS / sent.size() + 0.001 * random.nextDouble();
            Block block = dated.timestamper.date(new Rows(columns, to - from), arrival, 0);
            for (int row = 0; row < block.rows(); row++) {
                dated.rows.add(new double[] {
                    block.columns()[0][row], block.columns()[1][row], block.columns()[2][row],
                });
                dated.seconds.add(block.time().secondsAt(row));
            }
            from = to;
        }
        return dated;
    }

    /** By the board's clock, a short one too, or by the number it sends alone. */
    @ParameterizedTest
    @CsvSource({
        "1000, 1000, 0, 12, 1, 0, true",
        "1000, 1000, 0, 3, 8, 0, true",
        "1000, 1000, 0, 5, 8, 2, true",
        "1000, 1000, 1, 1, 1, 0, true",
        "500, 1000000, 65536, 7, 4, 1, true",
        "200, 1000, 0, 7, 4, 1, false"
    })
    void rowsSentTwiceAreOneRow(
            double rateHz, double ticks, double wrap, int each, int datagram, int behind, boolean clock) {
        List<double[]> taken = taken(rateHz, ticks, wrap > 1 ? wrap : 0, 500);
        List<double[]> sent = sent(taken, each, datagram, behind);
        assertThat(sent).hasSizeGreaterThan(ROWS + 100);
        Dated dated = dated(
                sent,
                clock ? new BoardClock(0, ticks, wrap > 1 ? wrap : 0) : null,
                clock ? null : new BoardSequence(1, 256, 1),
                rateHz);

        // Before sixteen have differed one does not know it.
        assertThat(dated.timestamper.repeatedRows()).isBetween(sent.size() - ROWS - 32L, (long) sent.size() - ROWS);
        List<double[]> last = dated.rows.subList(dated.rows.size() - 2500, dated.rows.size());
        for (int i = 0; i < last.size(); i++) {
            assertThat(last.get(i)).containsExactly(taken.get(ROWS - 2500 + i));
            if (clock) {
                double seconds = dated.seconds.get(dated.seconds.size() - 2500 + i);
                assertThat(seconds).isCloseTo((ROWS - 2500 + i) / rateHz, within(1.01 / ticks));
            }
        }
        if (clock) {
            assertThat(dated.timestamper.nominalRateHz()).isCloseTo(rateHz, within(1e-9));
            assertThat(dated.timestamper.lostRows()).isZero();
        }
    }

    /** A clock coarser than the rows, values of few counts, a number of four bits, and nothing that tells rows apart: all are kept. */
    @ParameterizedTest
    @CsvSource({
        "1700, 1000, 500, 0",
        "1700, 1000, 1, 0",
        "1700, 1000, 0, 0",
        "3000, 1000, 2, 0",
        "950, 1000, 1, 0",
        "1000, 0, 1, 16",
        "1000, 0, 0, 0"
    })
    void rowsThatMayBeOthersAreKept(double rateHz, double ticks, double counts, double wrap) {
        List<double[]> taken = taken(rateHz, ticks, 0, counts);
        // Numbers would tell.
        taken.forEach(row -> row[1] = wrap > 0 ? row[1] % wrap : 0);
        Dated dated = dated(
                taken,
                ticks > 0 ? new BoardClock(0, ticks, 0) : null,
                wrap > 0 ? new BoardSequence(1, wrap, 1) : null,
                rateHz);
        assertThat(dated.timestamper.repeatedRows()).isZero();
        assertThat(dated.rows).hasSize(ROWS);
    }

    /** Where one of the two copies was damaged both are kept, and those that are whole are still left out. */
    @ParameterizedTest
    @CsvSource({"20, true", "2, false"})
    void aDamagedCopyIsKept(int damaged, boolean told) {
        List<double[]> sent = new ArrayList<>();
        int copies = 0;
        int kept = 0;
        for (double[] row : taken(1000, 1000, 0, 500)) {
            sent.add(row);
            boolean again = row[1] % 5 == 4;
            boolean broken = again && ++copies % damaged == 0;
            kept += broken ? 1 : 0;
            if (again) {
                sent.add(broken ? new double[] {row[0], row[1], 7777} : row);
            }
        }
        Dated dated = dated(sent, new BoardClock(0, 1000, 0), null, 1000);
        long left = dated.timestamper.repeatedRows();
        assertThat(left).isBetween(told ? copies - kept - 8L : 0L, told ? (long) copies - kept : 0L);
    }
}
