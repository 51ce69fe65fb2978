package zesty.signal.app.window.lanes;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.geometry.Bounds;
import javafx.scene.Cursor;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.drawing.Drawn;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.workspace.Shown;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.TextSize;
import zesty.signal.app.window.workspace.TimeWindow;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.StreamSnapshot;

/**
 * The lanes one above the other over one time axis. The wheel makes the stretch in sight longer or shorter about the
 * pointer, dragging moves it, a double click goes back to now or to all of a take.
 */
public final class LaneStack extends VBox implements Drawn {
    private static final double EDGE = 6;
    private static final double SNAP_PIXELS = 6;
    private static final double LENS_APART = 4;
    private static final double DESCRIBE_EVERY_SECONDS = 0.2;

    private final Workspace workspace;
    private final Map<String, LaneView> lanes = new HashMap<>();
    private final Map<String, Double> weights = new HashMap<>();
    private final VBox stack = new VBox(9);
    /** Holds the lanes as they are: a scroller costs half as much again a frame, and is put in only for more than have room. */
    private final StackPane room = new StackPane(stack);

    private final ScrollPane scroll = new ScrollPane();

    private final TimeAxis axis;
    private final Label emptyWords = new Label();
    private final Button emptyAction = new Button();
    private final VBox empty = new VBox(emptyWords, emptyAction);
    private final SpanBar spanBar;
    /** Streams share the time axis, but each has rows of its own. */
    private final Map<StreamSnapshot.Key, ColumnEdges> edgesOf = new HashMap<>();

    private double from;
    private int width;
    private final TimeTicks ticks = new TimeTicks();

    private List<String> shown = List.of();
    private boolean onlyFocus;
    /** Whether the lane in focus is shown alone, as long as it is wanted. */
    private boolean alone;

    /** What is laid over a lane, by columns. */
    private final Map<String, String> overs = new HashMap<>();

    private final Map<String, ValueScale> overScales = new HashMap<>();
    private final Lens lens = new Lens();
    private boolean closer;
    private double describedAt = Double.NEGATIVE_INFINITY;
    private Object described;
    private double zero;
    private double dragX = Double.NaN;
    private double measureFrom = Double.NaN;
    private LaneView hovered;
    private double hoverX;

    public LaneStack(Workspace workspace) {
        this.workspace = workspace;
        getStyleClass().add("lane-stack");
        axis = new TimeAxis(workspace);
        empty.getStyleClass().add("empty");
        emptyWords.setWrapText(true);
        emptyWords.setId("empty");
        emptyAction.getStyleClass().setAll("plug");
        emptyAction.setId("empty-action");
        emptyAction.managedProperty().bind(emptyAction.visibleProperty());
        empty.setMaxSize(Double.MAX_VALUE, Double.MAX_VALUE);
        VBox.setVgrow(empty, Priority.ALWAYS);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("plain-scroll");
        scroll.setMinHeight(0);
        room.setMinSize(0, 0);
        VBox.setVgrow(room, Priority.ALWAYS);
        workspace.view().textSize().addListener((property, was, is) -> resized());
        room.heightProperty().addListener((property, was, is) -> resized());
        spanBar = new SpanBar(workspace);
        lens.setVisible(false);
        getChildren().addAll(empty, room, axis, spanBar, lens);
        setMinWidth(0);
        stack.setMinWidth(0);
    }

    /** Shows all lanes, or only the one in focus while a bench is open below it. */
    public void showOnlyFocus(boolean only) {
        onlyFocus = only;
        describedAt = Double.NEGATIVE_INFINITY;
    }

