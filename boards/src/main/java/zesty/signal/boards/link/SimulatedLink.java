package zesty.signal.boards.link;

import java.io.ByteArrayOutputStream;
import java.util.concurrent.locks.LockSupport;
import zesty.signal.boards.sim.SimulatedBoard;

/** A simulated board in this process, paced by the computer's clock. */
public final class SimulatedLink implements Link {
    private static final long WAIT_NANOS = 10_000_000;
    /** Frames made at one go, at most: keeps the output small when the process was held up. */
    private static final long MOST_FRAMES = 4000;

    private final SimulatedBoard board;
    private final double speed;
    private final long most;
    private final ByteArrayOutputStream ready = new ByteArrayOutputStream();
    private byte[] bytes = new byte[0];
    private int given;
    private long startNanos;
    private long frames;
    private volatile boolean open;

    /** @param speed how many of the board's seconds pass in one; infinity for as fast as it is read */
    public SimulatedLink(SimulatedBoard board, double speed) {
        this(board, speed, Long.MAX_VALUE);
    }

    /** @param most frames to send before the stream is over */
    public SimulatedLink(SimulatedBoard board, double speed, long most) {
        if (!(speed > 0)) {
            throw new IllegalArgumentException("speed must be above 0, was " + speed);
        }
        this.board = board;
        this.speed = speed;
        this.most = most;
    }

    @Override
    public void open() {
        startNanos = System.nanoTime();
        frames = 0;
        bytes = board.greeting();
        given = 0;
        open = true;
    }

    @Override
    public int read(byte[] buffer) {
        if (!open) {
            return OVER;
        }
        if (given == bytes.length) {
            if (frames >= most) {
                return OVER;
            }
            make();
        }
        int count = Math.min(buffer.length, bytes.length - given);
        System.arraycopy(bytes, given, buffer, 0, count);
        given += count;
        return count;
    }

    private void make() {
        double elapsed = (System.nanoTime() - startNanos) * 1e-9 * speed;
        long due = (long) Math.min(Math.min(most, frames + MOST_FRAMES), elapsed * board.framesPerSecond());
        if (due <= frames) {
            LockSupport.parkNanos(WAIT_NANOS);
            return;
        }
        ready.reset();
        for (; frames < due; frames++) {
            board.next(ready);
        }
        bytes = ready.toByteArray();
        given = 0;
    }

    /** @return frames sent so far */
    public long frames() {
        return frames;
    }

    @Override
    public void write(byte[] sent) {
        // This board takes no orders.
    }

    @Override
    public void close() {
        open = false;
    }

    @Override
    public boolean joinsMidStream() {
        return false;
    }

    @Override
    public boolean unpaced() {
        return speed != 1;
    }
}
