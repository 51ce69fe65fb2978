package zesty.signal.app.window.bench.read;

import javafx.scene.Group;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.SVGPath;
import javafx.scene.transform.Rotate;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reading;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/** A body that leans and turns with the board: from astern, from the side and from above; and its lean over time. */
final class MotionPicture extends ReaderPicture {
    private static final double SIZE = 130;
    private static final String ASTERN = "M-34 -2 L34 -2 Q30 22 0 30 Q-30 22 -34 -2 Z M-2 -2 L-2 -52 L2 -52 L2 -2 Z";
    private static final String ABEAM =
            "M-46 -4 L50 -6 Q40 18 20 20 L-34 20 Q-44 14 -46 -4 Z M-2 -5 L-2 -54 L3 -54 L3 -5 Z";
    private static final String ABOVE = "M0 -52 Q24 -14 20 40 L-20 40 Q-24 -14 0 -52 Z";

    private final View roll = new View(
            Messages.of("bench.read.heel"),
            Messages.of("bench.read.to-the-right"),
            Messages.of("bench.read.to-the-left"),
            ASTERN,
            true,
            "angle-roll");
    private final View pitch = new View(
            Messages.of("bench.read.trim"),
            Messages.of("bench.read.bow-down"),
            Messages.of("bench.read.bow-up"),
            ABEAM,
            true,
            "angle-pitch");
    private final View heading = new View(Messages.of("bench.read.heading"), "", "", ABOVE, false, "angle-heading");
    private final Plot plot = new Plot();
    private final Label events = Bench.small("");
    private final MotionGuide guide;

    /** One look at the body, with its angle in words. */
    private static final class View extends VBox {
        private final Rotate turn = new Rotate(0, 0, 0);
        private final Label words = new Label();
        private final String name;
        /** Which way it leans above and below 0. */
        private final String above;

        private final String below;

        View(String name, String above, String below, String shape, boolean horizon, String id) {
            super(2);
            this.name = name;
            this.above = above;
            this.below = below;
            Pane pane = new Pane();
            pane.setMinSize(SIZE, SIZE);
            pane.setPrefSize(SIZE, SIZE);
            pane.setMaxSize(SIZE, SIZE);
            double middle = SIZE / 2;
            if (horizon) {
                Line level = new Line(6, middle, SIZE - 6, middle);
                level.getStyleClass().add("horizon");
                pane.getChildren().add(level);
            } else {
                Circle rose = new Circle(middle, middle, middle - 8);
                rose.getStyleClass().add("rose");
                Label north = Bench.small("N");
                north.relocate(middle - 4, 10);
                pane.getChildren().addAll(rose, north);
            }
            SVGPath body = new SVGPath();
            body.setContent(shape);
            body.getStyleClass().add("hull");
            Group turned = new Group(body);
            turned.setManaged(false);
            turned.setLayoutX(middle);
            turned.setLayoutY(middle);
            turned.getTransforms().add(turn);
            pane.getChildren().add(turned);
            words.getStyleClass().add("bench-line");
            words.setId(id);
            getChildren().addAll(pane, words);
        }

        void show(double degrees, double shown) {
            boolean known = !Double.isNaN(degrees);
            turn.setAngle(known ? shown : 0);
            words.setText(
                    known
                            ? name + " " + Digits.fixed(Math.abs(degrees), 1) + "\u00a0°"
                                    + (degrees < 0 ? below : above)
                            : Messages.of("bench.read.not-known", name));
        }
    }

    MotionPicture(Workspace workspace) {
        super(workspace);
        VBox right = new VBox(4, Bench.small(Messages.of("bench.read.heel-strong-and-trim-pale-over")), plot, events);
        right.setMinWidth(0);
        HBox.setHgrow(right, Priority.ALWAYS);
        VBox.setVgrow(plot, Priority.ALWAYS);
        guide = new MotionGuide(workspace);
        // Beside each other, so that a low window has room for them.
        HBox left = new HBox(6, roll, pitch, heading);
        left.setMinWidth(USE_PREF_SIZE);
        HBox both = new HBox(18, left, right);
        VBox.setVgrow(both, Priority.ALWAYS);
        getChildren().addAll(both, guide);
    }

    @Override
    void show(Snapshot snapshot, ChannelSnapshot channel, ReaderSnapshot reader, Color colour) {
        Reading reading = reader == null ? null : reader.reading();
        if (reader != null) {
            guide.show(snapshot, reader.setup());
        }
        double[] rolls = numbers(reading, "roll_deg");
        double[] pitches = numbers(reading, "pitch_deg");
        double a = reading == null ? Double.NaN : reading.scalar("roll");
        double b = reading == null ? Double.NaN : reading.scalar("pitch");
        double c = reading == null ? Double.NaN : reading.scalar("heading");
        // Seen from astern a lean to the right turns clockwise; seen from the right, bow down does.
        roll.show(a, a);
        pitch.show(b, b);
        heading.show(c, c);
        int n = Math.min(rolls.length, pitches.length);
        double[] x = new double[n];
        double low = -5;
        double high = 5;
        double end = snapshot.lastSeconds() - workspace.shown().zero(snapshot);
        for (int i = 0; i < n; i++) {
            x[i] = end - (n - 1 - i) / channel.rateHz();
            low = Math.min(low, Math.min(orNone(rolls[i], low), orNone(pitches[i], low)));
            high = Math.max(high, Math.max(orNone(rolls[i], high), orNone(pitches[i], high)));
        }
        plot.begin(workspace.view().night().get(), n == 0 ? end - 20 : x[0], end, "s", low - 2, high + 2, "°");
        plot.line(x, pitches, n, colour.deriveColor(0, 1, 1, 0.45), 1.4);
        plot.line(x, rolls, n, colour, 2);
        StringBuilder said = new StringBuilder();
        if (reader != null) {
            double zero = zero(snapshot);
            for (Event event : reader.events()) {
                said.append(said.length() == 0 ? "" : " · ")
                        .append(event.kind())
                        .append(' ')
                        .append(Digits.fixed(event.startSeconds() - zero, 1))
                        .append(" s");
            }
        }
        events.setText(said.length() == 0 ? Messages.of("bench.read.no-tap-shake-or-fall") : said.toString());
    }

    private static double orNone(double value, double none) {
        return Double.isNaN(value) ? none : value;
    }

    private static double[] numbers(Reading reading, String key) {
        return reading == null
                ? new double[0]
                : reading.items().stream()
                        .filter(item -> item.key().equals(key) && item instanceof Item.Numbers)
                        .map(item -> ((Item.Numbers) item).values())
                        .findFirst()
                        .orElse(new double[0]);
    }
}
