package zesty.signal.app.window.bench.read;

import java.nio.IntBuffer;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Point2D;
import javafx.geometry.Rectangle2D;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import javafx.scene.shape.StrokeLineCap;
import javafx.scene.text.Text;
import zesty.signal.app.window.drawing.Letters;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.core.picture.FramePainter;
import zesty.signal.core.picture.FrameRange;
import zesty.signal.core.picture.HeatScale;
import zesty.signal.core.picture.Region;
import zesty.signal.core.picture.Turned;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * One picture large, with its parts, its hottest and coldest spot, lines of one temperature and its scale; worked on with the mouse.
 * Drawing and mouse stay together, for both go by the same places.
 */
final class FilmView extends Pane {
    private static final double SCALE = 16;
    private static final double SCALE_ROOM = 86;
    private static final double RING = 5;

    /** What the mouse draws. */
    enum Tool {
        NONE,
        BOX,
        POINT,
        LINE
    }

    /**
     * What is shown.
     *
     * @param frame as it is painted: made right, or less another one. @param numbers of it by region, in their order
     * @param track where the hottest spot was lately, {x, y} each in places on the sensor, oldest first
     */
    record Shown(
            double[] frame,
            Turned how,
            FrameRange range,
            boolean smooth,
            double[] contours,
            List<Region> regions,
            double[] numbers,
            double[][] track,
            String unit,
            boolean night) {}

    private final ImageView image = new ImageView();
    private final Canvas marks = new Canvas(10, 10);
    private final Letters letters = new Letters();
    private final Text measure = new Text();
    private final List<Rectangle2D> taken = new ArrayList<>();
    private final Consumer<Region> drawn;
    private Tool tool = Tool.NONE;
    private PixelBuffer<IntBuffer> buffer;
    private int[] pixels = {};
    private Shown shown;
    private double side = 1;
    private double left;
    private double top;
    private int[] from;
    private int[] to;
    private Region moving;
    private Point2D pointer;

    /** @param drawn hears of a part that was drawn, without a name, or of one that was moved, with its own */
    FilmView(Consumer<Region> drawn) {
        this.drawn = drawn;
        setId("film-view");
        setMinSize(0, 0);
        marks.setMouseTransparent(true);
        image.setSmooth(false);
        getChildren().addAll(image, marks, letters);
        setOnMousePressed(this::pressed);
        setOnMouseDragged(this::dragged);
        setOnMouseReleased(this::released);
        setOnMouseMoved(event -> {
            pointer = new Point2D(event.getX(), event.getY());
            mark();
        });
        setOnMouseExited(event -> {
            pointer = null;
            mark();
        });
        widthProperty().addListener((p, was, is) -> paint());
        heightProperty().addListener((p, was, is) -> paint());
    }

    void tool(Tool other) {
        tool = other;
        setCursor(other == Tool.NONE ? javafx.scene.Cursor.DEFAULT : javafx.scene.Cursor.CROSSHAIR);
    }

    void show(Shown now) {
        shown = now;
        setAccessibleText(
                now == null
                        ? Messages.of("bench.read.no-picture")
                        : Messages.of("bench.read.picture-hottest", number(extreme(true))));
        paint();
    }

    private void paint() {
        int width = (int) getWidth();
        int height = (int) getHeight();
        if (shown == null || width < 40 || height < 40) {
            image.setImage(null);
            buffer = null;
            mark();
            return;
        }
        double room = width - letters.of(SCALE_ROOM);
        side = Math.min(
                room / shown.how().seenWidth(), (height - 2.0) / shown.how().seenHeight());
        side = side > 3 ? Math.floor(side) : side;
        int wide = (int) (side * shown.how().seenWidth());
        int high = (int) (side * shown.how().seenHeight());
        left = Math.max(0, Math.floor((room - wide) / 2));
        top = 1;
        if (wide < 4 || high < 4) {
            return;
        }
        if (buffer == null || buffer.getWidth() != wide || buffer.getHeight() != high) {
            IntBuffer ints = IntBuffer.allocate(wide * high);
            pixels = ints.array();
            buffer = new PixelBuffer<>(wide, high, ints, PixelFormat.getIntArgbPreInstance());
            image.setImage(new WritableImage(buffer));
        }
        FramePainter.paint(
                pixels,
                wide,
                new FramePainter.Place(0, 0, wide, high),
                shown.frame(),
                shown.how(),
                shown.range().low(),
                shown.range().high(),
                shown.smooth());
        buffer.updateBuffer(all -> null);
        image.relocate(left, top);
        mark();
    }

