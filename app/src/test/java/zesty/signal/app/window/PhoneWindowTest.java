package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import com.hivemq.client.mqtt.mqtt3.Mqtt3BlockingClient;
import java.io.IOException;
import java.io.InputStream;
import java.net.HttpURLConnection;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import javafx.scene.control.CheckBox;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Pane;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.app.RealBroker;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.Snapshot;

/** The two doors in the real window: the page for a phone, and boards behind a broker with what is published back to it. */
@Timeout(240)
class PhoneWindowTest extends RealWindow {
    @TempDir
    Path folder;

    PhoneWindowTest() {
        super(false);
    }

    private static int status(String address) throws IOException {
        HttpURLConnection asked =
                (HttpURLConnection) URI.create(address).toURL().openConnection();
        return asked.getResponseCode();
    }

    private String address() {
        return fx(() -> ((TextField) robot.lookup("#phone-address").query()).getText());
    }

    @Test
    void thePageIsOpenedRenewedWatchedAndClosed() throws Exception {
        connect("battery", 12);
        key(KeyCode.J);
        awaitNode("#phone");
        assertThat(address()).isEmpty();
        awaitText("#phone .hint", "Nobody can: the page is closed.");
        press("#phone-open");
        String first = address();
        assertThat(first).matches("http://127\\.0\\.0\\.1:\\d+/[\\w-]{24}/");
        assertThat(status(first)).isEqualTo(200);
        awaitText("#open-phone", "Phone ●");
        press("#phone-renew");
        String second = address();
        assertThat(second).isNotEqualTo(first);
        assertThat(status(first)).isEqualTo(404);
        // A marker from the page goes into the recording, once the owner takes them.
        fire("#phone-markers");
        robot.interact(() -> workspace().recordings().start(RecordingLimit.NONE));
        until(s -> s.recording().running() && s.recording().rows() > 0, 30);
        HttpURLConnection marker =
                (HttpURLConnection) URI.create(second + "marker").toURL().openConnection();
        marker.setRequestMethod("POST");
        marker.setDoOutput(true);
        marker.getOutputStream().write("port tack".getBytes(StandardCharsets.UTF_8));
        assertThat(marker.getResponseCode()).isEqualTo(204);
        awaitText("#notice", "Marked: port tack");
        robot.interact(() -> workspace().recordings().stop());
        HttpURLConnection page =
                (HttpURLConnection) URI.create(second + "events").toURL().openConnection();
        page.setReadTimeout(20_000);
        try (InputStream in = page.getInputStream()) {
            assertThat(new String(in.readNBytes(10), StandardCharsets.UTF_8)).startsWith("retry");
            awaitText("#phone .label", "a program at 127.0.0.1, since");
            press("#put-out");
            byte[] rest = in.readAllBytes();
            assertThat(rest.length).isLessThan(10_000_000);
        } catch (IOException e) {
            // It was put out in the middle of a frame.
            assertThat(e).isNotNull();
        }
        awaitText("#phone .hint", "Nobody yet.");
        assertThat(status(second)).isEqualTo(403);
        press("#phone-open");
        assertThat(address()).isEmpty();
        key(KeyCode.ESCAPE);
        eventually(
                () -> assertThat(fx(() -> workspace().view().phoneOpen().get())).isFalse());
    }

    /** Help tells of the place the window is at, is searched, and goes with Escape also out of its box. */
    @Test
    void helpShowsWhatBelongsToThePlace() throws Exception {
        connect("deck", 5);
        // A window that has just come up may not have the keys yet.
        eventually(() -> {
            key(KeyCode.F1);
            awaitText("#help-title", "Source");
        });
        key(KeyCode.ESCAPE);
        readWith("pulse", "pulse");
        key(KeyCode.F1);
        awaitText("#help-title", "Pulse");
        eventually(() -> assertThat(
                        fx(() -> robot.lookup("#help-text .label").queryAll().size()))
                .isGreaterThan(8));
        write("#help-search", "hyster");
        awaitText("#help-title", "Hysteresis");
        write("#help-search", "xyzzy");
        awaitText("#help .hint", "Nothing about");
        key(KeyCode.ESCAPE);
        eventually(() -> assertThat(fx(() -> robot.lookup("#help").tryQuery().isPresent()))
                .isFalse());
        eventually(() -> assertThat(fx(() -> workspace().view().stop().get())).isEqualTo(Stop.READ));
        key(KeyCode.B);
        awaitNode("#plan-form");
        robot.interact(() -> robot.lookup("#plan-channels").query().requestFocus());
        key(KeyCode.F1);
        awaitText("#help-title", "Planner");
        key(KeyCode.F1);
        eventually(() -> assertThat(fx(() -> robot.lookup("#help").tryQuery().isPresent()))
                .isFalse());
    }

