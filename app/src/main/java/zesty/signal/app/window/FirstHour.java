package zesty.signal.app.window;

import java.util.function.Predicate;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.rig.Rig;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Snapshot;

/** The steps of the first hour, from plug to report: each is done when the maker has done it. JavaFX thread. */
final class FirstHour {
    /** What is seen at one moment. */
    private record Seen(Workspace workspace, Snapshot shown, Snapshot live) {
        boolean at(Stop stop) {
            return workspace.view().stop().get() == stop && shown.hasSamples();
        }

        Rig rig() {
            return shown.rig();
        }
    }

    private enum Step {
        PLUG(seen ->
                seen.live().health().state() == LinkState.LIVE && seen.live().hasSamples()),
        LINES(seen -> seen.at(Stop.DECODE)),
        QUANTITY(seen -> seen.at(Stop.SCALE)
                && seen.rig().channels().stream()
                        .anyMatch(one -> one.scaling().converter() != null
                                || !one.sensor().kind().isEmpty())),
        LESS_NOISE(seen -> seen.at(Stop.CLEAN)
                && seen.rig().channels().stream()
                        .anyMatch(one -> !one.recipe().steps().isEmpty())),
        ANSWER(seen -> seen.at(Stop.READ)
                && seen.shown().channels().stream().anyMatch(one -> one.reader()
                        .filter(reader -> !Double.isNaN(reader.headline()))
                        .isPresent())),
        RECORD(seen -> !seen.live().recording().running()
                && seen.live().recording().file() != null
                && seen.live().recording().rows() > 0),
        LOOK_BACK(seen -> !seen.workspace().shown().isLive() && seen.shown().hasSamples()),
        REPORT(seen -> seen.workspace().takes().reported());

        private final Predicate<Seen> done;

        Step(Predicate<Seen> done) {
            this.done = done;
        }
    }

    static final int STEPS = Step.values().length;

    private FirstHour() {}

    /** @return the topic of help that tells of a step, counted from 0 */
    static String topic(int step) {
        return "first-" + (step + 1);
    }

    /** @param shown what is in sight. @param live what runs. @return whether that step, counted from 0, is done */
    static boolean done(int step, Workspace workspace, Snapshot shown, Snapshot live) {
        return Step.values()[step].done.test(new Seen(workspace, shown, live));
    }
}
