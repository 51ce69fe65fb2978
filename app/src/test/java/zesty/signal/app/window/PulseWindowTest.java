package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Predicate;
import java.util.stream.Stream;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.testfx.robot.Motion;
import zesty.signal.app.window.drawing.PlotProbe;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.boards.sim.FingerSignal;
import zesty.signal.boards.sim.HeartSignal;
import zesty.signal.boards.sim.PulseMode;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.read.Event;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Scaling;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Snapshot;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeWriter;

/** The pulse in the real window: early beats and doubt marked, beats corrected by hand, a port with a full buffer. */
@Timeout(400)
class PulseWindowTest extends RealWindow {
    private static final double RATE = 500;
    private static final int ROWS = 90 * (int) RATE;

    PulseWindowTest() {
        super(false);
    }

    private static Rig rig(Map<String, String> settings) {
        DelimitedFormat format =
                new DelimitedFormat(',', false, false, "", List.of(new Column("column1", "counts")), null);
        return new Rig(
                        "chest",
                        SourceSetup.at(""),
                        format,
                        List.of(new Channel("column1", "Heart", Scaling.asItCame("counts"), Recipe.NONE, true)))
                .withReader(ReaderSetup.on("column1", "pulse", settings))
                .acknowledging(Caution.BODY);
    }

    private static Path take(Path folder, HeartSignal heart) throws Exception {
        double[] values = new double[ROWS];
        for (int i = 0; i < ROWS; i++) {
            values[i] = heart.next();
        }
        Path file = folder.resolve("chest.zest");
        try (TakeWriter writer = TakeWriter.create(file, "chest", rig(Map.of("kind", "electrical")), Instant.EPOCH)) {
            writer.append(new Block(new TimeBase.Steady(0, 1 / RATE), new double[][] {values}, ROWS, List.of()));
            writer.finish();
        }
        return file;
    }

    private static Stream<Event> events(Snapshot snapshot, Predicate<Event> wanted) {
        return snapshot.channels().get(0).reader().stream()
                .flatMap(reader -> reader.events().stream())
                .filter(wanted);
    }

    private static long beats(Snapshot snapshot) {
        return events(snapshot, e -> e.believed() && !e.lasts()).count();
    }

    /** A ramp of 2 counts a sample: what lies between two moments can be told on paper. */
    @Test
    void twoMomentsAreMeasuredWithTheMouseAndByKeyAndTheNumbersAreCopied() throws Exception {
        double[] ramp = new double[10 * (int) RATE];
        Arrays.setAll(ramp, i -> 2.0 * i);
        Path file = home.resolve("ramp.zest");
        try (TakeWriter writer =
                TakeWriter.create(file, "ramp", rig(Map.of()).withoutReader("pulse(column1)"), Instant.EPOCH)) {
            writer.append(new Block(new TimeBase.Steady(0, 1 / RATE), new double[][] {ramp}, ramp.length, List.of()));
            writer.mark(4, "here");
            writer.finish();
        }
        robot.interact(() -> workspace().open(file));
        until(s -> s.health().state() == LinkState.STORED && s.hasSamples());
        awaitVisible(".lane-plot");
        Bounds there = still(".lane-plot");
        double second = there.getWidth() / fx(() -> workspace().shown().window().span());
        double zero = there.getMinX() - fx(() -> workspace().shown().window().from()) * second;
        // From the mark, which is snapped to from some pixels beside it, to 6 s.
        robot.drag(new Point2D(zero + 4 * second + 3, there.getCenterY()), MouseButton.SECONDARY)
                .dropTo(new Point2D(zero + 6 * second, there.getCenterY()));
        Span span = fx(() -> workspace().view().span().get());
        assertThat(span.from()).isEqualTo(4);
        assertThat(span.to()).isCloseTo(6, within(2 / second));
        awaitText("#span-numbers .span-number", "1000 counts/s");
        click("#span-copy");
        awaitText("#notice", "Copied: a line for each of 1 lane.");
        String[] table = fx(() -> Clipboard.getSystemClipboard().getString()).split("\n");
        assertThat(table).hasSize(2);
        String[] numbers = table[1].split("\t");
        assertThat(numbers[0]).isEqualTo("Heart");
        double mean = Double.parseDouble(numbers[5]);
        assertThat(mean).isCloseTo(1000 * (4 + span.to()) / 2, within(2.0));
        assertThat(Double.parseDouble(numbers[12])).isCloseTo(mean * (span.to() - 4), within(mean * 0.01));
        key(KeyCode.SHIFT, KeyCode.X);
        eventually(() ->
                assertThat(fx(() -> workspace().view().span().get().begun())).isFalse());
        robot.moveTo(new Point2D(zero + 2 * second, there.getCenterY()), Motion.DIRECT);
        key(KeyCode.X);
        robot.moveTo(new Point2D(zero + 3 * second, there.getCenterY()), Motion.DIRECT);
        key(KeyCode.X);
        eventually(() -> assertThat(fx(() -> workspace().view().span().get().to()
                        - workspace().view().span().get().from()))
                .isCloseTo(1, within(3 / second)));
    }

