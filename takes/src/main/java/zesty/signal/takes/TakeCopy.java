package zesty.signal.takes;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** A copy of a take that must be mended and lies where nothing can be written. */
final class TakeCopy {
    private TakeCopy() {}

    /** @return the copy, in a folder of its own that goes with it */
    static Path of(Path take) throws IOException {
        Path folder = Files.createTempDirectory("zesty-take");
        Path copy = folder.resolve("copy.zest");
        folder.toFile().deleteOnExit();
        copy.toFile().deleteOnExit();
        Files.copy(take, copy);
        Path log = take.resolveSibling(take.getFileName() + "-wal");
        if (Files.exists(log)) {
            Files.copy(log, folder.resolve("copy.zest-wal"));
        }
        return copy;
    }

    /** @param copy null for none */
    static void delete(Path copy) {
        if (copy == null) {
            return;
        }
        try {
            for (String ending : List.of("", "-wal", "-shm", "-journal")) {
                Files.deleteIfExists(copy.resolveSibling(copy.getFileName() + ending));
            }
            Files.deleteIfExists(copy.getParent());
        } catch (IOException e) {
            // It lies among other passing things, and goes with them.
        }
    }
}
