package zesty.signal.app.window.drawing;

import javafx.scene.control.Label;

/** What pictures write with: a label that says nothing and wears the style sheet's font, at the size of text of the window. */
public final class Letters extends Label {
    private static final double USUAL = 11.5;

    public Letters() {
        getStyleClass().add("plot-words");
        setManaged(false);
    }

    /** @return a length in pixels that goes with the letters */
    public double of(double pixels) {
        return pixels * getFont().getSize() / USUAL;
    }
}
