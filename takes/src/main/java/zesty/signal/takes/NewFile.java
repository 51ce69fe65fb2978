package zesty.signal.takes;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.UserDefinedFileAttributeView;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;
import zesty.signal.core.text.Messages;

/**
 * A file that is written whole or not at all: bytes go into a fresh one beside it, which takes its name at the end. What
 * was there before is only replaced where this program made it, as a note of the file system says that goes with it, or
 * where it was empty. A link is followed; into a device or a pipe bytes go straight. One thread.
 */
public final class NewFile implements AutoCloseable {
    private static final String MADE = "zesty-signal.made";
    private static final int BUFFER = 1 << 16;
    private static final Set<Path> UNFINISHED = ConcurrentHashMap.newKeySet();

    static {
        // Also when the process is told to end, nothing half made stays behind.
        Runtime.getRuntime().addShutdownHook(new Thread(() -> UNFINISHED.forEach(NewFile::deleteQuietly), "tidying"));
    }

    private final Path target;
    private final Path part;
    private final OutputStream stream;
    private boolean kept;

    private NewFile(Path target, Path part, OutputStream stream) {
        this.target = target;
        this.part = part;
        this.stream = new BufferedOutputStream(stream, BUFFER);
    }

    /** @return why that file cannot be made without harm, and what would do; null when it can */
    public static String objection(Path file) {
        Path target = followed(file);
        if (Files.isDirectory(target)) {
            return Messages.of("takes.is-a-folder-a-file-s-name-is", file);
        }
        Path folder = target.toAbsolutePath().getParent();
        if (folder != null && !Files.isDirectory(folder)) {
            return Messages.of("takes.folder-is-not-there-make-it-first", folder);
        }
        if (Files.isRegularFile(target) && !isOurs(target)) {
            return Messages.of("takes.is-there-already-and-was-not-made", file);
        }
        return null;
    }

    /** @return why that file must not be made out of the other; null when it may. They may have several names */
    public static String objection(Path file, Path input) {
        try {
            boolean same = Files.exists(file) && Files.isRegularFile(file) && Files.isSameFile(file, input);
            return same ? Messages.of("takes.is-what-is-read-under-this-or", file) : null;
        } catch (IOException e) {
            return Messages.of("takes.cannot-be-looked-at", file, DiskWords.of(e));
        }
    }

    /**
     * Begins a file.
     *
     * @param replace whether the maker has said that what is there may go
     * @throws TakeException when there is an {@link #objection}, or it cannot be made
     */
    public static NewFile begin(Path file, boolean replace) throws TakeException {
        String objection = replace ? null : objection(file);
        if (objection != null) {
            throw new TakeException(objection);
        }
        Path target = followed(file);
        try {
            if (Files.exists(target) && !Files.isRegularFile(target)) {
                return new NewFile(target, null, Files.newOutputStream(target, StandardOpenOption.WRITE));
            }
            Path folder = target.toAbsolutePath().getParent();
            Path part = folder.resolve("." + target.getFileName() + "." + UUID.randomUUID() + ".unfinished");
            sweep(folder, target.getFileName().toString());
            FileChannel fresh = FileChannel.open(part, StandardOpenOption.WRITE, StandardOpenOption.CREATE_NEW);
            UNFINISHED.add(part);
            hold(fresh);
            return new NewFile(target, part, Channels.newOutputStream(fresh));
        } catch (IOException e) {
            throw new TakeException(Messages.of("takes.cannot-be-written", file, DiskWords.of(e)), e);
        }
    }

    /** Whoever sweeps sees by the lock that somebody is at work on it. */
    private static void hold(FileChannel part) {
        try {
            part.tryLock();
        } catch (IOException e) {
            // A disk without locks: nothing is swept there either.
        }
    }

    /** Removes what earlier runs left half made of that file when they were killed, where nobody holds it. */
    private static void sweep(Path folder, String name) {
        Pattern left =
                Pattern.compile(Pattern.quote("." + name + ".") + "[0-9a-f-]{36}" + Pattern.quote(".unfinished"));
        try (DirectoryStream<Path> files = Files.newDirectoryStream(
                folder, file -> left.matcher(file.getFileName().toString()).matches())) {
            for (Path file : files) {
                if (!UNFINISHED.contains(file) && free(file)) {
                    deleteQuietly(file);
                }
            }
        } catch (IOException | DirectoryIteratorException e) {
            // What cannot be looked at stays.
        }
    }

    private static boolean free(Path file) {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE);
                FileLock lock = channel.tryLock()) {
            return lock != null;
        } catch (IOException | OverlappingFileLockException e) {
            return false;
        }
    }

    private static Path followed(Path file) {
        try {
            Path now = file;
            for (int links = 0; links < 16 && Files.isSymbolicLink(now); links++) {
                Path to = Files.readSymbolicLink(now);
                Path next = to.isAbsolute() ? to : now.resolveSibling(to);
                if (Files.exists(now) && !Files.exists(next)) {
                    // The system's own link to an open pipe, as /dev/stdout is: what it names is no path.
                    return now;
                }
                now = next;
            }
            return now;
        } catch (IOException e) {
            return file;
        }
    }

    private static boolean isOurs(Path file) {
        try {
            if (Files.size(file) == 0) {
                return true;
            }
            UserDefinedFileAttributeView notes = Files.getFileAttributeView(file, UserDefinedFileAttributeView.class);
            if (notes == null || !notes.list().contains(MADE)) {
                return false;
            }
            java.nio.ByteBuffer said = java.nio.ByteBuffer.allocate(notes.size(MADE));
            notes.read(MADE, said);
            return new String(said.array(), StandardCharsets.UTF_8).equals(stamp(file));
        } catch (IOException | UnsupportedOperationException e) {
            return false;
        }
    }

    /** Who changed the file since changed this. */
    private static String stamp(Path file) throws IOException {
        return Files.size(file) + " " + Files.getLastModifiedTime(file).toMillis();
    }

    /** @return where its bytes go */
    public OutputStream stream() {
        return stream;
    }

    /** It is whole: from here on it has its name. */
    public void keep() throws IOException {
        stream.close();
        if (part != null) {
            sign();
            try {
                Files.move(part, target, StandardCopyOption.ATOMIC_MOVE);
            } catch (AtomicMoveNotSupportedException e) {
                Files.move(part, target, StandardCopyOption.REPLACE_EXISTING);
            }
            UNFINISHED.remove(part);
        }
        kept = true;
    }

    private void sign() {
        try {
            UserDefinedFileAttributeView notes = Files.getFileAttributeView(part, UserDefinedFileAttributeView.class);
            if (notes != null) {
                notes.write(MADE, StandardCharsets.UTF_8.encode(stamp(part)));
            }
        } catch (IOException | UnsupportedOperationException e) {
            // A disk without such notes: the file will not be replaced, and that is all.
        }
    }

    /** What was not kept is gone. */
    @Override
    public void close() {
        if (kept) {
            return;
        }
        try {
            stream.close();
        } catch (IOException e) {
            // The first error is the one to tell.
        }
        if (part != null) {
            deleteQuietly(part);
            UNFINISHED.remove(part);
        }
    }

    private static void deleteQuietly(Path part) {
        try {
            Files.deleteIfExists(part);
        } catch (IOException e) {
            // Nothing more can be done.
        }
    }
}
