package zesty.signal.app.window.parts;

import java.nio.file.Path;
import java.util.function.Consumer;
import java.util.function.Predicate;
import javafx.application.Platform;
import javafx.beans.value.ChangeListener;
import javafx.scene.Node;
import javafx.scene.Scene;

/** What is being written on a card of the shelf, a name or a path. A listing waits meanwhile. JavaFX thread only. */
final class CardWriting {
    private final Node shelf;
    private final Runnable after;
    private final Consumer<Path> back;
    /** Ends what is being written; null where nothing is. */
    private Runnable end;

    /**
     * @param after done once nothing is being written any more
     * @param back gives the keyboard to the card of a take
     */
    CardWriting(Node shelf, Runnable after, Consumer<Path> back) {
        this.shelf = shelf;
        this.after = after;
        this.back = back;
    }

    boolean goesOn() {
        return end != null;
    }

    /**
     * Ends once a control that is none of these has the keyboard, as after Escape; another program having it ends nothing.
     *
     * @param ended takes the controls away
     */
    void begins(Predicate<Node> controls, Runnable ended) {
        Scene scene = shelf.getScene();
        ChangeListener<Node> elsewhere = (p, was, is) -> {
            if (!controls.test(is)) {
                end();
            }
        };
        scene.focusOwnerProperty().addListener(elsewhere);
        end = () -> {
            scene.focusOwnerProperty().removeListener(elsewhere);
            ended.run();
        };
    }

    /** Takes the controls away, and shows what was listed meanwhile. */
    void end() {
        Runnable ending = end;
        if (ending != null) {
            end = null;
            ending.run();
            Platform.runLater(after);
        }
    }

    /** Ends the writing; the keyboard returns to the card once the key is up, or Enter held down would open the take. */
    void leaveFor(Path file) {
        shelf.requestFocus();
        end();
        shelf.setOnKeyReleased(event -> {
            shelf.setOnKeyReleased(null);
            back.accept(file);
        });
    }
}
