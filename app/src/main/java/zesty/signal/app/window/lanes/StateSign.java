package zesty.signal.app.window.lanes;

import javafx.scene.Node;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import javafx.scene.paint.Paint;
import javafx.scene.shape.Arc;
import javafx.scene.shape.ArcType;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import javafx.scene.shape.Shape;
import zesty.signal.engine.LinkState;

/**
 * A link's state as a small shape, so that it never takes a colour to tell: a full disc is live, a half one held, a ring
 * lost, a broken ring on its way, a cross refused, a square over.
 */
public final class StateSign extends Pane {
    private static final double SIZE = 11;

    private LinkState shown;
    private Paint paint = Color.BLACK;

    public StateSign() {
        setMinSize(SIZE, SIZE);
        setPrefSize(SIZE, SIZE);
        setMaxSize(SIZE, SIZE);
    }

    /** Shows the state in the given colour. */
    public void show(LinkState state, Paint colour) {
        if (state == shown && colour.equals(paint)) {
            return;
        }
        shown = state;
        paint = colour;
        double middle = SIZE / 2;
        Circle ring = new Circle(middle, middle, middle - 1);
        ring.setFill(Color.TRANSPARENT);
        ring.setStroke(colour);
        ring.setStrokeWidth(1.6);
        getChildren()
                .setAll(
                        switch (state) {
                            case LIVE -> new Node[] {filled(new Circle(middle, middle, middle - 0.5))};
                            case HELD -> new Node[] {ring, filled(half(middle))};
                            case LOST -> new Node[] {ring};
                            case CONNECTING, WARMING_UP -> new Node[] {dashed(ring)};
                            case REFUSED ->
                                new Node[] {stroke(1, 1, SIZE - 1, SIZE - 1), stroke(1, SIZE - 1, SIZE - 1, 1)};
                            case OVER, STORED -> new Node[] {filled(new Rectangle(1.5, 1.5, SIZE - 3, SIZE - 3))};
                            case IDLE -> new Node[0];
                        });
    }

    private Shape filled(Shape shape) {
        shape.setFill(paint);
        return shape;
    }

    private static Arc half(double middle) {
        Arc arc = new Arc(middle, middle, middle - 1, middle - 1, 90, 180);
        arc.setType(ArcType.CHORD);
        return arc;
    }

    private static Circle dashed(Circle ring) {
        ring.getStrokeDashArray().setAll(3.0, 2.5);
        return ring;
    }

    private Line stroke(double x0, double y0, double x1, double y1) {
        Line line = new Line(x0, y0, x1, y1);
        line.setStroke(paint);
        line.setStrokeWidth(1.8);
        return line;
    }
}
