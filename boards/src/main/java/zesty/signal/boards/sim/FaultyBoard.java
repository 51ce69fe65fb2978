package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.function.Supplier;
import zesty.signal.core.decode.Column;

/**
 * A board with which something goes wrong now and then, and which counts what: about every second of its own time one of
 * the faults asked for happens.
 */
public final class FaultyBoard implements SimulatedBoard {
    private static final double UNPLUGGED_SECONDS = 1.5;
    private static final double RESTART_SECONDS = 6;
    private static final double UNPLUG_SECONDS = 7;

    private final Supplier<SimulatedBoard> maker;
    private final Set<Fault> faults;
    private final Random random;
    private SimulatedBoard board;
    private long frames;
    private long quietUntil;
    private long taken;
    private long strange;
    private long restarts;
    private long restartAt;
    private long unplugAt;
    private long spoiling;
    private boolean spoilt;

    FaultyBoard(Supplier<SimulatedBoard> maker, Set<Fault> faults, long seed) {
        this.maker = maker;
        this.faults = faults;
        random = new Random(seed + 99);
        board = maker.get();
        quietUntil = pause();
        restartAt = Math.round(RESTART_SECONDS * board.framesPerSecond());
        unplugAt = Math.round(UNPLUG_SECONDS * board.framesPerSecond());
    }

    /** A second or so, and ten frames at least: the recogniser has seen good ones by then. */
    private long pause() {
        return frames + Math.round(10 + (0.6 + 0.8 * random.nextDouble()) * board.framesPerSecond());
    }

    /** @return frames that were taken away or spoiled so far */
    public long taken() {
        return taken;
    }

    /** @return strange bytes put in so far */
    public long strange() {
        return strange;
    }

    /** @return how often the board started anew so far */
    public long restarts() {
        return restarts;
    }

    /** @return whether the newest frame did not get through whole */
    public boolean spoilt() {
        return spoilt;
    }

    /** @return whether the cable is out from this frame on; asking puts it in again */
    public boolean unplugged() {
        if (faults.contains(Fault.UNPLUG) && frames >= unplugAt) {
            unplugAt = frames + Math.round(2 * UNPLUG_SECONDS * board.framesPerSecond());
            return true;
        }
        return false;
    }

    /** @return for how long, in s */
    public double unpluggedSeconds() {
        return UNPLUGGED_SECONDS;
    }

    /** Runs the board on while nobody hears it. */
    public void unheard(long count) {
        for (long i = 0; i < count; i++) {
            board.next(new ByteArrayOutputStream());
        }
        frames += count;
        taken += count;
    }

    @Override
    public void next(ByteArrayOutputStream out) {
        if (faults.contains(Fault.RESTART) && frames >= restartAt) {
            restartAt = frames + Math.round(RESTART_SECONDS * board.framesPerSecond());
            restarts++;
            board = maker.get();
            out.writeBytes(board.greeting());
        }
        ByteArrayOutputStream frame = new ByteArrayOutputStream();
        board.next(frame);
        frames++;
        spoilt = false;
        if (spoiling > 0) {
            spoiling--;
            spoil();
        }
        byte[] bytes = frame.toByteArray();
        if (frames < quietUntil || bytes.length < 4 || spoilt) {
            out.writeBytes(bytes);
            return;
        }
        List<Fault> now = faults.stream()
                .filter(f -> f == Fault.DROPOUTS || f == Fault.NOISE || f == Fault.HALVES)
                .toList();
        quietUntil = pause();
        if (now.isEmpty()) {
            out.writeBytes(bytes);
            return;
        }
        switch (now.get(random.nextInt(now.size()))) {
            case DROPOUTS -> drop();
            case NOISE -> noise(bytes, out);
            default -> halve(bytes, out);
        }
    }

    private void spoil() {
        spoilt = true;
        taken++;
    }

    private void drop() {
        spoil();
        int more = random.nextInt(4);
        for (int i = 0; i < more; i++) {
            board.next(new ByteArrayOutputStream());
            frames++;
            taken++;
        }
    }

    private void noise(byte[] bytes, ByteArrayOutputStream out) {
        int n = 3 + random.nextInt(20);
        strange += n;
        for (int i = 0; i < n; i++) {
            // Above ASCII, and neither an end nor a start byte of any board here.
            out.write(0x80 + random.nextInt(0x20));
        }
        for (int i = 0; i < board.noiseCosts(); i++) {
            spoil();
        }
        out.writeBytes(bytes);
    }

    private void halve(byte[] bytes, ByteArrayOutputStream out) {
        int kept = Math.max(1, bytes.length * 2 / 3);
        out.writeBytes(Arrays.copyOf(bytes, kept));
        spoil();
        spoiling = board.cutCosts() - 1L;
    }

    @Override
    public byte[] greeting() {
        return board.greeting();
    }

    @Override
    public double framesPerSecond() {
        return board.framesPerSecond() * (faults.contains(Fault.SLOW) ? 0.995 : 1);
    }

    @Override
    public double rowsPerSecond() {
        return board.rowsPerSecond() * (faults.contains(Fault.SLOW) ? 0.995 : 1);
    }

    @Override
    public List<Column> columns() {
        return board.columns();
    }

    @Override
    public double[][] newest() {
        return spoilt ? new double[0][] : board.newest();
    }

    @Override
    public Map<String, Double> truth() {
        return board.truth();
    }

    @Override
    public String receive(String order) {
        return board.receive(order);
    }
}
