package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.geometry.Point2D;
import javafx.geometry.VerticalDirection;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Paint;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.app.window.workspace.Look;
import zesty.signal.boards.link.SimulatedLink;
import zesty.signal.boards.sim.DeckBoard;
import zesty.signal.core.act.Band;
import zesty.signal.core.clean.BandPass;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.Step;
import zesty.signal.core.rig.BandSetup;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Snapshot;

/** The demo in the real window: takes, benches, time, and a link that goes and comes. */
@Timeout(400)
class DemoWindowTest extends RealWindow {
    DemoWindowTest() {
        super(true);
    }

    private Snapshot openLongTake() throws Exception {
        allTakesAreMade();
        key(KeyCode.T);
        awaitText(".take-title", "Long beat home");
        robot.interact(() -> workspace().takes().all().get().stream()
                .filter(entry -> entry.title().equals("Long beat home"))
                .forEach(entry -> workspace().open(entry.file())));
        return until(s -> s.health().state() == LinkState.STORED);
    }

    /** The demo's takes are made at leisure; a shelf that still grows is no place to press on. */
    private void allTakesAreMade() throws Exception {
        eventually(() -> assertThat(fx(() -> workspace().takes().all().get())).hasSize(DEMO_TAKES));
    }

    @Test
    void takesAreRenamedRemovedAndBroughtBackOnTheShelf() throws Exception {
        allTakesAreMade();
        key(KeyCode.T);
        awaitText(".take-title", "In the shed, hands warm");
        int before = fx(() -> workspace().takes().all().get().size());
        click("In the shed, hands warm");
        strike(KeyCode.F2);
        write("#rename", "Shed, cold hands");
        awaitText(".take-title", "Shed, cold hands");
        key(KeyCode.U);
        awaitText(".take-title", "In the shed, hands warm");
        click("In the shed, hands warm");
        strike(KeyCode.DELETE);
        awaitText("#notice", "Removed: In the shed, hands warm");
        eventually(() -> assertThat(fx(() -> workspace().takes().all().get()))
                .noneMatch(e -> e.title().startsWith("In the shed")));
        click("#undo");
        awaitText("#notice", "Back on the shelf");
        awaitText(".take-title", "In the shed, hands warm");
        eventually(() -> assertThat(fx(() -> workspace().takes().all().get())).hasSize(before));
    }

    @Test
    void aTakeIsLookedAtFromTenMinutesDownToSingleSamples() throws Exception {
        Snapshot stored = openLongTake();
        assertThat(stored.lastSeconds()).isCloseTo(600, within(0.1));
        assertThat(stored.channels().get(0).reader().orElseThrow().headline()).isBetween(65.0, 85.0);
        eventually(() -> assertThat(fx(() -> workspace().shown().marks())).hasSize(3));
        eventually(
                () -> assertThat(fx(() -> workspace().shown().window().span())).isGreaterThan(600));

        still(".lane-plot");
        Node plot = robot.lookup(".lane-plot").query();
        Point2D middle = fx(() -> plot.localToScreen(plot.getBoundsInLocal().getWidth() / 2, 20));
        robot.moveTo(middle);
        double share = fx(() -> workspace().shown().window().from()
                + 0.5 * workspace().shown().window().span());
        robot.scroll(4, VerticalDirection.UP);
        until(s -> fx(() -> workspace().shown().window().span()) < 300);
        double after = fx(() -> workspace().shown().window().from()
                + 0.5 * workspace().shown().window().span());
        // The moment under the pointer stays there while the stretch shrinks.
        assertThat(after).isCloseTo(share, within(3.0));
        for (int i = 0; i < 30; i++) {
            key(KeyCode.PLUS);
        }
        eventually(
                () -> assertThat(fx(() -> workspace().shown().window().span())).isLessThan(0.02));
        double from = fx(() -> workspace().shown().window().from());
        key(KeyCode.RIGHT);
        eventually(
                () -> assertThat(fx(() -> workspace().shown().window().from())).isGreaterThan(from));
        key(KeyCode.HOME);
        eventually(
                () -> assertThat(fx(() -> workspace().shown().window().from())).isCloseTo(0, within(1e-9)));
        key(KeyCode.DIGIT0);
        eventually(
                () -> assertThat(fx(() -> workspace().shown().window().span())).isGreaterThan(600));

        // A changed recipe works the stored take out again, and can be taken back.
        key(KeyCode.DIGIT4);
        write("#recipe", "mean:5");
        until(s -> s.channels().get(0).channel().recipe().text().equals("mean:5"));
        key(KeyCode.U);
        until(s -> s.channels().get(0).channel().recipe().text().equals("bandpass:0.5..8@2"));
        key(KeyCode.ESCAPE);
        key(KeyCode.ESCAPE);
        until(s -> s.health().state() == LinkState.LIVE);
    }

