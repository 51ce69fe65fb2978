package zesty.signal.app.window.drawing;

import javafx.scene.Node;

/** Lets a test ask a plot where it draws a value. */
public record PlotProbe(Node plot) {
    public double pixelOfFoot(double value) {
        return ((Plot) plot).pixelX(value);
    }

    public double pixelOf(double value) {
        return ((Plot) plot).pixelY(value);
    }
}
