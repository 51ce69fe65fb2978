package zesty.signal.takes;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.text.Messages;

/** The folder the takes stand in. A removed take can be brought back for 30 days. */
public final class Shelf {
    private static final String ENDING = ".zest";
    private static final Duration KEPT = Duration.ofDays(30);
    private static final int DRAWING_CELLS = 120;

    private final Path folder;
    private final Path removed;
    private final Map<Path, Entry> known = new HashMap<>();
    private final ShelfIndex index;
    private boolean indexed;

    /**
     * What the shelf shows of a take.
     *
     * @param drawing of each channel that its rig shows, in the stream's order
     * @param trouble why it cannot be opened; empty when it can
     * @param rig what it was recorded with, by name; {@code marks} their texts
     * @param numbers the main number of each of its readers, in words; null while they are not worked out
     */
    public record Entry(
            Path file,
            FileTime changed,
            long bytes,
            String title,
            Instant started,
            double seconds,
            List<String> columns,
            List<Drawing> drawing,
            String mended,
            String trouble,
            String rig,
            String notes,
            List<String> tags,
            List<String> marks,
            List<String> numbers) {
        /** The tag of those that the maker singled out. */
        public static final String STAR = "\u2605";

        private static final DateTimeFormatter DAY =
                DateTimeFormatter.ofPattern("uuuu-MM-dd EEEE d MMMM uuuu", Locale.ENGLISH);

        /** @return whether the maker singled it out */
        public boolean starred() {
            return tags.contains(STAR);
        }

        /** @return whether all of it but the numbers, which are worked out later, is as in another one */
        public boolean isAs(Entry other) {
            // A file of that time and size has that drawing.
            return with(List.of(), List.of()).equals(other.with(List.of(), List.of()));
        }

        private Entry with(List<Drawing> lanes, List<String> worked) {
            return new Entry(
                    file,
                    changed,
                    bytes,
                    title,
                    started,
                    seconds,
                    columns,
                    lanes,
                    mended,
                    trouble,
                    rig,
                    notes,
                    tags,
                    marks,
                    List.copyOf(worked));
        }

        /** @return whether each of these words stands somewhere in its title, notes, tags, markers, rig or date, in either case */
        public boolean has(String words) {
            String all = String.join("\n", title, notes, rig, String.join("\n", tags), String.join("\n", marks))
                    .toLowerCase(Locale.ROOT);
            String day = null;
            for (String word : words.toLowerCase(Locale.ROOT).strip().split("\\s+")) {
                if (!all.contains(word)) {
                    // To write a date takes longer than all else.
                    day = day == null
                            ? started.atZone(ZoneId.systemDefault()).format(DAY).toLowerCase(Locale.ROOT)
                            : day;
                    if (!day.contains(word)) {
                        return false;
                    }
                }
            }
            return true;
        }
    }

    /**
     * A channel's part of a take's small drawing.
     *
     * @param place of its column among those of the stream that are channels, which is its colour
     * @param extremes the lowest and highest of up to 120 cells in turn
     */
    public record Drawing(int place, double[] extremes) {}

    public Shelf(Path folder) {
        this.folder = folder;
        removed = folder.resolve(".removed");
        index = new ShelfIndex(folder);
    }

    public Path folder() {
        return folder;
    }

    /** @return a name for a new take, by the calendar, that is not taken */
    public Path freshFile(LocalDateTime now) {
        String stem = now.format(DateTimeFormatter.ofPattern("uuuu-MM-dd HH.mm.ss"));
        Path file = folder.resolve(stem + ENDING);
        for (int n = 2; Files.exists(file); n++) {
            file = folder.resolve(stem + " " + n + ENDING);
        }
        return file;
    }

    /**
     * @param beingRecorded left out; null for none
     * @return the takes, newest first
     */
    public List<Entry> list(Path beingRecorded) throws TakeException {
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        if (!indexed) {
            known.putAll(index.read());
            indexed = true;
        }
        Map<Path, Entry> before = Map.copyOf(known);
        List<Entry> entries = new ArrayList<>();
        try (Stream<Path> files = Files.list(folder)) {
            for (Path file : files.filter(f -> f.getFileName().toString().endsWith(ENDING))
                    .toList()) {
                Entry entry = file.equals(beingRecorded) ? null : entry(file);
                if (entry != null) {
                    entries.add(entry);
                }
            }
        } catch (IOException | UncheckedIOException e) {
            throw new TakeException(Messages.of("takes.the-takes-in-cannot-be-listed", folder, DiskWords.of(e)), e);
        }
        Set<Path> there = entries.stream().map(Entry::file).collect(Collectors.toSet());
        known.keySet().retainAll(there);
        index.update(
                entries.stream()
                        .filter(one -> one.trouble().isEmpty() && before.get(one.file()) != one)
                        .toList(),
                before.keySet().stream().filter(one -> !there.contains(one)).toList());
        entries.sort(Comparator.comparing(Entry::started).reversed());
        return entries;
    }

    /** Keeps the main numbers of a take's readers, as long as the take stays as it is. */
    public void numbers(Entry of, List<String> numbers) {
        if (known.get(of.file()) == of) {
            Entry now = of.with(of.drawing(), numbers);
            known.put(of.file(), now);
            index.update(List.of(now), List.of());
        }
    }

