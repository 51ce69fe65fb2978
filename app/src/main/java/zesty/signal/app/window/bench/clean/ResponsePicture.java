package zesty.signal.app.window.bench.clean;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.DoubleUnaryOperator;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Sparing;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.RecipeException;
import zesty.signal.core.clean.Sections;
import zesty.signal.core.clean.Step;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.Times;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.spectrum.EvenRecord;
import zesty.signal.core.spectrum.Welch;
import zesty.signal.core.spectrum.Window;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;

/** What a recipe's filters let pass, over the spectrum before and after; its corners are pulled in it. */
final class ResponsePicture {
    private static final int SPECTRUM_SAMPLES = 1 << 14;
    private static final int SEGMENT = 512;
    /** Fewer are no spectrum. */
    private static final int FEWEST_BINS = 9;

    private static final double GRIP_PIXELS = 9;

    private final Sparing<Welch> keptRaw = new Sparing<>();
    private final Sparing<Welch> keptCleaned = new Sparing<>();
    private final Plot response;
    private final Workspace workspace;
    private final BooleanSupplier shown;
    private final Consumer<String> adopt;
    private Recipe recipe = Recipe.NONE;
    private Corners.Corner held;
    private Recipe pulled;
    private Recipe previewed;
    private double rateHz;

    /**
     * @param response the plot that it is drawn in, whoever else draws there
     * @param shown whether it is this picture that is seen
     * @param adopt told the recipe with a corner that was pulled
     */
    ResponsePicture(Plot response, Workspace workspace, BooleanSupplier shown, Consumer<String> adopt) {
        this.response = response;
        this.workspace = workspace;
        this.shown = shown;
        this.adopt = adopt;
        response.setOnMousePressed(event -> grip(event.getX()));
        response.setOnMouseDragged(event -> drag(event.getX()));
        response.setOnMouseReleased(event -> letGo());
    }

    /** Draws another recipe in the place of the one in force; null for none. */
    void preview(Recipe other) {
        previewed = other;
    }

    /** The signal's spectrum before and after, what the filters let pass over it, and their corners as handles. */
    void draw(ChannelSnapshot channel, Recipe recipe, Color colour) {
        double rate = channel.rateHz();
        if (!(rate > 0)) {
            return;
        }
        rateHz = rate;
        this.recipe = recipe;
        Recipe drawn = previewed != null ? previewed : pulled != null ? pulled : recipe;
        List<Sections> filters = new ArrayList<>();
        for (Step step : drawn.steps()) {
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
        response.begin(
                workspace.view().night().get(),
                0,
                to,
                "Hz",
                0,
                1.1,
                Messages.of("bench.clean.gain-share-of-the-highest"));
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
        for (Corners.Corner corner : Corners.of(drawn)) {
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
        // What goes on with the stream may wait; a stretch that was chosen may not.
        Object what = List.of(
                channel.channel(),
                series,
                rate,
                channel.scalingNow(),
                workspace.shown().window().following() ? List.of() : List.of(begin, end));
        Welch welch = (cleaned ? keptCleaned : keptRaw).get(what, () -> welch(channel, cleaned, begin, end));
        double[] density = welch.density();
        if (density.length < FEWEST_BINS) {
            return most;
        }
        double[] hz = welch.hz();
        double[] height = new double[density.length];
        double top = most;
        for (int k = 0; k < density.length; k++) {
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

    private static Welch welch(ChannelSnapshot channel, boolean cleaned, long begin, long end) {
        Series series = cleaned ? channel.clean() : channel.raw();
        int late = cleaned ? channel.lateSamples() : 0;
        int n = (int) Math.max(0, end - begin);
        double[] x = new double[n];
        double[] seconds = new double[n];
        for (int i = 0; i < n; i++) {
            double value = series.value(begin + i + late);
            x[i] = cleaned ? value : channel.scalingNow().apply(value);
            seconds[i] = channel.stream().times().secondsAt(begin + i);
        }
        EvenRecord even = EvenRecord.of(x, seconds, channel.rateHz(), channel.longestHoleSeconds());
        int segment = Math.min(SEGMENT, Math.max(1, even.longest()));
        return Welch.of(even.axes()[0], even.runs(), channel.rateHz(), Window.HANN, segment, 0.5);
    }

    private void grip(double pixel) {
        held = null;
        double best = GRIP_PIXELS;
        if (!shown.getAsBoolean()) {
            return;
        }
        for (Corners.Corner corner : Corners.of(recipe)) {
            double apart = Math.abs(response.pixelX(corner.hz()) - pixel);
            if (apart < best) {
                best = apart;
                held = corner;
            }
        }
    }

    private void drag(double pixel) {
        if (held != null) {
            pulled = Corners.moved(recipe, held, response.valueX(pixel), rateHz);
        }
    }

    /** One gesture is one change, however far the way. */
    private void letGo() {
        Recipe after = pulled;
        held = null;
        pulled = null;
        if (after != null) {
            adopt.accept(after.text());
        }
    }
}
