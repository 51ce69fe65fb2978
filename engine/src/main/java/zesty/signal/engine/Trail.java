package zesty.signal.engine;

import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicReference;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.boards.link.Link;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.LinkException;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.core.rig.Source;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.TrailQueue.Order;
import zesty.signal.takes.Mark;
import zesty.signal.takes.TakeException;

/**
 * One running trail: the sources of a rig and all that is made of them. Longer than others: it is the one door to all that runs. Its methods may be called from any thread; the
 * ones that wait say so. A source is named by its place in the rig. Close it to end its threads.
 */
public final class Trail implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Trail.class);
    private static final ThreadMXBean PROCESSOR = ManagementFactory.getThreadMXBean();
    private static final long READINGS_NANOS = 200_000_000;
    /** What takes long is worked out less often, so that rules, which are decided on the same thread, wait a fifth of the time at most. */
    private static final long READINGS_PAUSE = 5;

    private final TrailQueue queue = new TrailQueue(this::goesOn);
    private final List<Feed> feeds = new CopyOnWriteArrayList<>();
    private final CommonTime time = new CommonTime();
    private final Thread thread;
    private final RunningRecording recording = new RunningRecording(this::decidedUntil);
    private final RigInForce rig;
    private final Acts acts = new Acts(this::rig, feeds, queue, recording, this::nowSeconds);
    private volatile Snapshot snapshot;
    private volatile boolean stopping;
    private volatile String failure = "";
    private volatile FromStart fromStart;
    private long readingsNanos;
    private long readingsTook;
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
            recording.reshape(own.indexIn(rig.get()), found);
            queue.put(new Order.Format(own, found));
            recordFromStart();
        }

        @Override
        public void block(Block block, double rate, double uncertainty, long arrivalNanos) {
            Feed own = feed.get();
            Block placed = own.reader().unpaced() ? block : time.place(own, block, arrivalNanos * 1e-9);
            recording.offer(own.indexIn(rig.get()), placed, own.reader().holdsUp());
            if (fromStart != null && fromStart.only()) {
                return;
            }
            queue.hand(own, new Feed.Data(placed, rate, uncertainty, arrivalNanos));
        }

        @Override
        public void words(String legend) {
            recording.markNow(Messages.of("engine.words-as-numbers", legend));
        }

        @Override
        public void over() {
            queue.put(new Order.Over(feed.get()));
        }
    }

    private Feed feed(Source source, LinkAddress address, Link link) {
        Inlet inlet = new Inlet();
        Feed feed = new Feed(source.name(), new SourceReader(address, link, source, inlet), acts::rows);
        inlet.feed.set(feed);
        if (!rig.get().act().book().outputs().isEmpty()) {
            link.share();
        }
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
     * {@link #snapshot} tells when it is over and why.
     */
    public static Trail startRecording(Rig rig, LinkAddress address, Link link, FromStart order) {
        Trail trail = new Trail(rig);
        trail.fromStart = order;
        return start(trail, address, link);
    }

    /** On the threads of all sources: whichever is known last begins it, and of two that are known at once only one. */
    private synchronized void recordFromStart() {
        FromStart order = fromStart;
        boolean all = rig.get().sources().stream().allMatch(source -> source.format() != null);
        if (order != null && all && !recording()) {
            try {
                record(order.file(), order.title(), order.plan(), order.started());
            } catch (TakeException | IllegalArgumentException e) {
                recording.failed(order.file(), e.getMessage());
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
        queue.put(new Order.Change(joined));
        feed.reader().start();
    }

    /** Lets go of one of the later sources; not while a recording runs. Waits a moment for its thread. */
    public void leave(int source) {
        Feed gone = feedOf(source);
        rig.left(gone.name());
        feeds.remove(gone);
        gone.reader().stop();
        queue.put(new Order.Change(rig.get()));
    }

    private Feed feedOf(int source) {
        Rig now = rig.get();
        return feeds.stream()
                .filter(feed -> feed.indexIn(now) == source)
                .findFirst()
                .orElse(feeds.get(0));
    }

    private boolean goesOn() {
        return !stopping && failure.isEmpty();
    }

    /** @return the newest snapshot; links and recording are of this very moment */
    public Snapshot snapshot(long nanoTime) {
        Snapshot seen = snapshot;
        List<LinkHealth> links = new ArrayList<>();
        for (int i = 0; i < seen.rig().sources().size(); i++) {
            Feed feed = feedOf(i);
            LinkHealth link = feed.reader().health(nanoTime).withShift(time.shiftSeconds(feed));
            links.add(
                    failure.isEmpty()
                            ? link
                            : link.withState(
                                    LinkState.REFUSED, Messages.of("engine.lanes-and-readings-stopped", failure)));
        }
        return new Snapshot(links, seen.rig(), seen.streams(), seen.channels(), recording.snapshot(), seen.act());
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
        if (!change.remark().isEmpty()) {
            recording.mark(snapshot.nowSeconds(System.nanoTime()), change.remark());
        }
        for (int i = 0; i < after.sources().size(); i++) {
            Source is = after.sources().get(i);
            feedOf(i).reader().passOver(is.setup().passOver());
        }
        queue.put(new Order.Change(after));
        for (int i = 0; i < before.sources().size(); i++) {
            StreamFormat was = before.sources().get(i).format();
            StreamFormat is = rig.wanted(before.sources().get(i).name(), change);
            boolean samePictures = is instanceof PictureFormat one && one.decodesLike(was);
            if (was != null && is != null && !is.equals(was) && !samePictures) {
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
        record(file, title, RecordingPlan.now(limit), started);
    }

    /**
     * Begins a recording by a plan: at once, or waits for its cue.
     *
     * @throws TakeException as the other does
     * @throws IllegalArgumentException when a condition names a column that is not there
     */
    public void record(Path file, String title, RecordingPlan plan, Instant started) throws TakeException {
        recording.begin(rig.get(), feeds, file, title, plan, started);
    }

    /** @return whether a recording runs */
    public boolean recording() {
        return recording.runs();
    }

    /** Marks this moment in the recording. @return false when none runs */
    public boolean mark(String text, long nanoTime) {
        return recording.mark(snapshot.nowSeconds(nanoTime), text);
    }

    /** Ends the span that the newest mark of that text begins. @return false when no recording runs */
    public boolean markEnd(String text, long nanoTime) {
        return recording.markEnd(snapshot.nowSeconds(nanoTime), text);
    }

    /**
     * Changes a mark of the recording that runs, at seconds of the trail.
     *
     * @param was null to add one
     * @param now null to take it out
     * @return false when no recording runs
     */
    public boolean changeMark(Mark was, Mark now) {
        return recording.changeMark(was, now);
    }

    /** The recording that runs ends by another limit, counted from its begin. */
    public void limitRecording(RecordingLimit limit) {
        recording.limit(limit);
    }

    /**
     * Sends a line to a source's board. Waits for the link. What was sent is kept as a mark while a recording runs.
     *
     * @throws LinkException when the link takes none
     */
    public void send(int source, String line, LineEnding ending, long nanoTime) throws LinkException {
        feedOf(source).reader().send(line, ending);
        recording.mark(snapshot.nowSeconds(nanoTime), "sent: " + line);
    }

    /** @return what was sent lately to a source, oldest first, each with the board's answer once there is one */
    public List<SentLine> sent(int source) {
        return feedOf(source).reader().sent();
    }

    /** @return what can be done about rules and outputs */
    public Acts acts() {
        return acts;
    }

    private double nowSeconds() {
        return snapshot.nowSeconds(System.nanoTime());
    }

    private double decidedUntil() {
        return failure.isEmpty() ? acts.decidedUntil() : Double.POSITIVE_INFINITY;
    }

    /** Ends the recording and waits until the take is whole. @return the last state of it */
    public RecordingSnapshot stopRecording() {
        return recording.stop();
    }

    /** Ends everything; a recording is completed first. Waits. */
    @Override
    public void close() {
        acts.end();
        // What a source has at hand comes into the recording before that ends.
        feeds.forEach(feed -> feed.reader().stop());
        acts.nothingMore();
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
            acts.rig(rig.get());
            work();
        } catch (Throwable fault) {
            // Whatever it is: lanes and readings stand still from here on, and must not look as if they lived.
            failure = Faults.words(fault);
            LOG.error("the trail stopped", fault);
            queue.clear();
            acts.failed(failure);
        }
    }

    private void work() {
        try {
            while (!stopping) {
                Order order = queue.next();
                if (order instanceof Order.Format found) {
                    found.feed().format(found.format());
                } else if (order instanceof Order.Change change) {
                    apply(change.rig());
                } else if (order instanceof Order.Act act) {
                    act.what().run();
                } else if (order instanceof Order.Over over) {
                    over.feed().streams().forEach(SampleStream::over);
                    acts.over(over.feed());
                    readingsNanos = 0;
                } else if (order instanceof Order.Data data) {
                    data.feed()
                            .accept(
                                    data.data(),
                                    rig.get(),
                                    station -> this.rig.station(data.feed().name(), station));
                }
                unsettled |= acts.look(System.nanoTime()) || order != null;
                if (unsettled && queue.isEmpty()) {
                    publish();
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private List<SampleStream> streams() {
        return feeds.stream().flatMap(feed -> feed.streams().stream()).toList();
    }

    private void apply(Rig changed) {
        acts.rig(changed);
        streams().stream().filter(stream -> stream.pace().known()).forEach(stream -> stream.change(changed));
        readingsNanos = 0;
    }

    private void publish() {
        long nanos = System.nanoTime();
        boolean read = false;
        if (nanos - readingsNanos >= Math.max(READINGS_NANOS, READINGS_PAUSE * readingsTook)) {
            readingsNanos = nanos;
            unsettled = false;
            // The processor's time: what others take of it on a busy machine says nothing of the readings.
            long before = PROCESSOR.getCurrentThreadCpuTime();
            streams().forEach(SampleStream::settleReadings);
            readingsTook = PROCESSOR.getCurrentThreadCpuTime() - before;
            read = true;
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
        snapshot = new Snapshot(
                List.of(LinkHealth.IDLE), now, streamSnapshots, channels, RecordingSnapshot.NONE, acts.snapshot());
        if (read) {
            recording.readings(snapshot);
        }
    }
}
