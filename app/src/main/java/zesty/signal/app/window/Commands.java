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
import zesty.signal.core.text.Messages;
import zesty.signal.engine.Snapshot;

/** Every command with its key, in one place: the list shown for "?" is this list. Longer than others: one entry a key. */
final class Commands {
    /** What ends in this goes without saying in the list. */
    private static final double HELD_MS = 600;

    private static final String MORE = Messages.of("window.more");

    private final List<Command> all = new ArrayList<>();
    private final Set<KeyCode> down = EnumSet.noneOf(KeyCode.class);
    private final PauseTransition held = new PauseTransition(Duration.millis(HELD_MS));
    private final Workspace workspace;
    private final MainView view;
    /** The key that ran a command last; null once another was pressed that ran none. */
    private KeyCode ran;

    Commands(Workspace workspace, MainView view) {
        Keeping keeping = new Keeping(workspace, view);
        this.workspace = workspace;
        this.view = view;
        held.setOnFinished(event -> workspace.acting().hold(Messages.of("window.esc-held-down")));
        for (Stop stop : Stop.values()) {
            KeyCode digit = KeyCode.getKeyCode(String.valueOf(stop.ordinal() + 1));
            plain(Messages.of("window.the-trail"), stop.title() + ": " + stop.about(), digit, () -> view.toggle(stop));
        }
        plain(
                Messages.of("window.the-trail"),
                Messages.of("window.all-lanes-leave-bench-takes-or"),
                KeyCode.ESCAPE,
                view::leave);
        plain(Messages.of("window.the-trail"), Messages.of("window.takes"), KeyCode.T, () -> workspace
                .view()
                .takesOpen()
                .set(!workspace.view().takesOpen().get()));
        plain(
                Messages.of("window.the-trail"),
                Messages.of("window.the-rig-name-save-open-another"),
                KeyCode.G,
                view.trail()::openRigs);
        plain(Messages.of("window.recording"), Messages.of("window.record-or-stop"), KeyCode.R, view.capture()::toggle);
        plain(
                Messages.of("window.recording"),
                Messages.of("window.how-long-until-i-stop-minutes"),
                KeyCode.D,
                view.capture()::nextLength);
        plain(
                Messages.of("window.recording"),
                Messages.of("window.add-a-marker"),
                KeyCode.M,
                view.capture()::writeMark);
        plain(
                Messages.of("window.recording"),
                Messages.of("window.markers-with-keys-protocol"),
                KeyCode.E,
                view.capture()::toggleForm);
        markers();
        plain(
                Messages.of("window.recording"),
                Messages.of("window.a-snapshot-of-every-channel-into-a"),
                KeyCode.S,
                view.snapshots()::press);
        plain(
                Messages.of("window.everything"),
                Messages.of("window.planner-will-it-work-before"),
                KeyCode.B,
                () -> workspace
                        .view()
                        .plannerOpen()
                        .set(!workspace.view().plannerOpen().get()));
        plain(
                Messages.of("window.everything"),
                Messages.of("window.help-what-belongs-to-this-place"),
                KeyCode.F1,
                view.sheets()::toggleHelp);
        plain(
                Messages.of("window.everything"),
                Messages.of("window.show-on-a-phone-the-numbers-on-a"),
                KeyCode.J,
                () -> workspace
                        .view()
                        .phoneOpen()
                        .set(!workspace.view().phoneOpen().get()));
        shown(Messages.of("window.a-take-on-the-shelf"), Messages.of("window.open-it"), KeyCode.ENTER);
        shown(
                Messages.of("window.a-take-on-the-shelf"),
                Messages.of("window.choose-it-to-read-compare-or-write"),
                KeyCode.SPACE);
        shown(Messages.of("window.a-take-on-the-shelf"), Messages.of("window.star-it-or-no-longer"), KeyCode.B);
        shown(Messages.of("window.a-take-on-the-shelf"), Messages.of("window.rename-it"), KeyCode.F2);
        shown(Messages.of("window.a-take-on-the-shelf"), Messages.of("window.export-it-into-a-file"), KeyCode.X);
        shown(Messages.of("window.a-take-on-the-shelf"), Messages.of("window.remove-it"), KeyCode.DELETE);
        plain(
                Messages.of("window.rules-and-outputs"),
                Messages.of("window.scoreboard-points-in-large-digits"),
                KeyCode.V,
                () -> workspace
                        .view()
                        .scoreboard()
                        .set(!workspace.view().scoreboard().get()));
        shown(
                Messages.of("window.rules-and-outputs"),
                Messages.of("window.all-outputs-safe-hold-it-down"),
                KeyCode.ESCAPE);
        plain(Messages.of("window.time"), Messages.of("window.back-in-time"), KeyCode.LEFT, () -> workspace
                .shown()
                .window()
                .scroll(-0.2, live()));
        plain(Messages.of("window.time"), Messages.of("window.forward-in-time"), KeyCode.RIGHT, () -> workspace
                .shown()
                .window()
                .scroll(0.2, live()));
        plain(Messages.of("window.time"), Messages.of("window.zoom-out"), KeyCode.MINUS, () -> workspace
                .shown()
                .window()
                .zoom(1.5, 0.5));
        plain(Messages.of("window.time"), Messages.of("window.zoom-in"), KeyCode.PLUS, () -> workspace
                .shown()
                .window()
                .zoom(1 / 1.5, 0.5));
        plain(Messages.of("window.time"), Messages.of("window.zoom-in"), KeyCode.EQUALS, () -> workspace
                .shown()
                .window()
                .zoom(1 / 1.5, 0.5));
        plain(Messages.of("window.time"), Messages.of("window.to-the-oldest-moment"), KeyCode.HOME, () -> workspace
                .shown()
                .window()
                .toStart());
        plain(Messages.of("window.time"), Messages.of("window.to-the-newest-moment"), KeyCode.END, () -> workspace
                .shown()
                .window()
                .toEnd(live()));
        plain(
                Messages.of("window.time"),
                Messages.of("window.usual-view-last-20-s-or-all-of-a"),
                KeyCode.DIGIT0,
                view.lanes()::home);
        plain(Messages.of("window.lanes"), Messages.of("window.focus-the-lane-above"), KeyCode.UP, () -> moveFocus(-1));
        plain(
                Messages.of("window.lanes"),
                Messages.of("window.focus-the-lane-below"),
                KeyCode.DOWN,
                () -> moveFocus(1));
        plain(Messages.of("window.lanes"), Messages.of("window.hide-the-lane-in-focus"), KeyCode.H, this::hide);
        with(
                Messages.of("window.lanes"),
                Messages.of("window.show-all-lanes"),
                KeyCode.H,
                KeyCombination.SHIFT_DOWN,
                workspace::showAllLanes);
        plain(
                Messages.of("window.lanes"),
                Messages.of("window.the-lane-in-focus-alone-and-all"),
                KeyCode.O,
                view.lanes()::toggleAlone);
        plain(
                Messages.of("window.lanes"),
                Messages.of("window.overlay-another-channel-the-next"),
                KeyCode.Y,
                view.lanes()::nextOver);
        plain(
                Messages.of("window.lanes"),
                Messages.of("window.a-lens-under-the-pointer-ten-times"),
                KeyCode.Q,
                view.lanes()::toggleLens);
        plain(
                Messages.of("window.lanes"),
                Messages.of("window.measure-one-end-at-the-pointer"),
                KeyCode.X,
                () -> view.lanes().measure());
        with(
                Messages.of("window.lanes"),
                Messages.of("window.stop-measuring"),
                KeyCode.X,
                KeyCombination.SHIFT_DOWN,
                () -> workspace.view().span().set(Span.NONE));
        with(
                Messages.of("window.lanes"),
                Messages.of("window.move-the-lane-up"),
                KeyCode.UP,
                KeyCombination.SHIFT_DOWN,
                () -> moveLane(-1));
        with(
                Messages.of("window.lanes"),
                Messages.of("window.move-the-lane-down"),
                KeyCode.DOWN,
                KeyCombination.SHIFT_DOWN,
                () -> moveLane(1));
        plain(
                Messages.of("window.lanes"),
                Messages.of("window.y-range-locked-tracking-auto"),
                KeyCode.F,
                view.lanes()::nextRange);
        plain(
                Messages.of("window.lanes"),
                Messages.of("window.show-the-lane-raw-or-cleaned"),
                KeyCode.W,
                view.lanes()::toggleStage);
        with(
                Messages.of("window.lanes"),
                Messages.of("window.make-the-lane-taller"),
                KeyCode.UP,
                KeyCombination.ALT_DOWN,
                () -> view.lanes().resizeFocus(1.25));
        with(
                Messages.of("window.lanes"),
                Messages.of("window.make-the-lane-lower"),
                KeyCode.DOWN,
                KeyCombination.ALT_DOWN,
                () -> view.lanes().resizeFocus(0.8));
        plain(Messages.of("window.everything"), Messages.of("window.undo"), KeyCode.U, view::undo);
        with(
                Messages.of("window.everything"),
                Messages.of("window.redo"),
                KeyCode.U,
                KeyCombination.SHIFT_DOWN,
                workspace::redo);
        plain(
                Messages.of("window.everything"),
                Messages.of("window.day-night-or-high-contrast"),
                KeyCode.N,
                workspace.view()::nextLook);
        with(
                Messages.of("window.everything"),
                Messages.of("window.language"),
                KeyCode.N,
                KeyCombination.SHIFT_DOWN,
                workspace::nextLanguage);
        with(
                Messages.of("window.everything"),
                Messages.of("window.less-motion-lanes-step-once-a"),
                KeyCode.Z,
                KeyCombination.SHIFT_DOWN,
                view::toggleCalm);
        plain(
                Messages.of("window.everything"),
                Messages.of("window.the-first-hour-a-guide-in-eight"),
                KeyCode.F3,
                view::toggleFirstHour);
        plain(
                Messages.of("window.everything"),
                Messages.of("window.larger-text-100-125-150"),
                KeyCode.Z,
                workspace.view()::nextTextSize);
        plain(
                Messages.of("window.everything"),
                Messages.of("window.save-a-screenshot-png"),
                KeyCode.K,
                keeping::keepPicture);
        with(
                Messages.of("window.everything"),
                Messages.of("window.save-each-lane-and-plot-svg-png"),
                KeyCode.K,
                KeyCombination.SHIFT_DOWN,
                keeping::keepDrawings);
        with(
                Messages.of("window.everything"),
                Messages.of("window.save-a-problem-report-log-versions"),
                KeyCode.L,
                KeyCombination.SHIFT_DOWN,
                view.sheets()::toggleReport);
        plain(
                Messages.of("window.everything"),
                Messages.of("window.disconnect-the-source-or-connect"),
                KeyCode.L,
                view::toggleLink);
        all.add(new Command(
                Messages.of("window.everything"),
                Messages.of("window.this-list"),
                KeyCombination.valueOf("Shift+SLASH"),
                true,
                view.sheets()::toggleList));
    }

