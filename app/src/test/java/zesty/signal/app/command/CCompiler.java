package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.File;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** A C compiler that forgives nothing, and what it makes, run in a folder. */
final class CCompiler {
    private final Path folder;

    CCompiler(Path folder) {
        assumeTrue(
                Arrays.stream(System.getenv("PATH").split(File.pathSeparator))
                        .anyMatch(one -> Files.isExecutable(Path.of(one, "cc"))),
                "a C compiler, cc, is not on this machine");
        this.folder = folder;
    }

    /** @return what it wrote; what it complained of is in {@code errors.txt} */
    String run(String input, String... line) throws Exception {
        Path in = folder.resolve("input.txt");
        Path out = folder.resolve("output.txt");
        Path err = folder.resolve("errors.txt");
        Files.writeString(in, input);
        Process process = new ProcessBuilder(line)
                .redirectInput(in.toFile())
                .redirectOutput(out.toFile())
                .redirectError(err.toFile())
                .start();
        assertThat(process.waitFor()).as(Files.readString(err)).isZero();
        return Files.readString(out, StandardCharsets.ISO_8859_1);
    }

    /** @return the program */
    String compiled(Path sources) throws Exception {
        String program = folder.resolve("program").toString();
        List<String> line =
                new ArrayList<>(List.of("cc", "-std=c99", "-Wall", "-Wextra", "-pedantic", "-Werror", "-o", program));
        try (var files = Files.list(sources)) {
            files.map(Path::toString).filter(one -> one.endsWith(".c")).forEach(line::add);
        }
        line.add("-lm");
        run("", line.toArray(String[]::new));
        return program;
    }
}
