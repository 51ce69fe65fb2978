package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import javafx.scene.control.ToggleButton;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import zesty.signal.app.window.workspace.Look;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.TextSize;

/** Walks the lanes and all benches. */
@Timeout(400)
class FitsWindowTest extends ViewWalk {
    @ParameterizedTest(name = "text {0}, {1}")
    @MethodSource("dresses")
    void nothingIsCutInAnyView(TextSize text, Look colours) throws Exception {
        List<String> found = dressed(text, colours);
        look("lanes", found);
        for (Stop stop : Stop.values()) {
            robot.interact(() -> workspace().view().stop().set(stop));
            look(stop.title(), found);
        }
        robot.interact(() -> workspace().view().stop().set(Stop.SCALE));
        for (String op : List.of("converter", "law", "shown")) {
            // Fired, not pressed: the window may be larger than the display here.
            robot.interact(
                    () -> robot.lookup("#op-" + op).queryAs(ToggleButton.class).fire());
            look(Stop.SCALE.title() + ", " + op, found);
        }
        robot.interact(() -> robot.lookup("#prove").queryAs(ToggleButton.class).fire());
        look("Scale, proving", found);
        robot.interact(() -> workspace().view().stop().set(Stop.SOURCE));
        for (String socket : List.of("open-network", "open-address", "open-simulated", "open-lately")) {
            robot.interact(() -> robot.lookup("#" + socket).queryButton().fire());
            look(Stop.SOURCE.title() + ", " + socket, found);
        }
        robot.interact(() -> {
            workspace().view().focus().set("forearm");
            workspace().view().stop().set(Stop.READ);
        });
        awaitNode("#more-settings");
        look("Read, a muscle", found);
        unfold("#setting-");
        look("Read, settings of a muscle", found);
        robot.interact(() -> workspace().view().stop().set(null));
        press("#commands");
        awaitNode(".command-sheet");
        look("the keys", found);
        press("#commands");
        assertThat(found).isEmpty();
    }
}
