package zesty.signal.app.window.workspace;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.function.Consumer;
import java.util.function.DoublePredicate;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import zesty.signal.app.report.ReportFile;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.Comparison;
import zesty.signal.engine.MainNumbers;
import zesty.signal.engine.OtherRig;
import zesty.signal.engine.Overlay;
import zesty.signal.engine.RecordingSnapshot;
import zesty.signal.engine.SetupDifferences;
import zesty.signal.engine.TakeReport;
import zesty.signal.exchange.JsonExport;
import zesty.signal.exchange.RawView;
import zesty.signal.exchange.TakeExport;
import zesty.signal.exchange.report.Report;
import zesty.signal.takes.CsvExport;
import zesty.signal.takes.LogEntry;
import zesty.signal.takes.Shelf;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** What can be done with the takes on the shelf: listing, renaming, removing with undo, exporting. JavaFX thread only. Longer than others: a small method for each thing that can be done with takes. */
public final class Takes {
    private static final String GIVEN_UP = Messages.of("workspace.export-given-up-nothing-was");

    private boolean reported;
    private final Workspace workspace;
    private final Shelf shelf;
    private final TakeFolders folders;
    private final NewTakes making;
    private final ReadOnlyObjectWrapper<List<Shelf.Entry>> takes = new ReadOnlyObjectWrapper<>(List.of());

    /** Longer takes are read when they are opened. */
    private static final long MOST_BYTES = 40_000_000;

    private static final int FEW = 6;
    private boolean working;
    private final ReadOnlyBooleanWrapper listed = new ReadOnlyBooleanWrapper();

    Takes(Workspace workspace, Path folder) {
        this.workspace = workspace;
        shelf = new Shelf(folder);
        folders = new TakeFolders(shelf, workspace.places().folders());
        making = new NewTakes(workspace, shelf);
    }

    /** @return the takes as they were listed last */
    public ReadOnlyObjectProperty<List<Shelf.Entry>> all() {
        return takes.getReadOnlyProperty();
    }

    /** Any thread. @return a file for a take begun at that time, which is not there yet */
    Path freshFile(LocalDateTime begun) {
        return shelf.freshFile(begun);
    }

    /** @return what makes takes of others and of files from elsewhere */
    public NewTakes making() {
        return making;
    }

    /** @return whether they have been listed at all */
    public ReadOnlyBooleanProperty listed() {
        return listed.getReadOnlyProperty();
    }

    /** Reads the shelf anew. */
    public void list() {
        RecordingSnapshot recording =
                workspace.live().snapshot(System.nanoTime()).recording();
        Path running = recording.running() ? recording.file() : null;
        workspace
                .tasks()
                .fetch(Messages.of("workspace.the-takes-could-not-be-listed"), () -> folders.list(running), list -> {
                    takes.set(list);
                    listed.set(true);
                });
    }

    /** Works out the main numbers of takes that have none yet, a few at a time, beside everything else. */
    public void numbers() {
        List<Shelf.Entry> due = takes.get().stream()
                .filter(one -> one.numbers() == null && one.trouble().isEmpty() && one.bytes() < MOST_BYTES)
                .limit(FEW)
                .toList();
        if (due.isEmpty() || working) {
            return;
        }
        working = true;
        Map<Shelf.Entry, List<String>> worked = new LinkedHashMap<>();
        workspace
                .tasks()
                .atLeisure(
                        Messages.of("workspace.the-takes-numbers-could-not-be"),
                        goOn -> {
                            for (Shelf.Entry one : due) {
                                if (goOn.getAsBoolean()) {
                                    worked.put(one, numbersOf(one));
                                }
                            }
                        },
                        () -> {
                            working = false;
                            workspace
                                    .tasks()
                                    .later(
                                            Messages.of("workspace.the-takes-numbers-could-not-be-2"),
                                            () -> worked.forEach((one, numbers) ->
                                                    folders.of(one.file()).numbers(one, numbers)),
                                            this::list);
                        });
    }

    private static List<String> numbersOf(Shelf.Entry one) {
        try {
            return MainNumbers.of(one.file());
        } catch (TakeException | RuntimeException e) {
            // What is wrong with it is told when it is opened.
            return List.of();
        }
    }

