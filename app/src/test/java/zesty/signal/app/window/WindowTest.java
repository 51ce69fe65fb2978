package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;
import zesty.signal.app.window.desk.Places;
import zesty.signal.boards.sim.DeckBoard;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Sight;

/** In the real window, as a maker would use it for the first time. */
@Timeout(120)
class WindowTest {
    @TempDir
    static Path home;

    private final FxRobot robot = new FxRobot();
    private ZestyApplication application;

    @BeforeEach
    void open() throws Exception {
        FxToolkit.registerPrimaryStage();
        start();
    }

    private void start() throws Exception {
        application = (ZestyApplication) FxToolkit.setupApplication(
                () -> new ZestyApplication(new ZestyApplication.Opening(new Places(home), false, null)));
    }

    @AfterEach
    void close() throws Exception {
        FxToolkit.cleanupStages();
        FxToolkit.cleanupApplication(application);
    }

    private static <T> T fx(Callable<T> work) {
        return WaitForAsyncUtils.waitForAsyncFx(20_000, work);
    }

    private Sight sight() {
        return fx(() -> application.desk().sight(System.nanoTime()));
    }

    private Sight until(Predicate<Sight> condition) throws InterruptedException {
        for (int i = 0; i < 600; i++) {
            Sight sight = sight();
            if (condition.test(sight)) {
                return sight;
            }
            TimeUnit.MILLISECONDS.sleep(50);
        }
        throw new AssertionError("never came about: " + sight().health());
    }

    private void awaitText(String query, String part) throws InterruptedException {
        for (int i = 0; i < 200; i++) {
            if (robot.lookup(query)
                    .tryQuery()
                    .map(n -> ((Label) n).getText().contains(part))
                    .orElse(false)) {
                return;
            }
            TimeUnit.MILLISECONDS.sleep(50);
        }
        throw new AssertionError(query + " never said '" + part + "'");
    }

    @Test
    void fromABoardToAPulseInAKeptTakeAndOut() throws Exception {
        robot.clickOn("#plug-deck");
        until(s -> s.health().state() == LinkState.LIVE && s.channels().size() == 5);
        robot.press(KeyCode.DIGIT5).release(KeyCode.DIGIT5);
        robot.clickOn("#read-pulse");
        until(s -> s.channels().get(0).pulse() != null
                && s.channels().get(0).pulse().present());
        robot.press(KeyCode.ESCAPE).release(KeyCode.ESCAPE);

        robot.clickOn("#record");
        until(s -> s.recording().running());
        robot.clickOn("#mark").write("tack").type(KeyCode.ENTER);
        until(s -> s.recording().seconds() > 12);
        robot.clickOn("#record");
        until(s -> !s.recording().running());
        awaitText("#notice", "Take kept");

        robot.clickOn("#takes");
        WaitForAsyncUtils.waitFor(
                10, TimeUnit.SECONDS, () -> robot.lookup("Open").tryQuery().isPresent());
        robot.clickOn("Open");
        Sight stored = until(s -> s.health().state() == LinkState.STORED);
        assertThat(fx(() -> application.desk().marks())).singleElement().satisfies(mark -> assertThat(mark.text())
                .isEqualTo("tack"));

        // The board's clock in the take's first row tells which stretch of the truth was recorded.
        List<String> sent = lines(12_000);
        DeckBoard board = new DeckBoard(DeckBoard.Settings.usual(1));
        for (int i = 0; i < 12_000; i++) {
            board.next(new ByteArrayOutputStream());
        }
        robot.clickOn("#takes");
        robot.clickOn("Export");
        Path csv = home.resolve("out.csv");
        TextField path = robot.lookup("#export-path").query();
        fx(() -> {
            path.setText(csv.toString());
            return null;
        });
        robot.clickOn("#export-write");
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
        assertThat(stored.channels().get(0).pulse().meanBpm()).isCloseTo(rate, within(1.0));

        // The next start finds the rig, with its source and its reader, as it was left.
        close();
        open();
        Sight next =
                until(s -> s.health().state() == LinkState.LIVE && !s.channels().isEmpty());
        assertThat(next.rig().source()).isEqualTo("sim:deck");
        assertThat(next.rig().pulseOn("pulse")).isPresent();
    }

    private static List<String> lines(int count) {
        DeckBoard board = new DeckBoard(DeckBoard.Settings.usual(1));
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        for (int i = 0; i < count; i++) {
            board.next(bytes);
        }
        return bytes.toString(StandardCharsets.US_ASCII).lines().toList();
    }

    @Test
    void whatGoesWrongIsSaidWhereItHappensAndChangesCanBeTakenBack() throws Exception {
        robot.interact(() -> application.desk().connect("serial:/dev/ttyNone@115200"));
        Sight lost = until(s -> s.health().state() == LinkState.LOST);
        assertThat(lost.health().reason()).contains("/dev/ttyNone is not there. Is the board plugged in?");
        robot.interact(() -> application.desk().connect("serial:/dev/ttyNone"));
        awaitText("#notice", "a serial port needs a path and a speed");

        robot.interact(() -> {
            application.desk().stop().set(null);
            application.desk().connect("sim:deck");
        });
        until(s -> s.channels().size() == 5 && s.times() != null);
        robot.clickOn("#for-samples");
        robot.doubleClickOn("#amount").write("many");
        robot.clickOn("#record");
        awaitText("#notice", "'many' is no whole number of samples; write for example 600.");

        robot.interact(() -> application.desk().focus().set("heel"));
        robot.interact(() -> robot.lookup("#takes").query().getScene().getRoot().requestFocus());
        robot.press(KeyCode.H).release(KeyCode.H);
        until(s -> !s.channel("heel").orElseThrow().channel().shown());
        robot.press(KeyCode.U).release(KeyCode.U);
        until(s -> s.channel("heel").orElseThrow().channel().shown());
        robot.press(KeyCode.DIGIT4).release(KeyCode.DIGIT4);
        robot.clickOn("#recipe").write("lowpass:300@2").type(KeyCode.ENTER);
        WaitForAsyncUtils.waitFor(5, TimeUnit.SECONDS, () -> robot.lookup(".error").queryAllAs(Label.class).stream()
                .anyMatch(l -> l.getText().contains("must be below 100 Hz")));
        assertThat(sight().rig().channels()).allMatch(c -> c.recipe().steps().isEmpty());
        robot.press(KeyCode.ESCAPE).release(KeyCode.ESCAPE);
        robot.press(KeyCode.ESCAPE).release(KeyCode.ESCAPE);
        robot.press(KeyCode.SHIFT).press(KeyCode.SLASH).release(KeyCode.SLASH).release(KeyCode.SHIFT);
        WaitForAsyncUtils.waitFor(5, TimeUnit.SECONDS, () -> robot.lookup("#command-list")
                .tryQuery()
                .isPresent());
    }
}
