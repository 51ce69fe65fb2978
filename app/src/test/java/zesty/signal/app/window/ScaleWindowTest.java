package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.SensorKind;
import zesty.signal.core.scale.Echo;
import zesty.signal.core.scale.Scaling;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.LineEnding;
import zesty.signal.engine.Snapshot;
import zesty.signal.takes.KindJson;

/** Scaling and proving in the real window, on a board whose readings the test sets like a knob. */
@Timeout(400)
class ScaleWindowTest extends RealWindow {
    private final AtomicReference<Double> knob = new AtomicReference<>(0.0);
    private ServerSocket server;

    ScaleWindowTest() {
        super(false);
    }

    @BeforeEach
    void board() throws Exception {
        server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
        Thread board = new Thread(this::talk, "knob board");
        board.setDaemon(true);
        board.start();
    }

    @AfterEach
    void unplug() throws Exception {
        server.close();
    }

    /** Fifty lines a second: a clock, the knob, and a little noise that is the same each time. */
    private void talk() {
        try (Socket socket = server.accept();
                OutputStream out = socket.getOutputStream()) {
            out.write("t_ms,sensor\n".getBytes(StandardCharsets.US_ASCII));
            for (int i = 0; ; i++) {
                double noise = i % 3 - 1;
                String line = i * 20 + ","
                        + (knob.get() == Math.rint(knob.get()) && Math.abs(knob.get()) > 10
                                ? Long.toString(Math.round(knob.get() + noise))
                                : Double.toString(knob.get() + 0.001 * noise))
                        + "\n";
                out.write(line.getBytes(StandardCharsets.US_ASCII));
                out.flush();
                TimeUnit.MILLISECONDS.sleep(20);
            }
        } catch (Exception e) {
            // The window has what it wanted.
        }
    }

    private void connect(double value) throws Exception {
        knob.set(value);
        robot.interact(() -> workspace().live().connect("tcp:127.0.0.1:" + server.getLocalPort()));
        until(s -> s.channel("sensor").filter(c -> c.raw().end() > 20).isPresent());
        key(KeyCode.DIGIT3);
        awaitNode("#prove");
    }

    private ChannelSnapshot sensor() {
        return snapshot().channel("sensor").orElseThrow();
    }

    private <T> void choose(String id, T value) throws Exception {
        awaitNode(id);
        @SuppressWarnings("unchecked")
        ComboBox<T> box = robot.lookup(id).queryAs(ComboBox.class);
        robot.interact(() -> box.setValue(value));
        frame(robot.lookup("#takes").query().getScene());
    }

