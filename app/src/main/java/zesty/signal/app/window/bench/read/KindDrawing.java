package zesty.signal.app.window.bench.read;

import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import zesty.signal.core.read.cells.Cells;
import zesty.signal.core.read.hits.Hits;
import zesty.signal.core.read.joint.Joint;
import zesty.signal.core.read.level.Level;
import zesty.signal.core.read.motion.Motion;
import zesty.signal.core.read.muscle.Muscle;
import zesty.signal.core.read.orders.Orders;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.core.read.response.ChangeAfter;
import zesty.signal.core.read.step.StepResponse;
import zesty.signal.core.read.supply.Supply;
import zesty.signal.core.read.tone.Tone;
import zesty.signal.core.read.vibration.Vibration;
import zesty.signal.core.read.wind.Wind;

/** A small drawing of what a kind of reader looks for, for its tile. */
final class KindDrawing extends Canvas {
    private static final double WIDTH = 92;
    private static final double HEIGHT = 34;
    private static final double BASE = 29;

    private final String kind;

    KindDrawing(String kind) {
        super(WIDTH, HEIGHT);
        this.kind = kind;
    }

    void draw(Color colour) {
        GraphicsContext g = getGraphicsContext2D();
        g.clearRect(0, 0, WIDTH, HEIGHT);
        g.setStroke(colour);
        g.setFill(colour);
        g.setLineWidth(1.6);
        switch (kind) {
            case Pulse.NAME -> curve(g, x -> BASE - 24 * bump(x % 30, 9, 3) - 7 * bump(x % 30, 17, 3.4));
            case Muscle.NAME -> curve(g, x -> 17 + burst(x) * Math.sin(2.1 * x) * Math.cos(0.37 * x));
            case Vibration.NAME -> bars(g);
            case Hits.NAME -> curve(g, x -> 17 - 15 * Math.exp(-(x % 31) / 5) * Math.cos(1.3 * (x % 31)));
            case Tone.NAME -> curve(g, x -> 17 - 12 * Math.sin(x / 5) - 3 * Math.sin(x / 2.5));
            case Wind.NAME -> cups(g);
            case Motion.NAME -> tilt(g);
            case Joint.NAME -> joint(g);
            case Orders.NAME -> orders(g);
            case StepResponse.NAME -> step(g, colour);
            case ChangeAfter.NAME -> after(g);
            case Supply.NAME -> charge(g, colour);
            case Cells.NAME -> cells(g);
            case Level.NAME -> bands(g);
            default -> curve(g, x -> 17);
        }
    }

    @FunctionalInterface
    private interface Curve {
        double at(double x);
    }

    private static double bump(double x, double at, double wide) {
        double z = (x - at) / wide;
        return Math.exp(-z * z);
    }

    private static double burst(double x) {
        return 2 + 13 * bump(x, 34, 13) + 11 * bump(x, 74, 10);
    }

    private static void curve(GraphicsContext g, Curve curve) {
        g.beginPath();
        g.moveTo(0, curve.at(0));
        for (double x = 0.5; x <= WIDTH; x += 0.5) {
            g.lineTo(x, curve.at(x));
        }
        g.stroke();
    }

    private static void bars(GraphicsContext g) {
        double[] heights = {7, 24, 10, 17, 6, 9, 4};
        for (int i = 0; i < heights.length; i++) {
            g.fillRect(6 + 12.5 * i, BASE - heights[i], 3.4, heights[i]);
        }
    }

    private static void cups(GraphicsContext g) {
        for (int arm = 0; arm < 3; arm++) {
            double angle = Math.toRadians(-90 + 120 * arm);
            double x = 30 + 13 * Math.cos(angle);
            double y = 19 + 13 * Math.sin(angle);
            g.strokeLine(30, 19, x, y);
            g.fillOval(x - 4, y - 4, 8, 8);
        }
        g.strokeLine(54, 11, 84, 11);
        g.strokeLine(54, 19, 74, 19);
        g.strokeLine(54, 27, 80, 27);
    }

    private static void tilt(GraphicsContext g) {
        g.setLineDashes(3, 3);
        g.strokeLine(12, 19, 82, 19);
        g.setLineDashes((double[]) null);
        g.strokeLine(20, 29, 74, 8);
        g.strokeArc(27, -1, 40, 40, -21, 21, javafx.scene.shape.ArcType.OPEN);
    }

    private static void joint(GraphicsContext g) {
        g.strokeLine(8, 27, 46, 22);
        g.strokeLine(46, 22, 78, 5);
        g.fillOval(43, 19, 6, 6);
        g.fillRect(22, 21, 9, 5);
        g.fillRect(60, 10, 9, 5);
        g.strokeArc(31, 7, 30, 30, 28, 145, javafx.scene.shape.ArcType.OPEN);
    }

    private static void orders(GraphicsContext g) {
        g.strokeOval(6, 4, 26, 26);
        g.fillRect(17, 1, 4, 7);
        double[] heights = {25, 12, 3, 4, 9, 2};
        for (int i = 0; i < heights.length; i++) {
            g.fillRect(42 + 8.5 * i, BASE - heights[i], 3.4, heights[i]);
        }
    }

    private static void step(GraphicsContext g, Color colour) {
        g.setStroke(colour.deriveColor(0, 1, 1, 0.5));
        g.strokePolyline(new double[] {4, 22, 22, 88}, new double[] {BASE, BASE, 7, 7}, 4);
        g.setStroke(colour);
        curve(g, x -> x < 28 ? BASE : BASE - 21 * (1 - Math.exp(-(x - 28) / 15)));
    }

    private static void after(GraphicsContext g) {
        g.setLineDashes(3, 3);
        g.strokeLine(26, 4, 26, 31);
        g.setLineDashes((double[]) null);
        curve(g, x -> x < 28 ? 26 : 26 - 21 * (1 - Math.exp(-(x - 28) / 6)) * Math.exp(-(x - 28) / 32));
    }

    private static void charge(GraphicsContext g, Color colour) {
        g.setFill(colour.deriveColor(0, 1, 1, 0.35));
        double[] heights = {5, 18, 5, 24, 5};
        for (int i = 0; i < heights.length; i++) {
            g.fillRect(2 + 17.6 * i, BASE - heights[i], 17.6, heights[i]);
        }
        double[] xs = new double[2 * heights.length];
        double[] ys = new double[2 * heights.length];
        for (int i = 0; i < heights.length; i++) {
            xs[2 * i] = 2 + 17.6 * i;
            xs[2 * i + 1] = xs[2 * i] + 17.6;
            ys[2 * i] = BASE - heights[i];
            ys[2 * i + 1] = ys[2 * i];
        }
        g.strokePolyline(xs, ys, xs.length);
    }

    private static void cells(GraphicsContext g) {
        double[] full = {18, 17, 9, 18};
        for (int i = 0; i < full.length; i++) {
            g.strokeRect(8 + 20 * i, 7, 12, 23);
            g.fillRect(11 + 20 * i, 4, 6, 3);
            g.fillRect(10.5 + 20 * i, 28 - full[i], 7, full[i]);
        }
    }

    private static void bands(GraphicsContext g) {
        g.setLineDashes(3, 3);
        g.strokeLine(2, 9, 90, 9);
        g.strokeLine(2, 25, 90, 25);
        g.setLineDashes((double[]) null);
        curve(g, x -> 17 - 12 * Math.sin(x / 13));
    }
}
