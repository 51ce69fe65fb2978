package zesty.signal.app.window.drawing;

import java.util.Optional;
import javafx.scene.Node;

/** What help has to tell of a part of the window: the topic's id stands at the part itself. JavaFX thread. */
public final class HelpPlace {
    private static final String HELP = "zesty-help";

    private HelpPlace() {}

    /** @param topic of the help; behind a # the word that the paragraph of this number begins with */
    public static void mark(Node part, String topic) {
        part.getProperties().put(HELP, topic);
    }

    /** @return the topic of the part, or of the nearest that it lies in */
    public static Optional<String> of(Node part) {
        for (Node at = part; at != null; at = at.getParent()) {
            if (at.getScene() == null) {
                return Optional.empty();
            }
            if (at.getProperties().get(HELP) instanceof String topic) {
                return Optional.of(topic);
            }
        }
        return Optional.empty();
    }
}
