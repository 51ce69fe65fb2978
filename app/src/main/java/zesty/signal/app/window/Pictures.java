package zesty.signal.app.window;

import java.awt.image.BufferedImage;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.event.ActionEvent;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.image.PixelReader;
import javafx.scene.image.WritableImage;
import javafx.stage.Stage;
import javafx.util.Duration;
import javax.imageio.ImageIO;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.app.window.desk.Look;
import zesty.signal.app.window.desk.Span;
import zesty.signal.app.window.desk.Stop;
import zesty.signal.core.read.motion.Motion;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.core.read.vibration.Vibration;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.SensorKind;

/** Draws every main view from the demo data into PNG files, one after the other, and ends the program. */
final class Pictures {
    private static final Logger LOG = LoggerFactory.getLogger(Pictures.class);
    /** So long until the lanes are full of live signal. */
    private static final double FILL_SECONDS = 22;

    private static final double SETTLE_SECONDS = 0.9;
    /** So long between what is done for a picture that is not wanted and what is done next. */
    private static final double PASS_SECONDS = 0.5;

    private record Scene(String name, Runnable set, double waitSeconds) {}

    private final Desk desk;
    private final MainView view;
    private final Stage stage;
    private final ZestyApplication.Wish wish;
    private final ArrayDeque<Scene> scenes = new ArrayDeque<>();

    Pictures(Desk desk, MainView view, Stage stage, ZestyApplication.Wish wish) {
        this.desk = desk;
        this.view = view;
        this.stage = stage;
        this.wish = wish;
    }

    void start() {
        scene(
                "first-start",
                () -> {
                    desk.disconnect();
                    desk.stop().set(Stop.SOURCE);
                },
                1.5);
        step(
                () -> {
                    desk.stop().set(null);
                    desk.connect("sim:deck");
                },
                1);
        scene("bench", () -> desk.focus().set("pulse"), FILL_SECONDS);
        for (Stop stop : Stop.values()) {
            scene(
                    stop.name().toLowerCase(java.util.Locale.ROOT),
                    () -> desk.stop().set(stop),
                    SETTLE_SECONDS);
        }
        scene(
                "night",
                () -> {
                    desk.stop().set(null);
                    desk.notice().set(null);
                    desk.look().set(Look.NIGHT);
                },
                1.5);
        scene(
                "takes",
                () -> {
                    desk.look().set(Look.DAY);
                    desk.notice().set(null);
                    desk.takesOpen().set(true);
                },
                1.5);
        scene(
                "stored-take",
                () -> {
                    desk.notice().set(null);
                    desk.takes().all().get().stream()
                            .filter(entry -> entry.title().startsWith("Long"))
                            .findFirst()
                            .ifPresent(entry -> desk.open(entry.file()));
                    desk.span().set(new Span(200, 260));
                },
                2.5);
        step(() -> desk.span().set(Span.NONE), 0.2);
        scene(
                "muscle",
                () -> {
                    desk.notice().set(null);
                    desk.takes().all().get().stream()
                            .filter(entry -> entry.title().endsWith("tired"))
                            .findFirst()
                            .ifPresent(entry -> desk.open(entry.file()));
                    desk.stop().set(Stop.READ);
                },
                3);
        step(() -> desk.stop().set(null), 0.5);
        scene("commands", view::toggleCommandList, SETTLE_SECONDS);
        scene(
                "sources",
                () -> {
                    view.toggleCommandList();
                    desk.backToLive();
                    desk.stop().set(Stop.SOURCE);
                    desk.join("sim:hull");
                    desk.join("sim:masthead");
                },
                6);
        proving();
        scene(
                "heat-picture",
                () -> {
                    desk.notice().set(null);
                    desk.connect("sim:cowling");
                    desk.stop().set(Stop.DECODE);
                },
                6);
        doubt();
        answer("spectrum", "hull", "ay", Vibration.NAME, Map.of("unit", "counts", Vibration.TURNS, "46"));
        lean();
        try {
            Files.createDirectories(wish.folder());
        } catch (IOException e) {
            fail(e);
            return;
        }
        next();
    }

