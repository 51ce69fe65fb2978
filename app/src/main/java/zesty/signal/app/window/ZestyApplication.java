package zesty.signal.app.window;

import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.beans.value.ChangeListener;
import javafx.geometry.Rectangle2D;
import javafx.scene.Scene;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.Pane;
import javafx.scene.text.Font;
import javafx.stage.Screen;
import javafx.stage.Stage;
import zesty.signal.app.LogSetup;
import zesty.signal.app.window.parts.Slice;
import zesty.signal.app.window.workspace.Places;
import zesty.signal.app.window.workspace.Settings;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.TextSize;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.app.wording.Language;
import zesty.signal.core.text.Messages;

/** The window's start and end. */
public final class ZestyApplication extends Application {
    private static final List<String> FONTS = List.of(
            "AtkinsonHyperlegibleNext_400Regular",
            "AtkinsonHyperlegibleNext_600SemiBold",
            "AtkinsonHyperlegibleNext_700Bold",
            "AtkinsonHyperlegibleMono_400Regular");

    /**
     * Which pictures are wanted.
     *
     * @param names of the views; empty for all
     */
    public record Wish(Path folder, List<String> names, int width, int height, TextSize text) {}

    /** How the window is opened: with the maker's own rig, the demo, or to draw pictures into a folder. */
    public record Opening(Places places, boolean isDemo, Wish pictures, Path file) {
        /** @param opened a take or a rig that is opened with it, as by a double click; null for none */
        public Opening with(Path opened) {
            return new Opening(places, isDemo, pictures, opened);
        }

        public static Opening usual() {
            return new Opening(Places.usual(), false, null, null);
        }

        public static Opening demo() {
            return new Opening(Places.usual().demo(), true, null, null);
        }

        public static Opening pictures(Wish wish) {
            return new Opening(
                    new Places(Path.of(
                            System.getProperty("java.io.tmpdir"),
                            "zesty-pictures-" + ProcessHandle.current().pid())),
                    true,
                    wish,
                    null);
        }
    }

    private static final long HIDDEN_NANOS = 500_000_000L;
    /** A board that is not there keeps nothing else waiting longer. */
    private static final long PATIENCE_NANOS = 3_000_000_000L;

    /** What is painted in a frame is drawn beside the next ones: when so many more have begun, it is on the screen. */
    private static final int HANDED_OVER_FRAMES = 2;
    /** After so many all words are there. */
    private static final int ALL_THERE_FRAMES = 40;

    private static Opening next = Opening.usual();
    /** Read beside the toolkit's own start; null in a test, which makes the window itself. */
    private static FutureTask<Brought> early;

    private static int status;

    private final Opening opening;
    private Brought brought;

    private Workspace workspace;
    private MainView view;
    private Stage stage;
    /** Stopped with the window: the toolkit would keep it, and all that it shows, for as long as it runs itself. */
    private AnimationTimer frames;

    /** For a process that is told to end while the window stands open. */
    private Thread ending;

    /** Taken off with the window: a stage may outlive what it shows. */
    private ChangeListener<Boolean> focusMoved;

    /** Frames since the lanes were first painted, as far as they are counted. */
    private int paintedFrames;

    private boolean laneSeen;
    private long shownNanos;

    /** Made by the toolkit, with what {@link #open} was told. */
    public ZestyApplication() {
        this(next);
    }

    /** Made by a test in the real window. */
    ZestyApplication(Opening opening) {
        this.opening = opening;
    }

    /** Opens the window and waits until it is closed. @return the exit status */
    public static int open(Opening how) {
        next = how;
        status = 0;
        early = new FutureTask<>(() -> {
            // Before anything whose constants hold texts. Pictures speak as their command was told.
            if (how.pictures() == null) {
                Language.speak(how.places().language());
            }
            return Brought.by(how);
        });
        Brought.openLibraries();
        new Thread(early, "zesty-brought").start();
        Application.launch(ZestyApplication.class);
        return status;
    }

