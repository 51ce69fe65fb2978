package zesty.signal.app.window.bench.clean;

import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.DoctorLine;
import zesty.signal.app.window.bench.TypedText;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.RecipeException;
import zesty.signal.core.clean.Remarks;
import zesty.signal.core.clean.Step;
import zesty.signal.core.clean.Suggestion;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/** Clean: the steps as tiles in a row and as text; raw, cleaned and removed over each other; what the filters pass. */
public final class CleanBench extends Bench {
    private final Tiles tiles;
    private final MenuButton suggested = new MenuButton(Messages.of("bench.clean.suggested"));
    private final TextField text = new TextField();
    private final Label error = new Label();
    private final Plot waves = new Plot();
    private final Plot response = new Plot();
    private final ResponsePicture passes;
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
                Messages.of("bench.clean.frequency-response"),
                Messages.of("bench.clean.the-spectrum-before-pale-and-after"),
                "response"),
        HISTOGRAM(
                Messages.of("bench.clean.histogram"),
                Messages.of("bench.clean.how-often-each-value-was-received"),
                "histogram"),
        WATERFALL(
                Messages.of("bench.clean.spectrogram"),
                Messages.of("bench.clean.the-spectrum-over-time"),
                "spectrogram"),
        PAIR(Messages.of("bench.clean.xy-plot"), Messages.of("bench.clean.this-channel-over-another-one"), "xy");

        final String words;
        final String tip;
        final String topic;

        View(String words, String tip, String topic) {
            this.words = words;
            this.tip = tip;
            this.topic = topic;
        }
    }

    private Recipe filled = Recipe.NONE;
    /** The recipe as it would be if the corner were let go here. */
    /** A suggestion that the pointer is on. */
    private String column = "";

    public CleanBench(Workspace workspace) {
        super(workspace, Stop.CLEAN);
        doctor = new DoctorLine(workspace, true);
        passes = new ResponsePicture(
                response, workspace, () -> viewed.getSelectedToggle().getUserData() == View.SPECTRUM, this::adopt);
        tiles = new Tiles(recipe -> adopt(recipe.text()), error::setText);
        histogram = new HistogramPicture(workspace);
        waterfall = new WaterfallPicture(workspace);
        pair = new PairPicture(workspace);
        suggested.setId("suggested");
        suggested.setOnHidden(event -> passes.preview(null));
        Tip.on(suggested, Messages.of("bench.clean.what-usually-does-for-a-signal"));
        MenuButton add = new MenuButton(Messages.of("bench.clean.add-a-step"));
        add.setId("add-step");
        Tip.on(add, Messages.of("bench.clean.puts-a-step-at-the-end-its-numbers"));
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
        text.setPromptText(Messages.of("bench.clean.no-step-the-raw-signal"));
        Tip.on(text, Messages.of("bench.clean.the-recipe-as-text-steps-parted-by"));
        text.setOnAction(event -> adopt(text.getText()));
        HBox.setHgrow(text, Priority.ALWAYS);
        error.getStyleClass().add("error");
        error.setWrapText(true);
        error.managedProperty().bind(error.textProperty().isNotEmpty());
        Button code = button(
                "portable-code",
                Messages.of("bench.clean.board-code-c"),
                Messages.of("bench.clean.scaling-recipe-and-rules-of-this"));
        code.setOnAction(event -> focused(workspace.shown().snapshot(System.nanoTime()))
                .filter(one -> one.raw() != null)
                .ifPresent(workspace.planning()::portable));
        atHead(code);
        HBox line = new HBox(8, text, suggested, add);
        line.setAlignment(Pos.CENTER_LEFT);
        VBox left = new VBox(4, small(Messages.of("bench.clean.raw-pale-cleaned-and-below-them")), waves);
        FlowPane views = new FlowPane(6, 4);
        for (View one : View.values()) {
            ToggleButton button = new ToggleButton(one.words);
            button.setId("view-" + one.name().toLowerCase(java.util.Locale.ROOT));
            button.getStyleClass().setAll("chip");
            button.setMinWidth(USE_PREF_SIZE);
            button.setToggleGroup(viewed);
            button.setUserData(one);
            Tip.on(button, one.tip);
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
            late.setText(Messages.of("bench.clean.no-channel-yet"));
            return;
        }
        tiles.setVisible(true);
        ChannelSnapshot channel = focused.get();
        boolean other = !channel.channel().column().equals(column);
        column = channel.channel().column();
        Recipe recipe = channel.channel().recipe();
        if (other || !recipe.equals(filled)) {
            filled = recipe;
            if (other) {
                TypedText.sayAnew(text, recipe.text());
            } else {
                TypedText.say(text, recipe.text());
            }
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
                        ? Messages.of("bench.clean.a-stored-take-is-filtered-forward")
                        : Messages.of(
                                "bench.clean.live-the-cleaned-signal-has-a",
                                Digits.fixed(channel.delaySeconds() * 1000, 0)));
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
        WavesPicture.draw(waves, workspace, channel, colour);
        View seen = (View) viewed.getSelectedToggle().getUserData();
        HelpPlace.mark(response, seen.topic);
        switch (seen) {
            case HISTOGRAM -> viewWords.setText(histogram.draw(response, channel, colour));
            case WATERFALL -> viewWords.setText(waterfall.draw(response, channel, colour));
            case PAIR -> viewWords.setText(pair.draw(response, snapshot, channel, colour));
            case SPECTRUM -> {
                viewWords.setText(Messages.of("bench.clean.over-the-spectrum-before-pale-and"));
                passes.draw(channel, recipe, colour);
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
            words.setOnMouseEntered(event -> passes.preview(shown));
            words.setOnMouseExited(event -> passes.preview(null));
            item.setOnAction(event -> {
                passes.preview(null);
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
                    .map(ChannelSnapshot::rateHz)
                    .orElse(Double.NaN);
            if (rateHz > 0) {
                recipe.stage(rateHz, zesty.signal.core.clean.Start.SETTLED);
            }
            error.setText("");
            String target = column;
            TypedText.sayAnew(text, recipe.text());
            workspace.change(rig -> rig.withChannel(target, c -> c.withRecipe(recipe)));
        } catch (RecipeException e) {
            error.setText(Messages.of("bench.clean.the-old-recipe-stays-in-force", e.getMessage()));
        }
    }
}