    private double[] seen(double x, double y) {
        double[] at = shown.how().seen(x, y);
        return new double[] {left + at[0] * side, top + at[1] * side};
    }

    private String number(double value) {
        return Digits.fixed(value, 1) + (shown.unit().isEmpty() ? "" : " " + shown.unit());
    }

    private int extreme(boolean hottest, double[] frame) {
        int best = -1;
        for (int p = 0; p < frame.length; p++) {
            if (frame[p] == frame[p] && (best < 0 || (hottest ? frame[p] > frame[best] : frame[p] < frame[best]))) {
                best = p;
            }
        }
        return best;
    }

    private double extreme(boolean hottest) {
        int at = extreme(hottest, shown.frame());
        return at < 0 ? Double.NaN : shown.frame()[at];
    }

    private void mark() {
        marks.setWidth(Math.max(10, getWidth()));
        marks.setHeight(Math.max(10, getHeight()));
        GraphicsContext g = marks.getGraphicsContext2D();
        g.clearRect(0, 0, marks.getWidth(), marks.getHeight());
        if (shown == null || buffer == null) {
            return;
        }
        taken.clear();
        g.setFont(letters.getFont());
        g.setLineCap(StrokeLineCap.ROUND);
        for (double value : shown.contours()) {
            for (FramePainter.Piece piece :
                    FramePainter.contour(shown.frame(), shown.how().width(), value)) {
                line(g, piece.x1(), piece.y1(), piece.x2(), piece.y2(), 1.2);
            }
        }
        double[][] track = shown.track();
        for (int i = 1; i < track.length; i++) {
            double[] a = seen(track[i - 1][0], track[i - 1][1]);
            double[] b = seen(track[i][0], track[i][1]);
            g.setStroke(Palette.ON_RIND.deriveColor(0, 1, 1, 0.25 + 0.6 * i / track.length));
            g.setLineWidth(1.6);
            g.strokeLine(a[0], a[1], b[0], b[1]);
        }
        for (int r = 0; r < shown.regions().size(); r++) {
            Region region = shown.regions().get(r);
            region(
                    g,
                    region == moving ? moved() : region,
                    region.name() + "  "
                            + (region.measure() == Region.Measure.ABOVE
                                    ? Digits.fixed(shown.numbers()[r], 0) + " %"
                                    : Digits.fixed(shown.numbers()[r], 1)));
        }
        if (from != null && moving == null) {
            region(g, part("new"), "");
        }
        spot(g, extreme(true, shown.frame()), Messages.of("bench.read.hottest"));
        spot(g, extreme(false, shown.frame()), Messages.of("bench.read.coldest"));
        scale(g);
        hover(g);
    }

    private void line(GraphicsContext g, double x1, double y1, double x2, double y2, double wide) {
        double[] a = seen(x1, y1);
        double[] b = seen(x2, y2);
        g.setStroke(Palette.ON_LEMON.deriveColor(0, 1, 1, 0.55));
        g.setLineWidth(wide + 2);
        g.strokeLine(a[0], a[1], b[0], b[1]);
        g.setStroke(Palette.ON_RIND);
        g.setLineWidth(wide);
        g.strokeLine(a[0], a[1], b[0], b[1]);
    }

