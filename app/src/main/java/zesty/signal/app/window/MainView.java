package zesty.signal.app.window;

import java.util.EnumMap;
import java.util.Map;
import java.util.function.Supplier;
import javafx.scene.input.InputEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.act.ActBench;
import zesty.signal.app.window.bench.clean.CleanBench;
import zesty.signal.app.window.bench.decode.DecodeBench;
import zesty.signal.app.window.bench.read.ReadBench;
import zesty.signal.app.window.bench.scale.ScaleBench;
import zesty.signal.app.window.bench.source.SourceBench;
import zesty.signal.app.window.drawing.PlainScroll;
import zesty.signal.app.window.lanes.LaneStack;
import zesty.signal.app.window.parts.CaptureBar;
import zesty.signal.app.window.parts.Logbook;
import zesty.signal.app.window.parts.PhonePane;
import zesty.signal.app.window.parts.SnapshotPanel;
import zesty.signal.app.window.parts.TrailBar;
import zesty.signal.app.window.planner.Planner;
import zesty.signal.app.window.workspace.Look;
import zesty.signal.app.window.workspace.Notice;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.Snapshot;

/** The whole of the window: trail on top, lanes and readings or a bench in the middle, capture bar below. */
final class MainView extends StackPane {
    private static final double WORDS_EVERY_SECONDS = 0.2;
    /** Where no lanes are painted meanwhile. */
    private static final double WORDS_ALONE_SECONDS = 0.28;
    /** Height of the focused lane with its time axis while a bench has the room. */
    private static final double LANE_OVER_BENCH = 122;
    /** What a row of marks below the time axis takes more. */
    private static final double MARKS_ROW = 22;

    /** They are painted with each frame for so long after the last touch. */
    private static final double BUSY_SECONDS = 0.5;
    /** How often lanes step where they are not to run. */
    private static final double CALM_SECONDS = 1;
    /** Nothing moves in a take that nobody touches; what is worked out behind the window comes to be seen as soon as this. */
    private static final double TAKE_SECONDS = 0.2;

    /** What the bars around the lanes take at the usual size of text: their room is kept until they come. */
    private static final double TRAIL_HEIGHT = 138;

    private static final double CAPTURE_HEIGHT = 58;
    /** Who waits longer for a signal sees bars, and why there is none. */
    private static final double UNTIL_SIGNAL_SECONDS = 0.6;

    private final Workspace workspace;
    private final LaneStack lanes;
    /** Keeps the room of the answers at the right until they come. */
    private final StackPane readings = new StackPane();

    /** Made when it is opened first, as are those that follow. */
    private Logbook takes;

    private Planner planner;
    private PhonePane phone;

    /** Null until the first lanes are painted, or nobody waits for them any longer. */
    private Bars bars;

    private final Map<Stop, Supplier<Bench>> makers = new EnumMap<>(Stop.class);
    private final Map<Stop, Bench> benches = new EnumMap<>(Stop.class);
    private final VBox middle = new VBox(8);
    /** The lanes with the readings at their right: all of them, or the focused one over its bench. */
    private final HBox over = new HBox(12);

    /** Scrolls where the window is too low for the bench. */
    private final PlainScroll benchRoom = new PlainScroll();

    private final BorderPane pane = new BorderPane(middle);
    private final Sheets sheets;
    /** Made with the first key. */
    private Commands commands;

    private double wordsAt = Double.NEGATIVE_INFINITY;
    private double lanesAt = Double.NEGATIVE_INFINITY;
    private double busyUntil;
    /** So many frames are the lanes' alone once there is a signal: what is painted in one is drawn beside the next ones, and words come after it. */
    private int alone = 5;

    private final double madeAt = System.nanoTime() * 1e-9;

    /** Whether there is a lane to show over a bench, or cards beside the lanes. */
    private boolean someSignal;

