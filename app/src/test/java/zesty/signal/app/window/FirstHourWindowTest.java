package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.zip.ZipFile;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextArea;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.app.window.workspace.Settings;
import zesty.signal.core.rig.SensorKind;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.LinkState;

/** From an empty home, as somebody who was only given the program; in each language. */
@Timeout(300)
class FirstHourWindowTest extends RealWindow {
    FirstHourWindowTest() {
        super(false);
    }

    /** Each step is done by what the maker does, none by itself; it is left, and goes on where it was. */
    @Test
    void theFirstHourGoesFromPlugToReport() throws Exception {
        press("#take-first-hour");
        at(1);
        press("#take-dinghy");
        until(s -> s.health().state() == LinkState.LIVE && s.hasSamples());
        at(2);
        key(KeyCode.DIGIT2);
        at(3);
        key(KeyCode.F3);
        eventually(() -> assertThat(fx(() -> robot.lookup("#first-hour").query().isVisible()))
                .isFalse());
        key(KeyCode.DIGIT3);
        robot.interact(() -> workspace().view().focus().set("pulse"));
        robot.interact(this::chooseOpticalPulse);
        key(KeyCode.F3);
        at(4);
        key(KeyCode.DIGIT4);
        until(s -> !s.channel("pulse").orElseThrow().channel().recipe().steps().isEmpty());
        at(5);
        press("#acknowledge");
        key(KeyCode.DIGIT5);
        at(6);
        key(KeyCode.R);
        until(s -> s.recording().running() && s.recording().rows() > 100);
        at(6);
        key(KeyCode.R);
        at(7);
        press("#first-hour-more");
        awaitNode("#help-title");
        eventually(() -> assertThat(fx(
                        () -> robot.lookup("#help-title").queryAs(Labeled.class).getText()))
                .isEqualTo(fx(() -> robot.lookup("#first-hour-count")
                        .queryAs(Labeled.class)
                        .getText()
                        .replaceAll(".*· ", ""))));
        key(KeyCode.ESCAPE);
        Path take;
        try (Stream<Path> files = Files.list(workspace().places().takes())) {
            take = files.filter(one -> one.toString().endsWith(".zest"))
                    .findFirst()
                    .orElseThrow();
        }
        robot.interact(() -> workspace().open(take));
        until(s -> s.health().state() == LinkState.STORED && s.hasSamples());
        at(8);
        Path page = home.resolve("page.html");
        robot.interact(() -> workspace().takes().report(List.of(take), page));
        eventually(() -> assertThat(fx(() -> workspace().view().ease())).isEqualTo(new Settings.Ease(false, 8, false)));
        assertThat(page).content().contains(Messages.of("engine.readings"));
        // On screen numbers are written as people here write them, in files as programs read them.
        String shown = fx(() -> robot.lookup(".lane-value").queryAllAs(Labeled.class).stream()
                .map(Labeled::getText)
                .filter(text -> text.matches(".*\\d.\\d.*"))
                .findFirst()
                .orElseThrow());
        assertThat(shown).containsPattern("\\d" + Pattern.quote(String.valueOf(Messages.decimal())) + "\\d");
        Path table = home.resolve("out.csv");
        robot.interact(() -> workspace().takes().export(take, table));
        eventually(
                () -> assertThat(Files.readAllLines(table).get(2)).matches("\\d+([.]\\d+)?(,-?\\d+([.]\\d+)?){5,9}"));
    }

    private void chooseOpticalPulse() {
        @SuppressWarnings("unchecked")
        ComboBox<SensorKind> kinds = robot.lookup("#kind").queryAs(ComboBox.class);
        kinds.setValue(SensorKind.all().stream()
                .filter(one -> one.name().equals("optical pulse"))
                .findFirst()
                .orElseThrow());
    }

    private void at(int step) throws Exception {
        awaitText("#first-hour-count", step + " " + Messages.of("bench.read.of") + " 8");
        eventually(() -> assertThat(fx(() ->
                        robot.lookup("#first-hour-words").queryAs(Labeled.class).getText()))
                .isNotBlank());
    }

    /** Help begins with what the pointer is over, down to a single number; by keys it begins with the place. */
    @Test
    @Tag("any-language")
    void helpTellsOfWhatThePointerIsOver() throws Exception {
        connect("deck", 5);
        readWith("heel", "level");
        Bounds tile = still("#number-noise");
        robot.moveTo(tile.getCenterX(), tile.getCenterY());
        strike(KeyCode.F1);
        awaitNode(".help-meant");
        eventually(() -> assertThat(fx(
                        () -> robot.lookup(".help-meant").queryAs(Labeled.class).getText()))
                .startsWith(Messages.of("read.level.noise") + ":"));
        strike(KeyCode.ESCAPE);
        strike(KeyCode.DIGIT4);
        Bounds slice = still("#stop-act");
        robot.moveTo(slice.getCenterX(), slice.getCenterY());
        strike(KeyCode.F1);
        awaitText("#help-title", Messages.of("workspace.act"));
        strike(KeyCode.ESCAPE);
        strike(KeyCode.DIGIT3);
        strike(KeyCode.F1);
        awaitText("#help-title", Messages.of("workspace.scale"));
    }

