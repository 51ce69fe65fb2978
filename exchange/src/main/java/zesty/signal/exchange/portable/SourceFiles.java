package zesty.signal.exchange.portable;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.NewFile;
import zesty.signal.takes.TakeException;

/** Source code into a folder, all of it or none; what another made is never written over. */
public final class SourceFiles {
    /** By its first line a file is known as one that was made here. */
    private static final String MARK = "/* Made by Zesty Signal";

    private SourceFiles() {}

    /**
     * @param files texts by name
     * @throws PortableException when something stands in the way. @throws TakeException when it cannot be written
     */
    public static void write(Path folder, Map<String, String> files) throws TakeException {
        if (Files.exists(folder) && !Files.isDirectory(folder)) {
            throw new PortableException(Messages.of("portable.is-a-file-a-folder-is-needed", folder));
        }
        for (String name : files.keySet()) {
            Path file = folder.resolve(name);
            if (Files.exists(file) && !own(file)) {
                throw new PortableException(Messages.of("portable.is-there-already-and-was-not-made", file));
            }
        }
        List<NewFile> begun = new ArrayList<>();
        try {
            Files.createDirectories(folder);
            for (Map.Entry<String, String> one : files.entrySet()) {
                NewFile file = NewFile.begin(folder.resolve(one.getKey()), true);
                begun.add(file);
                file.stream().write(one.getValue().getBytes(StandardCharsets.UTF_8));
            }
            for (NewFile file : begun) {
                file.keep();
            }
        } catch (TakeException e) {
            throw e;
        } catch (IOException e) {
            throw new TakeException(Messages.of("portable.cannot-be-written", folder, DiskWords.of(e)), e);
        } finally {
            begun.forEach(NewFile::close);
        }
    }

    private static boolean own(Path file) {
        try {
            return Files.readString(file).startsWith(MARK);
        } catch (IOException e) {
            return false;
        }
    }
}
