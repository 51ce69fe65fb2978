package zesty.signal.app.window.bench.read;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import zesty.signal.app.window.drawing.FrameStore;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.WindowImage;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.picture.Film;
import zesty.signal.core.picture.FramePainter;
import zesty.signal.core.picture.PictureSetup;
import zesty.signal.core.picture.Region;
import zesty.signal.core.picture.Turned;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.takes.Mark;
import zesty.signal.takes.NewFile;

/** Saves pictures: one as it is seen with its numbers, or all in sight one after the other. */
final class FilmKeep {
    private static final DateTimeFormatter MOMENT = DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss-SSS");
    /** A picture of a sequence is so many pixels a pixel of the sensor. */
    private static final int ENLARGED = 8;

    private final Workspace workspace;
    private final FrameStore store;

    FilmKeep(Workspace workspace, FrameStore store) {
        this.workspace = workspace;
        this.store = store;
    }

    private Path folder() {
        return workspace.places().pictures();
    }

    /** Saves one picture as it is seen, with its scale and marks, and its numbers beside it. @param at its time as it is shown */
    void one(FilmView view, Film film, double[] frame, ChannelSnapshot channel, double at) {
        WindowImage seen =
                WindowImage.of(view, Palette.card(workspace.view().night().get()));
        String name = "picture-" + LocalDateTime.now().format(MOMENT);
        Path png = folder().resolve(name + ".png");
        Path csv = folder().resolve(name + ".csv");
        String table = table(film, frame, channel.channel().unit(), at);
        workspace
                .tasks()
                .later(
                        Messages.of("bench.read.the-picture-could-not-be-saved"),
                        () -> {
                            Files.createDirectories(folder());
                            try (NewFile made = NewFile.begin(csv, false)) {
                                made.stream().write(table.getBytes(StandardCharsets.UTF_8));
                                made.keep();
                            }
                            seen.write(png.toFile());
                        },
                        () -> {
                            workspace.say(Messages.of("bench.read.picture-saved-its-numbers-beside", png));
                            boolean live = workspace.shown().isLive();
                            if (!live) {
                                List<Mark> marks =
                                        new ArrayList<>(workspace.shown().marks());
                                marks.add(new Mark(at, "saved " + name));
                                workspace.marks(marks, Messages.of("bench.read.a-marker"));
                            } else if (workspace
                                    .shown()
                                    .snapshot(System.nanoTime())
                                    .recording()
                                    .running()) {
                                workspace.recordings().mark("saved " + name, System.nanoTime());
                            }
                        });
    }

    private static String table(Film film, double[] frame, String unit, double at) {
        java.io.StringWriter text = new java.io.StringWriter();
        PrintWriter out = new PrintWriter(text);
        double[] ends = PictureSetup.summaries(frame);
        out.print("t," + Digits.exact(at) + "\nunit," + unit + "\nhottest," + Digits.exact(ends[0]) + "\ncoldest,"
                + Digits.exact(ends[1]) + "\nmean," + Digits.exact(ends[2]) + "\n");
        for (Region region : film.setup().regions()) {
            out.print("\"" + region.name().replace("\"", "\"\"") + "\"," + Digits.exact(region.of(frame, film.width()))
                    + "\n");
        }
        out.print("\n");
        for (int y = 0; y < film.height(); y++) {
            for (int x = 0; x < film.width(); x++) {
                double value = frame[y * film.width() + x];
                out.print((x == 0 ? "" : ",") + (Double.isNaN(value) ? "" : Digits.exact(value)));
            }
            out.print("\n");
        }
        return text.toString();
    }

    /** Saves each picture from row {@code first} to {@code end} less one, all by one scale, with progress and a way to give up. */
    void all(Film film, long first, long end, double low, double high, boolean smooth) {
        Path into = folder().resolve("pictures-" + LocalDateTime.now().format(MOMENT));
        Turned how = Turned.of(film.width(), film.height(), film.setup());
        int wide = how.seenWidth() * ENLARGED;
        int tall = how.seenHeight() * ENLARGED;
        workspace
                .tasks()
                .atLength(
                        Messages.of("bench.read.saving-pictures"),
                        Messages.of("bench.read.the-pictures-could-not-be-saved"),
                        progress -> {
                            Files.createDirectories(into);
                            int n = 0;
                            for (long row = first; row < end; row++) {
                                if (!progress.test((double) (row - first) / Math.max(1, end - first))) {
                                    return n;
                                }
                                double[] frame = film.frame(row);
                                if (frame != null) {
                                    int[] pixels = new int[wide * tall];
                                    FramePainter.paint(
                                            pixels,
                                            wide,
                                            new FramePainter.Place(0, 0, wide, tall),
                                            frame,
                                            how,
                                            low,
                                            high,
                                            smooth);
                                    WindowImage.of(pixels, wide, tall)
                                            .write(into.resolve(String.format(
                                                            java.util.Locale.ROOT, "picture-%05d.png", n++))
                                                    .toFile());
                                }
                            }
                            return n;
                        },
                        n -> workspace.say(Messages.of("bench.read.pictures-saved-in", n, into)));
    }
}
