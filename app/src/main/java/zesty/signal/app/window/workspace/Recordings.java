package zesty.signal.app.window.workspace;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Supplier;
import zesty.signal.core.rig.Protocol;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.RecordingPlan;
import zesty.signal.engine.RecordingSnapshot;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.Trail;
import zesty.signal.takes.Mark;

/** Recording the live trail: begin, mark, end. JavaFX thread only. */
public final class Recordings {
    private final Workspace workspace;
    private final Supplier<Trail> trail;
    private final Set<String> open = new HashSet<>();
    private Protocol protocol = Protocol.NONE;
    /** What begins with the first row; null for nothing. */
    private RecordingPlan due;

    /** @param trail the one that runs; null for none */
    Recordings(Workspace workspace, Supplier<Trail> trail) {
        this.workspace = workspace;
        this.trail = trail;
    }

    /** Begins a recording of the live trail. */
    public void start(RecordingLimit limit) {
        start(RecordingPlan.now(limit));
    }

    /** Begins a recording by a plan: at once, or it waits for its cue. */
    public void start(RecordingPlan plan) {
        Trail running = trail.get();
        if (running == null) {
            workspace.trouble(Messages.of("workspace.nothing-to-record-connect-a-source"));
            return;
        }
        boolean rows = running.rig().sources().stream().anyMatch(source -> source.format() != null);
        if (!rows) {
            due = plan;
            workspace.say(Messages.of("workspace.the-recording-begins-with-the"));
            return;
        }
        due = null;
        LocalDateTime now = LocalDateTime.now(ZoneId.systemDefault());
        String title = running.rig().name();
        open.clear();
        workspace.live().forgetMarks();
        protocol = plan.protocol();
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-recording-could-not-begin"),
                        () -> running.record(workspace.takes().freshFile(now), title, plan, Instant.now()),
                        () -> {});
    }

    /** @return whether a recording is to begin with the first row */
    public boolean waits() {
        return due != null;
    }

    /** Begins what waits for it once rows come. */
    public void beginWhenRowsCome(Snapshot live) {
        if (due != null && !workspace.live().connected()) {
            due = null;
        } else if (due != null && live.hasSamples()) {
            RecordingPlan plan = due;
            due = null;
            start(plan);
        }
    }

    /** @return the protocol that the newest recording goes through; {@link Protocol#NONE} for none */
    public Protocol protocol() {
        return protocol;
    }

    /** The recording that runs ends by another limit, counted from its begin. */
    public void limit(RecordingLimit limit) {
        Trail running = trail.get();
        if (running != null) {
            running.limitRecording(limit);
        }
    }

    /** Ends the recording and puts the take on the shelf. */
    public void stop() {
        Trail running = trail.get();
        if (running == null || due != null) {
            due = null;
            return;
        }
        RecordingSnapshot[] last = new RecordingSnapshot[1];
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-recording-could-not-be-ended"),
                        () -> last[0] = running.stopRecording(),
                        () -> ended(last[0]));
    }

    /** Tells how a recording ended, whether by hand, by its limit or by trouble. */
    public void ended(RecordingSnapshot last) {
        if (!last.problem().isEmpty()) {
            workspace.trouble(last.problem());
        } else if (last.file() != null) {
            int takes = last.made().size();
            workspace.say(
                    takes > 1
                            ? Messages.of("workspace.recordings-saved-takes", takes)
                            : Messages.of(
                                    "workspace.recording-saved-samples",
                                    last.rows(),
                                    Digits.fixed(last.seconds(), 1) + " s."));
        } else {
            workspace.say(Messages.of("workspace.nothing-was-recorded-its-start-did"));
        }
        workspace.takes().list();
    }

    /** Marks a moment of the recording that runs. @param nanoTime when the key went down. @return whether there is one */
    public boolean mark(String text, long nanoTime) {
        Trail running = trail.get();
        if (running == null || !running.mark(text, nanoTime)) {
            workspace.trouble(Messages.of("workspace.a-mark-belongs-to-a-recording"));
            return false;
        }
        workspace.live().marked(nanoTime, text);
        workspace.say(Messages.of("workspace.marked", text));
        return true;
    }

    /** Marks this moment with the marker of a key. @param index from 0, of the rig's markers */
    public void markByKey(int index) {
        long now = System.nanoTime();
        List<String> markers = workspace.live().rig().recording().markers();
        if (index >= markers.size()) {
            workspace.trouble(Messages.of("workspace.marker-is-not-set-up-e-opens-the", (index + 1)));
        } else {
            mark(markers.get(index), now);
        }
    }

    /** Begins a span with the marker of a key, or ends it. @param index from 0, of the rig's markers */
    public void spanByKey(int index) {
        long now = System.nanoTime();
        List<String> markers = workspace.live().rig().recording().markers();
        if (index < markers.size() && open.contains(markers.get(index))) {
            String text = markers.get(index);
            Trail running = trail.get();
            if (running != null && running.markEnd(text, now)) {
                workspace.live().markEnded(now, text);
                workspace.say(Messages.of("workspace.ended", text));
            }
            open.remove(text);
        } else if (index < markers.size()) {
            if (mark(markers.get(index), now)) {
                open.add(markers.get(index));
                workspace.say(Messages.of("workspace.begun-the-same-key-ends-it", markers.get(index)));
            }
        } else {
            markByKey(index);
        }
    }

    /** Changes a mark of the recording that runs. @param was null to add one. @param now null to take it out. @return false when none runs */
    boolean change(Mark was, Mark now) {
        Trail running = trail.get();
        if (running == null || !running.recording() || !running.changeMark(was, now)) {
            workspace.trouble(Messages.of("workspace.the-recording-is-over-open-its"));
            return false;
        }
        workspace.live().remarked(was, now);
        return true;
    }

    /** @return whether a span with that marker has begun and not ended */
    public boolean isOpen(String marker) {
        return open.contains(marker);
    }

    /** Marks this moment if a recording runs, and says nothing of it. */
    void markQuietly(String text) {
        Trail running = trail.get();
        if (running != null && running.mark(text, System.nanoTime())) {
            workspace.live().marked(System.nanoTime(), text);
        }
    }
}
