package zesty.signal.app.window.bench.read;

import java.util.List;
import javafx.geometry.VPos;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import javafx.scene.shape.ArcType;
import javafx.scene.text.TextAlignment;
import zesty.signal.app.window.drawing.Letters;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.core.text.Messages;

/** From where the wind came: a slice for each direction, as long as its share of the time and as strong in colour as it blew. */
final class Rose extends Pane {
    private static final double ROOM = 24;
    private static final double SLICE = 0.86;
    private final Canvas canvas = new Canvas(100, 100);

    private final Letters letters = new Letters();

    Rose() {
        getChildren().addAll(canvas, letters);
        setMinSize(140, 140);
        setId("rose");
    }

    /**
     * @param rose of each direction: degrees, share of the time, m/s
     * @param mean from where on the whole; NaN where nothing blew
     */
    void show(List<double[]> rose, double mean, Color colour, boolean night) {
        canvas.setWidth(Math.max(1, getWidth()));
        canvas.setHeight(Math.max(1, getHeight()));
        Color ink = Palette.muted(night);
        Color grid = Palette.grid(night);
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, canvas.getWidth(), canvas.getHeight());
        g.setFont(letters.getFont());
        double x = canvas.getWidth() / 2;
        double y = canvas.getHeight() / 2;
        double radius = Math.max(10, Math.min(x, y) - letters.of(ROOM));
        double most = rose.stream().mapToDouble(one -> one[1]).max().orElse(0);
        double fastest = rose.stream().mapToDouble(one -> one[2]).max().orElse(0);
        double full = most > 0.5 ? 1 : most > 0.25 ? 0.5 : most > 0.1 ? 0.25 : 0.1;
        g.setStroke(grid);
        for (double ring = 0.5; ring <= 1; ring += 0.5) {
            g.strokeOval(x - ring * radius, y - ring * radius, 2 * ring * radius, 2 * ring * radius);
        }
        double width = rose.isEmpty() ? 0 : 360.0 / rose.size();
        for (double[] one : rose) {
            double length = radius * Math.min(1, one[1] / full);
            // Angles here count anticlockwise from the right.
            double from = 90 - one[0] - SLICE * width / 2;
            g.setFill(colour.deriveColor(0, 1, 1, fastest > 0 ? 0.3 + 0.7 * one[2] / fastest : 0.3));
            g.fillArc(x - length, y - length, 2 * length, 2 * length, from, SLICE * width, ArcType.ROUND);
        }
        if (mean == mean) {
            double sin = Math.sin(Math.toRadians(mean));
            double cos = Math.cos(Math.toRadians(mean));
            g.setStroke(Palette.ink(night));
            g.setLineWidth(2);
            g.strokeLine(x + radius * sin, y - radius * cos, x, y);
            g.setLineWidth(1);
        }
        g.setFill(ink);
        g.setTextAlign(TextAlignment.CENTER);
        g.setTextBaseline(VPos.CENTER);
        String[] ends = {"N", "E", "S", "W"};
        for (int k = 0; k < ends.length; k++) {
            double angle = Math.toRadians(90 * k);
            g.fillText(
                    ends[k],
                    x + (radius + letters.of(11)) * Math.sin(angle),
                    y - (radius + letters.of(11)) * Math.cos(angle));
        }
        g.setTextAlign(TextAlignment.LEFT);
        g.fillText(Math.round(100 * full) + " %", x + radius * 0.72 + 4, y - radius * 0.72 - 6);
        setAccessibleText(Messages.of("bench.read.rose-of-the-directions-the-wind"));
    }
}