    MainView(Workspace workspace) {
        this.workspace = workspace;
        getStyleClass().add("window");
        sheets = new Sheets(workspace, this);
        lanes = new LaneStack(workspace);
        readings.getStyleClass().add("readings");
        readings.setVisible(false);
        readings.managedProperty().bind(readings.visibleProperty());
        makers.put(Stop.SOURCE, () -> new SourceBench(workspace));
        makers.put(Stop.DECODE, () -> new DecodeBench(workspace));
        makers.put(Stop.SCALE, () -> new ScaleBench(workspace));
        makers.put(Stop.CLEAN, () -> new CleanBench(workspace));
        makers.put(Stop.READ, () -> new ReadBench(workspace));
        makers.put(Stop.ACT, () -> new ActBench(workspace));
        middle.getStyleClass().add("middle");
        over.getChildren().setAll(lanes, readings);
        over.managedProperty().bind(over.visibleProperty());
        HBox.setHgrow(lanes, Priority.ALWAYS);
        benchRoom.setId("bench-room");
        benchRoom.setFitToHeight(true);
        VBox.setVgrow(benchRoom, Priority.ALWAYS);
        pane.setTop(room("trail", TRAIL_HEIGHT));
        pane.setBottom(room("capture", CAPTURE_HEIGHT));
        getChildren().add(pane);
        workspace.view().stop().addListener((p, was, is) -> arrange());
        workspace.view().takesOpen().addListener((p, was, is) -> arrange());
        workspace.view().plannerOpen().addListener((p, was, is) -> arrange());
        workspace.view().phoneOpen().addListener((p, was, is) -> arrange());
        workspace.view().look().addListener((p, was, is) -> dress());
        workspace.view().textSize().addListener((p, was, is) -> arrange());
        workspace.view().focus().addListener((p, was, is) -> wordsAt = Double.NEGATIVE_INFINITY);
        dress();
        arrange();
        if (!workspace.live().connected() || workspace.view().stop().get() != null) {
            bars();
        }
        new Dropping(workspace, this).listen();
        addEventFilter(InputEvent.ANY, event -> busyUntil = System.nanoTime() * 1e-9 + BUSY_SECONDS);
    }

    /** Keeps the room of a bar that comes later, in its colour, so that lanes do not move when it comes. */
    private Region room(String style, double height) {
        Region room = new Region();
        room.getStyleClass().add(style);
        room.setMinHeight(workspace.view().textSize().get().of(height));
        return room;
    }

    /** @return what stands around the lanes, made if it was not */
    private Bars bars() {
        if (bars == null) {
            bars = new Bars(workspace, sheets);
            readings.getChildren().add(bars.readings());
            pane.setTop(bars.above());
            pane.setBottom(bars.below());
            getChildren().add(1, bars.over());
            arrange();
        }
        return bars;
    }

    Commands commands() {
        if (commands == null) {
            commands = new Commands(workspace, this);
        }
        return commands;
    }

    /** Keys that were held down are so no longer: the window has lost them or got them anew. */
    void forgetKeys() {
        if (commands != null) {
            commands.forget();
        }
    }

    SnapshotPanel snapshots() {
        return bars().snapshots();
    }

    Logbook logbook() {
        if (takes == null) {
            takes = new Logbook(workspace);
            VBox.setVgrow(takes, Priority.ALWAYS);
        }
        return takes;
    }

    LaneStack lanes() {
        return lanes;
    }

    CaptureBar capture() {
        return bars().capture();
    }

    private void dress() {
        for (Look look : Look.values()) {
            getStyleClass().remove(look.style());
        }
        String style = workspace.view().look().get().style();
        if (!style.isEmpty()) {
            getStyleClass().add(style);
        }
        wordsAt = Double.NEGATIVE_INFINITY;
    }

    private void arrange() {
        Stop stop = workspace.view().stop().get();
        boolean bench = stop != null && !wide();
        lanes.showOnlyFocus(bench);
        if (bars != null) {
            bars.readings().showOnlyFocus(bench);
            bars.trail()
                    .low(bench
                            || workspace.view().plannerOpen().get()
                            || workspace.view().phoneOpen().get());
        }
        over.setVisible(!bench || someSignal);
        high(bench);
        VBox.setVgrow(over, bench ? Priority.NEVER : Priority.ALWAYS);
        if (workspace.view().takesOpen().get()) {
            middle.getChildren().setAll(logbook());
            workspace.takes().list();
        } else if (workspace.view().plannerOpen().get()) {
            planner = planner == null ? new Planner(workspace) : planner;
            benchRoom.setContent(planner);
            middle.getChildren().setAll(benchRoom);
        } else if (workspace.view().phoneOpen().get()) {
            phone = phone == null ? new PhonePane(workspace) : phone;
            benchRoom.setContent(phone);
            middle.getChildren().setAll(benchRoom);
        } else {
            middle.getChildren().setAll(over);
            if (bench) {
                Bench shown = benches.computeIfAbsent(stop, s -> makers.get(s).get());
                benchRoom.setContent(shown);
                middle.getChildren().add(benchRoom);
                shown.opened(workspace.shown().snapshot(System.nanoTime()));
            }
        }
        wordsAt = Double.NEGATIVE_INFINITY;
    }

    /** @return whether takes, the planner or the phone's page stand in the place of lanes and benches */
    private boolean wide() {
        return workspace.view().takesOpen().get()
                || workspace.view().plannerOpen().get()
                || workspace.view().phoneOpen().get();
    }

    private void high(boolean bench) {
        double height = workspace
                .view()
                .textSize()
                .get()
                .of(LANE_OVER_BENCH + (workspace.shown().marks().isEmpty() ? 0 : MARKS_ROW));
        over.setMinHeight(bench ? height : 0);
        over.setPrefHeight(bench ? height : USE_COMPUTED_SIZE);
        over.setMaxHeight(bench ? height : Double.MAX_VALUE);
    }