    /** Paints a frame. @param now seconds on any steady clock */
    public void frame(Snapshot snapshot, long nanoTime) {
        double now = nanoTime * 1e-9;
        boolean some = snapshot.hasSamples();
        boolean describe = now - describedAt >= DESCRIBE_EVERY_SECONDS || described != snapshot.rig();
        arrange(snapshot);
        boolean lanesThere = some && !shown.isEmpty();
        empty.setVisible(!lanesThere);
        empty.setManaged(!lanesThere);
        room.setVisible(lanesThere);
        room.setManaged(lanesThere);
        axis.setVisible(lanesThere);
        axis.setManaged(lanesThere);
        if (!lanesThere) {
            sayEmpty(snapshot);
            return;
        }
        moveWindow(snapshot, nanoTime);
        int narrowest = stack.getChildren().stream()
                .mapToInt(node -> ((LaneView) node).plotWidth())
                .min()
                .orElse(0);
        if (narrowest < 2) {
            return;
        }
        width = narrowest;
        Shown what = workspace.shown();
        TimeWindow window = what.window();
        double pixel = window.span() / width;
        // On a grid of whole pixels a sample stays in its column while the picture moves.
        from = what.isLive() ? Math.floor(window.from() / pixel) * pixel : window.from();
        for (StreamSnapshot stream : snapshot.streams()) {
            edgesOf.computeIfAbsent(stream.key(), key -> new ColumnEdges())
                    .compute(stream.times(), from, from + window.span(), width);
        }
        zero = what.isLive() ? window.following() ? window.to() : snapshot.nowSeconds(nanoTime) : 0;
        ticks.compute(from, from + window.span(), width, zero, what.isLive());
        paintLanes(snapshot, now, describe);
        if (describe) {
            describedAt = now;
            described = snapshot.rig();
        }
        axis.show(ticks, shown.isEmpty() ? 0 : lanes.get(shown.get(0)).plotLeft(), width, from, onlyFocus || alone);
        spanBar.show(snapshot, zero);
    }

    private double pixel(double seconds, int width) {
        return (seconds - from) / workspace.shown().window().span() * width;
    }

    private void paintLanes(Snapshot snapshot, double now, boolean describe) {
        boolean night = workspace.view().night().get();
        String focus = snapshot.focused(workspace.view().focus().get())
                .map(c -> c.channel().column())
                .orElse("");
        for (int i = 0; i < snapshot.channels().size(); i++) {
            ChannelSnapshot channel = snapshot.channels().get(i);
            LaneView lane = lanes.get(channel.channel().column());
            if (lane == null || lane.getParent() == null) {
                continue;
            }
            int colour = Palette.placeOf(snapshot.rig(), channel.channel().column());
            if (describe) {
                lane.describe(
                        snapshot,
                        channel,
                        colour,
                        night,
                        channel.channel().column().equals(focus),
                        workspace.doctor().of(channel.channel().column()).stream()
                                .findFirst()
                                .map(finding -> finding.diagnosis().words())
                                .orElse(""));
            }
            ColumnEdges edges = edgesOf.get(channel.stream().key());
            lane.paint(
                    snapshot,
                    channel,
                    edges,
                    ticks,
                    colour,
                    workspace.view().look().get(),
                    now,
                    over(snapshot, channel));
            Span span = workspace.view().span().get();
            lane.span(pixel(span.first(), edges.width()), pixel(span.second(), edges.width()));
            if (lane == hovered) {
                double pixel = workspace.shown().window().span() / edges.width();
                lane.readOut(snapshot, channel, edges, hoverX, zero, pixel);
                if (closer) {
                    lens.show(
                            snapshot,
                            channel,
                            colour,
                            workspace.view().look().get(),
                            from + hoverX * pixel,
                            pixel,
                            zero);
                    placeLens(lane);
                }
            }
        }
    }

    @Override
    public String subject() {
        return "lanes";
    }

    @Override
    public void nextDrawing(Consumer<String> taker) {
        Snapshot snapshot = workspace.shown().snapshot(System.nanoTime());
        List<LanesDrawing.Drawn> drawn = new ArrayList<>();
        for (String column : shown) {
            LaneView lane = lanes.get(column);
            snapshot.channel(column)
                    .ifPresent(channel -> drawn.add(new LanesDrawing.Drawn(
                            channel,
                            edgesOf.get(channel.stream().key()),
                            lane.scale(),
                            Color.web(Palette.css(
                                    Palette.channel(Palette.placeOf(
                                            snapshot.rig(), channel.channel().column())),
                                    workspace.view().night().get())),
                            (int) lane.plot().getHeight())));
        }
        if (width > 1 && !drawn.isEmpty()) {
            taker.accept(LanesDrawing.of(workspace.view().night().get(), width, ticks, drawn));
        }
    }

    /** The lens stands above the lane that is looked at, or below it where there is no room, and covers nothing of it. */
    private void placeLens(LaneView lane) {
        lens.setVisible(true);
        lens.autosize();
        Bounds plot = sceneToLocal(lane.plot().localToScene(lane.plot().getBoundsInLocal()));
        double x = plot.getMinX() + hoverX - lens.getWidth() / 2;
        double above = plot.getMinY() - lens.getHeight() - LENS_APART;
        lens.relocate(
                Math.round(Math.max(0, Math.min(getWidth() - lens.getWidth(), x))),
                Math.round(above >= 0 ? above : plot.getMaxY() + LENS_APART));
    }

