package zesty.signal.app.window.bench.read;

import java.util.List;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Sparing;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.workspace.TimeWindow;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.vibration.Vibration;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.sample.Times;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.spectrum.EvenRecord;
import zesty.signal.core.spectrum.Welch;
import zesty.signal.core.spectrum.Window;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/**
 * The spectrum of what is in sight, with the lines that the reader names: for shaking and for tones. Of what turns the
 * orders stand as a comb that can be pulled; orders beyond half the rate stand pale where they are folded down to.
 */
final class SpectrumPicture extends ReaderPicture {
    private static final int MOST_SAMPLES = 1 << 16;
    private static final int SEGMENT = 1024;
    /** Below the highest so much is shown, in dB. */
    private static final double DEPTH_DB = 70;

    private static final int ROWS = 5;

    private static final double GRIP_PIXELS = 8;
    private static final int GHOSTS = 12;

    private final Plot plot = new Plot();
    private final Sparing<Welch> kept = new Sparing<>();
    private ReaderSetup setup;
    private double turningHz = Double.NaN;
    /** The order whose line is held, and where it is pulled to. */
    private int held;

    private double pulledHz = Double.NaN;

    private final VibrationGuide guide;

    SpectrumPicture(Workspace workspace, String kind) {
        super(workspace);
        plot.setId("spectrum");
        plot.setOnMousePressed(event -> held = orderAt(event.getX()));
        plot.setOnMouseDragged(
                event -> pulledHz = held > 0 ? Math.max(0.05, plot.valueX(event.getX()) / held) : Double.NaN);
        plot.setOnMouseReleased(event -> letGo());
        VBox.setVgrow(plot, Priority.ALWAYS);
        guide = kind.equals(Vibration.NAME) ? new VibrationGuide(workspace) : null;
        getChildren().add(plot);
        if (guide != null) {
            getChildren().add(guide);
        }
    }

    @Override
    void show(Snapshot snapshot, ChannelSnapshot channel, ReaderSnapshot reader, Color colour) {
        TimeWindow window = workspace.shown().window();
        Times times = channel.stream().times();
        long end = Math.min(times.firstAtOrAfter(window.to()), channel.clean().end() - channel.lateSamples());
        long begin = Math.max(times.firstAtOrAfter(window.from()), end - MOST_SAMPLES);
        double rate = channel.rateHz();
        // What goes on with the stream may wait; a stretch that was chosen may not.
        Object what =
                List.of(channel.channel(), channel.clean(), rate, window.following() ? List.of() : List.of(begin, end));
        Welch welch = kept.get(what, () -> welch(channel, begin, end));
        double[] density = welch.density();
        double[] hz = welch.hz();
        double[] height = new double[density.length];
        double high = Double.NEGATIVE_INFINITY;
        for (int k = 0; k < density.length; k++) {
            height[k] = density[k] > 0 ? 10 * Math.log10(density[k]) : Double.NaN;
            high = k > 0 && height[k] > high ? height[k] : high;
        }
        boolean some = high > Double.NEGATIVE_INFINITY;
        String unit = channel.channel().unit();
        plot.begin(
                workspace.view().night().get(),
                0,
                Math.max(1, aliases() ? rate : rate / 2),
                "Hz",
                some ? high - DEPTH_DB : -DEPTH_DB,
                some ? high + 12 : 0,
                Messages.of("bench.read.db-0-is-1-hz", (unit.isEmpty() ? Messages.of("bench.read.unit") : unit)));
        if (aliases()) {
            plot.upright(
                    rate / 2,
                    rate,
                    Palette.muted(workspace.view().night().get()).deriveColor(0, 1, 1, 0.12));
        }
        plot.line(hz, height, hz.length, colour, 1.4);
        if (reader != null && reader.reading() != null) {
            setup = reader.setup();
            lines(reader.reading(), colour);
            if (aliases()) {
                ghosts(reader.reading(), rate, colour);
            }
            orders(reader.reading(), rate);
            if (guide != null) {
                guide.show(channel, setup, reader.reading());
            }
        }
    }

