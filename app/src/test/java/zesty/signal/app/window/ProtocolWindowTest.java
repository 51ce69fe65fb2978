package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.takes.LogEntry;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Shelf;
import zesty.signal.takes.Take;

/** A protocol in the real window with its table; markers by key, changed on the take; takes over one another; folders and the bin. */
@Timeout(400)
class ProtocolWindowTest extends RealWindow {
    @TempDir
    Path folder;

    ProtocolWindowTest() {
        super(true);
    }

    private List<Shelf.Entry> takes() {
        return fx(() -> workspace().takes().all().get());
    }

    private void awaitTakes(int count) throws Exception {
        awaitThat(() -> takes().size() == count);
    }

    private void type(String query, String text) {
        robot.interact(() -> {
            TextField field = robot.lookup(query).queryAs(TextField.class);
            field.setText(text);
            field.getOnAction().handle(null);
        });
    }

    private static List<Mark> marks(Path file) throws Exception {
        try (Take take = Take.open(file)) {
            return take.marks();
        }
    }

    @Test
    void aProtocolIsGoneThroughMarkedAndReadPhaseByPhase() throws Exception {
        awaitTakes(DEMO_TAKES);
        until(s -> s.channels().size() == 5);
        key(KeyCode.E);
        awaitNode("#form-protocol");
        // The letter of the key itself is not written into the field it opens.
        eventually(() -> assertThat(fx(() ->
                        robot.lookup("#form-markers").queryAs(TextField.class).getText()))
                .isEqualTo("gust, tack, wave"));
        type("#form-protocol", "rest 2 s, 2 x (pull 1");
        eventually(() -> assertThat(fx(() -> workspace().notice().get().text())).contains("bracket"));
        // Long enough for a busy machine to see a phase while it lasts.
        type("#form-protocol", "rest 2 s, 2 x (pull 3 s, pause 6 s)");
        awaitText(".recording-form .hint", "5 phases, 20 s");
        fire("#record-bilge");
        press("#form-close");
        fire("#by-protocol");
        key(KeyCode.R);
        awaitText("#protocol-phase", "pull 1");
        until(s -> s.recording().seconds() > 2.2);
        key(KeyCode.ALT, KeyCode.DIGIT2);
        // While it runs the marker is renamed, and that is taken back and done again.
        robot.interact(() -> {
            Mark tack = workspace().shown().marks().get(0);
            workspace().remark(tack, new Mark(tack.seconds(), "wave"), "a marker renamed");
        });
        awaitText(".mark-label", "wave");
        robot.interact(() -> workspace().undo());
        awaitText(".mark-label", "tack");
        awaitTakes(DEMO_TAKES + 1);
        Path file = takes().get(0).file();
        List<Mark> phases = marks(file).stream().filter(Mark::isSpan).toList();
        assertThat(phases).extracting(Mark::text).containsExactly("rest", "pull 1", "pause 1", "pull 2", "pause 2");
        assertThat(phases).extracting(Mark::seconds).containsExactly(0.0, 2.0, 5.0, 11.0, 14.0);
        assertThat(phases.get(4).untilSeconds()).isCloseTo(20, within(0.05));
        assertThat(marks(file)).filteredOn(mark -> mark.text().equals("tack")).hasSize(1);
        try (Take take = Take.open(file)) {
            assertThat(take.columns().stream().map(c -> c.name()))
                    .contains("heel")
                    .doesNotContain("bilge");
        }
        key(KeyCode.T);
        robot.interact(() -> view().logbook().choose(List.of(file)));
        press("#show-phases");
        awaitText("#phases .table-name", "pause 2");
        eventually(() -> assertThat(fx(() -> robot.lookup("#phases .table-group")
                        .queryAllAs(Label.class)
                        .size()))
                .isEqualTo(2));
        changeMarks(file);
    }

    /** On the take the marker is renamed, moved by key and deleted, each taken back. */
    private void changeMarks(Path file) throws Exception {
        press("#open-take");
        awaitText(".mark-label", "tack");
        Mark tack = marks(file).stream()
                .filter(mark -> mark.text().equals("tack"))
                .findFirst()
                .orElseThrow();
        click("#marked-tack");
        awaitThat(() -> fx(() -> robot.lookup("#marker-name").query().isVisible()));
        type("#marker-name", "gybe");
        Mark gybe = new Mark(tack.seconds(), "gybe");
        awaitThat(() -> has(file, gybe) && !has(file, tack));
        awaitText(".mark-label", "gybe");
        robot.interact(() -> robot.lookup("#marked-gybe").query().requestFocus());
        key(KeyCode.DELETE);
        awaitThat(() -> !has(file, gybe));
        key(KeyCode.U);
        awaitThat(() -> has(file, gybe));
        key(KeyCode.U);
        awaitThat(() -> has(file, tack) && !has(file, gybe));
        markAPart(file);
    }

