package zesty.signal.engine;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.boards.link.Link;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.LinkException;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.core.rig.Source;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/**
 * One running trail: the sources of a rig and all that is made of them. Its methods may be called from any thread; the
 * ones that wait say so. A source is named by its place in the rig. Close it to end its threads.
 */
public final class Trail implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Trail.class);
    private static final int QUEUE = 4096;
    private static final long READINGS_NANOS = 200_000_000;

    private sealed interface Order {
        record Format(Feed feed, StreamFormat format) implements Order {}

        record Data(Feed feed, Feed.Data data) implements Order {}

        record Change(Rig rig) implements Order {}

        record Over(Feed feed) implements Order {}
    }

    private final BlockingQueue<Order> queue = new ArrayBlockingQueue<>(QUEUE);
    private final QueueBudget room = new QueueBudget();
    private final List<Feed> feeds = new CopyOnWriteArrayList<>();
    private final CommonTime time = new CommonTime();
    private final Thread thread;
    private final AtomicReference<Recorder> recorder = new AtomicReference<>();
    private volatile RecordingSnapshot lastRecording = RecordingSnapshot.NONE;
    private final RigInForce rig;
    private volatile Snapshot snapshot;
    private volatile boolean stopping;
    private volatile String failure = "";
    private volatile FromStart fromStart;
    private long readingsNanos;
    /** Whether something came since the readings were worked out last. */
    private boolean unsettled;

    private Trail(Rig rig) {
        this.rig = new RigInForce(rig);
        snapshot = Snapshot.nothing(rig);
        thread = new Thread(this::run, "trail");
        thread.setDaemon(true);
    }

    /** One source's way into the trail: called on its reader's thread. */
    private final class Inlet implements RowReceiver {
        private final AtomicReference<Feed> feed = new AtomicReference<>();

        @Override
        public void format(StreamFormat found) {
            Feed own = feed.get();
            rig.found(own.name(), found);
            Recorder running = recorder.get();
            if (running != null) {
                running.reshape(own.indexIn(rig.get()), found);
            }
            put(new Order.Format(own, found));
            recordFromStart();
        }

        @Override
        public void block(Block block, double rate, long arrivalNanos) {
            Feed own = feed.get();
            Block placed = own.reader().unpaced() ? block : time.place(own, block, arrivalNanos * 1e-9);
            Recorder running = recorder.get();
            if (running != null) {
                running.offer(own.indexIn(rig.get()), placed, own.reader().holdsUp());
            }
            if (fromStart != null && fromStart.only()) {
                return;
            }
            hand(own, new Feed.Data(placed, rate, arrivalNanos));
        }

        @Override
        public void words(String legend) {
            Recorder running = recorder.get();
            if (running != null) {
                running.mark(running.snapshot().seconds(), "words as numbers: " + legend);
            }
        }

        @Override
        public void over() {
            put(new Order.Over(feed.get()));
        }
    }

    private Feed feed(Source source, LinkAddress address, Link link) {
        Inlet inlet = new Inlet();
        Feed feed = new Feed(source.name(), new SourceReader(address, link, source, inlet));
        inlet.feed.set(feed);
        return feed;
    }

    /**
     * Starts a trail on the rig's sources.
     *
     * @throws IllegalArgumentException when a source's address makes no sense, saying what would
     */
    public static Trail start(Rig rig) {
        LinkAddress address = LinkAddress.parse(rig.source());
        return start(rig, address, address.link());
    }

    /** Starts a trail with the first source's link made by the caller; the trail then owns it. */
    public static Trail start(Rig rig, LinkAddress address, Link link) {
        return start(new Trail(rig), address, link);
    }

    /**
     * Starts a trail that records from the first row on, or, of several sources, from when all of them have sent one;
     * {@link #sight} tells when it is over and why.
     */
    public static Trail startRecording(Rig rig, LinkAddress address, Link link, FromStart order) {
        Trail trail = new Trail(rig);
        trail.fromStart = order;
        return start(trail, address, link);
    }

    /**
     * A recording to begin with the first row.
     *
     * @param only nothing else is made of the rows: no lanes, no readings
     */
    public record FromStart(Path file, String title, RecordingLimit limit, Instant started, boolean only) {
        public FromStart(Path file, String title, RecordingLimit limit, Instant started) {
            this(file, title, limit, started, false);
        }
    }

    private void recordFromStart() {
        FromStart order = fromStart;
        boolean all = rig.get().sources().stream().allMatch(source -> source.format() != null);
        if (order != null && all && !recording()) {
            try {
                record(order.file(), order.title(), order.limit(), order.started());
            } catch (TakeException e) {
                lastRecording = new RecordingSnapshot(false, order.file(), 0, 0, 0, 0, -1, Double.NaN, e.getMessage());
            }
        }
    }

    private static Trail start(Trail trail, LinkAddress address, Link link) {
        List<Source> sources = trail.rig.get().sources();
        trail.feeds.add(trail.feed(sources.get(0), address, link));
        for (Source source : sources.subList(1, sources.size())) {
            LinkAddress at = LinkAddress.parse(source.setup().address());
            trail.feeds.add(trail.feed(source, at, at.link()));
        }
        trail.thread.start();
        if (trail.fromStart != null) {
            trail.feeds.forEach(feed -> feed.reader().eager());
        }
        trail.feeds.forEach(feed -> feed.reader().start());
        return trail;
    }

    /**
     * Reads another source beside those that run; not while a recording runs.
     *
     * @param name what to call it
     * @throws IllegalArgumentException when the address makes no sense or there are too many, saying what would do
     */
    public void join(String name, SourceSetup setup) {
        LinkAddress address = LinkAddress.parse(setup.address());
        Rig joined = rig.joined(name, setup);
        Feed feed = feed(joined.sources().get(joined.sources().size() - 1), address, address.link());
        feeds.add(feed);
        put(new Order.Change(joined));
        feed.reader().start();
    }

    /** Lets go of one of the later sources; not while a recording runs. Waits a moment for its thread. */
    public void leave(int source) {
        Feed gone = feedOf(source);
        rig.left(gone.name());
        feeds.remove(gone);
        gone.reader().stop();
        put(new Order.Change(rig.get()));
    }

    private Feed feedOf(int source) {
        Rig now = rig.get();
        return feeds.stream()
                .filter(feed -> feed.indexIn(now) == source)
                .findFirst()
                .orElse(feeds.get(0));
    }

    private void hand(Feed feed, Feed.Data data) {
        Order order = new Order.Data(feed, data);
        int size = QueueBudget.of(data.block());
        boolean mayWait = feed.reader().holdsUp();
        try {
            if (room.take(size, mayWait, () -> !stopping && failure.isEmpty())) {
                if (queue.offer(order)) {
                    return;
                }
                if (mayWait) {
                    put(order);
                    return;
                }
                room.release(size);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        feed.reader().overran(data.block().rows());
    }

    private void put(Order order) {
        try {
            while (!stopping && failure.isEmpty() && !queue.offer(order, 100, TimeUnit.MILLISECONDS)) {
                Thread.onSpinWait();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** @return the newest sight; links and recording are of this very moment */
    public Snapshot snapshot(long nanoTime) {
        Snapshot seen = snapshot;
        Recorder running = recorder.get();
        RecordingSnapshot recording = running == null ? lastRecording : running.snapshot();
        List<LinkHealth> links = new ArrayList<>();
        for (int i = 0; i < seen.rig().sources().size(); i++) {
            Feed feed = feedOf(i);
            LinkHealth link = feed.reader().health(nanoTime).withShift(time.shiftSeconds(feed));
            links.add(
                    failure.isEmpty()
                            ? link
                            : link.withState(LinkState.REFUSED, "lanes and readings stopped: " + failure));
        }
        return new Snapshot(links, seen.rig(), seen.streams(), seen.channels(), recording);
    }

    /** @return the newest bytes of a source as they came */
    public ByteTail bytes(int source) {
        return feedOf(source).reader().tail();
    }

    /** @return the bytes from which a source's format was recognised; empty before that */
    public byte[] sample(int source) {
        return feedOf(source).reader().sample();
    }

    /** @return what the recogniser made of them, best first */
    public List<Recogniser.Proposal> proposals(int source) {
        return feedOf(source).reader().proposals();
    }

    /** @return the rig in force */
    public Rig rig() {
        return rig.get();
    }

    /** @return what the maker decided, whole: also what does not fit the streams of this moment */
    public Rig decided() {
        return rig.decided();
    }

    /**
     * Takes a change of the rig into force: scalings, recipes, readers, names. Its sources stay what they are. With another
     * format a stream is read anew from the next bytes on; not while a recording runs.
     */
    public void change(RigChange change) {
        Rig before = rig.get();
        Rig after = rig.changed(change);
        for (int i = 0; i < after.sources().size(); i++) {
            Source is = after.sources().get(i);
            feedOf(i).reader().passOver(is.setup().passOver());
        }
        put(new Order.Change(after));
        for (int i = 0; i < before.sources().size(); i++) {
            StreamFormat was = before.sources().get(i).format();
            StreamFormat is = rig.wanted(before.sources().get(i).name(), change);
            if (was != null && is != null && !is.equals(was)) {
                feedOf(i).reader().reformat(is);
            }
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
        Rig now = rig.get();
        if (now.sources().stream().allMatch(source -> source.format() == null)) {
            throw new TakeException("nothing to record yet: no line of numbers has come");
        }
        TakeWriter writer = TakeWriter.create(file, title, now, started);
        Recorder fresh = new Recorder(
                writer,
                now,
                limit,
                feeds.stream().allMatch(feed -> feed.reader().unpaced()),
                () -> feeds.size() == 1 ? feeds.get(0).reader().arrivalPeriodSeconds() : Double.NaN);
        for (Source source : now.sources()) {
            if (source.format() == null) {
                String called = source.name().isEmpty() ? source.setup().address() : source.name();
                fresh.mark(0, "not in this take: " + called + ", of which nothing had come when it began");
            }
        }
        for (Feed feed : feeds) {
            if (!feed.reader().legend().isEmpty()) {
                fresh.mark(0, "words as numbers: " + feed.reader().legend());
            }
        }
        fresh.start();
        recorder.set(fresh);
    }

    /** @return whether a recording runs */
    public boolean recording() {
        Recorder running = recorder.get();
        return running != null && running.snapshot().running();
    }

    /** Marks this moment in the recording. @return false when none runs */
    public boolean mark(String text, long nanoTime) {
        Recorder running = recorder.get();
        return running != null && running.mark(snapshot.nowSeconds(nanoTime), text);
    }

    /**
     * Sends a line to a source's board. Waits for the link. What was sent is kept as a mark while a recording runs.
     *
     * @throws LinkException when the link takes none
     */
    public void send(int source, String line, LineEnding ending, long nanoTime) throws LinkException {
        feedOf(source).reader().send(line, ending);
        Recorder running = recorder.get();
        if (running != null) {
            running.mark(snapshot.nowSeconds(nanoTime), "sent: " + line);
        }
    }

    /** @return what was sent lately to a source, oldest first, each with the board's answer once there is one */
    public List<SentLine> sent(int source) {
        return feedOf(source).reader().sent();
    }

    /** Ends the recording and waits until the take is whole. @return the last state of it */
    public RecordingSnapshot stopRecording() {
        Recorder running = recorder.get();
        if (running != null) {
            running.stop();
            lastRecording = running.snapshot();
            recorder.compareAndSet(running, null);
        }
        return lastRecording;
    }

    /** Ends everything; a recording is completed first. Waits. */
    @Override
    public void close() {
        // What a source has at hand comes into the recording before that ends.
        feeds.forEach(feed -> feed.reader().stop());
        stopRecording();
        stopping = true;
        try {
            thread.join(2000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private void run() {
        try {
            work();
        } catch (Throwable fault) {
            // Whatever it is: lanes and readings stand still from here on, and must not look as if they lived.
            failure = Faults.words(fault);
            LOG.error("the trail stopped", fault);
            queue.clear();
        }
    }

    private void work() {
        try {
            while (!stopping) {
                Order order = queue.poll(50, TimeUnit.MILLISECONDS);
                if (order instanceof Order.Format found) {
                    found.feed().format(found.format());
                } else if (order instanceof Order.Change change) {
                    apply(change.rig());
                } else if (order instanceof Order.Over over) {
                    over.feed().streams().forEach(SampleStream::over);
                } else if (order instanceof Order.Data data) {
                    room.release(QueueBudget.of(data.data().block()));
                    data.feed().accept(data.data(), rig.get(), station -> station(data.feed(), station));
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

    private Rig station(Feed feed, double station) {
        return rig.station(feed.name(), station);
    }

    private List<SampleStream> streams() {
        return feeds.stream().flatMap(feed -> feed.streams().stream()).toList();
    }

    private void apply(Rig changed) {
        streams().stream().filter(SampleStream::hasRate).forEach(stream -> stream.change(changed));
        readingsNanos = 0;
    }

    private void publish() {
        long nanos = System.nanoTime();
        if (nanos - readingsNanos >= READINGS_NANOS) {
            readingsNanos = nanos;
            unsettled = false;
            streams().forEach(SampleStream::settleReadings);
        }
        List<StreamSnapshot> streamSnapshots = new ArrayList<>();
        Map<String, ChannelSnapshot> byColumn = new HashMap<>();
        Rig now = rig.get();
        for (Feed feed : feeds) {
            int source = feed.indexIn(now);
            for (SampleStream stream : source < 0 ? List.<SampleStream>of() : feed.streams()) {
                StreamSnapshot one = stream.snapshot(source);
                streamSnapshots.add(one);
                for (ChannelSnapshot channel : stream.channels(one)) {
                    byColumn.put(channel.channel().column(), channel);
                }
            }
        }
        List<ChannelSnapshot> channels = new ArrayList<>();
        for (Channel channel : now.channels()) {
            ChannelSnapshot one = byColumn.get(channel.column());
            if (one != null) {
                channels.add(one);
            }
        }
        streamSnapshots.removeIf(one -> one.times() == null);
        snapshot = new Snapshot(List.of(LinkHealth.IDLE), now, streamSnapshots, channels, RecordingSnapshot.NONE);
    }
}