    private static Welch welch(ChannelSnapshot channel, long begin, long end) {
        int n = (int) Math.max(0, end - begin);
        double[] x = new double[n];
        double[] seconds = new double[n];
        for (int i = 0; i < n; i++) {
            x[i] = channel.channel().display().apply(channel.clean().value(begin + i + channel.lateSamples()));
            seconds[i] = channel.stream().times().secondsAt(begin + i);
        }
        EvenRecord even = EvenRecord.of(x, seconds, channel.rateHz(), Vibration.LONGEST_HOLE_SECONDS);
        int segment = Math.min(SEGMENT, Math.max(1, even.longest()));
        return Welch.of(even.axes()[0], even.runs(), channel.rateHz(), Window.HANN, segment, 0.5);
    }

    private boolean aliases() {
        return guide != null && guide.showsAliases();
    }

    /** Each line once more, mirrored at half the rate; where another rate told which is the true one, that one in full. */
    private void ghosts(Reading reading, double rate, Color colour) {
        List<double[]> told = reading.records("unfolded");
        int row = 0;
        for (double[] line : reading.records("peaks")) {
            double ghost = rate - line[0];
            boolean isTrue = told.stream().anyMatch(one -> one[0] == line[0] && Math.abs(one[2] - ghost) < 1);
            boolean isOther = told.stream().anyMatch(one -> one[0] == line[0]) && !isTrue;
            if (!isOther) {
                plot.named(
                        ghost,
                        Digits.fixed(ghost, 1)
                                + (isTrue
                                        ? Messages.of("bench.read.hz-truly")
                                        : Messages.of("bench.read.hz-if-aliased")),
                        row++ % ROWS,
                        colour.deriveColor(0, 1, 0.8, isTrue ? 0.9 : 0.3));
            }
        }
    }

    private void orders(Reading reading, double rate) {
        turningHz = reading.scalar("turning_hz");
        double shown = pulledHz > 0 ? pulledHz : turningHz;
        if (!(shown > 0)) {
            return;
        }
        Color ink = Palette.ink(workspace.view().night().get());
        for (int order = 1; order <= GHOSTS; order++) {
            double hz = order * shown;
            double folded = Math.abs(hz - rate * Math.rint(hz / rate));
            boolean ghost = hz > rate / 2;
            if (ghost && folded < 2) {
                continue;
            }
            plot.named(
                    ghost ? folded : hz,
                    "×" + order
                            + (ghost
                                    ? Messages.of("bench.read.aliased")
                                    : order == 1 ? " " + Digits.fixed(shown, 2) + " Hz" : ""),
                    ROWS + order % 2,
                    ink.deriveColor(0, 1, 1, ghost ? 0.3 : 0.75));
        }
    }

    /** @return the order whose line is under the pixel; 0 for none */
    private int orderAt(double pixel) {
        int found = 0;
        double best = GRIP_PIXELS;
        for (int order = 1; turningHz > 0 && order <= GHOSTS; order++) {
            double apart = Math.abs(plot.pixelX(order * turningHz) - pixel);
            if (apart < best) {
                best = apart;
                found = order;
            }
        }
        return found;
    }

    private void letGo() {
        double hz = pulledHz;
        held = 0;
        pulledHz = Double.NaN;
        if (hz > 0 && setup != null && setup.kind().equals(Vibration.NAME)) {
            workspace.set(setup.id(), Vibration.TURNS, hz);
        }
    }

    private void lines(Reading reading, Color colour) {
        int row = 0;
        for (Item item : reading.items()) {
            if (item instanceof Item.Records records && records.key().equals("peaks")) {
                for (double[] one : records.records()) {
                    plot.named(
                            one[0],
                            Digits.fixed(one[0], 1) + " Hz · " + Digits.about(one[1], 3),
                            row++ % ROWS,
                            colour.deriveColor(0, 1, 0.8, 0.9));
                }
            } else if (item instanceof Item.Scalar tone && tone.key().equals("hz") && tone.value() > 0) {
                plot.named(
                        tone.value(),
                        Digits.fixed(tone.value(), 2) + " Hz " + reading.word("note"),
                        row++,
                        colour.deriveColor(0, 1, 0.8, 0.9));
            }
        }
    }
}
