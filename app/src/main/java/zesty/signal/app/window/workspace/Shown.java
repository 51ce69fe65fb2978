package zesty.signal.app.window.workspace;

import java.util.List;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.engine.Snapshot;
import zesty.signal.takes.Mark;

/** What the lanes and benches show: the live trail, or a take. JavaFX thread only. */
public sealed interface Shown permits LiveTrail, OpenTake {
    Snapshot snapshot(long nanoTime);

    /** @return the rig that it is shown with */
    Rig rig();

    /** @return what it is called */
    String title();

    /** @return what was repaired in it, in words; empty for nothing */
    String mended();

    List<Mark> marks();

    TimeWindow window();

    /** @return whether samples go on arriving */
    boolean isLive();

    /** @return the moment that times on screen count from, in s of its time line: the newest one, or its beginning */
    double zero(Snapshot snapshot);

    /** @return up to when there is something to see, in s of its time line */
    double newest(Snapshot snapshot, long nanoTime);

    /**
     * @param seconds how much of the newest a picture has room for
     * @return the part of it that a bench's picture shows: the newest, or of a take what is in sight
     */
    Span pictured(Snapshot snapshot, double seconds);

    /** Goes to the usual view of it. */
    void home();

    /** @return what its levels are taken over, in words: "10 s", or "all" */
    String levelsOver();

    /** @return why there is no number yet, in words */
    String unread();

    /** Shows it with a changed rig, which is kept as far as it can be. */
    void apply(RigChange change);
}
