package zesty.signal.app.window;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.animation.PauseTransition;
import javafx.scene.control.ComboBoxBase;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.util.Duration;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.RecordingSetup;
import zesty.signal.engine.Snapshot;

/** Every command with its key, in one place: the list shown for "?" is this list. */
final class Commands {
    /** What ends in this goes without saying in the list. */
    private static final double HELD_MS = 600;

    private static final String MORE = " (more)";

    private final List<Command> all = new ArrayList<>();
    private final Set<KeyCode> down = EnumSet.noneOf(KeyCode.class);
    private final PauseTransition held = new PauseTransition(Duration.millis(HELD_MS));
    private final Workspace workspace;
    private final MainView view;
    /** The key that ran a command last; null once another was pressed that ran none. */
    private KeyCode ran;

    Commands(Workspace workspace, MainView view) {
        this.workspace = workspace;
        this.view = view;
        held.setOnFinished(event -> workspace.acting().hold("Esc held down"));
        for (Stop stop : Stop.values()) {
            KeyCode digit = KeyCode.getKeyCode(String.valueOf(stop.ordinal() + 1));
            plain("The trail", stop.title() + ": " + stop.about(), digit, () -> view.toggle(stop));
        }
        plain("The trail", "All lanes: leave bench, takes or stored take", KeyCode.ESCAPE, view::leave);
        plain("The trail", "Takes", KeyCode.T, () -> workspace
                .view()
                .takesOpen()
                .set(!workspace.view().takesOpen().get()));
        plain("The trail", "The rig: name, save, open another", KeyCode.G, view.trail()::openRigs);
        plain("Recording", "Record or stop", KeyCode.R, view.capture()::toggle);
        plain(
                "Recording",
                "How long: until I stop, minutes, samples, on cue, protocol",
                KeyCode.D,
                view.capture()::nextLength);
        plain("Recording", "Add a marker", KeyCode.M, view.capture()::writeMark);
        plain("Recording", "Markers with keys, protocol, channels recorded", KeyCode.E, view.capture()::toggleForm);
        markers();
        plain("Recording", "A snapshot of every channel into a table", KeyCode.S, view.snapshots()::press);
        plain("Everything", "Planner: will it work, before anything is wired?", KeyCode.B, () -> workspace
                .view()
                .plannerOpen()
                .set(!workspace.view().plannerOpen().get()));
        plain("Everything", "Help: what belongs to this place, and every term", KeyCode.F1, view::toggleHelp);
        plain("Everything", "Show on a phone: the numbers on a page", KeyCode.J, () -> workspace
                .view()
                .phoneOpen()
                .set(!workspace.view().phoneOpen().get()));
        shown("A take on the shelf", "Open it", KeyCode.ENTER);
        shown("A take on the shelf", "Choose it, to read, compare or write into it", KeyCode.SPACE);
        shown("A take on the shelf", "Star it, or no longer", KeyCode.B);
        shown("A take on the shelf", "Rename it", KeyCode.F2);
        shown("A take on the shelf", "Export it into a file", KeyCode.X);
        shown("A take on the shelf", "Remove it", KeyCode.DELETE);
        plain("Rules and outputs", "Scoreboard: points in large digits", KeyCode.V, () -> workspace
                .view()
                .scoreboard()
                .set(!workspace.view().scoreboard().get()));
        shown("Rules and outputs", "All outputs safe: hold it down", KeyCode.ESCAPE);
        plain("Time", "Back in time", KeyCode.LEFT, () -> workspace
                .shown()
                .window()
                .scroll(-0.2, live()));
        plain("Time", "Forward in time", KeyCode.RIGHT, () -> workspace
                .shown()
                .window()
                .scroll(0.2, live()));
        plain("Time", "Zoom out", KeyCode.MINUS, () -> workspace
                .shown()
                .window()
                .zoom(1.5, 0.5));
        plain("Time", "Zoom in", KeyCode.PLUS, () -> workspace.shown().window().zoom(1 / 1.5, 0.5));
        plain("Time", "Zoom in", KeyCode.EQUALS, () -> workspace
                .shown()
                .window()
                .zoom(1 / 1.5, 0.5));
        plain("Time", "To the oldest moment", KeyCode.HOME, () -> workspace
                .shown()
                .window()
                .toStart());
        plain("Time", "To the newest moment", KeyCode.END, () -> workspace
                .shown()
                .window()
                .toEnd(live()));
        plain("Time", "Usual view: last 20 s, or all of a take", KeyCode.DIGIT0, view.lanes()::home);
        plain("Lanes", "Focus the lane above", KeyCode.UP, () -> moveFocus(-1));
        plain("Lanes", "Focus the lane below", KeyCode.DOWN, () -> moveFocus(1));
        plain("Lanes", "Hide the lane in focus", KeyCode.H, this::hide);
        with("Lanes", "Show all lanes", KeyCode.H, KeyCombination.SHIFT_DOWN, workspace::showAllLanes);
        plain("Lanes", "The lane in focus alone, and all again", KeyCode.O, view.lanes()::toggleAlone);
        plain("Lanes", "Overlay another channel: the next, none", KeyCode.Y, view.lanes()::nextOver);
        plain("Lanes", "A lens under the pointer, ten times as close", KeyCode.Q, view.lanes()::toggleLens);
        plain("Lanes", "Measure: one end at the pointer, then the other", KeyCode.X, () -> view.lanes()
                .measure());
        with("Lanes", "Stop measuring", KeyCode.X, KeyCombination.SHIFT_DOWN, () -> workspace
                .view()
                .span()
                .set(Span.NONE));
        with("Lanes", "Move the lane up", KeyCode.UP, KeyCombination.SHIFT_DOWN, () -> moveLane(-1));
        with("Lanes", "Move the lane down", KeyCode.DOWN, KeyCombination.SHIFT_DOWN, () -> moveLane(1));
        plain("Lanes", "Y range: locked, tracking, auto", KeyCode.F, view.lanes()::nextRange);
        plain("Lanes", "Show the lane raw or cleaned", KeyCode.W, view.lanes()::toggleStage);
        with("Lanes", "Make the lane taller", KeyCode.UP, KeyCombination.ALT_DOWN, () -> view.lanes()
                .resizeFocus(1.25));
        with("Lanes", "Make the lane lower", KeyCode.DOWN, KeyCombination.ALT_DOWN, () -> view.lanes()
                .resizeFocus(0.8));
        plain("Everything", "Undo", KeyCode.U, view::undo);
        with("Everything", "Redo", KeyCode.U, KeyCombination.SHIFT_DOWN, workspace::redo);
        plain("Everything", "Day, night or high contrast", KeyCode.N, workspace.view()::nextLook);
        plain("Everything", "Larger text: 100, 125, 150 %", KeyCode.Z, workspace.view()::nextTextSize);
        plain("Everything", "Save a screenshot (PNG)", KeyCode.K, view::keepPicture);
        with(
                "Everything",
                "Save each lane and plot (SVG, PNG)",
                KeyCode.K,
                KeyCombination.SHIFT_DOWN,
                view::keepDrawings);
        with(
                "Everything",
                "Save a problem report (log, versions, rig; nothing is sent)",
                KeyCode.L,
                KeyCombination.SHIFT_DOWN,
                workspace::saveProblemReport);
        plain("Everything", "Disconnect the source, or connect it again", KeyCode.L, view::toggleLink);
        all.add(new Command(
                "Everything", "This list", KeyCombination.valueOf("Shift+SLASH"), true, view::toggleCommandList));
    }

