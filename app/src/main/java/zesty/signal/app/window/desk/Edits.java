package zesty.signal.app.window.desk;

import java.util.ArrayDeque;
import java.util.Deque;

/** What was changed last, each with its words and the ways back and forth. No toolkit in it; one thread. */
final class Edits {
    private static final int MOST = 50;

    private final Deque<Edit> done = new ArrayDeque<>();
    private final Deque<Edit> takenBack = new ArrayDeque<>();

    /**
     * A change that can be taken back.
     *
     * @param words what it changed, such as "cleaning of Heel"
     */
    record Edit(String words, Runnable back, Runnable again) {}

    /** Notes what was just done; what was taken back before cannot be done again after it. */
    void did(Edit edit) {
        takenBack.clear();
        done.addLast(edit);
        if (done.size() > MOST) {
            done.removeFirst();
        }
    }

    /** Takes the last change back. @return its words; null when there is none */
    String undo() {
        Edit edit = done.pollLast();
        if (edit == null) {
            return null;
        }
        edit.back().run();
        takenBack.addLast(edit);
        return edit.words();
    }

    /** Does again what was taken back last. @return its words; null when there is none */
    String redo() {
        Edit edit = takenBack.pollLast();
        if (edit == null) {
            return null;
        }
        edit.again().run();
        done.addLast(edit);
        return edit.words();
    }

    /** What was done belongs to something that is gone. */
    void forget() {
        done.clear();
        takenBack.clear();
    }
}
