package zesty.signal.app.window.lanes;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Bounds;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Region;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.TimeWindow;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/**
 * The pointer over the lanes: the wheel zooms about it, dragging moves the time, the right button measures, a double click goes to
 * the usual view, and the lens stands beside it.
 */
final class LanePointer {
    private static final double SNAP_PIXELS = 6;
    private static final double LENS_APART = 4;
    private static final double SCROLL_PIXELS = 400;
    private static final double ZOOM_STEP = 1.25;

    private final Workspace workspace;
    private final SharedTime time;
    private final Lens lens = new Lens();
    private boolean closer;
    private double dragX = Double.NaN;
    private double measureFrom = Double.NaN;
    private LaneView hovered;
    private double hoverX;

    LanePointer(Workspace workspace, SharedTime time) {
        this.workspace = workspace;
        this.time = time;
        lens.setVisible(false);
    }

    /** @return to be laid over the lanes */
    Lens lens() {
        return lens;
    }

    void listenTo(LaneView lane) {
        lane.plot().setOnScroll(event -> scrolled(lane, event));
        lane.plot().setOnMousePressed(event -> {
            boolean measures = event.getButton() == MouseButton.SECONDARY;
            dragX = measures ? Double.NaN : event.getX();
            measureFrom = measures ? snapped(lane, event.getX()) : Double.NaN;
        });
        lane.plot().setOnMouseReleased(event -> {
            dragX = Double.NaN;
            measureFrom = Double.NaN;
        });
        lane.plot().setOnMouseDragged(event -> dragged(lane, event));
        lane.plot().setOnMouseClicked(event -> {
            if (event.getButton() == MouseButton.PRIMARY && event.getClickCount() == 2) {
                workspace.shown().home();
            }
        });
        lane.plot().setOnMouseMoved(event -> {
            hovered = lane;
            hoverX = event.getX();
        });
        lane.plot().setOnMouseExited(event -> {
            hovered = null;
            lane.hideReadOut();
            lens.setVisible(false);
        });
    }

    /** Reads the lane under the pointer out, and looks closer at it. @param over what the lens is placed in */
    void show(Snapshot snapshot, ChannelSnapshot channel, LaneView lane, int colour, Region over) {
        if (lane != hovered) {
            return;
        }
        lane.readOut(channel, time.edges(channel.stream()), hoverX, time.zero(), time.pixel());
        if (closer) {
            lens.show(
                    snapshot,
                    channel,
                    colour,
                    workspace.view().look().get(),
                    time.secondsAt(hoverX),
                    time.pixel(),
                    time.zero());
            placeLens(lane, over);
        }
    }

    /** The lens stands above the lane that is looked at, or below it where there is no room, and covers nothing of it. */
    private void placeLens(LaneView lane, Region over) {
        lens.setVisible(true);
        lens.autosize();
        Bounds plot = over.sceneToLocal(lane.plot().localToScene(lane.plot().getBoundsInLocal()));
        double x = plot.getMinX() + hoverX - lens.getWidth() / 2;
        double above = plot.getMinY() - lens.getHeight() - LENS_APART;
        lens.relocate(
                Math.round(Math.max(0, Math.min(over.getWidth() - lens.getWidth(), x))),
                Math.round(above >= 0 ? above : plot.getMaxY() + LENS_APART));
    }

    /** Looks ten times closer under the pointer, or no more. */
    void toggleLens() {
        closer = !closer;
        if (!closer) {
            lens.setVisible(false);
        } else if (hovered == null) {
            workspace.say(Messages.of("lanes.the-lens-is-where-the-pointer-is"));
        }
    }

    private void scrolled(LaneView lane, ScrollEvent event) {
        TimeWindow window = workspace.shown().window();
        if (event.isShiftDown() || Math.abs(event.getDeltaX()) > Math.abs(event.getDeltaY())) {
            double delta = event.getDeltaX() != 0 ? event.getDeltaX() : event.getDeltaY();
            window.scroll(-delta / SCROLL_PIXELS, workspace.shown().isLive());
        } else if (event.getDeltaY() != 0) {
            window.zoom(
                    Math.pow(ZOOM_STEP, -Math.signum(event.getDeltaY())), event.getX() / Math.max(1, lane.plotWidth()));
        }
        event.consume();
    }

    private void dragged(LaneView lane, MouseEvent event) {
        if (!Double.isNaN(measureFrom)) {
            workspace.view().span().set(new Span(measureFrom, snapped(lane, event.getX())));
        } else if (!Double.isNaN(dragX)) {
            double share = (dragX - event.getX()) / Math.max(1, lane.plotWidth());
            workspace.shown().window().scroll(share, workspace.shown().isLive());
            dragX = event.getX();
        }
    }

    /** Sets one end of the segment that is measured to where the pointer is, or the middle of what is in sight. */
    void measure() {
        TimeWindow window = workspace.shown().window();
        double at = hovered == null ? window.from() + window.span() / 2 : snapped(hovered, hoverX);
        workspace.view().span().set(workspace.view().span().get().with(at));
    }

    /** @return the time under a pixel, or that of an event of the lane, a mark, a peak or a crossing close by, in this order */
    private double snapped(LaneView lane, double x) {
        double at = time.secondsAt(x);
        double nearest = SNAP_PIXELS * time.pixel();
        Snapshot snapshot = workspace.shown().snapshot(System.nanoTime());
        ChannelSnapshot channel = snapshot.channel(lane.column()).orElse(null);
        List<Double> moments = new ArrayList<>();
        workspace.shown().marks().forEach(mark -> moments.add(mark.seconds()));
        if (channel != null) {
            channel.readers().forEach(reader -> reader.events().forEach(event -> {
                moments.add(event.startSeconds());
                moments.add(event.endSeconds());
            }));
        }
        double best = Snap.nearest(moments, at, nearest);
        return best == best ? best : channel == null ? at : Snap.onSignal(channel, at, nearest);
    }
}
