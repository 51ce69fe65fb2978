package zesty.signal.app.window.bench.act;

import javafx.geometry.VPos;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.core.act.ThresholdMap;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** The map: threshold across, hysteresis up, the darker the better it tells the true events. */
final class MapView extends Pane {
    private static final double HEIGHT = 150;
    private static final double LEFT = 34;
    private static final double FOOT = 18;

    /** Takes a place; a row below 0 for none. */
    interface Place {
        void at(int row, int column);
    }

    private final Canvas canvas = new Canvas(10, HEIGHT);
    private ThresholdMap map;
    private int row = -1;
    private int column = -1;
    private String unit = "";

    MapView() {
        HelpPlace.mark(this, "map");
        setId("threshold-map");
        getChildren().add(canvas);
        setMinHeight(HEIGHT);
        setPrefHeight(HEIGHT);
        setMaxHeight(HEIGHT);
        widthProperty().addListener((property, was, is) -> draw());
        managedProperty().bind(visibleProperty());
        setVisible(false);
    }

    void on(Place over, Place pressed) {
        setOnMouseMoved(event -> tell(event.getX(), event.getY(), over));
        setOnMouseExited(event -> over.at(-1, -1));
        setOnMouseClicked(event -> tell(event.getX(), event.getY(), pressed));
    }

    private void tell(double x, double y, Place place) {
        if (map == null) {
            return;
        }
        int c = (int) Math.floor((x - LEFT) / (getWidth() - LEFT) * map.thresholds().length);
        int r = (int) Math.floor((HEIGHT - FOOT - y) / (HEIGHT - FOOT) * map.hystereses().length);
        boolean within = c >= 0 && c < map.thresholds().length && r >= 0 && r < map.hystereses().length;
        if (within) {
            place.at(r, c);
        }
    }

    /** @param of null for none. @param bestRow and {@code bestColumn} the place that is proposed */
    void show(ThresholdMap of, int bestRow, int bestColumn, String unitOf, boolean below) {
        map = of;
        row = bestRow;
        column = bestColumn;
        unit = unitOf;
        setVisible(of != null);
        setAccessibleText(Messages.of(
                "bench.act.map-of-threshold-across-and", (below ? Messages.of("bench.act.of-a-limit-below") : "")));
        draw();
    }

    private void draw() {
        double width = Math.max(10, getWidth());
        canvas.setWidth(width);
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, width, HEIGHT);
        if (map == null) {
            return;
        }
        int columns = map.thresholds().length;
        int rows = map.hystereses().length;
        double wide = (width - LEFT) / columns;
        double high = (HEIGHT - FOOT) / rows;
        for (int r = 0; r < rows; r++) {
            for (int c = 0; c < columns; c++) {
                double f1 = map.f1(r, c);
                g.setFill(Color.gray(0.93 - 0.68 * f1 * f1));
                g.fillRect(LEFT + c * wide, HEIGHT - FOOT - (r + 1) * high, wide + 0.5, high + 0.5);
            }
        }
        g.setStroke(Palette.LEMON);
        g.setLineWidth(3);
        double x = LEFT + column * wide;
        double y = HEIGHT - FOOT - (row + 1) * high;
        g.strokeRect(x - 3, y - 3, wide + 6, high + 6);
        g.setFill(Palette.muted(false));
        g.setFont(Font.font("Atkinson Hyperlegible Next", 11));
        g.setTextBaseline(VPos.TOP);
        g.setTextAlign(TextAlignment.LEFT);
        g.fillText(Digits.about(map.thresholds()[0], 3), LEFT, HEIGHT - FOOT + 4);
        g.setTextAlign(TextAlignment.CENTER);
        g.fillText(
                Messages.of("bench.act.threshold", (unit.isEmpty() ? "" : ", " + unit)),
                LEFT + (width - LEFT) / 2,
                HEIGHT - FOOT + 4);
        g.setTextAlign(TextAlignment.RIGHT);
        g.fillText(Digits.about(map.thresholds()[columns - 1], 3), width, HEIGHT - FOOT + 4);
        g.fillText("\u00b1 " + Digits.about(map.hystereses()[rows - 1] / 2, 2), LEFT - 3, 0);
        g.setTextBaseline(VPos.BOTTOM);
        g.fillText("\u00b1 0", LEFT - 3, HEIGHT - FOOT);
    }
}
