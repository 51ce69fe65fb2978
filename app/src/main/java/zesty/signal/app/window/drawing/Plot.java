package zesty.signal.app.window.drawing;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.DoubleFunction;
import java.util.function.DoubleUnaryOperator;
import javafx.geometry.VPos;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** A small plot with named axes, for benches. Redrawn by its owner; the picture follows its size. */
public final class Plot extends Pane implements Drawn {
    private static final double LEFT = 52;
    private static final double BOTTOM = 22;
    private static final double TOP = 18;
    private static final double RIGHT = 20;
    private static final double HALF_LETTER = 3.2;
    /** A digit is wider than most letters. */
    private static final double DIGIT = 7;
    /** From one line of labels to the next. */
    private static final double ROW = 15;

    private static final double HALO = 0.85;
    /** From the numbers up the side to the picture. */
    private static final double SIDE_GAP = 6;

    private final Canvas canvas = new Canvas(100, 100);
    private final Pen window = new CanvasPen(canvas.getGraphicsContext2D());
    private Pen pen = window;
    private SvgPen drawing;
    private Consumer<String> taker;
    /** Of the line that is drawn: kept, for lines are long and come with every frame. */
    private double[] lineX = new double[0];

    private double[] lineY = new double[0];
    private final Letters letters = new Letters();
    /** The margins that go with the letters: set once a picture, for every point asks for them. */
    private double atLeft = LEFT;

    private String subject = Messages.of("drawing.plot");
    private double atRight = RIGHT;
    private double atTop = TOP;
    private double atBottom = BOTTOM;
    private double fromX = 0;
    private double toX = 1;
    private double fromY = 0;
    private double toY = 1;
    private final List<Placed> labels = new ArrayList<>();
    private final Inked inked = new Inked();
    private Color ground = Color.WHITE;
    private Color ink = Color.BLACK;
    private Color grid = Color.LIGHTGRAY;

    /** A label where it stands, in pixels. */
    private record Placed(String words, double left, double top, double width, double height) {}

    public Plot() {
        getChildren().addAll(canvas, letters);
        setMinSize(120, 80);
        getStyleClass().add("plot");
    }

    /** Begins a picture: axes, grid and their words. */
    public void begin(
            boolean night, double lowX, double highX, String wordsX, double lowY, double highY, String wordsY) {
        double step = step((highY - lowY) / Math.max(2, getHeight() / letters.of(40)));
        begin(night, lowX, highX, wordsX, lowY, highY, wordsY, step, y -> words(y, step));
    }