    /** @return what there is of it, be it a reason why there is nothing; null when it has vanished meanwhile */
    private Entry entry(Path file) {
        try {
            FileTime changed = Files.getLastModifiedTime(file);
            Entry before = known.get(file);
            if (before != null && before.changed().equals(changed) && before.bytes() == Files.size(file)) {
                return before;
            }
            Entry entry = read(file);
            known.put(file, entry);
            return entry;
        } catch (IOException e) {
            if (!Files.exists(file, LinkOption.NOFOLLOW_LINKS)) {
                return null;
            }
            String why = Files.isSymbolicLink(file)
                    ? Messages.of("takes.is-a-link-to-something-that-is-not", file)
                    : Messages.of("takes.cannot-be-read", file, DiskWords.of(e));
            return without(file, FileTime.from(Instant.EPOCH), 0, why);
        }
    }

    private static Entry without(Path file, FileTime changed, long bytes, String why) {
        return new Entry(
                file,
                changed,
                bytes,
                file.getFileName().toString(),
                changed.toInstant(),
                0,
                List.of(),
                List.of(),
                "",
                why,
                "",
                "",
                List.of(),
                List.of(),
                List.of());
    }

    private static Entry read(Path file) throws IOException {
        try (Take take = Take.open(file)) {
            List<Drawing> drawing = new ArrayList<>();
            Rig rig = take.rigOrPlain();
            int place = 0;
            for (int c = 0; c < take.columns().size(); c++) {
                String column = take.columns().get(c).name();
                Channel channel = rig.channels().stream()
                        .filter(one -> one.column().equals(column))
                        .findFirst()
                        .orElse(null);
                if (channel == null) {
                    continue;
                }
                if (channel.shown()) {
                    drawing.add(new Drawing(place, take.overview(c, DRAWING_CELLS)));
                }
                place++;
            }
            return new Entry(
                    file,
                    Files.getLastModifiedTime(file),
                    Files.size(file),
                    take.title(),
                    take.started(),
                    take.seconds(),
                    take.columns().stream().map(c -> c.name()).toList(),
                    drawing,
                    take.mended(),
                    "",
                    rig.name(),
                    take.notes(),
                    take.tags(),
                    take.marks().stream().map(Mark::text).toList(),
                    rig.readers().isEmpty() ? List.of() : null);
        } catch (TakeException e) {
            return without(file, Files.getLastModifiedTime(file), Files.size(file), e.getMessage());
        }
    }

    /** Takes a take off the shelf; {@link #restore} brings it back. @return where it lies until then */
    public Path remove(Path file) throws TakeException {
        try {
            Files.createDirectories(removed);
            Path target = removed.resolve(file.getFileName());
            String stem = file.getFileName().toString().replaceFirst("\\.zest$", "");
            for (int n = 2; Files.exists(target); n++) {
                target = removed.resolve(stem + " " + n + ENDING);
            }
            move(file, target);
            Files.setLastModifiedTime(target, FileTime.from(Instant.now()));
            return target;
        } catch (IOException e) {
            throw new TakeException(Messages.of("takes.cannot-be-removed", file, DiskWords.of(e)), e);
        }
    }

    /** Puts a removed take back. @return its file */
    public Path restore(Path lying) throws TakeException {
        Path target = folder.resolve(lying.getFileName());
        if (Files.exists(target)) {
            target = freshFile(LocalDateTime.now(ZoneId.systemDefault()));
        }
        try {
            move(lying, target);
            return target;
        } catch (IOException e) {
            throw new TakeException(Messages.of("takes.cannot-be-put-back", lying, DiskWords.of(e)), e);
        }
    }

    private static void move(Path from, Path to) throws IOException {
        try {
            Files.move(from, to, StandardCopyOption.ATOMIC_MOVE);
        } catch (AtomicMoveNotSupportedException e) {
            Files.move(from, to);
        }
    }

    /**
     * A take that was removed.
     *
     * @param since when it was
     */
    public record Removed(Path file, Instant since, long bytes) {}

    /** @return the takes that were removed and can be brought back, newest first */
    public List<Removed> removed() throws TakeException {
        List<Removed> all = new ArrayList<>();
        if (!Files.isDirectory(removed)) {
            return all;
        }
        try (Stream<Path> files = Files.list(removed)) {
            for (Path file :
                    files.filter(one -> one.toString().endsWith(ENDING)).toList()) {
                all.add(new Removed(file, Files.getLastModifiedTime(file).toInstant(), Files.size(file)));
            }
        } catch (IOException e) {
            throw new TakeException(
                    Messages.of("takes.removed-takes-in-cannot-be-listed", removed, DiskWords.of(e)), e);
        }
        all.sort(Comparator.comparing(Removed::since).reversed());
        return all;
    }

    /** Lets go for good of these removed takes, and of no others. */
    public void letGo(List<Removed> gone) throws TakeException {
        try {
            for (Removed one : gone) {
                if (one.file().getParent().equals(removed)) {
                    Files.deleteIfExists(one.file());
                }
            }
        } catch (IOException e) {
            throw new TakeException(
                    Messages.of("takes.removed-takes-in-cannot-be-deleted", removed, DiskWords.of(e)), e);
        }
    }

    /** Lets go for good of takes removed more than 30 days ago. */
    public void tidy(Instant now) throws TakeException {
        if (!Files.isDirectory(removed)) {
            return;
        }
        try (Stream<Path> files = Files.list(removed)) {
            for (Path file : files.toList()) {
                if (Files.getLastModifiedTime(file).toInstant().isBefore(now.minus(KEPT))) {
                    Files.delete(file);
                }
            }
        } catch (IOException e) {
            throw new TakeException(
                    Messages.of("takes.removed-takes-in-cannot-be-tidied", removed, DiskWords.of(e)), e);
        }
    }
}
