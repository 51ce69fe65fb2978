package zesty.signal.app.window;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javafx.css.Stylesheet;

/**
 * Parses the style sheets once, into a library of their own: the toolkit takes what is parsed where it finds it, and a start
 * is a third of a second shorter. Of the library's sheets only what this window can wear is taken. Needs no window.
 */
public final class StyleArchive {
    /** As resources, without their ends. */
    private static final List<String> SHEETS =
            List.of("atlantafx/base/theme/primer-light", "atlantafx/base/theme/primer-dark", StyleSheet.USUAL);

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
            for (String name : SHEETS) {
                Path text = folder.resolve("sheet.css");
                Path parsed = folder.resolve("sheet.bss");
                try (InputStream in = StyleArchive.class.getResourceAsStream("/" + name + ".css")) {
                    String whole = new String(in.readAllBytes(), StandardCharsets.UTF_8);
                    Files.writeString(text, name.equals(StyleSheet.USUAL) ? whole : UsedStyles.of(whole));
                }
                Stylesheet.convertToBinary(text.toFile(), parsed.toFile());
                out.putNextEntry(new ZipEntry(name + ".bss"));
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
