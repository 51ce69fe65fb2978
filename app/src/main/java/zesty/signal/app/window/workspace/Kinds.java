package zesty.signal.app.window.workspace;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import zesty.signal.core.rig.SensorKind;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.KindJson;
import zesty.signal.takes.TakeException;

/** The library of sensor kinds: the generic ones, then the maker's own, each a JSON file to share. JavaFX thread only. */
public final class Kinds {
    private final Workspace workspace;
    private final Path folder;
    private final ReadOnlyObjectWrapper<List<SensorKind>> all = new ReadOnlyObjectWrapper<>(SensorKind.all());

    Kinds(Workspace workspace, Path folder) {
        this.workspace = workspace;
        this.folder = folder;
    }

    public ReadOnlyObjectProperty<List<SensorKind>> all() {
        return all.getReadOnlyProperty();
    }

    private record Found(List<SensorKind> kinds, List<String> problems) {}

    /** Reads the folder anew, so that a file that somebody shared only needs to be put there. */
    public void refresh() {
        workspace.tasks().fetch(Messages.of("workspace.the-sensor-kinds-could-not-be-read"), this::look, found -> {
            List<SensorKind> together = new ArrayList<>(SensorKind.all());
            together.addAll(found.kinds());
            if (!together.equals(all.get())) {
                all.set(List.copyOf(together));
            }
            if (!found.problems().isEmpty()) {
                workspace.trouble(String.join("; ", found.problems()));
            }
        });
    }

    private Found look() throws IOException {
        List<SensorKind> kinds = new ArrayList<>();
        List<String> problems = new ArrayList<>();
        if (Files.isDirectory(folder)) {
            try (Stream<Path> files = Files.list(folder)) {
                for (Path file : files.filter(f -> f.toString().endsWith(".json"))
                        .sorted()
                        .toList()) {
                    try {
                        kinds.add(KindJson.read(Files.readString(file), file.toString()));
                    } catch (TakeException e) {
                        problems.add(e.getMessage());
                    }
                }
            }
        }
        return new Found(kinds, problems);
    }

    /** Keeps a kind in the maker's own library, in the place of one of the same name. */
    public void keep(SensorKind kind) {
        String name = kind.name().toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "-");
        Path file = folder.resolve(name + ".json");
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-kind-could-not-be-saved"),
                        () -> {
                            Files.createDirectories(folder);
                            Settings.writeWhole(file, KindJson.write(kind));
                        },
                        () -> {
                            workspace.say(Messages.of("workspace.kept-as-a-file-to-share", file));
                            refresh();
                        });
    }
}
