package zesty.signal.engine;

import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.sample.Block;
import zesty.signal.takes.Decision;
import zesty.signal.takes.Mark;

/** A recording that runs or waits to begin. Any thread; it has one of its own. */
interface Recording {
    void start();

    /**
     * Sources' threads.
     *
     * @param mayWait whether the source may be held up until there is room; for others this does not wait, and what
     *     finds no room is counted as lost
     */
    void offer(int source, Block block, boolean mayWait);

    /** A source's stream goes on in another shape. Source's thread. */
    void reshape(int source, StreamFormat now);

    /** @return false when it is over, has not begun, or is too far behind to take it */
    boolean mark(double atSeconds, String text);

    /** Ends the span that the newest mark of that text begins. @return false as {@link #mark} */
    boolean markEnd(double atSeconds, String text);

    /** Keeps what was decided, at seconds of the trail. @return false as {@link #mark} */
    boolean decided(Decision decision);

    /** Changes a mark that was made. @param was null to add one. @param now null to take it out. @return false as {@link #mark} */
    boolean changeMark(Mark was, Mark now);

    /** From here on it ends by another limit, counted from its begin. */
    void limit(RecordingLimit other);

    /** What the readers say by now. The trail's thread. */
    default void readings(Snapshot snapshot) {}

    /** Ends the recording and waits until the take is whole. Not on the window's thread. */
    void stop();

    RecordingSnapshot snapshot();
}
