package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.TimeUnit;
import javafx.scene.control.Button;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.rig.Caution;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.Snapshot;

/** Boards of other people, in the real window, as a new user meets them. */
@Timeout(400)
class AnyBoardWindowTest extends RealWindow {
    AnyBoardWindowTest() {
        super(false);
    }

    /** Takes a made-up board where it sits; while something runs, their socket is opened first. */
    private void plug(String board) throws Exception {
        awaitNode("#open-simulated");
        Button button = robot.lookup("#plug-" + board).queryButton();
        if (!fx(() -> button.getParent().getParent().getParent().isVisible())) {
            click("#open-simulated");
        }
        // Not by the mouse: with many sources the dinghy may have to be scrolled to.
        robot.interact(button::fire);
    }

    @ParameterizedTest
    @CsvSource({"locker,2", "cowling,3"})
    void fromNothingToLiveLanesInOneClick(String board, int lanes) throws Exception {
        plug(board);
        Snapshot live =
                until(s -> s.health().state() == LinkState.LIVE && s.channels().size() == lanes && s.hasSamples());
        assertThat(live.health().rejectedLines()).isLessThan(8);
        key(KeyCode.ESCAPE);
        awaitText(".lane-how", "/s");
    }

    @Test
    void whatIsChangedBeforeTheFormatIsKnownAndTakenBackCostsNoChannel() throws Exception {
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            int port = server.getLocalPort();
            robot.interact(() -> workspace().live().connect("tcp:127.0.0.1:" + port));
            try (Socket board = server.accept()) {
                until(s -> s.rig().source().contains(String.valueOf(port)));
                robot.interact(() -> workspace().change(rig -> rig.acknowledging(Caution.BODY)));
                key(KeyCode.U);
                for (int i = 0; i < 100; i++) {
                    String line = i == 0 ? "depth,heat\n" : i + "," + (20 + i % 3) + "\n";
                    board.getOutputStream().write(line.getBytes(StandardCharsets.US_ASCII));
                    TimeUnit.MILLISECONDS.sleep(10);
                }
                until(s -> s.channels().size() == 2 && s.hasSamples());
            }
        }
    }

    @Test
    void aLineIsSentAndAnsweredAndTheBoardUnplugsAndComesBack() throws Exception {
        robot.interact(() -> workspace().live().connect("sim:cupboard"));
        until(s -> s.health().state() == LinkState.LIVE);
        write("#order", "heat 35");
        until(s -> s.channel("heat").filter(c -> c.latestRaw() == 35).isPresent());
        awaitText("#sent", "heat 35  \u2192  {\"done\":\"heat 35\"}");
        robot.interact(() -> workspace().live().connect("sim:motion+unplug"));
        until(s -> s.health().state() == LinkState.LOST);
        awaitText(".link-state", "lost");
        Snapshot back = until(s -> s.health().state() == LinkState.LIVE
                && s.health().reconnects() == 1
                && s.health().lostRows() > 0);
        assertThat(back.health().lostRows()).isBetween(100L, 400L);
    }

    @Test
    void anotherBoardRunsBesideTheFirstAndIsLetGo() throws Exception {
        plug("hull");
        until(s -> s.channels().size() == 3 && s.hasSamples());
        click("#beside");
        plug("cupboard");
        Snapshot both = until(s -> s.links().size() == 2 && s.channels().size() == 6);
        assertThat(both.rig().sources().get(1).name()).isEqualTo("cupboard");
        awaitText("#health", "onto the common time line");
        // The bench is at the source just added; lines go to that board, and the Decode bench shows its format.
        write("#order", "heat 20");
        until(s -> s.channel("cupboard/heat").filter(c -> c.latestRaw() == 20).isPresent());
        robot.interact(() -> workspace().recordings().start(RecordingLimit.ofSeconds(3)));
        Snapshot kept = until(s -> s.recording().file() != null
                && !s.recording().running()
                && s.recording().rows() > 0);
        click("#source-0");
        awaitText("#health", "kB/s · samples 1");
        click("#source-1");
        awaitNode("#leave-1");
        click("#leave-1");
        until(s -> s.links().size() == 1 && s.channels().size() == 3);
        awaitText("#notice", "Disconnected: sim:cupboard");

        // The take has two sources, where only one runs by now: its channels are there, the bench stays at what runs.
        robot.interact(() -> workspace().open(kept.recording().file()));
        until(s -> s.health().state() == LinkState.STORED && s.channels().size() == 6);
        eventually(() -> assertThat(workspace().view().stop().get()).isNull());
        robot.interact(() -> workspace().view().stop().set(Stop.SOURCE));
        robot.interact(() -> workspace().view().focus().set("cupboard/heat"));
        awaitText("#health", "kB/s · samples 1");
    }

    @Test
    void aFormatIsEditedByHandTriedAndTakenBack() throws Exception {
        robot.interact(() -> workspace().live().connect("sim:hoist"));
        until(s -> s.channel("load").isPresent());
        key(KeyCode.DIGIT2);
        click("#by-hand");
        awaitNode("#column-name-2");
        TextField name = robot.lookup("#column-name-2").query();
        robot.interact(() -> name.setText("t_ms"));
        awaitText("#format-verdict", "two columns are called 't_ms'. The old format stays in force.");
        robot.interact(() -> name.setText("hook"));
        awaitText("#format-verdict", "understands 9");
        click("#format-use");
        until(s -> s.channel("hook").filter(c -> c.latestRaw() > 80_000).isPresent());
        key(KeyCode.U);
        until(s -> s.channel("load").isPresent() && s.channel("hook").isEmpty());
    }

    @Test
    void aSetAsideLineIsTaughtAsColumnsAndAnotherAsABanner() throws Exception {
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            int port = server.getLocalPort();
            robot.interact(() -> workspace().live().connect("tcp:127.0.0.1:" + port));
            Thread board = new Thread(() -> talk(server), "talking board");
            board.setDaemon(true);
            board.start();
            until(s -> s.health().state() == LinkState.LIVE && s.health().rejectedLines() > 3);
            key(KeyCode.DIGIT2);
            choose("still alive");
            click("#teach-banner");
            until(s -> s.health().aside().stream().noneMatch(i -> i.text().contains("still alive")));
            until(s -> s.health().aside().stream().anyMatch(i -> i.text().startsWith("a=")));
            choose("a=");
            click("#teach-columns");
            Snapshot taught = until(s -> s.rig().format().indexOf("depth") >= 0);
            assertThat(taught.rig().format().columns())
                    .extracting(c -> c.name())
                    .contains("a", "depth");
        }
    }

    private void choose(String part) throws Exception {
        until(s -> s.health().aside().stream().anyMatch(i -> i.text().contains(part)));
        ListView<RejectedLines.Item> tray = robot.lookup("#tray").query();
        for (int i = 0; i < 40; i++) {
            boolean chosen = fx(() -> {
                for (RejectedLines.Item item : tray.getItems()) {
                    if (item.text().contains(part)) {
                        tray.getSelectionModel().select(item);
                        return true;
                    }
                }
                return false;
            });
            if (chosen) {
                return;
            }
            TimeUnit.MILLISECONDS.sleep(50);
        }
        throw new AssertionError("no line in the tray says " + part);
    }

    /** Mostly one label a line, now and then two, now and then a banner. */
    private static void talk(ServerSocket server) {
        try (Socket socket = server.accept();
                OutputStream out = socket.getOutputStream()) {
            for (int i = 0; i < 6000; i++) {
                String line = i % 40 == 39
                        ? "still alive, " + i + " turns\n"
                        : i % 40 == 20 ? "a=" + i % 50 + " depth=" + i % 9 + "\n" : "a=" + i % 50 + "\n";
                out.write(line.getBytes(StandardCharsets.US_ASCII));
                out.flush();
                TimeUnit.MILLISECONDS.sleep(10);
            }
        } catch (Exception e) {
            // The window has what it wanted.
        }
    }

    @Test
    void whatIsWrongWithAPortIsSaidInPlace() throws Exception {
        robot.interact(() -> workspace().live().connect("serial:/dev/no-such-port@9600"));
        until(s -> s.health().state() == LinkState.LOST);
        awaitText(".hint", "port /dev/no-such-port is not there. Is the board plugged in?");
        robot.interact(() -> workspace().live().connect("serial:/dev/no-such-port@9600,9X9"));
        awaitText("#notice", "'9X9' is no setting of a serial line");
        write("#stated-rate", "-3");
        awaitText("#notice", "A stated rate is a number of samples a second above 0, was '-3'.");
        write("#stated-rate", "250");
        eventually(() ->
                assertThat(workspace().shown().rig().link().statedRateHz()).isEqualTo(250));
    }
}
