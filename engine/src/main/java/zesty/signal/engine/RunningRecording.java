package zesty.signal.engine;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.DoubleSupplier;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.sample.Block;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Decision;
import zesty.signal.takes.Mark;
import zesty.signal.takes.NewFile;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/** The recording of a trail: the one that runs, else how the last one ended. Any thread. */
final class RunningRecording {
    private final AtomicReference<Recording> recorder = new AtomicReference<>();
    private volatile RecordingSnapshot last = RecordingSnapshot.NONE;
    private final DoubleSupplier decidedUntil;

    /** @param decidedUntil up to which moment of the trail everything has been decided; infinity where nothing is */
    RunningRecording(DoubleSupplier decidedUntil) {
        this.decidedUntil = decidedUntil;
    }

    /**
     * Begins a recording with the next block. Waits for the disk.
     *
     * @param now the rig in force
     * @throws TakeException when one is running, the format is not known yet, or the file cannot be made
     * @throws IllegalArgumentException when a condition names a column that is not there
     */
    void begin(Rig now, List<Feed> feeds, Path file, String title, RecordingPlan plan, Instant started)
            throws TakeException {
        if (runs()) {
            throw new TakeException(Messages.of("engine.a-recording-is-running-already"));
        }
        if (now.sources().stream().allMatch(source -> source.format() == null)) {
            throw new TakeException(Messages.of("engine.nothing-to-record-yet-no-line-of"));
        }
        boolean byItsOwnTime = feeds.stream().allMatch(feed -> feed.reader().unpaced());
        Recording fresh;
        if (plan.cued()) {
            refuse(NewFile.objection(file));
            refuse(Files.exists(file) ? Messages.of("engine.is-there-already-choose-another", file) : null);
            fresh = new CuedRecording(plan, now, file, byItsOwnTime, one -> {
                try {
                    // Each take began when its cue came, not when the waiting did.
                    String called = one.equals(file)
                            ? title
                            : one.getFileName().toString().replaceFirst("\\.zest$", "");
                    return recorder(
                            now,
                            feeds,
                            one,
                            called,
                            RecordingPlan.now(RecordingLimit.NONE),
                            Instant.now(),
                            byItsOwnTime);
                } catch (TakeException e) {
                    throw CuedRecording.carried(e);
                }
            });
        } else {
            fresh = recorder(now, feeds, file, title, plan, started, byItsOwnTime);
        }
        fresh.start();
        recorder.set(fresh);
    }

    private static void refuse(String objection) throws TakeException {
        if (objection != null) {
            throw new TakeException(objection);
        }
    }

    private Recorder recorder(
            Rig now,
            List<Feed> feeds,
            Path file,
            String title,
            RecordingPlan plan,
            Instant started,
            boolean byItsOwnTime)
            throws TakeException {
        Recorder fresh = new Recorder(
                TakeWriter.create(file, title, now, started),
                now,
                new TakeStations(now, (source, station) -> feeds.stream()
                        .filter(feed -> feed.indexIn(now) == source)
                        .map(feed -> feed.reader().stationName(station))
                        .findFirst()
                        .orElse("")),
                plan.limit(),
                plan.protocol(),
                byItsOwnTime,
                decidedUntil,
                () -> feeds.size() == 1 ? feeds.get(0).reader().arrivalPeriodSeconds() : Double.NaN);
        for (Source source : now.sources()) {
            if (source.format() == null) {
                String called = source.name().isEmpty() ? source.setup().address() : source.name();
                fresh.mark(0, Messages.of("engine.not-in-this-take-of-which-nothing", called));
            }
        }
        for (Feed feed : feeds) {
            if (!feed.reader().legend().isEmpty()) {
                fresh.mark(
                        0, Messages.of("engine.words-as-numbers", feed.reader().legend()));
            }
        }
        return fresh;
    }

    /** A recording that was to begin could not. */
    void failed(Path file, String why) {
        last = new RecordingSnapshot(false, file, 0, 0, 0, 0, -1, Double.NaN, why, "", List.of());
    }

    boolean runs() {
        Recording running = recorder.get();
        return running != null && running.snapshot().running();
    }

    /** @return of the one that runs, or of the last one */
    RecordingSnapshot snapshot() {
        Recording running = recorder.get();
        return running == null ? last : running.snapshot();
    }

    /** A source's format is known from here on, or another one. */
    void reshape(int source, StreamFormat format) {
        Recording running = recorder.get();
        if (running != null) {
            running.reshape(source, format);
        }
    }

    void offer(int source, Block block, boolean mayWait) {
        Recording running = recorder.get();
        if (running != null) {
            running.offer(source, block, mayWait);
        }
    }

    /** @return whether one runs, which now has the mark */
    boolean mark(double seconds, String text) {
        Recording running = recorder.get();
        return running != null && running.mark(seconds, text);
    }

    /** @return whether one runs, in which the span that the newest mark of that text begins now ends */
    boolean markEnd(double seconds, String text) {
        Recording running = recorder.get();
        return running != null && running.markEnd(seconds, text);
    }

    /** @return whether one runs, which now keeps what was decided */
    boolean decided(Decision decision) {
        Recording running = recorder.get();
        return running != null && running.decided(decision);
    }

    /** @return whether one runs, which now changes a mark. @param was null to add one. @param now null to take it out */
    boolean changeMark(Mark was, Mark now) {
        Recording running = recorder.get();
        return running != null && running.changeMark(was, now);
    }

    /** Ends the one that runs with the next row. Does not wait. */
    void endNow() {
        Recording running = recorder.get();
        if (running != null && running.snapshot().running()) {
            running.limit(RecordingLimit.ofSeconds(
                    Math.max(Double.MIN_NORMAL, running.snapshot().seconds())));
        }
    }

    /** The one that runs ends by another limit. */
    void limit(RecordingLimit other) {
        Recording running = recorder.get();
        if (running != null) {
            running.limit(other);
        }
    }

    /** What the readers say by now. */
    void readings(Snapshot snapshot) {
        Recording running = recorder.get();
        if (running != null) {
            running.readings(snapshot);
        }
    }

    /** Marks where the recording is by now. */
    void markNow(String text) {
        Recording running = recorder.get();
        if (running != null) {
            running.mark(running.snapshot().seconds(), text);
        }
    }

    /** Ends it and waits until the take is whole. @return the last state of it */
    RecordingSnapshot stop() {
        Recording running = recorder.get();
        if (running != null) {
            running.stop();
            last = running.snapshot();
            recorder.compareAndSet(running, null);
        }
        return last;
    }
}
