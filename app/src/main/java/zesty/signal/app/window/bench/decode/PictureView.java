package zesty.signal.app.window.bench.decode;

import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.image.PixelFormat;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import zesty.signal.app.window.drawing.Letters;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.core.picture.Film;
import zesty.signal.core.picture.FramePainter;
import zesty.signal.core.picture.HeatScale;
import zesty.signal.core.picture.PictureSetup;
import zesty.signal.core.picture.Turned;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.ChannelSnapshot;

/** The newest picture of a stream as it came, with the ends of its scale. */
final class PictureView extends Pane {
    private static final double LEGEND = 90;

    private final Canvas canvas = new Canvas(10, 10);
    private final Letters letters = new Letters();

    PictureView() {
        getChildren().addAll(canvas, letters);
        setMinSize(0, 0);
    }

    /** @return whether the channel's stream carries pictures and one is shown */
    boolean show(ChannelSnapshot channel, boolean night) {
        Film film = channel == null ? null : channel.stream().film();
        double[] frame = film == null || !film.isAtHand() ? null : film.raw(film.end() - 1);
        if (frame != null) {
            draw(film, frame, channel.channel().unit(), night);
        }
        return frame != null;
    }

    private void draw(Film film, double[] frame, String unit, boolean night) {
        canvas.setWidth(Math.max(10, getWidth()));
        canvas.setHeight(Math.max(10, getHeight()));
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, canvas.getWidth(), canvas.getHeight());
        int side = (int) Math.min(
                (canvas.getWidth() - letters.of(LEGEND)) / film.width(), (canvas.getHeight() - 4) / film.height());
        if (side < 1) {
            return;
        }
        double[] ends = PictureSetup.summaries(frame);
        int width = film.width() * side;
        int height = film.height() * side;
        int[] pixels = new int[width * height];
        Turned how = new Turned(film.width(), film.height(), 0, false);
        FramePainter.paint(
                pixels, width, new FramePainter.Place(0, 0, width, height), frame, how, ends[1], ends[0], false);
        g.getPixelWriter().setPixels(0, 0, width, height, PixelFormat.getIntArgbInstance(), pixels, 0, width);
        double x = width + 10;
        for (int i = 0; i < 60; i++) {
            int argb = HeatScale.argb(1 - i / 59.0);
            g.setFill(Color.rgb(argb >> 16 & 255, argb >> 8 & 255, argb & 255));
            g.fillRect(x, i * height / 60.0, 12, height / 60.0 + 1);
        }
        g.setFill(Palette.ink(night));
        g.setFont(letters.getFont());
        String behind = unit.isEmpty() ? "" : " " + unit;
        g.fillText(Digits.fixed(ends[0], 1) + behind, x + 18, letters.of(11));
        g.fillText(Digits.fixed(ends[1], 1) + behind, x + 18, height - 2);
    }
}