    /** In the list they stand once. */
    private void markers() {
        for (int i = 0; i < RecordingSetup.MOST_MARKERS; i++) {
            int index = i;
            KeyCode digit = KeyCode.getKeyCode(String.valueOf(i + 1));
            String of = i == 0 ? "" : MORE;
            with(
                    "Recording",
                    "Marker 1 of the rig; 2 to 8 likewise" + of,
                    digit,
                    KeyCombination.ALT_DOWN,
                    () -> workspace.recordings().markByKey(index));
            all.add(new Command(
                    "Recording",
                    "A span with marker 1, begin and end" + of,
                    new KeyCodeCombination(digit, KeyCombination.ALT_DOWN, KeyCombination.SHIFT_DOWN),
                    false,
                    () -> workspace.recordings().spanByKey(index)));
        }
    }

    /** A key that belongs to whatever has the focus, and stands in the list only. */
    private void shown(String group, String text, KeyCode key) {
        all.add(new Command(group, text, new KeyCodeCombination(key), true, null));
    }

    private void plain(String group, String text, KeyCode key, Runnable action) {
        all.add(new Command(group, text, new KeyCodeCombination(key), true, action));
    }

    private void with(String group, String text, KeyCode key, KeyCombination.Modifier modifier, Runnable action) {
        all.add(new Command(group, text, new KeyCodeCombination(key, modifier), false, action));
    }

