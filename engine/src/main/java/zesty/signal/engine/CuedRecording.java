package zesty.signal.engine;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Function;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.CsvExport;
import zesty.signal.takes.Decision;
import zesty.signal.takes.Mark;
import zesty.signal.takes.TakeException;

/**
 * A recording that begins and ends on cue, again and again if wanted: a thread of its own looks at the rows, keeps the last ones while it
 * waits, and hands the rest to a {@link Recorder} a take. Rows of a take stand in no other: what is kept from before a start begins where the
 * take before it ended. Longer than others: waiting, taking and beginning again are states of one thread.
 */
final class CuedRecording implements Recording, Runnable {
    private static final Logger LOG = LoggerFactory.getLogger(CuedRecording.class);
    private static final int QUEUE = 1024;
    private static final long WAIT_MS = 100;
    /** A take for a time ends by the computer's clock, so much later, though the board has fallen silent. */
    private static final double SILENCE_SECONDS = 0.3;

    /** Far below any sample period, far above the rounding of times. */
    private static final double ROUNDING_SECONDS = 1e-9;

    /** Rows of a source, or the end where there is none. */
    private record Piece(int source, Block block) {}

    private final RecordingPlan plan;
    private volatile RecordingLimit limit;
    /** Numbers of readers that begin and end it, as they were read last; NaN for none. */
    private volatile double startNumber = Double.NaN;

    private volatile double stopNumber = Double.NaN;
    private final Rig rig;
    private final Path first;
    private final boolean byItsOwnTime;
    private final Function<Path, Recorder> recorders;
    private final RecordingCue.Place startAt;
    private final RecordingCue.Place stopAt;
    private final BlockingQueue<Piece> queue = new ArrayBlockingQueue<>(QUEUE);
    private final QueueBudget room = new QueueBudget();
    private final Thread thread;
    private final AtomicLong lostRows = new AtomicLong();
    private final Deque<Piece> before = new ArrayDeque<>();

    private volatile Recorder recorder;
    private volatile List<RecordingSnapshot.Made> made = List.of();
    private volatile boolean running = true;
    private volatile String problem = "";
    private volatile Path newest;
    private double cueSeconds;
    private long cueNanos;
    private long rowsSinceCue;
    private int takes;
    /** The same condition starts a further take only once it has been false in between. */
    private boolean armed = true;

    /**
     * @param first the first take's file; later ones have a number behind it
     * @param recorders makes the recorder of a take; it may fail with an {@link java.io.UncheckedIOException}
     * @throws IllegalArgumentException when the rig has no column of a condition's name
     */
    CuedRecording(RecordingPlan plan, Rig rig, Path first, boolean byItsOwnTime, Function<Path, Recorder> recorders) {
        this.plan = plan;
        limit = plan.limit();
        this.rig = rig;
        this.first = first;
        this.byItsOwnTime = byItsOwnTime;
        this.recorders = recorders;
        startAt = plan.start() == null ? null : plan.start().in(rig);
        stopAt = plan.stop() == null ? null : plan.stop().in(rig);
        thread = new Thread(this, "cue");
        thread.setDaemon(true);
    }

    @Override
    public void start() {
        thread.start();
    }

