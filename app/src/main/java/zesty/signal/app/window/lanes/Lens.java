package zesty.signal.app.window.lanes;

import java.nio.IntBuffer;
import javafx.scene.control.Label;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.workspace.Look;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/** What lies under the pointer, ten times as close: in time, and in value as far as what is there needs. */
final class Lens extends VBox {
    private static final int WIDTH = 260;
    private static final int HEIGHT = 96;
    private static final double CLOSER = 10;

    private final ImageView image = new ImageView();
    private final Label words = new Label();
    private final int[] pixels;
    private final PixelBuffer<IntBuffer> buffer;
    private final LanePicture picture = new LanePicture();
    private final ColumnEdges edges = new ColumnEdges();
    private final TimeTicks ticks = new TimeTicks();
    private String column = "";
    private ValueScale scale = new ValueScale();

    Lens() {
        getStyleClass().add("lens");
        setId("lens");
        setManaged(false);
        setMouseTransparent(true);
        IntBuffer ints = IntBuffer.allocate(WIDTH * HEIGHT);
        pixels = ints.array();
        buffer = new PixelBuffer<>(WIDTH, HEIGHT, ints, PixelFormat.getIntArgbPreInstance());
        image.setImage(new WritableImage(buffer));
        image.setSmooth(false);
        words.getStyleClass().add("lens-words");
        getChildren().addAll(image, words);
    }

    /**
     * @param seconds under the pointer
     * @param pixelSeconds of one pixel of the lane
     */
    void show(
            Snapshot snapshot,
            ChannelSnapshot channel,
            int colour,
            Look look,
            double seconds,
            double pixelSeconds,
            double zero) {
        if (!channel.channel().column().equals(column)) {
            column = channel.channel().column();
            scale = new ValueScale();
        }
        double span = WIDTH * pixelSeconds / CLOSER;
        double from = seconds - span / 2;
        edges.compute(channel.stream().times(), from, from + span, WIDTH);
        ticks.compute(from, from + span, WIDTH, zero, false);
        // It is at another place with each move: its range is that of what is in it.
        scale.reset();
        scale.fit(channel.clean(), edges.at(0) + channel.lateSamples(), edges.at(WIDTH) + channel.lateSamples(), 0);
        picture.paint(
                pixels,
                WIDTH,
                HEIGHT,
                snapshot,
                channel,
                edges,
                ticks,
                scale,
                Palette.lane(colour, look),
                true,
                null,
                false);
        buffer.updateBuffer(all -> null);
        double low = channel.channel().display().apply(scale.low());
        double high = channel.channel().display().apply(scale.high());
        words.setText(Messages.of(
                "lanes.s-wide-to",
                Digits.about(span, 3),
                Digits.about(low, 4),
                Digits.about(high, 4),
                channel.channel().unit()));
    }
}
