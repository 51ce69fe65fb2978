package zesty.signal.engine;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.boards.link.Link;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.LinkException;
import zesty.signal.boards.link.Watchdog;
import zesty.signal.core.act.Deed;
import zesty.signal.core.act.StepPlan;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.core.rig.Source;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.engine.TrailQueue.Order;
import zesty.signal.takes.Decision;
import zesty.signal.takes.Mark;
import zesty.signal.takes.TakeException;

/**
 * One running trail: the sources of a rig and all that is made of them. Longer than others: it is the one door to all that runs. Its methods may be called from any thread; the
 * ones that wait say so. A source is named by its place in the rig. Close it to end its threads.
 */
public final class Trail implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Trail.class);
    private static final long READINGS_NANOS = 200_000_000;
    private static final long WATCH_NANOS = 20_000_000;
    private static final long SAFE_MS = 400;
    /** Outputs are safe within a second of the last row, or within a few periods of a slow board. */
    private static final double SILENT_SECONDS = 0.7;

    private static final double SILENT_PERIODS = 3;

    private final TrailQueue queue = new TrailQueue(this::goesOn);
    private final List<Feed> feeds = new CopyOnWriteArrayList<>();
    private final CommonTime time = new CommonTime();
    private final Thread thread;
    private final RunningRecording recording = new RunningRecording(this::decidedUntil);
    private final RigInForce rig;
    private final Outputs outputs = new Outputs(new FeedBoards(), new OutputsTold());
    private final Decider decider = new Decider(outputs, new Effects());
    private final Map<Feed, Integer> reconnects = new HashMap<>();
    private volatile double decidedSeconds = Double.NEGATIVE_INFINITY;
    private boolean recorded;
    private long watchedNanos;
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
            recording.reshape(own.indexIn(rig.get()), found);
            queue.put(new Order.Format(own, found));
            recordFromStart();
        }

        @Override
        public void block(Block block, double rate, long arrivalNanos) {
            Feed own = feed.get();
            Block placed = own.reader().unpaced() ? block : time.place(own, block, arrivalNanos * 1e-9);
            recording.offer(own.indexIn(rig.get()), placed, own.reader().holdsUp());
            if (fromStart != null && fromStart.only()) {
                return;
            }
            queue.hand(own, new Feed.Data(placed, rate, arrivalNanos));
        }

        @Override
        public void words(String legend) {
            recording.markNow("words as numbers: " + legend);
        }

        @Override
        public void over() {
            queue.put(new Order.Over(feed.get()));
        }
    }

    private Feed feed(Source source, LinkAddress address, Link link) {
        Inlet inlet = new Inlet();
        Feed feed = new Feed(source.name(), new SourceReader(address, link, source, inlet), decider::rows);
        inlet.feed.set(feed);
        if (!rig.get().act().book().outputs().isEmpty()) {
            link.share();
        }
        return feed;
    }

    /** The boards that outputs are on. */
    private final class FeedBoards implements Outputs.Boards {
        private SourceReader reader(String source) {
            return feeds.stream()
                    .filter(feed -> feed.name().equals(source))
                    .findFirst()
                    .map(Feed::reader)
                    .orElse(null);
        }

        @Override
        public SentLine send(String source, String line) throws LinkException {
            SourceReader reader = reader(source);
            if (reader == null) {
                throw new LinkException("its board is not connected", false);
            }
            return reader.send(line, Outputs.ENDING);
        }

        @Override
        public SentLine answered(String source, SentLine line) {
            SourceReader reader = reader(source);
            return reader == null
                    ? line
                    : reader.sent().stream()
                            .filter(one -> one.nanoTime() == line.nanoTime()
                                    && one.text().equals(line.text()))
                            .findFirst()
                            .orElse(line);
        }

        @Override
        public void share(String source) {
            SourceReader reader = reader(source);
            if (reader != null) {
                reader.share();
            }
        }
    }

    private final class OutputsTold implements Outputs.Told {
        @Override
        public void logged(Decision decision) {
            decider.log(decision);
        }

        @Override
        public void madeSafe(String output) {
            decider.madeSafe(output);
        }
    }

    private final class Effects implements Decider.Effects {
        @Override
        public void logged(Decision decision) {
            recording.decided(decision);
        }

        @Override
        public void planned(String output, String what) {
            recording.mark(snapshot.nowSeconds(System.nanoTime()), output + ": " + what);
        }

        @Override
        public void deed(Deed deed, String name) {
            switch (deed) {
                case MARK -> recording.mark(decider.nowSeconds(), name);
                case SAFE -> outputs.hold("rule " + name);
                case STOP -> recording.endNow();
                default -> {
                    // Tones, points and a new recording are the window's: it sees how often the rule turned on.
                }
            }
        }
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

    private void recordFromStart() {
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
                            : link.withState(LinkState.REFUSED, "lanes and readings stopped: " + failure));
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

    /** Makes all outputs safe and keeps them so until {@link #releaseOutputs}. */
    public void holdOutputs(String why) {
        queue.put(new Order.Act(() -> outputs.hold(why)));
    }

    /** Rules may drive outputs again: those that are on when they have been off. */
    public void releaseOutputs() {
        queue.put(new Order.Act(outputs::release));
    }

    /** Sends a line of an output by hand, as its rule would; it is made safe half a second after this was called last. */
    public void byHand(String output, String line) {
        queue.put(new Order.Act(() -> {
            long nanos = System.nanoTime();
            outputs.byHand(snapshot.nowSeconds(nanos), output, line, nanos);
        }));
    }

    /** Makes one output safe; what its rule says counts again when it has been off. */
    public void makeSafe(String output, String why) {
        queue.put(new Order.Act(() -> outputs.safe(output, why)));
    }

    /** Sets one value after the other on an output, watching a channel; it ends safe. */
    public void plan(String output, String column, StepPlan plan) {
        queue.put(new Order.Act(() -> decider.plan(output, column, plan)));
    }

    /** Ends the plan that runs. */
    public void endPlan() {
        queue.put(new Order.Act(() -> decider.endPlan("ended by hand")));
    }

    /** Lets go of a latched rule. */
    public void acknowledge(String rule) {
        queue.put(new Order.Act(() -> decider.acknowledge(rule)));
    }

    /** Counts points from nought again. */
    public void countAnew() {
        queue.put(new Order.Act(decider::countAnew));
    }

    /** Ends the recording and waits until the take is whole. @return the last state of it */
    public RecordingSnapshot stopRecording() {
        return recording.stop();
    }

    /** Ends everything; a recording is completed first. Waits. */
    @Override
    public void close() {
        safeAtTheEnd();
        // What a source has at hand comes into the recording before that ends.
        feeds.forEach(feed -> feed.reader().stop());
        queue.put(new Order.Act(() -> decidedSeconds = Double.POSITIVE_INFINITY));
        stopRecording();
        stopping = true;
        try {
            thread.join(2000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private double decidedUntil() {
        boolean decides = failure.isEmpty() && !rig.get().act().isNone();
        return decides ? decidedSeconds : Double.POSITIVE_INFINITY;
    }

    /** Boards hear their safe lines before their links close. */
    private void safeAtTheEnd() {
        if (rig.get().act().book().outputs().isEmpty()) {
            return;
        }
        CountDownLatch held = new CountDownLatch(1);
        queue.put(new Order.Act(() -> {
            outputs.hold("the program ends");
            held.countDown();
        }));
        try {
            held.await(SAFE_MS, TimeUnit.MILLISECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        outputs.close();
    }

    private void run() {
        try {
            decider.rig(rig.get());
            work();
        } catch (Throwable fault) {
            // Whatever it is: lanes and readings stand still from here on, and must not look as if they lived.
            failure = Faults.words(fault);
            LOG.error("the trail stopped", fault);
            queue.clear();
            outputs.hold("decisions stopped: " + failure);
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
                    decider.over(over.feed().streams().stream()
                            .mapToDouble(SampleStream::lastSeconds)
                            .max()
                            .orElse(Double.NEGATIVE_INFINITY));
                    decidedSeconds = Double.POSITIVE_INFINITY;
                } else if (order instanceof Order.Data data) {
                    data.feed().accept(data.data(), rig.get(), station -> station(data.feed(), station));
                }
                decidedSeconds = Math.max(decidedSeconds, decider.nowSeconds());
                watch(System.nanoTime());
                unsettled |= order != null;
                if (unsettled && queue.isEmpty()) {
                    publish();
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** What no row tells: time that passes, links that break and come back, boards that fall silent, a recording that ended. */
    private void watch(long nanos) {
        if (rig.get().act().isNone() || nanos - watchedNanos < WATCH_NANOS) {
            return;
        }
        if (watchedNanos > 0 && nanos - watchedNanos > TimeUnit.MILLISECONDS.toNanos(Watchdog.FROZEN_MS)) {
            // Its watchdog has seen it, too.
            outputs.stoodStill();
        }
        watchedNanos = nanos;
        unsettled = true;
        double seconds = snapshot.nowSeconds(nanos);
        if (feeds.stream().noneMatch(feed -> feed.reader().unpaced())) {
            decider.tick(seconds, nanos);
        }
        outputs.tick(seconds, nanos);
        for (Feed feed : feeds) {
            int count = feed.reader().reconnects();
            Integer before = reconnects.put(feed, count);
            if (before != null && before != count) {
                outputs.linkBack(feed.name());
            }
        }
        if (outputs.anyOn()) {
            silent(nanos);
        }
        boolean records = recording.runs();
        if (recorded && !records && outputs.anyOn()) {
            outputs.hold("the recording ended");
        }
        recorded = records;
    }

    /** An output whose rule hears nothing of its board any more is made safe. */
    private void silent(long nanos) {
        for (ActSnapshot.OutputNow output : outputs.now()) {
            for (String column : output.safe()
                    ? Set.<String>of()
                    : decider.watchedBy(output.output().name())) {
                for (SampleStream stream : streams()) {
                    double patience = Math.max(SILENT_SECONDS, SILENT_PERIODS / stream.measuredHz());
                    if (stream.columnCalled(column) != null && stream.silentSeconds(nanos) > patience) {
                        outputs.safe(output.output().name(), "nothing comes of " + column);
                    }
                }
            }
        }
    }

    private Rig station(Feed feed, double station) {
        return rig.station(feed.name(), station);
    }

    private List<SampleStream> streams() {
        return feeds.stream().flatMap(feed -> feed.streams().stream()).toList();
    }

    private void apply(Rig changed) {
        decider.rig(changed);
        streams().stream().filter(SampleStream::hasRate).forEach(stream -> stream.change(changed));
        readingsNanos = 0;
    }

    private void publish() {
        long nanos = System.nanoTime();
        boolean read = false;
        if (nanos - readingsNanos >= READINGS_NANOS) {
            readingsNanos = nanos;
            unsettled = false;
            streams().forEach(SampleStream::settleReadings);
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
                List.of(LinkHealth.IDLE), now, streamSnapshots, channels, RecordingSnapshot.NONE, decider.snapshot());
        if (read) {
            recording.readings(snapshot);
        }
    }
}
