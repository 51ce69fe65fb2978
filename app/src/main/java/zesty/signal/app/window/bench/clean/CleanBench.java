package zesty.signal.app.window.bench.clean;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.DoctorLine;
import zesty.signal.app.window.bench.Plot;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.RecipeException;
import zesty.signal.core.clean.Remarks;
import zesty.signal.core.clean.Sections;
import zesty.signal.core.clean.Step;
import zesty.signal.core.clean.Suggestion;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.Times;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.spectrum.Welch;
import zesty.signal.core.spectrum.Window;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/** Clean: the steps as tiles in a row and as text; raw, cleaned and removed over each other; what the filters pass. */
public final class CleanBench extends Bench {
    private static final int POINTS = 1200;
    private static final double STRETCH_SECONDS = 6;

    private static final int SPECTRUM_SAMPLES = 1 << 14;
    private static final int SEGMENT = 512;
    private static final double GRIP_PIXELS = 9;

    private final Tiles tiles;
    private final MenuButton suggested = new MenuButton("Suggested");
    private final TextField text = new TextField();
    private final Label error = new Label();
    private final Plot waves = new Plot();
    private final Plot response = new Plot();
    private final Label late = small("");
    private final DoctorLine doctor;
    private final ToggleGroup viewed = new ToggleGroup();
    private final Label viewWords = small("");
    private final HistogramPicture histogram;
    private final WaterfallPicture waterfall;
    private final PairPicture pair;

    /** What stands at the right. */
    private enum View {
        SPECTRUM(
                "Frequency response",
                "the spectrum before (pale) and after, what the filters let pass over it; pull a corner"),
        HISTOGRAM("Histogram", "how often each value was received, the noise, and the effective bits"),
        WATERFALL("Over time", "the spectrum over time"),
        PAIR("Against", "this channel over another one, moment by moment, and how closely they go together");

        final String words;
        final String tip;

        View(String words, String tip) {
            this.words = words;
            this.tip = tip;
        }
    }

    private Recipe filled = Recipe.NONE;
    private Corners.Corner held;
    /** The recipe as it would be if the corner were let go here. */
    private Recipe pulled;
    /** A suggestion that the pointer is on. */
    private Recipe previewed;

    private double rateHz;
    private String column = "";

    public CleanBench(Workspace workspace) {
        super(workspace, Stop.CLEAN);
        doctor = new DoctorLine(workspace, true);
        tiles = new Tiles(recipe -> adopt(recipe.text()), error::setText);
        histogram = new HistogramPicture(workspace);
        waterfall = new WaterfallPicture(workspace);
        pair = new PairPicture(workspace);
        suggested.setId("suggested");
        suggested.setOnHidden(event -> previewed = null);
        suggested.setTooltip(new Tooltip("what usually does for a signal like this; takes the place of the recipe"));
        MenuButton add = new MenuButton("Add a step");
        add.setId("add-step");
        add.setTooltip(new Tooltip("puts a step at the end; its numbers are yours to change in the line below"));
        for (Step step : Recipe.examples()) {
            MenuItem item = new MenuItem(step.text() + " \u2013 " + step.about());
            item.setOnAction(
                    event -> adopt(text.getText().isBlank() ? step.text() : text.getText() + " | " + step.text()));
            add.getItems().add(item);
        }
        late.setId("late");
        late.setWrapText(true);
        late.setMinHeight(USE_PREF_SIZE);
        text.setId("recipe");
        text.getStyleClass().add("mono");
        text.setPromptText("no step: the raw signal");
        text.setTooltip(new Tooltip("the recipe as text: steps parted by |, as on the command line; Enter takes it"));
        text.setOnAction(event -> adopt(text.getText()));
        HBox.setHgrow(text, Priority.ALWAYS);
        error.getStyleClass().add("error");
        error.setWrapText(true);
        error.managedProperty().bind(error.textProperty().isNotEmpty());
        HBox line = new HBox(8, text, suggested, add);
        line.setAlignment(Pos.CENTER_LEFT);
        VBox left = new VBox(4, small("Raw (pale), cleaned, and below them what was removed"), waves);
        FlowPane views = new FlowPane(6, 4);
        for (View one : View.values()) {
            ToggleButton button = new ToggleButton(one.words);
            button.setId("view-" + one.name().toLowerCase(java.util.Locale.ROOT));
            button.getStyleClass().setAll("chip");
            button.setMinWidth(USE_PREF_SIZE);
            button.setToggleGroup(viewed);
            button.setUserData(one);
            button.setTooltip(new Tooltip(one.tip));
            button.setSelected(one == View.SPECTRUM);
            views.getChildren().add(button);
        }
        views.getChildren().add(pair.chooser());
        viewed.selectedToggleProperty().addListener((p, was, is) -> {
            if (is == null) {
                viewed.selectToggle(was);
            } else {
                pair.chooser().setVisible(is.getUserData() == View.PAIR);
            }
        });
        viewWords.setId("view-words");
        viewWords.setWrapText(true);
        viewWords.setMinHeight(USE_PREF_SIZE);
        views.setAlignment(Pos.CENTER_LEFT);
        VBox right = new VBox(4, views, viewWords, response);
        for (VBox box : new VBox[] {left, right}) {
            box.setMinWidth(0);
            HBox.setHgrow(box, Priority.ALWAYS);
        }
        response.setId("response");
        response.setOnMousePressed(event -> grip(event.getX()));
        response.setOnMouseDragged(event -> drag(event.getX()));
        response.setOnMouseReleased(event -> letGo());
        left.setPrefWidth(420);
        right.setPrefWidth(300);
        VBox.setVgrow(waves, Priority.ALWAYS);
        VBox.setVgrow(response, Priority.ALWAYS);
        HBox both = new HBox(14, left, right);
        VBox.setVgrow(both, Priority.ALWAYS);
        getChildren().addAll(doctor, tiles, line, error, late, both);
    }

