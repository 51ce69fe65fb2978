package zesty.signal.app.window;

import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import zesty.signal.app.help.HelpBook;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.WindowState;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.engine.ChannelSnapshot;

/** What lies over the window, one at a time: help, the list of keys, a problem report. JavaFX thread. */
final class Sheets {
    private final Workspace workspace;
    private final MainView over;
    private CommandList list;
    private HelpPage help;
    private ReportSheet report;
    /** What the pointer is over: help begins there. */
    private Node pointed;

    Sheets(Workspace workspace, MainView over) {
        this.workspace = workspace;
        this.over = over;
        over.addEventFilter(
                MouseEvent.MOUSE_MOVED, event -> pointed = event.getPickResult().getIntersectedNode());
        // Who goes on by keys has left the pointer where it was.
        over.addEventFilter(KeyEvent.KEY_PRESSED, event -> pointed = event.getCode() == KeyCode.F1 ? pointed : null);
    }

    /** Takes away what lies over the window. @return whether there was something */
    boolean leave() {
        if (report != null) {
            toggleReport();
        } else if (help != null) {
            toggleHelp();
        } else if (list != null) {
            toggleList();
        } else {
            return false;
        }
        return true;
    }

    boolean helpIsOpen() {
        return help != null;
    }

    void toggleHelp() {
        if (help != null) {
            over.getChildren().remove(help);
            help = null;
            return;
        }
        helpWith(HelpPlace.of(pointed).orElseGet(this::place));
    }

    /** Opens help at a topic. */
    void helpWith(String topic) {
        if (help == null) {
            help = new HelpPage(new HelpBook(), this::toggleHelp);
            over.getChildren().add(help);
        }
        help.show(topic);
    }

    /** Shows what a problem report would hold, to be saved or not. */
    void toggleReport() {
        if (report != null) {
            over.getChildren().remove(report);
            report = null;
            return;
        }
        report = new ReportSheet(workspace, this::toggleReport);
        over.getChildren().add(report);
    }

    /** @return what help has to tell of where the window is */
    private String place() {
        WindowState at = workspace.view();
        if (at.takesOpen().get()) {
            return "takes";
        }
        if (at.plannerOpen().get()) {
            return "planner";
        }
        if (at.phoneOpen().get()) {
            return "phone";
        }
        Stop stop = at.stop().get();
        if (stop == Stop.READ) {
            return workspace
                    .shown()
                    .snapshot(System.nanoTime())
                    .focused(at.focus().get())
                    .flatMap(ChannelSnapshot::reader)
                    .map(reader -> HelpBook.reader(reader.kind().name()))
                    .orElse("read");
        }
        return stop == null ? "trail" : stop.name().toLowerCase(java.util.Locale.ROOT);
    }

    void toggleList() {
        if (list == null) {
            list = new CommandList(over.commands().all(), this::toggleList);
            over.getChildren().add(list);
        } else {
            over.getChildren().remove(list);
            list = null;
        }
    }
}
