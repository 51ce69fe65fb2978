package zesty.signal.benchmarks;

import java.nio.file.Files;
import java.util.Arrays;
import java.util.Locale;
import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.stage.Stage;
import zesty.signal.app.window.bench.source.SourceBench;
import zesty.signal.app.window.workspace.Places;
import zesty.signal.app.window.workspace.Settings;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.rig.Rig;
import zesty.signal.engine.Snapshot;

/** The Source bench in a real window while 2 MB/s of text come: how long it takes to bring it up to date. */
public final class BytesBench extends Application {
    private static final double LINES_PER_SECOND = 2e6 / 24;
    private static final int WARM = 120;
    private static final int UPDATES = 300;
    private static final int EVERY = 6;

    private Workspace workspace;
    private TextBoard board;

    @Override
    public void start(Stage stage) throws Exception {
        board = new TextBoard(LINES_PER_SECOND, Long.MAX_VALUE, i -> "123,456,789,321,654,987\n");
        workspace = new Workspace(
                new Places(Files.createTempDirectory("zesty-bytes")), Rig.blank("bytes", ""), Settings.FIRST);
        SourceBench bench = new SourceBench(workspace);
        bench.getStyleClass().add("window");
        Scene scene = new Scene(bench, 1000, 430);
        scene.getStylesheets()
                .add(Workspace.class
                        .getResource("/zesty/signal/app/window/zesty.css")
                        .toExternalForm());
        stage.setScene(scene);
        stage.show();
        workspace.live().connect("tcp:127.0.0.1:" + board.port());
        new Meter(bench).start();
    }

    private final class Meter extends AnimationTimer {
        private final SourceBench bench;
        private final double[] tookMs = new double[UPDATES];
        private final double[] toldMs = new double[UPDATES];
        private long frame;
        private int update;

        Meter(SourceBench bench) {
            this.bench = bench;
        }

        @Override
        public void handle(long pulse) {
            if (frame++ % EVERY != 0) {
                return;
            }
            long before = System.nanoTime();
            Snapshot snapshot = workspace.shown().snapshot(before);
            bench.show(snapshot);
            long told = System.nanoTime();
            bench.applyCss();
            bench.layout();
            int measured = update++ - WARM;
            if (measured >= 0 && measured < UPDATES) {
                tookMs[measured] = (System.nanoTime() - before) * 1e-6;
                toldMs[measured] = (told - before) * 1e-6;
            }
            if (measured == UPDATES) {
                stop();
                Arrays.sort(tookMs);
                Arrays.sort(toldMs);
                System.out.printf(
                        Locale.ROOT,
                        "at %.2f MB/s, %d rows decoded: the bench brought up to date in median %.1f ms, 99th percentile %.1f ms; %.1f ms of the median are not layout%n",
                        snapshot.health().bytesPerSecond() / 1e6,
                        snapshot.health().rows(),
                        tookMs[UPDATES / 2],
                        tookMs[UPDATES * 99 / 100],
                        toldMs[UPDATES / 2]);
                Platform.exit();
            }
        }
    }

    @Override
    public void stop() throws Exception {
        workspace.close();
        board.close();
    }
}
