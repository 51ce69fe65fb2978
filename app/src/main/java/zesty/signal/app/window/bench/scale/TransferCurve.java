package zesty.signal.app.window.bench.scale;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.Label;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.core.prove.ReferencePoint;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/** The curve from what arrives to the quantity, with the present point riding on it; a straight one can be pulled. */
final class TransferCurve extends VBox {
    private final Plot transfer = new Plot();
    private final Consumer<Scaling> pulledTo;
    private Scaling shown;
    /** Which end of a straight curve is held: −1 the left, 1 the right, 0 none. */
    private int grip;

    private Scaling pulled;

    /** @param pulledTo is told the scaling that the maker pulled a straight line to, once he lets go */
    TransferCurve(Consumer<Scaling> pulledTo) {
        super(2);
        HelpPlace.mark(this, "transfer");
        this.pulledTo = pulledTo;
        transfer.setId("transfer");
        transfer.setOnMousePressed(event -> grip = gripAt(event.getX()));
        transfer.setOnMouseDragged(event -> drag(event.getY()));
        transfer.setOnMouseReleased(event -> letGo());
        Label words = Bench.small(Messages.of("bench.scale.from-what-arrives-below-to-the"));
        words.setWrapText(true);
        words.setMinHeight(Region.USE_PREF_SIZE);
        getChildren().addAll(words, transfer);
        setMinWidth(0);
        VBox.setVgrow(transfer, Priority.ALWAYS);
    }

    /** @param points that the channel is being proved at */
    void show(Snapshot snapshot, ChannelSnapshot channel, List<ReferencePoint> points, boolean night) {
        shown = channel.channel().scaling();
        Scaling scaling = channel.scalingNow();
        // While an end is pulled the picture stands still, and only the line in it moves.
        Scaling drawn = pulled != null ? pulled : scaling;
        double raw = channel.latestRaw();
        double low = scaling.throughConverter().map(Converter::lowestCode).orElse(0.0);
        double high = scaling.throughConverter().map(Converter::highestCode).orElse(Math.max(1, 2 * Math.abs(raw)));
        if (scaling.converter() == null) {
            low = raw < 0 ? -high : 0;
        }
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        for (int i = 0; i <= 200; i++) {
            double y = scaling.apply(low + (high - low) * i / 200);
            least = y < least ? y : least;
            most = y > most ? y : most;
        }
        boolean known = most > least;
        transfer.begin(
                night,
                low,
                high,
                scaling.converter() == null ? Messages.of("bench.scale.raw") : Messages.of("bench.scale.counts"),
                known ? least : 0,
                known ? most : 1,
                scaling.unit());
        Color colour = Palette.of(snapshot.rig(), channel.channel().column(), night);
        transfer.curve(drawn::apply, colour);
        for (ReferencePoint point : points) {
            double at = scaling.invert(point.raw() + scaling.correction());
            transfer.dots(new double[] {at}, new double[] {point.reference()}, 1, colour.darker(), 4);
        }
        transfer.dots(new double[] {raw}, new double[] {drawn.apply(raw)}, 1, colour, 6);
    }

    private int gripAt(double x) {
        boolean straight = shown != null
                && shown.conversion() instanceof Line
                && shown.columns().isEmpty();
        double share = x / Math.max(1, transfer.getWidth());
        return !straight ? 0 : share < 0.4 ? -1 : share > 0.6 ? 1 : 0;
    }

    /** The end that is held goes to the height of the pointer, the other stays where it is. */
    private void drag(double pixelY) {
        if (grip == 0 || shown == null) {
            return;
        }
        Scaling before = shown;
        double left = transfer.lowX();
        double right = transfer.highX();
        double y = transfer.valueY(pixelY) - before.correction();
        double leftY = grip < 0 ? y : before.apply(left) - before.correction();
        double rightY = grip > 0 ? y : before.apply(right) - before.correction();
        Converter converter = before.converter();
        double x1 = converter == null ? left : converter.volts(left);
        double x2 = converter == null ? right : converter.volts(right);
        if (leftY != rightY) {
            pulled = before.withConversion(Line.through(x1, leftY, x2, rightY), before.unit());
        }
    }

    private void letGo() {
        Scaling after = pulled;
        grip = 0;
        pulled = null;
        if (after != null) {
            pulledTo.accept(after);
        }
    }
}
