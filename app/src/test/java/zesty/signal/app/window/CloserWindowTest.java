package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.File;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javax.imageio.ImageIO;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.engine.LinkState;

/** Looking closer in the real window: one lane alone, another laid over it, the lens, one against another, drawings. */
@Timeout(400)
class CloserWindowTest extends RealWindow {
    CloserWindowTest() {
        super(true);
    }

    private static Document read(Path svg) throws Exception {
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setNamespaceAware(true);
        Document document = factory.newDocumentBuilder().parse(svg.toFile());
        assertThat(document.getDocumentElement().getNamespaceURI()).isEqualTo("http://www.w3.org/2000/svg");
        return document;
    }

    private static List<String> words(Document svg) {
        NodeList texts = svg.getElementsByTagNameNS("*", "text");
        return Stream.iterate(0, i -> i + 1)
                .limit(texts.getLength())
                .map(i -> texts.item(i).getTextContent())
                .toList();
    }

    private List<Path> drawings() throws Exception {
        Path folder = workspace().places().pictures();
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try (Stream<Path> files = Files.list(folder)) {
            return files.filter(f -> f.toString().endsWith(".svg")).sorted().toList();
        }
    }

    private int lanes() {
        return fx(() -> robot.lookup(".lane").queryAll().size());
    }

    @Test
    void oneLaneAloneAnotherOverItAndALensOnIt() throws Exception {
        until(s -> s.health().state() == LinkState.LIVE && s.channels().size() > 3);
        awaitNode(".lane");
        int all = lanes();
        robot.interact(() -> workspace().view().focus().set("heel"));
        key(KeyCode.O);
        eventually(() -> assertThat(lanes()).isEqualTo(1));
        // The rig is as it was: nothing is hidden, nothing is to be taken back.
        eventually(
                () -> assertThat(fx(() -> workspace().shown().rig().channels())).allMatch(c -> c.shown()));
        key(KeyCode.Y);
        awaitText("#over-heel", "over it, ");
        String first = fx(() -> ((Label) robot.lookup("#over-heel").query()).getText());
        key(KeyCode.Y);
        eventually(() -> assertThat(fx(() -> ((Label) robot.lookup("#over-heel").query()).getText()))
                .doesNotStartWith(first.substring(0, 8)));

        still(".lane-plot");
        // As it came and cleaned again: the words beside it say which.
        key(KeyCode.W);
        awaitText(".lane-how", "raw");
        key(KeyCode.W);
        awaitText(".lane-how", "below 2 Hz");

        Node plot = robot.lookup(".lane-plot").query();
        Point2D middle = fx(() -> plot.localToScreen(plot.getBoundsInLocal().getWidth() / 2, 60));
        robot.moveTo(middle);
        key(KeyCode.Q);
        awaitText(".lens-words", " s wide, ");
        double lane = fx(() ->
                workspace().shown().window().span() / plot.getBoundsInLocal().getWidth());
        String words = fx(() -> ((Label) robot.lookup(".lens-words").query()).getText());
        double wide = Double.parseDouble(words.substring(0, words.indexOf(' ')));
        // 260 pixels of the lane, ten times as close.
        assertThat(wide).isBetween(0.98 * 26 * lane, 1.02 * 26 * lane);
        key(KeyCode.Q);
        key(KeyCode.O);
        eventually(() -> assertThat(lanes()).isEqualTo(all));
        eventually(() ->
                assertThat(fx(() -> robot.lookup("#lens").query().isVisible())).isFalse());
    }

