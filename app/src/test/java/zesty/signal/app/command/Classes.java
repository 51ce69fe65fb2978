package zesty.signal.app.command;

import java.io.File;
import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.List;
import java.util.spi.ToolProvider;

/**
 * The program's classes as a built one has them: in libraries, laid out once in an archive. A command of the tests starts in
 * half the time; without the archive, or where it does not fit, a command starts as ever.
 */
final class Classes {
    private static final List<String> WORDS = made();

    private Classes() {}

    static String java() {
        return Path.of(System.getProperty("java.home"), "bin", "java").toString();
    }

    /** @return what tells the virtual machine where the classes are */
    static List<String> words() {
        return WORDS;
    }

    private static List<String> made() {
        try {
            Path folder = Files.createTempDirectory("zesty-classes");
            Runtime.getRuntime().addShutdownHook(new Thread(() -> remove(folder), "classes go"));
            List<String> path = new ArrayList<>();
            for (String one : System.getProperty("java.class.path").split(File.pathSeparator)) {
                if (Files.isDirectory(Path.of(one)) && !one.endsWith("test-classes")) {
                    Path jar = folder.resolve(path.size() + ".jar");
                    int failed = ToolProvider.findFirst("jar")
                            .orElseThrow()
                            .run(System.out, System.err, "-c", "-0", "-f", jar.toString(), "-C", one, ".");
                    if (failed != 0) {
                        throw new IOException(one + " was not packed");
                    }
                    path.add(jar.toString());
                } else if (one.endsWith(".jar")) {
                    path.add(one);
                }
            }
            String classes = String.join(File.pathSeparator, path);
            Path archive = folder.resolve("classes.jsa");
            Path rows = Files.writeString(folder.resolve("rows.txt"), "1,2\n2,3\n3,4\n".repeat(200));
            List<String> record = List.of(
                    "record",
                    "file:" + rows,
                    "--out",
                    folder.resolve("rows.zest").toString());
            List<String> line = new ArrayList<>(List.of(
                    java(),
                    "-XX:+UseSerialGC",
                    "-XX:TieredStopAtLevel=1",
                    "-XX:ArchiveClassesAtExit=" + archive,
                    "-cp",
                    classes,
                    "zesty.signal.app.Zesty"));
            line.addAll(record);
            new ProcessBuilder(line)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start()
                    .waitFor();
            return List.of(
                    "-XX:SharedArchiveFile=" + archive,
                    "-Xshare:auto",
                    "-Xlog:disable",
                    "-Xlog:all=error:stderr",
                    "-cp",
                    classes);
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void remove(Path folder) {
        try {
            Files.walkFileTree(folder, new SimpleFileVisitor<>() {
                @Override
                public FileVisitResult visitFile(Path file, BasicFileAttributes about) throws IOException {
                    Files.delete(file);
                    return FileVisitResult.CONTINUE;
                }
            });
            Files.delete(folder);
        } catch (IOException e) {
            // It lies in the folder for what is temporary.
        }
    }
}