    @Override
    public void opened(Snapshot snapshot) {
        filled = Recipe.NONE;
        text.setText("");
        error.setText("");
        tiles.begin(filled);
        show(snapshot);
    }

    @Override
    public void show(Snapshot snapshot) {
        head(snapshot);
        Optional<ChannelSnapshot> focused = focused(snapshot);
        if (focused.isEmpty()) {
            // A stream that is put anew has no channel for a moment; what was switched off stays.
            tiles.setVisible(false);
            late.setText("No channel yet.");
            return;
        }
        tiles.setVisible(true);
        ChannelSnapshot channel = focused.get();
        boolean other = !channel.channel().column().equals(column);
        column = channel.channel().column();
        Recipe recipe = channel.channel().recipe();
        if (other || !recipe.equals(filled)) {
            filled = recipe;
            text.setText(recipe.text());
            error.setText("");
            if (other) {
                tiles.begin(recipe);
            } else {
                tiles.show(recipe);
            }
            fillSuggestions(channel);
        }
        doctor.show(column, recipe);
        late.setText(
                !workspace.shown().isLive()
                        ? "A stored take is filtered forward and back: it has no delay."
                        : "Live, the cleaned signal has a delay of about "
                                + Digits.fixed(channel.delaySeconds() * 1000, 0)
                                + " ms. A take has no delay: it is filtered forward and back.");
        List<String> remarks = Remarks.of(recipe, channel.rateHz());
        if (!remarks.isEmpty()) {
            late.setText(String.join(" ", remarks));
        }
        if (!channel.trouble().isEmpty()) {
            error.setText(channel.trouble());
        }
        Color colour = Palette.of(
                snapshot.rig(),
                channel.channel().column(),
                workspace.view().night().get());
        drawWaves(snapshot, channel, colour);
        switch ((View) viewed.getSelectedToggle().getUserData()) {
            case HISTOGRAM -> viewWords.setText(histogram.draw(response, channel, colour));
            case WATERFALL -> viewWords.setText(waterfall.draw(response, channel, colour));
            case PAIR -> viewWords.setText(pair.draw(response, snapshot, channel, colour));
            case SPECTRUM -> {
                viewWords.setText("Over the spectrum before (pale) and after; pull a corner.");
                drawResponse(channel, recipe, colour);
            }
        }
    }

