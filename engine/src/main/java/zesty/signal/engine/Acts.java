package zesty.signal.engine;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.function.DoubleSupplier;
import java.util.function.Supplier;
import zesty.signal.boards.link.Watchdog;
import zesty.signal.core.act.Deed;
import zesty.signal.core.act.StepPlan;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.TrailQueue.Order;
import zesty.signal.takes.Decision;

/**
 * What a running trail decides and drives, with all that makes its outputs safe: silence, links that break, a recording that ended, a
 * program that stood still. What is public may be called from any thread and does not wait; the rest is the trail's thread's.
 */
public final class Acts {
    private static final long LOOK_NANOS = 20_000_000;
    private static final long SAFE_MS = 400;
    /** Outputs are safe within a second of the last row, or within a few periods of a slow board. */
    private static final double SILENT_SECONDS = 0.7;

    private static final double SILENT_PERIODS = 3;

    private final Supplier<Rig> rig;
    private final List<Feed> feeds;
    private final TrailQueue queue;
    private final RunningRecording recording;
    /** The trail's now, in s of its line. */
    private final DoubleSupplier now;

    private final Outputs outputs;
    private final Decider decider;
    private final Map<Feed, Integer> reconnects = new HashMap<>();
    private volatile double decidedSeconds = Double.NEGATIVE_INFINITY;
    private boolean recorded;
    private long lookedNanos;

    Acts(Supplier<Rig> rig, List<Feed> feeds, TrailQueue queue, RunningRecording recording, DoubleSupplier now) {
        this.rig = rig;
        this.feeds = feeds;
        this.queue = queue;
        this.recording = recording;
        this.now = now;
        outputs = new Outputs(new FeedBoards(feeds), new Told());
        decider = new Decider(outputs, new Effects());
    }

    private final class Told implements Outputs.Told {
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
            recording.mark(now.getAsDouble(), output + ": " + what);
        }

        @Override
        public void deed(Deed deed, String name) {
            switch (deed) {
                case MARK -> recording.mark(decider.nowSeconds(), name);
                case SAFE -> outputs.hold(Messages.of("engine.rule", name));
                case STOP -> recording.endNow();
                default -> {
                    // Tones, points and a new recording are the window's: it sees how often the rule turned on.
                }
            }
        }
    }

    private void put(Runnable what) {
        queue.put(new Order.Act(what));
    }

    /** Makes all outputs safe and keeps them so until {@link #release}. @param why in words */
    public void hold(String why) {
        put(() -> outputs.hold(why));
    }

    /** Rules may drive outputs again: those that are on when they have been off. */
    public void release() {
        put(outputs::release);
    }

    /** Sends a line of an output by hand, as its rule would; it is made safe half a second after this was called last. */
    public void byHand(String output, String line) {
        put(() -> outputs.byHand(now.getAsDouble(), output, line, System.nanoTime()));
    }

    /** Makes one output safe; what its rule says counts again when it has been off. @param why in words */
    public void makeSafe(String output, String why) {
        put(() -> outputs.safe(output, why));
    }

    /** Sets one value after the other on an output, watching a channel; it ends safe. */
    public void plan(String output, String column, StepPlan plan) {
        put(() -> decider.plan(output, column, plan));
    }

    /** Ends the plan that runs. */
    public void endPlan() {
        put(() -> decider.endPlan(Messages.of("engine.ended-by-hand")));
    }

    /** Lets go of a latched rule. */
    public void acknowledge(String rule) {
        put(() -> decider.acknowledge(rule));
    }

    /** Counts points from nought again. */
    public void countAnew() {
        put(decider::countAnew);
    }

    /** Takes a rig into force. */
    void rig(Rig changed) {
        decider.rig(changed);
    }

    /** Takes rows of a line of samples after they went through its channels. */
    void rows(SampleStream stream, double[] seconds, long nanos) {
        decider.rows(stream, seconds, nanos);
    }

    /** A source came to its end, as a file does. */
    void over(Feed feed) {
        decider.over(feed.streams().stream()
                .mapToDouble(SampleStream::lastSeconds)
                .max()
                .orElse(Double.NEGATIVE_INFINITY));
        decidedSeconds = Double.POSITIVE_INFINITY;
    }

    /** Nothing is decided any more: whatever happened, all is made safe. @param why in words */
    void failed(String why) {
        outputs.hold(Messages.of("engine.decisions-stopped", why));
    }

    ActSnapshot snapshot() {
        return decider.snapshot();
    }

    /** Any thread. @return up to which moment everything has been decided; infinity where nothing is */
    double decidedUntil() {
        return rig.get().act().isNone() ? Double.POSITIVE_INFINITY : decidedSeconds;
    }

    /** Any thread: nothing more will come, and nobody is to wait for what would be decided of it. */
    void nothingMore() {
        put(() -> decidedSeconds = Double.POSITIVE_INFINITY);
    }

    /** Any thread: boards hear their safe lines before their links close. Waits a moment. */
    void end() {
        if (rig.get().act().book().outputs().isEmpty()) {
            return;
        }
        CountDownLatch held = new CountDownLatch(1);
        put(() -> {
            outputs.hold(Messages.of("engine.the-program-ends"));
            held.countDown();
        });
        try {
            held.await(SAFE_MS, TimeUnit.MILLISECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        outputs.close();
    }

    /**
     * What no row tells: time that passes, links that break and come back, boards that fall silent, a recording that ended.
     *
     * @return whether there may be something new to see
     */
    boolean look(long nanos) {
        decidedSeconds = Math.max(decidedSeconds, decider.nowSeconds());
        if (rig.get().act().isNone() || nanos - lookedNanos < LOOK_NANOS) {
            return false;
        }
        boolean byItsOwnTime = feeds.stream().allMatch(feed -> feed.reader().unpaced());
        boolean stood = lookedNanos > 0 && nanos - lookedNanos > TimeUnit.MILLISECONDS.toNanos(Watchdog.FROZEN_MS);
        if (stood && !byItsOwnTime) {
            // Its watchdog has seen it, too. A file has waited meanwhile, and nothing of it was missed.
            outputs.stoodStill(lookedNanos);
        }
        lookedNanos = nanos;
        double seconds = now.getAsDouble();
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
        if (outputs.anyOn() && queue.isEmpty()) {
            // Rows that wait are no silence.
            silent(nanos);
        }
        boolean records = recording.runs();
        if (recorded && !records && outputs.anyOn()) {
            outputs.hold(Messages.of("engine.the-recording-ended"));
        }
        recorded = records;
        return true;
    }

    /** An output whose rule hears nothing of its board any more is made safe. */
    private void silent(long nanos) {
        List<SampleStream> streams =
                feeds.stream().flatMap(feed -> feed.streams().stream()).toList();
        for (ActSnapshot.OutputNow output : outputs.now()) {
            String name = output.output().name();
            for (String column : output.safe() ? Set.<String>of() : decider.watchedBy(name)) {
                for (SampleStream stream : streams) {
                    double patience = Math.max(
                            SILENT_SECONDS, SILENT_PERIODS / stream.pace().measuredHz());
                    if (stream.columnCalled(column) != null && stream.silentSeconds(nanos) > patience) {
                        outputs.safe(name, Messages.of("engine.nothing-comes-of", column));
                    }
                }
            }
        }
    }
}