    private void region(GraphicsContext g, Region region, String words) {
        if (region.form() == Region.Form.LINE) {
            line(g, region.x1() + 0.5, region.y1() + 0.5, region.x2() + 0.5, region.y2() + 0.5, 2);
        } else {
            line(g, region.x1(), region.y1(), region.x2() + 1.0, region.y1(), 2);
            line(g, region.x2() + 1.0, region.y1(), region.x2() + 1.0, region.y2() + 1.0, 2);
            line(g, region.x2() + 1.0, region.y2() + 1.0, region.x1(), region.y2() + 1.0, 2);
            line(g, region.x1(), region.y2() + 1.0, region.x1(), region.y1(), 2);
        }
        double[] a = seen(region.x1(), region.y1());
        double[] b = seen(region.x2() + 1.0, region.y2() + 1.0);
        words(g, words, Math.min(a[0], b[0]), Math.min(a[1], b[1]) - 5);
    }

    /** Words on the picture, within it, on a ground of their own. */
    private void words(GraphicsContext g, String text, double x, double y) {
        if (text.isEmpty()) {
            return;
        }
        double high = letters.getFont().getSize() + 5;
        measure.setFont(letters.getFont());
        measure.setText(text);
        double wide = Math.ceil(measure.getLayoutBounds().getWidth()) + 8;
        double at = Math.max(left, Math.min(left + buffer.getWidth() - wide, x));
        double below = Math.max(top + high, Math.min(top + buffer.getHeight() - 2, y));
        // Words never lie on others: they go down until there is room.
        for (int tries = 0; tries < 12 && lies(at, below, wide, high); tries++) {
            below += high / 2;
        }
        taken.add(new Rectangle2D(at, below - high, wide, high));
        g.setFill(Palette.ON_LEMON.deriveColor(0, 1, 1, 0.82));
        g.fillRoundRect(at, below - high + 3, wide, high, 7, 7);
        g.setFill(Palette.ON_RIND);
        g.fillText(text, at + 4, below - 1);
    }

    private boolean lies(double x, double below, double wide, double high) {
        return taken.stream().anyMatch(one -> one.intersects(x, below - high, wide, high));
    }

    private void spot(GraphicsContext g, int pixel, String words) {
        if (pixel < 0) {
            return;
        }
        int width = shown.how().width();
        double[] at = seen(pixel % width + 0.5, pixel / width + 0.5);
        g.setLineWidth(3.4);
        g.setStroke(Palette.ON_LEMON);
        g.strokeOval(at[0] - RING, at[1] - RING, 2 * RING, 2 * RING);
        g.setLineWidth(1.6);
        g.setStroke(Palette.ON_RIND);
        g.strokeOval(at[0] - RING, at[1] - RING, 2 * RING, 2 * RING);
        String text = words + Digits.fixed(shown.frame()[pixel], 1);
        measure.setFont(letters.getFont());
        measure.setText(text);
        double wide = measure.getLayoutBounds().getWidth() + 8;
        boolean right = at[0] + RING + 4 + wide <= left + buffer.getWidth();
        words(g, text, right ? at[0] + RING + 4 : at[0] - RING - 4 - wide, at[1] + 5);
    }

    private void scale(GraphicsContext g) {
        double x = left + buffer.getWidth() + 14;
        double high = buffer.getHeight();
        for (int i = 0; i < high; i++) {
            int argb = HeatScale.argb(1 - i / (high - 1));
            g.setFill(Color.rgb(argb >> 16 & 255, argb >> 8 & 255, argb & 255));
            g.fillRect(x, top + i, SCALE, 1);
        }
        g.setFill(Palette.ink(shown.night()));
        double low = shown.range().low();
        double span = shown.range().high() - low;
        int steps = 4;
        for (int i = 0; i <= steps; i++) {
            double y = top + high - high * i / steps;
            double line = i == steps ? y + letters.of(10) : i == 0 ? y - 1 : y + letters.of(4);
            String text = Digits.fixed(low + span * i / steps, 1)
                    + (i == steps && !shown.unit().isEmpty() ? " " + shown.unit() : "");
            g.fillText(text, x + SCALE + 5, line);
        }
        for (double value : shown.contours()) {
            double y = top + high - high * (value - low) / Math.max(1e-9, span);
            if (y >= top && y <= top + high) {
                g.setStroke(Palette.ink(shown.night()));
                g.setLineWidth(1.5);
                g.strokeLine(x - 3, y, x + SCALE + 3, y);
            }
        }
    }