    private void fillSuggestions(ChannelSnapshot channel) {
        List<Suggestion> usual =
                channel.reader().map(r -> r.setup().readerKind().suggestions()).orElse(Suggestion.LEVEL);
        suggested.getItems().clear();
        for (Suggestion one : usual) {
            if (!one.runsAt(channel.rateHz())) {
                continue;
            }
            Label words = new Label(one.recipe() + " \u2013 " + one.reason());
            CustomMenuItem item = new CustomMenuItem(words);
            Recipe shown = Recipe.parse(one.recipe());
            // Looked at before it is taken: what it would let pass lies over the spectrum meanwhile.
            words.setOnMouseEntered(event -> previewed = shown);
            words.setOnMouseExited(event -> previewed = null);
            item.setOnAction(event -> {
                previewed = null;
                adopt(one.recipe());
            });
            suggested.getItems().add(item);
        }
        suggested.setDisable(suggested.getItems().isEmpty());
    }

    private void adopt(String words) {
        try {
            Recipe recipe = Recipe.parse(words);
            double rateHz = focused(workspace.shown().snapshot(System.nanoTime()))
                    .map(c -> c.stream().rateHz())
                    .orElse(Double.NaN);
            if (rateHz > 0) {
                recipe.stage(rateHz, zesty.signal.core.clean.Start.SETTLED);
            }
            error.setText("");
            String target = column;
            workspace.change(rig -> rig.withChannel(target, c -> c.withRecipe(recipe)));
        } catch (RecipeException e) {
            error.setText(e.getMessage() + ". The old recipe stays in force.");
        }
    }

    private void drawWaves(Snapshot snapshot, ChannelSnapshot channel, Color colour) {
        Times times = channel.stream().times();
        Series clean = channel.clean();
        double to = Math.min(workspace.shown().window().to(), channel.stream().lastSeconds());
        double from = to - Math.min(STRETCH_SECONDS, workspace.shown().window().span());
        long first = Math.max(times.firstAtOrAfter(from), clean.start());
        long last = Math.min(times.firstAtOrAfter(to), clean.end() - channel.lateSamples());
        int n = (int) Math.max(0, last - first);
        int step = Math.max(1, n / POINTS);
        int count = n / step;
        double[] x = new double[count];
        double[] raw = new double[count];
        double[] cleaned = new double[count];
        double[] removed = new double[count];
        double rawMean = 0;
        double cleanMean = 0;
        for (int i = 0; i < count; i++) {
            long row = first + (long) i * step;
            x[i] = times.secondsAt(row) - to;
            raw[i] = channel.scalingNow().apply(channel.raw().value(row));
            cleaned[i] = clean.value(row + channel.lateSamples());
            rawMean += raw[i] / count;
            cleanMean += cleaned[i] / count;
        }
        double span = 1e-9;
        double most = 1e-9;
        for (int i = 0; i < count; i++) {
            raw[i] += cleanMean - rawMean;
            removed[i] = raw[i] - cleaned[i];
            span = Math.max(span, Math.max(Math.abs(raw[i] - cleanMean), Math.abs(cleaned[i] - cleanMean)));
            most = Math.max(most, Math.abs(removed[i]));
        }
        double low = cleanMean - span - 2 * most - 0.2 * span;
        String unit = channel.channel().scaling().unit();
        waves.begin(workspace.view().night().get(), from - to, 0, "s", low, cleanMean + span * 1.05, unit);
        // How late the cleaned line comes is as wide as it is long.
        double delay = !workspace.shown().isLive() ? 0 : Math.min(channel.delaySeconds(), to - from);
        if (delay > 0) {
            double start = from - to;
            waves.upright(start, start + delay, colour.deriveColor(0, 1, 1, 0.18));
            waves.named(
                    start + delay,
                    Digits.fixed(1000 * channel.delaySeconds(), 0) + " ms delay",
                    0,
                    colour.deriveColor(0, 1, 1, 0.5));
        }
        waves.line(x, raw, count, colour.deriveColor(0, 1, 1, 0.35), 1);
        waves.line(x, cleaned, count, colour, 1.8);
        for (int i = 0; i < count; i++) {
            removed[i] += low + most;
        }
        waves.line(x, removed, count, Palette.rest(workspace.view().night().get()), 1);
    }

