package zesty.signal.app.window.lanes;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.geometry.Insets;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.Drawn;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.PlainScroll;
import zesty.signal.app.window.drawing.WhenSeen;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.TextSize;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.StreamSnapshot;

/**
 * The lanes one above the other over one time axis. The wheel makes the stretch in sight longer or shorter about the
 * pointer, dragging moves it, a double click goes back to now or to all of a take.
 */
public final class LaneStack extends VBox implements Drawn {
    private static final double BETWEEN = 9;
    /** Lanes that nobody touches are painted when they have moved so far: with two pixels ten seconds in sight take a third more of a processor. */
    private static final double QUIET_PIXELS = 3;
    /** And so often at least, which makes four frames of the toolkit: with five it takes a tenth less, but who taps a sensor would see it late. */
    private static final double QUIET_SECONDS = 0.06;

    private final Workspace workspace;
    private final Map<String, LaneView> lanes = new HashMap<>();
    private final VBox stack = new VBox(BETWEEN);
    /** Holds the lanes as they are; a scroller is put in only for more than have room. */
    private final StackPane room = new StackPane(stack);

    private final PlainScroll scroll = new PlainScroll();

    /** Pictures stand above the lanes, over the same time axis. */
    private final VBox films = new VBox(BETWEEN);

    private final TimeAxis axis;
    private final NoLanes empty;
    private final SpanBar spanBar;
    private final SharedTime time = new SharedTime();
    private final LanePointer pointer;
    private final LaneHeights heights = new LaneHeights(this::resized);

    private List<String> shown = List.of();
    private boolean onlyFocus;
    /** Whether the lane in focus is shown alone, as long as it is wanted. */
    private boolean alone;

    /** What is laid over a lane, by columns. */
    private final Map<String, String> overs = new HashMap<>();

    private final Map<String, ValueScale> overScales = new HashMap<>();
    private boolean painted;
    /** Whether what the lanes say in words is as they are arranged now. */
    private boolean said;

    private Object described;

    public LaneStack(Workspace workspace) {
        this.workspace = workspace;
        getStyleClass().add("lane-stack");
        axis = new TimeAxis(workspace);
        empty = new NoLanes(workspace);
        pointer = new LanePointer(workspace, time);
        scroll.setMinHeight(0);
        room.setMinSize(0, 0);
        VBox.setVgrow(room, Priority.ALWAYS);
        workspace.view().textSize().addListener((property, was, is) -> resized());
        room.heightProperty().addListener((property, was, is) -> resized());
        spanBar = new SpanBar(workspace);
        empty.setVisible(false);
        WhenSeen waiting = new WhenSeen(empty);
        VBox.setVgrow(waiting, Priority.ALWAYS);
        getChildren().addAll(waiting, films, room, axis, new WhenSeen(spanBar), pointer.lens());
        VBox.setMargin(films, new Insets(0, 0, BETWEEN, 0));
        setMinWidth(0);
        stack.setMinWidth(0);
    }

    /** Shows all lanes, or only the one in focus while a bench is open below it. */
    public void showOnlyFocus(boolean only) {
        onlyFocus = only;
        said = false;
    }

    /** @return whether the lanes that are wanted were painted; new ones need a place first */
    public boolean isPainted() {
        return painted;
    }

    /** @return whether they were painted as high as they are by now */
    public boolean fits() {
        return painted && stack.getChildren().stream().allMatch(node -> ((LaneView) node).fits());
    }

    /** @return how long lanes that nobody touches may stay as they were painted last, in s */
    public double quietSeconds() {
        return Math.min(QUIET_PIXELS * time.pixel(), QUIET_SECONDS);
    }

