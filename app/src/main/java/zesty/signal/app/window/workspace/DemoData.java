package zesty.signal.app.window.workspace;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.stream.Stream;
import zesty.signal.boards.sim.DeckBoard;
import zesty.signal.boards.sim.SimulatedBoard;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Deed;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.Watch;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedDecoder;
import zesty.signal.core.decode.DelimitedFinder;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.Timestamper;
import zesty.signal.core.read.hits.Hits;
import zesty.signal.core.read.motion.Motion;
import zesty.signal.core.read.muscle.Muscle;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.core.read.vibration.Vibration;
import zesty.signal.core.read.wind.Wind;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.OutputUse;
import zesty.signal.core.rig.Protocol;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.RecordingSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.LogEntry;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/** The training dinghy's rig, and takes made by its simulated board through the same decoder and writer as any other. */
public final class DemoData {
    private static final double FRAMES_AT_ONCE = 512;

    private static final Set<String> DECK_LANES = Set.of("pulse", "forearm");
    /** What has a lane on the rig of the whole boat. */
    private static final Map<String, String> BOAT_NAMES = Map.of(
            "hull/ay", "Rudder stock",
            "halyard/knock", "Halyard",
            "masthead/cups", "Masthead wind",
            "motion/ax", "Heel and trim");

    private DemoData() {}

    /** Writes a take of that title. */
    private interface Maker {
        void make(Path file, String title) throws TakeException;
    }

    private static final Map<String, Maker> FOREARM = Map.of(
            "Sheet hand, rest to tired", DemoForearm::effort,
            "Sheet hand, three places", DemoForearm::places);

    private record Plan(String title, long seed, double seconds, String started, List<String> marks) {}