    private static SensorKind kind(String name) {
        return SensorKind.all().stream()
                .filter(k -> k.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void fromCountsToCelsiusAndToFahrenheit() throws Exception {
        // 153 of 1024 steps of 5 V are 0.74707 V; less 0.5 V, at 10 mV a degree: 24.707 °C, which is 76.473 °F.
        connect(153);
        choose("#kind", kind("analog temperature, 0.5 V offset"));
        until(s -> s.channel("sensor")
                .filter(c -> Math.abs(c.latestClean() - 24.707) < 0.5)
                .isPresent());
        awaitText(".lane-unit", "°C");
        awaitText(".sum-result", "24.7");
        click("#all-digits");
        // Volts in full: 153, one count less or one more, of 1024 of 5 V.
        awaitText(".sum-result", "0.7");
        until(s -> robot.lookup(".sum-result").queryAllAs(Label.class).stream()
                .map(Label::getText)
                .anyMatch(text ->
                        List.of("0.7421875", "0.7470703125", "0.751953125").contains(text)));
        click("#all-digits");
        step("shown");
        choose("#shown-in", "°F");
        awaitText(".lane-unit", "°F");
        awaitText(".lane-value", "76.");
        eventually(() -> assertThat(sensor().latestClean()).isCloseTo(24.707, within(0.5)));
        step("converter");
        write("#reference", "0");
        awaitText("#scale-error", "the reference must be above 0 V, was 0.0 V. The old scaling stays in force.");
        key(KeyCode.U);
        awaitText(".lane-unit", "°C");
        click(".lane-unit");
        awaitText(".lane-unit", "°F");
        awaitText(".lane-value", "76.");
    }

    private void hold(double value, String meter) throws Exception {
        knob.set(value);
        awaitText("#needle", "Steady: " + Math.round(value) + " ");
        write("#meter", meter);
    }

    @Test
    void fourWeightsAreProvedAdoptedTaredAndTakenBack() throws Exception {
        connect(1000);
        click("#prove");
        hold(1000, "0");
        hold(3000, "20");
        hold(5000, "40.4");
        hold(7000, "60");
        // Through (1000,0) (3000,20) (5000,40.4) (7000,60): 10.02 a thousand, worst miss 0.28 at the third.
        awaitText("#verdict", "Largest error 0.28 at 40.4");
        write("#allowed", "0.5");
        // As it came, 1000 reads where 0 should be.
        awaitText("#verdict", "Fail: 0 of 4 readings within ± 0.5; the worst is off by 6900 at 60");
        robot.interact(() -> robot.lookup("#allowed").queryAs(TextField.class).clear());
        click("#adopt");
        Snapshot adopted = until(s -> s.channel("sensor")
                .filter(c -> Math.abs(c.latestClean() - 60.1) < 0.3)
                .isPresent());
        assertThat(adopted.channel("sensor").orElseThrow().channel().proof().points())
                .hasSize(4);
        awaitText("#needle", "Calibrated today at 4 points, largest error 0.28");
        awaitText(".proof", "a line through 4, applied, largest error 0.28");
        knob.set(2000.0);
        awaitText("#needle", "Steady: 10.06 ");
        click("#tare");
        until(s -> Math.abs(s.channel("sensor").orElseThrow().latestClean()) < 0.05);
        awaitText(".sum .hint", "tare");
        key(KeyCode.U);
        until(s -> Math.abs(s.channel("sensor").orElseThrow().latestClean() - 10) < 0.3);
        key(KeyCode.U);
        until(s -> s.channel("sensor").orElseThrow().latestClean() > 1900);
        eventually(() -> assertThat(sensor().channel().proof()).isNull());
    }

    private void acknowledge(String part) throws Exception {
        awaitText("#caution-words", part);
        click("#acknowledge");
    }

    @Test
    void aBodySensorIsNotReadBeforeItsCautionAndALimitIsToldAtOnce() throws Exception {
        connect(500);
        choose("#kind", kind("optical pulse"));
        awaitText("#caution-words", "battery power only");
        awaitText(".lane-how", "read the caution above first");
        long kept = sensor().raw().end();
        long read = sensor().level().samples();
        until(s -> s.channel("sensor").orElseThrow().raw().end() > kept + 30);
        assertThat(sensor().level().samples()).isEqualTo(read);
        acknowledge("battery power only");
        until(s -> Math.abs(s.channel("sensor").orElseThrow().level().mean()) < 1
                && s.channel("sensor").orElseThrow().level().samples() > read + 10);
        eventually(() -> assertThat(fx(() -> robot.lookup("#caution").query().isVisible()))
                .isFalse());
        eventually(() -> assertThat(workspace().shown().rig().acknowledged()).containsExactly(Caution.BODY));
        // The kind brought the reader that usually follows.
        eventually(() -> assertThat(
                        workspace().shown().rig().readersOn("sensor").get(0).settings())
                .containsEntry("kind", "optical"));
        robot.interact(() ->
                workspace().change(rig -> rig.withoutReader(rig.readers().get(0).id())));

        // 800 of 1024 steps of 5 V through 30 kΩ over 7.5 kΩ are 19.53 V; the cell must not go above 15 V.
        choose("#kind", kind("voltage through a divider"));
        acknowledge("Mind the limit of the divider");
        step("shown");
        write("#limit-high", "15");
        write("#limit-low", "20");
        awaitText("#scale-error", "the lower limit must be below the upper one, were 20 and 15");
        write("#limit-low", "");
        knob.set(800.0);
        awaitText("#notice", "V is above its limit of 15 V");
        awaitText(".lane-trouble", "V is above its limit of 15 V");
        knob.set(100.0);
        until(s -> Double.isNaN(s.channel("sensor").orElseThrow().beyond()));
    }

    @Test
    void theCurvesEndIsPulledAndTakenBack() throws Exception {
        connect(500);
        step("converter");
        choose("#bits", "10 bit");
        awaitText(".sum-result", "2.4");
        Bounds there = still("#transfer");
        double height = there.getHeight();
        // From the top, where 1023 counts are 5 V, down to half the height of the picture: the left end stays at 0.
        robot.drag(new Point2D(there.getMaxX() - 30, there.getMinY() + 30), MouseButton.PRIMARY)
                .moveTo(new Point2D(there.getMaxX() - 30, there.getMinY() + height / 2))
                .drop();
        Snapshot pulled = until(s -> s.channel("sensor")
                .filter(c -> c.channel().scaling().apply(1023) < 4)
                .isPresent());
        Scaling scaling = pulled.channel("sensor").orElseThrow().channel().scaling();
        assertThat(scaling.apply(0)).isCloseTo(0, within(1e-9));
        assertThat(scaling.apply(1023)).isBetween(1.5, 3.5);
        key(KeyCode.U);
        until(s -> s.channel("sensor").orElseThrow().channel().scaling().apply(1023) > 4.9);
    }

    @Test
    void anOwnKindIsKeptAsAFileAndOneThatDoesNotReadIsNamed() throws Exception {
        connect(500);
        choose("#kind", kind("echo distance, µs"));
        step("law");
        write("#number-1", "5");
        click("#keep-kind");
        Path file = home.resolve("kinds").resolve("sensor.json");
        eventually(() -> assertThat(file).exists());
        SensorKind kept = KindJson.read(Files.readString(file), "kept");
        assertThat(kept.conversion()).isEqualTo(new Echo(5, 0));
        assertThat(kept.recipe()).isEqualTo("median:5");
        Files.writeString(home.resolve("kinds").resolve("torn.json"), "{\"zesty_kind\": 1, \"kind\": 7");
        key(KeyCode.ESCAPE);
        key(KeyCode.DIGIT3);
        awaitText("#notice", "torn.json is no JSON");
        ComboBox<?> box = robot.lookup("#kind").queryAs(ComboBox.class);
        eventually(() -> assertThat(fx(() -> box.getItems().stream().anyMatch(kept::equals)))
                .isTrue());
    }

    @Test
    void aFormulaTakesInAnotherColumnAndPointsAtWhatItDoesNotKnow() throws Exception {
        robot.interact(() -> workspace().live().connect("sim:deck"));
        until(s -> s.channel("heel").filter(c -> c.raw().end() > 100).isPresent());
        robot.interact(() -> workspace().view().focus().set("heel"));
        key(KeyCode.DIGIT3);
        awaitNode("#kind");
        choose("#kind", kind("a chip's own formula"));
        step("law");
        write("#number-1", "x - 2 * trim");
        until(s -> {
            ChannelSnapshot heel = s.channel("heel").orElseThrow();
            ChannelSnapshot trim = s.channel("trim").orElseThrow();
            long last = Math.min(heel.clean().end(), trim.raw().end()) - 1;
            return last > 100
                    && heel.clean().value(last)
                            == heel.raw().value(last) - 2 * trim.raw().value(last);
        });
        write("#number-1", "x - 2 * trimm");
        awaitText("#scale-error", "x - 2 * trimm\n        ^\n'trimm' at place 9 of the formula is no known name");
    }

    @Test
    void aThermocoupleWithItsLeadsSwappedIsNoticed() throws Exception {
        connect(0.0);
        choose("#kind", kind("thermocouple, in mV"));
        acknowledge("Hot parts stay hot");
        click("#prove");
        click("#respond");
        TimeUnit.SECONDS.sleep(2);
        click("#respond");
        // Warmed by 50 °C, type K gives 2.023 mV; swapped, it goes the other way.
        knob.set(-2.023);
        TimeUnit.SECONDS.sleep(3);
        click("#respond");
        knob.set(0.0);
        TimeUnit.SECONDS.sleep(2);
        click("#respond");
        awaitText("#response", "It answers: down by ");
        awaitText("#response", "a thermocouple's leads are swapped");
    }

    @Test
    void aHeaterWithoutPowerIsNoticed() throws Exception {
        robot.interact(() -> workspace().live().connect("sim:cupboard"));
        until(s -> s.channel("air").isPresent());
        robot.interact(() -> {
            workspace().sourceActions().send("power off", LineEnding.NEW_LINE);
            workspace().view().focus().set("air");
        });
        key(KeyCode.DIGIT3);
        awaitNode("#prove");
        click("#prove");
        choose("#respond-action", "switch it on");
        click("#respond");
        TimeUnit.SECONDS.sleep(3);
        click("#respond");
        robot.interact(() -> workspace().sourceActions().send("heat 80", LineEnding.NEW_LINE));
        TimeUnit.SECONDS.sleep(5);
        click("#respond");
        robot.interact(() -> workspace().sourceActions().send("heat 0", LineEnding.NEW_LINE));
        TimeUnit.SECONDS.sleep(2);
        click("#respond");
        awaitText("#response", "power to the sensor and to whatever it is to feel (a heater");
    }
}