    /** @return the commands for the list: the second key of a command that has two is left out */
    List<Command> all() {
        return all.stream()
                .filter(command ->
                        !command.keyText().equals("=") && !command.text().endsWith(MORE))
                .toList();
    }

    /** Runs the command of the key, unless the key belongs to the field being written in. */
    void handle(KeyEvent event, Object focusOwner) {
        // A key held down repeats itself: what opens and closes must not flicker, what moves may go on moving.
        boolean again = !down.add(event.getCode());
        if (event.getCode() == KeyCode.ESCAPE) {
            if (again) {
                // It is held down, or on its way: what it did when it went down it does once.
                event.consume();
                return;
            }
            held.playFromStart();
        }
        boolean repeated =
                again && (event.getCode().isLetterKey() || event.getCode().isDigitKey());
        if (repeated && event.getCode() == ran) {
            event.consume();
            return;
        }
        ran = null;
        boolean writing = focusOwner instanceof TextInputControl field && field.isEditable();
        if (writing && event.getCode() == KeyCode.ESCAPE && !view.helpIsOpen()) {
            ((TextInputControl) focusOwner).getParent().requestFocus();
            event.consume();
            return;
        }
        if (belongsTo(focusOwner, event)) {
            return;
        }
        boolean question = "?".equals(event.getText());
        for (Command command : all) {
            boolean matches =
                    command.key().match(event) || question && command.text().equals("This list");
            if (matches
                    && command.action() != null
                    && !(writing
                            && !event.getCode().isFunctionKey()
                            && event.getCode() != KeyCode.ESCAPE
                            && (command.plain() || !event.isControlDown() && !event.isAltDown()))) {
                if (!repeated) {
                    ran = event.getCode();
                    command.action().run();
                }
                event.consume();
                return;
            }
        }
    }

    /** What moves about in a list that has the focus is the list's own. */
    private static boolean belongsTo(Object focusOwner, KeyEvent event) {
        boolean list = focusOwner instanceof ComboBoxBase<?>
                || focusOwner instanceof ListView<?>
                || focusOwner instanceof MenuButton;
        boolean moves = event.getCode().isNavigationKey()
                || event.getCode() == KeyCode.SPACE
                || event.getCode() == KeyCode.ENTER;
        return list && moves && !event.isControlDown() && !event.isAltDown();
    }

    /** The letter of a key that ran a command is not written into the field which that command has opened. */
    void typed(KeyEvent event) {
        if (ran != null) {
            event.consume();
        }
    }

    /** A key was let go. */
    void released(KeyEvent event) {
        down.remove(event.getCode());
        if (event.getCode() == KeyCode.ESCAPE) {
            held.stop();
        }
    }

    /** The window lost the keys: whether one is let go is not heard any more. */
    void forget() {
        down.clear();
        held.stop();
        ran = null;
    }

    private boolean live() {
        return workspace.shown().isLive();
    }

    private Snapshot snapshot() {
        return workspace.shown().snapshot(System.nanoTime());
    }

    private Optional<Channel> focused() {
        return snapshot().focused(workspace.view().focus().get()).map(c -> c.channel());
    }

    private void moveFocus(int by) {
        List<String> shown = snapshot().channels().stream()
                .filter(c -> c.channel().shown())
                .map(c -> c.channel().column())
                .toList();
        int at = shown.indexOf(focused().map(Channel::column).orElse(""));
        if (!shown.isEmpty()) {
            workspace.view().focus().set(shown.get(Math.floorMod(at + by, shown.size())));
        }
    }

    private void hide() {
        focused().ifPresent(channel -> {
            workspace.change(rig -> rig.withChannel(channel.column(), c -> c.withShown(false)));
            moveFocus(1);
            workspace.say("Lane hidden: " + channel.name() + ". U undoes it, Shift+H shows all.");
        });
    }

    private void moveLane(int by) {
        focused()
                .ifPresent(channel -> workspace.change(rig -> {
                    List<Channel> order = new ArrayList<>(rig.channels());
                    int at = order.indexOf(channel);
                    int to = Math.max(0, Math.min(order.size() - 1, at + by));
                    order.remove(channel);
                    order.add(to, channel);
                    return rig.withChannels(order);
                }));
    }
}
