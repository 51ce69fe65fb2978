package zesty.signal.engine;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import zesty.signal.boards.link.Link;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.LinkException;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/**
 * One running trail: a source and all that is made of it. Its methods may be called from any thread; the ones that wait
 * say so. Close it to end its threads.
 */
public final class Trail implements AutoCloseable {
    private static final int QUEUE = 4096;
    private static final int EARLY_BLOCKS = 200;
    private static final double NO_RATE_HZ = 100;
    private static final int MOST_STATIONS = 64;
    private static final long READINGS_NANOS = 200_000_000;

    private sealed interface Order {
        record Format(StreamFormat format) implements Order {}

        record Data(Block block, double rateHz, long arrivalNanos, boolean reopened) implements Order {}

        record Change(Rig rig) implements Order {}
    }

    private final BlockingQueue<Order> queue = new ArrayBlockingQueue<>(QUEUE);
    private final SourceReader source;
    private final Thread thread;
    private final AtomicReference<Recorder> recorder = new AtomicReference<>();
    private volatile RecordingSight lastRecording = RecordingSight.NONE;
    private volatile Rig rig;
    private volatile Sight sight;
    private volatile boolean stopping;
    private FromStart fromStart;

    private StreamFormat format;
    private int stationColumn = -1;
    private final Map<Double, Strand> strands = new LinkedHashMap<>();
    private final List<Order.Data> early = new ArrayList<>();
    private long readingsNanos;
    /** Whether something came since the readings were worked out last. */
    private boolean unsettled;

    private Trail(Rig rig, LinkAddress address, Link link) {
        this.rig = rig;
        sight = Sight.nothing(rig);
        source = new SourceReader(address, link, rig, new SourceReader.Receiver() {
            @Override
            public void format(StreamFormat found) {
                Trail.this.rig = Trail.this.rig.fittedTo(found);
                put(new Order.Format(found));
                recordFromStart();
            }

            @Override
            public void block(Block block, double rate, long arrivalNanos, boolean reopened) {
                Recorder running = recorder.get();
                if (running != null) {
                    running.offer(block);
                }
                hand(new Order.Data(block, rate, arrivalNanos, reopened));
            }
        });
        thread = new Thread(this::run, "trail");
        thread.setDaemon(true);
    }

    /**
     * Starts a trail on the rig's source.
     *
     * @throws IllegalArgumentException when the source's address makes no sense, saying what would
     */
    public static Trail start(Rig rig) {
        LinkAddress address = LinkAddress.parse(rig.source());
        return start(rig, address, address.link());
    }

    /** Starts a trail on a link made by the caller, which the trail then owns. */
    public static Trail start(Rig rig, LinkAddress address, Link link) {
        return start(new Trail(rig, address, link));
    }

    /** Starts a trail that records from the very first row on; {@link #sight} tells when it is over and why. */
    public static Trail startRecording(Rig rig, LinkAddress address, Link link, FromStart order) {
        Trail trail = new Trail(rig, address, link);
        trail.fromStart = order;
        return start(trail);
    }

    /** A recording to begin with the first row. */
    public record FromStart(Path file, String title, RecordingLimit limit, Instant started) {}

    private void recordFromStart() {
        FromStart order = fromStart;
        if (order != null) {
            try {
                record(order.file(), order.title(), order.limit(), order.started());
            } catch (TakeException e) {
                lastRecording = new RecordingSight(false, order.file(), 0, 0, 0, 0, -1, Double.NaN, e.getMessage());
            }
        }
    }

    private static Trail start(Trail trail) {
        trail.thread.start();
        trail.source.start();
        return trail;
    }

    private void hand(Order.Data data) {
        if (queue.offer(data)) {
            return;
        }
        if (source.unpaced()) {
            put(data);
        } else {
            source.overran(data.block().rows());
        }
    }

