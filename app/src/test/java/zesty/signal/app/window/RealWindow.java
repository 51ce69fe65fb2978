package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.io.InputStream;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import java.util.function.Predicate;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import javafx.application.Platform;
import javafx.event.Event;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.stage.Screen;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.ResourceLock;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;
import zesty.signal.app.window.workspace.DemoData;
import zesty.signal.app.window.workspace.Places;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Reading;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/**
 * The real window, opened for each test, with what a test needs to work in it. It has the machine for itself: tests that
 * run processes wait meanwhile.
 */
@ResourceLock("the machine")
abstract class RealWindow {
    static {
        // Before anything of the window is loaded, whose constants hold texts.
        Messages.speak(Locale.forLanguageTag(System.getProperty("zesty.language", "en")));
        try {
            wearBuiltStyles();
        } catch (Exception e) {
            throw new ExceptionInInitializerError(e);
        }
        // A window opens in a second or two; on a busy machine it took more than the usual half minute.
        FxToolkit.toolkitContext().setSetupTimeoutInMillis(120_000);
    }

    @TempDir
    Path home;

    final WindowRobot robot = new WindowRobot();
    private final boolean demo;
    private ZestyApplication application;

    /** @param demo whether it opens on the demo rather than on a fresh home */
    RealWindow(boolean demo) {
        this.demo = demo;
    }

    /** Takes that the demo makes. */
    static final int DEMO_TAKES = 21;

    /** The demo's takes: copies of them lie there when a demo opens. */
    private static Path madeTakes;

    /** They are made once: by the first of the processes that share a folder for them, or for this one alone. */
    private static synchronized Path madeTakes() throws Exception {
        if (madeTakes == null) {
            String shared = System.getProperty("demo.takes");
            Path folder = shared == null
                    ? Files.createTempDirectory("zesty-demo-takes")
                    : Files.createDirectories(
                            Path.of(shared, Messages.language().getLanguage()));
            Path made = folder.resolveSibling(folder.getFileName() + ".made");
            once(made, 1, () -> DemoData.makeTakes(folder, () -> true));
            if (shared == null) {
                made.toFile().deleteOnExit();
                folder.toFile().deleteOnExit();
                try (Stream<Path> takes = Files.list(folder)) {
                    takes.forEach(take -> take.toFile().deleteOnExit());
                }
            }
            madeTakes = folder;
        }
        return madeTakes;
    }

