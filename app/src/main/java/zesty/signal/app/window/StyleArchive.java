package zesty.signal.app.window;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javafx.css.Stylesheet;

/**
 * Parses the library's style sheets once, into a library of their own: the toolkit takes what is parsed where it finds
 * it, and a start is a fifth of a second shorter. Needs no window.
 */
public final class StyleArchive {
    private static final String FOLDER = "atlantafx/base/theme/";

    private StyleArchive() {}

    /** @param arguments the file to be written */
    public static void main(String[] arguments) throws IOException {
        write(Path.of(arguments[0]));
    }

    /** Writes the library. @param jar lies where the class path finds it */
    public static void write(Path jar) throws IOException {
        Path folder = Files.createTempDirectory("styles");
        Path made = folder.resolve("styles.jar");
        try (ZipOutputStream out = new ZipOutputStream(Files.newOutputStream(made))) {
            for (String name : List.of("primer-light", "primer-dark")) {
                Path text = folder.resolve(name + ".css");
                Path parsed = folder.resolve(name + ".bss");
                try (InputStream in = StyleArchive.class.getResourceAsStream("/" + FOLDER + name + ".css")) {
                    Files.copy(in, text);
                }
                Stylesheet.convertToBinary(text.toFile(), parsed.toFile());
                out.putNextEntry(new ZipEntry(FOLDER + name + ".bss"));
                Files.copy(parsed, out);
                out.closeEntry();
                Files.delete(text);
                Files.delete(parsed);
            }
        }
        Files.move(made, jar, StandardCopyOption.REPLACE_EXISTING);
        Files.delete(folder);
    }
}