    @Test
    void earlyBeatsAndDoubtAreMarkedAndABeatIsTakenOutPutInAndUndone() throws Exception {
        HeartSignal heart = new HeartSignal(5, RATE, EnumSet.of(PulseMode.EARLY, PulseMode.MOVEMENT));
        Path file = take(home, heart);
        robot.interact(() -> workspace().open(file));
        Snapshot stored = until(s -> s.health().state() == LinkState.STORED && beats(s) > 0);
        List<double[]> doubt = heart.doubtful();
        assertThat(doubt).isNotEmpty();
        for (double[] stretch : doubt) {
            double middle = (stretch[0] + stretch[1]) / 2;
            assertThat(events(stored, e -> e.lasts() && e.startSeconds() < middle && e.endSeconds() > middle))
                    .as("doubt about " + middle + " s")
                    .isNotEmpty();
        }
        List<Double> clear = heart.early().stream()
                .filter(t -> t < ROWS / RATE - 3 && doubt.stream().noneMatch(d -> t > d[0] - 3 && t < d[1] + 3))
                .toList();
        assertThat(clear).hasSizeGreaterThan(2);
        for (double at : clear) {
            assertThat(events(stored, e -> e.kind().equals("early") && Math.abs(e.startSeconds() - at) < 0.1))
                    .as("early beat at " + at + " s")
                    .hasSize(1);
        }

        key(KeyCode.DIGIT5);
        awaitText(".number-name", "Early beats");
        long all = beats(stored);
        double chosen = events(stored, e -> e.kind().equals("early"))
                .findFirst()
                .orElseThrow()
                .startSeconds();
        press(chosen);
        awaitVisible("#beat-out");
        click("#beat-out");
        until(s -> beats(s) == all - 1);
        try (Take kept = Take.open(file)) {
            assertThat(kept.rig().readers()).hasSize(1);
        }
        // Left and opened again, the take still has it: what a hand decided is kept with it.
        key(KeyCode.ESCAPE);
        key(KeyCode.ESCAPE);
        until(s -> s.health().state() != LinkState.STORED);
        robot.interact(() -> workspace().open(file));
        Snapshot again = until(s -> s.health().state() == LinkState.STORED && beats(s) > 0);
        assertThat(beats(again)).isEqualTo(all - 1);
        key(KeyCode.DIGIT5);
        press(chosen);
        awaitVisible("#beat-in");
        click("#beat-in");
        until(s -> beats(s) == all);
        key(KeyCode.U);
        until(s -> beats(s) == all - 1);
    }

    /** Looks at the ten seconds about a moment and presses on the run of rates there, once they are drawn. */
    private void press(double seconds) throws Exception {
        robot.interact(() -> {
            var window = workspace().shown().window();
            window.zoom(10 / window.span(), (seconds - window.from()) / window.span());
        });
        still("#rates");
        Node rates = robot.lookup("#rates").query();
        PlotProbe probe = new PlotProbe(rates);
        until(s -> fx(() -> probe.pixelOfFoot(seconds + 1) - probe.pixelOfFoot(seconds) > 25));
        Point2D at = fx(() -> rates.localToScreen(
                probe.pixelOfFoot(seconds), rates.getBoundsInLocal().getHeight() / 2));
        robot.clickOn(at);
    }

    private void awaitVisible(String query) throws Exception {
        until(s ->
                fx(() -> robot.lookup(query).tryQuery().filter(Node::isVisible).isPresent()));
    }

    @Test
    void aPortWithHalfAMinuteInItsBufferShowsRateAndPulseRight() throws Exception {
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            Thread board = new Thread(() -> serve(server), "buffered board");
            board.setDaemon(true);
            board.start();
            int port = server.getLocalPort();
            robot.interact(() -> workspace().live().connect("tcp:127.0.0.1:" + port));
            until(s -> s.channel("column1").isPresent());
            robot.interact(() -> workspace().change(rig -> rig.acknowledging(Caution.BODY)
                    .withReader(ReaderSetup.on("column1", "pulse", Map.of()))));
            Snapshot told = until(s -> Math.abs(s.rateHz() - 200) < 1
                    && s.channels().get(0).reader().map(r -> r.headline() > 0).orElse(false));
            FingerSignal same = new FingerSignal(3, 200, EnumSet.noneOf(PulseMode.class));
            for (int i = 0; i < 30 * 200; i++) {
                same.next();
            }
            List<Double> tops = same.truth();
            double truth = 60 * (tops.size() - 1) / (tops.get(tops.size() - 1) - tops.get(0));
            assertThat(told.channels().get(0).reader().orElseThrow().headline()).isCloseTo(truth, within(0.08 * truth));
            // A fresh window is open at its source, which says how well the rate is known.
            awaitText(".hint", "± ");
        }
    }

    private static void serve(ServerSocket server) {
        FingerSignal finger = new FingerSignal(3, 200, EnumSet.noneOf(PulseMode.class));
        try (Socket socket = server.accept()) {
            OutputStream out = socket.getOutputStream();
            long began = System.nanoTime();
            for (int k = 0; ; k++) {
                while ((System.nanoTime() - began) * 1e-9 < k / 200.0 - 30) {
                    out.flush();
                    LockSupport.parkNanos(2_000_000);
                }
                out.write((Math.round(finger.next()) + "\n").getBytes(StandardCharsets.US_ASCII));
            }
        } catch (java.io.IOException e) {
            // The window has let go of the board: the test is over.
        }
    }
}
