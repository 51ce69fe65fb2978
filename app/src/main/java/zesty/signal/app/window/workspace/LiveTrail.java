package zesty.signal.app.window.workspace;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.SimpleIntegerProperty;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.Trail;
import zesty.signal.takes.Mark;

/** The trail that runs on the rig's sources, or none, and which sources those are. JavaFX thread only. */
public final class LiveTrail implements Shown {
    private static final double USUAL_SECONDS = 20;

    private final Workspace workspace;
    private final TimeWindow window = new TimeWindow();
    private final IntegerProperty inHand = new SimpleIntegerProperty();
    private final List<Mark> marks = new ArrayList<>();
    /** Set on the JavaFX thread; the page for a phone looks from a thread of its own. */
    private volatile Trail trail;

    private volatile Rig rig;

    LiveTrail(Workspace workspace, Rig rig, double spanSeconds) {
        this.workspace = workspace;
        this.rig = rig;
        window.follow(spanSeconds);
    }

    /** @return null while none runs */
    Trail running() {
        return trail;
    }

    public boolean connected() {
        return trail != null;
    }

    /** @return index of the source that the Source and Decode benches are at; follows the focus */
    public IntegerProperty sourceInHand() {
        return inHand;
    }

    /** @return what the maker decided of the live rig, whole, also what does not fit the streams of this moment */
    Rig decided() {
        return trail == null ? rig : trail.decided();
    }

    // What is shown of it.

    @Override
    public Snapshot snapshot(long nanoTime) {
        Trail now = trail;
        return now == null ? Snapshot.nothing(rig) : now.snapshot(nanoTime);
    }

    @Override
    public Rig rig() {
        return trail == null ? rig : trail.rig();
    }

    @Override
    public String title() {
        return rig().name();
    }

    @Override
    public String mended() {
        return "";
    }

    @Override
    public List<Mark> marks() {
        return List.copyOf(marks);
    }

    /** A recording that runs was marked at that moment. */
    void marked(long nanoTime, String text) {
        marks.add(new Mark(now(nanoTime), text));
    }

    /** Before the first row it is the moment of that row, as in the take. */
    private double now(long nanoTime) {
        double seconds = snapshot(nanoTime).nowSeconds(nanoTime);
        return Double.isNaN(seconds) ? 0 : seconds;
    }

    /** The span that the newest mark of that text begins ends at that moment. */
    void markEnded(long nanoTime, String text) {
        double now = now(nanoTime);
        for (int i = marks.size() - 1; i >= 0; i--) {
            Mark mark = marks.get(i);
            if (mark.text().equals(text)) {
                marks.set(i, new Mark(mark.seconds(), Math.max(mark.seconds(), now), text));
                return;
            }
        }
    }

    /** A mark of the recording that runs is another one now. @param was null for none before. @param now null for none any more */
    void remarked(Mark was, Mark now) {
        marks.remove(was);
        if (now != null) {
            marks.add(now);
            marks.sort(Comparator.comparingDouble(Mark::seconds));
        }
    }

    /** A recording begins: what was marked belongs to the one before. */
    void forgetMarks() {
        marks.clear();
    }

    @Override
    public TimeWindow window() {
        return window;
    }

    @Override
    public boolean isLive() {
        return true;
    }

    @Override
    public double zero(Snapshot snapshot) {
        return snapshot.lastSeconds();
    }

    @Override
    public double newest(Snapshot snapshot, long nanoTime) {
        return snapshot.nowSeconds(nanoTime);
    }

    @Override
    public Span pictured(Snapshot snapshot, double seconds) {
        return new Span(snapshot.lastSeconds() - seconds, snapshot.lastSeconds());
    }

    @Override
    public void home() {
        window.follow(USUAL_SECONDS);
    }

    @Override
    public String levelsOver() {
        return "10 s";
    }

    @Override
    public String unread() {
        return Messages.of("workspace.no-samples-yet");
    }

    @Override
    public void apply(RigChange change) {
        if (trail != null) {
            trail.change(change);
        } else {
            rig = change.onto(rig);
        }
        workspace.saveSoon();
    }

    // What can be done.

    /** Shows a trail that runs on the rig that was given at the start. @param running from here on the window's to close */
    public void begin(Trail running) {
        trail = running;
        remember(rig.source());
        window.follow(window.span());
        workspace.saveSoon();
    }

