package zesty.signal.boards.sim;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.DoubleStream;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.Rows;
import zesty.signal.core.decode.StreamDecoder;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.decode.Timestamper;
import zesty.signal.core.sample.Block;

/** Every simulated board against its own truth: what the recogniser alone makes of its bytes, whole and damaged. */
class BoardDialectsTest {
    private static final Map<String, StreamFormat> SOUND = new HashMap<>();

    static Stream<String> boards() {
        return SimulatedBoards.all().stream().map(SimulatedBoards.Entry::name);
    }

    /** A board's bytes, the rows that got through whole, and what the board's columns are. */
    private record Run(byte[] bytes, List<double[]> rows, SimulatedBoard board) {}

    private static Run run(String words, long seed, double seconds) {
        SimulatedBoard board = SimulatedBoards.create(words, seed);
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        bytes.writeBytes(board.greeting());
        List<double[]> rows = new ArrayList<>();
        long frames = Math.max(40, Math.round(seconds * board.framesPerSecond()));
        for (long i = 0; i < frames; i++) {
            board.next(bytes);
            rows.addAll(Arrays.asList(board.newest()));
        }
        return new Run(bytes.toByteArray(), rows, board);
    }

    private static StreamFormat recognised(byte[] bytes) {
        return Recogniser.recognise(bytes, bytes.length).get(0).format();
    }

    @ParameterizedTest
    @MethodSource("boards")
    void isUnderstoodWithoutAWord(String name) {
        for (long seed = 1; seed <= 3; seed++) {
            Run run = run(name, seed, 3);
            StreamFormat format = recognised(run.bytes());
            assertThat(format.columns()).isEqualTo(withoutPixels(run.board()));
            StreamDecoder decoder = format.decoder(new RejectedLines(50));
            for (int at = 0; at < run.bytes().length; at += 61) {
                decoder.feed(run.bytes(), at, Math.min(61, run.bytes().length - at));
            }
            assertRows(decoder.takeRows(), run.rows());
        }
    }

    /** Pixels come beside the columns. */
    private static List<Column> withoutPixels(SimulatedBoard board) {
        return board.columns().stream()
                .filter(one -> one.role() != Role.PICTURE)
                .toList();
    }

    private static double[] sent(Rows rows, int row) {
        DoubleStream columns = Arrays.stream(rows.columns()).mapToDouble(column -> column[row]);
        return rows.frames() == null
                ? columns.toArray()
                : DoubleStream.concat(columns, Arrays.stream(rows.frames()[row]))
                        .toArray();
    }

    private static boolean isSame(double[] found, double[] expected) {
        boolean same = found.length == expected.length;
        for (int i = 0; i < found.length && same; i++) {
            same = found[i] == expected[i] || found[i] != found[i] && expected[i] != expected[i];
        }
        return same;
    }

    private static void assertRows(Rows found, List<double[]> expected) {
        assertThat(found.count()).isEqualTo(expected.size());
        for (int row = 0; row < found.count(); row++) {
            if (!isSame(sent(found, row), expected.get(row))) {
                assertThat(sent(found, row)).as("row %d", row).isEqualTo(expected.get(row));
            }
        }
    }

    @ParameterizedTest
    @MethodSource("boards")
    void isUnderstoodInTheMiddleOfItsStream(String name) {
        Run run = run(name, 5, 4);
        int greeting = run.board().greeting().length;
        byte[] middle = Arrays.copyOfRange(run.bytes(), greeting + 33, run.bytes().length);
        StreamFormat format = recognised(middle);
        List<Column> columns = withoutPixels(run.board());
        // Names that only the greeting gives are not known here, but what the columns hold is.
        assertThat(format.columns()).hasSize(columns.size());
        StreamDecoder decoder = format.decoder(new RejectedLines(50));
        decoder.restart(true);
        decoder.feed(middle, 0, middle.length);
        Rows rows = decoder.takeRows();
        assertThat(rows.count()).isPositive();
        assertThat(sent(rows, rows.count() - 1))
                .isEqualTo(run.rows().get(run.rows().size() - 1));
    }

    static Stream<Arguments> damages() {
        return boards().flatMap(board -> Stream.of("dropouts", "noise", "halves", "dropouts+noise+halves", "restart")
                .map(faults -> Arguments.of(board, faults)));
    }

    @ParameterizedTest
    @MethodSource("damages")
    void whatIsLostIsWhatWasTakenAwayAndNoMore(String name, String faults) {
        // The format is known from the sound board; the damaged one is then read with it.
        StreamFormat format =
                SOUND.computeIfAbsent(name, board -> recognised(run(board, 7, 3).bytes()));
        Run run = run(name + "+" + faults, 7, 15);
        FaultyBoard board = (FaultyBoard) run.board();
        assertThat(faults.equals("restart") ? board.restarts() : board.taken() + board.strange())
                .isPositive();
        StreamDecoder decoder = format.decoder(new RejectedLines(500));
        for (int at = 0; at < run.bytes().length; at += 997) {
            decoder.feed(run.bytes(), at, Math.min(997, run.bytes().length - at));
        }
        Rows rows = decoder.takeRows();
        assertRows(rows, run.rows());
        if (format.sequence() != null && faults.equals("dropouts")) {
            Timestamper timestamper =
                    new Timestamper(format.clock(), format.sequence(), Double.NaN, board.rowsPerSecond());
            Block block = timestamper.date(rows, 15, 0);
            double frames = board.rowsPerSecond() / board.framesPerSecond();
            assertThat(timestamper.lostRows()).isEqualTo(Math.round(board.taken() * frames));
            assertThat(block.gaps()).isNotEmpty();
        }
        if (format.clock() != null
                && format.indexOf(Role.EDGE) < 0
                && faults.equals("dropouts")
                && !name.equals("battery")) {
            Timestamper timestamper = new Timestamper(format.clock(), Double.NaN, board.rowsPerSecond());
            timestamper.date(rows, 15, 0);
            assertThat(timestamper.lostRows()).isEqualTo(board.taken());
        }
    }
}
