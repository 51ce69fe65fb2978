package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;

/** A board made of software. */
public interface SimulatedBoard {

    /** @return what it sends when it starts, before the first frame */
    byte[] greeting();

    /** Appends the bytes of the next frame. */
    void next(ByteArrayOutputStream out);

    /** @return frames a second by the board's own clock */
    double framesPerSecond();
}