    /** The same with words of the owner's at every step up the side. */
    public void begin(
            boolean night,
            double lowX,
            double highX,
            String wordsX,
            double lowY,
            double highY,
            String wordsY,
            double stepY,
            DoubleFunction<String> sideWords) {
        atLeft = Math.max(letters.of(LEFT), letters.of(widest(lowY, highY, stepY, sideWords)) + SIDE_GAP + 2);
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
        takeUp(night);
        labels.clear();
        inked.clear(canvas.getWidth(), canvas.getHeight());
        ground = Palette.card(night).deriveColor(0, 1, 1, HALO);
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, canvas.getWidth(), canvas.getHeight());
        g.setFont(letters.getFont());
        double stepX = step((toX - fromX) / Math.max(2, getWidth() / letters.of(90)));
        double lastX = Math.floor((toX + 1e-9) / stepX) * stepX;
        String lastLabel = words(lastX, stepX) + " " + wordsX;
        double lastMiddle = Math.min(pixelX(lastX), canvas.getWidth() - letters.of(HALF_LETTER) * lastLabel.length());
        for (double x = Math.ceil(fromX / stepX) * stepX; x <= toX + 1e-9; x += stepX) {
            pen.line(snap(pixelX(x)), atTop, snap(pixelX(x)), canvas.getHeight() - atBottom, grid, 1);
            boolean last = x + stepX > toX + 1e-9;
            String label = last ? lastLabel : words(x, stepX);
            // The last one carries the unit and must not run out of the picture, nor any other into it.
            double middle = last ? lastMiddle : pixelX(x);
            boolean room = last
                    || middle + letters.of(HALF_LETTER) * label.length() + 4
                            < lastMiddle - letters.of(HALF_LETTER) * lastLabel.length();
            if (room) {
                pen.words(label, middle, canvas.getHeight() - atBottom + 4, TextAlignment.CENTER, VPos.TOP, ink);
            }
        }
        for (double y = Math.ceil(fromY / stepY) * stepY; y <= toY + 1e-9; y += stepY) {
            pen.line(atLeft, snap(pixelY(y)), canvas.getWidth() - atRight, snap(pixelY(y)), grid, 1);
            if (pixelY(y) > atTop + 4) {
                // Above stands what the numbers are.
                pen.words(sideWords.apply(y), atLeft - SIDE_GAP, pixelY(y), TextAlignment.RIGHT, VPos.CENTER, ink);
            }
        }
        pen.words(wordsY, 2, 1, TextAlignment.LEFT, VPos.TOP, ink);
        subject = wordsY;
        setAccessibleText(Messages.of("drawing.plot-of-over", wordsY, wordsX));
    }

    /** Hands over what was drawn since the last picture began, if somebody waits for it, and begins the next one. */
    private void takeUp(boolean night) {
        if (drawing != null) {
            paintLabels(drawing);
            Consumer<String> waiting = taker;
            String whole = drawing.finished();
            drawing = null;
            taker = null;
            pen = window;
            waiting.accept(whole);
        }
        if (taker != null) {
            drawing = new SvgPen(
                    canvas.getWidth(),
                    canvas.getHeight(),
                    Palette.card(night),
                    letters.getFont().getSize());
            pen = new BothPens(window, drawing);
        }
    }

    @Override
    public String subject() {
        return subject;
    }

    @Override
    public void nextDrawing(Consumer<String> after) {
        taker = after;
    }

    /** @return how wide the numbers up the side are, in pixels of the usual letters: a converter of 24 bits has eight digits */
    private static double widest(double low, double high, double step, DoubleFunction<String> words) {
        double first = Math.ceil(low / step) * step;
        double last = Math.floor(high / step) * step;
        return DIGIT * Math.max(words.apply(first).length(), words.apply(last).length());
    }

    private static double step(double least) {
        double power = Math.pow(10, Math.floor(Math.log10(Math.max(least, 1e-12))));
        double part = least / power;
        return (part <= 1 ? 1 : part <= 2 ? 2 : part <= 5 ? 5 : 10) * power;
    }

    private static String words(double value, double step) {
        return Digits.fixed(value, Digits.decimalsFor(step));
    }

    private static double snap(double pixel) {
        return Math.floor(pixel) + 0.5;
    }

    public double pixelX(double x) {
        return atLeft + (x - fromX) / (toX - fromX) * (canvas.getWidth() - atLeft - atRight);
    }

    public double pixelY(double y) {
        return canvas.getHeight() - atBottom - (y - fromY) / (toY - fromY) * (canvas.getHeight() - atBottom - atTop);
    }

    /** @return the value at the left end of the foot */
    public double lowX() {
        return fromX;
    }

    /** @return the value at the right end of the foot */
    public double highX() {
        return toX;
    }

    /** @return the value that stands at a height */
    public double valueY(double pixel) {
        return fromY
                + (canvas.getHeight() - atBottom - pixel) / (canvas.getHeight() - atBottom - atTop) * (toY - fromY);
    }

    /** Draws a line through points; NaN parts it. @param dash lengths drawn and left out in turn, in pixels; none for a whole line */
    public void line(double[] x, double[] y, int length, Color colour, double width, double... dash) {
        if (lineX.length < length) {
            lineX = new double[length];
            lineY = new double[length];
        }
        for (int i = 0; i < length; i++) {
            lineX[i] = pixelX(x[i]);
            lineY[i] = pixelY(y[i]);
        }
        inked.line(lineX, lineY, length);
        clip();
        pen.path(lineX, lineY, length, colour, width, dash);
        pen.unclip();
    }

    /** Draws a function over the whole width. */
    public void curve(DoubleUnaryOperator function, Color colour) {
        int n = (int) Math.max(2, canvas.getWidth() - atLeft - atRight);
        double[] x = new double[n];
        double[] y = new double[n];
        for (int i = 0; i < n; i++) {
            x[i] = fromX + (toX - fromX) * i / (n - 1);
            y[i] = function.applyAsDouble(x[i]);
        }
        line(x, y, n, colour, 2);
    }

    public void dots(double[] x, double[] y, int length, Color colour, double radius) {
        clip();
        for (int i = 0; i < length; i++) {
            pen.dot(pixelX(x[i]), pixelY(y[i]), radius, colour);
        }
        pen.unclip();
    }

    /** @return the value that stands at a distance from the left */
    public double valueX(double pixel) {
        return fromX + (pixel - atLeft) / (canvas.getWidth() - atLeft - atRight) * (toX - fromX);
    }

    /** Lays a wash over a stretch, or draws an upright line where it is none. */
    public void upright(double from, double to, Color colour) {
        double left = pixelX(from);
        area(left, atTop, Math.max(1.5, pixelX(to) - left), canvas.getHeight() - atTop - atBottom, colour);
    }

    /**
     * Draws an upright line with words at its head.
     *
     * @param row 0 for the highest line of words, where there is room; lines are drawn before they are named
     */
    public void named(double x, String words, int row, Color colour) {
        upright(x, x, colour);
        double left = pixelX(x) + 4;
        double width = letters.of(2 * HALF_LETTER) * words.length();
        double height = letters.of(ROW);
        double top = freeTop(left, width, height, row);
        labels.add(new Placed(words, left, top, width, height));
        // Again at each line, so that no line lies on a label.
        paintLabels(window);
    }

    /** @return where words stand on no other words, and on as little of the lines drawn so far as can be */
    private double freeTop(double left, double width, double height, int row) {
        double highest = atTop + 8;
        int places = (int) Math.max(1, Math.floor((canvas.getHeight() - atBottom - highest) / height));
        double best = highest + height * Math.min(row, places - 1);
        int least = Integer.MAX_VALUE;
        for (int i = 0; i < places && least > 0; i++) {
            double top = highest + height * ((row + i) % places);
            int ink = isTaken(left, top, width, height) ? Integer.MAX_VALUE : inked.within(left, top, width, height);
            if (ink < least) {
                least = ink;
                best = top;
            }
        }
        return best;
    }

    private boolean isTaken(double left, double top, double width, double height) {
        return labels.stream()
                .anyMatch(one -> left < one.left + one.width
                        && one.left < left + width
                        && top < one.top + one.height - 1
                        && one.top < top + height - 1);
    }

    /** Words on a halo of the ground. */
    private void paintLabels(Pen with) {
        with.clip(atLeft, atTop - 8, canvas.getWidth() - atLeft - atRight, canvas.getHeight() - atTop - atBottom + 8);
        for (Placed one : labels) {
            with.rectangle(one.left - 2, one.top, one.width + 4, one.height, ground);
        }
        for (Placed one : labels) {
            with.words(one.words, one.left, one.top + 1, TextAlignment.LEFT, VPos.TOP, ink);
        }
        with.unclip();
    }

    /** Draws an upright bar; a thin one where it takes no time. */
    public void bar(double from, double to, double low, double high, Color colour) {
        double left = pixelX(from);
        double top = Math.min(pixelY(low), pixelY(high));
        area(left, top, Math.max(2.5, pixelX(to) - left), Math.max(1, Math.abs(pixelY(low) - pixelY(high))), colour);
    }

    /** A cell of a picture, without a seam to its neighbours. */
    public void cell(double fromX, double toX, double fromY, double toY, Color colour) {
        double left = Math.floor(pixelX(fromX));
        double top = Math.floor(pixelY(toY));
        area(
                left,
                top,
                Math.max(1, Math.floor(pixelX(toX)) - left),
                Math.max(1, Math.floor(pixelY(fromY)) - top),
                colour);
    }

    /** Lays a wash over a range of heights. */
    public void wash(double low, double high, Color colour) {
        area(atLeft, pixelY(high), canvas.getWidth() - atLeft - atRight, pixelY(low) - pixelY(high), colour);
    }

    private void area(double left, double top, double width, double height, Color colour) {
        clip();
        pen.rectangle(left, top, width, height, colour);
        pen.unclip();
    }

    /** Draws a dashed line at a height, with words at its right end. */
    public void limit(double y, String words, Color colour) {
        limit(y, words, colour, false);
    }

    /** The same, with the words at its left end. */
    public void limit(double y, String words, Color colour, boolean left) {
        clip();
        pen.line(atLeft, snap(pixelY(y)), canvas.getWidth() - atRight, snap(pixelY(y)), colour, 1, 6, 4);
        pen.words(
                words,
                left ? atLeft + 4 : canvas.getWidth() - atRight - 2,
                pixelY(y) - 2,
                left ? TextAlignment.LEFT : TextAlignment.RIGHT,
                VPos.BOTTOM,
                ink);
        pen.unclip();
    }

    private void clip() {
        pen.clip(atLeft, atTop - 8, canvas.getWidth() - atLeft - atRight, canvas.getHeight() - atTop - atBottom + 8);
    }
}
