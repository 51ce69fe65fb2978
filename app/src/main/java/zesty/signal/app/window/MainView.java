package zesty.signal.app.window;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import zesty.signal.app.help.HelpBook;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.act.ActBench;
import zesty.signal.app.window.bench.clean.CleanBench;
import zesty.signal.app.window.bench.decode.DecodeBench;
import zesty.signal.app.window.bench.read.ReadBench;
import zesty.signal.app.window.bench.scale.ScaleBench;
import zesty.signal.app.window.bench.source.SourceBench;
import zesty.signal.app.window.drawing.Drawn;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.WindowImage;
import zesty.signal.app.window.lanes.LaneStack;
import zesty.signal.app.window.parts.CaptureBar;
import zesty.signal.app.window.parts.CautionBar;
import zesty.signal.app.window.parts.Logbook;
import zesty.signal.app.window.parts.NoticeBar;
import zesty.signal.app.window.parts.PhonePane;
import zesty.signal.app.window.parts.ReadingCards;
import zesty.signal.app.window.parts.SafeBar;
import zesty.signal.app.window.parts.Scoreboard;
import zesty.signal.app.window.parts.SnapshotPanel;
import zesty.signal.app.window.parts.TrailBar;
import zesty.signal.app.window.planner.Planner;
import zesty.signal.app.window.workspace.LimitAlerts;
import zesty.signal.app.window.workspace.Look;
import zesty.signal.app.window.workspace.Notice;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.WindowState;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;
import zesty.signal.takes.NewFile;

/** The whole of the window: trail on top, lanes and readings or a bench in the middle, capture bar below. */
final class MainView extends StackPane {
    private static final DateTimeFormatter MOMENT = DateTimeFormatter.ofPattern("yyyy-MM-dd-HHmmss-SSS");
    private static final double WORDS_EVERY_SECONDS = 0.2;
    /** Height of the focused lane with its time axis while a bench has the room. */
    private static final double LANE_OVER_BENCH = 122;
    /** What a row of marks below the time axis takes more. */
    private static final double MARKS_ROW = 22;

    private final Workspace workspace;
    private final TrailBar trail;
    private final LaneStack lanes;
    private final ReadingCards readings;
    private final CaptureBar capture;
    private final Logbook takes;
    /** Made when it is opened first. */
    private Planner planner;

    private PhonePane phone;

    private final SnapshotPanel snapshots;
    private final CautionBar caution;
    private final SafeBar safe;
    private final Scoreboard scoreboard;
    private final LimitAlerts breaches;
    private final Map<Stop, Supplier<Bench>> makers = new EnumMap<>(Stop.class);
    private final Map<Stop, Bench> benches = new EnumMap<>(Stop.class);
    private final VBox middle = new VBox(8);
    /** The lanes with the readings at their right: all of them, or the focused one over its bench. */
    private final HBox over = new HBox(12);

    /** Scrolls where the window is too low for the bench. */
    private final ScrollPane benchRoom = new ScrollPane();

    private final Commands commands;
    private CommandList list;
    private HelpPage help;
    private double wordsAt = Double.NEGATIVE_INFINITY;
    /** Whether there is a lane to show over a bench, or cards beside the lanes. */
    private boolean someSignal;

    MainView(Workspace workspace) {
        this.workspace = workspace;
        getStyleClass().add("window");
        trail = new TrailBar(workspace, this::toggleCommandList, workspace.view()::nextLook);
        lanes = new LaneStack(workspace);
        readings = new ReadingCards(workspace);
        readings.setVisible(false);
        readings.managedProperty().bind(readings.visibleProperty());
        capture = new CaptureBar(workspace);
        takes = new Logbook(workspace);
        snapshots = new SnapshotPanel(workspace);
        caution = new CautionBar(workspace);
        safe = new SafeBar(workspace);
        scoreboard = new Scoreboard(workspace);
        breaches = new LimitAlerts(workspace);
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
        VBox.setVgrow(takes, Priority.ALWAYS);
        benchRoom.getStyleClass().add("plain-scroll");
        benchRoom.setId("bench-room");
        benchRoom.setFitToWidth(true);
        benchRoom.setFitToHeight(true);
        benchRoom.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        VBox.setVgrow(benchRoom, Priority.ALWAYS);
        BorderPane pane = new BorderPane(
                middle,
                new VBox(trail, caution, safe),
                null,
                new VBox(snapshots, new NoticeBar(workspace), capture),
                null);
        getChildren().addAll(pane, scoreboard);
        commands = new Commands(workspace, this);
        workspace.view().stop().addListener((p, was, is) -> arrange());
        workspace.view().takesOpen().addListener((p, was, is) -> arrange());
        workspace.view().plannerOpen().addListener((p, was, is) -> arrange());
        workspace.view().phoneOpen().addListener((p, was, is) -> arrange());
        workspace.view().look().addListener((p, was, is) -> dress());
        workspace.view().textSize().addListener((p, was, is) -> arrange());
        workspace.view().focus().addListener((p, was, is) -> wordsAt = Double.NEGATIVE_INFINITY);
        dress();
        arrange();
        takeFiles();
    }

    /** Files dropped on the window: one take is opened, anything else is looked at to be imported. */
    private void takeFiles() {
        setOnDragOver(event -> {
            if (event.getDragboard().hasFiles()) {
                event.acceptTransferModes(TransferMode.COPY);
            }
            event.consume();
        });
        setOnDragDropped(event -> {
            boolean some = event.getDragboard().hasFiles();
            if (some) {
                dropped(event.getDragboard().getFiles().get(0).toPath());
            }
            event.setDropCompleted(some);
            event.consume();
        });
    }

