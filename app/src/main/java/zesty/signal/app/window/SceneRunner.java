package zesty.signal.app.window;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.Comparator;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.stage.Stage;
import javafx.util.Duration;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.app.window.drawing.WindowImage;
import zesty.signal.app.window.workspace.Workspace;

/** Goes through scenes one after the other, keeps a picture of each that is wanted, and ends the program. JavaFX thread. */
final class SceneRunner {
    private static final Logger LOG = LoggerFactory.getLogger(SceneRunner.class);
    /** So long between what is done for a picture that is not wanted and what is done next. */
    static final double PASS_SECONDS = 0.5;

    private static final int MOST_TRIES = 40;

    private record Scene(String name, Runnable set, double waitSeconds) {}

    private final Workspace workspace;
    private final MainView view;
    private final Stage stage;
    private final ZestyApplication.Wish wish;
    private final ArrayDeque<Scene> scenes = new ArrayDeque<>();

    SceneRunner(Workspace workspace, MainView view, Stage stage, ZestyApplication.Wish wish) {
        this.workspace = workspace;
        this.view = view;
        this.stage = stage;
        this.wish = wish;
    }

    /** What is done to something in the window, as soon as it is there: a busy machine may take its time. */
    void stepOn(String query, Consumer<Node> set, double waitSeconds) {
        step(() -> on(query, set, waitSeconds, MOST_TRIES), 0);
    }

    private void on(String query, Consumer<Node> set, double waitSeconds, int tries) {
        Node node = view.lookup(query);
        if (node == null && tries > 0) {
            scenes.addFirst(new Scene("", () -> on(query, set, waitSeconds, tries - 1), PASS_SECONDS));
        } else if (node == null) {
            fail(new IOException(query + " never came into the window"));
        } else {
            set.accept(node);
            scenes.addFirst(new Scene("", () -> {}, waitSeconds));
        }
    }

    /** What is done between two pictures. */
    void step(Runnable set, double waitSeconds) {
        scene("", set, waitSeconds);
    }

    /** A picture of that name, so long after what is done for it. */
    void scene(String name, Runnable set, double waitSeconds) {
        scenes.add(new Scene(name, set, waitSeconds));
    }

    void next() {
        Scene scene = scenes.poll();
        if (scene == null) {
            clearAway();
            Platform.exit();
            return;
        }
        scene.set().run();
        boolean wanted = wish.names().isEmpty() || wish.names().contains(scene.name());
        double seconds =
                wanted || scene.name().isEmpty() ? scene.waitSeconds() : Math.min(PASS_SECONDS, scene.waitSeconds());
        PauseTransition wait = new PauseTransition(Duration.seconds(seconds));
        wait.setOnFinished(event -> {
            try {
                if (wanted && !scene.name().isEmpty()) {
                    WindowImage.of(stage.getScene())
                            .write(wish.folder().resolve(scene.name() + ".png").toFile());
                }
                Platform.runLater(this::next);
            } catch (IOException e) {
                fail(e);
            }
        });
        wait.play();
    }

    void fail(IOException e) {
        System.err.println("zesty: pictures cannot be written to " + wish.folder() + ": " + e.getMessage());
        ZestyApplication.failed();
        Platform.exit();
    }

    /** The pictures' own demo takes are not kept. */
    private void clearAway() {
        workspace.close();
        try (Stream<Path> files = Files.walk(workspace.places().home())) {
            for (Path path : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(path);
            }
        } catch (IOException e) {
            LOG.debug("left behind: {}", e.getMessage());
        }
    }
}
