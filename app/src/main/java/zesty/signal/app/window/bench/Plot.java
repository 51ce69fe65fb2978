package zesty.signal.app.window.bench;

import java.util.function.DoubleFunction;
import java.util.function.DoubleUnaryOperator;
import javafx.geometry.VPos;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;
import zesty.signal.app.window.Palette;

/** A small plot with named axes, for benches. Redrawn by its owner; the picture follows its size. */
final class Plot extends Pane {
    private static final double LEFT = 52;
    private static final double BOTTOM = 22;
    private static final double TOP = 18;
    private static final double RIGHT = 20;
    private static final double HALF_LETTER = 3.2;

    private final Canvas canvas = new Canvas(100, 100);
    private final Letters letters = new Letters();
    /** The margins that go with the letters: set once a picture, for every point asks for them. */
    private double atLeft = LEFT;

    private double atRight = RIGHT;
    private double atTop = TOP;
    private double atBottom = BOTTOM;
    private double fromX = 0;
    private double toX = 1;
    private double fromY = 0;
    private double toY = 1;
    private Color ink = Color.BLACK;
    private Color grid = Color.LIGHTGRAY;

    Plot() {
        getChildren().addAll(canvas, letters);
        setMinSize(120, 80);
        getStyleClass().add("plot");
    }

    /** Begins a picture: axes, grid and their words. */
    void begin(boolean night, double lowX, double highX, String wordsX, double lowY, double highY, String wordsY) {
        double step = step((highY - lowY) / Math.max(2, getHeight() / letters.of(40)));
        begin(night, lowX, highX, wordsX, lowY, highY, wordsY, step, y -> words(y, step));
    }