    /** Looks ten times closer under the pointer, or no more. */
    public void toggleLens() {
        closer = !closer;
        if (!closer) {
            lens.setVisible(false);
        } else if (hovered == null) {
            workspace.say("The lens is where the pointer is: move it over a lane. Q puts it away.");
        }
    }

    /** Shows the lane in focus alone, or all again. */
    public void toggleAlone() {
        alone = !alone;
        describedAt = Double.NEGATIVE_INFINITY;
        if (alone) {
            workspace.say("This lane alone; O shows the others again.");
        }
    }

    /** Lays the next of the other channels over the lane in focus; after the last one none. */
    public void nextOver() {
        String column = inFocus();
        List<String> others = workspace.shown().snapshot(System.nanoTime()).channels().stream()
                .map(c -> c.channel().column())
                .filter(c -> !c.equals(column))
                .toList();
        int next = others.indexOf(overs.get(column)) + 1;
        if (next < others.size()) {
            overs.put(column, others.get(next));
            overScales.put(column, new ValueScale());
        } else {
            overs.remove(column);
        }
    }

    private Over over(Snapshot snapshot, ChannelSnapshot channel) {
        String column = channel.channel().column();
        String other = overs.get(column);
        if (other == null) {
            return null;
        }
        return snapshot.channel(other)
                .map(laid -> new Over(
                        laid,
                        edgesOf.get(laid.stream().key()),
                        Palette.lane(
                                Palette.placeOf(snapshot.rig(), laid.channel().column()),
                                workspace.view().look().get()),
                        overScales.get(column)))
                .orElse(null);
    }

    private void moveWindow(Snapshot snapshot, long nanoTime) {
        double oldest = snapshot.firstSeconds();
        double newest = workspace.shown().newest(snapshot, nanoTime);
        workspace.shown().window().extent(oldest, newest);
    }

    /** Each empty state has its own words and one thing to do. */
    private void sayEmpty(Snapshot snapshot) {
        if (!snapshot.channels().isEmpty()) {
            sayEmpty("All lanes are hidden.", "Show them (Shift+H)", workspace::showAllLanes);
            return;
        }
        String reason = snapshot.health().reason();
        switch (snapshot.health().state()) {
            case IDLE -> sayEmpty("No board is connected.", "Pick a source (1)", this::pickSource);
            case LOST, REFUSED -> sayEmpty("No signal: " + reason, "Look at the source (1)", this::pickSource);
            case OVER -> sayEmpty("The source has ended: " + reason, "Pick another source (1)", this::pickSource);
            default ->
                sayEmpty(
                        "Waiting for the board: " + (reason.isEmpty() ? "opening the link" : reason),
                        "Look at its bytes (1)",
                        this::pickSource);
        }
    }

    private void sayEmpty(String words, String action, Runnable what) {
        emptyWords.setText(words);
        emptyAction.setText(action);
        emptyAction.setOnAction(event -> what.run());
    }

    private void pickSource() {
        workspace.view().stop().set(Stop.SOURCE);
    }

    private void arrange(Snapshot snapshot) {
        List<String> wanted = new ArrayList<>();
        String focus = snapshot.focused(workspace.view().focus().get())
                .map(c -> c.channel().column())
                .orElse("");
        for (ChannelSnapshot channel : snapshot.channels()) {
            String column = channel.channel().column();
            if (onlyFocus || alone ? column.equals(focus) : channel.channel().shown()) {
                wanted.add(column);
            }
        }
        if (wanted.equals(shown)) {
            return;
        }
        shown = wanted;
        stack.getChildren().clear();
        lanes.keySet().removeIf(column -> snapshot.channel(column).isEmpty());
        for (String column : wanted) {
            LaneView lane = lanes.computeIfAbsent(column, this::newLane);
            stack.getChildren().add(lane);
        }
        share();
        describedAt = Double.NEGATIVE_INFINITY;
    }

    private void scrolled(boolean on) {
        if (on != room.getChildren().contains(scroll)) {
            scroll.setContent(on ? stack : null);
            room.getChildren().setAll(on ? scroll : stack);
        }
    }

    private void share() {
        resized();
    }

