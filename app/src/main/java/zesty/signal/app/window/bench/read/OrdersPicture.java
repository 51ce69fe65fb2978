package zesty.signal.app.window.bench.read;

import java.util.List;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reading;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/** Amplitude by order with its uncertainty, and the speed from turn to turn. */
final class OrdersPicture extends ReaderPicture {
    private static final double HALF_BAR = 0.16;

    private final Plot amplitudes = new Plot();
    private final Plot speed = new Plot();

    OrdersPicture(Workspace workspace) {
        super(workspace);
        amplitudes.setId("orders-plot");
        VBox left = new VBox(4, Bench.small(Messages.of("bench.read.amplitude-by-order-how-often-a")), amplitudes);
        VBox right = new VBox(4, Bench.small(Messages.of("bench.read.speed-from-turn-to-turn")), speed);
        sideBySide(left, amplitudes, right, speed);
    }

    @Override
    void show(Snapshot snapshot, ChannelSnapshot channel, ReaderSnapshot reader, Color colour) {
        boolean night = workspace.view().night().get();
        Reading reading = reader == null ? null : reader.reading();
        List<double[]> orders = reading == null ? List.of() : reading.records("orders");
        double most = orders.stream().mapToDouble(one -> one[2] + one[3]).max().orElse(1);
        double slope = Math.abs(channel.channel().display().slope());
        amplitudes.begin(
                night,
                0.4,
                Math.max(8, orders.size()) + 0.6,
                Messages.of("bench.read.order"),
                0,
                1.25 * slope * most,
                channel.channel().unit());
        for (double[] one : orders) {
            boolean clear = one[4] == one[4];
            amplitudes.bar(
                    one[0] - HALF_BAR,
                    one[0] + HALF_BAR,
                    0,
                    slope * one[2],
                    colour.deriveColor(0, 1, 1, clear ? 0.85 : 0.25));
            amplitudes.bar(
                    one[0] - HALF_BAR / 8,
                    one[0] + HALF_BAR / 8,
                    slope * (one[2] - one[3]),
                    slope * (one[2] + one[3]),
                    Palette.ink(night));
        }
        for (double[] one : orders) {
            if (one[4] == one[4]) {
                amplitudes.named(
                        one[0] + HALF_BAR,
                        Messages.of("bench.read.at-3", Digits.about(slope * one[2], 3), Digits.fixed(one[4], 0)),
                        0,
                        Color.TRANSPARENT);
            }
        }
        speeds(reading == null ? null : reading.trace("speed").orElse(null), zero(snapshot), colour, night);
    }

    private void speeds(Item.Trace trace, double zero, Color colour, boolean night) {
        int n = trace == null ? 0 : trace.values().length;
        double[] x = new double[n];
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < n; i++) {
            x[i] = trace.seconds()[i] - zero;
            low = Math.min(low, trace.values()[i]);
            high = Math.max(high, trace.values()[i]);
        }
        double room = n == 0 ? 0 : Math.max(0.02 * high, 0.1 * (high - low));
        speed.begin(
                night,
                n == 0 ? -10 : x[0],
                n == 0 ? 0 : x[n - 1],
                "s",
                n == 0 ? 0 : Math.max(0, low - room),
                n == 0 ? 1 : high + room,
                Messages.of("bench.read.turns-s"));
        if (n > 0) {
            speed.line(x, trace.values(), n, colour, 1.6);
        }
    }
}
