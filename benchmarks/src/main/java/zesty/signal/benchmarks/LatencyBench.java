package zesty.signal.benchmarks;

import java.nio.file.Files;
import java.util.Arrays;
import java.util.Locale;
import java.util.concurrent.atomic.AtomicLong;
import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.geometry.Rectangle2D;
import javafx.scene.Scene;
import javafx.scene.image.PixelReader;
import javafx.scene.image.WritableImage;
import javafx.scene.paint.Color;
import javafx.scene.robot.Robot;
import javafx.stage.Stage;
import zesty.signal.app.window.lanes.LaneStack;
import zesty.signal.app.window.workspace.Places;
import zesty.signal.app.window.workspace.Settings;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.rig.Rig;

/**
 * From a byte arriving to a pixel changed: a board sends a level that jumps up and down about every 0.6 s, and the
 * screen itself is read back at the right end of the lane until the jump is seen there. The reading back happens once a
 * frame, so up to a frame of it is in the figure.
 */
public final class LatencyBench extends Application {
    private static final int JUMPS = 150;
    private static final int WARM_UP = 8;
    private static final long JUMP_LINES = 121;

    private static final AtomicLong JUMPED_NANOS = new AtomicLong();
    private static final AtomicLong JUMP = new AtomicLong();

    /** As a window begins with. */
    private static final int SECONDS_IN_SIGHT = 20;

    private boolean quiet;
    private Workspace workspace;
    private TextBoard board;

    private static String line(long i) {
        long jump = i / JUMP_LINES;
        if (i % JUMP_LINES == 0) {
            JUMPED_NANOS.set(System.nanoTime());
            JUMP.set(jump);
        }
        return (jump % 2 == 0 ? "100" : "900") + "," + i % 1000 + "\n";
    }

    @Override
    public void start(Stage stage) throws Exception {
        board = new TextBoard(200, Long.MAX_VALUE, LatencyBench::line);
        workspace = new Workspace(
                new Places(Files.createTempDirectory("zesty-latency")), Rig.blank("latency", ""), Settings.FIRST);
        LaneStack lanes = new LaneStack(workspace);
        lanes.getStyleClass().add("window");
        lanes.showOnlyFocus(true);
        quiet = getParameters().getRaw().contains("quiet");
        workspace.shown().window().follow(quiet ? SECONDS_IN_SIGHT : 4);
        Scene scene = new Scene(lanes, 1000, 400);
        scene.getStylesheets()
                .add(Workspace.class
                        .getResource("/zesty/signal/app/window/zesty.css")
                        .toExternalForm());
        stage.setScene(scene);
        stage.setX(0);
        stage.setY(0);
        stage.show();
        workspace.live().connect("tcp:127.0.0.1:" + board.port());
        new Watch(lanes, stage).start();
    }

    private final class Watch extends AnimationTimer {
        private final LaneStack lanes;
        private final Stage stage;
        private final Robot robot = new Robot();
        private final double[] latenciesMs = new double[JUMPS];
        private int seen;
        private long lastJump = -1;
        private long words;
        private double paintedSeconds;

        Watch(LaneStack lanes, Stage stage) {
            this.lanes = lanes;
            this.stage = stage;
        }

        @Override
        public void handle(long pulse) {
            long now = System.nanoTime();
            if (now * 1e-9 - paintedSeconds >= (quiet ? lanes.quietSeconds() : 0)) {
                paintedSeconds = now * 1e-9;
                // Words five times a second, as in the window.
                boolean said = now - words > 200_000_000;
                words = said ? now : words;
                lanes.frame(workspace.shown().snapshot(now), now, said);
            }
            long jump = JUMP.get();
            if (jump != lastJump && levelOnScreen() == jump % 2) {
                lastJump = jump;
                int index = seen++ - WARM_UP;
                if (index >= 0 && index < JUMPS) {
                    latenciesMs[index] = (System.nanoTime() - JUMPED_NANOS.get()) * 1e-6;
                } else if (index == JUMPS) {
                    stop();
                    report();
                    Platform.exit();
                }
            }
        }

        /** @return 1 when the newest bit of line stands in the upper half, 0 in the lower, −1 when none is seen */
        private int levelOnScreen() {
            double left = stage.getX() + stage.getScene().getX() + 930;
            double top = stage.getY() + stage.getScene().getY();
            WritableImage shot = robot.getScreenCapture(null, new Rectangle2D(left, top, 18, 376));
            PixelReader pixels = shot.getPixelReader();
            for (int x = 17; x >= 0; x--) {
                for (int y = 0; y < 376; y++) {
                    Color colour = pixels.getColor(x, y);
                    if (colour.getSaturation() > 0.6 && colour.getBrightness() < 0.85) {
                        return y < 188 ? 1 : 0;
                    }
                }
            }
            return -1;
        }

        private void report() {
            Arrays.sort(latenciesMs);
            System.out.printf(
                    Locale.ROOT,
                    "from byte sent to pixel seen, %s, %d jumps: median %.0f ms, 99th percentile %.0f ms, worst %.0f ms%n",
                    quiet ? SECONDS_IN_SIGHT + " s in sight that nobody touches" : "each frame painted",
                    JUMPS,
                    latenciesMs[JUMPS / 2],
                    latenciesMs[JUMPS * 99 / 100],
                    latenciesMs[JUMPS - 1]);
        }
    }

    @Override
    public void stop() throws Exception {
        workspace.close();
        board.close();
    }
}
