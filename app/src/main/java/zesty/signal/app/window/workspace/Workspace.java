package zesty.signal.app.window.workspace;

import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.application.Platform;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.app.wording.Language;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.UnitBook;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.Trail;
import zesty.signal.takes.Mark;
import zesty.signal.takes.RigJson;

/**
 * What is open, a take over the live trail or none, with what can be done with it; and the way to everything else the window
 * works with. JavaFX thread only; everything that waits runs on one worker thread and comes back. Longer than others: it is the one door to what the window works with.
 */
public final class Workspace implements AutoCloseable {
    /** What is pulled or captured is not known better than this. */
    private static final int SET_DIGITS = 6;

    private static final Logger LOG = LoggerFactory.getLogger(Workspace.class);

    private final Places places;
    private final BackgroundTasks tasks = new BackgroundTasks(this::trouble);
    private final WindowState view;
    private final LiveTrail live;
    private final OpenTake stored = new OpenTake(tasks, this::trouble);
    private final Takes takes;
    private final SnapshotTable snapshots;
    private final Kinds kinds;
    private final Rigs rigs;
    private final Recordings recordings;
    private final SourceActions sourceActions;
    private final Acting acting;
    private final Planning planning;
    private final Sharing sharing;
    private final DoctorSchedule doctor = new DoctorSchedule(this);
    private final Edits edits = new Edits();
    private final ObjectProperty<Notice> notice = new SimpleObjectProperty<>();

    public Workspace(Places places, Rig rig, Settings settings) {
        this.places = places;
        view = new WindowState(settings);
        live = new LiveTrail(this, rig, settings.spanSeconds());
        takes = new Takes(this, places.takes());
        snapshots = new SnapshotTable(this);
        kinds = new Kinds(this, places.kinds());
        rigs = new Rigs(this, places.rigs());
        recordings = new Recordings(this, live::running);
        sourceActions = new SourceActions(this, live::running);
        acting = new Acting(this, live::running);
        planning = new Planning(this, places.plans());
        sharing = new Sharing(this);
        view.focus().addListener((property, was, column) -> live.sourceInHand()
                .set(shown().rig().sourceOf(column)));
    }

    // What there is to see.

    /** @return what the lanes and benches show: the open take, else the live trail */
    public Shown shown() {
        return stored.isOpen() ? stored : live;
    }

    /** @return the live trail, whether or not a take is open over it */
    public LiveTrail live() {
        return live;
    }

    /** @return how the window stands */
    public WindowState view() {
        return view;
    }

    /** @return what can be done about recording */
    public Recordings recordings() {
        return recordings;
    }

    /** @return what can be done with the bytes of the live source */
    public SourceActions sourceActions() {
        return sourceActions;
    }

    public Planning planning() {
        return planning;
    }

    public Sharing sharing() {
        return sharing;
    }

    /** @return what can be done about rules and outputs */
    public Acting acting() {
        return acting;
    }

    /** @return what can be done with the takes on the shelf */
    public Takes takes() {
        return takes;
    }

    /** @return the table of snapshots that grows by a press */
    public SnapshotTable snapshots() {
        return snapshots;
    }

    /** @return the library of sensor kinds */
    public Kinds kinds() {
        return kinds;
    }

    /** @return the rigs that the maker kept */
    public Rigs rigs() {
        return rigs;
    }

    /** @return what the signal doctor finds */
    public DoctorSchedule doctor() {
        return doctor;
    }

    public ObjectProperty<Notice> notice() {
        return notice;
    }

    /** @return the work beside the window's thread */
    public BackgroundTasks tasks() {
        return tasks;
    }

    public Places places() {
        return places;
    }

    // What can be done.

    /** Changes the rig of what the lanes show; {@link #undo()} takes it back. */
    public void change(UnaryOperator<Rig> change) {
        Rig before = shown().rig();
        Rig after;
        try {
            after = change.apply(before);
        } catch (IllegalArgumentException e) {
            trouble(e.getMessage());
            return;
        }
        RigChange made = RigChange.between(before, after);
        if (made.isNothing()) {
            return;
        }
        edits.did(new Edits.Edit(made.words(), () -> shown().apply(made.reversed()), () -> shown().apply(made)));
        shown().apply(made);
    }

    /** Shows the lanes that were hidden. */
    public void showAllLanes() {
        change(rig -> rig.withChannels(
                rig.channels().stream().map(c -> c.withShown(true)).toList()));
    }

    /** Sets a number of a reader, as it was pulled or captured on its picture; one that cannot be is told. */
    public void set(String reader, String key, double value) {
        set(reader, key, Digits.exact(Digits.rounded(value, SET_DIGITS)));
    }

