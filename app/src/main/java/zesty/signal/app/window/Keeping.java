package zesty.signal.app.window;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.Parent;
import zesty.signal.app.window.drawing.Drawn;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.WindowImage;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.NewFile;

/** Saves what the window shows: a screenshot, or each lane and plot as a drawing of its own. JavaFX thread. */
final class Keeping {
    private static final DateTimeFormatter MOMENT = DateTimeFormatter.ofPattern("yyyy-MM-dd-HHmmss-SSS");

    private final Workspace workspace;
    private final Parent window;

    Keeping(Workspace workspace, Parent window) {
        this.workspace = workspace;
        this.window = window;
    }

    /** Keeps what the window shows as a picture beside the takes. */
    void keepPicture() {
        WindowImage now = WindowImage.of(window.getScene());
        Path folder = workspace.places().pictures();
        Path file = folder.resolve("zesty-" + LocalDateTime.now().format(MOMENT) + ".png");
        workspace
                .tasks()
                .later(
                        Messages.of("window.the-screenshot-could-not-be-saved"),
                        () -> {
                            Files.createDirectories(folder);
                            now.write(file.toFile());
                        },
                        () -> workspace.say(Messages.of("window.screenshot-saved", file)));
    }

    /** Keeps the lanes and each plot in sight as a drawing of its own, and as a picture beside it. */
    void keepDrawings() {
        Path folder = workspace.places().pictures();
        String moment = LocalDateTime.now().format(MOMENT);
        List<Drawn> seen = new ArrayList<>();
        collect(window, seen);
        if (seen.isEmpty()) {
            workspace.trouble(Messages.of("window.nothing-here-can-be-saved-as-a"));
        }
        for (int i = 0; i < seen.size(); i++) {
            String subject =
                    seen.get(i).subject().replaceAll("[^\\p{Alnum}]+", "-").replaceAll("^-|-$", "");
            Path file = folder.resolve("zesty-" + moment + "-" + (i + 1) + "-" + subject + ".svg");
            Path picture = folder.resolve("zesty-" + moment + "-" + (i + 1) + "-" + subject + ".png");
            WindowImage same = WindowImage.of(
                    (Node) seen.get(i), Palette.card(workspace.view().night().get()));
            seen.get(i).nextDrawing(text -> workspace
                    .tasks()
                    .later(
                            Messages.of("window.the-drawing-could-not-be-saved"),
                            () -> {
                                Files.createDirectories(folder);
                                try (NewFile made = NewFile.begin(file, false)) {
                                    made.stream().write(text.getBytes(StandardCharsets.UTF_8));
                                    made.keep();
                                }
                                same.write(picture.toFile());
                            },
                            () -> workspace.say(
                                    seen.size() == 1
                                            ? Messages.of("window.drawing-saved", file)
                                            : Messages.of("window.drawings-saved-the-last", seen.size(), file))));
        }
    }

    private static void collect(Node node, List<Drawn> seen) {
        if (!node.isVisible()) {
            return;
        }
        if (node instanceof Drawn drawn) {
            seen.add(drawn);
        } else if (node instanceof Parent parent) {
            parent.getChildrenUnmodifiable().forEach(child -> collect(child, seen));
        }
    }
}
