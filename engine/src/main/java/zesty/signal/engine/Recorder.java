package zesty.signal.engine;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.DoubleSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.rig.Protocol;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Decision;
import zesty.signal.takes.Mark;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/**
 * One recording: a thread of its own writes blocks into a take and commits several times a second. The source's thread
 * offers blocks and never waits; what does not fit into the queue is counted as lost. Longer than others: all that may end a recording is told here, in one voice.
 */
final class Recorder implements Recording, Runnable {
    private static final Logger LOG = LoggerFactory.getLogger(Recorder.class);
    private static final int QUEUE = 1024;

    private static final long COMMIT_NANOS = 250_000_000;
    /** A source that is read faster than time passes commits by rows, so that little is ever at stake. */
    private static final long COMMIT_ROWS = 20_000;

    /** A recording for a time ends by the computer's clock, so much later, though the board has fallen silent. */
    private static final double SILENCE_SECONDS = 0.3;

    /** Rows that are still coming are waited for so long at most. */
    private static final double LATE_SECONDS = 2;

    private static final long WAIT_MS = 100;
    private static final long DECIDED_NANOS = 2_000_000_000;
    private static final long ROOM_NANOS = 1_000_000_000;
    /** Far below any sample period, far above the rounding of times. */
    private static final double ROUNDING_SECONDS = 1e-9;

    private sealed interface Order {
        record Data(int source, Block block) implements Order {}

        record Remark(double seconds, String text) implements Order {}

        record End(double seconds, String text) implements Order {}

        record Change(Mark was, Mark now) implements Order {}

        record Decided(Decision decision) implements Order {}

        record Stop() implements Order {}
    }

    private final TakeWriter writer;
    private final Rig rig;
    private final TakeStations stations;
    /** Where a source's columns of this take stand in what it sends now, if that has changed; −1 for nowhere. */
    private final Map<Integer, int[]> shapes = new ConcurrentHashMap<>();

    private final Phases phases;
    /** The newest mark of each text, by which a span is ended. */
    private final Map<String, Long> open = new HashMap<>();

    private volatile RecordingLimit limit;
    private final BlockingQueue<Order> queue = new ArrayBlockingQueue<>(QUEUE);
    private final QueueBudget room = new QueueBudget();
    private final Thread thread;
    private final boolean byItsOwnTime;
    private final DoubleSupplier periodAtEnd;
    private final DoubleSupplier decidedUntil;

    private final AtomicLong lostRows = new AtomicLong();
    private final AtomicLong lostDecisions = new AtomicLong();
    private final List<Decision> early = new ArrayList<>();
    private final AtomicReference<Double> newestMark = new AtomicReference<>(Double.NEGATIVE_INFINITY);
    private volatile boolean running = true;
    private volatile String problem = "";
    private volatile long freeBytes = -1;
    private volatile long fileBytes;
    private volatile long rows;
    /** Those that the limit counts. */
    private volatile long limitedRows;

    private final Map<Integer, Long> bySource = new HashMap<>();
    private volatile double seconds;
    private double firstSeconds = Double.NaN;
    private long firstRowNanos;
    private long lastDataNanos;
    private long roomCheckedNanos;

    /**
     * @param byItsOwnTime whether the computer's clock says nothing about it, as with a file
     * @param rig what is recorded: its sources' columns
     * @param stations finds those that turn up meanwhile
     * @param decidedUntil up to which moment of the trail everything has been decided; infinity where nothing is
     * @param periodAtEnd seconds from row to row as they are known at the end, by which the take's times are set right;
     *     NaN where they need not be
     */
    Recorder(
            TakeWriter writer,
            Rig rig,
            TakeStations stations,
            RecordingLimit limit,
            Protocol protocol,
            boolean byItsOwnTime,
            DoubleSupplier decidedUntil,
            DoubleSupplier periodAtEnd) {
        this.decidedUntil = decidedUntil;
        this.rig = rig;
        this.stations = stations;
        phases = new Phases(writer, protocol);
        for (int source = 0; source < rig.sources().size(); source++) {
            List<Column> kept = writer.columns(source);
            List<Column> sent = rig.sources().get(source).format() == null
                    ? kept
                    : rig.sources().get(source).format().columns();
            if (kept.size() < sent.size()) {
                shapes.put(source, kept.stream().mapToInt(sent::indexOf).toArray());
            }
        }
        this.periodAtEnd = periodAtEnd;
        this.writer = writer;
        this.limit = limit;
        this.byItsOwnTime = byItsOwnTime;
        thread = new Thread(this, "recorder");
        thread.setDaemon(true);
    }