    /** What is measured becomes a span that is read like a phase; notes being written outlive the list that is read anew. */
    private void markAPart(Path file) throws Exception {
        robot.interact(() -> workspace().view().span().set(new Span(1, 4)));
        press("#span-mark");
        awaitThat(() -> has(file, new Mark(1, 4, "span 1")));
        key(KeyCode.T);
        robot.interact(() -> view().logbook().choose(List.of()));
        robot.interact(() -> view().logbook().choose(List.of(file)));
        press("#show-phases");
        awaitText("#phases .table-name", "span 1");
        robot.interact(() -> robot.lookup("#take-notes").queryAs(TextArea.class).setText("half a sentence"));
        robot.interact(() -> workspace()
                .takes()
                .write(takes().get(0), new LogEntry(null, null, List.of("protocol"), List.of(), List.of()), null));
        awaitText("#untag", "protocol");
        eventually(() -> assertThat(fx(() ->
                        robot.lookup("#take-notes").queryAs(TextArea.class).getText()))
                .isEqualTo("half a sentence"));
    }

    private static boolean has(Path file, Mark mark) {
        try {
            return marks(file).contains(mark);
        } catch (Exception e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void takesAreLaidOverOneAnotherJoinedSplitAndTheBinIsLookedInto() throws Exception {
        awaitTakes(DEMO_TAKES);
        key(KeyCode.T);
        List<Path> two = takes().stream()
                .filter(one -> one.title().startsWith("Rudder stock"))
                .map(Shelf.Entry::file)
                .toList();
        assertThat(two).hasSize(2);
        robot.interact(() -> view().logbook().choose(two));
        press("#show-overlay");
        awaitNode("#overlay-plot");
        awaitText("#overlay .label", "Rudder stock, well");
        robot.interact(() -> robot.lookup("#overlay-from")
                .queryAs(ComboBox.class)
                .getSelectionModel()
                .select(1));
        awaitText("#overlay .label", "Rudder stock, well: shifted by");
        press("#close-wide");
        press("#join-takes");
        awaitTakes(DEMO_TAKES + 1);
        Shelf.Entry joined = takes().stream()
                .filter(one -> one.title().endsWith(", joined"))
                .findFirst()
                .orElseThrow();
        robot.interact(() -> view().logbook().choose(List.of(joined.file())));
        press("#rename-take");
        type("#take-name", "Rudder, both");
        awaitText("#take-panel .day", "Rudder, both");
        awaitNode("#split-at");
        type("#split-at", "12.5");
        awaitTakes(DEMO_TAKES + 3);
        double length = takes().stream()
                .filter(one -> one.title().equals("Rudder, both, part"))
                .mapToDouble(Shelf.Entry::seconds)
                .min()
                .orElseThrow();
        assertThat(length).isCloseTo(12.5, within(0.01));
        robot.interact(() -> workspace().takes().remove(joined));
        awaitTakes(DEMO_TAKES + 2);
        press("#take-folders");
        awaitText("#folders .hint", "1 take, ");
        Path elsewhere = Files.createDirectories(folder.resolve("stick"));
        Files.copy(two.get(0), elsewhere.resolve("copy.zest"));
        type("#folder-path", elsewhere.toString());
        awaitTakes(DEMO_TAKES + 3);
        awaitText("#folders .hint", "1 take");
        press("#bin-back");
        awaitTakes(DEMO_TAKES + 4);
        awaitText("#folders .hint", "Empty.");
        Files.delete(elsewhere.resolve("copy.zest"));
        try (var left = Files.list(elsewhere)) {
            for (Path one : left.toList()) {
                Files.delete(one);
            }
        }
        Files.delete(elsewhere);
        robot.interact(() -> workspace().takes().list());
        awaitTakes(DEMO_TAKES + 3);
    }

    /** The board prints its two columns one after the other once its button is pressed. */
    @Test
    void whatABoardKeptIsReadIntoATakeAtItsButton() throws Exception {
        awaitTakes(DEMO_TAKES);
        CountDownLatch button = new CountDownLatch(1);
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            Thread board = new Thread(
                    () -> {
                        try (Socket caller = server.accept()) {
                            button.await();
                            String dump = "temp\n20.5\n20.75\n21\n21.25\nhum\n55\n54\n53\n52\n";
                            caller.getOutputStream().write(dump.getBytes(StandardCharsets.US_ASCII));
                            TimeUnit.SECONDS.sleep(60);
                        } catch (Exception e) {
                            // The test is over.
                        }
                    },
                    "board of the test");
            board.setDaemon(true);
            board.start();
            robot.interact(() -> workspace().live().connect("tcp:127.0.0.1:" + server.getLocalPort()));
            // Before the board has sent anything a recording waits for the first row; R gives that up.
            key(KeyCode.R);
            awaitText("#record", "Waiting");
            key(KeyCode.R);
            awaitText("#record", "Record");
            key(KeyCode.T);
            press("#import-file");
            fire("#import-listen");
            button.countDown();
            awaitText("#take-panel .hint", "10 lines");
            fire("#import-listen");
            awaitText("#take-panel .hint", "4 rows, 2 columns");
            type("#import-rate", "2");
            awaitText("#take-panel .hint", "2 rows/s");
            press("#import-go");
            awaitTakes(DEMO_TAKES + 1);
            Path file = takes().stream()
                    .filter(one -> one.title().startsWith("dump "))
                    .findFirst()
                    .orElseThrow()
                    .file();
            try (Take take = Take.open(file)) {
                assertThat(take.columns().stream().map(c -> c.name())).containsExactly("temp", "hum");
                assertThat(take.column(0)).containsExactly(20.5, 20.75, 21, 21.25);
                assertThat(take.column(1)).containsExactly(55, 54, 53, 52);
                assertThat(take.times()).containsExactly(0, 0.5, 1, 1.5);
            }
        }
    }
}
