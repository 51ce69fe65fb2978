package zesty.signal.app.window;

import java.util.ArrayList;
import java.util.List;
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
    /** Any thread. */
    static Brought by(ZestyApplication.Opening opening) {
        List<String> toTell = new ArrayList<>();
        ZestyApplication.Wish wish = opening.pictures();
        Settings settings = wish != null
                ? Settings.FIRST.sized(wish.width(), wish.height(), wish.text())
                : Settings.load(opening.places().settings(), toTell::add);
        Rig rig = opening.isDemo() ? DemoData.rig() : Workspace.lastRig(opening.places(), toTell::add);
        return new Brought(settings, rig, running(rig), toTell);
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
