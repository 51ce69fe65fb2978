package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.ref.WeakReference;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.scene.Parent;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.engine.LinkState;

/** What a closed window showed is let go, though the toolkit goes on: the newest may still be held by the toolkit itself. */
@Timeout(400)
class LetGoWindowTest extends RealWindow {
    LetGoWindowTest() {
        super(true);
    }

    @Test
    void windowsThatWereClosedAreLetGo() throws Exception {
        List<WeakReference<Parent>> gone = new ArrayList<>();
        for (int i = 0; i < 3; i++) {
            until(s -> s.health().state() == LinkState.LIVE);
            gone.add(new WeakReference<>(
                    fx(() -> robot.lookup("#notice").query().getScene().getRoot())));
            close();
            open();
        }
        for (int i = 0; i < 50 && gone.stream().filter(ref -> ref.get() != null).count() > 1; i++) {
            System.gc();
            TimeUnit.MILLISECONDS.sleep(200);
        }
        assertThat(gone).filteredOn(ref -> ref.get() != null).hasSizeLessThanOrEqualTo(1);
    }
}
