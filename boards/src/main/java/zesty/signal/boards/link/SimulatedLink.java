package zesty.signal.boards.link;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.locks.LockSupport;
import zesty.signal.boards.sim.FaultyBoard;
import zesty.signal.boards.sim.SimulatedBoard;
import zesty.signal.core.text.Messages;

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
    private long unpluggedUntil;
    private final StringBuilder order = new StringBuilder();
    private final ByteArrayOutputStream answers = new ByteArrayOutputStream();

    /** @param speed how many of the board's seconds pass in one; infinity for as fast as it is read */
    public SimulatedLink(SimulatedBoard board, double speed) {
        this(board, speed, Long.MAX_VALUE);
    }

    /** @param most frames to send before the stream is over */
    public SimulatedLink(SimulatedBoard board, double speed, long most) {
        if (!(speed > 0)) {
            throw new IllegalArgumentException(Messages.of("link.speed-must-be-above-0-was", speed));
        }
        this.board = board;
        this.speed = speed;
        this.most = most;
    }

    @Override
    public void open() throws LinkException {
        long now = System.nanoTime();
        if (now < unpluggedUntil) {
            throw new LinkException(Messages.of("link.the-simulated-board-is-unplugged"), false);
        }
        if (unpluggedUntil > 0) {
            // The board ran on while nobody heard it.
            long missed = due() - frames;
            ((FaultyBoard) board).unheard(missed);
            frames += missed;
            unpluggedUntil = 0;
            bytes = new byte[0];
        } else {
            startNanos = now;
            frames = 0;
            bytes = board.greeting();
        }
        given = 0;
        open = true;
    }

    @Override
    public int read(byte[] buffer) throws LinkException {
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

    private long due() {
        double elapsed = (System.nanoTime() - startNanos) * 1e-9 * speed;
        return (long) Math.min(most, elapsed * board.framesPerSecond());
    }

    private void make() throws LinkException {
        if (board instanceof FaultyBoard faulty && faulty.unplugged()) {
            unpluggedUntil = System.nanoTime() + (long) (faulty.unpluggedSeconds() * 1e9);
            open = false;
            throw new LinkException(Messages.of("link.the-simulated-board-was-unplugged"), false);
        }
        long due = Math.min(due(), frames + MOST_FRAMES);
        ready.reset();
        synchronized (answers) {
            ready.writeBytes(answers.toByteArray());
            answers.reset();
            for (; frames < due; frames++) {
                board.next(ready);
            }
        }
        if (ready.size() == 0) {
            LockSupport.parkNanos(WAIT_NANOS);
        }
        bytes = ready.toByteArray();
        given = 0;
    }

    /** @return frames sent so far */
    public long frames() {
        return frames;
    }

    @Override
    public void write(byte[] sent) throws LinkException {
        if (!open) {
            throw new LinkException(Messages.of("link.the-simulated-board-is-not"), false);
        }
        synchronized (answers) {
            for (char c : new String(sent, StandardCharsets.UTF_8).toCharArray()) {
                if (c != '\n' && c != '\r') {
                    order.append(c);
                } else if (order.length() > 0) {
                    answers.writeBytes(board.receive(order.toString()).getBytes(StandardCharsets.UTF_8));
                    order.setLength(0);
                }
            }
        }
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
