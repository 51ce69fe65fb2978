package zesty.signal.app.window.workspace;

import java.io.ByteArrayOutputStream;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import zesty.signal.boards.sim.SimulatedBoard;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.picture.PictureMend;
import zesty.signal.core.picture.PictureSetup;
import zesty.signal.core.picture.Region;
import zesty.signal.core.read.level.Level;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/** The demo's take of heat pictures: the outboard's cowling, its exhaust boxed. */
final class DemoFilm {
    static final String TITLE = "Cowling, engine warm";
    private static final int WIDTH = 32;
    private static final int HEIGHT = 24;
    private static final int PICTURES = 120;

    private DemoFilm() {}

    static void write(Path file, Instant started) throws TakeException {
        SimulatedBoard board = SimulatedBoards.create("cowling", 31);
        PictureFormat format = PictureFormat.of(HEIGHT, WIDTH, ' ', false, false, "°C")
                .withSetup(PictureSetup.NONE
                        .withRegion(Region.box("exhaust", 14, 9, 26, 18, Region.Measure.HOTTEST))
                        .withMend(PictureMend.NONE.withSurface(0.94, 20)));
        double[][] frames = new double[PICTURES][];
        double[][] summaries = new double[PictureFormat.SUMMARIES][PICTURES];
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        for (int f = 0; f < PICTURES; f++) {
            board.next(bytes);
            bytes.reset();
            double[] row = board.newest()[0];
            frames[f] = Arrays.copyOfRange(row, PictureFormat.SUMMARIES, row.length);
            double[] own = PictureSetup.summaries(frames[f]);
            for (int c = 0; c < summaries.length; c++) {
                summaries[c][f] = own[c];
            }
        }
        List<Channel> channels = new ArrayList<>();
        format.columns()
                .forEach(column -> channels.add(
                        new Channel(column.name(), column.name(), Scaling.asItCame("°C"), Recipe.NONE, true)));
        Rig rig = new Rig("Wren, cowling", SourceSetup.at("sim:cowling"), format, channels)
                .withReader(ReaderSetup.on("exhaust", Level.NAME, Map.of()));
        try (TakeWriter writer = TakeWriter.create(file, TITLE, rig, started)) {
            writer.append(new Block(
                    new TimeBase.Steady(0, 1 / board.rowsPerSecond()), summaries, PICTURES, List.of(), frames));
            writer.mark(10, "throttle open");
            writer.finish();
        }
    }
}
