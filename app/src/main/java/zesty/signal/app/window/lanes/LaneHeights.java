package zesty.signal.app.window.lanes;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.scene.Cursor;
import javafx.scene.input.MouseEvent;
import zesty.signal.app.window.workspace.TextSize;

/** How the lanes share the height there is: each by its weight, none lower than its words. */
final class LaneHeights {
    private static final double EDGE = 6;
    private static final double LOWEST_PULLED = 46;
    private static final double LEAST = 0.3;
    private static final double MOST = 5;

    private final Map<String, Double> weights = new HashMap<>();
    private final Runnable changed;

    /** @param changed told when a lane has been made taller or lower */
    LaneHeights(Runnable changed) {
        this.changed = changed;
    }

    /** @return whether the lanes need more than that height */
    static boolean overflow(int lanes, double between, TextSize size, double height) {
        return size.of(LaneView.LOWEST) * lanes + between > height;
    }

    /** @param height for all of them, without what lies between */
    void share(List<LaneView> lanes, double height, TextSize size) {
        double total = lanes.stream().mapToDouble(lane -> weight(lane.column())).sum();
        for (LaneView lane : lanes) {
            lane.high(Math.max(size.of(LaneView.LOWEST), Math.floor(height * weight(lane.column()) / total)), size);
        }
    }

    private double weight(String column) {
        return weights.getOrDefault(column, 1.0);
    }

    void resize(String column, double factor) {
        weights.put(column, Math.max(LEAST, Math.min(MOST, weight(column) * factor)));
        changed.run();
    }

    /** The lower edge of a lane can be pulled: the lane takes more or less of the height than the others. */
    void resizeByEdge(LaneView lane) {
        double[] pulled = {Double.NaN, 0};
        lane.addEventFilter(
                MouseEvent.MOUSE_MOVED,
                event -> lane.setCursor(event.getY() > lane.getHeight() - EDGE ? Cursor.V_RESIZE : null));
        lane.addEventFilter(MouseEvent.MOUSE_PRESSED, event -> {
            pulled[0] = event.getY() > lane.getHeight() - EDGE ? event.getScreenY() : Double.NaN;
            pulled[1] = lane.getHeight();
            if (!Double.isNaN(pulled[0])) {
                event.consume();
            }
        });
        lane.addEventFilter(MouseEvent.MOUSE_DRAGGED, event -> {
            if (!Double.isNaN(pulled[0])) {
                double wanted = Math.max(LOWEST_PULLED, pulled[1] + event.getScreenY() - pulled[0]);
                resize(lane.column(), wanted / Math.max(1, lane.getHeight()));
                event.consume();
            }
        });
    }
}