    /** The hoist's load cell against known loads, as they hang on it one after the other. */
    private void proving() {
        step(
                () -> {
                    desk.connect("sim:hoist");
                    desk.stop().set(Stop.SCALE);
                },
                2.5);
        step(
                () -> {
                    SensorKind weight = SensorKind.all().stream()
                            .filter(kind -> kind.sensor().takesCare().equals(Optional.of(Caution.LOAD)))
                            .findFirst()
                            .orElseThrow();
                    desk.change(rig -> rig.withChannel("load", c -> c.withScaling(weight.on(c.scaling()))
                                    .withSensor(weight.sensor()))
                            .acknowledging(Caution.LOAD));
                    ((ToggleButton) view.lookup("#prove")).fire();
                },
                2.5);
        step(() -> hold("0"), 8);
        step(() -> hold("42"), 8);
        scene("prove", () -> hold("61.5"), 1.5);
    }

    /** A heart by electrodes with early beats, and an episode of movement in which nobody can tell. */
    private void doubt() {
        step(
                () -> {
                    desk.connect("sim:chest+early+movement");
                    desk.stop().set(Stop.READ);
                },
                3);
        scene(
                "doubt",
                () -> {
                    desk.focus().set("heart");
                    desk.change(rig -> rig.acknowledging(Caution.BODY)
                            .withReader(ReaderSetup.on("heart", Pulse.NAME, Map.of(Pulse.SOURCE, "electrical"))));
                },
                30);
    }

    /** Another answer, live from its board. */
    private void answer(String picture, String board, String column, String kind, Map<String, String> settings) {
        step(
                () -> {
                    desk.connect("sim:" + board);
                    desk.stop().set(Stop.READ);
                },
                3);
        scene(
                picture,
                () -> {
                    desk.notice().set(null);
                    desk.focus().set(column);
                    desk.change(rig -> rig.withReader(ReaderSetup.on(column, kind, settings)));
                },
                14);
    }

    /** A body that leans with the board, from nine columns. */
    private void lean() {
        step(
                () -> {
                    desk.connect("sim:motion");
                    desk.stop().set(Stop.READ);
                },
                3);
        scene(
                "lean",
                () -> {
                    desk.notice().set(null);
                    desk.focus().set("ax");
                    desk.change(rig -> rig.withReader(new ReaderSetup(
                            Motion.NAME, List.of("ax", "ay", "az", "gx", "gy", "gz", "mx", "my", "mz"), Map.of())));
                },
                14);
    }

    private void hold(String meter) {
        TextField field = (TextField) view.lookup("#meter");
        field.setText(meter);
        field.fireEvent(new ActionEvent());
    }

    /** What is done between two pictures. */
    private void step(Runnable set, double waitSeconds) {
        scene("", set, waitSeconds);
    }

    private void scene(String name, Runnable set, double waitSeconds) {
        scenes.add(new Scene(name, set, waitSeconds));
    }

    private void next() {
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
                    write(wish.folder().resolve(scene.name() + ".png").toFile());
                }
                Platform.runLater(this::next);
            } catch (IOException e) {
                fail(e);
            }
        });
        wait.play();
    }

    private void fail(IOException e) {
        System.err.println("zesty: pictures cannot be written to " + wish.folder() + ": " + e.getMessage());
        ZestyApplication.failed();
        Platform.exit();
    }

    private void write(File file) throws IOException {
        WritableImage shot = stage.getScene().snapshot(null);
        int width = (int) shot.getWidth();
        int height = (int) shot.getHeight();
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        PixelReader pixels = shot.getPixelReader();
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                image.setRGB(x, y, pixels.getArgb(x, y));
            }
        }
        if (!ImageIO.write(image, "png", file)) {
            throw new IOException("no PNG writer");
        }
    }

    /** The pictures' own demo takes are not kept. */
    private void clearAway() {
        desk.close();
        try (Stream<Path> files = Files.walk(desk.places().home())) {
            for (Path path : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(path);
            }
        } catch (IOException e) {
            LOG.debug("left behind: {}", e.getMessage());
        }
    }
}
