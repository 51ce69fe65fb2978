package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.app.window.drawing.PlotProbe;
import zesty.signal.core.read.Reading;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.Snapshot;

/**
 * A forearm that pulls when the test says: rest and hardest pull captured by guidance, places ranked, a motor named, hum
 * taken out, all in the real window while a recording runs.
 */
@Timeout(400)
class MuscleWindowTest extends RealWindow {
    private static final int RATE = 1000;

    private ServerSocket server;
    private volatile double pull;
    private volatile double rest = 20;
    private volatile double hum;
    private volatile int motor;

    MuscleWindowTest() {
        super(false);
    }

    @BeforeEach
    void plug() throws Exception {
        server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
        Thread board = new Thread(this::serve, "forearm of the test");
        board.setDaemon(true);
        board.start();
        robot.interact(() -> workspace().live().connect("tcp:127.0.0.1:" + server.getLocalPort()));
        until(s -> s.channels().size() == 2
                && s.channel("muscle").orElseThrow().clean().end() > RATE);
        robot.interact(() -> workspace().view().focus().set("muscle"));
        robot.interact(() -> workspace().change(rig -> rig.withReader(ReaderSetup.on("muscle", "muscle", Map.of()))
                .acknowledging(Caution.BODY)));
        key(KeyCode.DIGIT5);
        awaitNode("#capture-rest");
    }

    @AfterEach
    void unplug() throws Exception {
        server.close();
    }

    private void serve() {
        try (Socket caller = server.accept()) {
            OutputStream out = caller.getOutputStream();
            out.write("t_us,muscle,motor\n".getBytes(StandardCharsets.US_ASCII));
            Random random = new Random(9);
            long begin = System.nanoTime();
            for (long i = 0; ; ) {
                long due = (System.nanoTime() - begin) / (1_000_000_000 / RATE);
                StringBuilder lines = new StringBuilder();
                for (; i < due; i++) {
                    double noise = Math.hypot(rest, motor > 0 ? 80 : 0);
                    double x = Math.hypot(noise, pull) * random.nextGaussian()
                            + hum * Math.sin(2 * Math.PI * 50 * i / RATE);
                    lines.append(i * 1000)
                            .append(',')
                            .append(Math.round(4000 + x))
                            .append(',')
                            .append(motor)
                            .append('\n');
                }
                out.write(lines.toString().getBytes(StandardCharsets.US_ASCII));
                out.flush();
                TimeUnit.MILLISECONDS.sleep(10);
            }
        } catch (Exception e) {
            // The test is over: it closes the socket under this.
        }
    }

    private Reading muscle(Snapshot snapshot) {
        return snapshot.channel("muscle").orElseThrow().reader().orElseThrow().reading();
    }

    private String setting(Snapshot snapshot, String key) {
        return snapshot.rig().readersOn("muscle").get(0).checked().text(key);
    }

    @Test
    void restAndTheHardestPullAreCapturedByGuidanceAndPercentFollowsLive() throws Exception {
        robot.interact(() -> workspace().recordings().start(RecordingLimit.NONE));
        until(s -> s.recording().running());
        press("#capture-rest");
        awaitText("#guide-says", "Let it rest");
        Snapshot rested = until(s -> !setting(s, "rest-level").equals("auto"));
        // The high-pass of the reader takes 6 % of the power of white noise.
        assertThat(Double.parseDouble(setting(rested, "rest-level"))).isCloseTo(20 * Math.sqrt(0.94), within(1.0));
        press("#capture-hardest");
        awaitText("#guide-says", "Pull as hard as you can");
        pull = 1000;
        Snapshot pulled = until(s -> !setting(s, "hardest").equals("auto"));
        double hardest = Double.parseDouble(setting(pulled, "hardest"));
        // The envelope is an RMS over 0.1 s: its highest in 5 s lies some spreads above the mean.
        assertThat(hardest).isBetween(1000.0, 1400.0);
        pull = 500;
        until(s -> Math.abs(muscle(s).scalar("percent") - 100 * 480 / hardest) < 9);
        pull = 0;
        until(s -> muscle(s).scalar("percent") < 3);

        // The line of the hardest is pulled to half its height: what was 100 % is 200 % now.
        double before = hardest;
        Node plot = robot.lookup("#strengths").query();
        PlotProbe probe = new PlotProbe(plot);
        Bounds there = still("#strengths");
        double top = there.getMinY() + fx(() -> probe.pixelOf(100));
        double half = there.getMinY() + fx(() -> probe.pixelOf(50));
        robot.drag(new Point2D(there.getMinX() + 90, top), MouseButton.PRIMARY)
                .dropTo(new Point2D(there.getMinX() + 90, half));
        until(s -> Math.abs(Double.parseDouble(setting(s, "hardest")) - before / 2) < 0.08 * before);
        key(KeyCode.U);
        until(s -> Double.parseDouble(setting(s, "hardest")) == before);
        // Under the pointer a pull says its percent. The lanes are held still: on a slow machine it would pass by.
        double began = snapshot().nowSeconds(System.nanoTime());
        pull = 500;
        until(s -> muscle(s).events("bursts").stream()
                .anyMatch(one -> one.startSeconds() > began - 0.5 && one.endSeconds() > one.startSeconds() + 1.4));
        pull = 0;
        // A step back in time hides the newest four seconds.
        until(s -> s.nowSeconds(System.nanoTime()) > began + 8);
        key(KeyCode.LEFT);
        double from = fx(() -> workspace().shown().window().from());
        double to = from + fx(() -> workspace().shown().window().span());
        double pulledAt = muscle(snapshot()).events("bursts").stream()
                        .filter(pull -> pull.endSeconds() > pull.startSeconds() + 1.2
                                && pull.startSeconds() + 1 > from + 0.5
                                && pull.startSeconds() + 1 < to - 0.5)
                        .findFirst()
                        .orElseThrow()
                        .startSeconds()
                + 1;
        Node lane = robot.lookup(".lane-plot").query();
        Point2D over = fx(() -> lane.localToScreen(
                (pulledAt - workspace().shown().window().from())
                        / workspace().shown().window().span()
                        * lane.getBoundsInLocal().getWidth(),
                30));
        robot.moveTo(over);
        awaitText(".lane-read-out", "pull of ");
        // The card is put away by its key, comes back by its button, and is pinned by its key.
        Node card = robot.lookup(".card").query();
        robot.interact(() -> workspace().view().stop().set(null));
        robot.interact(card::requestFocus);
        strike(KeyCode.DELETE);
        awaitNode("#cards-back");
        eventually(() ->
                assertThat(fx(() -> workspace().view().cards().get().hidden())).containsExactly("muscle"));
        press("#cards-back");
        eventually(() ->
                assertThat(fx(() -> workspace().view().cards().get().hidden())).isEmpty());
        robot.interact(() -> robot.lookup(".card").query().requestFocus());
        strike(KeyCode.P);
        eventually(() ->
                assertThat(fx(() -> workspace().view().cards().get().pinned())).hasSize(1));
        // What was done on the bench never disturbed the recording.
        Snapshot still = snapshot();
        assertThat(still.recording().running()).isTrue();
        assertThat(still.recording().lostRows()).isZero();
    }

