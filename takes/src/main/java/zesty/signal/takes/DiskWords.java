package zesty.signal.takes;

import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.AccessDeniedException;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.Locale;
import zesty.signal.core.text.Messages;

/** Why a file could not be read or written, in words of our own: a maker is not to meet those of a library. */
public final class DiskWords {
    private DiskWords() {}

    /** @return why that file was not found, as the end of a sentence that begins with its name */
    public static String absent(Path file) {
        if (Files.isDirectory(file)) {
            return Messages.of("takes.is-a-folder");
        }
        if (Files.exists(file)) {
            return Messages.of("takes.is-no-plain-file");
        }
        return Files.notExists(file)
                ? Messages.of("takes.is-not-there")
                : Messages.of("takes.cannot-be-looked-for-this-user-may");
    }

    /** @return whether there is no room; null tells of nothing */
    static boolean isFull(Throwable e) {
        String said = e == null ? "" : said(e);
        // The last one: the small file beside a take by which programs share it could not be made longer.
        return said.contains("no space left")
                || said.contains("sqlite_full")
                || said.contains("quota")
                || said.contains("sqlite_ioerr_shmsize");
    }

    private static String said(Throwable e) {
        return String.valueOf(e.getMessage()).toLowerCase(Locale.ROOT);
    }

    /** @return the reason, as the end of a sentence */
    public static String of(Exception e) {
        if (e instanceof TakeException) {
            return e.getMessage();
        }
        String said = said(e);
        if (isFull(e)) {
            return Messages.of("takes.the-disk-is-full");
        }
        if (said.contains("file too large")) {
            return Messages.of("takes.the-disk-takes-no-file-as-long-as");
        }
        if (e instanceof AccessDeniedException || said.contains("permission denied")) {
            return Messages.of("takes.this-user-may-not-use-it");
        }
        if (said.contains("read-only") || said.contains("sqlite_readonly")) {
            return Messages.of("takes.it-may-only-be-read");
        }
        if (e instanceof FileAlreadyExistsException) {
            return Messages.of("takes.there-is-one-of-that-name-already");
        }
        if (e instanceof NoSuchFileException || e instanceof NotDirectoryException) {
            return Messages.of("takes.it-is-not-there");
        }
        if (e instanceof DirectoryNotEmptyException || said.contains("is a directory")) {
            return Messages.of("takes.it-is-a-folder");
        }
        if (e instanceof CharacterCodingException) {
            return Messages.of("takes.it-holds-bytes-that-are-no-text");
        }
        if (said.contains("sqlite_busy") || said.contains("sqlite_locked")) {
            return Messages.of("takes.another-program-holds-it");
        }
        if (said.contains("sqlite_notadb")) {
            return Messages.of("takes.it-is-not-the-file-of-a-take");
        }
        if (said.contains("sqlite_cantopen")) {
            return Messages.of("takes.it-cannot-be-opened");
        }
        if (said.contains("sqlite_constraint")) {
            // Not the file: what was to be written does not belong there. The log says what it was.
            return Messages.of("takes.it-failed");
        }
        if (e instanceof SQLException) {
            return said.contains("sqlite_ioerr")
                    ? Messages.of("takes.the-disk-fails")
                    : Messages.of("takes.it-is-damaged");
        }
        return e instanceof IOException ? Messages.of("takes.the-disk-fails") : Messages.of("takes.it-failed");
    }
}