    @Test
    void twoQuickChangesToAStoredTakeBothHoldAndAreTakenBackOneByOne() throws Exception {
        openLongTake();
        robot.interact(() -> {
            // Neither waits for the other: both are made before the first is worked out.
            workspace().change(rig -> rig.withChannel("heel", c -> c.withRecipe(Recipe.parse("mean:5"))));
            workspace().change(rig -> rig.withChannel("trim", c -> c.withRecipe(Recipe.parse("mean:7"))));
        });
        until(s -> recipe(s, "heel").equals("mean:5") && recipe(s, "trim").equals("mean:7"));
        key(KeyCode.U);
        until(s -> !recipe(s, "trim").equals("mean:7"));
        eventually(() -> assertThat(recipe(snapshot(), "heel")).isEqualTo("mean:5"));
        key(KeyCode.U);
        until(s -> !recipe(s, "heel").equals("mean:5"));
    }

    private static String recipe(Snapshot snapshot, String column) {
        return snapshot.channel(column).orElseThrow().channel().recipe().text();
    }

    @Test
    void aChannelIsScaledWithTheArithmeticOnShowAndNonsenseIsRefused() throws Exception {
        until(s -> s.channels().size() == 5);
        key(KeyCode.DIGIT3);
        awaitText(".mono", "× 5 V ÷ 1024");
        step("converter");
        write("#reference", "3.3");
        awaitText(".mono", "× 3.3 V ÷ 1024");
        write("#reference", "0");
        awaitText(".error", "the reference must be above 0 V");
        eventually(() -> assertThat(snapshot()
                        .channels()
                        .get(0)
                        .channel()
                        .scaling()
                        .converter()
                        .referenceVolts())
                .isEqualTo(3.3));
        write("#reference", "three");
        awaitText(".error", "the reference must be a number such as 0.5, was 'three'");
        ComboBox<String> bits = robot.lookup("#bits").query();
        write("#reference", "2.5");
        robot.interact(() -> bits.setValue("12 bit"));
        awaitText(".mono", "× 2.5 V ÷ 4096");
        awaitText(".bench-line", "One count is worth 0.000610352 V");
    }

    @Test
    void theBandIsDraggedAndThePulseSaysWhichSideItIsOn() throws Exception {
        until(s -> s.channels().size() == 5
                && s.channels().get(0).reader().isPresent()
                && s.channels().get(0).reader().get().headline() > 0
                && s.channels().get(0).reader().get().bands().get(0).side() == Band.Side.INSIDE);
        key(KeyCode.DIGIT6);
        awaitText(".rule-state", "inside");
        awaitText("#act-summary", "Drag an edge of the range");
        awaitNode(".plot");
        robot.interact(() -> workspace()
                .change(rig ->
                        rig.withBand(new BandSetup(rig.readers().get(0).id(), "rate_bpm.mean", new Band(30, 50, 2)))));
        awaitText(".rule-state", "too high");
        awaitText(".stop-value", "too high");
        // Takes hold of the high edge, where the picture draws it, pulls it up and thinks for a while before letting
        // go. The picture follows the rate: should it have moved in between, the next try finds the edge at its new
        // place.
        for (int attempt = 0; attempt < 15 && band().high() <= 55; attempt++) {
            still(".bench .plot");
            Node plot = robot.lookup(".bench .plot").query();
            double high = band().high();
            Point2D edge = fx(() -> plot.localToScreen(
                    plot.getBoundsInLocal().getWidth() / 2,
                    new zesty.signal.app.window.drawing.PlotProbe(plot).pixelOf(high)));
            robot.moveTo(edge, org.testfx.robot.Motion.DIRECT)
                    .press(MouseButton.PRIMARY)
                    .sleep(60)
                    .moveBy(0, -90)
                    .sleep(300)
                    .release(MouseButton.PRIMARY);
        }
        assertThat(band().high()).isGreaterThan(55);
        assertThat(band().low()).isEqualTo(30);
    }

    /** The band in force; the trail takes a change over within moments. */
    private Band band() throws InterruptedException {
        TimeUnit.MILLISECONDS.sleep(400);
        return snapshot().rig().bands().get(0).band();
    }

