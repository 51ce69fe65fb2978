package zesty.signal.app.window.lanes;

import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import zesty.signal.app.window.drawing.WhenSeen;

/** The measured stretch over a lane's picture: a line at either end, and what lies between them. */
final class SpanEdges {
    private static final double LINE = 1.5;

    private final Region between = new Region();
    private final Region[] edges = {new Region(), new Region()};

    /** @param plot holds them once there is something to show */
    SpanEdges(Pane plot) {
        between.getStyleClass().add("span");
        prepare(between, plot);
        for (Region edge : edges) {
            edge.getStyleClass().add("span-edge");
            prepare(edge, plot);
        }
    }

    private static void prepare(Region part, Pane plot) {
        part.setManaged(false);
        part.setMouseTransparent(true);
        part.setVisible(false);
        WhenSeen.in(plot, part);
    }

    /** @param from and to pixels of its ends; NaN for one that is not there. @param width and height of the picture */
    void show(double from, double to, int width, int height) {
        place(edges[0], from, width, height);
        place(edges[1], to, width, height);
        boolean both = from == from && to == to;
        between.setVisible(both);
        if (both) {
            double left = Math.max(0, Math.min(from, to));
            double right = Math.min(width, Math.max(from, to));
            between.resizeRelocate(left, 0, Math.max(0, right - left), height);
        }
    }

    private static void place(Region edge, double x, int width, int height) {
        edge.setVisible(x >= 0 && x <= width);
        if (edge.isVisible()) {
            edge.resizeRelocate(Math.round(x), 0, LINE, height);
        }
    }
}