    @Test
    void lanesAndPlotsAreKeptAsDrawings() throws Exception {
        until(s -> s.health().state() == LinkState.LIVE && s.lastSeconds() > 3);
        key(KeyCode.SHIFT, KeyCode.K);
        awaitText("#notice", "Drawing saved: ");
        assertThat(drawings()).hasSize(1);
        BufferedImage picture =
                ImageIO.read(new File(drawings().get(0).toString().replace(".svg", ".png")));
        assertThat(picture.getWidth()).isGreaterThan(600);
        Document lanes = read(drawings().get(0));
        assertThat(words(lanes)).contains("Helm pulse", "Heel");
        NodeList paths = lanes.getElementsByTagNameNS("*", "path");
        assertThat(paths.getLength()).isGreaterThanOrEqualTo(4);
        Element path = (Element) paths.item(0);
        assertThat(path.getAttribute("d").split("L")).hasSizeGreaterThan(100);
        assertThat(path.getAttribute("d")).doesNotContain("NaN");

        robot.interact(() -> workspace().view().stop().set(Stop.CLEAN));
        awaitNode("#response");
        key(KeyCode.SHIFT, KeyCode.K);
        awaitText("#notice", "3 drawings saved");
        eventually(() -> assertThat(drawings()).hasSize(4));
        for (Path one : drawings()) {
            assertThat(words(read(one))).as(one.toString()).isNotEmpty();
        }
        assertThat(words(read(drawings().get(3)))).anyMatch(text -> text.endsWith(" Hz"));
    }

    @Test
    void aChannelAgainstAnotherTellsHowCloselyTheyGoTogether() throws Exception {
        until(s -> s.health().state() == LinkState.LIVE && s.lastSeconds() > 8);
        robot.interact(() -> {
            workspace().view().focus().set("heel");
            workspace().view().stop().set(Stop.CLEAN);
        });
        click("#view-pair");
        awaitText("#view-words", "They go together by ");
        String words = fx(() -> ((Label) robot.lookup("#view-words").query()).getText());
        double correlation = Double.parseDouble(
                words.substring("They go together by ".length()).split(" ")[0].replace('\u2212', '-'));
        assertThat(Math.abs(correlation)).isLessThanOrEqualTo(1);
        click("#pair-with");
        click("Trim");
        awaitText("#view-words", " × Trim ");
        click("#view-spectrum");
        eventually(() -> assertThat(fx(() -> robot.lookup("#pair-with").query().isVisible()))
                .isFalse());
    }

    @Test
    void whatIsMeasuredFillsTheLanes() throws Exception {
        until(s -> s.health().state() == LinkState.LIVE && s.lastSeconds() > 6);
        double now = fx(() -> workspace().shown().snapshot(System.nanoTime()).lastSeconds());
        robot.interact(() -> workspace().view().span().set(new Span(now - 4, now - 2)));
        click("#span-closer");
        eventually(
                () -> assertThat(fx(() -> workspace().shown().window().from())).isBetween(now - 4.001, now - 3.999));
        eventually(() -> assertThat(fx(() -> workspace().shown().window().to())).isBetween(now - 2.001, now - 1.999));
    }

    @Test
    void whatNobodyExpectedIsToldLoggedAndReported() throws Exception {
        Path log = fx(() -> workspace().places().logs()).resolve("zesty.log");
        until(s -> Files.exists(log));
        // What the toolkit says of itself goes there too.
        System.getLogger("toolkit").log(System.Logger.Level.WARNING, "the {0} creaks", "tiller");
        Thread broken = new Thread(() -> {
            throw new IllegalStateException("a broken stave");
        });
        broken.start();
        broken.join();
        awaitText("#notice", "Something went wrong inside (IllegalStateException)");
        key(KeyCode.SHIFT, KeyCode.L);
        awaitText("#report-parts .list-cell", "zesty.log");
        press("#report-save");
        awaitText("#notice", "Problem report saved: ");
        Path report;
        try (Stream<Path> files = Files.list(log.getParent())) {
            report = files.filter(file -> file.toString().endsWith(".zip"))
                    .findFirst()
                    .orElseThrow();
        }
        try (ZipFile zip = new ZipFile(report.toFile())) {
            assertThat(zip.stream().map(ZipEntry::getName)).contains("versions.txt", "rig.json", "zesty.log");
            assertThat(new String(zip.getInputStream(zip.getEntry("zesty.log")).readAllBytes(), StandardCharsets.UTF_8))
                    .contains("ERROR")
                    .contains("a broken stave")
                    .contains("WARN")
                    .contains("the tiller creaks");
        }
    }
}