    @Test
    void aBoardThatHangsUpIsLostAndComesBackWithItsGap() throws Exception {
        int port;
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = server.getLocalPort();
            String address = "tcp:127.0.0.1:" + port;
            robot.interact(() -> workspace().live().connect(address));
            serve(server, 400);
        }
        // Nobody answers, so that it stays lost for as long as a slow window takes to say it.
        until(s -> s.health().state() == LinkState.LOST);
        awaitText(".lane-trust", "lost");
        awaitText(".lane-value", "—");
        try (ServerSocket server = new ServerSocket(port, 1, InetAddress.getLoopbackAddress())) {
            serve(server, 400);
            Snapshot back = until(
                    s -> s.health().rows() >= 780 && s.streams().get(0).gaps().size() == 1);
            assertThat(back.health().reconnects()).isEqualTo(1);
            assertThat(back.health().lostRows())
                    .isEqualTo(back.streams().get(0).gaps().get(0).missing())
                    .isPositive();
        }
    }

    private static void serve(ServerSocket server, long frames) throws Exception {
        try (Socket client = caller(server);
                SimulatedLink link = new SimulatedLink(new DeckBoard(DeckBoard.Settings.usual(2)), 1, frames)) {
            link.open();
            byte[] buffer = new byte[8192];
            for (int n = link.read(buffer); n >= 0; n = link.read(buffer)) {
                client.getOutputStream().write(buffer, 0, n);
            }
            TimeUnit.MILLISECONDS.sleep(200);
        }
    }

    /** The one who is on the line: on a slow machine somebody before may have called and given up. */
    private static Socket caller(ServerSocket server) throws IOException {
        while (true) {
            Socket client = server.accept();
            client.setSoTimeout(200);
            try {
                if (client.getInputStream().read() >= 0) {
                    return client;
                }
                client.close();
            } catch (SocketTimeoutException e) {
                return client;
            }
        }
    }

    private double highHz() {
        Step step = snapshot()
                .channel("pulse")
                .orElseThrow()
                .channel()
                .recipe()
                .steps()
                .get(0);
        return ((BandPass) step).highHz();
    }

    @Test
    void aCornerIsPulledOnTheSpectrumAsOneChangeAndTakenBack() throws Exception {
        until(s -> s.channels().size() == 5 && s.hasSamples());
        key(KeyCode.DIGIT4);
        awaitNode("#response");
        awaitText(".tile-words", "band 0.5\u20138 Hz");
        still("#response");
        Node plot = robot.lookup("#response").query();
        var probe = new zesty.signal.app.window.drawing.PlotProbe(plot);
        // Should the picture move under the hand, the next try finds the corner at its new place.
        for (int attempt = 0; attempt < 4 && highHz() == 8; attempt++) {
            Point2D from = fx(() -> plot.localToScreen(
                    probe.pixelOfFoot(8), plot.getBoundsInLocal().getHeight() / 2));
            Point2D to = fx(() -> plot.localToScreen(
                    probe.pixelOfFoot(14), plot.getBoundsInLocal().getHeight() / 2));
            robot.moveTo(from).press(MouseButton.PRIMARY);
            for (int i = 1; i <= 8; i++) {
                robot.moveTo(from.getX() + (to.getX() - from.getX()) * i / 8, from.getY());
            }
            robot.release(MouseButton.PRIMARY);
            TimeUnit.MILLISECONDS.sleep(500);
        }
        Snapshot pulled = until(s -> highHz() > 10);
        BandPass band = (BandPass)
                pulled.channel("pulse").orElseThrow().channel().recipe().steps().get(0);
        assertThat(band.lowHz()).isEqualTo(0.5);
        assertThat(band.highHz()).isCloseTo(14, within(0.7));
        // However far the way, it is one change.
        key(KeyCode.U);
        awaitText("#notice", "Taken back: cleaning of Helm pulse");
        until(s -> s.channel("pulse").orElseThrow().channel().recipe().text().equals("bandpass:0.5..8@2"));
        key(KeyCode.SHIFT, KeyCode.U);
        until(s -> !s.channel("pulse").orElseThrow().channel().recipe().text().equals("bandpass:0.5..8@2"));
    }

    @Test
    void threeSetsOfColoursAreWornInTurnByWordsAndLanesAlike() throws Exception {
        until(s -> s.channels().size() == 5 && s.hasSamples());
        awaitNode(".lane-name");
        awaitNode(".lane-plot");
        Label name = robot.lookup(".lane-name").queryAs(Label.class);
        List<Integer> cards = new ArrayList<>();
        List<Paint> inks = new ArrayList<>();
        for (Look look : List.of(Look.DAY, Look.NIGHT, Look.CONTRAST)) {
            eventually(
                    () -> assertThat(fx(() -> workspace().view().look().get())).isEqualTo(look));
            TimeUnit.MILLISECONDS.sleep(400);
            ImageView lane = robot.lookup(".lane-plot").queryAs(Pane.class).getChildren().stream()
                    .filter(ImageView.class::isInstance)
                    .map(ImageView.class::cast)
                    .findFirst()
                    .orElseThrow();
            // In the lower corner of a lane, where no line runs, its card is seen.
            cards.add(fx(() -> lane.getImage().getPixelReader().getArgb(2, 20)));
            inks.add(fx(name::getTextFill));
            key(KeyCode.N);
        }
        eventually(() -> assertThat(fx(() -> workspace().view().look().get())).isEqualTo(Look.DAY));
        assertThat(cards).containsExactly(0xfffffdf8, 0xff1f2925, 0xff000000);
        assertThat(inks.get(0)).isNotEqualTo(inks.get(1));
    }
}