    static void failed() {
        status = 1;
    }

    /** Loads the fonts while what comes back from the last session is read, before the window's thread has anything to do. */
    @Override
    public void init() throws InterruptedException {
        loadFonts();
        try {
            brought = early == null ? Brought.by(opening) : early.get();
        } catch (ExecutionException e) {
            throw new IllegalStateException(e.getCause());
        }
    }

    @Override
    public void start(Stage first) {
        stage = first;
        Settings settings = brought.settings();
        workspace = new Workspace(opening.places(), brought.rig(), settings);
        ending = new Thread(this::toldToEnd, "zesty-ending");
        Runtime.getRuntime().addShutdownHook(ending);
        Thread.setDefaultUncaughtExceptionHandler((thread, fault) -> workspace.unexpected(fault));
        // The board is listened to since the settings were read.
        connect();
        // Before the first control: it would bring the toolkit's own styles, to be thrown away again.
        wear();
        view = new MainView(workspace);
        Rectangle2D screen = Screen.getPrimary().getVisualBounds();
        Scene scene = new Scene(
                view, Math.min(settings.width(), screen.getWidth()), Math.min(settings.height(), screen.getHeight()));
        scene.getStylesheets().setAll(StyleSheet.at(workspace.view().textSize().get()));
        workspace.view().night().addListener((p, was, is) -> wear());
        workspace.view().textSize().addListener((p, was, is) -> scene.getStylesheets()
                .setAll(StyleSheet.at(is)));
        scene.addEventFilter(KeyEvent.KEY_PRESSED, event -> view.commands().handle(event, scene.getFocusOwner()));
        scene.addEventFilter(KeyEvent.KEY_TYPED, event -> view.commands().typed(event));
        scene.addEventFilter(KeyEvent.KEY_RELEASED, event -> view.commands().released(event));
        focusMoved = (p, was, is) -> view.forgetKeys();
        stage.focusedProperty().addListener(focusMoved);
        stage.setTitle(Messages.of("window.zesty-signal"));
        stage.setScene(scene);
        place();
        stage.show();
        view.requestFocus();
        if (!brought.toTell().isEmpty()) {
            workspace.trouble(String.join(" ", brought.toTell()));
        }
        frames = new AnimationTimer() {
            private long seen;

            @Override
            public void handle(long now) {
                long nanos = System.nanoTime();
                // Nobody sees a hidden window; what beeps and alarms still looks twice a second.
                if (stage.isIconified() && nanos - seen < HIDDEN_NANOS) {
                    return;
                }
                seen = nanos;
                lookForFirstLane(nanos);
                view.frame(nanos);
            }
        };
        shownNanos = System.nanoTime();
        frames.start();
        begin();
    }

    private void connect() {
        if (brought.rig().source().isEmpty()) {
            workspace.view().stop().set(Stop.SOURCE);
            return;
        }
        if (brought.trail() != null) {
            workspace.live().begin(brought.trail());
        } else {
            workspace.live().connect(brought.rig().source());
        }
        workspace.view().stop().set(brought.settings().view().stop());
        workspace.view().focus().set(brought.settings().view().focus());
    }

    private void begin() {
        Path logs = workspace.places().logs();
        workspace
                .tasks()
                .later(
                        Messages.of("window.the-log-could-not-be-opened"),
                        () -> LogSetup.toFile(Files.createDirectories(logs)),
                        () -> {});
        if (!opening.isDemo()) {
            workspace.takes().list();
            workspace.takes().tidy();
        }
        if (opening.file() != null) {
            new Dropping(workspace, view).take(opening.file());
        }
        if (opening.pictures() != null) {
            new Pictures(workspace, view, stage, opening.pictures()).start();
        }
    }

    private static void loadFonts() {
        for (String font : FONTS) {
            try (InputStream file = ZestyApplication.class.getResourceAsStream("fonts/" + font + ".ttf")) {
                Font.loadFont(file, 12);
            } catch (java.io.IOException e) {
                throw new IllegalStateException(Messages.of("window.font-is-missing-from-the-product", font), e);
            }
        }
    }

