package zesty.signal.app.window.workspace;

import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.application.Platform;
import javafx.beans.binding.Bindings;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.UnitBook;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.RecordingSnapshot;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.Trail;
import zesty.signal.takes.Mark;
import zesty.signal.takes.RigJson;

/**
 * What is open: a running trail or none, a stored take over it or none, the rig, the shelf; and what the maker can do.
 * JavaFX thread only; everything that waits runs on one worker thread and comes back.
 */
public final class Workspace implements AutoCloseable {
    /** What is pulled or captured is not known better than this. */
    private static final int SET_DIGITS = 6;

    private static final Logger LOG = LoggerFactory.getLogger(Workspace.class);

    private final Places places;
    private final Takes takes;
    private final BackgroundTasks tasks = new BackgroundTasks(this::trouble);
    private final ObjectProperty<Stop> stop = new SimpleObjectProperty<>();
    private final BooleanProperty takesOpen = new SimpleBooleanProperty();
    private final StringProperty focus = new SimpleStringProperty("");
    private final IntegerProperty inHand = new SimpleIntegerProperty();
    private final ObjectProperty<Span> span = new SimpleObjectProperty<>(Span.NONE);
    private final ObjectProperty<Cards> cards = new SimpleObjectProperty<>(Cards.FIRST);
    private final ObjectProperty<Look> look = new SimpleObjectProperty<>(Look.DAY);
    private final ObjectProperty<TextSize> textSize = new SimpleObjectProperty<>(TextSize.USUAL);
    private final BooleanProperty night = new SimpleBooleanProperty();
    private final ObjectProperty<Notice> notice = new SimpleObjectProperty<>();
    private final TimeWindow window = new TimeWindow();
    private final Edits edits = new Edits();

    private final Kinds kinds;
    private final Rigs rigs;
    private final DoctorSchedule rounds = new DoctorSchedule(this);
    private final SourceActions wire = new SourceActions(this, () -> this.trail);
    private Trail trail;
    private Rig rig;
    private final OpenTake stored = new OpenTake(tasks, this::trouble);
    private Settings settings;

    public Workspace(Places places, Rig rig, Settings settings) {
        this.places = places;
        this.rig = rig;
        this.settings = settings;
        takes = new Takes(this, places.takes());
        kinds = new Kinds(this, places.kinds());
        rigs = new Rigs(this, places.rigs());
        look.set(settings.look());
        textSize.set(settings.text());
        cards.set(settings.view().cards());
        night.bind(Bindings.createBooleanBinding(() -> look.get().dark(), look));
        focus.addListener((property, was, column) -> inHand.set(rig().sourceOf(column)));
        window.follow(settings.spanSeconds());
    }

    // What there is to see.

    /** @return what the lanes show: the stored take if one is open, else the live trail */
    public Snapshot snapshot(long nanoTime) {
        return stored.isOpen() ? stored.snapshot() : liveSnapshot(nanoTime);
    }

    /** @return the live trail, whether or not a stored take is open over it */
    public Snapshot liveSnapshot(long nanoTime) {
        return trail == null ? Snapshot.nothing(rig) : trail.snapshot(nanoTime);
    }

    /** @return the rig of what the lanes show */
    public Rig rig() {
        return stored.isOpen() ? stored.rig() : trail != null ? trail.rig() : rig;
    }

    /** @return what the maker decided of the live rig, whole, also what does not fit the streams of this moment */
    Rig decided() {
        return trail == null ? rig : trail.decided();
    }

    public boolean isStored() {
        return stored.isOpen();
    }

    /** @return the open take's title and what was mended in it, or the rig's name */
    public String title() {
        return stored.isOpen() ? stored.shown().title() : rig().name();
    }

    /** @return what was mended in the open take, in words; empty otherwise */
    public String mended() {
        return stored.isOpen() ? stored.shown().mended() : "";
    }

    public List<Mark> marks() {
        return stored.isOpen() ? stored.shown().marks() : List.of();
    }

    public TimeWindow window() {
        return stored.isOpen() ? stored.window() : window;
    }

    /** @return what can be done with the bytes of the live source */
    public SourceActions wire() {
        return wire;
    }

