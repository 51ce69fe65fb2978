package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.OutputStream;
import java.lang.ref.WeakReference;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Snapshot;

/** The Source bench with a board that the test plays: the ribbon of its bytes, orders and answers, sockets of every sort. */
@Timeout(400)
class SourceWindowTest extends RealWindow {
    private ServerSocket server;
    private final AtomicBoolean silent = new AtomicBoolean();

    SourceWindowTest() {
        super(false);
    }

    @BeforeEach
    void board() throws Exception {
        server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
        Thread board = new Thread(this::talk, "played board");
        board.setDaemon(true);
        board.start();
    }

    @AfterEach
    void unplug() throws Exception {
        server.close();
    }

    /** Twenty lines a second; what it is told is answered; silent when the test says so, and then all at once. */
    private void talk() {
        try (Socket socket = server.accept();
                OutputStream out = socket.getOutputStream()) {
            StringBuilder waits = new StringBuilder("depth,speed\n");
            StringBuilder told = new StringBuilder();
            for (int i = 0; ; i++) {
                waits.append(300 + i % 7).append(',').append(i % 5).append('\n');
                while (socket.getInputStream().available() > 0) {
                    char c = (char) socket.getInputStream().read();
                    if (c == '\n' || c == '\r') {
                        waits.append("ok ").append(told).append(c == '\r' ? " by return\n" : "\n");
                        told.setLength(0);
                    } else {
                        told.append(c);
                    }
                }
                if (!silent.get()) {
                    out.write(waits.toString().getBytes(StandardCharsets.US_ASCII));
                    out.flush();
                    waits.setLength(0);
                }
                TimeUnit.MILLISECONDS.sleep(50);
            }
        } catch (Exception e) {
            // The window has what it wanted.
        }
    }

    private void connect() throws Exception {
        robot.interact(() -> {
            workspace().live().connect("tcp:127.0.0.1:" + server.getLocalPort());
            workspace().view().stop().set(Stop.SOURCE);
        });
        until(s -> s.health().state() == LinkState.LIVE && s.channels().size() == 2 && s.hasSamples());
    }

    private List<String> texts(String query) {
        return fx(() -> robot.lookup(query).queryAllAs(Label.class).stream()
                .map(Label::getText)
                .toList());
    }

    private void turn(String id) {
        robot.interact(() -> robot.lookup(id).queryAs(ToggleButton.class).fire());
    }

    @Test
    void theRibbonShowsPiecesSilencesBytesAndStandsStill() throws Exception {
        connect();
        awaitText(".ribbon-name", "depth");
        awaitText(".ribbon-text", "30");
        // A stall, and all that waited in one go.
        silent.set(true);
        TimeUnit.MILLISECONDS.sleep(1200);
        silent.set(false);
        awaitText("#stall", "s of silence, then ");
        awaitText("#stall", "lines at once: they waited on the way");

        turn("#bytes-hex");
        // The digit 3 is 33 in hexadecimal, and every depth begins with it.
        awaitText(".ribbon-bytes", "33 30 3");
        turn("#bytes-hex");
        turn("#bytes-only");
        awaitText(".ribbon-text", "0A 33 30");
        turn("#bytes-only");

        turn("#bytes-hold");
        ListView<?> held = robot.lookup("#bytes").queryAs(ListView.class);
        int before = fx(() -> held.getItems().size());
        long rows = snapshot().health().rows();
        until(s -> s.health().rows() > rows + 30);
        assertThat(fx(() -> held.getItems().size())).isEqualTo(before).isGreaterThan(20);
        robot.interact(
                () -> robot.lookup("#bytes-search").queryAs(TextField.class).setText("306"));
        int found = fx(() -> held.getItems().size());
        // Every seventh line says 306.
        assertThat(found).isBetween(before / 7 - 3, before / 7 + 3);
        robot.interact(
                () -> robot.lookup("#bytes-search").queryAs(TextField.class).clear());
        turn("#bytes-hold");
        awaitText(".ribbon-text", "30");
    }

    @Test
    void ordersStandBesideTheirAnswersAreKeptAndTakenAway() throws Exception {
        connect();
        write("#order", "range 4");
        awaitText("#sent", "range 4  \u2192  ok range 4");
        // What it answered is no row: it lies in the pocket, and Decode is one press away.
        until(s -> s.health().rejectedLines() > 0);
        Button ending = robot.lookup("#ending").queryAs(Button.class);
        robot.interact(ending::fire);
        eventually(() -> assertThat(fx(ending::getText)).isEqualTo("ends: return"));
        write("#order", "zero");
        awaitText("#sent", "zero  \u2192  ok zero by return");
        robot.interact(() -> robot.lookup("#keep-order").queryAs(Button.class).fire());
        until(s -> s.rig().link().orders().equals(List.of("zero")));
        key(javafx.scene.input.KeyCode.U);
        until(s -> s.rig().link().orders().isEmpty());
        robot.interact(() ->
                robot.lookup("#pocket .small-button").queryAs(Button.class).fire());
        eventually(() -> assertThat(workspace().view().stop().get()).isEqualTo(Stop.DECODE));
    }