    /** The same with words of the owner's at every step up the side. */
    void begin(
            boolean night,
            double lowX,
            double highX,
            String wordsX,
            double lowY,
            double highY,
            String wordsY,
            double stepY,
            DoubleFunction<String> sideWords) {
        atLeft = letters.of(LEFT);
        atRight = letters.of(RIGHT);
        atTop = letters.of(TOP);
        atBottom = letters.of(BOTTOM);
        canvas.setWidth(Math.max(1, getWidth()));
        canvas.setHeight(Math.max(1, getHeight()));
        fromX = lowX;
        toX = highX > lowX ? highX : lowX + 1;
        fromY = lowY;
        toY = highY > lowY ? highY : lowY + 1;
        ink = Palette.muted(night);
        grid = Palette.grid(night);
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, canvas.getWidth(), canvas.getHeight());
        g.setFont(letters.getFont());
        g.setLineWidth(1);
        double stepX = step((toX - fromX) / Math.max(2, getWidth() / letters.of(90)));
        g.setTextAlign(TextAlignment.CENTER);
        g.setTextBaseline(VPos.TOP);
        double lastX = Math.floor((toX + 1e-9) / stepX) * stepX;
        String lastLabel = words(lastX, stepX) + " " + wordsX;
        double lastMiddle = Math.min(pixelX(lastX), canvas.getWidth() - letters.of(HALF_LETTER) * lastLabel.length());
        for (double x = Math.ceil(fromX / stepX) * stepX; x <= toX + 1e-9; x += stepX) {
            g.setStroke(grid);
            g.strokeLine(snap(pixelX(x)), atTop, snap(pixelX(x)), canvas.getHeight() - atBottom);
            g.setFill(ink);
            boolean last = x + stepX > toX + 1e-9;
            String label = last ? lastLabel : words(x, stepX);
            // The last one carries the unit and must not run out of the picture, nor any other into it.
            double middle = last ? lastMiddle : pixelX(x);
            boolean room = last
                    || middle + letters.of(HALF_LETTER) * label.length() + 4
                            < lastMiddle - letters.of(HALF_LETTER) * lastLabel.length();
            if (room) {
                g.fillText(label, middle, canvas.getHeight() - atBottom + 4);
            }
        }
        g.setTextAlign(TextAlignment.RIGHT);
        g.setTextBaseline(VPos.CENTER);
        for (double y = Math.ceil(fromY / stepY) * stepY; y <= toY + 1e-9; y += stepY) {
            g.setStroke(grid);
            g.strokeLine(atLeft, snap(pixelY(y)), canvas.getWidth() - atRight, snap(pixelY(y)));
            g.setFill(ink);
            if (pixelY(y) > atTop + 4) {
                // Above stands what the numbers are.
                g.fillText(sideWords.apply(y), atLeft - 6, pixelY(y));
            }
        }
        g.setTextAlign(TextAlignment.LEFT);
        g.setTextBaseline(VPos.TOP);
        g.fillText(wordsY, 2, 1);
        setAccessibleText("plot of " + wordsY + " over " + wordsX);
    }

    private static double step(double least) {
        double power = Math.pow(10, Math.floor(Math.log10(Math.max(least, 1e-12))));
        double part = least / power;
        return (part <= 1 ? 1 : part <= 2 ? 2 : part <= 5 ? 5 : 10) * power;
    }

    private static String words(double value, double step) {
        return zesty.signal.core.scale.Digits.fixed(value, zesty.signal.core.scale.Digits.decimalsFor(step));
    }

    private static double snap(double pixel) {
        return Math.floor(pixel) + 0.5;
    }

    double pixelX(double x) {
        return atLeft + (x - fromX) / (toX - fromX) * (canvas.getWidth() - atLeft - atRight);
    }

    double pixelY(double y) {
        return canvas.getHeight() - atBottom - (y - fromY) / (toY - fromY) * (canvas.getHeight() - atBottom - atTop);
    }

    /** @return the value at the left end of the foot */
    double lowX() {
        return fromX;
    }

    /** @return the value at the right end of the foot */
    double highX() {
        return toX;
    }

    /** @return the value that stands at a height */
    double valueY(double pixel) {
        return fromY
                + (canvas.getHeight() - atBottom - pixel) / (canvas.getHeight() - atBottom - atTop) * (toY - fromY);
    }

    /** Draws a line through points; NaN parts it. */
    void line(double[] x, double[] y, int length, Color colour, double width) {
        GraphicsContext g = clipped();
        g.setStroke(colour);
        g.setLineWidth(width);
        g.beginPath();
        boolean down = false;
        for (int i = 0; i < length; i++) {
            if (Double.isNaN(y[i])) {
                down = false;
            } else if (down) {
                g.lineTo(pixelX(x[i]), pixelY(y[i]));
            } else {
                g.moveTo(pixelX(x[i]), pixelY(y[i]));
                down = true;
            }
        }
        g.stroke();
        g.restore();
    }

    /** Draws a function over the whole width. */
    void curve(DoubleUnaryOperator function, Color colour) {
        int n = (int) Math.max(2, canvas.getWidth() - atLeft - atRight);
        double[] x = new double[n];
        double[] y = new double[n];
        for (int i = 0; i < n; i++) {
            x[i] = fromX + (toX - fromX) * i / (n - 1);
            y[i] = function.applyAsDouble(x[i]);
        }
        line(x, y, n, colour, 2);
    }

    void dots(double[] x, double[] y, int length, Color colour, double radius) {
        GraphicsContext g = clipped();
        g.setFill(colour);
        for (int i = 0; i < length; i++) {
            g.fillOval(pixelX(x[i]) - radius, pixelY(y[i]) - radius, 2 * radius, 2 * radius);
        }
        g.restore();
    }

    /** @return the value that stands at a distance from the left */
    double valueX(double pixel) {
        return fromX + (pixel - atLeft) / (canvas.getWidth() - atLeft - atRight) * (toX - fromX);
    }

    /** Lays a wash over a stretch, or draws an upright line where it is none. */
    void upright(double from, double to, Color colour) {
        GraphicsContext g = clipped();
        g.setFill(colour);
        double left = pixelX(from);
        g.fillRect(left, atTop, Math.max(1.5, pixelX(to) - left), canvas.getHeight() - atTop - atBottom);
        g.restore();
    }

    /**
     * Draws an upright line with words at its head.
     *
     * @param row 0 for the highest line of words; others stand lower, so that neighbours do not lie over each other
     */
    void named(double x, String words, int row, Color colour) {
        upright(x, x, colour);
        GraphicsContext g = clipped();
        double left = pixelX(x) + 4;
        g.setFill(ink);
        g.setTextAlign(TextAlignment.LEFT);
        g.fillText(words, left, atTop + 8 + letters.of(15) * row);
        g.restore();
    }

    /** Draws an upright bar; a thin one where it takes no time. */
    void bar(double from, double to, double low, double high, Color colour) {
        GraphicsContext g = clipped();
        g.setFill(colour);
        double left = pixelX(from);
        double top = Math.min(pixelY(low), pixelY(high));
        g.fillRect(left, top, Math.max(2.5, pixelX(to) - left), Math.max(1, Math.abs(pixelY(low) - pixelY(high))));
        g.restore();
    }

    /** A cell of a picture, without a seam to its neighbours. */
    void cell(double fromX, double toX, double fromY, double toY, Color colour) {
        GraphicsContext g = clipped();
        g.setFill(colour);
        double left = Math.floor(pixelX(fromX));
        double top = Math.floor(pixelY(toY));
        g.fillRect(
                left, top, Math.max(1, Math.floor(pixelX(toX)) - left), Math.max(1, Math.floor(pixelY(fromY)) - top));
        g.restore();
    }

    /** Lays a wash over a range of heights. */
    void wash(double low, double high, Color colour) {
        GraphicsContext g = clipped();
        g.setFill(colour);
        g.fillRect(atLeft, pixelY(high), canvas.getWidth() - atLeft - atRight, pixelY(low) - pixelY(high));
        g.restore();
    }

    /** Draws a dashed line at a height, with words at its right end. */
    void limit(double y, String words, Color colour) {
        limit(y, words, colour, false);
    }

    /** The same, with the words at its left end. */
    void limit(double y, String words, Color colour, boolean left) {
        GraphicsContext g = clipped();
        g.setStroke(colour);
        g.setLineDashes(6, 4);
        g.strokeLine(atLeft, snap(pixelY(y)), canvas.getWidth() - atRight, snap(pixelY(y)));
        g.setLineDashes();
        g.setFill(ink);
        g.setTextAlign(left ? TextAlignment.LEFT : TextAlignment.RIGHT);
        g.setTextBaseline(VPos.BOTTOM);
        g.fillText(words, left ? atLeft + 4 : canvas.getWidth() - atRight - 2, pixelY(y) - 2);
        g.restore();
    }

    private GraphicsContext clipped() {
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.save();
        g.beginPath();
        g.rect(atLeft, atTop - 8, canvas.getWidth() - atLeft - atRight, canvas.getHeight() - atTop - atBottom + 8);
        g.clip();
        return g;
    }
}
