package zesty.signal.app.window.parts;

import javafx.scene.SnapshotParameters;
import javafx.scene.image.Image;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import javafx.scene.shape.Arc;
import javafx.scene.shape.ArcType;
import javafx.scene.shape.Circle;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.core.text.Messages;

/** A citrus wheel of eight segments: as many are filled as the reading deserves trust. */
public final class Slice extends Pane {
    private static final int SEGMENTS = 8;
    private final Arc[] segments = new Arc[SEGMENTS];
    private final Circle rind;

    public Slice(double size) {
        HelpPlace.mark(this, "quality");
        setMinSize(size, size);
        setPrefSize(size, size);
        setMaxSize(size, size);
        double middle = size / 2;
        rind = new Circle(middle, middle, middle - 1);
        rind.setFill(Color.TRANSPARENT);
        rind.setStrokeWidth(2);
        getChildren().add(rind);
        double part = 360.0 / SEGMENTS;
        for (int i = 0; i < SEGMENTS; i++) {
            // From the top, clockwise, with a thin gap between segments.
            Arc arc = new Arc(middle, middle, middle - 3.5, middle - 3.5, 90 - (i + 1) * part + 4, part - 8);
            arc.setType(ArcType.ROUND);
            segments[i] = arc;
            getChildren().add(arc);
        }
        setAccessibleText(Messages.of("parts.quality-2"));
    }

    public void show(int filled, Color colour) {
        rind.setStroke(colour);
        for (int i = 0; i < SEGMENTS; i++) {
            segments[i].setFill(i < filled ? colour : colour.deriveColor(0, 1, 1, 0.16));
        }
        setAccessibleText(Messages.of("parts.quality-of", filled, SEGMENTS));
    }

    /** @return the product's sign as a picture, for the window's frame */
    public static Image icon(int size) {
        Slice slice = new Slice(size);
        slice.show(SEGMENTS, Palette.LEMON);
        SnapshotParameters clear = new SnapshotParameters();
        clear.setFill(Color.TRANSPARENT);
        return slice.snapshot(clear, null);
    }
}