    /** Takes a take off the shelf; the notice's undo brings it back. */
    public void remove(Shelf.Entry entry) {
        Path[] lying = new Path[1];
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-take-could-not-be-removed"),
                        () -> lying[0] = folders.of(entry.file()).remove(entry.file()),
                        () -> {
                            workspace
                                    .notice()
                                    .set(new Notice(
                                            Messages.of("workspace.removed", entry.title()),
                                            false,
                                            () -> restore(lying[0], entry.title())));
                            list();
                        });
    }

    private void restore(Path lying, String title) {
        workspace
                .tasks()
                .later(Messages.of("workspace.the-take-could-not-be-put-back"), () -> folders.restore(lying), () -> {
                    workspace.say(Messages.of("workspace.back-on-the-shelf", title));
                    list();
                });
    }

    public void rename(Shelf.Entry entry, String title) {
        String before = entry.title();
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-take-could-not-be-renamed"),
                        () -> retitle(entry.file(), title),
                        () -> {
                            workspace
                                    .notice()
                                    .set(new Notice(
                                            Messages.of("workspace.renamed-to", title),
                                            false,
                                            () -> rename(entry.file(), before)));
                            list();
                        });
    }

    private void rename(Path file, String title) {
        workspace
                .tasks()
                .later(Messages.of("workspace.the-take-could-not-be-renamed"), () -> retitle(file, title), this::list);
    }

    private static void retitle(Path file, String title) throws TakeException {
        try (Take take = Take.open(file)) {
            take.rename(title);
        }
    }

    /** Writes a take in the format that the file's name ends in, with progress and {@link BackgroundTasks#cancel()}. */
    public void export(Path take, Path to) {
        workspace
                .tasks()
                .atLength(
                        Messages.of("workspace.exporting-to", to.getFileName()),
                        Messages.of("workspace.the-take-could-not-be-exported"),
                        goOn -> {
                            try (Take open = Take.open(take)) {
                                return exported(open, to, goOn);
                            }
                        },
                        workspace::say);
    }

    private static String exported(Take open, Path to, DoublePredicate goOn) throws TakeException {
        List<String> said = List.of();
        if (TakeExport.Format.of(to).orElse(null) == TakeExport.Format.CSV) {
            if (!CsvExport.write(open, to, false, goOn)) {
                return GIVEN_UP;
            }
        } else {
            try {
                said = TakeExport.write(
                        open, new RawView(open, column -> true), to, false, JsonExport.NO_READINGS, goOn);
            } catch (CancellationException e) {
                return GIVEN_UP;
            }
        }
        return Messages.of(
                "workspace.exported-to",
                to,
                (open.damage().isEmpty()
                        ? ""
                        : Messages.of(
                                "workspace.but-the-take-is-damaged",
                                open.damage().get(0))),
                (said.isEmpty() ? "" : ". " + String.join(". ", said)));
    }

    /** Writes what is told of a take into it; the notice's undo takes it out again. */
    public void write(Shelf.Entry entry, LogEntry added, LogEntry undo) {
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-take-could-not-be-written-to"),
                        () -> put(entry.file(), added),
                        () -> {
                            if (undo != null) {
                                workspace
                                        .notice()
                                        .set(new Notice(
                                                Messages.of("workspace.written-into", entry.title()),
                                                false,
                                                () -> write(entry, undo, null)));
                            }
                            list();
                        });
    }

    private static void put(Path file, LogEntry entry) throws TakeException {
        try (Take take = Take.open(file)) {
            take.write(entry);
        }
    }

    /** Puts other notes in the place of a take's; the notice's undo brings those back. */
    public void notes(Shelf.Entry entry, String text) {
        String before = entry.notes();
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-notes-could-not-be-written"),
                        () -> putNotes(entry.file(), text),
                        () -> {
                            workspace
                                    .notice()
                                    .set(new Notice(
                                            Messages.of("workspace.notes-kept-in", entry.title()),
                                            false,
                                            () -> putBack(entry.file(), before)));
                            list();
                        });
    }

    private void putBack(Path file, String notes) {
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-notes-could-not-be-written"),
                        () -> putNotes(file, notes),
                        this::list);
    }

    private static void putNotes(Path file, String notes) throws TakeException {
        try (Take take = Take.open(file)) {
            take.notes(notes);
        }
    }

    /** Hands on how the folders stand that takes are looked for in. */
    public void folders(Consumer<List<TakeFolders.State>> then) {
        workspace.tasks().fetch(Messages.of("workspace.the-folders-could-not-be-listed"), folders::states, then);
    }

    /** Looks for takes in another folder, too. */
    public void addFolder(Path folder, Runnable then) {
        changeFolders(() -> folders.add(folder), then);
    }

    /** Looks for takes in a folder no longer; it stays as it is. */
    public void removeFolder(Path folder, Runnable then) {
        changeFolders(() -> folders.remove(folder), then);
    }

    private void changeFolders(BackgroundTasks.Work change, Runnable then) {
        workspace.tasks().later(Messages.of("workspace.the-list-of-folders-could-not-be"), change, () -> {
            list();
            then.run();
        });
    }

    /** Hands on what was removed and can be put back. */
    public void removed(Consumer<List<Shelf.Removed>> then) {
        workspace.tasks().fetch(Messages.of("workspace.the-bin-could-not-be-looked-into"), folders::removed, then);
    }

    /** Puts a removed take back on the shelf. */
    public void putBack(Shelf.Removed one, Runnable then) {
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-take-could-not-be-put-back"),
                        () -> folders.restore(one.file()),
                        () -> {
                            list();
                            then.run();
                        });
    }

    /** Deletes these removed takes for good. */
    public void emptyBin(List<Shelf.Removed> removed, Runnable then) {
        workspace
                .tasks()
                .later(Messages.of("workspace.the-bin-could-not-be-emptied"), () -> folders.letGo(removed), then);
    }

    /** Hands on the same channel of these takes over one another, with progress and {@link BackgroundTasks#cancel()}. */
    public void overlay(List<Path> files, String channel, Overlay.From from, Consumer<Overlay> then) {
        workspace
                .tasks()
                .atLength(
                        Messages.of("workspace.laying-the-takes-over-one-another"),
                        Messages.of("workspace.the-takes-could-not-be-laid-over"),
                        goOn -> Overlay.of(files, channel, from, goOn),
                        then);
    }

    /** Hands on the numbers of a take with its own rig and with another one. */
    public void reworked(Path file, Rig other, Consumer<Report.Table> then) {
        workspace
                .tasks()
                .fetch(Messages.of("workspace.the-take-could-not-be-worked-out"), () -> OtherRig.of(file, other), then);
    }

    /** Works out what a page about these takes says, and hands it on. */
    public void read(List<Path> files, Consumer<Report> then) {
        workspace
                .tasks()
                .fetch(
                        Messages.of("workspace.the-takes-could-not-be-read"),
                        () -> TakeReport.of(files, Instant.now()),
                        then);
    }

    /** Hands on the readers that the rigs of all these takes have. */
    public void commonReaders(List<Path> files, Consumer<List<ReaderSetup>> then) {
        workspace.tasks().fetch(Messages.of("workspace.the-takes-could-not-be-read"), () -> common(files), then);
    }

    private static List<ReaderSetup> common(List<Path> files) throws TakeException {
        List<ReaderSetup> common = null;
        for (Path file : files) {
            try (Take take = Take.open(file)) {
                List<ReaderSetup> own = take.rigOrPlain().readers();
                if (common == null) {
                    common = new ArrayList<>(own);
                } else {
                    common.removeIf(
                            one -> own.stream().noneMatch(other -> other.id().equals(one.id())));
                }
            }
        }
        return common == null ? List.of() : common;
    }

    /** Hands on how the setups of these takes differ, a sentence each. */
    public void setups(List<Path> files, Consumer<List<String>> then) {
        workspace
                .tasks()
                .fetch(
                        Messages.of("workspace.the-takes-could-not-be-compared"),
                        () -> SetupDifferences.of(files),
                        then);
    }

    /** Reads the same of all these takes, and hands the answers on. */
    public void compare(List<Path> files, ReaderSetup reader, Consumer<Comparison> then) {
        workspace
                .tasks()
                .fetch(
                        Messages.of("workspace.the-takes-could-not-be-compared"),
                        () -> Comparison.of(
                                files, reader.kind(), reader.columns(), reader.settings(), Comparison.Part.ALL),
                        then);
    }

    /** @return whether a page about takes was written since the start */
    public boolean reported() {
        return reported;
    }

    /** Writes a page about these takes. @param to ends in .pdf or .html */
    public void report(List<Path> files, Path to) {
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-report-could-not-be-written"),
                        () -> ReportFile.write(TakeReport.of(files, Instant.now()), to, false),
                        () -> {
                            reported = true;
                            workspace.say(Messages.of("workspace.report-written", to));
                        });
    }

    /** Makes the demo's takes; nothing that is pressed meanwhile waits for it. */
    public void makeDemo() {
        workspace
                .tasks()
                .atLeisure(
                        Messages.of("workspace.the-demo-takes-could-not-be-made"),
                        goOn -> {
                            Files.createDirectories(workspace.places().takes());
                            DemoData.keepBoat(workspace.places().rigs());
                            DemoData.makeTakes(workspace.places().takes(), goOn);
                        },
                        this::list);
    }

    /** Lets go of takes removed long ago. */
    public void tidy() {
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-shelf-could-not-be-tidied"),
                        () -> shelf.tidy(Instant.now()),
                        () -> {});
    }
}
