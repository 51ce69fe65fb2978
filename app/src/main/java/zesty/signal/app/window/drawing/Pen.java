package zesty.signal.app.window.drawing;

import javafx.geometry.VPos;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;

/** Draws lines, areas and words; lengths in pixels from the upper left corner. */
public interface Pen {
    /** @param dash lengths of what is drawn and what is left out, in turn; none for a whole line */
    void line(double fromX, double fromY, double toX, double toY, Color colour, double width, double... dash);

    /** Draws a line through points; NaN in {@code y} parts it. @param dash as of {@link #line} */
    void path(double[] x, double[] y, int length, Color colour, double width, double... dash);

    void rectangle(double x, double y, double width, double height, Color colour);

    void dot(double x, double y, double radius, Color colour);

    /** @param x and y where its left end, middle or right end and its top, middle or foot stand */
    void words(String text, double x, double y, TextAlignment across, VPos down, Color colour);

    /** Keeps what is drawn until {@link #unclip} within a rectangle. */
    void clip(double x, double y, double width, double height);

    void unclip();
}
