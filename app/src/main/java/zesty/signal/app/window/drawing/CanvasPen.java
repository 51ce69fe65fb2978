package zesty.signal.app.window.drawing;

import javafx.geometry.VPos;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;

/** Draws onto a canvas of the window. */
public final class CanvasPen implements Pen {
    private final GraphicsContext g;

    public CanvasPen(GraphicsContext context) {
        g = context;
    }

    @Override
    public void line(double fromX, double fromY, double toX, double toY, Color colour, double width, double... dash) {
        g.setStroke(colour);
        g.setLineWidth(width);
        g.setLineDashes(dash);
        g.strokeLine(fromX, fromY, toX, toY);
        g.setLineDashes();
    }

    @Override
    public void path(double[] x, double[] y, int length, Color colour, double width, double... dash) {
        g.setStroke(colour);
        g.setLineWidth(width);
        g.beginPath();
        boolean down = false;
        for (int i = 0; i < length; i++) {
            if (Double.isNaN(y[i])) {
                down = false;
            } else if (down) {
                g.lineTo(x[i], y[i]);
            } else {
                g.moveTo(x[i], y[i]);
                down = true;
            }
        }
        g.setLineDashes(dash);
        g.stroke();
        g.setLineDashes();
    }

    @Override
    public void rectangle(double x, double y, double width, double height, Color colour) {
        g.setFill(colour);
        g.fillRect(x, y, width, height);
    }

    @Override
    public void dot(double x, double y, double radius, Color colour) {
        g.setFill(colour);
        g.fillOval(x - radius, y - radius, 2 * radius, 2 * radius);
    }

    @Override
    public void words(String text, double x, double y, TextAlignment across, VPos down, Color colour) {
        g.setFill(colour);
        g.setTextAlign(across);
        g.setTextBaseline(down);
        g.fillText(text, x, y);
    }

    @Override
    public void clip(double x, double y, double width, double height) {
        g.save();
        g.beginPath();
        g.rect(x, y, width, height);
        g.clip();
    }

    @Override
    public void unclip() {
        g.restore();
    }
}
