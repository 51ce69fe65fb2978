package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.Arrays;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import javafx.event.Event;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.MenuButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reading;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.engine.LineEnding;
import zesty.signal.engine.Snapshot;

/** Pictures that are worked on: hits tapped along, a unit taught its faces and its iron, a rose, a ladder, a good state kept. */
@Timeout(400)
class ThingsWindowTest extends RealWindow {
    private static final int RATE = 1000;
    /** The board's own time goes on as far as the test lets it: how busy the machine is changes nothing of what it sends. */
    private final AtomicLong due = new AtomicLong(2 * RATE);

    private volatile long strikeAt = Long.MAX_VALUE;
    private volatile double height;

    ThingsWindowTest() {
        super(false);
    }

    /** A knock sensor that is struck when the test says; every strike rings with 60 Hz for 40 ms. */
    private void serve(ServerSocket server) {
        try (Socket caller = server.accept()) {
            OutputStream out = caller.getOutputStream();
            out.write("t_us,knock\n".getBytes(StandardCharsets.US_ASCII));
            Random random = new Random(9);
            for (long i = 0; ; ) {
                StringBuilder lines = new StringBuilder();
                for (long until = Math.min(due.get(), i + 10); i < until; i++) {
                    double since = (i - strikeAt) / (double) RATE;
                    double ring = height * Math.exp(-since / 0.04) * Math.sin(2 * Math.PI * 60 * since);
                    lines.append(i * 1000)
                            .append(',')
                            .append(Math.round(512 + (since >= 0 ? ring : 0) + 2 * random.nextGaussian()))
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

    /** Lets the board send so many rows more and waits until they are there. */
    private void goOn(int rows) throws InterruptedException {
        double last = (due.addAndGet(rows) - 1) / (double) RATE;
        until(s -> s.channel("knock").orElseThrow().stream().lastSeconds() >= last - 1e-6);
    }

    @Test
    void hitsAreTappedAlongAndTheThresholdThatTellsThemIsFound() throws Exception {
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            Thread board = new Thread(() -> serve(server), "knock of the test");
            board.setDaemon(true);
            board.start();
            robot.interact(() -> workspace().live().connect("tcp:127.0.0.1:" + server.getLocalPort()));
            until(s -> s.channels().size() == 1
                    && s.channel("knock").orElseThrow().clean().end() > RATE);
            readWith("knock", "hits", "knock");
            // Every second strike is a true one of 300; the others are steps on deck, of 60, and nobody taps them.
            for (int i = 0; i < 8; i++) {
                height = i % 2 == 0 ? 300 : 60;
                strikeAt = due.get();
                goOn(RATE / 10);
                if (i % 2 == 0) {
                    press("#tap");
                }
                goOn(RATE * 7 / 10);
            }
            awaitText("#guide-says", "4 tapped: 4 found, 0 missed, 3 false detections.");
            press("#tune-hits");
            Snapshot tuned =
                    until(s -> s.rig().readersOn("knock").get(0).settings().containsKey("threshold"));
            awaitText("#guide-says", "4 found, 0 missed, 0 invented");
            double threshold = Double.parseDouble(
                    tuned.rig().readersOn("knock").get(0).settings().get("threshold"));
            assertThat(Math.abs(threshold - 512)).isBetween(58.0, 290.0);
            until(s -> reading(s, "knock").scalar("count") == 4);
            key(KeyCode.U);
            until(s -> s.rig().readersOn("knock").get(0).settings().isEmpty());
        }
    }

    private void order(String words) {
        robot.interact(() -> workspace().sourceActions().send(words, LineEnding.NEW_LINE));
    }

    /** The made-up unit sits turned by a quarter, with scales, zeros and iron; whoever holds it does as the guide asks. */
    @Test
    void aUnitIsTaughtItsSixFacesItsRestAndItsIronByGuidance() throws Exception {
        connect("motion+swapped+iron", 9);
        readWith("ax", "motion", "ax");
        order("show level");
        TimeUnit.MILLISECONDS.sleep(1200);
        press("#teach-rest");
        awaitText("#guide-says", "At rest it turns by 0.4");
        press("#teach-faces");
        // It is held level already, so that the first face is taken at once.
        String[][] faces = {
            {"2 of 6: hold it upside down", "show head"},
            {"3 of 6: hold it with its nose up", "show nose up"},
            {"4 of 6", "show nose down"},
            {"5 of 6", "show left up"},
            {"6 of 6", "show right up"}
        };
        for (String[] face : faces) {
            awaitText("#guide-says", face[0]);
            order(face[1]);
        }
        awaitText("#guide-says", "Taught: x points left, y points back, z points up");
        press("#teach-eight");
        order("turn");
        until(s -> !s.rig().readersOn("ax").get(0).checked().text("field").isEmpty());
        awaitText("#guide-says", "The iron shifted it by 2");
        order("sail");
        long begin = snapshot().channel("ax").orElseThrow().clean().end();
        // The reading speaks of 20 s; after that nothing of the turning is in it.
        Snapshot sailing = until(s -> s.channel("ax").orElseThrow().clean().end() > begin + 2600, 60);
        Reading motion = reading(sailing, "ax");
        double[] rolls = numbers(motion, "roll_deg");
        // The board rolls by 12 ± 9° and heads 120 ± 15°, as its truth says.
        assertThat(Arrays.stream(rolls).max().orElseThrow()).isCloseTo(21, within(1.7));
        assertThat(Arrays.stream(rolls).min().orElseThrow()).isCloseTo(3, within(1.7));
        assertThat(motion.scalar("heading")).isBetween(102.0, 138.0);
        assertThat(motion.scalar("roll_period_s")).isCloseTo(6.1, within(0.3));
        assertThat(motion.quality().reasons()).isEmpty();
        awaitText("#angle-roll", "to the right");
    }

    private static double[] numbers(Reading reading, String key) {
        return reading.items().stream()
                .filter(item -> item.key().equals(key))
                .map(item -> ((Item.Numbers) item).values())
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aVaneIsAddedAndTheRoseAndTheForceAreToldWithTheGust() throws Exception {
        connect("masthead+north", 2);
        readWith("cups", "wind", "cups");
        awaitText("#from", "A vane can be added above");
        @SuppressWarnings("unchecked")
        ComboBox<String> more = robot.lookup("#port-more").queryAs(ComboBox.class);
        robot.interact(() -> more.setValue("vane"));
        until(s -> s.rig().readersOn("cups").get(0).columns().size() == 2);
        write("#setting-factor", "0.8");
        Snapshot seen = until(s -> reading(s, "cups") != null
                && reading(s, "cups").scalar("from_deg") >= 0
                && reading(s, "cups").scalar("gust_mps") > 6);
        double from = reading(seen, "cups").scalar("from_deg");
        assertThat(Math.min(from, 360 - from)).isLessThan(25);
        awaitText("#from", "spread");
        awaitText("#force", "knots");
    }

    @Test
    void aScaleClimbsTheLadderOfNotes() throws Exception {
        connect("whistle+scale", 1);
        readWith("sound", "tone", "sound");
        awaitNode("#ladder");
        double[] halfSteps = {0, 2, 4, 5, 7, 9, 11, 12};
        boolean[] heard = new boolean[halfSteps.length];
        until(s -> {
            Reading tone = reading(s, "sound");
            double[] pitch = tone == null
                    ? new double[0]
                    : tone.trace("pitch").orElseThrow().values();
            for (double hz : pitch) {
                for (int k = 0; k < heard.length; k++) {
                    heard[k] |= Math.abs(12 * Math.log(hz / 220) / Math.log(2) - halfSteps[k]) < 0.15;
                }
            }
            return Arrays.equals(heard, new boolean[] {true, true, true, true, true, true, true, true});
        });
    }

    @Test
    void aGoodStateIsKeptAndAHeaterWithoutPowerIsTold() throws Exception {
        connect("hull+worn", 3);
        readWith("ay", "vibration", "ay");
        until(s -> reading(s, "ay").records("state").size() >= 3
                && s.channel("ay").orElseThrow().clean().end() > 14_000);
        awaitText("#guide-says", "aliased; another rate tells");
        press("#keep-good");
        awaitText("#guide-says", "No line grew");
        // A state without the line of what wears: the others come and go with the boat's speed, this one is new.
        robot.interact(() -> workspace().change(rig -> {
            ReaderSetup now = rig.readersOn("ay").get(0);
            String[] kept = now.settings().get("good").split(",");
            StringBuilder without = new StringBuilder();
            for (int i = 0; i < kept.length; i += 3) {
                if (Math.abs(Double.parseDouble(kept[i]) - 131) > 1) {
                    without.append(without.isEmpty() ? "" : ",")
                            .append(String.join(",", kept[i], kept[i + 1], kept[i + 2]));
                }
            }
            return rig.withReader(now.with("good", without.toString()));
        }));
        // A rate that arrival tells is mended where it is off by three thousandths.
        eventually(() -> assertThat(fx(
                        () -> robot.lookup("#guide-says").queryAs(Labeled.class).getText()))
                .containsPattern("13(0\\.[6-9]|1\\.[0-4]) Hz is new"));

        connect("cupboard+unpowered", 3);
        readWith("heat", "step", "heat");
        TimeUnit.SECONDS.sleep(4);
        order("heat 60");
        awaitText("#reader-words", "is the power on");
        eventually(() ->
                assertThat(snapshot().rig().readersOn("heat").get(0).columns()).containsExactly("heat", "air"));
        eventually(() -> assertThat(reading(snapshot(), "heat").scalar("gain")).isCloseTo(0, within(0.01)));
    }

    private String recipe(String column) {
        return snapshot()
                .channel(column)
                .map(one -> one.channel().recipe().text())
                .orElse("no channel");
    }

    @Test
    void stepsAreSwitchedOffToCompareMovedSuggestedAndRemarkedOn() throws Exception {
        connect("hull", 3);
        robot.interact(() -> {
            workspace().view().focus().set("ay");
            workspace().view().stop().set(Stop.CLEAN);
        });
        write("#recipe", "highpass:2@2 | lowpass:200@2 | median:5");
        until(s -> recipe("ay").endsWith("median:5"));
        click("#tile-2");
        until(s -> recipe("ay").equals("highpass:2@2 | median:5"));
        awaitText("#tile-2", "below 200 Hz, off");
        click("#tile-2");
        until(s -> recipe("ay").equals("highpass:2@2 | lowpass:200@2 | median:5"));
        // Its numbers open in boxes: what cannot be is refused, what can is put in.
        press("#tile-numbers-1");
        write("#step-number-1", "fast");
        awaitText(".error", "'fast' is not a number");
        write("#step-number-1", "3");
        until(s -> recipe("ay").equals("highpass:3@2 | lowpass:200@2 | median:5"));
        write("#step-number-1", "2");
        until(s -> recipe("ay").equals("highpass:2@2 | lowpass:200@2 | median:5"));
        press("#tile-numbers-1");
        still("#tile-3");
        robot.drag("#tile-3").dropTo("#tile-1");
        until(s -> recipe("ay").equals("median:5 | highpass:2@2 | lowpass:200@2"));
        robot.interact(() -> {
            Node tile = robot.lookup("#tile-1").query();
            tile.requestFocus();
            Event.fireEvent(tile, new KeyEvent(KeyEvent.KEY_PRESSED, "", "", KeyCode.RIGHT, false, false, true, false));
        });
        until(s -> recipe("ay").equals("highpass:2@2 | median:5 | lowpass:200@2"));
        key(KeyCode.U);
        until(s -> recipe("ay").equals("median:5 | highpass:2@2 | lowpass:200@2"));
        write("#recipe", "lowpass:200@2 | notch:300@30");
        awaitText("#late", "notch:300@30 does nothing");
        awaitNode("#tile-2");
        key(KeyCode.K);
        awaitText("#notice", "Screenshot saved: ");
        try (var kept = Files.list(home.resolve("pictures"))) {
            BufferedImage picture = ImageIO.read(kept.findFirst().orElseThrow().toFile());
            assertThat(picture.getWidth()).isEqualTo((int)
                    fx(() -> robot.lookup("#tiles").query().getScene().getWidth())
                            .doubleValue());
            // The header is dark, the page is paper: it is the window that was kept, not an empty sheet.
            assertThat(new java.awt.Color(picture.getRGB(5, 5)).getGreen()).isLessThan(90);
            assertThat(new java.awt.Color(picture.getRGB(8, 400)).getGreen()).isGreaterThan(200);
        }
        MenuButton suggested = robot.lookup("#suggested").queryAs(MenuButton.class);
        robot.interact(() -> suggested.getItems().get(0).fire());
        until(s -> recipe("ay").equals("median:5 | lowpass:1@2"));
    }
}
