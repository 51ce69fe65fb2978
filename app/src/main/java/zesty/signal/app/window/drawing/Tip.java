package zesty.signal.app.window.drawing;

import javafx.event.EventHandler;
import javafx.scene.Node;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseEvent;

/**
 * Tooltips: made when the pointer first comes over what they explain, for each is a window of its own and a start would pay for all of
 * them. Whoever hears the window has the words at once. JavaFX thread.
 */
public final class Tip {
    private static final String TIP = "zesty-tip";

    private final Node part;
    private String words;
    private Tooltip made;
    private final EventHandler<MouseEvent> come = event -> make();

    private Tip(Node part) {
        this.part = part;
    }

    /** Explains a part of the window. @param words none where null or empty; others take the place of those it had */
    public static void on(Node part, String words) {
        String said = words == null || words.isEmpty() ? null : words;
        if (part.getProperties().get(TIP) instanceof Tip tip) {
            tip.say(said);
        } else if (said != null) {
            Tip tip = new Tip(part);
            part.getProperties().put(TIP, tip);
            part.addEventHandler(MouseEvent.MOUSE_ENTERED, tip.come);
            tip.say(said);
        }
    }

    private void say(String said) {
        if (said == null ? words == null : said.equals(words)) {
            return;
        }
        words = said;
        part.setAccessibleHelp(said);
        if (made != null && said == null) {
            Tooltip.uninstall(part, made);
            made = null;
        } else if (made != null) {
            made.setText(said);
        }
    }

    private void make() {
        if (made == null && words != null) {
            made = new Tooltip(words);
            Tooltip.install(part, made);
        }
    }
}
