package zesty.signal.app.window.workspace;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** What somebody who is to help wants to see: the log, the versions, the rig, as one ZIP file. Nothing is sent. */
final class ProblemReport {
    private ProblemReport() {}

    /** @param rig the rig as its file has it; waits for the disk */
    static void write(Path zip, Path logs, String rig) throws IOException {
        Files.createDirectories(zip.getParent());
        List<Path> kept;
        try (Stream<Path> files = Files.list(logs)) {
            kept = files.filter(file -> file.getFileName().toString().endsWith(".log"))
                    .sorted()
                    .toList();
        }
        try (OutputStream file = Files.newOutputStream(zip, StandardOpenOption.CREATE_NEW);
                ZipOutputStream out = new ZipOutputStream(file)) {
            put(out, "versions.txt", versions());
            put(out, "rig.json", rig);
            for (Path log : kept) {
                out.putNextEntry(new ZipEntry(log.getFileName().toString()));
                Files.copy(log, out);
                out.closeEntry();
            }
        }
    }

    private static void put(ZipOutputStream out, String name, String text) throws IOException {
        out.putNextEntry(new ZipEntry(name));
        out.write(text.getBytes(StandardCharsets.UTF_8));
        out.closeEntry();
    }

    private static String versions() {
        StringBuilder text = new StringBuilder();
        for (String key : List.of(
                "java.version", "java.vendor", "javafx.version", "os.name", "os.version", "os.arch", "user.language")) {
            text.append(key)
                    .append(' ')
                    .append(System.getProperty(key, "unknown"))
                    .append('\n');
        }
        Runtime machine = Runtime.getRuntime();
        text.append("processors ").append(machine.availableProcessors()).append('\n');
        text.append("memory ").append(machine.maxMemory() >> 20).append(" MiB\n");
        return text.toString();
    }
}
