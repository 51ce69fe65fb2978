package zesty.signal.app.window.workspace;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.stream.Stream;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.NewFile;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.TakeException;

/** The rigs that the maker named and kept, each a JSON file to share. JavaFX thread only. */
public final class Rigs {
    private final Workspace workspace;
    private final Path folder;

    Rigs(Workspace workspace, Path folder) {
        this.workspace = workspace;
        this.folder = folder;
    }

    /** A rig that is kept. */
    public record Kept(String name, Path file) {}

    /** Looks what is kept; a file that somebody shared only needs to be put into the folder. */
    public void list(Consumer<List<Kept>> after) {
        workspace.tasks().fetch(Messages.of("workspace.the-rigs-could-not-be-listed"), this::look, after);
    }

    private List<Kept> look() throws IOException {
        List<Kept> kept = new ArrayList<>();
        if (Files.isDirectory(folder)) {
            try (Stream<Path> files = Files.list(folder)) {
                for (Path file : files.filter(f -> f.toString().endsWith(".json"))
                        .sorted()
                        .toList()) {
                    try {
                        kept.add(new Kept(read(file).name(), file));
                    } catch (TakeException e) {
                        kept.add(new Kept(Messages.of("workspace.does-not-read", file.getFileName()), file));
                    }
                }
            }
        }
        return kept;
    }

    private static Rig read(Path file) throws IOException, TakeException {
        return RigJson.read(Files.readString(file), file.toString());
    }

    private Path fileOf(String name) {
        String plain = name.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "-");
        return folder.resolve(plain + ".json");
    }

    /** Saves a rig that is not the one in the lanes; one of that name is not written over. */
    void keep(Rig rig) {
        Path file = fileOf(rig.name());
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-rig-could-not-be-saved"),
                        () -> {
                            Files.createDirectories(folder);
                            try (NewFile made = NewFile.begin(file, false)) {
                                made.stream().write(RigJson.write(rig).getBytes(StandardCharsets.UTF_8));
                                made.keep();
                            }
                        },
                        () -> workspace.say(Messages.of("workspace.rig-saved-it-is-in-the-list-of", rig.name())));
    }

    /** Gives the rig another name. {@link Workspace#undo()} takes it back. */
    public void rename(String name) {
        if (named(name)) {
            workspace.change(rig -> rig.withName(name.strip()));
        }
    }

    private boolean named(String name) {
        if (name.isBlank()) {
            workspace.trouble(Messages.of("workspace.a-rig-needs-a-name-such-as-wren"));
            return false;
        }
        return true;
    }

    /** Keeps the rig as it is now under a name, and works on with that one. One of that name that is replaced comes back by undo. */
    public void keep(String name) {
        if (!named(name)) {
            return;
        }
        rename(name);
        Rig now = workspace.live().decided().withName(name.strip());
        Path file = fileOf(name.strip());
        String[] before = new String[1];
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-rig-could-not-be-saved"),
                        () -> {
                            before[0] = Files.exists(file) ? Files.readString(file) : null;
                            Settings.writeWhole(file, RigJson.write(now));
                        },
                        () -> workspace
                                .notice()
                                .set(new Notice(
                                        Messages.of(
                                                "workspace.choose-it-from-the-rig-s-name",
                                                (before[0] == null
                                                                ? Messages.of("workspace.saved")
                                                                : Messages.of("workspace.saved-over-the-earlier-one"))
                                                        + now.name()),
                                        false,
                                        before[0] == null ? null : () -> restore(file, before[0]))));
    }

    private void restore(Path file, String text) {
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-rig-could-not-be-put-back"),
                        () -> Settings.writeWhole(file, text),
                        () -> workspace.say(Messages.of("workspace.put-back", file.getFileName())));
    }

    /** Works with a rig from a file: one that was kept, or one that somebody shared. {@link Workspace#undo()} takes it back. */
    public void use(Path file) {
        workspace.tasks().fetch(Messages.of("workspace.the-rig-could-not-be-read"), () -> read(file), rig -> {
            workspace.live().take(rig);
            workspace.say(Messages.of("workspace.working-with-u-goes-back-to-the", rig.name()));
        });
    }

    /** Reads a kept rig without working with it. */
    public void read(Kept kept, Consumer<Rig> after) {
        workspace.tasks().fetch(Messages.of("workspace.the-rig-could-not-be-read"), () -> read(kept.file()), after);
    }

    /** Begins with nothing in it. {@link Workspace#undo()} takes it back. */
    public void begin() {
        workspace.live().take(Rig.blank(Messages.of("workspace.my-rig"), ""));
    }

    /** Writes the rig to a file to share. */
    public void share(Path file) {
        Rig now = workspace.live().decided();
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-rig-could-not-be-written"),
                        () -> Settings.writeWhole(file, RigJson.write(now)),
                        () -> workspace.say(Messages.of("workspace.written-a-file-to-share", file)));
    }

    /** Takes a kept rig off the list; it can be put back. */
    public void remove(Kept kept) {
        String[] text = new String[1];
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-rig-could-not-be-removed"),
                        () -> {
                            text[0] = Files.readString(kept.file());
                            Files.delete(kept.file());
                        },
                        () -> workspace
                                .notice()
                                .set(new Notice(
                                        Messages.of("workspace.removed", kept.name()),
                                        false,
                                        () -> restore(kept.file(), text[0]))));
    }
}
