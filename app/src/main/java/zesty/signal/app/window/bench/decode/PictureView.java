package zesty.signal.app.window.bench.decode;

import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import zesty.signal.app.window.drawing.Letters;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.Rows;
import zesty.signal.core.decode.StreamDecoder;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.Snapshot;

/** The newest picture of numbers, in shades, with the ends of its scale. */
final class PictureView extends Pane {
    private static final double LEGEND = 90;

    private final Canvas canvas = new Canvas(10, 10);
    private final Letters letters = new Letters();

    PictureView() {
        getChildren().addAll(canvas, letters);
        setMinSize(0, 0);
    }

    /** @return whether the stream carries pictures and one is shown */
    boolean show(Snapshot snapshot, StreamFormat format, Workspace workspace) {
        if (!(format instanceof PictureFormat picture) || !workspace.shown().isLive()) {
            return false;
        }
        byte[] bytes = workspace.sourceActions().newest(1 << 16).bytes();
        StreamDecoder decoder = format.decoder(new RejectedLines(1));
        decoder.restart(true);
        decoder.feed(bytes, 0, bytes.length);
        Rows rows = decoder.takeRows();
        if (rows.count() == 0) {
            return false;
        }
        draw(picture, rows, workspace.view().night().get());
        return true;
    }

    private void draw(PictureFormat picture, Rows rows, boolean night) {
        int last = rows.count() - 1;
        double hottest = rows.columns()[0][last];
        double coldest = rows.columns()[1][last];
        canvas.setWidth(Math.max(10, getWidth()));
        canvas.setHeight(Math.max(10, getHeight()));
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, canvas.getWidth(), canvas.getHeight());
        double side = Math.floor(Math.min(
                (canvas.getWidth() - letters.of(LEGEND)) / picture.width(), (canvas.getHeight() - 4) / picture.rows()));
        if (side < 1) {
            return;
        }
        for (int r = 0; r < picture.rows(); r++) {
            for (int c = 0; c < picture.width(); c++) {
                double value = rows.columns()[PictureFormat.SUMMARIES + r * picture.width() + c][last];
                g.setFill(shade((value - coldest) / Math.max(1e-9, hottest - coldest)));
                g.fillRect(c * side, r * side, side, side);
            }
        }
        double x = picture.width() * side + 10;
        double height = picture.rows() * side;
        for (int i = 0; i < 60; i++) {
            g.setFill(shade(1 - i / 59.0));
            g.fillRect(x, i * height / 60, 12, height / 60 + 1);
        }
        g.setFill(Palette.ink(night));
        g.setFont(letters.getFont());
        String unit = picture.columns().get(0).unit();
        String behind = unit.isEmpty() ? "" : " " + unit;
        g.fillText(Digits.fixed(hottest, 1) + behind, x + 18, letters.of(11));
        g.fillText(Digits.fixed(coldest, 1) + behind, x + 18, height - 2);
    }

    /** From deep rind over lemon to paper: darker is less, also without colour. */
    private static Color shade(double share) {
        double s = Double.isNaN(share) ? 0 : Math.max(0, Math.min(1, share));
        return s < 0.4 ? between(0, s / 0.4) : s < 0.8 ? between(1, (s - 0.4) / 0.4) : between(2, (s - 0.8) / 0.2);
    }

    private static Color between(int step, double share) {
        return Palette.HEAT.get(step).interpolate(Palette.HEAT.get(step + 1), share);
    }
}