    private void put(Order order) {
        try {
            while (!stopping && !queue.offer(order, 100, TimeUnit.MILLISECONDS)) {
                Thread.onSpinWait();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** @return the newest sight; link and recording are of this very moment */
    public Sight sight(long nanoTime) {
        Sight seen = sight;
        Recorder running = recorder.get();
        RecordingSight recording = running == null ? lastRecording : running.sight();
        return new Sight(source.health(nanoTime), seen.rig(), seen.strands(), seen.channels(), recording);
    }

    /** @return the newest bytes as they came */
    public ByteTail bytes() {
        return source.tail();
    }

    /** @return the bytes from which the format was recognised; empty before that */
    public byte[] sample() {
        return source.sample();
    }

    /** @return what the recogniser made of them, best first */
    public List<Recogniser.Proposal> proposals() {
        return source.proposals();
    }

    /** @return the rig in force */
    public Rig rig() {
        return rig;
    }

    /**
     * Takes a changed rig into force: scalings, recipes, readers, names. Its source stays as it is. With another format
     * the stream is read anew from the next bytes on; not while a recording runs.
     */
    public void change(Rig changed) {
        StreamFormat before = rig.format();
        rig = changed.withFormat(before);
        source.passOver(rig.link().passOver());
        put(new Order.Change(rig));
        if (before != null && changed.format() != null && !changed.format().equals(before)) {
            source.reformat(changed.format());
        }
    }

    /**
     * Begins a recording with the next block. Waits for the disk.
     *
     * @throws TakeException when one is running, the format is not known yet, or the file cannot be made
     */
    public void record(Path file, String title, RecordingLimit limit, Instant started) throws TakeException {
        if (recording()) {
            throw new TakeException("a recording is running already; stop it first");
        }
        if (rig.format() == null) {
            throw new TakeException("nothing to record yet: no line of numbers has come");
        }
        TakeWriter writer = TakeWriter.create(file, title, rig, started);
        Recorder fresh = new Recorder(writer, limit, source.unpaced());
        fresh.start();
        recorder.set(fresh);
    }

    /** @return whether a recording runs */
    public boolean recording() {
        Recorder running = recorder.get();
        return running != null && running.sight().running();
    }

    /** Marks this moment in the recording. @return false when none runs */
    public boolean mark(String text, long nanoTime) {
        Recorder running = recorder.get();
        return running != null && running.mark(sight.nowSeconds(nanoTime), text);
    }

    /**
     * Sends a line to the board. Waits for the link. What was sent is kept as a mark while a recording runs.
     *
     * @throws LinkException when the link takes none
     */
    public void send(String line, LineEnding ending, long nanoTime) throws LinkException {
        source.send(line, ending);
        Recorder running = recorder.get();
        if (running != null) {
            running.mark(sight.nowSeconds(nanoTime), "sent: " + line);
        }
    }

    /** @return what was sent lately, oldest first, each with the board's answer once there is one */
    public List<SentLine> sent() {
        return source.sent();
    }

    /** Ends the recording and waits until the take is whole. @return the last state of it */
    public RecordingSight stopRecording() {
        Recorder running = recorder.get();
        if (running != null) {
            running.stop();
            lastRecording = running.sight();
            recorder.compareAndSet(running, null);
        }
        return lastRecording;
    }

    /** Ends everything; a recording is completed first. Waits. */
    @Override
    public void close() {
        stopRecording();
        source.stop();
        stopping = true;
        try {
            thread.join(2000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private void run() {
        try {
            while (!stopping) {
                Order order = queue.poll(50, TimeUnit.MILLISECONDS);
                if (order instanceof Order.Format found) {
                    format(found.format());
                } else if (order instanceof Order.Change change) {
                    apply(change.rig());
                } else if (order instanceof Order.Data data) {
                    data(data);
                }
                unsettled |= order != null;
                if (unsettled && queue.isEmpty()) {
                    publish();
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private void format(StreamFormat found) {
        format = found;
        stationColumn = found.indexOf(Role.STATION);
        strands.clear();
        early.clear();
    }

    private void data(Order.Data data) {
        if (stationColumn >= 0) {
            ofStations(data);
            return;
        }
        Strand strand = strands.computeIfAbsent(Double.NaN, this::newStrand);
        if (!strand.hasRate()) {
            if (Double.isNaN(data.rateHz()) && early.size() < EARLY_BLOCKS) {
                early.add(data);
                return;
            }
            // A clock that stands still gives no rate; the samples are shown all the same.
            strand.begin(Double.isNaN(data.rateHz()) ? NO_RATE_HZ : data.rateHz(), rig);
            for (Order.Data before : early) {
                strand.accept(before.block(), before.arrivalNanos(), before.reopened());
            }
            early.clear();
        }
        strand.accept(data.block(), data.arrivalNanos(), data.reopened());
        strand.measured(data.rateHz());
    }

    private Strand newStrand(double station) {
        return new Strand(station, format, rig.link().warmUpSeconds());
    }

    private void ofStations(Order.Data data) {
        Stations.part(data.block(), stationColumn).forEach((station, block) -> {
            if (!strands.containsKey(station)) {
                if (strands.size() == MOST_STATIONS) {
                    return;
                }
                rig = rig.withStation(station);
                strands.put(station, newStrand(station));
            }
            strands.get(station).acceptOfStation(block, data.arrivalNanos(), rig);
        });
    }

    private void apply(Rig changed) {
        strands.values().stream().filter(Strand::hasRate).forEach(strand -> strand.change(changed));
        readingsNanos = 0;
    }

    private void publish() {
        long now = System.nanoTime();
        if (now - readingsNanos >= READINGS_NANOS) {
            readingsNanos = now;
            unsettled = false;
            strands.values().forEach(strand -> strand.runners().forEach(ChannelRunner::settleReadings));
        }
        List<StrandSight> strandSights = new ArrayList<>();
        Map<String, ChannelSight> byColumn = new HashMap<>();
        for (Strand strand : strands.values()) {
            StrandSight one = strand.sight();
            strandSights.add(one);
            for (ChannelRunner runner : strand.runners()) {
                byColumn.put(runner.channel().column(), runner.sight(one));
            }
        }
        List<ChannelSight> channels = new ArrayList<>();
        for (Channel channel : rig.channels()) {
            ChannelSight one = byColumn.get(channel.column());
            if (one != null) {
                channels.add(one);
            }
        }
        strandSights.removeIf(one -> one.times() == null);
        sight = new Sight(LinkHealth.IDLE, rig, strandSights, channels, RecordingSight.NONE);
    }
}