    /** In the list they stand once. */
    private void markers() {
        for (int i = 0; i < RecordingSetup.MOST_MARKERS; i++) {
            int index = i;
            KeyCode digit = KeyCode.getKeyCode(String.valueOf(i + 1));
            String of = i == 0 ? "" : MORE;
            with(
                    Messages.of("window.recording"),
                    Messages.of("window.marker-1-of-the-rig-2-to-8", of),
                    digit,
                    KeyCombination.ALT_DOWN,
                    () -> workspace.recordings().markByKey(index));
            all.add(new Command(
                    Messages.of("window.recording"),
                    Messages.of("window.a-span-with-marker-1-begin-and-end", of),
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
        KeyCode code = event.getCode();
        boolean repeated = again && (code.isLetterKey() || code.isDigitKey() || code.isFunctionKey());
        if (repeated && event.getCode() == ran) {
            event.consume();
            return;
        }
        ran = null;
        boolean writing = focusOwner instanceof TextInputControl field && field.isEditable();
        if (writing && event.getCode() == KeyCode.ESCAPE && !view.sheets().helpIsOpen()) {
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
                    command.key().match(event) || question && command.text().equals(Messages.of("window.this-list"));
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
            workspace.say(Messages.of("window.lane-hidden-u-undoes-it-shift-h", channel.name()));
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