    /** Paints a frame. @param words whether the lanes' words and numbers are said anew */
    public void frame(Snapshot snapshot, long nanoTime, boolean words) {
        double now = nanoTime * 1e-9;
        boolean some = snapshot.hasSamples();
        arrange(snapshot);
        boolean describe = words || !said || described != snapshot.rig();
        boolean lanesThere = some && !shown.isEmpty();
        empty.setVisible(!lanesThere);
        room.setVisible(lanesThere);
        room.setManaged(lanesThere);
        axis.setVisible(lanesThere);
        axis.setManaged(lanesThere);
        films.setVisible(lanesThere && films.isManaged());
        if (!lanesThere) {
            painted = false;
            empty.say(snapshot);
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
        time.compute(workspace.shown(), snapshot, nanoTime, narrowest);
        paintLanes(snapshot, now, describe);
        painted = true;
        paintFilms(snapshot, now);
        if (describe) {
            said = true;
            described = snapshot.rig();
        }
        axis.show(
                time.ticks(),
                shown.isEmpty() ? 0 : lanes.get(shown.get(0)).plotLeft(),
                time.width(),
                time.from(),
                onlyFocus || alone);
        spanBar.show(snapshot, time.zero());
    }

    private void paintFilms(Snapshot snapshot, double now) {
        List<StreamSnapshot> pictured = onlyFocus || alone
                ? List.of()
                : snapshot.streams().stream().filter(one -> one.film() != null).toList();
        while (films.getChildren().size() > pictured.size()) {
            films.getChildren().remove(films.getChildren().size() - 1);
        }
        while (films.getChildren().size() < pictured.size()) {
            films.getChildren().add(new FilmLane(workspace));
        }
        films.setManaged(!pictured.isEmpty());
        films.setVisible(!pictured.isEmpty());
        for (int i = 0; i < pictured.size(); i++) {
            FilmLane lane = (FilmLane) films.getChildren().get(i);
            lane.frame(snapshot, pictured.get(i), time.from(), time.secondsAt(time.width()), time.width(), now);
        }
    }

    private void paintLanes(Snapshot snapshot, double now, boolean describe) {
        for (int i = 0; i < snapshot.channels().size(); i++) {
            ChannelSnapshot channel = snapshot.channels().get(i);
            LaneView lane = lanes.get(channel.channel().column());
            if (lane == null || lane.getParent() == null) {
                continue;
            }
            int colour = Palette.placeOf(snapshot.rig(), channel.channel().column());
            lane.paint(
                    snapshot,
                    channel,
                    time.edges(channel.stream()),
                    time.ticks(),
                    colour,
                    workspace.view().look().get(),
                    now,
                    over(snapshot, channel));
            // Painted first: the ends of its scale are known then.
            if (describe) {
                describe(snapshot, channel, lane);
            }
            Span span = workspace.view().span().get();
            lane.span(time.pixelAt(span.first()), time.pixelAt(span.second()));
            pointer.show(snapshot, channel, lane, colour, this);
        }
    }

    private void describe(Snapshot snapshot, ChannelSnapshot channel, LaneView lane) {
        String column = channel.channel().column();
        lane.describe(
                snapshot,
                channel,
                Palette.placeOf(snapshot.rig(), column),
                workspace.view().night().get(),
                column.equals(focus(snapshot)),
                workspace.doctor().of(column).stream()
                        .findFirst()
                        .map(finding -> finding.diagnosis().words())
                        .orElse(""));
    }

    private String focus(Snapshot snapshot) {
        return snapshot.focused(workspace.view().focus().get())
                .map(c -> c.channel().column())
                .orElse("");
    }

    @Override
    public String subject() {
        return Messages.of("lanes.lanes");
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
                            time.edges(channel.stream()),
                            lane.scale(),
                            Palette.of(
                                    snapshot.rig(),
                                    channel.channel().column(),
                                    workspace.view().night().get()),
                            (int) lane.plot().getHeight())));
        }
        if (time.width() > 1 && !drawn.isEmpty()) {
            taker.accept(LanesDrawing.of(workspace.view().night().get(), time.width(), time.ticks(), drawn));
        }
    }

    /** Looks ten times closer under the pointer, or no more. */
    public void toggleLens() {
        pointer.toggleLens();
    }

    /** Shows the lane in focus alone, or all again. */
    public void toggleAlone() {
        alone = !alone;
        said = false;
        if (alone) {
            workspace.say(Messages.of("lanes.this-lane-alone-o-shows-the-others"));
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
                        time.edges(laid.stream()),
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

    private void arrange(Snapshot snapshot) {
        List<String> wanted = new ArrayList<>();
        String focus = focus(snapshot);
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
        painted = false;
        lanes.keySet().removeIf(column -> snapshot.channel(column).isEmpty());
        for (String column : wanted) {
            LaneView lane = lanes.computeIfAbsent(column, this::newLane);
            // With its words it is dressed and laid out once; what is said later only changes it.
            snapshot.channel(column).ifPresent(channel -> describe(snapshot, channel, lane));
        }
        stack.getChildren().setAll(wanted.stream().map(lanes::get).toList());
        resized();
        said = false;
    }

    private void scrolled(boolean on) {
        if (on != room.getChildren().contains(scroll)) {
            scroll.setContent(on ? stack : null);
            room.getChildren().setAll(on ? scroll : stack);
        }
    }

    private void resized() {
        TextSize size = workspace.view().textSize().get();
        double between = stack.getSpacing() * Math.max(0, shown.size() - 1);
        scrolled(LaneHeights.overflow(shown.size(), between, size, room.getHeight()));
        heights.share(shown.stream().map(lanes::get).toList(), room.getHeight() - between, size);
    }

    /** @return the column of the lane in focus: the one chosen, else the first one shown */
    private String inFocus() {
        return shown.contains(workspace.view().focus().get()) || shown.isEmpty()
                ? workspace.view().focus().get()
                : shown.get(0);
    }

    /** Makes the lane in focus taller or lower. */
    public void resizeFocus(double factor) {
        heights.resize(inFocus(), factor);
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
            said = false;
        }
    }

    private LaneView newLane(String column) {
        LaneView lane = new LaneView(column);
        lane.setOnMousePressed(event -> {
            workspace.view().focus().set(column);
            lane.requestFocus();
            said = false;
        });
        lane.side().setOnMouseClicked(event -> lane.nextRange());
        lane.unit().setOnMouseClicked(event -> workspace.nextUnit(column));
        lane.focusedProperty().addListener((p, was, is) -> {
            if (is) {
                workspace.view().focus().set(column);
            }
        });
        lane.hide().setOnAction(event -> workspace.change(rig -> rig.withChannel(column, c -> c.withShown(false))));
        heights.resizeByEdge(lane);
        pointer.listenTo(lane);
        return lane;
    }

    /** Goes back to now, or to all of a take. */
    public void home() {
        workspace.shown().home();
    }

    /** Sets one end of the segment that is measured. */
    public void measure() {
        pointer.measure();
    }
}
