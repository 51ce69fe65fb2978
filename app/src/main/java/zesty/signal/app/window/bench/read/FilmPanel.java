package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.function.UnaryOperator;
import javafx.animation.AnimationTimer;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.FilmStrip;
import zesty.signal.app.window.drawing.FrameStore;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.picture.Film;
import zesty.signal.core.picture.FrameRange;
import zesty.signal.core.picture.PictureSetup;
import zesty.signal.core.picture.Region;
import zesty.signal.core.picture.Turned;
import zesty.signal.core.rig.Source;
import zesty.signal.core.sample.Times;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/**
 * The pictures of a stream: one large, its parts as channels, what makes it right, and the strip to choose one from. It is long because it
 * names each of the many controls that act on one picture; what they do is elsewhere.
 */
final class FilmPanel extends VBox {
    /** The hottest spot is followed back over so many pictures. */
    private static final int TRACK = 40;

    private static final double STRIP = 50;
    private static final double SIDE = 330;
    /** How much of the newest the strip shows, in s. */
    private static final double STRIP_SECONDS = 30;

    private final Workspace workspace;
    private final FrameStore store;
    private final FilmView view;
    private final RegionRows regions;
    private final FilmProfile profile = new FilmProfile();
    private final FilmTools tools;
    private final FilmStrip strip;
    private final FrameRange range = new FrameRange();
    private final ToggleGroup drawing = new ToggleGroup();
    private final ComboBox<FrameRange.Mode> modes = new ComboBox<>();
    private final ToggleButton smooth = toggle(
            "smooth", Messages.of("bench.read.smooth"), Messages.of("bench.read.shows-values-between-pixels-for"));
    private final TextField contours = new TextField();
    private final Button compare = Bench.button(
            "compare-picture",
            Messages.of("bench.read.compare-with-this"),
            Messages.of("bench.read.shows-from-now-on-what-differs"));
    private final Button keep = Bench.button(
            "keep-picture",
            Messages.of("bench.read.save"),
            Messages.of("bench.read.saves-this-picture-as-png-and-its"));
    private final Button keepAll = Bench.button(
            "keep-pictures",
            Messages.of("bench.read.save-all"),
            Messages.of("bench.read.saves-each-picture-in-sight-as-png"));
    private final FilmPlayer player;
    private final Label said = Bench.small("");
    private final Pane film = new Pane();
    private final FilmKeep kept;

    private Snapshot snapshot;
    private ChannelSnapshot channel;
    private double[] base;
    private String baseWords = "";
    private long shownRow = -1;
    private Object shownAs;
    private final AnimationTimer timer = new AnimationTimer() {
        @Override
        public void handle(long now) {
            tick(now);
        }
    };

    FilmPanel(Workspace workspace) {
        super(8);
        this.workspace = workspace;
        store = new FrameStore(workspace.tasks());
        kept = new FilmKeep(workspace, store);
        view = new FilmView(this::drawn);
        regions = new RegionRows(this::setup);
        tools = new FilmTools(this::setup);
        strip = new FilmStrip(store);
        player = new FilmPlayer(workspace);
        setId("film-panel");
        FlowPane bar = bar();
        VBox right = new VBox(
                10,
                title(Messages.of("bench.read.parts-of-the-picture")),
                regions,
                profile,
                title(Messages.of("bench.read.made-right")),
                tools);
        right.setMinWidth(SIDE);
        right.setPrefWidth(SIDE);
        right.setMaxWidth(SIDE);
        HBox middle = new HBox(12, view, right);
        HBox.setHgrow(view, Priority.ALWAYS);
        VBox.setVgrow(middle, Priority.ALWAYS);
        view.setPrefSize(400, 300);
        getChildren().addAll(bar, middle, film);
        sceneProperty().addListener((p, was, is) -> {
            if (is == null) {
                timer.stop();
            } else {
                timer.start();
            }
        });
    }