    /** All that a problem report holds is seen before it is saved, the stream only where it is ticked; it may be left. */
    @Test
    @Tag("any-language")
    void aProblemReportIsSeenBeforeItIsSaved() throws Exception {
        connect("deck", 5);
        until(s -> s.streams().get(0).times().end() > 400);
        key(KeyCode.SHIFT, KeyCode.L);
        awaitText("#report-parts .list-cell", "rig.json");
        assertThat(cells()).contains("versions.txt", "rig.json").doesNotContain("stream-1.csv");
        press("#report-close");
        assertThat(reports()).isEmpty();
        key(KeyCode.SHIFT, KeyCode.L);
        awaitText("#report-parts .list-cell", "rig.json");
        robot.interact(
                () -> robot.lookup("#report-stream").queryAs(CheckBox.class).setSelected(true));
        awaitText("#report-parts .list-cell", "stream-1.csv");
        robot.interact(() -> {
            ListView<?> parts = (ListView<?>) robot.lookup("#report-parts").query();
            parts.getSelectionModel().select(parts.getItems().indexOf("stream-1.csv"));
        });
        String shown =
                fx(() -> robot.lookup("#report-text").queryAs(TextArea.class).getText());
        assertThat(shown).startsWith("t,pulse,forearm,heel,trim,bilge\n");
        assertThat(shown.lines().count()).isBetween(300L, 6_100L);
        assertThat(shown.lines().skip(1)).allMatch(line -> line.split(",", -1).length == 6);
        press("#report-save");
        eventually(() -> assertThat(reports()).isNotEmpty());
        Map<String, String> saved = new TreeMap<>();
        try (ZipFile zip = new ZipFile(reports().get(0).toFile())) {
            for (var entry : zip.stream().toList()) {
                saved.put(entry.getName(), new String(zip.getInputStream(entry).readAllBytes()));
            }
        }
        assertThat(saved.get("stream-1.csv")).isEqualTo(shown);
        assertThat(saved.get("rig.json")).contains("sim:deck");
        assertThat(saved.get("versions.txt")).contains("java.version").contains("processors");
    }

    private List<String> cells() {
        return fx(() -> robot.lookup("#report-parts .list-cell").queryAllAs(Labeled.class).stream()
                .map(Labeled::getText)
                .toList());
    }

    private List<Path> reports() throws Exception {
        Path logs = workspace().places().logs();
        if (!Files.isDirectory(logs)) {
            return List.of();
        }
        try (Stream<Path> files = Files.list(logs)) {
            return files.filter(one -> one.toString().endsWith(".zip")).toList();
        }
    }

    /** Every control that can be used is reached by the Tab key, and shows that it was. */
    @Test
    @Tag("any-language")
    void everythingIsReachedByTheKeyboardAndShowsIt() throws Exception {
        connect("deck", 5);
        key(KeyCode.DIGIT3);
        awaitNode("#op-converter");
        List<Node> wanted =
                fx(() -> robot
                        .lookup((Node node) -> node.isFocusTraversable() && !node.isDisabled() && seen(node))
                        .queryAll()
                        .stream()
                        .filter(node -> !(node instanceof ScrollPane))
                        .toList());
        assertThat(wanted).hasSizeGreaterThan(20);
        Set<Node> reached = new HashSet<>();
        int plain = 0;
        for (int i = 0; i < 3 * wanted.size(); i++) {
            strike(KeyCode.TAB);
            Node owner = fx(() -> robot.lookup("#takes").query().getScene().getFocusOwner());
            boolean shows = fx(() -> owner.getPseudoClassStates().stream()
                    .anyMatch(state -> state.getPseudoClassName().startsWith("focus")));
            plain += shows ? 0 : 1;
            reached.add(owner);
            // Of toggles that exclude each other one is reached, and arrows go to the others.
            if (owner instanceof ToggleButton toggle && toggle.getToggleGroup() != null) {
                toggle.getToggleGroup().getToggles().forEach(other -> reached.add((Node) other));
            }
            if (reached.containsAll(wanted)) {
                break;
            }
        }
        assertThat(wanted.stream().filter(node -> !reached.contains(node)).map(Node::toString))
                .isEmpty();
        assertThat(plain).isZero();
    }

    private static boolean seen(Node node) {
        for (Node at = node; at != null; at = at.getParent()) {
            if (!at.isVisible()) {
                return false;
            }
        }
        return node.getScene() != null;
    }
}