    @Override
    public void start() {
        checkRoom(System.nanoTime());
        thread.start();
    }

    @Override
    public void offer(int source, Block block, boolean mayWait) {
        if (!running || source < 0) {
            return;
        }
        Block shaped = shapes.containsKey(source) ? shaped(block, shapes.get(source)) : block;
        int size = QueueBudget.of(shaped);
        try {
            if (room.take(size, mayWait, () -> running)) {
                Order order = new Order.Data(source, shaped);
                boolean taken = queue.offer(order);
                while (!taken && mayWait && running) {
                    taken = queue.offer(order, WAIT_MS, TimeUnit.MILLISECONDS);
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

    /** A source's stream goes on in another shape: the take keeps its columns, and says from when on. Source's thread. */
    @Override
    public void reshape(int source, StreamFormat now) {
        StreamFormat was = source < 0 ? null : rig.sources().get(source).format();
        if (was == null || was.columns().equals(now.columns()) && shapes.isEmpty()) {
            return;
        }
        List<String> names = now.columns().stream().map(Column::name).toList();
        int[] places = writer.columns(source).stream()
                .mapToInt(column -> names.indexOf(column.name()))
                .toArray();
        shapes.put(source, places);
        List<String> gone = new ArrayList<>();
        List<String> fresh = new ArrayList<>(names);
        for (Column column : was.columns()) {
            if (!fresh.remove(column.name())) {
                gone.add(column.name());
            }
        }
        mark(
                Math.max(seconds, 0),
                LinkHealth.CHANGED
                        + (gone.isEmpty() ? "" : Messages.of("engine.no-longer-sent", String.join(", ", gone)))
                        + (fresh.isEmpty()
                                ? ""
                                : Messages.of("engine.new-and-not-in-this-take", String.join(", ", fresh))));
    }

    private static Block shaped(Block block, int[] places) {
        double[][] columns = new double[places.length][];
        for (int c = 0; c < places.length; c++) {
            if (places[c] < 0) {
                columns[c] = new double[block.rows()];
                Arrays.fill(columns[c], Double.NaN);
            } else {
                columns[c] = block.columns()[places[c]];
            }
        }
        return block.withColumns(columns);
    }

    /** Any thread. @param atSeconds NaN before the first row. @return false when the recording is over or too far behind to take it */
    @Override
    public boolean mark(double atSeconds, String text) {
        // The stream's time of now is set right by each arrival, so it may go back a little; remarks keep their order.
        double at = Double.isNaN(atSeconds) ? atSeconds : newestMark.accumulateAndGet(atSeconds, Math::max);
        return running && queue.offer(new Order.Remark(at, text));
    }

    @Override
    public boolean markEnd(double atSeconds, String text) {
        return running && queue.offer(new Order.End(atSeconds, text));
    }

    @Override
    public boolean decided(Decision decision) {
        Order order = new Order.Decided(decision);
        boolean taken = running && queue.offer(order);
        try {
            // What is read faster than time passes can wait.
            while (!taken && running && byItsOwnTime) {
                taken = queue.offer(order, WAIT_MS, TimeUnit.MILLISECONDS);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        if (running && !taken) {
            lostDecisions.incrementAndGet();
        }
        return taken;
    }

    @Override
    public boolean changeMark(Mark was, Mark now) {
        return running && queue.offer(new Order.Change(was, now));
    }

    @Override
    public void limit(RecordingLimit other) {
        limit = other;
    }

    @Override
    public void stop() {
        try {
            while (running && !queue.offer(new Order.Stop(), 50, TimeUnit.MILLISECONDS)) {
                Thread.onSpinWait();
            }
            thread.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public RecordingSnapshot snapshot() {
        return new RecordingSnapshot(
                running,
                writer.file(),
                seconds,
                rows,
                lostRows.get(),
                fileBytes,
                freeBytes,
                limit.share(seconds, limitedRows),
                problem,
                "",
                List.of());
    }

    @Override
    public void run() {
        try (writer) {
            work();
            lastDecisions();
            if (lostDecisions.get() > 0) {
                writer.mark(
                        firstSeconds + seconds,
                        Messages.of("engine.decisions-are-not-in-the-log-the", lostDecisions.get()));
            }
            seconds = writer.setRight(periodAtEnd.getAsDouble(), seconds);
            writer.finish();
        } catch (TakeException e) {
            problem = e.getMessage();
            LOG.warn("recording stopped: {}", e.getMessage(), e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (Throwable fault) {
            // Whatever it is: the recording is over, and not as it should be.
            queue.clear();
            problem = Messages.of("engine.recording-stopped-what-was-written", writer.file(), Faults.words(fault));
            LOG.error("recording stopped", fault);
        } finally {
            measure();
            running = false;
        }
    }

    private void work() throws TakeException, InterruptedException {
        Map<Integer, List<Block>> gathered = new TreeMap<>();
        long committed = System.nanoTime();
        long committedRows = 0;
        long gatheredValues = 0;
        boolean over = false;
        while (!over) {
            Order order = queue.poll(50, TimeUnit.MILLISECONDS);
            if (order instanceof Order.Data data) {
                room.release(QueueBudget.of(data.block()));
                gatheredValues += QueueBudget.of(data.block());
                Block block = writer.holds(data.source())
                        ? cut(data.source(), data.block())
                        : data.block().head(0);
                if (!block.gaps().isEmpty()) {
                    // A gap begins a block of its own, so that times can be set right by whole blocks.
                    append(gathered);
                }
                if (block.rows() > 0) {
                    gathered.computeIfAbsent(data.source(), key -> new ArrayList<>())
                            .add(block);
                    Rig fuller = stations.with(data.source(), writer.columns(data.source()), block);
                    if (fuller != null) {
                        writer.rig(fuller);
                    }
                }
                over = limit.share(seconds, limitedRows) >= 1;
            } else if (order instanceof Order.Remark remark) {
                append(gathered);
                open.put(remark.text(), writer.mark(remark.seconds(), remark.text()));
            } else if (order instanceof Order.End end && open.containsKey(end.text())) {
                append(gathered);
                writer.markEnd(open.remove(end.text()), end.seconds());
            } else if (order instanceof Order.Change change) {
                append(gathered);
                if (change.was() != null) {
                    writer.changeMark(change.was(), change.now());
                } else {
                    writer.mark(change.now());
                }
            } else if (order instanceof Order.Decided one) {
                append(gathered);
                decisions(one.decision());
            } else if (order instanceof Order.Stop) {
                over = true;
            }
            long now = System.nanoTime();
            if (order instanceof Order.Data) {
                lastDataNanos = now;
            }
            over |= !byItsOwnTime && firstRowNanos > 0 && pastTheClock(now);
            if (over
                    || now - committed >= COMMIT_NANOS
                    || rows - committedRows >= COMMIT_ROWS
                    || gatheredValues > QueueBudget.much()) {
                gatheredValues = 0;
                append(gathered);
                phases.goOn(firstSeconds, seconds, over);
                writer.commit();
                committed = now;
                committedRows = rows;
                checkRoom(now);
                measure();
            }
        }
    }

    /** What is decided of the last rows is told a little later than they are. */
    private void lastDecisions() throws TakeException, InterruptedException {
        double last = firstSeconds + seconds;
        long until = System.nanoTime() + DECIDED_NANOS;
        boolean waits = !(decidedUntil.getAsDouble() > last);
        while (waits || !queue.isEmpty()) {
            Order order = queue.poll(WAIT_MS / 10, TimeUnit.MILLISECONDS);
            if (order instanceof Order.Data data) {
                room.release(QueueBudget.of(data.block()));
            } else if (order instanceof Order.Decided one && !(one.decision().seconds() > last + ROUNDING_SECONDS)) {
                decisions(one.decision());
            }
            waits = !(decidedUntil.getAsDouble() > last) && System.nanoTime() < until;
        }
        writer.commit();
    }

    /** What was decided before the first row, or by a clock that runs ahead of the rows, still lies within. */
    private void decisions(Decision one) throws TakeException {
        if (Double.isNaN(firstSeconds)) {
            early.add(one);
            return;
        }
        for (Decision before : early) {
            writer.decided(before.at(Math.max(firstSeconds, before.seconds())));
        }
        early.clear();
        writer.decided(one.at(Math.max(firstSeconds, one.seconds())));
    }

    /** By the computer's clock it is over once nothing comes any more; on a busy machine rows may come late, but not for ever. */
    private boolean pastTheClock(long now) {
        double past = (now - firstRowNanos) * 1e-9 - limit.seconds();
        boolean silent = (now - lastDataNanos) * 1e-9 > SILENCE_SECONDS;
        return past > SILENCE_SECONDS && silent || past > LATE_SECONDS;
    }

    private void append(Map<Integer, List<Block>> gathered) throws TakeException {
        for (Map.Entry<Integer, List<Block>> of : gathered.entrySet()) {
            writer.append(of.getKey(), Block.join(of.getValue()));
        }
        gathered.clear();
    }

    /** Cuts a block at the recording's start and limit and counts what is left of it. */
    private Block cut(int source, Block whole) {
        if (whole.rows() == 0) {
            return whole;
        }
        if (Double.isNaN(firstSeconds)) {
            firstSeconds = whole.time().secondsAt(0);
            firstRowNanos = System.nanoTime();
        }
        int skip = 0;
        while (skip < whole.rows() && whole.time().secondsAt(skip) < firstSeconds) {
            skip++;
        }
        Block block = whole.tail(skip);
        RecordingLimit limit = this.limit;
        boolean counts = limit.source() < 0 || limit.source() == source;
        long counted = limit.source() < 0 ? rows : bySource.getOrDefault(limit.source(), 0L);
        int keep = (int) Math.min(block.rows(), counts ? Math.max(0, limit.samples() - counted) : block.rows());
        while (keep > 0 && block.time().secondsAt(keep - 1) - firstSeconds >= limit.seconds() - ROUNDING_SECONDS) {
            keep--;
        }
        boolean cut = keep < block.rows();
        rows += keep;
        bySource.merge(source, (long) keep, Long::sum);
        limitedRows = counts ? counted + keep : counted;
        double until = cut && limit.seconds() < Double.POSITIVE_INFINITY && limitedRows < limit.samples()
                ? limit.seconds()
                : keep == 0 ? 0 : block.time().secondsAt(keep - 1) - firstSeconds;
        seconds = Math.max(seconds, until);
        return block.head(keep);
    }

    private void checkRoom(long now) {
        if (freeBytes >= 0 && now - roomCheckedNanos < ROOM_NANOS) {
            return;
        }
        roomCheckedNanos = now;
        try {
            Path folder = writer.file().toAbsolutePath().getParent();
            freeBytes = Files.getFileStore(folder).getUsableSpace();
        } catch (IOException e) {
            freeBytes = -1;
        }
    }

    private void measure() {
        try {
            Path log = writer.file().resolveSibling(writer.file().getFileName() + "-wal");
            fileBytes = Files.size(writer.file()) + (Files.exists(log) ? Files.size(log) : 0);
        } catch (IOException e) {
            fileBytes = 0;
        }
    }
}