    /** Takes in a file from elsewhere. */
    void dropped(Path file) {
        if (file.toString().endsWith(".zest")) {
            workspace.open(file);
            return;
        }
        workspace.view().takesOpen().set(true);
        takes.importFile(file);
    }

    Commands commands() {
        return commands;
    }

    SnapshotPanel snapshots() {
        return snapshots;
    }

    Logbook logbook() {
        return takes;
    }

    LaneStack lanes() {
        return lanes;
    }

    CaptureBar capture() {
        return capture;
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
        readings.showOnlyFocus(bench);
        trail.low(bench
                || workspace.view().plannerOpen().get()
                || workspace.view().phoneOpen().get());
        over.setVisible(!bench || someSignal);
        high(bench);
        VBox.setVgrow(over, bench ? Priority.NEVER : Priority.ALWAYS);
        if (workspace.view().takesOpen().get()) {
            middle.getChildren().setAll(takes);
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
        if (!wide()) {
            lanes.frame(snapshot, nanoTime);
        }
        if (now - wordsAt >= WORDS_EVERY_SECONDS) {
            wordsAt = now;
            trail.show(snapshot);
            readings.show(snapshot);
            Snapshot live = workspace.live().snapshot(nanoTime);
            capture.show(live);
            caution.show(live.rig(), !workspace.shown().isLive());
            breaches.look(live);
            workspace.acting().look(live);
            safe.show(live);
            scoreboard.show(live);
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
        if (help != null) {
            toggleHelp();
        } else if (list != null) {
            toggleCommandList();
        } else if (workspace.view().scoreboard().get()) {
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

    TrailBar trail() {
        return trail;
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

    /** Keeps what the window shows as a picture beside the takes. */
    void keepPicture() {
        WindowImage now = WindowImage.of(getScene());
        Path folder = workspace.places().pictures();
        Path file = folder.resolve("zesty-" + LocalDateTime.now().format(MOMENT) + ".png");
        workspace
                .tasks()
                .later(
                        "the screenshot could not be saved",
                        () -> {
                            Files.createDirectories(folder);
                            now.write(file.toFile());
                        },
                        () -> workspace.say("Screenshot saved: " + file));
    }

    /** Keeps the lanes and each plot in sight as a drawing of its own, and as a picture beside it. */
    void keepDrawings() {
        Path folder = workspace.places().pictures();
        String moment = LocalDateTime.now().format(MOMENT);
        List<Drawn> seen = new ArrayList<>();
        collect(this, seen);
        if (seen.isEmpty()) {
            workspace.trouble("Nothing here can be saved as a drawing: open the lanes or a bench with a plot.");
        }
        for (int i = 0; i < seen.size(); i++) {
            String subject =
                    seen.get(i).subject().replaceAll("[^\\p{Alnum}]+", "-").replaceAll("^-|-$", "");
            Path file = folder.resolve("zesty-" + moment + "-" + (i + 1) + "-" + subject + ".svg");
            Path picture = folder.resolve("zesty-" + moment + "-" + (i + 1) + "-" + subject + ".png");
            WindowImage same = WindowImage.of(
                    (Node) seen.get(i), Palette.card(workspace.view().night().get()));
            seen.get(i).nextDrawing(text -> workspace
                    .tasks()
                    .later(
                            "the drawing could not be saved",
                            () -> {
                                Files.createDirectories(folder);
                                try (NewFile made = NewFile.begin(file, false)) {
                                    made.stream().write(text.getBytes(StandardCharsets.UTF_8));
                                    made.keep();
                                }
                                same.write(picture.toFile());
                            },
                            () -> workspace.say(
                                    seen.size() == 1
                                            ? "Drawing saved: " + file
                                            : seen.size() + " drawings saved, the last: " + file)));
        }
    }

    private static void collect(Node node, List<Drawn> seen) {
        if (!node.isVisible()) {
            return;
        }
        if (node instanceof Drawn drawn) {
            seen.add(drawn);
        } else if (node instanceof Parent parent) {
            parent.getChildrenUnmodifiable().forEach(child -> collect(child, seen));
        }
    }

    void toggleLink() {
        if (workspace.live().connected()) {
            workspace.live().disconnect();
            workspace.say("Disconnected. L connects again.");
        } else if (!workspace.shown().rig().source().isEmpty()) {
            workspace.live().connect(workspace.shown().rig().source());
        } else {
            workspace.view().stop().set(Stop.SOURCE);
        }
    }

    boolean helpIsOpen() {
        return help != null;
    }

    void toggleHelp() {
        if (help != null) {
            getChildren().remove(help);
            help = null;
            return;
        }
        help = new HelpPage(new HelpBook(), this::toggleHelp);
        getChildren().add(help);
        help.show(place());
    }

    /** @return what help has to tell of where the window is */
    private String place() {
        WindowState at = workspace.view();
        if (at.takesOpen().get()) {
            return "takes";
        }
        if (at.plannerOpen().get()) {
            return "planner";
        }
        if (at.phoneOpen().get()) {
            return "phone";
        }
        Stop stop = at.stop().get();
        if (stop == Stop.READ) {
            return workspace
                    .shown()
                    .snapshot(System.nanoTime())
                    .focused(at.focus().get())
                    .flatMap(ChannelSnapshot::reader)
                    .map(reader -> HelpBook.reader(reader.kind().name()))
                    .orElse("read");
        }
        return stop == null ? "trail" : stop.name().toLowerCase(java.util.Locale.ROOT);
    }

    void toggleCommandList() {
        if (list == null) {
            list = new CommandList(commands.all(), this::toggleCommandList);
            getChildren().add(list);
        } else {
            getChildren().remove(list);
            list = null;
        }
    }
}
