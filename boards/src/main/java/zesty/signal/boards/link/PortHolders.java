package zesty.signal.boards.link;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;

/** Who has a port open, where the system tells: on Linux, of one's own programs, or of all for its administrator. */
final class PortHolders {
    private static final Path PROCESSES = Path.of("/proc");

    private PortHolders() {}

    /** @return name and number of another program that has the file open; empty when none is known */
    static Optional<String> of(Path port) {
        if (!Files.isDirectory(PROCESSES)) {
            return Optional.empty();
        }
        try (DirectoryStream<Path> processes = Files.newDirectoryStream(PROCESSES, "[0-9]*")) {
            Path real = port.toRealPath();
            for (Path process : processes) {
                boolean own = process.getFileName()
                        .toString()
                        .equals(Long.toString(ProcessHandle.current().pid()));
                if (!own && holds(process, real)) {
                    String name = Files.readString(process.resolve("comm")).strip();
                    return Optional.of(name + " (process " + process.getFileName() + ")");
                }
            }
        } catch (IOException e) {
            // A process that ended meanwhile, or a system that does not tell.
        }
        return Optional.empty();
    }

    private static boolean holds(Path process, Path port) {
        try (DirectoryStream<Path> files = Files.newDirectoryStream(process.resolve("fd"))) {
            for (Path file : files) {
                if (Files.isSymbolicLink(file) && Files.readSymbolicLink(file).equals(port)) {
                    return true;
                }
            }
        } catch (IOException e) {
            // Not ours to look into.
        }
        return false;
    }
}
