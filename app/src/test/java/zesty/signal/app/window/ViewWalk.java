package zesty.signal.app.window;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.control.Control;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.layout.Background;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import javafx.scene.text.Text;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.params.provider.Arguments;
import zesty.signal.app.window.workspace.Look;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.TextSize;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.LinkState;

/** Looks at every word, button and box of a view at the sizes that count: whole, and inside the window. */
abstract class ViewWalk extends RealWindow {
    /** What is cut on purpose, with all of it in its tooltip or behind it: texts of others, of any length. */
    private static final List<String> MAY_BE_CUT =
            List.of("ribbon-text", "ribbon-words", "mono", "berth", "lane-how", "socket-about", "pocket-why");

    /** What a start that is built does not know of the library's styles. */
    private static final Set<String> LEFT_OUT = UsedStyles.leftOut(sheet());

    private static final double HALF_A_PIXEL = 0.5;

    private static final int[][] SIZES = {{1024, 700}, {1280, 800}, {1920, 1080}};

    private boolean large;

    ViewWalk() {
        super(true);
    }

    private static String sheet() {
        try (InputStream file = ViewWalk.class.getResourceAsStream("/atlantafx/base/theme/primer-light.css")) {
            return new String(file.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** English as usual and at night, and German, whose words are longer, at the largest size of text. */
    static Stream<Arguments> dresses() {
        return Messages.language().equals(Locale.ENGLISH)
                ? Stream.of(Arguments.of(TextSize.USUAL, Look.NIGHT))
                : Stream.of(Arguments.of(TextSize.LARGEST, Look.CONTRAST));
    }

    /** The window is the toolkit's own, and the next test's: larger than the display, half of it is out of reach. */
    @AfterEach
    void asBefore() {
        fx(() -> {
            Stage stage = (Stage) robot.lookup("#takes").query().getScene().getWindow();
            stage.setWidth(1280);
            stage.setHeight(800);
            return null;
        });
    }

    /** Waits until the demo answers, and puts the look and size of text on. @return where what is cut is told */
    final List<String> dressed(TextSize text, Look colours) throws Exception {
        until(s -> s.health().state() == LinkState.LIVE && s.channels().size() == 5);
        until(s -> s.channels().get(0).reader().filter(r -> r.headline() > 0).isPresent());
        robot.interact(() -> {
            workspace().view().look().set(colours);
            workspace().view().textSize().set(text);
        });
        large = text == TextSize.LARGEST;
        return new ArrayList<>();
    }

    /** Looks at a view at each size of the window. */
    final void look(String view, List<String> found) throws Exception {
        Scene scene = fx(() -> robot.lookup("#takes").query().getScene());
        for (int[] size : SIZES) {
            if ((large || !Messages.language().equals(Locale.ENGLISH)) && size[0] > 1280) {
                // What fits a small window with large letters or long words fits a large one, where there is most room.
                continue;
            }
            fx(() -> {
                Stage stage = (Stage) scene.getWindow();
                stage.setX(0);
                stage.setY(0);
                stage.setWidth(size[0]);
                stage.setHeight(size[1]);
                return null;
            });
            for (int i = 0; i < 40 && fx(() -> scene.getWidth() != size[0] || scene.getHeight() != size[1]); i++) {
                TimeUnit.MILLISECONDS.sleep(25);
            }
            // What is shown a few times a second has been shown, and laid out. On a slow machine a frame takes longer
            // than
            // that: what is still cut after a while is cut.
            List<String> cut = new ArrayList<>();
            for (int i = 0; i == 0 || i < 20 && !cut.isEmpty(); i++) {
                cut.clear();
                TimeUnit.MILLISECONDS.sleep(260);
                fx(() -> {
                    // What has just come has not been dressed yet.
                    scene.getRoot().applyCss();
                    scene.getRoot().layout();
                    look(view + " at " + size[0], scene, cut);
                    return null;
                });
            }
            found.addAll(cut);
        }
    }

    private void look(String view, Scene scene, List<String> found) {
        walk(view, scene.getRoot(), found);
        double trail =
                robot.lookup(".trail").queryAs(Parent.class).getBoundsInLocal().getHeight();
        if (trail > scene.getHeight() * 0.27) {
            found.add(view + ": the trail takes " + trail + " pixels");
        }
        ScrollPane bench =
                robot.lookup("#bench-room").tryQueryAs(ScrollPane.class).orElse(null);
        if (bench != null && scene.getHeight() >= 800 && !large) {
            double more = bench.getContent().getLayoutBounds().getHeight()
                    - bench.getViewportBounds().getHeight();
            if (more > HALF_A_PIXEL) {
                found.add(view + ": " + more + " pixels of the bench are behind a scroll bar");
            }
        }
    }

    private void walk(String view, Node node, List<String> found) {
        node.getStyleClass().stream()
                .filter(LEFT_OUT::contains)
                .forEach(one -> found.add(view + ": the style of ." + one + " is left out of what is built"));
        if (!node.isVisible() || node instanceof ListCell<?>) {
            return;
        }
        if (node instanceof Labeled || node instanceof TextField) {
            check(view, node, found);
        }
        if (node instanceof Control control && control.isFocusTraversable() && !control.isDisabled()) {
            named(view, control, found);
        }
        if (node instanceof Labeled labeled && !labeled.isDisabled()) {
            legible(view, labeled, found);
        }
        // What scrolls may be out of sight; what is in it is looked at for its width.
        if (node instanceof Parent parent) {
            parent.getChildrenUnmodifiable().forEach(child -> walk(view, child, found));
        }
    }

    /** Whoever hears the window rather than sees it is told what a control is. */
    private static void named(String view, Control control, List<String> found) {
        String name = control.getAccessibleText() != null
                ? control.getAccessibleText()
                : control instanceof Labeled labeled && labeled.getText() != null ? labeled.getText() : "";
        if (control instanceof TextInputControl field && name.isEmpty()) {
            name = field.getPromptText() == null ? "" : field.getPromptText();
        }
        boolean told = !name.replaceAll("[^\\p{L}\\p{N}]", "").isEmpty() || control.getAccessibleHelp() != null;
        boolean scrolls = control instanceof ScrollPane || control instanceof ListView<?>;
        if (!told && !scrolls || control.getAccessibleRole() == null) {
            found.add(view + ": " + control.getClass().getSimpleName() + " #" + control.getId() + " "
                    + control.getStyleClass() + " has no name to be told by");
        }
    }

    /** Text stands out of what it stands on by 4.5 to 1 (Web Content Accessibility Guidelines 2.1), as it is painted. */
    private static void legible(String view, Labeled labeled, List<String> found) {
        boolean some = labeled.getText() != null && !labeled.getText().isBlank();
        // A menu's words are a label within it, which is looked at for itself.
        if (!some || labeled instanceof MenuButton || !(labeled.getTextFill() instanceof Color ink)) {
            return;
        }
        for (Node at = labeled; at != null; at = at.getParent()) {
            if (at.getOpacity() < 1) {
                return;
            }
            Background under = at instanceof Region region ? region.getBackground() : null;
            boolean painted = under != null
                    && !under.getFills().isEmpty()
                    && under.getFills().get(under.getFills().size() - 1).getFill() instanceof Color paper
                    && paper.getOpacity() > 0.99;
            if (painted) {
                Color paper = (Color)
                        under.getFills().get(under.getFills().size() - 1).getFill();
                double ratio = LookTest.contrast(ink, paper);
                if (ratio < 4.5) {
                    found.add(view + ": '" + labeled.getText() + "' " + labeled.getStyleClass() + " stands out by "
                            + ratio + " only: " + ink + " on " + paper);
                }
                return;
            }
        }
    }

    private void check(String view, Node node, List<String> found) {
        String what = node instanceof Labeled labeled ? labeled.getText() : ((TextField) node).getText();
        String where = view + ": " + node.getClass().getSimpleName() + " #" + node.getId() + " " + node.getStyleClass()
                + " '" + what + "'";
        boolean mayBeCut = node.getStyleClass().stream().anyMatch(MAY_BE_CUT::contains);
        if (node instanceof Labeled labeled && !mayBeCut) {
            Text drawn = (Text) labeled.lookup(".text");
            boolean cut = drawn != null
                    && drawn.isVisible()
                    && !labeled.getText().contains("...")
                    && drawn.getText().endsWith("...");
            if (cut) {
                found.add(where + " is cut to '" + drawn.getText() + "'");
            }
        }
        if (node instanceof TextField field && field.getText().isEmpty() && field.getPromptText() != null) {
            Text prompt = new Text(field.getPromptText());
            prompt.setFont(field.getFont());
            double room = field.getWidth()
                    - field.getInsets().getLeft()
                    - field.getInsets().getRight();
            if (prompt.getLayoutBounds().getWidth() > room + HALF_A_PIXEL) {
                found.add(where + " has no room for its prompt '" + prompt.getText() + "'");
            }
        }
        Bounds seen = node.localToScene(node.getBoundsInLocal());
        ScrollPane scroller = scroller(node);
        boolean empty = seen.getWidth() <= 0 || what == null || what.isEmpty();
        if (empty) {
            return;
        }
        double right = scroller == null
                ? node.getScene().getWidth()
                : scroller.localToScene(scroller.getBoundsInLocal()).getMaxX();
        // A line of a board's may be of any length: with large letters the ribbon shows its beginning.
        boolean mayRunOut = where.contains("ribbon-") && view.startsWith(Stop.SOURCE.title()) && large;
        if (!mayRunOut && (seen.getMinX() < -HALF_A_PIXEL || seen.getMaxX() > right + HALF_A_PIXEL)) {
            found.add(where + " runs from " + seen.getMinX() + " to " + seen.getMaxX() + " of " + right);
        }
        if (scroller == null
                && (seen.getMinY() < -HALF_A_PIXEL
                        || seen.getMaxY() > node.getScene().getHeight() + HALF_A_PIXEL)) {
            found.add(where + " is below the window's edge: " + seen.getMaxY());
        }
        Bounds parent = benchOf(node);
        if (scroller == null && parent != null && seen.getMaxY() > parent.getMaxY() + HALF_A_PIXEL) {
            found.add(where + " runs out of its bench: " + seen.getMaxY() + " of " + parent.getMaxY());
        }
    }

    private static ScrollPane scroller(Node node) {
        for (Parent p = node.getParent(); p != null; p = p.getParent()) {
            if (p instanceof ScrollPane scroll) {
                return scroll;
            }
        }
        return null;
    }

    private static Bounds benchOf(Node node) {
        for (Parent p = node.getParent(); p != null; p = p.getParent()) {
            if (p.getStyleClass().contains("bench")) {
                return p.localToScene(p.getBoundsInLocal());
            }
        }
        return null;
    }
}
