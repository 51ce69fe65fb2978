package zesty.signal.app.window.workspace;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.function.BooleanSupplier;

/** What was changed last, each with its words and the ways back and forth. No toolkit in it; one thread. */
final class Edits {
    private static final int MOST = 50;

    private final Deque<Edit> done = new ArrayDeque<>();
    private final Deque<Edit> takenBack = new ArrayDeque<>();

    /**
     * A change that can be taken back.
     *
     * @param words what it changed, such as "cleaning of Heel"
     * @param back and again: the ways back and forth; false when that cannot be now, which they say themselves
     */
    record Edit(String words, BooleanSupplier back, BooleanSupplier again) {
        Edit(String words, Runnable back, Runnable again) {
            this(words, always(back), always(again));
        }

        private static BooleanSupplier always(Runnable way) {
            return () -> {
                way.run();
                return true;
            };
        }
    }

    /** What came of an undo or a redo. */
    enum Outcome {
        DONE,
        NOTHING_THERE,
        /** It stays where it was; why has been said. */
        REFUSED
    }

    /**
     * An undo or a redo.
     *
     * @param words of the change; empty unless it was done
     */
    record Step(Outcome outcome, String words) {}

    /** Notes what was just done; what was taken back before cannot be done again after it. */
    void did(Edit edit) {
        takenBack.clear();
        done.addLast(edit);
        if (done.size() > MOST) {
            done.removeFirst();
        }
    }

    /** Takes the last change back. */
    Step undo() {
        return move(done, takenBack, true);
    }

    /** Does again what was taken back last. */
    Step redo() {
        return move(takenBack, done, false);
    }

    private static Step move(Deque<Edit> from, Deque<Edit> to, boolean back) {
        Edit edit = from.peekLast();
        if (edit == null) {
            return new Step(Outcome.NOTHING_THERE, "");
        }
        if (!(back ? edit.back() : edit.again()).getAsBoolean()) {
            return new Step(Outcome.REFUSED, "");
        }
        from.removeLast();
        to.addLast(edit);
        return new Step(Outcome.DONE, edit.words());
    }

    /** What was done belongs to something that is gone. */
    void forget() {
        done.clear();
        takenBack.clear();
    }
}
