package zesty.signal.app.window.drawing;

import javafx.geometry.VPos;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;

/** Draws the same with two pens. */
public record BothPens(Pen one, Pen other) implements Pen {
    @Override
    public void line(double fromX, double fromY, double toX, double toY, Color colour, double width, double... dash) {
        one.line(fromX, fromY, toX, toY, colour, width, dash);
        other.line(fromX, fromY, toX, toY, colour, width, dash);
    }

    @Override
    public void path(double[] x, double[] y, int length, Color colour, double width, double... dash) {
        one.path(x, y, length, colour, width, dash);
        other.path(x, y, length, colour, width, dash);
    }

    @Override
    public void rectangle(double x, double y, double width, double height, Color colour) {
        one.rectangle(x, y, width, height, colour);
        other.rectangle(x, y, width, height, colour);
    }

    @Override
    public void dot(double x, double y, double radius, Color colour) {
        one.dot(x, y, radius, colour);
        other.dot(x, y, radius, colour);
    }

    @Override
    public void words(String text, double x, double y, TextAlignment across, VPos down, Color colour) {
        one.words(text, x, y, across, down, colour);
        other.words(text, x, y, across, down, colour);
    }

    @Override
    public void clip(double x, double y, double width, double height) {
        one.clip(x, y, width, height);
        other.clip(x, y, width, height);
    }

    @Override
    public void unclip() {
        one.unclip();
        other.unclip();
    }
}
