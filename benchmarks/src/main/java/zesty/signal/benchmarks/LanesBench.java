package zesty.signal.benchmarks;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.util.Arrays;
import java.util.Locale;
import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.stage.Stage;
import zesty.signal.app.window.lanes.LaneStack;
import zesty.signal.app.window.workspace.Places;
import zesty.signal.app.window.workspace.Settings;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.rig.Rig;

/** Eight live lanes of 20 s in a real window, 1000×760 pixels: frames a second, 99th percentile, bytes a frame. */
public final class LanesBench extends Application {
    private static final int FILL_FRAMES = 1500;
    private static final int FRAMES = 1200;

    private Workspace workspace;
    private TextBoard board;

    @Override
    public void start(Stage stage) throws Exception {
        board = new TextBoard(1600, Long.MAX_VALUE, LanesBench::line);
        workspace = new Workspace(
                new Places(Files.createTempDirectory("zesty-lanes")), Rig.blank("lanes", ""), Settings.FIRST);
        LaneStack lanes = new LaneStack(workspace);
        lanes.getStyleClass().add("window");
        Scene scene = new Scene(lanes, 1000, 760);
        scene.getStylesheets()
                .add(Workspace.class
                        .getResource("/zesty/signal/app/window/zesty.css")
                        .toExternalForm());
        stage.setScene(scene);
        stage.show();
        workspace.live().connect("tcp:127.0.0.1:" + board.port());
        new Meter(lanes).start();
    }

    private static String line(long i) {
        StringBuilder line = new StringBuilder();
        for (int c = 0; c < 8; c++) {
            double wave =
                    300 * Math.sin(i * 0.004 * (c + 1)) + 120 * Math.sin(i * 1.7 + c) + 40 * Math.sin(i * 0.31 * c);
            line.append((int) (512 + wave)).append(c < 7 ? ',' : '\n');
        }
        return line.toString();
    }

    private final class Meter extends AnimationTimer {
        private final LaneStack lanes;
        private final ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        private final double[] gapsMs = new double[FRAMES];
        private final double[] paintMs = new double[FRAMES];
        private long frame;
        private long last;
        private long bytes;

        Meter(LaneStack lanes) {
            this.lanes = lanes;
        }

        @Override
        public void handle(long pulse) {
            long now = System.nanoTime();
            int measured = (int) (frame - FILL_FRAMES);
            long before = threads.getCurrentThreadAllocatedBytes();
            // Words five times a second, as in the window.
            lanes.frame(workspace.shown().snapshot(now), now, frame % 12 == 0);
            if (measured >= 0 && measured < FRAMES) {
                bytes += threads.getCurrentThreadAllocatedBytes() - before;
                gapsMs[measured] = (now - last) * 1e-6;
                paintMs[measured] = (System.nanoTime() - now) * 1e-6;
            }
            last = now;
            frame++;
            if (measured == FRAMES) {
                stop();
                report();
                Platform.exit();
            }
        }

        private void report() {
            double total = Arrays.stream(gapsMs).sum();
            Arrays.sort(gapsMs);
            Arrays.sort(paintMs);
            System.out.printf(
                    Locale.ROOT,
                    "%.1f frames/s, between frames median %.1f ms, 99th percentile %.1f ms%n"
                            + "painting all lanes: median %.2f ms, 99th percentile %.2f ms; %.1f kB allocated a frame%n",
                    FRAMES / total * 1000,
                    gapsMs[FRAMES / 2],
                    gapsMs[FRAMES * 99 / 100],
                    paintMs[FRAMES / 2],
                    paintMs[FRAMES * 99 / 100],
                    bytes / 1000.0 / FRAMES);
        }
    }

    @Override
    public void stop() throws Exception {
        workspace.close();
        board.close();
    }
}