    /** @return what can be done with the takes on the shelf */
    public Takes takes() {
        return takes;
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
    public DoctorSchedule rounds() {
        return rounds;
    }

    public ObjectProperty<Stop> stop() {
        return stop;
    }

    public BooleanProperty takesOpen() {
        return takesOpen;
    }

    /** @return the column of the channel in focus; empty for the first one */
    public StringProperty focus() {
        return focus;
    }

    /** @return the stretch that is being measured in the lanes */
    public ObjectProperty<Span> span() {
        return span;
    }

    /** @return how the cards of readings stand */
    public ObjectProperty<Cards> cards() {
        return cards;
    }

    /** @return the set of colours that the window wears */
    public ObjectProperty<Look> look() {
        return look;
    }

    /** @return whether that is one of light on dark; it follows {@link #look()} */
    public ReadOnlyBooleanProperty night() {
        return night;
    }

    /** Puts on the next set of colours. */
    public void nextLook() {
        look.set(look.get().next());
    }

    /** @return how large all words are */
    public ObjectProperty<TextSize> textSize() {
        return textSize;
    }

    /** Makes all words larger by a step; after the largest come the usual ones. */
    public void nextTextSize() {
        textSize.set(textSize.get().next());
    }

    public ObjectProperty<Notice> notice() {
        return notice;
    }

    /** @return the work beside the window's thread */
    public BackgroundTasks tasks() {
        return tasks;
    }

    public Settings settings() {
        return settings;
    }

    public Places places() {
        return places;
    }

    // What can be done.

    /** Runs a trail on the source, in the place of the one that runs. */
    public void connect(String source) {
        try {
            LinkAddress.parse(source);
        } catch (IllegalArgumentException e) {
            trouble(e.getMessage());
            return;
        }
        if (trail != null && trail.recording()) {
            trouble("A recording is running on this source; stop it first.");
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
        settings = settings.withRecent(source);
        stored.close();
        closeTrail();
        trail = Trail.start(rig);
        window.follow(window.span());
        saveSoon();
    }

    /** Works with another rig from here on: its sources are connected in the place of those that run. */
    public void take(Rig chosen) {
        Rig before = decided();
        boolean ran = trail != null;
        if (change(chosen, true)) {
            edits.forget();
            edits.did(new Edits.Edit(
                    "the rig \u201c" + chosen.name() + "\u201d",
                    () -> change(before, ran),
                    () -> change(chosen, true)));
        }
    }

    private boolean change(Rig chosen, boolean run) {
        if (trail != null && trail.recording()) {
            trouble("A recording is running with this rig; stop it first.");
            return false;
        }
        stored.close();
        inHand.set(0);
        closeTrail();
        rig = chosen;
        focus.set("");
        if (run && !chosen.source().isEmpty()) {
            trail = Trail.start(chosen);
            window.follow(window.span());
        }
        saveSoon();
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
            trouble(e.getMessage());
            return;
        }
        boolean there = running.rig().sources().stream()
                .anyMatch(source -> source.setup().address().equals(address));
        if (there) {
            trouble(address + " is one of the sources already.");
            return;
        }
        if (running.recording()) {
            trouble("A recording is running; stop it first. A take keeps the sources it began with.");
            return;
        }
        settings = settings.withRecent(address);
        stored.close();
        tasks.later("the source could not be added", () -> running.join(name, SourceSetup.at(address)), () -> {
            edits.forget();
            inHand.set(running.rig().sources().size() - 1);
            saveSoon();
        });
    }

    /** Lets go of one of the later sources. */
    public void leave(int source) {
        Trail running = trail;
        if (running == null || source < 1) {
            return;
        }
        if (running.recording()) {
            trouble("A recording is running; stop it first. A take keeps the sources it began with.");
            return;
        }
        String address = running.rig().sources().get(source).setup().address();
        inHand.set(0);
        tasks.later("the source could not be disconnected", () -> running.leave(source), () -> {
            edits.forget();
            saveSoon();
            notice.set(new Notice("Disconnected: " + address, false, () -> join(address)));
        });
    }

    /** @return index of the source that the Source and Decode benches are at; follows the focus */
    public IntegerProperty sourceInHand() {
        return inHand;
    }

    /** Lets go of the sources. */
    public void disconnect() {
        if (trail != null) {
            rig = trail.decided();
            closeTrail();
        }
    }

    private void closeTrail() {
        Trail old = trail;
        trail = null;
        if (old != null) {
            tasks.later("the source could not be closed", old::close, () -> {});
        }
    }

    public boolean connected() {
        return trail != null;
    }

    /** Changes the rig of what the lanes show; {@link #undo()} takes it back. */
    public void change(UnaryOperator<Rig> change) {
        Rig before = rig();
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
        edits.did(new Edits.Edit(made.words(), () -> apply(made.reversed()), () -> apply(made)));
        apply(made);
    }

    /** Shows the lanes that were hidden. */
    public void showAllLanes() {
        change(rig -> rig.withChannels(
                rig.channels().stream().map(c -> c.withShown(true)).toList()));
    }

    /** Sets a number of a reader, as it was pulled or captured on its picture; one that cannot be is told. */
    public void set(String reader, String key, double value) {
        set(reader, key, Digits.about(value, SET_DIGITS).replace('\u2212', '-'));
    }

    /** Sets what a picture captured of a reader, as its setting is written; what cannot be is told. */
    public void set(String reader, String key, String text) {
        try {
            ReaderSetup changed = rig().readers().stream()
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

    private void apply(RigChange change) {
        if (stored.isOpen()) {
            stored.change(change);
        } else if (trail != null) {
            trail.change(change);
            saveSoon();
        } else {
            rig = change.onto(rig);
            saveSoon();
        }
    }

    /**
     * Changes an event of a reader of the open take by hand; it is kept with the take. {@link #undo()} takes it back.
     *
     * @param reader its id in the rig
     */
    public void editByHand(String reader, HandEdit edit) {
        if (!stored.isOpen()) {
            trouble("Events are changed by hand in a take: record one and open it.");
            return;
        }
        List<HandEdit> was = stored.edits(reader);
        List<HandEdit> after = new ArrayList<>(was);
        HandEdit opposite = new HandEdit(!edit.in(), edit.seconds());
        if (!after.remove(opposite)) {
            after.add(edit);
        }
        edits.did(new Edits.Edit(
                edit.in() ? "an event put in" : "an event taken out",
                () -> stored.keep(reader, was),
                () -> stored.keep(reader, after)));
        stored.keep(reader, after);
    }

    /** Takes the last change back. */
    public void undo() {
        tell(edits.undo(), "Nothing to take back.", "Taken back: ", ". Shift+U does it again.");
    }

    /** Does again what was taken back last. */
    public void redo() {
        tell(edits.redo(), "Nothing to do again.", "Done again: ", ".");
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

    /** Begins a recording of the live trail. */
    public void record(RecordingLimit limit) {
        Trail running = trail;
        if (running == null) {
            trouble("Nothing to record: connect a source first (key 1).");
            return;
        }
        LocalDateTime now = LocalDateTime.now(ZoneId.systemDefault());
        String title = running.rig().name();
        tasks.later(
                "the recording could not begin",
                () -> running.record(takes.freshFile(now), title, limit, Instant.now()),
                () -> {});
    }

    /** Ends the recording and puts the take on the shelf. */
    public void stopRecording() {
        Trail running = trail;
        if (running == null) {
            return;
        }
        RecordingSnapshot[] last = new RecordingSnapshot[1];
        tasks.later(
                "the recording could not be ended", () -> last[0] = running.stopRecording(), () -> recorded(last[0]));
    }

    /** Tells how a recording ended, whether by hand, by its limit or by trouble. */
    public void recorded(RecordingSnapshot last) {
        if (!last.problem().isEmpty()) {
            trouble(last.problem());
        } else if (last.file() != null) {
            say("Recording saved: " + last.rows() + " samples, "
                    + String.format(java.util.Locale.ROOT, "%.1f s.", last.seconds()));
        }
        takes.list();
    }

    public void mark(String text) {
        if (trail == null || !trail.mark(text, System.nanoTime())) {
            trouble("A mark belongs to a recording: start one first (key R).");
        } else {
            say("Marked: " + text);
        }
    }

    /** Marks this moment if a recording runs, and says nothing of it. */
    void markQuietly(String text) {
        if (trail != null) {
            trail.mark(text, System.nanoTime());
        }
    }

    /** Opens a stored take in the lanes. */
    public void open(Path file) {
        stored.open(file, () -> {
            edits.forget();
            takesOpen.set(false);
            if (stop.get() == Stop.SOURCE) {
                // A take has no bytes to look at: its lanes are what was asked for.
                stop.set(null);
            }
            if (!mended().isEmpty()) {
                say(mended());
            }
        });
    }

    /** Closes the stored take; the live trail is in the lanes again. */
    public void backToLive() {
        stored.close();
        edits.forget();
    }

    public void say(String text) {
        notice.set(new Notice(text, false, null));
    }

    public void trouble(String text) {
        notice.set(new Notice(text, true, null));
    }

    /** Remembers how the window stands. */
    public void remember(Settings changed) {
        settings = Objects.requireNonNull(changed);
    }

    private void saveSoon() {
        Rig now = decided();
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
            String why = e instanceof CharacterCodingException ? file + " is no text" : e.getMessage();
            tell.accept(KeptAside.put(file, places.rigs(), "The rig of the last session does not read: " + why));
        }
        return Rig.blank("My rig", "");
    }

    /** Ends everything; a running recording is completed. Waits for it, up to some seconds. */
    @Override
    public void close() {
        rounds.close();
        stored.close();
        if (tasks.over()) {
            return;
        }
        Rig now = decided();
        Trail old = trail;
        trail = null;
        tasks.close(() -> {
            if (old != null) {
                old.close();
            }
            save(now);
            try {
                settings.save(places.settings());
            } catch (IOException e) {
                LOG.warn("the window's state could not be kept: {}", e.getMessage());
            }
        });
    }

    /** Saves what somebody who is to help wants to see, beside the log. */
    public void saveProblemReport() {
        String moment = LocalDateTime.now().format(DateTimeFormatter.ofPattern("uuuu-MM-dd HH.mm.ss"));
        Path zip = places.logs().resolve("problem " + moment + ".zip");
        Rig now = rig();
        tasks.later(
                "the problem report could not be saved",
                () -> ProblemReport.write(zip, places.logs(), RigJson.write(now)),
                () -> say("Problem report saved: " + zip));
    }

    /** What nobody expected, from whatever thread: it is in the log, and told. */
    public void unexpected(Throwable fault) {
        LOG.error("unexpected", fault);
        Platform.runLater(() -> trouble("Something went wrong inside ("
                + fault.getClass().getSimpleName() + "). What was recorded is kept; Shift+L saves a problem report."));
    }
}