    private void resized() {
        double total =
                shown.stream().mapToDouble(c -> weights.getOrDefault(c, 1.0)).sum();
        TextSize size = workspace.view().textSize().get();
        double between = stack.getSpacing() * Math.max(0, shown.size() - 1);
        scrolled(size.of(LaneView.LOWEST) * shown.size() + between > room.getHeight());
        double high = room.getHeight() - between;
        for (String column : shown) {
            double height =
                    Math.max(size.of(LaneView.LOWEST), Math.floor(high * weights.getOrDefault(column, 1.0) / total));
            lanes.get(column).high(height, size);
        }
    }

    /** @return the column of the lane in focus: the one chosen, else the first one shown */
    private String inFocus() {
        return shown.contains(workspace.view().focus().get()) || shown.isEmpty()
                ? workspace.view().focus().get()
                : shown.get(0);
    }

    /** Makes the lane in focus taller or lower. */
    public void resizeFocus(double factor) {
        String column = inFocus();
        weights.put(column, Math.max(0.3, Math.min(5, weights.getOrDefault(column, 1.0) * factor)));
        resized();
    }

    /** Holds the range of the lane in focus, lets it follow, lets it fit again. */
    public void nextRange() {
        String column = inFocus();
        if (lanes.containsKey(column)) {
            lanes.get(column).nextRange();
        }
    }

    /** Shows the lane in focus as it came, or cleaned again. */
    public void toggleStage() {
        String column = inFocus();
        if (lanes.containsKey(column)) {
            lanes.get(column).toggleStage();
            describedAt = Double.NEGATIVE_INFINITY;
        }
    }

    private LaneView newLane(String column) {
        LaneView lane = new LaneView(column);
        lane.setOnMousePressed(event -> {
            workspace.view().focus().set(column);
            lane.requestFocus();
            describedAt = Double.NEGATIVE_INFINITY;
        });
        lane.side().setOnMouseClicked(event -> lane.nextRange());
        lane.unit().setOnMouseClicked(event -> workspace.nextUnit(column));
        lane.focusedProperty().addListener((p, was, is) -> {
            if (is) {
                workspace.view().focus().set(column);
            }
        });
        lane.hide().setOnAction(event -> workspace.change(rig -> rig.withChannel(column, c -> c.withShown(false))));
        resizeByEdge(lane);
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
                home();
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
        return lane;
    }

    /** The lower edge of a lane can be pulled: the lane takes more or less of the height than the others. */
    private void resizeByEdge(LaneView lane) {
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
                double wanted = Math.max(46, pulled[1] + event.getScreenY() - pulled[0]);
                double weight = weights.getOrDefault(lane.column(), 1.0) * wanted / Math.max(1, lane.getHeight());
                weights.put(lane.column(), Math.max(0.3, Math.min(5, weight)));
                resized();
                event.consume();
            }
        });
    }

    /** Goes back to now, or to all of a take. */
    public void home() {
        workspace.shown().home();
    }

    private void scrolled(LaneView lane, ScrollEvent event) {
        double width = Math.max(1, lane.plotWidth());
        if (event.isShiftDown() || Math.abs(event.getDeltaX()) > Math.abs(event.getDeltaY())) {
            double delta = event.getDeltaX() != 0 ? event.getDeltaX() : event.getDeltaY();
            workspace.shown().window().scroll(-delta / 400, workspace.shown().isLive());
        } else if (event.getDeltaY() != 0) {
            workspace.shown().window().zoom(Math.pow(1.25, -Math.signum(event.getDeltaY())), event.getX() / width);
        }
        event.consume();
    }

    private void dragged(LaneView lane, MouseEvent event) {
        if (!Double.isNaN(measureFrom)) {
            workspace.view().span().set(new Span(measureFrom, snapped(lane, event.getX())));
            return;
        }
        if (!Double.isNaN(dragX)) {
            workspace
                    .shown()
                    .window()
                    .scroll(
                            (dragX - event.getX()) / Math.max(1, lane.plotWidth()),
                            workspace.shown().isLive());
            dragX = event.getX();
        }
    }

    /** Sets one end of the stretch that is measured to where the pointer is, or the middle of what is in sight. */
    public void measure() {
        LaneView lane = hovered;
        double at = lane == null
                ? workspace.shown().window().from() + workspace.shown().window().span() / 2
                : snapped(lane, hoverX);
        workspace.view().span().set(workspace.view().span().get().with(at));
    }

    /** @return the time under a pixel, or that of an event of the lane, a mark, a peak or a crossing close by, in this order */
    private double snapped(LaneView lane, double x) {
        double pixel = workspace.shown().window().span() / Math.max(1, width);
        double at = from + x * pixel;
        double nearest = SNAP_PIXELS * pixel;
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
