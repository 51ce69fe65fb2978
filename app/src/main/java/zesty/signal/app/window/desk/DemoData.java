package zesty.signal.app.window.desk;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import zesty.signal.boards.sim.DeckBoard;
import zesty.signal.boards.sim.SimulatedBoard;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.DelimitedDecoder;
import zesty.signal.core.decode.DelimitedFinder;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.SetAside;
import zesty.signal.core.decode.Timekeeper;
import zesty.signal.core.read.muscle.Muscle;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/** The training dinghy's rig, and takes made by its simulated board through the same decoder and writer as any other. */
public final class DemoData {
    private static final double FRAMES_AT_ONCE = 512;

    private DemoData() {}

    /** Writes a take of that title. */
    private interface Maker {
        void make(Path file, String title) throws TakeException;
    }

    private static final Map<String, Maker> FOREARM = Map.of(
            "Sheet hand, rest to tired", DemoForearm::effort,
            "Sheet hand, three places", DemoForearm::places);

    private record Plan(String title, long seed, double seconds, String started, List<String> marks) {}

    private static final List<Plan> TAKES = List.of(
            new Plan("First reach, light air", 11, 180, "2026-09-12T15:04:00Z", List.of("sheet in", "tack")),
            new Plan("Long beat home", 12, 600, "2026-09-12T16:10:00Z", List.of("gust", "reef taken", "flat water")),
            new Plan("In the shed, hands warm", 13, 90, "2026-09-19T09:30:00Z", List.of("sat still")));

    /** @return the deck board's rig */
    public static Rig rig() {
        Converter tenBits = new Converter(10, 5, Divisor.STEPS);
        List<Channel> channels = List.of(
                new Channel(
                        "pulse",
                        "Helm pulse",
                        new Scaling(tenBits, 1, 0, "V"),
                        Recipe.parse("bandpass:0.5..8@2"),
                        true),
                new Channel(
                        "forearm", "Sheet forearm", new Scaling(tenBits, 1, 0, "V"), Recipe.parse("lowpass:4@2"), true),
                new Channel("heel", "Heel", new Scaling(null, 0.1, 0, "°"), Recipe.parse("lowpass:2@2"), true),
                new Channel("trim", "Trim", new Scaling(null, 0.1, 0, "°"), Recipe.parse("median:9"), true),
                new Channel(
                        "bilge", "Bilge water", new Scaling(tenBits, 12, -3, "cm"), Recipe.parse("mean:100"), true));
        return new Rig("Wren, training dinghy", SourceSetup.at("sim:deck"), null, channels)
                .withReader(ReaderSetup.on("pulse", Pulse.NAME, Map.of(Pulse.SOURCE, "optical")))
                .withReader(ReaderSetup.on("forearm", Muscle.NAME, Map.of("kind", "envelope")));
    }

    /** Makes the demo takes that are not there yet. Takes about a second; not on the window's thread. */
    public static void makeTakes(Path folder) throws TakeException {
        for (Plan one : TAKES) {
            Path file = folder.resolve(one.title() + ".zest");
            if (!Files.exists(file)) {
                put(file, part -> make(part, one));
            }
        }
        for (Map.Entry<String, Maker> one : FOREARM.entrySet()) {
            Path file = folder.resolve(one.getKey() + ".zest");
            if (!Files.exists(file)) {
                put(file, part -> one.getValue().make(part, one.getKey()));
            }
        }
    }

    private interface Writing {
        void to(Path part) throws TakeException;
    }

    /** Makes a file beside its place and puts it there once it is whole. */
    private static void put(Path file, Writing writing) throws TakeException {
        Path part = file.resolveSibling(file.getFileName() + ".making");
        writing.to(part);
        try {
            Files.move(part, file);
        } catch (IOException e) {
            throw new TakeException(file + " cannot be put in place: " + e.getMessage(), e);
        }
    }

    private static void make(Path file, Plan recipe) throws TakeException {
        SimulatedBoard board = new DeckBoard(DeckBoard.Settings.usual(recipe.seed()));
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        bytes.writeBytes(board.greeting());
        board.next(bytes);
        board.next(bytes);
        DelimitedFormat format = DelimitedFinder.find(bytes.toByteArray(), bytes.size())
                .orElseThrow(() -> new TakeException("the deck board's format was not recognised"));
        DelimitedDecoder decoder = new DelimitedDecoder(format, new SetAside(SetAside.KEPT));
        Timekeeper timekeeper = new Timekeeper(format.clock(), Double.NaN, board.framesPerSecond());
        long frames = Math.round(recipe.seconds() * board.framesPerSecond());
        try (TakeWriter writer =
                TakeWriter.create(file, recipe.title(), rig().fittedTo(format), Instant.parse(recipe.started()))) {
            for (long frame = 2; frame < frames; ) {
                for (int i = 0; i < FRAMES_AT_ONCE && frame < frames; i++, frame++) {
                    board.next(bytes);
                }
                decoder.feed(bytes.toByteArray(), 0, bytes.size());
                bytes.reset();
                writer.append(timekeeper.date(decoder.takeRows(), frame / board.framesPerSecond(), 0));
            }
            for (int i = 0; i < recipe.marks().size(); i++) {
                double share = (i + 0.6) / recipe.marks().size();
                writer.mark(share * recipe.seconds(), recipe.marks().get(i));
            }
            writer.finish();
        }
    }
}