    /** Parsed sheets lie where the toolkit looks for them first, as in a program that is built: the walk of all views is of them. */
    private static void wearBuiltStyles() throws Exception {
        Path classes = Path.of(RealWindow.class
                .getProtectionDomain()
                .getCodeSource()
                .getLocation()
                .toURI());
        int kept = 0;
        for (String name : List.of("zesty.css", "worn-styles.txt")) {
            try (InputStream file = RealWindow.class.getResourceAsStream(name)) {
                kept = 31 * kept + Arrays.hashCode(file.readAllBytes());
            }
        }
        once(classes.resolveSibling("styles.made"), kept, () -> {
            Path jar = classes.resolveSibling("styles-of-tests.jar");
            StyleArchive.write(jar);
            try (ZipInputStream in = new ZipInputStream(Files.newInputStream(jar))) {
                for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                    Path sheet = classes.resolve(entry.getName());
                    Files.createDirectories(sheet.getParent());
                    Files.copy(in, sheet, StandardCopyOption.REPLACE_EXISTING);
                }
            }
        });
    }

    /** Makes what processes share, in the first of them: the others wait for it. @param made the file by which they know, @param of what */
    private static void once(Path made, int of, Made what) throws Exception {
        try (RandomAccessFile file = new RandomAccessFile(made.toFile(), "rw")) {
            file.getChannel().lock();
            if (file.length() == 0 || file.readInt() != of) {
                what.make();
                file.seek(0);
                file.writeInt(of);
            }
        }
    }

    /** Something that takes its time. */
    private interface Made {
        void make() throws Exception;
    }

    @BeforeEach
    void open() throws Exception {
        if (demo) {
            Path takes = new Places(home).takes();
            Files.createDirectories(takes);
            try (Stream<Path> made = Files.list(madeTakes())) {
                for (Path take : made.toList()) {
                    // A test that opens a second window has them already.
                    Files.copy(take, takes.resolve(take.getFileName()), StandardCopyOption.REPLACE_EXISTING);
                }
            }
        }
        FxToolkit.registerPrimaryStage();
        application = (ZestyApplication) FxToolkit.setupApplication(
                () -> new ZestyApplication(new ZestyApplication.Opening(new Places(home), demo, null, null)));
        // What stands around the lanes comes after them.
        awaitNode("#record");
    }

    @AfterEach
    void close() throws Exception {
        FxToolkit.cleanupStages();
        FxToolkit.cleanupApplication(application);
    }

    Workspace workspace() {
        return application.workspace();
    }

    static <T> T fx(Callable<T> work) {
        return WaitForAsyncUtils.waitForAsyncFx(20_000, work);
    }

    Snapshot snapshot() {
        return fx(() -> workspace().shown().snapshot(System.nanoTime()));
    }

    Snapshot until(Predicate<Snapshot> condition) throws InterruptedException {
        return until(condition, 60);
    }

    Snapshot until(Predicate<Snapshot> condition, int seconds) throws InterruptedException {
        for (int i = 0; i < 20 * seconds; i++) {
            Snapshot snapshot = snapshot();
            if (condition.test(snapshot)) {
                return snapshot;
            }
            TimeUnit.MILLISECONDS.sleep(50);
        }
        throw new AssertionError("never came about: " + snapshot().health());
    }

    /** Waits until what is said holds: what a click did, or a board sent, is shown some frames later. */
    static void eventually(ThrowingCallable said) throws InterruptedException {
        for (int i = 0; i < 1200; i++) {
            if (catchThrowable(said) == null) {
                return;
            }
            TimeUnit.MILLISECONDS.sleep(50);
        }
        assertThatCode(said).doesNotThrowAnyException();
    }

    static void awaitThat(BooleanSupplier what) throws InterruptedException {
        eventually(() -> assertThat(what.getAsBoolean()).isTrue());
    }

    /** Waits until some label or button of the query says the part. */
    void awaitText(String query, String part) throws InterruptedException {
        for (int i = 0; i < 600; i++) {
            boolean said = fx(() -> robot.lookup(query).queryAllAs(Labeled.class).stream()
                    .anyMatch(label -> label.getText().contains(part)));
            if (said) {
                return;
            }
            TimeUnit.MILLISECONDS.sleep(50);
        }
        throw new AssertionError(query + " never said '" + part + "', it says "
                + fx(() -> robot.lookup(query).queryAllAs(Labeled.class).stream()
                        .map(Labeled::getText)
                        .toList())
                + "; at " + fx(() -> workspace().view().stop().get()) + ", told: "
                + fx(() -> workspace().notice().get()) + ", keys go to "
                + fx(() -> robot.lookup("#takes").query().getScene().getFocusOwner()));
    }

    void awaitNode(String query) throws Exception {
        WaitForAsyncUtils.waitFor(
                40,
                TimeUnit.SECONDS,
                // On the window's thread: what changes while it is looked through cannot be.
                () -> fx(() -> robot.lookup(query).tryQuery().isPresent()));
    }

    /** Clicks what the query finds once it lies still. */
    void click(String query) throws Exception {
        Bounds there = still(query);
        if (!Screen.getPrimary().getBounds().contains(there.getCenterX(), there.getCenterY())) {
            throw new AssertionError(query + " lies beyond the display, at " + there);
        }
        robot.clickOn(query);
    }

    /** Waits until what the query finds lies still: a bench that opens, or a list that grows, moves it. @return where it is on the screen */
    Bounds still(String query) throws Exception {
        awaitNode(query);
        Bounds before = null;
        for (int i = 0; i < 100; i++) {
            Bounds now = fx(() -> robot.lookup(query)
                    .tryQuery()
                    .map(node -> node.localToScreen(node.getBoundsInLocal()))
                    .orElse(null));
            if (now != null && now.equals(before)) {
                return now;
            }
            before = now;
            frame(robot.lookup("#takes").query().getScene());
            TimeUnit.MILLISECONDS.sleep(150);
        }
        throw new AssertionError(query + " never lies still");
    }

    /** Presses keys together, with no field having the cursor. */
    void key(KeyCode... keys) throws Exception {
        Scene scene = robot.lookup("#takes").query().getScene();
        robot.interact(() -> {
            scene.getWindow().requestFocus();
            if (scene.getFocusOwner() instanceof TextInputControl) {
                scene.getRoot().requestFocus();
            }
        });
        strike(keys);
        frame(scene);
    }

    /**
     * Lets a whole frame pass, as a hand does: until then what was just opened is not filled, and boxes have no skin, which is
     * what takes their keys.
     */
    static void frame(Scene scene) throws InterruptedException {
        CountDownLatch painted = new CountDownLatch(1);
        Runnable told = painted::countDown;
        fx(() -> {
            scene.addPostLayoutPulseListener(told);
            Platform.requestNextPulse();
            return null;
        });
        // A window that the last key closed paints no more.
        painted.await(5, TimeUnit.SECONDS);
        fx(() -> {
            scene.removePostLayoutPulseListener(told);
            return null;
        });
    }

    /**
     * Presses keys on the display. One without a window manager may leave the focus with a window that is gone: keys that
     * cannot arrive are handed to the scene itself.
     */
    void strike(KeyCode... keys) throws Exception {
        Scene scene = robot.lookup("#takes").query().getScene();
        if (hasTheKeyboard(scene)) {
            robot.press(keys).release(keys);
            return;
        }
        robot.interact(() -> {
            List<KeyCode> down = List.of(keys);
            Node target = scene.getFocusOwner() == null ? scene.getRoot() : scene.getFocusOwner();
            for (var kind : List.of(KeyEvent.KEY_PRESSED, KeyEvent.KEY_RELEASED)) {
                Event.fireEvent(
                        target,
                        new KeyEvent(
                                kind,
                                "",
                                "",
                                keys[keys.length - 1],
                                down.contains(KeyCode.SHIFT),
                                down.contains(KeyCode.CONTROL),
                                down.contains(KeyCode.ALT),
                                false));
            }
        });
    }

    /** @return whether keys of the display come to the window; it is asked to take them while they do not */
    private boolean hasTheKeyboard(Scene scene) throws InterruptedException {
        for (int i = 0; i < 60; i++) {
            if (fx(() -> scene.getWindow().isFocused())) {
                return true;
            }
            robot.interact(() -> scene.getWindow().requestFocus());
            TimeUnit.MILLISECONDS.sleep(50);
        }
        return false;
    }

    /** Opens a step of the arithmetic to be changed, by pressing it on the strip. */
    void step(String name) throws Exception {
        awaitNode("#op-" + name);
        ToggleButton op = robot.lookup("#op-" + name).queryAs(ToggleButton.class);
        if (!fx(op::isSelected)) {
            click("#op-" + name);
            frame(op.getScene());
        }
    }

    /** Writes over what a field says and presses Enter. */
    void write(String query, String text) throws Exception {
        awaitNode(query);
        unfold(query);
        for (int attempt = 0; attempt < 40; attempt++) {
            awaitNode(query);
            // By focus, not by mouse: a field may have to be scrolled to. One that a bench made anew meanwhile takes
            // none.
            boolean ready = fx(() -> {
                Optional<TextField> field = robot.lookup(query).tryQueryAs(TextField.class);
                field.ifPresent(box -> {
                    box.requestFocus();
                    box.setText(text);
                });
                return field.isPresent()
                        && field.get().getSkin() != null
                        && field.get().getScene().getFocusOwner() == field.get();
            });
            if (ready) {
                strike(KeyCode.ENTER);
                return;
            }
            TimeUnit.MILLISECONDS.sleep(50);
        }
        throw new AssertionError(query + " never takes the keyboard");
    }

    /** Settings of a reading are folded away until they are asked for. */
    void unfold(String query) {
        if (query.startsWith("#setting-")) {
            ToggleButton fold = robot.lookup("#settings-fold").queryAs(ToggleButton.class);
            robot.interact(() -> fold.setSelected(true));
        }
    }

    /** Plugs a simulated board in, by its words. */
    void connect(String board, int channels) throws Exception {
        robot.interact(() -> workspace().live().connect("sim:" + board));
        until(s -> s.health().state() == LinkState.LIVE
                && s.channels().size() == channels
                && s.rig().source().equals("sim:" + board));
    }

    void readWith(String column, String kind) throws Exception {
        readWith(column, kind, column);
    }

    /** @param first the column that the reader then stands with */
    void readWith(String column, String kind, String first) throws Exception {
        robot.interact(() -> workspace().view().focus().set(column));
        robot.interact(() -> workspace().view().stop().set(Stop.READ));
        tile(kind);
        until(s -> reading(s, first) != null);
    }

    /** Presses the tile of a kind, where something is read already after asking for something else. */
    void tile(String kind) throws Exception {
        awaitNode("#read-" + kind);
        Button other = robot.lookup("#read-other").queryAs(Button.class);
        frame(other.getScene());
        if (fx(other::isVisible)) {
            robot.interact(other::fire);
            frame(other.getScene());
        }
        robot.interact(
                () -> robot.lookup("#read-" + kind).query().getOnMouseClicked().handle(null));
    }

    static Reading reading(Snapshot snapshot, String column) {
        return snapshot.channel(column)
                .flatMap(c -> c.reader())
                .map(ReaderSnapshot::reading)
                .orElse(null);
    }

    /** Fires a button, wherever it is. */
    void press(String query) throws Exception {
        awaitNode(query);
        Button button = robot.lookup(query).queryAs(Button.class);
        Scene scene = button.getScene();
        robot.interact(button::fire);
        frame(scene);
    }

    MainView view() {
        return robot.lookup(".window").queryAs(MainView.class);
    }

    /** Fires a toggle or a tick once it is there. */
    void fire(String query) throws Exception {
        awaitNode(query);
        robot.interact(() -> {
            Node node = robot.lookup(query).query();
            if (node instanceof ToggleButton toggle) {
                toggle.fire();
            } else if (node instanceof CheckBox tick) {
                tick.fire();
            }
        });
    }
}
