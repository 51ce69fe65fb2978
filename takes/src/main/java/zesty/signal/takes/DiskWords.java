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

/** Why a file could not be read or written, in words of our own: a maker is not to meet those of a library. */
public final class DiskWords {
    private DiskWords() {}

    /** @return why that file was not found, as the end of a sentence that begins with its name */
    public static String absent(Path file) {
        if (Files.isDirectory(file)) {
            return " is a folder";
        }
        if (Files.exists(file)) {
            return " is no plain file";
        }
        return Files.notExists(file) ? " is not there" : " cannot be looked for: this user may not go into its folder";
    }

    /** @return the reason, as the end of a sentence */
    public static String of(Exception e) {
        if (e instanceof TakeException) {
            return e.getMessage();
        }
        String said = String.valueOf(e.getMessage()).toLowerCase(Locale.ROOT);
        if (said.contains("no space left") || said.contains("sqlite_full") || said.contains("quota")) {
            return "the disk is full";
        }
        if (said.contains("file too large")) {
            return "the disk takes no file as long as that";
        }
        if (e instanceof AccessDeniedException || said.contains("permission denied")) {
            return "this user may not use it";
        }
        if (said.contains("read-only") || said.contains("sqlite_readonly")) {
            return "it may only be read";
        }
        if (e instanceof FileAlreadyExistsException) {
            return "there is one of that name already";
        }
        if (e instanceof NoSuchFileException || e instanceof NotDirectoryException) {
            return "it is not there";
        }
        if (e instanceof DirectoryNotEmptyException || said.contains("is a directory")) {
            return "it is a folder";
        }
        if (e instanceof CharacterCodingException) {
            return "it holds bytes that are no text";
        }
        if (said.contains("sqlite_busy") || said.contains("sqlite_locked")) {
            return "another program holds it";
        }
        if (said.contains("sqlite_notadb")) {
            return "it is not the file of a take";
        }
        if (said.contains("sqlite_cantopen")) {
            return "it cannot be opened";
        }
        if (e instanceof SQLException) {
            return said.contains("sqlite_ioerr") ? "the disk fails" : "it is damaged";
        }
        return e instanceof IOException ? "the disk fails" : "it failed";
    }
}
