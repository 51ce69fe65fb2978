package zesty.signal.app.window.bench.clean;

import java.util.List;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.paint.Color;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.sample.Pair;
import zesty.signal.core.sample.Times;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/** A channel against another one, moment by moment: what is in sight, the newest strongest, with how closely they go together. */
final class PairPicture {
    private static final int MOST_POINTS = 3000;
    private static final int MOST_SAMPLES = 200_000;
    private static final int SHADES = 6;
    private static final double PALEST = 0.25;

    private final Workspace workspace;
    private final MenuButton chosen = new MenuButton();
    private String other = "";

    PairPicture(Workspace workspace) {
        this.workspace = workspace;
        chosen.setId("pair-with");
        Tip.on(chosen, Messages.of("bench.clean.the-channel-that-goes-along-the"));
        chosen.managedProperty().bind(chosen.visibleProperty());
        chosen.setVisible(false);
    }

    /** @return what chooses the other channel; shown while the picture is */
    MenuButton chooser() {
        return chosen;
    }

    /** @return what it says in words */
    String draw(Plot plot, Snapshot snapshot, ChannelSnapshot channel, Color colour) {
        List<ChannelSnapshot> others =
                snapshot.channels().stream().filter(c -> c != channel).toList();
        fill(others);
        ChannelSnapshot across = others.stream()
                .filter(c -> c.channel().column().equals(other))
                .findFirst()
                .orElse(others.isEmpty() ? null : others.get(0));
        if (across == null) {
            plot.begin(workspace.view().night().get(), 0, 1, "", 0, 1, "");
            return Messages.of("bench.clean.there-is-no-other-channel-to-lay");
        }
        chosen.setText(Messages.of("bench.clean.along", across.channel().name()));
        double to = Math.min(workspace.shown().window().to(), snapshot.lastSeconds());
        // Of a long stretch the newest: all of it would have to be fetched.
        double from = Math.max(
                Math.max(workspace.shown().window().from(), snapshot.firstSeconds()),
                to - MOST_SAMPLES / channel.stream().rateHz());
        double step = Math.max(1 / channel.rateHz(), (to - from) / MOST_POINTS);
        int n = to > from ? (int) ((to - from) / step) : 0;
        double[] x = new double[n];
        double[] y = new double[n];
        int count = 0;
        for (int i = 0; i < n; i++) {
            x[count] = at(across, from + i * step);
            y[count] = at(channel, from + i * step);
            count += x[count] == x[count] && y[count] == y[count] ? 1 : 0;
        }
        Pair pair = Pair.of(x, y, count);
        plot.begin(
                workspace.view().night().get(),
                pair.lowX(),
                pair.highX(),
                across.channel().unit(),
                pair.lowY(),
                pair.highY(),
                Messages.of("bench.clean.over", words(channel), across.channel().name()));
        for (int shade = 0; shade < SHADES; shade++) {
            int first = count * shade / SHADES;
            int last = count * (shade + 1) / SHADES;
            double strength = PALEST + (1 - PALEST) * shade / (SHADES - 1);
            plot.dots(
                    java.util.Arrays.copyOfRange(x, first, last),
                    java.util.Arrays.copyOfRange(y, first, last),
                    last - first,
                    colour.deriveColor(0, 1, 1, strength),
                    1.6);
        }
        if (!(Math.abs(pair.correlation()) <= 1)) {
            return count < 3
                    ? Messages.of("bench.clean.too-few-moments-in-sight")
                    : Messages.of("bench.clean.one-of-the-two-does-not-change");
        }
        return Messages.of(
                "bench.clean.they-go-together-by-1-or-1-on-a",
                Digits.fixed(pair.correlation(), 2),
                Digits.about(pair.slope(), 3),
                across.channel().name(),
                (pair.offset() < 0 ? "− " : "+ "),
                Digits.about(Math.abs(pair.offset()), 3),
                count,
                Digits.about(to - from, 3));
    }

    private static String words(ChannelSnapshot channel) {
        String unit = channel.channel().unit();
        return channel.channel().name() + (unit.isEmpty() ? "" : ", " + unit);
    }

    private void fill(List<ChannelSnapshot> others) {
        chosen.setDisable(others.isEmpty());
        List<String> names = others.stream().map(c -> c.channel().name()).toList();
        if (!names.equals(chosen.getItems().stream().map(MenuItem::getText).toList())) {
            chosen.getItems().clear();
            for (ChannelSnapshot one : others) {
                MenuItem item = new MenuItem(one.channel().name());
                item.setOnAction(event -> other = one.channel().column());
                chosen.getItems().add(item);
            }
        }
    }

    /** @return the cleaned value nearest to a moment, in the unit shown; NaN where none is near */
    private static double at(ChannelSnapshot channel, double seconds) {
        Times times = channel.stream().times();
        long row = times.firstAtOrAfter(seconds);
        long sample = row + channel.lateSamples();
        boolean there = row < times.end()
                && sample >= channel.clean().start()
                && sample < channel.clean().end()
                && times.secondsAt(row) - seconds < 2 / channel.rateHz();
        return there ? channel.channel().display().apply(channel.clean().value(sample)) : Double.NaN;
    }
}