    /** Shows a frame. */
    void frame(long nanoTime) {
        Snapshot snapshot = workspace.shown().snapshot(nanoTime);
        double now = nanoTime * 1e-9;
        if (someSignal != snapshot.hasSamples()) {
            someSignal = snapshot.hasSamples();
            readings.setVisible(someSignal);
            over.setVisible(workspace.view().stop().get() == null || someSignal);
        }
        boolean paints = !wide() && (someSignal || bars != null) && now - lanesAt >= lanesEvery(now);
        boolean lanesFirst = lanesAlone(now);
        // Words change in a frame that paints lanes, where there is one soon: the window is laid out once for both.
        boolean words =
                !lanesFirst && bars != null && now - wordsAt >= (paints ? WORDS_EVERY_SECONDS : WORDS_ALONE_SECONDS);
        if (paints) {
            lanesAt = now;
            lanes.frame(snapshot, nanoTime, words);
        }
        if (!lanesFirst && bars == null) {
            bars();
        } else if (words) {
            wordsAt = now;
            bars.show(snapshot, workspace.live().snapshot(nanoTime));
            if (phone != null && workspace.view().phoneOpen().get()) {
                phone.show();
            }
            workspace.doctor().go(snapshot, now);
            Stop stop = workspace.view().stop().get();
            if (stop != null && !wide()) {
                high(true);
                benches.get(stop).show(snapshot);
            }
        }
    }

    /** @return whether this frame is the lanes' alone: before there is a signal for as long as a board mostly takes, then for some frames */
    private boolean lanesAlone(double now) {
        if (someSignal) {
            alone = Math.max(0, alone - 1);
            return alone > 0;
        }
        return bars == null && now - madeAt < UNTIL_SIGNAL_SECONDS;
    }

    /** @return whether lanes were painted */
    boolean isPainted() {
        return lanes.isPainted();
    }

    /** @return how long lanes stay as they are, in s: until they have moved by some pixels, unless somebody works on them */
    private double lanesEvery(double now) {
        if (workspace.view().calm().get() && lanes.fits()) {
            return CALM_SECONDS;
        }
        if (now < busyUntil || someSignal && !lanes.fits()) {
            return 0;
        }
        return workspace.shown().isLive() ? lanes.quietSeconds() : TAKE_SECONDS;
    }

    /** Opens a stop's bench, or closes it when it is open. */
    void toggle(Stop stop) {
        if (workspace.view().plannerOpen().get() || workspace.view().phoneOpen().get()) {
            workspace.view().plannerOpen().set(false);
            workspace.view().phoneOpen().set(false);
            workspace.view().stop().set(stop);
            return;
        }
        workspace.view().takesOpen().set(false);
        workspace.view().stop().set(workspace.view().stop().get() == stop ? null : stop);
    }

    /** Leaves whatever is open, one at a time: list, takes, bench, stored take. */
    void leave() {
        if (sheets.leave()) {
            return;
        }
        if (workspace.view().scoreboard().get()) {
            workspace.view().scoreboard().set(false);
        } else if (workspace.view().takesOpen().get()) {
            workspace.view().takesOpen().set(false);
        } else if (workspace.view().plannerOpen().get()) {
            workspace.view().plannerOpen().set(false);
        } else if (workspace.view().phoneOpen().get()) {
            workspace.view().phoneOpen().set(false);
        } else if (workspace.view().stop().get() != null) {
            workspace.view().stop().set(null);
        } else if (!workspace.shown().isLive()) {
            workspace.backToLive();
        }
    }

    /** @return what lies over the window: help, the list of keys, a problem report */
    Sheets sheets() {
        return sheets;
    }

    TrailBar trail() {
        return bars().trail();
    }

    void undo() {
        if (workspace.view().plannerOpen().get() && workspace.planning().undo()) {
            return;
        }
        Notice notice = workspace.notice().get();
        if (notice != null && notice.undo() != null) {
            workspace.notice().set(null);
            notice.undo().run();
        } else {
            workspace.undo();
        }
    }

    void toggleLink() {
        if (workspace.live().connected()) {
            workspace.live().disconnect();
            workspace.say(Messages.of("window.disconnected-l-connects-again"));
        } else if (!workspace.shown().rig().source().isEmpty()) {
            workspace.live().connect(workspace.shown().rig().source());
        } else {
            workspace.view().stop().set(Stop.SOURCE);
        }
    }

    void toggleCalm() {
        boolean calm = !workspace.view().calm().get();
        workspace.view().calm().set(calm);
        workspace.say(calm ? Messages.of("window.lanes-step-once-a-second") : Messages.of("window.lanes-run-again"));
    }

    void toggleFirstHour() {
        bars().firstHour().toggle();
    }
}
