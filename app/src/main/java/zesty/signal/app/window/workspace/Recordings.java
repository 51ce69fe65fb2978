package zesty.signal.app.window.workspace;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Locale;
import java.util.function.Supplier;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.RecordingPlan;
import zesty.signal.engine.RecordingSnapshot;
import zesty.signal.engine.Trail;

/** Recording the live trail: begin, mark, end. JavaFX thread only. */
public final class Recordings {
    private final Workspace workspace;
    private final Supplier<Trail> trail;

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
            workspace.trouble("Nothing to record: connect a source first (key 1).");
            return;
        }
        LocalDateTime now = LocalDateTime.now(ZoneId.systemDefault());
        String title = running.rig().name();
        workspace
                .tasks()
                .later(
                        "the recording could not begin",
                        () -> running.record(workspace.takes().freshFile(now), title, plan, Instant.now()),
                        () -> {});
    }

    /** Ends the recording and puts the take on the shelf. */
    public void stop() {
        Trail running = trail.get();
        if (running == null) {
            return;
        }
        RecordingSnapshot[] last = new RecordingSnapshot[1];
        workspace
                .tasks()
                .later(
                        "the recording could not be ended",
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
                            ? "Recordings saved: " + takes + " takes"
                            : "Recording saved: " + last.rows() + " samples, "
                                    + String.format(Locale.ROOT, "%.1f s.", last.seconds()));
        } else {
            workspace.say("Nothing was recorded: its start did not come.");
        }
        workspace.takes().list();
    }

    public void mark(String text) {
        Trail running = trail.get();
        if (running == null || !running.mark(text, System.nanoTime())) {
            workspace.trouble("A mark belongs to a recording: start one first (key R).");
        } else {
            workspace.say("Marked: " + text);
        }
    }

    /** Marks this moment if a recording runs, and says nothing of it. */
    void markQuietly(String text) {
        Trail running = trail.get();
        if (running != null) {
            running.mark(text, System.nanoTime());
        }
    }
}
