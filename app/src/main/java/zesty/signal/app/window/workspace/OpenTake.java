package zesty.signal.app.window.workspace;

import java.nio.file.Path;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.StoredTake;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/**
 * The stored take that is open over the live trail, or none: in the form that is shown, with the changes that are still being
 * worked out. A long one is shown at once and gone through beside what is pressed. JavaFX thread only.
 */
final class OpenTake implements Shown {
    private final BackgroundTasks tasks;
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

    /** Marks that are being kept; null where they are as the take has them. Set aside by the worker where that fails. */
    private volatile List<Mark> marks;

    private int damageTold;

    OpenTake(BackgroundTasks tasks, Consumer<String> trouble) {
        this.tasks = tasks;
        this.trouble = trouble;
    }

    /** @return the file that is open; null for none */
    Path file() {
        return isOpen() ? file : null;
    }

    boolean isOpen() {
        return shown != null;
    }

    @Override
    public Snapshot snapshot(long nanoTime) {
        return shown.snapshot();
    }

    @Override
    public Rig rig() {
        return rig;
    }

    @Override
    public String title() {
        return shown.title();
    }

    @Override
    public String mended() {
        return shown.mended();
    }

    @Override
    public List<Mark> marks() {
        return marks == null ? shown.marks() : marks;
    }

    /** Keeps marks with the take, in the place of those there are. */
    void keep(List<Mark> now) {
        List<Mark> kept =
                now.stream().sorted(Comparator.comparingDouble(Mark::seconds)).toList();
        marks = kept;
        Path to = file;
        workOut(
                () -> {
                    try (Take opened = Take.open(to)) {
                        opened.marks(kept);
                    } catch (TakeException e) {
                        marks = null;
                        throw e;
                    }
                },
                take -> take.marked(kept));
    }

    @Override
    public TimeWindow window() {
        return window;
    }

    @Override
    public boolean isLive() {
        return false;
    }

    @Override
    public double zero(Snapshot snapshot) {
        return 0;
    }

    @Override
    public double newest(Snapshot snapshot, long nanoTime) {
        return snapshot.lastSeconds();
    }

    @Override
    public Span pictured(Snapshot snapshot, double seconds) {
        return new Span(window.from(), window.to());
    }

    @Override
    public void home() {
        window.showAll();
    }

    @Override
    public String levelsOver() {
        return Messages.of("workspace.all");
    }

    @Override
    public String unread() {
        return Messages.of("workspace.not-read-yet");
    }

    /** Opens a take; {@code after} comes when it can be seen. */
    void open(Path wanted, Runnable after) {
        tasks.inOrder(
                Messages.of("workspace.opening-the-take"),
                Messages.of("workspace.the-take-could-not-be-opened"),
                goOn -> StoredTake.open(wanted, goOn),
                made -> {
                    close();
                    shown = made;
                    rig = made.snapshot().rig();
                    file = wanted;
                    handEdits.clear();
                    marks = null;
                    newest.set(made);
                    window.extent(0, made.snapshot().lastSeconds());
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
                            ? Messages.of("workspace.this-take-is-damaged-in-one-place")
                            : Messages.of("workspace.this-take-is-damaged-in-places", damage.size()))
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
        tasks.atLength(
                Messages.of("workspace.processing-the-take"),
                Messages.of("workspace.the-take-could-not-be-gone-through"),
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

    /** Works it out again. */
    @Override
    public void apply(RigChange change) {
        rig = change.onto(rig);
        Rig wanted = rig;
        workOut(() -> {}, take -> take.with(wanted));
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
        workOut(
                () -> {
                    try (Take opened = Take.open(to)) {
                        opened.edit(reader, kept);
                    }
                },
                take -> take.edited(reader, kept));
    }

    /**
     * What is asked for one after the other is done one after the other.
     *
     * @param first is done also when the take has been closed by then: what was decided is kept
     */
    private void workOut(BackgroundTasks.Work first, UnaryOperator<StoredTake> work) {
        Path of = file;
        tasks.fetchTold(
                Messages.of("workspace.recalculating-the-take"),
                Messages.of("workspace.the-take-could-not-be-worked-out"),
                () -> {
                    first.run();
                    StoredTake before = newest.get();
                    if (before == null) {
                        return null;
                    }
                    StoredTake made = work.apply(before);
                    newest.compareAndSet(before, made);
                    return made;
                },
                made -> {
                    if (made != null && shown != null && of.equals(file)) {
                        shown = made;
                        finish();
                    }
                });
    }

    /** Lets it go; the live trail is in the lanes again. */
    void close() {
        StoredTake old = shown;
        shown = null;
        newest.set(null);
        overtaken.set(true);
        if (old != null) {
            tasks.later(Messages.of("workspace.the-take-could-not-be-closed"), old::close, () -> {});
        }
    }
}