    /** Sets what a picture captured of a reader, as its setting is written; what cannot be is told. */
    public void set(String reader, String key, String text) {
        try {
            ReaderSetup changed = shown().rig().readers().stream()
                    .filter(one -> one.id().equals(reader))
                    .findFirst()
                    .map(one -> one.with(key, text))
                    .orElse(null);
            if (changed != null) {
                change(rig -> rig.withReader(changed));
            }
        } catch (ReaderException e) {
            trouble(e.getMessage());
        }
    }

    /** Shows a channel in the next of the units that its quantity is wanted in; the data stays as it is. */
    public void nextUnit(String column) {
        change(rig -> rig.withChannel(column, channel -> {
            List<String> units = UnitBook.alternatives(channel.scaling().unit());
            int next = (units.indexOf(channel.unit()) + 1) % units.size();
            return channel.withShownIn(next == 0 ? "" : units.get(next));
        }));
    }

    /**
     * Changes an event of a reader of the open take by hand; it is kept with the take. {@link #undo()} takes it back.
     *
     * @param reader its id in the rig
     */
    public void editByHand(String reader, HandEdit edit) {
        if (!stored.isOpen()) {
            trouble(Messages.of("workspace.events-are-changed-by-hand-in-a"));
            return;
        }
        List<HandEdit> was = stored.edits(reader);
        List<HandEdit> after = new ArrayList<>(was);
        HandEdit opposite = new HandEdit(!edit.in(), edit.seconds());
        if (!after.remove(opposite)) {
            after.add(edit);
        }
        edits.did(new Edits.Edit(
                edit.in() ? Messages.of("workspace.an-event-put-in") : Messages.of("workspace.an-event-taken-out"),
                () -> stored.keep(reader, was),
                () -> stored.keep(reader, after)));
        stored.keep(reader, after);
    }

    /**
     * Puts other marks in the place of those of the open take; {@link #undo()} takes it back.
     *
     * @param words what changes, such as "a marker moved"
     */
    public void marks(List<Mark> now, String words) {
        if (!stored.isOpen()) {
            trouble(Messages.of("workspace.markers-are-changed-in-a-take-stop"));
            return;
        }
        List<Mark> was = stored.marks();
        edits.did(new Edits.Edit(words, () -> stored.keep(was), () -> stored.keep(now)));
        stored.keep(now);
        say(Messages.of("workspace.changed-u-takes-it-back", words));
    }

    /**
     * Changes one marker of what is shown, of the take or of the recording that runs; {@link #undo()} takes it back.
     *
     * @param now null to take it out
     * @param words what changes, such as "a marker moved"
     */
    public void remark(Mark was, Mark now, String words) {
        if (stored.isOpen()) {
            List<Mark> marks = new ArrayList<>(stored.marks());
            if (marks.remove(was)) {
                if (now != null) {
                    marks.add(now);
                }
                marks(marks, words);
            }
        } else if (recordings.change(was, now)) {
            edits.did(new Edits.Edit(words, () -> recordings.change(now, was), () -> recordings.change(was, now)));
            say(Messages.of("workspace.changed-u-takes-it-back", words));
        }
    }

    /** Marks a part of the open take as a span, under a name of its own. */
    public void markSpan(Span span) {
        List<Mark> marks = new ArrayList<>(shown().marks());
        int n = 1;
        for (int i = 0; i < marks.size(); i++) {
            n += marks.get(i).text().matches("span \\d+") ? 1 : 0;
        }
        double last = shown().snapshot(System.nanoTime()).lastSeconds();
        marks.add(new Mark(Math.max(0, span.from()), Math.min(last, span.to()), "span " + n));
        marks(marks, Messages.of("workspace.a-span-marked"));
    }

    /** Takes the last change back. */
    public void undo() {
        tell(
                edits.undo(),
                Messages.of("workspace.nothing-to-take-back"),
                Messages.of("workspace.taken-back"),
                Messages.of("workspace.shift-u-does-it-again"));
    }

    /** Does again what was taken back last. */
    public void redo() {
        tell(edits.redo(), Messages.of("workspace.nothing-to-do-again"), Messages.of("workspace.done-again"), ".");
    }

    private void tell(Edits.Step step, String none, String before, String after) {
        switch (step.outcome()) {
            case DONE -> say(before + step.words() + after);
            case NOTHING_THERE -> say(none);
            case REFUSED -> {
                // Why has been said.
            }
        }
    }