    private void hover(GraphicsContext g) {
        int[] at = pointer == null || from != null ? null : pixel(pointer.getX(), pointer.getY(), false);
        if (at != null) {
            double value = shown.frame()[at[1] * shown.how().width() + at[0]];
            words(
                    g,
                    Messages.of(
                            "bench.read.at-2",
                            (Double.isNaN(value) ? Messages.of("bench.read.missing") : number(value)),
                            at[0],
                            at[1]),
                    pointer.getX() + 14,
                    pointer.getY() + 26);
        }
    }

    /** @return {x, y} of the pixel at a place of this node; null beside the picture unless it is held within */
    private int[] pixel(double x, double y, boolean held) {
        if (shown == null) {
            return null;
        }
        double sx = (x - left) / side;
        double sy = (y - top) / side;
        boolean within = sx >= 0
                && sy >= 0
                && sx < shown.how().seenWidth()
                && sy < shown.how().seenHeight();
        if (!within && !held) {
            return null;
        }
        double[] on = shown.how().sensor(sx, sy);
        int px = (int) Math.max(0, Math.min(shown.how().width() - 1, Math.floor(on[0])));
        int py = (int) Math.max(0, Math.min(shown.how().height() - 1, Math.floor(on[1])));
        return new int[] {px, py};
    }

    private void pressed(MouseEvent event) {
        int[] at = pixel(event.getX(), event.getY(), false);
        moving = null;
        from = at;
        to = at;
        if (at != null && tool == Tool.NONE) {
            for (Region region : shown.regions()) {
                boolean in = at[0] >= Math.min(region.x1(), region.x2())
                        && at[0] <= Math.max(region.x1(), region.x2())
                        && at[1] >= Math.min(region.y1(), region.y2())
                        && at[1] <= Math.max(region.y1(), region.y2());
                moving = in ? region : moving;
            }
            from = moving == null ? null : at;
        }
        mark();
    }

    private void dragged(MouseEvent event) {
        if (from != null && shown != null) {
            to = pixel(event.getX(), event.getY(), true);
            pointer = new Point2D(event.getX(), event.getY());
            mark();
        }
    }

    private void released(MouseEvent event) {
        if (from == null || shown == null) {
            // The picture went away under the hand.
            from = null;
            moving = null;
            return;
        }
        to = pixel(event.getX(), event.getY(), true);
        Region done = moving != null ? moved() : part("new");
        boolean same = done.equals(moving);
        boolean isNew = moving == null;
        from = null;
        moving = null;
        if (isNew || !same) {
            drawn.accept(done);
        }
        mark();
    }

    private Region part(String name) {
        return switch (tool) {
            case LINE ->
                new Region(name, Region.Form.LINE, from[0], from[1], to[0], to[1], Region.Measure.MEAN, Double.NaN);
            case POINT -> Region.box(name, to[0], to[1], to[0], to[1], Region.Measure.MEAN);
            default -> Region.box(name, from[0], from[1], to[0], to[1], Region.Measure.HOTTEST);
        };
    }

    /** The part that is being moved, held within the picture. */
    private Region moved() {
        int lowX = Math.min(moving.x1(), moving.x2());
        int highX = Math.max(moving.x1(), moving.x2());
        int lowY = Math.min(moving.y1(), moving.y2());
        int highY = Math.max(moving.y1(), moving.y2());
        int dx = Math.max(-lowX, Math.min(shown.how().width() - 1 - highX, to[0] - from[0]));
        int dy = Math.max(-lowY, Math.min(shown.how().height() - 1 - highY, to[1] - from[1]));
        return new Region(
                moving.name(),
                moving.form(),
                moving.x1() + dx,
                moving.y1() + dy,
                moving.x2() + dx,
                moving.y2() + dy,
                moving.measure(),
                moving.limit());
    }
}