    @Test
    void boardsBehindABrokerAreStationsAndOnlyWhatIsTickedIsPublished() throws Exception {
        assumeTrue(RealBroker.isThere(), "a broker, mosquitto, is not on this machine");
        try (RealBroker broker = new RealBroker(folder)) {
            broker.start("allow_anonymous true");
            Mqtt3BlockingClient board = broker.board();
            Thread boats = new Thread(() -> {
                try {
                    for (int i = 0; !Thread.currentThread().isInterrupted(); i++) {
                        RealBroker.say(board, "boats/wren/battery", "{\"volts\":" + (12.5 + i % 3 * 0.01) + "}");
                        RealBroker.say(board, "boats/teal/battery", "volts=" + (11.6 + i % 3 * 0.01));
                        TimeUnit.MILLISECONDS.sleep(100);
                    }
                } catch (InterruptedException e) {
                    // The test is over.
                }
            });
            boats.setDaemon(true);
            boats.start();
            robot.interact(() -> workspace().view().stop().set(Stop.SOURCE));
            press("#open-broker");
            write("#broker-host", "127.0.0.1:" + broker.port());
            write("#broker-user", "ann");
            robot.interact(() -> ((TextField) robot.lookup("#broker-password").query()).setText("top-secret-9"));
            // Enter connects.
            write("#broker-topic", "boats/#/battery");
            awaitText("#notice", "# for all that follows, at the end");
            write("#broker-topic", "boats/+/battery");
            Snapshot there = until(s -> s.channels().size() == 2 && s.hasSamples(), 60);
            assertThat(there.channels().stream().map(c -> c.channel().name()))
                    .containsExactlyInAnyOrder("wren volts", "teal volts");
            key(KeyCode.J);
            awaitNode("#publish");
            write("#publish-address", "mqtt://127.0.0.1:" + broker.port() + "/club/+");
            press("#publish-go");
            awaitText("#publish-said", "Nothing is chosen to be published");
            robot.interact(() -> ((Pane) robot.lookup("#publish-names").query())
                    .getChildren().stream()
                            .map(CheckBox.class::cast)
                            .filter(box -> box.getText().equals("teal volts"))
                            .forEach(box -> box.setSelected(true)));
            press("#publish-go");
            awaitText("#publish-said", "without + and #");
            write("#publish-address", "mqtt://127.0.0.1:" + broker.port() + "/club");
            write("#publish-every", "0.2");
            BlockingQueue<String> heard = new LinkedBlockingQueue<>();
            Mqtt3BlockingClient listener = broker.board();
            listener.toAsync()
                    .subscribeWith()
                    .topicFilter("club/#")
                    .callback(m ->
                            heard.add(m.getTopic() + " " + new String(m.getPayloadAsBytes(), StandardCharsets.UTF_8)))
                    .send()
                    .get(10, TimeUnit.SECONDS);
            press("#publish-go");
            for (int i = 0; i < 5; i++) {
                assertThat(heard.poll(30, TimeUnit.SECONDS))
                        .startsWith("club/teal-volts {\"value\":11.6")
                        .contains("\"unit\":\"\"", "\"state\":\"live\"", "\"what\":\"mean\"");
            }
            awaitText("#publish-said", "messages published.");
            broker.kill();
            awaitText("#publish-said", "It is tried again.");
            broker.start("allow_anonymous true");
            awaitText("#publish-said", "messages published.");
            press("#publish-go");
            boats.interrupt();
        }
        close();
        // Whatever was kept of this window knows no password.
        try (Stream<Path> all = Files.walk(home)) {
            for (Path one : all.filter(Files::isRegularFile).toList()) {
                assertThat(Files.readString(one, StandardCharsets.ISO_8859_1))
                        .as(one.toString())
                        .doesNotContain("top-secret-9");
            }
        }
    }
}
