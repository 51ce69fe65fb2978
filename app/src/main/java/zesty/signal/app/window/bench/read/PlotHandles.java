package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.scene.Cursor;
import javafx.scene.input.MouseEvent;
import zesty.signal.app.window.drawing.Plot;

/** Lines of a plot that are dragged: upright ones sideways, level ones up and down. One gesture is one change. JavaFX thread. */
final class PlotHandles {
    private static final double GRIP_PIXELS = 7;

    /** @param at where it is drawn, on the axis it is dragged along */
    private record Handle(String key, boolean upright, double at) {}

    private final Plot plot;
    private final BiConsumer<String, Double> change;
    private final List<Handle> handles = new ArrayList<>();
    private Handle held;
    private double to = Double.NaN;

    /** @param change gets a handle's key and where it was let go */
    PlotHandles(Plot plot, BiConsumer<String, Double> change) {
        this.plot = plot;
        this.change = change;
        plot.setOnMouseMoved(event -> plot.setCursor(near(event)
                .map(one -> one.upright() ? Cursor.H_RESIZE : Cursor.V_RESIZE)
                .orElse(Cursor.DEFAULT)));
        plot.addEventHandler(
                MouseEvent.MOUSE_PRESSED, event -> held = near(event).orElse(null));
        plot.addEventHandler(
                MouseEvent.MOUSE_DRAGGED, event -> to = held == null ? Double.NaN : place(held.upright(), event));
        plot.addEventHandler(MouseEvent.MOUSE_RELEASED, event -> letGo());
    }

    /** Begins a picture, with no handle yet. */
    void clear() {
        handles.clear();
    }

    /** Puts a handle into the picture. @return where it is to be drawn: where it is held while it is dragged, else there */
    double put(String key, boolean upright, double at) {
        if (at == at) {
            handles.add(new Handle(key, upright, at));
        }
        return held != null && held.key().equals(key) && to == to ? to : at;
    }

    boolean isHeld() {
        return held != null;
    }

    private double place(boolean upright, MouseEvent event) {
        return upright ? plot.valueX(event.getX()) : plot.valueY(event.getY());
    }

    private Optional<Handle> near(MouseEvent event) {
        return handles.stream()
                .filter(one -> distance(one, event) < GRIP_PIXELS)
                .min((a, b) -> Double.compare(distance(a, event), distance(b, event)));
    }

    private double distance(Handle one, MouseEvent event) {
        return one.upright()
                ? Math.abs(plot.pixelX(one.at()) - event.getX())
                : Math.abs(plot.pixelY(one.at()) - event.getY());
    }

    private void letGo() {
        Handle was = held;
        double at = to;
        held = null;
        to = Double.NaN;
        if (was != null && at == at) {
            change.accept(was.key(), at);
        }
    }
}
