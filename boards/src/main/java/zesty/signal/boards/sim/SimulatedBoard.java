package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;

/** A board made of software. The same seed and the same orders give the same bytes. One thread. */
public interface SimulatedBoard {

    /** @return what it sends when it starts, before the first frame */
    byte[] greeting();

    /** Appends the bytes of the next frame. */
    void next(ByteArrayOutputStream out);

    /** @return frames a second by the board's own clock */
    double framesPerSecond();

    /** @return rows a second: more than frames where a frame carries several */
    default double rowsPerSecond() {
        return framesPerSecond();
    }

    /** @return what its stream's columns are in truth, whatever the stream says of them */
    List<Column> columns();

    /** @return the numbers of the newest frame as the stream writes them, row by row, in the order of the columns */
    double[][] newest();

    /** @return the true state behind the newest frame, each quantity by a name with its unit */
    default Map<String, Double> truth() {
        return Map.of();
    }

    /**
     * Takes an order, one line without its ending.
     *
     * @return the answer, sent with the next frame; empty when the board takes none
     */
    default String receive(String order) {
        return "";
    }

    /** @return frames that are spoiled when strange bytes come before one */
    default int noiseCosts() {
        return 1;
    }

    /** @return frames that are spoiled when the end of one is cut off: itself, and what is glued to it */
    default int cutCosts() {
        return 2;
    }
}