    /** Opens a stored take in the lanes. */
    public void open(Path file) {
        stored.open(file, () -> {
            edits.forget();
            view.takesOpen().set(false);
            if (view.stop().get() == Stop.SOURCE) {
                // A take has no bytes to look at: its lanes are what was asked for.
                view.stop().set(null);
            }
            if (!stored.mended().isEmpty()) {
                say(stored.mended());
            }
        });
    }

    /** Makes a take of its own of a part of the open take. */
    public void trim(Span span) {
        Path file = stored.file();
        if (file != null && span.whole()) {
            takes.making().trim(file, span);
        }
    }

    /** Closes the stored take; the live trail is in the lanes again. */
    public void backToLive() {
        stored.close();
        edits.forget();
    }

    /** Closes the open take, if one is, for something else that the lanes are to show. */
    void closeTake() {
        stored.close();
    }

    Edits edits() {
        return edits;
    }

    public void say(String text) {
        notice.set(new Notice(text, false, null));
    }

    public void trouble(String text) {
        notice.set(new Notice(text, true, null));
    }

    void saveSoon() {
        Rig now = live.decided();
        tasks.quietly(() -> save(now));
    }

    private void save(Rig now) {
        try {
            Files.createDirectories(places.home());
            Settings.writeWhole(places.lastRig(), RigJson.write(now));
        } catch (IOException e) {
            LOG.warn("the rig could not be kept: {}", e.getMessage());
        }
    }

    /**
     * @param tell is told when the file does not read; it is kept among the rigs then, where it can be opened once it does
     * @return the rig of the last session; a blank one when there is none or it does not read
     */
    public static Rig lastRig(Places places, Consumer<String> tell) {
        Path file = places.lastRig();
        try {
            if (Files.exists(file)) {
                return RigJson.read(Files.readString(file), file.toString());
            }
        } catch (IOException e) {
            String why =
                    e instanceof CharacterCodingException ? Messages.of("workspace.is-no-text", file) : e.getMessage();
            tell.accept(
                    KeptAside.put(file, places.rigs(), Messages.of("workspace.the-rig-of-the-last-session-does", why)));
        }
        return Rig.blank(Messages.of("workspace.my-rig"), "");
    }

    /** Ends everything; a running recording is completed. Waits for it, up to some seconds. */
    @Override
    public void close() {
        sharing.close();
        sharing.stopPublishing();
        doctor.close();
        stored.close();
        if (tasks.over()) {
            return;
        }
        Rig now = live.decided();
        Trail old = live.handOver();
        tasks.close(() -> {
            if (old != null) {
                old.close();
            }
            snapshots.complete();
            save(now);
            try {
                view.settings().save(places.settings());
            } catch (IOException e) {
                LOG.warn("the window's state could not be kept: {}", e.getMessage());
            }
        });
    }

    /**
     * Gathers what a problem report would hold.
     *
     * @param stream whether the last half minute of the stream goes along
     * @param then is told its parts, by the names of their files
     */
    public void gatherProblemReport(boolean stream, Consumer<Map<String, String>> then) {
        Rig now = shown().rig();
        Snapshot live = live().snapshot(System.nanoTime());
        tasks.fetch(
                Messages.of("workspace.the-problem-report-could-not-be"),
                () -> ProblemReport.parts(
                        places.logs(), RigJson.write(now), stream ? ProblemReport.stream(live) : Map.of()),
                then);
    }

    /** Saves a problem report of these parts. */
    public void saveProblemReport(Map<String, String> parts) {
        String moment = LocalDateTime.now().format(DateTimeFormatter.ofPattern("uuuu-MM-dd HH.mm.ss"));
        Path zip = places.logs().resolve("problem " + moment + ".zip");
        tasks.later(
                Messages.of("workspace.the-problem-report-could-not-be"),
                () -> ProblemReport.write(zip, parts),
                () -> say(Messages.of("workspace.problem-report-saved", zip)));
    }

    /** Chooses the other language, for the next start: what is on screen was made in this one. */
    public void nextLanguage() {
        Path kept = places.language();
        Locale next = Language.next(kept);
        tasks.later(
                Messages.of("workspace.the-language-could-not-be-kept"),
                () -> Settings.writeWhole(kept, next.getLanguage()),
                () -> say(Messages.in(next, "workspace.language-from-the-next-start")));
    }

    /** What nobody expected, from whatever thread: it is in the log, and told. */
    public void unexpected(Throwable fault) {
        LOG.error("unexpected", fault);
        Platform.runLater(() -> trouble(Messages.of(
                "workspace.something-went-wrong-inside-what", fault.getClass().getSimpleName())));
    }
}