    private static Label title(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("number-name");
        return label;
    }

    static ToggleButton toggle(String id, String text, String tip) {
        ToggleButton button = new ToggleButton(text);
        button.setId(id);
        button.getStyleClass().setAll("small-button");
        button.setMinWidth(USE_PREF_SIZE);
        Tip.on(button, tip);
        return button;
    }

    private FlowPane bar() {
        List<ToggleButton> draw = new ArrayList<>();
        for (FilmView.Tool tool : List.of(FilmView.Tool.BOX, FilmView.Tool.POINT, FilmView.Tool.LINE)) {
            String word = tool == FilmView.Tool.BOX
                    ? Messages.of("bench.read.box")
                    : tool == FilmView.Tool.POINT ? Messages.of("bench.read.point") : Messages.of("bench.read.line");
            ToggleButton one = toggle(
                    "draw-" + tool.name().toLowerCase(java.util.Locale.ROOT),
                    word,
                    Messages.of("bench.read.draw-one-on-the-picture-it-becomes"));
            one.setToggleGroup(drawing);
            one.selectedProperty()
                    .addListener((p, was, is) -> view.tool(
                            is ? tool : drawing.getSelectedToggle() == null ? FilmView.Tool.NONE : toolNow()));
            one.setUserData(tool);
            draw.add(one);
        }
        modes.setId("film-range");
        modes.getItems().setAll(FrameRange.Mode.values());
        modes.setConverter(new javafx.util.StringConverter<>() {
            @Override
            public String toString(FrameRange.Mode mode) {
                return mode == null ? "" : mode.words();
            }

            @Override
            public FrameRange.Mode fromString(String text) {
                return null;
            }
        });
        modes.setValue(FrameRange.Mode.EACH);
        Tip.on(modes, Messages.of("bench.read.what-the-ends-of-the-scale-are-of"));
        modes.setOnAction(event -> {
            range.mode(modes.getValue());
            again();
        });
        Button turn = Bench.button(
                "turn", Messages.of("bench.read.turn"), Messages.of("bench.read.turns-the-picture-by-a-quarter-to"));
        turn.setOnAction(event -> setup(setup -> setup.turned((setup.quarterTurns() + 1) % 4, setup.mirrored())));
        Button mirror = Bench.button(
                "mirror", Messages.of("bench.read.mirror"), Messages.of("bench.read.left-and-right-change-places"));
        mirror.setOnAction(event -> setup(setup -> setup.turned(setup.quarterTurns(), !setup.mirrored())));
        smooth.setOnAction(event -> again());
        contours.setId("contours");
        contours.setPromptText("40, 50");
        contours.setPrefColumnCount(5);
        Tip.on(contours, Messages.of("bench.read.values-at-which-a-line-is-drawn"));
        contours.textProperty().addListener((p, was, is) -> again());
        compare.setOnAction(event -> compare());
        keep.setOnAction(event -> keep());
        keepAll.setOnAction(event -> keepAll());
        FlowPane bar = new FlowPane(6, 6);
        bar.getChildren().addAll(draw);
        bar.getChildren()
                .addAll(
                        Bench.small(Messages.of("bench.read.scale")),
                        modes,
                        Bench.small(Messages.of("bench.read.lines-at")),
                        contours,
                        smooth,
                        turn,
                        mirror,
                        compare,
                        keep,
                        keepAll);
        bar.setRowValignment(javafx.geometry.VPos.CENTER);
        strip(bar);
        return bar;
    }

    private FilmView.Tool toolNow() {
        return (FilmView.Tool) drawing.getSelectedToggle().getUserData();
    }

    private void strip(FlowPane bar) {
        player.putInto(bar);
        film.setMinHeight(STRIP);
        film.setPrefHeight(STRIP);
        film.setMaxHeight(STRIP);
        film.setMinWidth(0);
        film.getChildren().add(strip);
        film.setId("film-strip");
        film.setOnMousePressed(event -> choose(event.getX()));
        film.setOnMouseDragged(event -> choose(event.getX()));
        said.managedProperty().bind(said.textProperty().isNotEmpty());
        bar.getChildren().add(said);
    }

