package zesty.signal.app.window.workspace;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import zesty.signal.core.text.Messages;

/** Puts a file of the program's own that does not read out of the way, so that it is never written over. */
final class KeptAside {
    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern("uuuu-MM-dd HH.mm.ss");

    private KeptAside() {}

    /**
     * @param folder where it is put, under a name that says what it is and when
     * @param why it does not read, as a sentence without its end
     * @return what to tell the maker
     */
    static String put(Path file, Path folder, String why) {
        String name = file.getFileName().toString();
        String stem = Messages.of(
                "workspace.kept-aside",
                name.replaceFirst("\\.json$", ""),
                LocalDateTime.now().format(WHEN));
        try {
            Files.createDirectories(folder);
            Path to = folder.resolve(stem + ".json");
            for (int n = 2; Files.exists(to); n++) {
                to = folder.resolve(stem + " " + n + ".json");
            }
            Files.move(file, to);
            return Messages.of("workspace.it-is-kept-as-and-a-new-one-was", why, to);
        } catch (IOException e) {
            return Messages.of("workspace.it-cannot-be-moved-aside-either", why, file);
        }
    }
}