    private void wear() {
        // Only the library's style sheets are used: its classes want a later Java than ours.
        String base = workspace.view().night().get() ? "primer-dark" : "primer-light";
        Application.setUserAgentStylesheet("/atlantafx/base/theme/" + base + ".css");
    }

    /** Puts the window where it was, unless that screen is gone. */
    private void place() {
        Settings settings = brought.settings();
        Rectangle2D there = Double.isNaN(settings.x())
                ? null
                : new Rectangle2D(settings.x(), Math.max(0, settings.y()), settings.width(), 40);
        boolean seen = there != null
                && Screen.getScreens().stream()
                        .anyMatch(screen -> screen.getVisualBounds().intersects(there));
        if (seen) {
            stage.setX(settings.x());
            stage.setY(settings.y());
        }
        stage.setMinWidth(900);
        stage.setMinHeight(560);
        stage.setMaximized(settings.maximised());
    }

    /**
     * The demo's takes are made once there is something to look at: until then they would only take the cores away. With
     * ZESTY_FIRST_LANE set, it says that the first lane was painted, and ends when the rest has come too, for the benchmark of the start
     * and for the archive of its classes.
     */
    private void lookForFirstLane(long now) {
        boolean told = System.getenv("ZESTY_FIRST_LANE") != null;
        boolean late = paintedFrames == 0 && now - shownNanos >= PATIENCE_NANOS;
        if (paintedFrames > 0 || view.isPainted()) {
            paintedFrames = Math.min(paintedFrames + 1, ALL_THERE_FRAMES + 1);
        }
        if (!laneSeen && (late || paintedFrames > HANDED_OVER_FRAMES)) {
            laneSeen = true;
            if (told) {
                System.out.println(late ? "no lane was painted" : "first lane painted");
            }
            // Drawn as the toolkit draws, which it waits for.
            stage.getIcons().add(Slice.icon(64));
            if (opening.isDemo() && !told) {
                workspace.takes().makeDemo();
            }
        }
        if (told && (late || paintedFrames == ALL_THERE_FRAMES)) {
            Platform.exit();
        }
    }

    /** The process is told to end: the toolkit has stopped painting by itself, and what runs is ended whole. */
    private void toldToEnd() {
        Platform.runLater(this::stand);
        workspace.live().end();
    }

    private void stand() {
        if (frames != null) {
            frames.stop();
            frames = null;
        }
    }

    @Override
    public void stop() {
        if (workspace == null) {
            return;
        }
        stand();
        if (focusMoved != null) {
            stage.focusedProperty().removeListener(focusMoved);
        }
        if (opening.pictures() == null) {
            boolean whole = stage.isMaximized();
            Settings now = workspace.view().settings();
            workspace
                    .view()
                    .remember(new Settings(
                            stage.getX(),
                            stage.getY(),
                            whole ? now.width() : stage.getScene().getWidth(),
                            whole ? now.height() : stage.getScene().getHeight(),
                            whole,
                            workspace.view().look().get(),
                            workspace.view().textSize().get(),
                            workspace.live().window().span(),
                            now.recent(),
                            new Settings.View(
                                    workspace.view().stop().get(),
                                    workspace.view().focus().get(),
                                    workspace.view().cards().get()),
                            workspace.view().ease()));
        }
        workspace.close();
        try {
            Runtime.getRuntime().removeShutdownHook(ending);
        } catch (IllegalStateException e) {
            // The process was told to end meanwhile, and the hook finds nothing left to do.
        }
        // What moves by itself, as a film does, stops with the scene it is in, and would hold all of it for as long as
        // the toolkit runs.
        if (stage.getScene() != null) {
            stage.getScene().setRoot(new Pane());
        }
    }

    /** @return the workspace, for tests in the real window */
    Workspace workspace() {
        return workspace;
    }
}
