package zesty.signal.app.window.bench;

import javafx.scene.control.TextField;

/** Fills boxes that somebody may be typing in. JavaFX thread only. */
public final class TypedText {
    private static final String SAID = "said";

    private TypedText() {}

    /** Says a value in a box, unless somebody is typing there: what was typed is theirs to finish. */
    public static void say(TextField box, String text) {
        Object said = box.getProperties().get(SAID);
        boolean typing = box.isFocused() && said != null && !box.getText().equals(said);
        box.getProperties().put(SAID, text);
        if (!typing) {
            box.setText(text);
        }
    }

    /** Says a value in a box, whatever is in it: it is about something else now. */
    public static void sayAnew(TextField box, String text) {
        box.getProperties().put(SAID, text);
        box.setText(text);
    }
}