    private void threePulls(String place) throws Exception {
        TextField field = robot.lookup("#place").query();
        robot.interact(() -> field.setText(place));
        press("#place-trial");
        for (int i = 0; i < 3; i++) {
            TimeUnit.MILLISECONDS.sleep(700);
            pull = 600;
            TimeUnit.MILLISECONDS.sleep(700);
            pull = 0;
        }
        TimeUnit.MILLISECONDS.sleep(700);
        press("#place-trial");
        awaitText("#places .bench-line", place);
    }

    private List<String> ranks() {
        return fx(() -> robot.lookup("#places .bench-line").queryAllAs(Label.class).stream()
                .map(Label::getText)
                .toList());
    }

    @Test
    void threePlacesAreRankedAndTheBestIsKept() throws Exception {
        rest = 150;
        threePulls("on the wrist");
        rest = 20;
        threePulls("on the belly");
        hum = 500;
        threePulls("by the lamp");
        hum = 0;
        List<String> ranks = ranks();
        assertThat(ranks).hasSize(3);
        assertThat(ranks.get(0)).startsWith("1  on the belly").contains("dB above rest");
        assertThat(ranks).anyMatch(text -> text.contains("by the lamp") && text.contains("mains makes"));
        press("#take-place-1");
        until(s -> setting(s, "place").equals("on the belly"));
        key(KeyCode.U);
        until(s -> setting(s, "place").isEmpty());
    }

    @Test
    void aMotorOnTheSameSupplyIsNamedAsTheCulpritAndHumIsTakenOut() throws Exception {
        hum = 150;
        for (int i = 0; i < 5; i++) {
            motor = i % 2 == 0 ? 60 : 0;
            TimeUnit.MILLISECONDS.sleep(1200);
        }
        motor = 0;
        awaitText(".doctor-name", "Noise like another");
        awaitText("#doctor .bench-line", "motor runs on the same supply");
        awaitText(".lane-trust", "noise like another");

        key(KeyCode.DIGIT4);
        Label name = robot.lookup(".doctor-name").queryAs(Label.class);
        until(
                s -> workspace().doctor().of("muscle").stream()
                        .anyMatch(f -> f.diagnosis().words().equals("hum")),
                40);
        for (int i = 0; i < 100 && !fx(name::getText).equals("Hum"); i++) {
            robot.lookup("#doctor .small-button").queryAllAs(Button.class).stream()
                    .filter(button -> button.getText().equals("hum"))
                    .findFirst()
                    .ifPresent(button -> robot.interact(button::fire));
            TimeUnit.MILLISECONDS.sleep(100);
        }
        assertThat(fx(name::getText)).isEqualTo("Hum");
        // The other looks at the same signal: its steps, and its spectrum over time.
        ToggleButton steps = robot.lookup("#view-histogram").queryAs(ToggleButton.class);
        robot.interact(steps::fire);
        awaitText("#view-words", "One step is 1, the noise of one sample");
        ToggleButton time = robot.lookup("#view-waterfall").queryAs(ToggleButton.class);
        robot.interact(time::fire);
        awaitText("#view-words", "Each row is");
        press("#doctor-act");
        until(s -> s.rig().channels().stream().anyMatch(c -> c.recipe().text().startsWith("notch:50@15")));
        // Of 150 high, a notch leaves nothing once it has settled.
        until(s -> s.channel("muscle").orElseThrow().level().noise() < 40);
        key(KeyCode.U);
        until(s -> s.rig().channels().stream().allMatch(c -> c.recipe().steps().isEmpty()));
        key(KeyCode.SHIFT, KeyCode.U);
        until(s -> s.rig().channels().stream().anyMatch(c -> c.recipe().text().startsWith("notch:50@15")));
    }
}