    private void drawn(Region region) {
        String name = region.name();
        if (name.equals("new")) {
            String kind = region.isPoint() ? "point" : region.form() == Region.Form.LINE ? "line" : "box";
            List<String> taken = snapshot == null
                    ? List.of()
                    : snapshot.channels().stream()
                            .map(one -> one.channel().column())
                            .toList();
            int n = 1;
            while (taken.contains(kind + " " + n)) {
                n++;
            }
            name = kind + " " + n;
        }
        Region named = region.withName(name);
        setup(setup -> setup.withRegion(named));
        drawing.selectToggle(null);
    }

    private void setup(UnaryOperator<PictureSetup> change) {
        if (channel == null) {
            return;
        }
        int source = channel.stream().source();
        workspace.change(rig -> rig.withPicture(source, change));
    }

    private void again() {
        shownAs = null;
    }

    private void compare() {
        if (base != null) {
            base = null;
            compare.setText(Messages.of("bench.read.compare-with-this"));
        } else {
            base = frame(film(), row());
            baseWords = player.words();
            compare.setText(Messages.of("bench.read.compare-no-more"));
        }
        range.mode(modes.getValue() == FrameRange.Mode.HELD ? FrameRange.Mode.EACH : modes.getValue());
        modes.setValue(range.mode());
        again();
    }

    private void keep() {
        Film from = film();
        long row = row();
        double[] frame = frame(from, row);
        if (frame != null) {
            kept.one(view, from, frame, channel, times().secondsAt(row) - zero());
        }
    }

    private void keepAll() {
        Film from = film();
        if (from != null) {
            double[] ends = seen();
            long first = Math.max(from.start(), times().firstAtOrAfter(ends[0]));
            long end = Math.min(from.end(), times().firstAtOrAfter(ends[1]));
            kept.all(from, first, end, range.low(), range.high(), smooth.isSelected());
        }
    }

    private Film film() {
        return channel == null ? null : channel.stream().film();
    }

    private Times times() {
        return channel.stream().times();
    }

    private double zero() {
        return workspace.shown().zero(snapshot);
    }

    private double[] seen() {
        Span seen = workspace.shown().pictured(snapshot, STRIP_SECONDS);
        return new double[] {seen.from(), seen.to()};
    }

    private void choose(double x) {
        if (channel == null) {
            return;
        }
        double[] ends = seen();
        double share = Math.max(0, Math.min(1, x / Math.max(1, film.getWidth())));
        player.choose(ends[0] + share * (ends[1] - ends[0]));
    }

    private double[] frame(Film from, long row) {
        return from == null || row < from.start() ? null : store.frame(from, row);
    }

    /** @return the row of the moment that is looked at, or the newest */
    private long row() {
        Film from = film();
        double at = player.moment();
        Times times = times();
        long newestRow = Math.min(from.end(), times.end()) - 1;
        if (Double.isNaN(at)) {
            return newestRow;
        }
        long row = Math.min(newestRow, times.firstAtOrAfter(at));
        boolean before = row > Math.max(from.start(), times.start())
                && at - times.secondsAt(row - 1) < times.secondsAt(row) - at;
        return Math.max(Math.max(from.start(), times.start()), before ? row - 1 : row);
    }

    /** Shows what is so now; what moves is painted by itself. */
    void show(Snapshot now, ChannelSnapshot of) {
        Film before = film();
        if (before == null || !before.sameSource(of.stream().film())) {
            base = null;
            compare.setText(Messages.of("bench.read.compare-with-this"));
            player.stop();
        }
        snapshot = now;
        channel = of;
        paint();
    }

