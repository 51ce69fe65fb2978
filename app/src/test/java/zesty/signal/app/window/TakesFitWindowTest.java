package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import javafx.scene.control.ToggleButton;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import zesty.signal.app.window.workspace.Look;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.TextSize;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.LinkState;
import zesty.signal.takes.Shelf;

/** Walks takes, tables and the benches of readers. */
@Timeout(400)
class TakesFitWindowTest extends ViewWalk {
    @ParameterizedTest(name = "text {0}, {1}")
    @MethodSource("dresses")
    void nothingIsCutInTakesTablesAndReadings(TextSize text, Look colours) throws Exception {
        List<String> found = dressed(text, colours);
        robot.interact(() -> {
            workspace().view().focus().set("pulse");
            workspace().view().takesOpen().set(true);
        });
        awaitNode(".take-title");
        look("takes", found);
        newPanels(found);
        robot.interact(() -> workspace()
                .open(workspace().takes().all().get().stream()
                        .filter(one -> one.title().startsWith("Long"))
                        .findFirst()
                        .orElseThrow()
                        .file()));
        until(s -> s.health().state() == LinkState.STORED && s.hasSamples());
        look("a stored take", found);
        robot.interact(() -> workspace().backToLive());
        robot.interact(() -> {
            workspace().view().takesOpen().set(false);
            workspace().live().disconnect();
            workspace().view().stop().set(Stop.SOURCE);
        });
        look("first start", found);
        robot.interact(() -> workspace().view().stop().set(null));
        look("no board", found);
        robot.interact(() -> {
            workspace().live().connect("sim:chest");
            workspace().view().stop().set(Stop.READ);
        });
        until(s -> s.channel("heart").isPresent() && s.hasSamples());
        robot.interact(() -> workspace().change(rig -> rig.acknowledging(Caution.BODY)
                .withReader(ReaderSetup.on("heart", "pulse", Map.of("kind", "electrical")))));
        until(s -> s.channel("heart")
                .orElseThrow()
                .reader()
                .filter(r -> r.headline() > 0)
                .isPresent());
        look("Read, a heart", found);
        connect("motion", 9);
        readWith("ax", "motion");
        look("Read, lean and turn", found);
        connect("masthead+north", 2);
        readWith("cups", "wind");
        look("Read, wind", found);
        press("#read-other");
        look("Read, choosing", found);
        robot.interact(() -> workspace().view().plannerOpen().set(true));
        look("planner", found);
        robot.interact(() -> workspace().view().plannerOpen().set(false));
        assertThat(found).isEmpty();
    }

    private List<Path> takes(String title) {
        return fx(() -> workspace().takes().all().get().stream()
                .filter(one -> one.title().equals(title))
                .map(Shelf.Entry::file)
                .toList());
    }

    /** A take's page, several of them, a file that comes, snapshots, and a recording on cue. */
    private void newPanels(List<String> found) throws Exception {
        MainView view = robot.lookup(".window").queryAs(MainView.class);
        List<Path> files = fx(() -> workspace().takes().all().get().stream()
                .map(Shelf.Entry::file)
                .limit(3)
                .toList());
        robot.interact(() -> view.logbook().choose(files.subList(0, 1)));
        awaitNode("#take-numbers");
        look("a take's page", found);
        robot.interact(() -> view.logbook().choose(files));
        awaitText("#take-panel .day", Messages.of("parts.takes-chosen", 3));
        awaitNode("#take-numbers");
        look("takes side by side", found);
        press("#show-overlay");
        awaitText("#overlay .label", Messages.of("parts.0-s-is"));
        look("takes over one another", found);
        press("#close-wide");
        press("#take-folders");
        awaitText("#folders .hint", Messages.of("parts.empty-a-take-that-is-removed-lies"));
        look("folders and bin", found);
        press("#close-wide");
        robot.interact(() -> view.logbook().choose(takes("Sheet hand, rest to tired")));
        press("#show-phases");
        awaitNode("#phases");
        look("phase by phase", found);
        robot.interact(() -> {
            view.logbook().choose(List.of());
            view.logbook().importFile(null);
        });
        look("import", found);
        press("#close-panel");
        robot.interact(() -> {
            workspace().view().takesOpen().set(false);
            robot.lookup("#on-cue").queryAs(ToggleButton.class).fire();
            view.capture().toggleForm();
            view.snapshots().press();
            workspace().snapshots().take("at the mast");
        });
        awaitNode("#snapshot-rows");
        look("snapshots, and on cue", found);
        robot.interact(() -> {
            robot.lookup("#snapshot-done").queryButton().fire();
            view.capture().toggleForm();
            workspace().view().takesOpen().set(true);
        });
    }
}
