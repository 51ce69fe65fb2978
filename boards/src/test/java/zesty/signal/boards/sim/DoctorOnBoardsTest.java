package zesty.signal.boards.sim;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;
import zesty.signal.core.doctor.Diagnosis;
import zesty.signal.core.doctor.Doctor;
import zesty.signal.core.doctor.Examined;
import zesty.signal.core.doctor.Finding;
import zesty.signal.core.read.Nature;
import zesty.signal.core.read.kinds.ReaderKinds;

/** The doctor on the simulated boards: silent on what is well, and naming what was done to a signal first. */
class DoctorOnBoardsTest {
    /** From the twentieth second on, twenty seconds of every column. */
    private static Map<String, double[]> recorded(SimulatedBoard board) {
        double rate = board.framesPerSecond();
        List<Column> columns = board.columns();
        double[][] values = new double[columns.size()][(int) (20 * rate)];
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        int rows = (int) (-20 * rate);
        while (rows < values[0].length) {
            board.next(out);
            out.reset();
            for (double[] row : board.newest()) {
                for (int c = 0; c < row.length && rows >= 0 && rows < values[0].length; c++) {
                    values[c][rows] = row[c];
                }
                rows++;
            }
        }
        Map<String, double[]> recorded = new HashMap<>();
        for (int c = 0; c < values.length; c++) {
            if (columns.get(c).role() == Role.VALUE) {
                recorded.put(columns.get(c).name(), values[c]);
            }
        }
        return recorded;
    }

    private static List<Finding> examine(String words, String column, String reader, long seed) {
        SimulatedBoard board = SimulatedBoards.create(words, seed);
        Map<String, double[]> others = recorded(board);
        double[] x = others.remove(column);
        double[] t = new double[x.length];
        Arrays.setAll(t, i -> i / board.framesPerSecond());
        return Doctor.examine(new Examined(
                x,
                t,
                Double.NaN,
                Double.NaN,
                reader.isEmpty() ? Nature.LEVEL : ReaderKinds.of(reader).nature(),
                others));
    }

    @ParameterizedTest
    @CsvSource({
        "deck, pulse, pulse",
        "deck, forearm, muscle",
        "deck, heel, ''",
        "deck, trim, ''",
        "deck, bilge, ''",
        "chest, heart, pulse",
        "hull, ax, vibration",
        "hull, az, vibration",
        "forearm, muscle, muscle",
        "forearm-envelope, envelope, muscle",
        "motion, ax, motion",
        "motion, gz, motion",
        "motion, mx, motion",
        "masthead, vane, ''",
        "battery, volts, ''",
        "sounder, echo, ''",
        "halyard, knock, hits",
        "hoist, load, ''",
        "whistle, sound, tone",
        "barometer, pressure, ''",
        "forearm+two, other, muscle"
    })
    void isSilentOnWhatIsWell(String words, String column, String reader) {
        for (long seed = 1; seed <= 3; seed++) {
            assertThat(examine(words, column, reader, seed)).as("seed " + seed).isEmpty();
        }
    }

    @ParameterizedTest
    @CsvSource({
        "deck+hum, pulse, pulse, HUM", "chest+hum, heart, pulse, HUM", "forearm+hum, muscle, muscle, HUM",
        "deck+grain, pulse, pulse, NOISE", "deck+wander, pulse, pulse, WANDER",
                "forearm+motor, muscle, muscle, IN_STEP",
        "forearm+loose, muscle, muscle, LOOSE", "forearm+cut, muscle, muscle, CLIPPED",
                "hull+clipped, az, vibration, CLIPPED"
    })
    void namesFirstWhatWasDoneToASignal(String words, String column, String reader, Diagnosis diagnosis) {
        int first = 0;
        for (long seed = 1; seed <= 4; seed++) {
            List<Finding> told = examine(words, column, reader, seed);
            first += !told.isEmpty() && told.get(0).diagnosis() == diagnosis ? 1 : 0;
        }
        assertThat(first).isGreaterThanOrEqualTo(3);
    }
}