    /** Runs a trail on the source, in the place of the one that runs. */
    public void connect(String source) {
        try {
            LinkAddress.parse(source);
        } catch (IllegalArgumentException e) {
            workspace.trouble(e.getMessage());
            return;
        }
        if (records(Messages.of("workspace.a-recording-is-running-on-this"))) {
            return;
        }
        Rig before = decided();
        boolean same = before.source().equals(source);
        Rig alone = before;
        while (!same && alone.sources().size() > 1) {
            alone = alone.without(alone.sources().size() - 1);
        }
        rig = same ? before : alone.withSource(source).withFormat(null);
        inHand.set(0);
        remember(source);
        workspace.closeTake();
        closeTrail();
        trail = Trail.start(rig);
        window.follow(window.span());
        workspace.saveSoon();
    }

    private void remember(String source) {
        WindowState view = workspace.view();
        view.remember(view.settings().withRecent(source));
    }

    private boolean records(String refusal) {
        boolean records = trail != null && trail.recording();
        if (records) {
            workspace.trouble(refusal);
        }
        return records;
    }

    /** Works with another rig from here on: its sources are connected in the place of those that run. */
    public void take(Rig chosen) {
        Rig before = decided();
        boolean ran = trail != null;
        if (change(chosen, true)) {
            workspace.edits().forget();
            workspace
                    .edits()
                    .did(new Edits.Edit(
                            Messages.of("workspace.the-rig", chosen.name()),
                            () -> change(before, ran),
                            () -> change(chosen, true)));
        }
    }

    private boolean change(Rig chosen, boolean run) {
        if (records(Messages.of("workspace.a-recording-is-running-with-this"))) {
            return false;
        }
        workspace.closeTake();
        inHand.set(0);
        closeTrail();
        rig = chosen;
        workspace.view().focus().set("");
        if (run && !chosen.source().isEmpty()) {
            trail = Trail.start(chosen);
            window.follow(window.span());
        }
        workspace.saveSoon();
        return true;
    }

    /** Reads another source beside those that run. */
    public void join(String address) {
        Trail running = trail;
        if (running == null) {
            connect(address);
            return;
        }
        String name;
        try {
            name = LinkAddress.parse(address).shortName();
        } catch (IllegalArgumentException e) {
            workspace.trouble(e.getMessage());
            return;
        }
        boolean there = running.rig().sources().stream()
                .anyMatch(source -> source.setup().address().equals(address));
        if (there) {
            workspace.trouble(Messages.of("workspace.is-one-of-the-sources-already", address));
            return;
        }
        if (records(Messages.of("workspace.a-recording-is-running-stop-it"))) {
            return;
        }
        remember(address);
        workspace.closeTake();
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-source-could-not-be-added"),
                        () -> running.join(name, SourceSetup.at(address)),
                        () -> {
                            workspace.edits().forget();
                            inHand.set(running.rig().sources().size() - 1);
                            workspace.saveSoon();
                        });
    }

    /** Disconnects one of the later sources. */
    public void leave(int source) {
        Trail running = trail;
        if (running == null || source < 1) {
            return;
        }
        if (records(Messages.of("workspace.a-recording-is-running-stop-it"))) {
            return;
        }
        String address = running.rig().sources().get(source).setup().address();
        inHand.set(0);
        workspace.tasks().later(Messages.of("workspace.the-source-could-not-be"), () -> running.leave(source), () -> {
            workspace.edits().forget();
            workspace.saveSoon();
            workspace
                    .notice()
                    .set(new Notice(Messages.of("workspace.disconnected", address), false, () -> join(address)));
        });
    }

    /** Disconnects the sources. */
    public void disconnect() {
        if (trail != null) {
            rig = trail.decided();
            closeTrail();
        }
    }

    /** Ends what runs, where the process is told to end without the window being closed: outputs are made safe, a recording ends whole. Any thread. */
    public void end() {
        Trail running = trail;
        if (running != null) {
            running.close();
        }
    }

    private void closeTrail() {
        Trail old = handOver();
        if (old != null) {
            workspace.tasks().later(Messages.of("workspace.the-source-could-not-be-closed"), old::close, () -> {});
        }
    }

    /** @return the trail, which is the caller's to close; null where none runs */
    Trail handOver() {
        Trail old = trail;
        trail = null;
        marks.clear();
        return old;
    }
}