    /** The signal's spectrum before and after, what the filters let pass over it, and their corners as handles. */
    private void drawResponse(ChannelSnapshot channel, Recipe recipe, Color colour) {
        double rate = channel.rateHz();
        if (!(rate > 0)) {
            return;
        }
        rateHz = rate;
        Recipe shown = previewed != null ? previewed : pulled != null ? pulled : recipe;
        List<Sections> filters = new ArrayList<>();
        for (Step step : shown.steps()) {
            if (step instanceof Step.Filter filter) {
                try {
                    filters.add(filter.sections(rate));
                } catch (RecipeException e) {
                    continue;
                }
            }
        }
        double highest = Corners.of(recipe).stream()
                .mapToDouble(Corners.Corner::hz)
                .max()
                .orElse(0);
        double to = highest > 0 ? Math.min(rate / 2, highest * 3) : rate / 2;
        response.begin(workspace.view().night().get(), 0, to, "Hz", 0, 1.1, "gain; share of the highest");
        double most = spectrum(channel, rate, false, 0, colour.deriveColor(0, 1, 1, 0.35));
        spectrum(channel, rate, true, most, colour.deriveColor(0, 1, 1, 0.8));
        DoubleUnaryOperator gain = hz -> {
            double product = 1;
            for (Sections sections : filters) {
                product *= sections.gain(hz / rate);
            }
            return product;
        };
        Color line = Palette.ink(workspace.view().night().get());
        response.curve(gain, line);
        int row = 0;
        for (Corners.Corner corner : Corners.of(shown)) {
            response.named(corner.hz(), Digits.of(corner.hz()) + " Hz", row++ % 3, line);
        }
    }

    /** @return the highest root of the density, to which both are drawn */
    private double spectrum(ChannelSnapshot channel, double rate, boolean cleaned, double most, Color colour) {
        Series series = cleaned ? channel.clean() : channel.raw();
        Times times = channel.stream().times();
        int late = cleaned ? channel.lateSamples() : 0;
        long end = Math.min(times.firstAtOrAfter(workspace.shown().window().to()), series.end() - late);
        long begin = Math.max(
                Math.max(times.firstAtOrAfter(workspace.shown().window().from()), end - SPECTRUM_SAMPLES),
                series.start());
        // A hole has no spectrum: what follows the newest one is enough.
        long first = end;
        while (first > begin && !Double.isNaN(series.value(first - 1 + late))) {
            first--;
        }
        int n = (int) (end - first);
        double[] x = new double[n];
        for (int i = 0; i < n; i++) {
            double value = series.value(first + i + late);
            x[i] = cleaned ? value : channel.scalingNow().apply(value);
        }
        int segment = Math.min(SEGMENT, n);
        if (segment < 16) {
            return most;
        }
        double[] density = Welch.of(x, List.of(new int[] {0, n}), rate, Window.HANN, segment, 0.5)
                .density();
        double[] hz = new double[density.length];
        double[] height = new double[density.length];
        double top = most;
        for (int k = 0; k < density.length; k++) {
            hz[k] = k * rate / segment;
            height[k] = Math.sqrt(density[k]);
            // The level lies in the first bins and says nothing here.
            top = most == 0 && k > 1 ? Math.max(top, height[k]) : top;
        }
        for (int k = 0; k < height.length; k++) {
            height[k] = top > 0 ? Math.min(1.1, height[k] / top) : 0;
        }
        response.line(hz, height, hz.length, colour, 1.4);
        return top;
    }

    private void grip(double pixel) {
        held = null;
        double best = GRIP_PIXELS;
        if (viewed.getSelectedToggle().getUserData() != View.SPECTRUM) {
            return;
        }
        for (Corners.Corner corner : Corners.of(filled)) {
            double apart = Math.abs(response.pixelX(corner.hz()) - pixel);
            if (apart < best) {
                best = apart;
                held = corner;
            }
        }
    }

    private void drag(double pixel) {
        if (held != null) {
            pulled = Corners.moved(filled, held, response.valueX(pixel), rateHz);
        }
    }

    /** One gesture is one change, however far the way. */
    private void letGo() {
        Recipe after = pulled;
        held = null;
        pulled = null;
        if (after != null) {
            adopt(after.text());
        }
    }
}
