package zesty.signal.app.window.desk;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.engine.Sight;
import zesty.signal.engine.StoredTake;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/**
 * The stored take that is open over the live trail, or none: in the form that is shown, with the changes that are still being
 * worked out. A long one is shown at once and gone through beside what is pressed. JavaFX thread only.
 */
final class OpenTake {
    private final Works works;
    /** Hears, in words, of what of the take does not check. */
    private final Consumer<String> trouble;

    private final TimeWindow window = new TimeWindow();
    private StoredTake shown;
    /** The take's rig with all that was changed, also what is still being worked out. */
    private Rig rig;

    private Path file;
    /** The newest form; the worker's. */
    private final AtomicReference<StoredTake> newest = new AtomicReference<>();
    /** What is being kept of changes made by hand; the worker may not have come to them yet. */
    private final Map<String, List<HandEdit>> handEdits = new HashMap<>();
    /** Whether the newest going-through has been overtaken. */
    private AtomicBoolean overtaken = new AtomicBoolean();

    private int damageTold;

    OpenTake(Works works, Consumer<String> trouble) {
        this.works = works;
        this.trouble = trouble;
    }

    boolean isOpen() {
        return shown != null;
    }

    StoredTake shown() {
        return shown;
    }

    Sight sight() {
        return shown.sight();
    }

    Rig rig() {
        return rig;
    }

    TimeWindow window() {
        return window;
    }

    /** Opens a take; {@code after} comes when it can be seen. */
    void open(Path wanted, Runnable after) {
        works.inOrder(
                "Opening the take", "the take could not be opened", goOn -> StoredTake.open(wanted, goOn), made -> {
                    close();
                    shown = made;
                    rig = made.sight().rig();
                    file = wanted;
                    handEdits.clear();
                    newest.set(made);
                    window.extent(0, made.sight().lastSeconds());
                    window.showAll();
                    damageTold = 0;
                    after.run();
                    tellDamage();
                    finish();
                });
    }

    private void tellDamage() {
        List<String> damage = shown.damage();
        if (damage.size() > damageTold) {
            trouble.accept((damage.size() == 1
                            ? "This take is damaged in one place, which is left out: "
                            : "This take is damaged in " + damage.size() + " places, which are left out; the first: ")
                    + damage.get(0) + ".");
        }
        damageTold = damage.size();
    }

    /** Draws and reads what is not yet, unless something else is asked for before. */
    private void finish() {
        overtaken.set(true);
        StoredTake begun = shown;
        if (begun.finished()) {
            return;
        }
        AtomicBoolean late = new AtomicBoolean();
        overtaken = late;
        works.atLength(
                "Going through the take",
                "the take could not be gone through",
                goOn -> {
                    try {
                        return begun.finish(share -> !late.get() && goOn.test(share));
                    } catch (CancellationException e) {
                        if (late.get()) {
                            return begun;
                        }
                        throw e;
                    }
                },
                made -> {
                    if (shown == begun && made != begun) {
                        shown = made;
                        newest.compareAndSet(begun, made);
                        tellDamage();
                    }
                });
    }

    /** Works it out again with a changed rig. */
    void change(RigChange change) {
        rig = change.onto(rig);
        Rig wanted = rig;
        workOut(take -> take.with(wanted));
    }

    /** @return the changes made by hand to a reader's events, with those that are being kept */
    List<HandEdit> edits(String reader) {
        return handEdits.getOrDefault(reader, shown.edits(reader));
    }

    /** Keeps changes made by hand with the take, and reads it with them. */
    void keep(String reader, List<HandEdit> edits) {
        List<HandEdit> kept = List.copyOf(edits);
        handEdits.put(reader, kept);
        Path to = file;
        workOut(take -> {
            try (Take opened = Take.open(to)) {
                opened.edit(reader, kept);
            }
            return take.edited(reader, kept);
        });
    }

    /** Work on a stored take that may fail. */
    @FunctionalInterface
    private interface TakeWork {
        StoredTake of(StoredTake take) throws TakeException;
    }

    /** What is asked for one after the other is done one after the other. */
    private void workOut(TakeWork work) {
        Path of = file;
        works.fetchTold(
                "Working the take out again",
                "the take could not be worked out",
                () -> {
                    StoredTake made = work.of(newest.get());
                    newest.set(made);
                    return made;
                },
                made -> {
                    if (shown != null && of.equals(file)) {
                        shown = made;
                        finish();
                    }
                });
    }

    /** Lets it go; the live trail is in the lanes again. */
    void close() {
        StoredTake old = shown;
        shown = null;
        overtaken.set(true);
        if (old != null && old.isLong()) {
            works.later("the take could not be closed", old::close, () -> {});
        }
    }
}
