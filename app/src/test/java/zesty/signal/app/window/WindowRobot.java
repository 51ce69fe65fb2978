package zesty.signal.app.window;

import java.util.concurrent.Callable;
import javafx.scene.Node;
import javafx.scene.input.MouseButton;
import org.testfx.api.FxRobot;
import org.testfx.matcher.base.NodeMatchers;
import org.testfx.service.query.NodeQuery;
import org.testfx.util.WaitForAsyncUtils;

/** Looks for nodes on the window's thread: what changes while it is looked through cannot be. */
final class WindowRobot extends FxRobot {
    private static <T> T onItsThread(Callable<T> work) {
        return WaitForAsyncUtils.waitForAsyncFx(20_000, work);
    }

    @Override
    public NodeQuery lookup(String query) {
        return onItsThread(() -> super.lookup(query));
    }

    private Node visible(String query) {
        return onItsThread(
                () -> super.lookup(query).match(NodeMatchers.isVisible()).query());
    }

    @Override
    public FxRobot clickOn(String query, MouseButton... buttons) {
        clickOn(visible(query), buttons);
        return this;
    }

    @Override
    public FxRobot drag(String query, MouseButton... buttons) {
        drag(visible(query), buttons);
        return this;
    }

    @Override
    public FxRobot dropTo(String query) {
        dropTo(visible(query));
        return this;
    }
}