    private void tick(long nanos) {
        if (channel == null || !isVisible()) {
            return;
        }
        snapshot = workspace.shown().snapshot(nanos);
        ChannelSnapshot fresh = snapshot.channel(channel.channel().column()).orElse(null);
        if (fresh == null || fresh.stream().film() == null) {
            return;
        }
        channel = fresh;
        player.tick(
                nanos,
                times().secondsAt(Math.max(film().start(), times().start())),
                channel.stream().lastSeconds());
        paint();
    }

    private void paint() {
        Film from = film();
        if (from == null || times() == null || from.end() == 0) {
            view.show(null);
            said.setText(Messages.of("bench.read.no-picture-has-come-yet"));
            return;
        }
        boolean night = workspace.view().night().get();
        long row = row();
        double[] frame = frame(from, row);
        String unit = unit();
        List<Object> as =
                Arrays.asList(from.setup(), night, unit, base, smooth.isSelected(), contours.getText(), range.mode());
        if (frame != null && (row != shownRow || !Objects.equals(as, shownAs))) {
            shownRow = row;
            shownAs = as;
            show(from, row, frame, unit, night);
        }
        double[] ends = seen();
        strip.paint(
                from,
                times(),
                ends[0],
                ends[1],
                (int) film.getWidth(),
                (int) STRIP,
                Palette.card(night),
                System.nanoTime() * 1e-9);
    }

    /** @return the unit of the whole picture: that of its first channel */
    private String unit() {
        Source source = snapshot.rig().sources().get(channel.stream().source());
        return snapshot.channel(
                        source.prefix() + source.format().columns().get(0).name())
                .map(one -> one.channel().scaling().unit())
                .orElse("");
    }

    private void show(Film from, long row, double[] frame, String unit, boolean night) {
        double[] seen = frame;
        if (base != null && base.length == frame.length) {
            seen = new double[frame.length];
            for (int p = 0; p < seen.length; p++) {
                seen[p] = frame[p] - base[p];
            }
        }
        range.fit(seen);
        List<Region> parts = from.setup().regions();
        double[] numbers =
                parts.stream().mapToDouble(one -> one.of(frame, from.width())).toArray();
        view.show(new FilmView.Shown(
                seen,
                Turned.of(from.width(), from.height(), from.setup()),
                range,
                smooth.isSelected(),
                lines(),
                parts,
                numbers,
                base == null ? track(from, row) : new double[0][],
                unit,
                night));
        regions.show(parts, numbers, unit);
        String prefix = snapshot.rig().sources().get(channel.stream().source()).prefix();
        profile.show(
                frame, from.width(), parts, unit, night, one -> Palette.of(snapshot.rig(), prefix + one.name(), night));
        tools.show(from, store.raw(from, row), unit);
        double at = times().secondsAt(row) - zero();
        player.say(at);
        said.setText(
                base == null
                        ? smooth.isSelected() ? Messages.of("bench.read.smoothed-for-looking-only") : ""
                        : Messages.of("bench.read.what-differs-from-the-picture-at", baseWords));
    }

    private double[] lines() {
        return Arrays.stream(contours.getText().split("[,;\\s]+"))
                .filter(text -> text.matches("[-\u2212]?\\d+([.]\\d+)?"))
                .mapToDouble(text -> Double.parseDouble(text.replace('\u2212', '-')))
                .toArray();
    }

    private double[][] track(Film from, long row) {
        List<double[]> places = new ArrayList<>();
        for (long r = Math.max(from.start(), row - TRACK); r <= row; r++) {
            double[] frame = frame(from, r);
            int hottest = -1;
            for (int p = 0; frame != null && p < frame.length; p++) {
                hottest = frame[p] == frame[p] && (hottest < 0 || frame[p] > frame[hottest]) ? p : hottest;
            }
            if (hottest >= 0) {
                places.add(new double[] {hottest % from.width() + 0.5, hottest / from.width() + 0.5});
            }
        }
        return places.toArray(double[][]::new);
    }
}
