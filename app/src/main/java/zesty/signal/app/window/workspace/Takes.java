package zesty.signal.app.window.workspace;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDateTime;
import java.util.List;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import zesty.signal.engine.RecordingSnapshot;
import zesty.signal.takes.CsvExport;
import zesty.signal.takes.Shelf;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** What can be done with the takes on the shelf: listing, renaming, removing with undo, exporting. JavaFX thread only. */
public final class Takes {
    private final Workspace workspace;
    private final Shelf shelf;
    private final ReadOnlyObjectWrapper<List<Shelf.Entry>> takes = new ReadOnlyObjectWrapper<>(List.of());

    private final ReadOnlyBooleanWrapper listed = new ReadOnlyBooleanWrapper();

    Takes(Workspace workspace, Path folder) {
        this.workspace = workspace;
        shelf = new Shelf(folder);
    }

    /** @return the takes as they were listed last */
    public ReadOnlyObjectProperty<List<Shelf.Entry>> all() {
        return takes.getReadOnlyProperty();
    }

    /** Any thread. @return a file for a take begun at that time, which is not there yet */
    Path freshFile(LocalDateTime begun) {
        return shelf.freshFile(begun);
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
        workspace.tasks().fetch("the takes could not be listed", () -> shelf.list(running), list -> {
            takes.set(list);
            listed.set(true);
        });
    }

    /** Takes a take off the shelf; the notice's undo brings it back. */
    public void remove(Shelf.Entry entry) {
        Path[] lying = new Path[1];
        workspace.tasks().later("the take could not be removed", () -> lying[0] = shelf.remove(entry.file()), () -> {
            workspace
                    .notice()
                    .set(new Notice("Removed: " + entry.title(), false, () -> restore(lying[0], entry.title())));
            list();
        });
    }

    private void restore(Path lying, String title) {
        workspace.tasks().later("the take could not be put back", () -> shelf.restore(lying), () -> {
            workspace.say("Back on the shelf: " + title);
            list();
        });
    }

    public void rename(Shelf.Entry entry, String title) {
        String before = entry.title();
        workspace.tasks().later("the take could not be renamed", () -> retitle(entry.file(), title), () -> {
            workspace.notice().set(new Notice("Renamed to " + title, false, () -> rename(entry.file(), before)));
            list();
        });
    }

    private void rename(Path file, String title) {
        workspace.tasks().later("the take could not be renamed", () -> retitle(file, title), this::list);
    }

    private static void retitle(Path file, String title) throws TakeException {
        try (Take take = Take.open(file)) {
            take.rename(title);
        }
    }

    /** Writes a take as CSV, with progress and {@link BackgroundTasks#cancel()}. */
    public void export(Path take, Path csv) {
        workspace
                .tasks()
                .atLength(
                        "Exporting to " + csv.getFileName(),
                        "the take could not be exported",
                        goOn -> {
                            try (Take open = Take.open(take)) {
                                boolean whole = CsvExport.write(open, csv, false, goOn);
                                return !whole
                                        ? "Export given up; nothing was written."
                                        : open.damage().isEmpty()
                                                ? "Exported to " + csv
                                                : "Exported to " + csv + ", but the take is damaged: "
                                                        + open.damage().get(0);
                            }
                        },
                        workspace::say);
    }

    /** Makes the demo's takes; nothing that is pressed meanwhile waits for it. */
    public void makeDemo() {
        workspace
                .tasks()
                .atLeisure(
                        "the demo takes could not be made",
                        goOn -> {
                            Files.createDirectories(workspace.places().takes());
                            DemoData.keepBoat(workspace.places().rigs());
                            DemoData.makeTakes(workspace.places().takes(), goOn);
                        },
                        this::list);
    }

    /** Lets go of takes removed long ago. */
    public void tidy() {
        workspace.tasks().later("the shelf could not be tidied", () -> shelf.tidy(Instant.now()), () -> {});
    }
}