    @Override
    public void offer(int source, Block block, boolean mayWait) {
        if (!running || source < 0) {
            return;
        }
        int size = QueueBudget.of(block);
        try {
            if (room.take(size, mayWait, () -> running)) {
                Piece piece = new Piece(source, block);
                boolean taken = queue.offer(piece);
                while (!taken && mayWait && running) {
                    taken = queue.offer(piece, WAIT_MS, TimeUnit.MILLISECONDS);
                }
                if (taken) {
                    return;
                }
                room.release(size);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        if (running) {
            lostRows.addAndGet(block.rows());
        }
    }

    @Override
    public void reshape(int source, StreamFormat now) {
        StreamFormat was = source < 0 ? null : rig.sources().get(source).format();
        if (was != null && !was.columns().equals(now.columns())) {
            fail(Messages.of("engine.the-board-sends-other-columns-now"));
        }
    }

    @Override
    public boolean mark(double atSeconds, String text) {
        Recorder now = recorder;
        return now != null && now.mark(atSeconds, text);
    }

    @Override
    public boolean markEnd(double atSeconds, String text) {
        Recorder now = recorder;
        return now != null && now.markEnd(atSeconds, text);
    }

    @Override
    public boolean decided(Decision decision) {
        Recorder now = recorder;
        return now != null && now.decided(decision);
    }

    @Override
    public boolean changeMark(Mark was, Mark now) {
        Recorder one = recorder;
        return one != null && one.changeMark(was, now);
    }

    @Override
    public void readings(Snapshot snapshot) {
        startNumber = startAt != null && startAt.isReading() ? startAt.in(snapshot) : Double.NaN;
        stopNumber = stopAt != null && stopAt.isReading() ? stopAt.in(snapshot) : Double.NaN;
    }

    @Override
    public void limit(RecordingLimit other) {
        limit = other;
    }

    @Override
    public void stop() {
        try {
            while (running && !queue.offer(new Piece(-1, null), WAIT_MS, TimeUnit.MILLISECONDS)) {
                Thread.onSpinWait();
            }
            thread.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public RecordingSnapshot snapshot() {
        Recorder now = recorder;
        RecordingSnapshot of = now == null ? RecordingSnapshot.NONE : now.snapshot();
        String why = problem.isEmpty() ? of.problem() : problem;
        return new RecordingSnapshot(
                running,
                now == null ? newest : of.file(),
                of.seconds(),
                of.rows(),
                lostRows.get() + of.lostRows(),
                of.bytes(),
                of.freeBytes(),
                limit.share(of.seconds(), of.rows()),
                why,
                running && now == null ? plan.waitsFor() : "",
                made);
    }

    private void fail(String why) {
        problem = why;
        LOG.warn("recording on cue stopped: {}", why);
    }

    @Override
    public void run() {
        try {
            boolean over = false;
            while (!over && problem.isEmpty()) {
                Piece piece = queue.poll(WAIT_MS, TimeUnit.MILLISECONDS);
                if (piece != null && piece.block() == null) {
                    over = true;
                } else if (piece != null) {
                    room.release(QueueBudget.of(piece.block()));
                    over = take(piece);
                } else if (recorder != null && silentTooLong()) {
                    over = end();
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (Throwable fault) {
            // Whatever it is: the recording is over, and not as it should be.
            queue.clear();
            problem = Messages.of("engine.recording-stopped-what-was-written", first, Faults.words(fault));
            LOG.error("recording on cue stopped", fault);
        } finally {
            // One that has ended by its plan is closed and counted already.
            if (recorder != null && running) {
                end();
            }
            running = false;
        }
    }

    private boolean silentTooLong() {
        return !byItsOwnTime && (System.nanoTime() - cueNanos) * 1e-9 > limit.seconds() + SILENCE_SECONDS;
    }

    /** @return whether all is over */
    private boolean take(Piece piece) {
        Block rest = piece.block();
        while (rest.rows() > 0) {
            if (recorder == null) {
                int cue = startRow(piece.source(), rest);
                if (cue < 0) {
                    keep(new Piece(piece.source(), rest));
                    return false;
                }
                keep(new Piece(piece.source(), rest.head(cue)));
                rest = rest.tail(cue);
                begin(rest.time().secondsAt(0));
                if (recorder == null) {
                    return true;
                }
            }
            int end = endRow(piece.source(), rest);
            Block now = end < 0 ? rest : rest.head(end);
            rowsSinceCue += now.rows();
            recorder.offer(piece.source(), now, true);
            if (!recorder.snapshot().problem().isEmpty()) {
                fail(recorder.snapshot().problem());
                return true;
            }
            if (end < 0) {
                return false;
            }
            rest = rest.tail(end);
            if (end()) {
                return true;
            }
        }
        return false;
    }

    /** @return the row at which the recording is to begin; −1 for none of these */
    private int startRow(int source, Block block) {
        if (plan.at() != null && Instant.now().isBefore(plan.at())) {
            return -1;
        }
        if (startAt == null) {
            return 0;
        }
        if (startAt.isReading()) {
            boolean met = plan.start().met(startNumber);
            boolean begins = met && armed && block.rows() > 0;
            armed |= !met && !Double.isNaN(startNumber);
            return begins ? 0 : -1;
        }
        if (startAt.source() != source) {
            return -1;
        }
        double[] values = values(startAt, block);
        for (int row = 0; row < block.rows(); row++) {
            double value = startAt.scaling().applyAsDouble(values[row]);
            boolean met = plan.start().met(value);
            if (met && armed) {
                return row;
            }
            armed |= !met && !Double.isNaN(value);
        }
        return -1;
    }

    /** What is worked out of pictures is not among a block's columns yet. */
    private double[] values(RecordingCue.Place place, Block block) {
        Block whole = rig.sources().get(place.source()).format() instanceof PictureFormat picture
                ? picture.whole(block)
                : block;
        return whole.columns()[place.column()];
    }

    private int stopRow(Block block) {
        double[] values = values(stopAt, block);
        for (int row = 0; row < block.rows(); row++) {
            if (plan.stop().met(stopAt.scaling().applyAsDouble(values[row]))) {
                return row;
            }
        }
        return -1;
    }

    /** @return how many of these rows still belong to the take; −1 for all, and it goes on. The row that ends it belongs to it */
    private int endRow(int source, Block block) {
        int end = Integer.MAX_VALUE;
        if (stopAt != null && stopAt.isReading() && plan.stop().met(stopNumber)) {
            end = Math.min(1, block.rows());
        } else if (stopAt != null && stopAt.source() == source) {
            int row = stopRow(block);
            end = row < 0 ? end : row + 1;
        }
        long left = limit.samples() - rowsSinceCue;
        end = (int) Math.min(end, left <= block.rows() ? left : Integer.MAX_VALUE);
        double last = cueSeconds + limit.seconds() - ROUNDING_SECONDS;
        // The last row in time ends nothing: the next one, or the clock, does.
        if (block.rows() > 0 && block.lastSeconds() >= last) {
            int row = 0;
            while (row < block.rows() && block.time().secondsAt(row) < last) {
                row++;
            }
            end = Math.min(end, row);
        }
        return end == Integer.MAX_VALUE ? -1 : end;
    }

    private void keep(Piece piece) {
        if (piece.block().rows() > 0 && plan.beforeSeconds() > 0) {
            before.addLast(piece);
            double oldest = piece.block().lastSeconds() - plan.beforeSeconds();
            while (!before.isEmpty() && before.peekFirst().block().lastSeconds() < oldest) {
                before.removeFirst();
            }
        }
    }

    private void begin(double seconds) {
        Path file = CsvExport.fileOf(takes, first);
        while (takes > 0 && Files.exists(file)) {
            file = CsvExport.fileOf(++takes, first);
        }
        takes++;
        try {
            Recorder fresh = recorders.apply(file);
            fresh.start();
            newest = file;
            recorder = fresh;
        } catch (java.io.UncheckedIOException e) {
            fail(e.getCause().getMessage());
            return;
        }
        cueSeconds = seconds;
        cueNanos = System.nanoTime();
        rowsSinceCue = 0;
        for (Piece piece : before) {
            int skip = 0;
            Block block = piece.block();
            while (skip < block.rows() && block.time().secondsAt(skip) < seconds - plan.beforeSeconds()) {
                skip++;
            }
            recorder.offer(piece.source(), block.tail(skip), true);
        }
        before.clear();
        if (plan.start() != null) {
            recorder.mark(seconds, "started: " + plan.start().words());
        }
    }

    /** @return whether that was the last take */
    private boolean end() {
        Recorder done = recorder;
        done.stop();
        RecordingSnapshot last = done.snapshot();
        List<RecordingSnapshot.Made> more = new ArrayList<>(made);
        more.add(new RecordingSnapshot.Made(last.file(), last.rows(), last.seconds()));
        made = List.copyOf(more);
        if (!last.problem().isEmpty()) {
            fail(last.problem());
        }
        boolean over = !plan.repeat() || !problem.isEmpty();
        if (!over) {
            recorder = null;
            lostRows.addAndGet(last.lostRows());
            armed = false;
        } else {
            running = false;
        }
        return over;
    }

    /** Carries a failure to make a file out of a function. */
    static java.io.UncheckedIOException carried(TakeException e) {
        return new java.io.UncheckedIOException(e);
    }
}
