package zesty.signal.app.window.workspace;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Shelf;
import zesty.signal.takes.TakeException;

/**
 * The folders that takes are looked for in: the product's own, and others that the maker added, of which one may be unplugged.
 * The list of those lies in a file of its own, a path a line. The worker's thread.
 */
public final class TakeFolders {
    private final Shelf own;
    private final Path list;
    private final Map<Path, Shelf> others = new LinkedHashMap<>();
    private final Map<Path, Integer> counts = new LinkedHashMap<>();
    private boolean loaded;

    /** How a folder stands. @param own whether new takes go there. @param takes how many it has */
    public record State(Path folder, boolean own, boolean there, int takes) {}

    TakeFolders(Shelf own, Path list) {
        this.own = own;
        this.list = list;
    }

    private void load() throws IOException {
        if (loaded || !Files.exists(list)) {
            loaded = true;
            return;
        }
        for (String line : Files.readAllLines(list)) {
            try {
                if (!line.isBlank()) {
                    Path folder = Path.of(line.strip());
                    others.put(folder, new Shelf(folder));
                }
            } catch (InvalidPathException e) {
                // A line that is no path names no folder.
            }
        }
        loaded = true;
    }

    /** @return the takes of all folders that are there, newest first */
    List<Shelf.Entry> list(Path beingRecorded) throws TakeException, IOException {
        load();
        List<Shelf.Entry> all = new ArrayList<>(own.list(beingRecorded));
        counts.put(own.folder(), all.size());
        for (Map.Entry<Path, Shelf> one : others.entrySet()) {
            List<Shelf.Entry> there = one.getValue().list(beingRecorded);
            counts.put(one.getKey(), there.size());
            all.addAll(there);
        }
        all.sort(Comparator.comparing(Shelf.Entry::started).reversed());
        return all;
    }

    List<State> states() throws IOException {
        load();
        List<State> states = new ArrayList<>();
        states.add(new State(own.folder(), true, true, counts.getOrDefault(own.folder(), 0)));
        for (Path folder : others.keySet()) {
            states.add(new State(folder, false, Files.isDirectory(folder), counts.getOrDefault(folder, 0)));
        }
        return states;
    }

    /** @throws TakeException when there is no such folder, or it is in the list */
    void add(Path folder) throws TakeException, IOException {
        load();
        Path whole = folder.toAbsolutePath().normalize();
        if (!Files.isDirectory(whole)) {
            throw new TakeException(Messages.of("workspace.is-no-folder-write-the-whole-path", whole));
        }
        if (others.containsKey(whole)
                || whole.equals(own.folder().toAbsolutePath().normalize())) {
            throw new TakeException(Messages.of("workspace.is-in-the-list-already", whole));
        }
        others.put(whole, new Shelf(whole));
        keep();
    }

    void remove(Path folder) throws IOException {
        others.remove(folder);
        counts.remove(folder);
        keep();
    }

    private void keep() throws IOException {
        Settings.writeWhole(
                list,
                String.join("\n", others.keySet().stream().map(Path::toString).toList()));
    }

    /** @return the shelf that a take stands on */
    Shelf of(Path take) {
        Shelf other = take.getParent() == null ? null : others.get(take.getParent());
        return other == null ? own : other;
    }

    /** @return what was removed of all folders that are there */
    List<Shelf.Removed> removed() throws TakeException, IOException {
        load();
        List<Shelf.Removed> all = new ArrayList<>(own.removed());
        for (Shelf other : others.values()) {
            all.addAll(other.removed());
        }
        return all;
    }

    /** Puts a removed take back onto the shelf it was taken from. */
    void restore(Path lying) throws TakeException {
        of(lying.getParent()).restore(lying);
    }

    void letGo(List<Shelf.Removed> gone) throws TakeException {
        own.letGo(gone);
        for (Shelf other : others.values()) {
            other.letGo(gone);
        }
    }
}
