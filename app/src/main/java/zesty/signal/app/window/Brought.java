package zesty.signal.app.window;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.ArrayList;
import java.util.List;
import org.slf4j.LoggerFactory;
import zesty.signal.app.window.workspace.DemoData;
import zesty.signal.app.window.workspace.Settings;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.rig.Rig;
import zesty.signal.engine.Trail;

/**
 * What comes back from the last session, read beside the toolkit's own start.
 *
 * @param trail runs on the rig's source already; null where there is none, or its address makes no sense
 * @param toTell what did not read, for the maker to hear of
 */
record Brought(Settings settings, Rig rig, Trail trail, List<String> toTell) {
    /** Opens what the rest waits for and does not depend on the language, on a thread of its own: each takes a tenth of a second. */
    static void openLibraries() {
        Thread thread = new Thread(
                () -> {
                    LoggerFactory.getILoggerFactory();
                    new ObjectMapper();
                },
                "zesty-libraries");
        thread.setDaemon(true);
        thread.start();
    }

    /** Any thread. */
    static Brought by(ZestyApplication.Opening opening) {
        List<String> toTell = new ArrayList<>();
        ZestyApplication.Wish wish = opening.pictures();
        Rig rig = opening.isDemo() ? DemoData.rig() : Workspace.lastRig(opening.places(), toTell::add);
        // Signals take longest to come.
        Trail trail = running(rig);
        Settings settings = wish != null
                ? Settings.FIRST.sized(wish.width(), wish.height(), wish.text())
                : Settings.load(opening.places().settings(), toTell::add);
        return new Brought(settings, rig, trail, toTell);
    }

    private static Trail running(Rig rig) {
        try {
            return rig.source().isEmpty() ? null : Trail.start(rig);
        } catch (IllegalArgumentException e) {
            // Told when the window connects to it.
            return null;
        }
    }
}