    /** What the club wrote into some of them. */
    private static final Map<String, LogEntry> LOGBOOK = Map.of(
            "First reach, light air",
            told(
                    "Two knots of wind from the west. The helm sat still; the sheet hand wore the thin gloves.",
                    "reach",
                    "light air"),
            "Long beat home",
            told(
                    "Against the tide, reefed from halfway. New band on the forearm, a hand's width below the elbow.",
                    "beat",
                    "reefed"),
            "Rudder stock, well",
            told("After the bush was greased.", "rudder", "after"),
            "Rudder stock, worn",
            told("Before anything was done to it.", "rudder", "before"),
            "Masthead, gusty",
            told("Squalls from the north-west, the mast stayed in its place.", "wind"));

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
                .withReader(ReaderSetup.on("forearm", Muscle.NAME, Map.of("kind", "envelope")))
                .withRecording(new RecordingSetup(
                        List.of("gust", "tack", "wave"),
                        Protocol.parse("rest 20 s, 3 x (hard pull 5 s, pause 10 s), rest 20 s"),
                        List.of()))
                .withAct(leaning());
    }

    /** What tells the crew how she leans: two limits, three bands with a lamp each, sent as a dry run. */
    private static ActSetup leaning() {
        Watch heel = new Watch.Column("heel");
        return ActSetup.NONE
                .withRule(
                        new Rule.OnSamples("steep", heel, new Condition.Above(14), 2, new Rule.Holds(0.5, 0, 0, false)))
                .withRule(new Rule.InBands("side", heel, new double[] {-5, 5}, 1, 0.3))
                .withDeed("steep", Deed.MARK, true)
                .withOutput(
                        new Output.ByRule("lamp", "lamp 0", "steep", "lamp 1", "lamp 0", Double.POSITIVE_INFINITY),
                        OutputUse.DRY);
    }

    /**
     * @return all of the boat at once: the deck, the hull, the halyard, the masthead and the motion unit, each a board of its own
     *     with what is read of it
     */
    public static Rig wholeBoat() {
        Rig boat = rig().withName("Wren, the whole boat");
        List<Channel> channels = new ArrayList<>();
        boat.channels().stream()
                .map(one -> one.withShown(DECK_LANES.contains(one.column())))
                .forEach(channels::add);
        for (String name : List.of("hull", "halyard", "masthead", "motion")) {
            boat = boat.joined(name, SourceSetup.at("sim:" + name));
            SimulatedBoard board = SimulatedBoards.create(name, 1);
            board.columns().stream()
                    .filter(one -> one.role() == Role.VALUE)
                    .map(one -> name + "/" + one.name())
                    .map(column -> new Channel(
                            column,
                            BOAT_NAMES.getOrDefault(column, column),
                            Scaling.asItCame(unit(board, column)),
                            Recipe.NONE,
                            BOAT_NAMES.containsKey(column)))
                    .forEach(channels::add);
        }
        List<String> axes = Stream.of("ax", "ay", "az", "gx", "gy", "gz", "mx", "my", "mz")
                .map(axis -> "motion/" + axis)
                .toList();
        return boat.withChannels(channels)
                .withReader(ReaderSetup.on("hull/ay", Vibration.NAME, Map.of("unit", "counts")))
                .withReader(ReaderSetup.on("halyard/knock", Hits.NAME, Map.of()))
                .withReader(
                        new ReaderSetup(Wind.NAME, List.of("masthead/cups", "masthead/vane"), Map.of("factor", "0.8")))
                .withReader(new ReaderSetup(Motion.NAME, axes, Map.of()));
    }

    private static String unit(SimulatedBoard board, String column) {
        String own = column.substring(column.indexOf('/') + 1);
        return board.columns().stream()
                .filter(one -> one.name().equals(own))
                .map(Column::unit)
                .findFirst()
                .orElse("");
    }

    /** Puts the rig of the whole boat among the kept ones, where it is not there yet. */
    public static void keepBoat(Path folder) throws IOException {
        Path file = folder.resolve("wren-the-whole-boat.json");
        if (!Files.exists(file)) {
            Files.createDirectories(folder);
            Settings.writeWhole(file, RigJson.write(wholeBoat()));
        }
    }

    /** Makes the demo takes that are not there yet. Takes a few seconds; not on the window's thread. */
    public static void makeTakes(Path folder, BooleanSupplier goOn) throws TakeException {
        for (Plan one : TAKES) {
            make(folder, one.title(), goOn, part -> make(part, one));
        }
        for (Map.Entry<String, Maker> one : FOREARM.entrySet()) {
            make(folder, one.getKey(), goOn, part -> one.getValue().make(part, one.getKey()));
        }
        for (String title : DemoThings.titles()) {
            make(folder, title, goOn, part -> DemoThings.write(part, title));
        }
    }

    private static void make(Path folder, String title, BooleanSupplier goOn, Writing writing) throws TakeException {
        Path file = folder.resolve(title + ".zest");
        if (goOn.getAsBoolean() && !Files.exists(file)) {
            put(file, part -> {
                writing.to(part);
                LogEntry told = LOGBOOK.get(title);
                if (told != null) {
                    try (Take take = Take.open(part)) {
                        take.write(told);
                    }
                }
            });
        }
    }

    private static LogEntry told(String note, String... tags) {
        return new LogEntry(null, note, List.of(tags), List.of(), List.of());
    }

    private interface Writing {
        void to(Path part) throws TakeException;
    }

    /** Makes a file beside its place and puts it there once it is whole. */
    private static void put(Path file, Writing writing) throws TakeException {
        Path part = file.resolveSibling(file.getFileName() + ".making");
        try {
            // One that a start before was stopped in the middle of.
            Files.deleteIfExists(part);
        } catch (IOException e) {
            throw new TakeException(part + " is in the way: " + e.getMessage(), e);
        }
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
        DelimitedDecoder decoder = new DelimitedDecoder(format, new RejectedLines(RejectedLines.KEPT));
        Timestamper timestamper = new Timestamper(format.clock(), Double.NaN, board.framesPerSecond());
        long frames = Math.round(recipe.seconds() * board.framesPerSecond());
        try (TakeWriter writer =
                TakeWriter.create(file, recipe.title(), rig().fittedTo(format), Instant.parse(recipe.started()))) {
            for (long frame = 2; frame < frames; ) {
                for (int i = 0; i < FRAMES_AT_ONCE && frame < frames; i++, frame++) {
                    board.next(bytes);
                }
                decoder.feed(bytes.toByteArray(), 0, bytes.size());
                bytes.reset();
                writer.append(timestamper.date(decoder.takeRows(), frame / board.framesPerSecond(), 0));
            }
            for (int i = 0; i < recipe.marks().size(); i++) {
                double share = (i + 0.6) / recipe.marks().size();
                writer.mark(share * recipe.seconds(), recipe.marks().get(i));
            }
            writer.finish();
        }
    }
}