    @Test
    void aFileAnAddressAndDatagramsArePluggedInFromTheirSockets() throws Exception {
        StringBuilder text = new StringBuilder("t_ms,level\n");
        for (int i = 0; i < 400; i++) {
            text.append(i * 10).append(',').append(i % 50).append('\n');
        }
        Path file = Files.writeString(home.resolve("log.txt"), text);
        click("#open-address");
        awaitNode("#address");
        write("#address", "file:" + file);
        Snapshot over = until(s -> s.health().state() == LinkState.OVER && s.lastSeconds() > 3.9);
        assertThat(over.health().rows()).isEqualTo(400);

        // What was used is listed, and the list that grew moves what lies under it.
        awaitText(".socket-about", "one source");
        // Packets from this computer alone, until another is let in.
        click("#open-network");
        awaitNode("#plug-udp");
        CheckBox anyone = robot.lookup("#anyone").queryAs(CheckBox.class);
        assertThat(fx(anyone::isSelected)).isFalse();
        int port;
        try (DatagramSocket free = new DatagramSocket(0)) {
            port = free.getLocalPort();
        }
        Set<TextField> fields =
                fx(() -> Set.copyOf(robot.lookup(".socket .text-field").queryAllAs(TextField.class)));
        TextField where = fields.stream()
                .filter(f -> fx(f::getText).equals("7070"))
                .findFirst()
                .orElseThrow();
        robot.interact(() -> where.setText(String.valueOf(port)));
        click("#plug-udp");
        until(s -> s.rig().source().equals("udp:127.0.0.1:" + port));
        try (DatagramSocket sender = new DatagramSocket()) {
            for (int i = 0; i < 80; i++) {
                byte[] line = ("wind=" + i % 9 + " gust=" + i % 4 + "\n").getBytes(StandardCharsets.US_ASCII);
                sender.send(new DatagramPacket(line, line.length, InetAddress.getLoopbackAddress(), port));
                TimeUnit.MILLISECONDS.sleep(25);
            }
        }
        until(s -> s.channel("wind").isPresent() && s.channel("gust").isPresent());
        // What was used lately is one press away.
        click("#open-lately");
        eventually(() -> assertThat(fx(() -> robot.lookup(".plug").queryAll().stream()
                        .anyMatch(node -> ("again-file:" + file).equals(node.getId()))))
                .isTrue());
    }

    @Test
    void aStationThatFallsSilentLooksSoInTheTrailWhileItsNeighboursLive() throws Exception {
        robot.interact(() -> {
            workspace().live().connect("sim:battery");
            workspace().view().stop().set(null);
        });
        until(s -> s.channels().size() >= 5 && s.hasSamples());
        // One of the six is silent at times: its lane, its card and the trail say so while the link lives.
        Snapshot seen = until(
                s -> s.health().state() == LinkState.LIVE
                        && s.channels().stream()
                                .anyMatch(c -> s.state(c.stream(), System.nanoTime()) == LinkState.LOST),
                90);
        String lost = seen.channels().stream()
                .filter(c -> seen.state(c.stream(), System.nanoTime()) == LinkState.LOST)
                .findFirst()
                .orElseThrow()
                .channel()
                .column();
        robot.interact(() -> workspace().view().focus().set(lost));
        awaitText(".stop-how", "lost");
        eventually(() -> assertThat(texts(".stop-value")).contains("\u2014"));
        String live = seen.channels().stream()
                .filter(c -> seen.state(c.stream(), System.nanoTime()) == LinkState.LIVE)
                .findFirst()
                .orElseThrow()
                .channel()
                .column();
        robot.interact(() -> workspace().view().focus().set(live));
        awaitText(".stop-how", "live");
    }

    @Test
    void lanesThatGoAreLetGoOf() throws Exception {
        List<WeakReference<Node>> gone = new ArrayList<>();
        for (String board : List.of("deck", "motion", "deck", "hull")) {
            robot.interact(() -> {
                workspace().live().connect("sim:" + board);
                workspace().view().stop().set(null);
            });
            until(s -> s.rig().source().equals("sim:" + board) && s.hasSamples());
            awaitNode(".lane");
            fx(() -> {
                robot.lookup(".lane").queryAll().forEach(lane -> gone.add(new WeakReference<>(lane)));
                return null;
            });
        }
        // Those of the last board are still there: three of them, one an axis.
        long kept = gone.size();
        for (int i = 0; i < 100 && kept > 6; i++) {
            System.gc();
            TimeUnit.MILLISECONDS.sleep(100);
            kept = gone.stream().filter(lane -> lane.get() != null).count();
        }
        assertThat(kept).as("of %d lanes", gone.size()).isLessThanOrEqualTo(6);
    }
}
