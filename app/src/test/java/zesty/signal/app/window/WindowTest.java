package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.geometry.Bounds;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.TextSize;
import zesty.signal.boards.sim.DeckBoard;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Snapshot;

/** In the real window, as a maker would use it for the first time. */
@Timeout(400)
class WindowTest extends RealWindow {
    /** Five minutes of the board's: a slow machine comes to record late. */
    private static final int LINES = 60_000;

    WindowTest() {
        super(false);
    }

    @Test
    void fromABoardToAPulseInAKeptTakeAndOut() throws Exception {
        click("#plug-deck");
        until(s -> s.health().state() == LinkState.LIVE && s.channels().size() == 5);
        key(KeyCode.DIGIT5);
        // The likeliest is first, says why, and has the keyboard.
        awaitText(".kind-fit", "Looks like one: 7");
        strike(KeyCode.ENTER);
        until(s -> s.channels().get(0).reader().isPresent()
                && s.channels().get(0).reader().get().headline() > 0);
        key(KeyCode.ESCAPE);

        click("#record");
        until(s -> s.recording().running());
        write("#mark", "tack");
        until(s -> s.recording().seconds() > 12);
        click("#record");
        until(s -> !s.recording().running());
        awaitText("#notice", "Recording saved");

        click("#takes");
        awaitNode("Open");
        click("Open");
        Snapshot stored = until(s -> s.health().state() == LinkState.STORED);
        eventually(() -> assertThat(fx(() -> workspace().shown().marks()))
                .singleElement()
                .satisfies(mark -> assertThat(mark.text()).isEqualTo("tack")));

        // The board's clock in the take's first row tells which stretch of the truth was recorded.
        List<String> sent = lines(LINES);
        DeckBoard board = new DeckBoard(DeckBoard.Settings.usual(1));
        for (int i = 0; i < LINES; i++) {
            board.next(new ByteArrayOutputStream());
        }
        click("#takes");
        click("Export");
        Path csv = home.resolve("out.csv");
        TextField path = robot.lookup("#export-path").query();
        fx(() -> {
            path.setText(csv.toString());
            return null;
        });
        click("#export-write");
        awaitText("#notice", "Exported to");
        List<String> rows = Files.readAllLines(csv);
        int first = sent.indexOf(rows.get(1).substring(rows.get(1).indexOf(',') + 1));
        assertThat(first).isNotNegative();
        for (int i = 1; i < rows.size(); i++) {
            assertThat(rows.get(i)).endsWith("," + sent.get(first + i - 1));
        }
        double from = first / 200.0;
        double to = (first + rows.size() - 1) / 200.0;
        List<Double> truth =
                board.pulse().truth().stream().filter(t -> t > from && t < to).toList();
        double rate = 60 * (truth.size() - 1) / (truth.get(truth.size() - 1) - truth.get(0));
        assertThat(stored.channels().get(0).reader().orElseThrow().headline()).isCloseTo(rate, within(1.0));

        // The next start finds the rig, with its source and its reader, the bench and the lane as they were left.
        robot.interact(() -> {
            workspace().backToLive();
            workspace().view().takesOpen().set(false);
            workspace().view().stop().set(Stop.CLEAN);
            workspace().view().focus().set("heel");
        });
        close();
        open();
        Snapshot next =
                until(s -> s.health().state() == LinkState.LIVE && !s.channels().isEmpty());
        assertThat(next.rig().source()).isEqualTo("sim:deck");
        assertThat(next.rig().readersOn("pulse")).isNotEmpty();
        eventually(() -> assertThat(workspace().view().stop().get()).isEqualTo(Stop.CLEAN));
        awaitText(".bench-title", "Clean \u00b7 heel");
    }

    private static List<String> lines(int count) {
        DeckBoard board = new DeckBoard(DeckBoard.Settings.usual(1));
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        for (int i = 0; i < count; i++) {
            board.next(bytes);
        }
        return bytes.toString(StandardCharsets.US_ASCII).lines().toList();
    }

    /** A window that opens on a board shows its lanes first; what stands around them comes later, and does not move them. */
    @Test
    void lanesComeFirstAndStayWhereTheyAre() throws Exception {
        connect("deck", 5);
        robot.interact(() -> {
            workspace().view().stop().set(null);
            Stage second = new Stage();
            MainView view = new MainView(workspace());
            Scene scene = new Scene(view, 1280, 800);
            scene.getStylesheets().setAll(StyleSheet.at(TextSize.USUAL));
            second.setScene(scene);
            second.show();
            long now = System.nanoTime();
            for (int i = 0; i < 3; i++) {
                view.frame(now);
                view.applyCss();
                view.layout();
            }
            assertThat(view.isPainted()).isTrue();
            assertThat(view.lookupAll("#record")).isEmpty();
            List<Bounds> first = lanes(view);
            assertThat(first).hasSize(5);
            for (int i = 1; i < 9; i++) {
                view.frame(now + i * 300_000_000L);
                view.applyCss();
                view.layout();
            }
            assertThat(view.lookupAll("#record")).hasSize(1);
            assertThat(view.lookupAll(".card")).hasSize(5);
            List<Bounds> then = lanes(view);
            for (int i = 0; i < 5; i++) {
                assertThat(then.get(i).getMinY()).isCloseTo(first.get(i).getMinY(), within(1.5));
                assertThat(then.get(i).getMaxY()).isCloseTo(first.get(i).getMaxY(), within(1.5));
                assertThat(then.get(i).getWidth()).isCloseTo(first.get(i).getWidth(), within(1.5));
            }
            second.close();
        });
    }

    private static List<Bounds> lanes(Parent view) {
        return view.lookupAll(".lane").stream()
                .map(lane -> lane.localToScene(lane.getBoundsInLocal()))
                .toList();
    }

    @Test
    void whatGoesWrongIsSaidWhereItHappensAndChangesCanBeTakenBack() throws Exception {
        robot.interact(() -> workspace().live().connect("serial:/dev/ttyNone@115200"));
        Snapshot lost = until(s -> s.health().state() == LinkState.LOST);
        assertThat(lost.health().reason()).contains("/dev/ttyNone is not there. Is the board plugged in?");
        robot.interact(() -> workspace().live().connect("serial:/dev/ttyNone"));
        awaitText("#notice", "a serial port needs a path and a speed");

        robot.interact(() -> {
            workspace().view().stop().set(null);
            workspace().live().connect("sim:deck");
        });
        until(s -> s.channels().size() == 5 && s.times() != null);
        click("#for-samples");
        robot.interact(() -> robot.lookup("#amount").queryAs(TextField.class).setText("many"));
        click("#record");
        awaitText("#notice", "'many' is no whole number of samples; write for example 600.");

        robot.interact(() -> workspace().view().focus().set("heel"));
        key(KeyCode.H);
        until(s -> !s.channel("heel").orElseThrow().channel().shown());
        key(KeyCode.U);
        until(s -> s.channel("heel").orElseThrow().channel().shown());
        key(KeyCode.DIGIT4);
        write("#recipe", "lowpass:300@2");
        awaitText(".error", "must be below 100 Hz");
        eventually(() -> assertThat(snapshot().rig().channels())
                .allMatch(c -> c.recipe().steps().isEmpty()));
        key(KeyCode.ESCAPE);
        key(KeyCode.ESCAPE);
        key(KeyCode.SHIFT, KeyCode.SLASH);
        awaitNode("#command-list");
    }
}
