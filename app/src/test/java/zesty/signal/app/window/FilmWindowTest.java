package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.app.window.workspace.Places;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.core.picture.Film;
import zesty.signal.core.picture.Region;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.Snapshot;

/** Heat pictures in the real window: the strip, one large, parts drawn on it, made right, saved, and of a take. */
@Timeout(300)
class FilmWindowTest extends RealWindow {
    FilmWindowTest() {
        super(false);
    }

    private Node panel() throws Exception {
        awaitNode("#film-view");
        return robot.lookup("#film-view").query();
    }

    /** @return the middle of a pixel of the cowling's 32 × 24 on the screen, of a picture that fills the view's height */
    private Point2D pixel(int x, int y) throws Exception {
        Node view = panel();
        Node image = fx(() -> view.lookup(".image-view"));
        Bounds on = fx(() -> image.localToScreen(image.getBoundsInLocal()));
        return new Point2D(
                on.getMinX() + (x + 0.5) * on.getWidth() / 32, on.getMinY() + (y + 0.5) * on.getHeight() / 24);
    }

    private static double most(double[] frame, int x1, int x2, int y1, int y2) {
        double most = Double.NEGATIVE_INFINITY;
        for (int y = y1; y <= y2; y++) {
            for (int x = x1; x <= x2; x++) {
                most = Math.max(most, frame[y * 32 + x]);
            }
        }
        return most;
    }

    @Test
    void aHotSpotIsFoundBoxedMadeRightAndSavedAndIsInTheTake() throws Exception {
        robot.interact(() -> workspace().live().connect("sim:cowling"));
        until(s -> s.channels().size() == 3 && s.hasSamples());
        robot.interact(() -> workspace().view().stop().set(null));
        awaitNode(".film-lane");
        robot.clickOn(".film-lane");
        until(s -> workspace().view().stop().get() == Stop.READ);
        // A box over the exhaust, drawn with the mouse, is a lane.
        click("#draw-box");
        robot.drag(pixel(15, 9), MouseButton.PRIMARY).moveTo(pixel(20, 14)).dropTo(pixel(27, 20));
        Snapshot boxed = until(s -> s.channel("box 1").isPresent());
        Region box = ((zesty.signal.core.decode.PictureFormat)
                        boxed.rig().sources().get(0).format())
                .setup()
                .regions()
                .get(0);
        assertThat(List.of(box.x1(), box.y1(), box.x2(), box.y2())).containsExactly(15, 9, 27, 20);
        write("#region-box-1 .text-field", "exhaust");
        Snapshot named =
                until(s -> s.channel("exhaust").isPresent() && s.channels().size() == 4);
        ChannelSnapshot exhaust = named.channel("exhaust").orElseThrow();
        Film film = exhaust.stream().film();
        for (long row = film.start(); row < Math.min(film.end(), exhaust.raw().end()); row++) {
            assertThat(exhaust.raw().value(row)).isCloseTo(most(film.raw(row), 15, 27, 9, 20), within(1e-4));
        }
        // Its two pixels that are not well are found and filled: the coldest is no longer one of them.
        until(s -> s.streams().get(0).film().end() > 8);
        assertThat(until(s -> true).channel("coldest").orElseThrow().latestRaw())
                .isEqualTo(18.4);
        click("#find-dead");
        awaitText("#mend-words", "2 dead pixels are filled");
        until(s -> s.channel("coldest").orElseThrow().latestRaw() > 19.5);
        // What the surface does is said in degrees, and done.
        double before = snapshot().channel("exhaust").orElseThrow().latestRaw();
        write("#emissivity", "0.8");
        awaitText("#mend-words", "the surface changes the hottest pixel by +");
        until(s -> s.channel("exhaust").orElseThrow().latestRaw() > before + 5);
        // And so are its numbers: what a surface sends is a temperature.
        assertThat(List.of("hottest", "coldest", "mean", "exhaust"))
                .allMatch(column -> unit(column).equals("\u00b0C"));
        key(KeyCode.ESCAPE);
        robot.interact(() -> workspace().view().stop().set(Stop.READ));
        robot.interact(() -> workspace().undo());
        until(s -> s.channel("exhaust").orElseThrow().latestRaw() < before + 4);
        assertThat(unit("exhaust")).isEmpty();

        click("#keep-picture");
        Path pictures = new Places(home).pictures();
        awaitText("#notice", "Picture saved");
        try (Stream<Path> saved = Files.list(pictures)) {
            List<Path> files = saved.sorted().toList();
            assertThat(files).hasSize(2);
            List<String> table = Files.readAllLines(files.get(0));
            assertThat(table.stream().filter(line -> line.startsWith("\"exhaust\",")))
                    .singleElement()
                    .satisfies(line ->
                            assertThat(Double.parseDouble(line.split(",")[1])).isBetween(60.0, 80.0));
            String[] lastRow = table.get(table.size() - 1).split(",");
            assertThat(lastRow).hasSize(32);
            assertThat(Files.size(files.get(1))).isGreaterThan(2000);
        }

        robot.interact(() -> workspace().recordings().start(RecordingLimit.ofSamples(8)));
        until(s -> !s.recording().running() && s.recording().rows() == 8);
        eventually(() -> assertThat(fx(() -> workspace().takes().all().get())).isNotEmpty());
        Path take = fx(() -> workspace().takes().all().get().get(0).file());
        robot.interact(() -> workspace().open(take));
        Snapshot stored = until(s -> !s.streams().isEmpty()
                && s.streams().get(0).film() != null
                && s.streams().get(0).film().end() == 8
                && s.channel("exhaust").isPresent());
        Film kept = stored.streams().get(0).film();
        robot.interact(() -> {
            workspace().view().focus().set("exhaust");
            workspace().view().stop().set(Stop.READ);
        });
        awaitNode("#film-strip");
        double value = most(kept.frame(7), 15, 27, 9, 20);
        assertThat(stored.channel("exhaust").orElseThrow().clean().value(7)).isCloseTo(value, within(1e-4));
        // A line has a profile; how small a spot can be read is worked out; a picture of a hot spot is no lid.
        awaitNode("#film-strip");
        eventually(() ->
                assertThat(robot.lookup("#profile-plot").query().isVisible()).isTrue());
        eventually(
                () -> assertThat(fx(() -> robot.lookup("#film-profile").query().isVisible()))
                        .isFalse());
        click("#draw-line");
        robot.drag(pixel(3, 12), MouseButton.PRIMARY).dropTo(pixel(28, 12));
        until(s -> s.channel("line 1").isPresent());
        awaitText("#film-profile .label", "Along line 1");
        write("#view-angle", "55");
        write("#view-distance", "2");
        awaitText("#spot-size", "A pixel sees 65");
        click("#lid");
        awaitText("#mend-words", "This does not look like one temperature");
        robot.clickOn("#play");
        awaitText("#film-time", "at 1.");
        TextField lines = robot.lookup("#contours").query();
        robot.interact(() -> lines.setText("40, 60"));
        awaitText("#film-time", "at 0.");
    }

    private String unit(String column) {
        return snapshot().channel(column).orElseThrow().channel().unit();
    }
}
