package zesty.signal.app.command;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** One run of the command line as a process of its own, as a script would use it. */
record Run(int status, String out, String err) {
    JsonNode json() throws IOException {
        return new ObjectMapper().readTree(out);
    }

    /** @return the command that runs it with so much memory, such as 256m */
    static List<String> line(String memory, String... words) {
        List<String> line = new ArrayList<>(List.of(
                Classes.java(), "-Xmx" + memory, "-XX:+UseSerialGC", "-XX:TieredStopAtLevel=1", "-Duser.language=de"));
        line.addAll(Classes.words());
        line.add("zesty.signal.app.Zesty");
        line.addAll(List.of(words));
        return line;
    }

    /** Starts it; what it says goes to out.txt and err.txt in the folder. */
    static Process start(Path folder, List<String> line) throws IOException {
        return new ProcessBuilder(line)
                .directory(folder.toFile())
                .redirectOutput(folder.resolve("out.txt").toFile())
                .redirectError(folder.resolve("err.txt").toFile())
                .start();
    }

    /** Waits until it has ended. */
    static Run ended(Path folder, Process process) throws IOException, InterruptedException {
        if (!process.waitFor(90, TimeUnit.SECONDS)) {
            process.destroyForcibly().waitFor();
            throw new IllegalStateException("it did not end; it said " + Files.readString(folder.resolve("err.txt")));
        }
        return new Run(
                process.exitValue(),
                Files.readString(folder.resolve("out.txt")),
                Files.readString(folder.resolve("err.txt")));
    }

    static Run of(Path folder, List<String> line) throws IOException, InterruptedException {
        Process process = start(folder, line);
        process.getOutputStream().close();
        return ended(folder, process);
    }

    static Run of(Path folder, String... words) throws IOException, InterruptedException {
        return of(folder, line("256m", words));
    }
}
