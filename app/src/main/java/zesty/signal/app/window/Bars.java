package zesty.signal.app.window;

import javafx.scene.Node;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.WhenSeen;
import zesty.signal.app.window.parts.CaptureBar;
import zesty.signal.app.window.parts.CautionBar;
import zesty.signal.app.window.parts.NoticeBar;
import zesty.signal.app.window.parts.ReadingCards;
import zesty.signal.app.window.parts.SafeBar;
import zesty.signal.app.window.parts.Scoreboard;
import zesty.signal.app.window.parts.SnapshotPanel;
import zesty.signal.app.window.parts.TrailBar;
import zesty.signal.app.window.workspace.LimitAlerts;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.engine.Snapshot;

/** What stands around the lanes: the trail with what has to be read above them, the answers at the right, notices and the capture bar below, the scoreboard over all. JavaFX thread. */
final class Bars {
    private final Workspace workspace;
    private final TrailBar trail;
    private final CautionBar caution;
    private final SafeBar safe;
    private final FirstHourBar firstHour;
    private final ReadingCards readings;
    private final SnapshotPanel snapshots;
    private final CaptureBar capture;
    private final Scoreboard scoreboard;
    private final LimitAlerts breaches;
    private final VBox above;
    private final VBox below;
    private final Node over;

    Bars(Workspace workspace, Sheets sheets) {
        this.workspace = workspace;
        trail = new TrailBar(workspace, sheets::toggleList, workspace.view()::nextLook);
        caution = new CautionBar(workspace);
        safe = new SafeBar(workspace);
        firstHour = new FirstHourBar(workspace, sheets::helpWith);
        readings = new ReadingCards(workspace);
        snapshots = new SnapshotPanel(workspace);
        capture = new CaptureBar(workspace);
        scoreboard = new Scoreboard(workspace);
        breaches = new LimitAlerts(workspace);
        above = new VBox(trail, new WhenSeen(caution), new WhenSeen(safe), new WhenSeen(firstHour));
        below = new VBox(new WhenSeen(snapshots), new NoticeBar(workspace), capture);
        over = new WhenSeen(scoreboard);
    }

    Node above() {
        return above;
    }

    Node below() {
        return below;
    }

    Node over() {
        return over;
    }

    TrailBar trail() {
        return trail;
    }

    ReadingCards readings() {
        return readings;
    }

    SnapshotPanel snapshots() {
        return snapshots;
    }

    CaptureBar capture() {
        return capture;
    }

    FirstHourBar firstHour() {
        return firstHour;
    }

    /** Shows what is so now; a few times a second is enough. @param snapshot of what is open; {@code live} of the live trail */
    void show(Snapshot snapshot, Snapshot live) {
        trail.show(snapshot);
        readings.show(snapshot);
        capture.show(live);
        caution.show(live.rig(), !workspace.shown().isLive());
        breaches.look(live);
        workspace.acting().look(live);
        safe.show(live);
        scoreboard.show(live);
        firstHour.show(snapshot, live);
    }
}
