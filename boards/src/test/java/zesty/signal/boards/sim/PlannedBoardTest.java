package zesty.signal.boards.sim;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.read.Reading;
import zesty.signal.core.spectrum.Welch;
import zesty.signal.core.spectrum.Window;

/** A board that is only planned sends what the plan says: rate, range, noise, swing, its lamp, text or packets. */
class PlannedBoardTest {
    private static double[] channel(SimulatedBoard board, int channel, int rows) {
        ByteArrayOutputStream ignored = new ByteArrayOutputStream();
        double[] x = new double[rows];
        for (int i = 0; i < rows; i++) {
            board.next(ignored);
            ignored.reset();
            x[i] = board.newest()[0][channel + 1];
        }
        return x;
    }

    private static double tone(double[] x, double rate, double low, double high) {
        double[] density = Welch.of(x, List.of(new int[] {0, x.length}), rate, Window.HANN, 1024, 0.5)
                .density();
        int best = 0;
        for (int k = 1; k < density.length; k++) {
            double hz = k * rate / 1024;
            best = hz >= low && hz <= high && (best == 0 || density[k] > density[best]) ? k : best;
        }
        return best * rate / 1024;
    }

    @Test
    void itsSignalIsAsLargeAsQuickAndAsNoisyAsPlanned() {
        String words = SimulatedBoards.planned(400, 3, 12, 2.5, 800, 30, List.of(100.0), false, false);
        assertThat(words).isEqualTo("planned+r400+c3+b12+n2.5+s800+x30+l100");
        SimulatedBoard board = SimulatedBoards.create(words, 4);
        assertThat(board.rowsPerSecond()).isEqualTo(400);
        assertThat(board.columns()).hasSize(5);
        double[] first = channel(board, 1, 20_000);
        double[] second = channel(SimulatedBoards.create(words, 4), 2, 20_000);
        assertThat(tone(first, 400, 50, 200)).isCloseTo(100, within(0.5));
        // The second has no lamp on it: 800 counts from top to bottom, and noise of 2.5 beside.
        double[] sorted = second.clone();
        Arrays.sort(sorted);
        assertThat(sorted[sorted.length - 1] - sorted[0]).isBetween(800.0, 825.0);
        double hz = 30 * 0.061;
        double squares = 0;
        for (int i = 0; i < second.length; i++) {
            double off = second[i] - (4095 / 2.0 + 400 * Math.sin(2 * Math.PI * hz * i / 400 + 1));
            squares += off * off;
        }
        assertThat(Math.sqrt(squares / second.length)).isCloseTo(Math.sqrt(2.5 * 2.5 + 1 / 12.0), within(0.05));
        double[] low = channel(SimulatedBoards.create("planned+b8+s900", 1), 1, 2000);
        assertThat(Arrays.stream(low)).allMatch(v -> v >= 0 && v <= 255 && v == Math.rint(v));
    }

    /** A plan for a pulse is tried on a heart's signal. */
    @Test
    void aPulseIsReadFromItAsFromAFinger() {
        for (long seed = 1; seed <= 3; seed++) {
            SimulatedBoard board = SimulatedBoards.create("planned+r121+s41+n0.8+x20+pulse", seed);
            Reading reading = Heard.read("pulse", 121, Map.of("kind", "optical"), channel(board, 1, 121 * 40));
            assertThat(reading.quality().share()).isGreaterThan(0.7);
            assertThat(reading.scalar("rate_bpm.mean")).isBetween(50.0, 110.0);
        }
    }

    @Test
    void textAndPacketsCarryTheSameNumbers() {
        SimulatedBoard text = SimulatedBoards.create("planned+r250+c2", 2);
        SimulatedBoard packets = SimulatedBoards.create("planned+r250+c2+packets", 2);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        assertThat(text.greeting()).isEmpty();
        for (int i = 0; i < 5; i++) {
            out.reset();
            text.next(out);
            String[] fields = out.toString(StandardCharsets.US_ASCII).strip().split(";");
            out.reset();
            packets.next(out);
            byte[] packet = out.toByteArray();
            assertThat(packet).hasSize(13);
            int sum = 0;
            for (int k = 0; k < 12; k++) {
                sum += packet[k] & 0xff;
            }
            assertThat(packet[12] & 0xff).isEqualTo(sum & 0xff);
            long clock = 0;
            for (int k = 3; k >= 0; k--) {
                clock = clock << 8 | packet[2 + k] & 0xff;
            }
            assertThat(clock).isEqualTo(1_200_000 + 4000L * i).isEqualTo(Long.parseLong(fields[0]));
            assertThat(fields[1]).isEqualTo(String.valueOf(i));
            for (int c = 0; c < 3; c++) {
                int count = packet[6 + 2 * c] & 0xff | (packet[7 + 2 * c] & 0xff) << 8;
                assertThat(count).isEqualTo(Integer.parseInt(fields[1 + c]));
            }
        }
        assertThat(SimulatedBoards.create("planned+dropouts", 1)).isInstanceOf(FaultyBoard.class);
    }

    @ParameterizedTest
    @CsvSource({
        "planned+q3, a planned board knows no 'q3'",
        "planned+r, a planned board knows no 'r'",
        "planned+, a planned board knows no ''",
        "planned+c0, 1 to 64 channels",
        "planned+r0, 0.1 to 100000 rows/s",
        "planned+b40, 4 to 24 bits"
    })
    void whatCannotBePlannedIsNamed(String words, String message) {
        assertThatThrownBy(() -> SimulatedBoards.create(words, 1))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(message);
    }
}
