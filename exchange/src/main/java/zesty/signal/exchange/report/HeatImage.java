package zesty.signal.exchange.report;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Line2D;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.awt.image.DataBufferInt;
import zesty.signal.core.picture.FramePainter;
import zesty.signal.core.picture.HeatScale;
import zesty.signal.core.picture.Region;
import zesty.signal.core.picture.Turned;

/** Heat pictures as images for a page: every pixel a square, parts outlined, and the scale they are painted by. */
final class HeatImage {
    /** As wide as this at least, in image pixels, so that outlines are fine beside pixels of the sensor. */
    private static final int LEAST_WIDE = 360;

    private HeatImage() {}

    static BufferedImage of(Report.Pictures pictures, Report.Frame frame) {
        Turned how = pictures.how();
        int zoom = Math.max(1, (LEAST_WIDE + how.seenWidth() - 1) / how.seenWidth());
        int wide = zoom * how.seenWidth();
        int high = zoom * how.seenHeight();
        BufferedImage image = new BufferedImage(wide, high, BufferedImage.TYPE_INT_RGB);
        int[] pixels = ((DataBufferInt) image.getRaster().getDataBuffer()).getData();
        FramePainter.paint(
                pixels,
                wide,
                new FramePainter.Place(0, 0, wide, high),
                frame.values(),
                how,
                pictures.low(),
                pictures.high(),
                false);
        Graphics2D pen = image.createGraphics();
        pen.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        for (Region region : pictures.regions()) {
            // Dark on light and light on dark: one of both stands out anywhere on the scale.
            outline(pen, region, how, zoom, 5, new Color(0x22302a));
            outline(pen, region, how, zoom, 2, new Color(0xfffdf8));
        }
        pen.dispose();
        return image;
    }

    private static void outline(Graphics2D pen, Region region, Turned how, int zoom, float width, Color colour) {
        pen.setColor(colour);
        pen.setStroke(new BasicStroke(width));
        boolean line = region.form() == Region.Form.LINE;
        double[] from = how.seen(region.x1() + (line ? 0.5 : 0), region.y1() + (line ? 0.5 : 0));
        double[] to = how.seen(region.x2() + (line ? 0.5 : 1), region.y2() + (line ? 0.5 : 1));
        if (line) {
            pen.draw(new Line2D.Double(zoom * from[0], zoom * from[1], zoom * to[0], zoom * to[1]));
        } else {
            pen.draw(new Rectangle2D.Double(
                    zoom * Math.min(from[0], to[0]),
                    zoom * Math.min(from[1], to[1]),
                    zoom * Math.abs(to[0] - from[0]),
                    zoom * Math.abs(to[1] - from[1])));
        }
    }

    /** @return the scale from cold at the left to hot at the right */
    static BufferedImage scale() {
        BufferedImage image = new BufferedImage(256, 8, BufferedImage.TYPE_INT_RGB);
        for (int x = 0; x < 256; x++) {
            for (int y = 0; y < 8; y++) {
                image.setRGB(x, y, HeatScale.argb(x / 255.0));
            }
        }
        return image;
    }
}
