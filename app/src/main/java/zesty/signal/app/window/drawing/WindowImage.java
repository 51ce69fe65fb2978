package zesty.signal.app.window.drawing;

import java.awt.image.BufferedImage;
import java.io.File;
import java.io.IOException;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.SnapshotParameters;
import javafx.scene.image.PixelReader;
import javafx.scene.image.WritableImage;
import javafx.scene.paint.Color;
import javax.imageio.ImageIO;
import zesty.signal.core.text.Messages;

/** What the window shows, as a picture. */
public final class WindowImage {
    private final BufferedImage image;

    private WindowImage(BufferedImage image) {
        this.image = image;
    }

    /** JavaFX thread only. */
    public static WindowImage of(Scene scene) {
        return of(scene.snapshot(null));
    }

    /** A part of the window on a ground of its own. JavaFX thread only. */
    public static WindowImage of(Node node, Color ground) {
        SnapshotParameters onGround = new SnapshotParameters();
        onGround.setFill(ground);
        return of(node.snapshot(onGround, null));
    }

    /** @param argb rows of pixels, from the top. Any thread */
    public static WindowImage of(int[] argb, int width, int height) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        image.setRGB(0, 0, width, height, argb, 0, width);
        return new WindowImage(image);
    }

    private static WindowImage of(WritableImage shot) {
        int width = (int) shot.getWidth();
        int height = (int) shot.getHeight();
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        PixelReader pixels = shot.getPixelReader();
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                image.setRGB(x, y, pixels.getArgb(x, y));
            }
        }
        return new WindowImage(image);
    }

    /** Any thread. */
    public void write(File file) throws IOException {
        if (!ImageIO.write(image, "png", file)) {
            throw new IOException(Messages.of("drawing.no-png-writer"));
        }
    }
}
