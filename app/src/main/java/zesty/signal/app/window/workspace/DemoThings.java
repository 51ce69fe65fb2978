package zesty.signal.app.window.workspace;

import java.io.ByteArrayOutputStream;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import zesty.signal.boards.sim.SimulatedBoard;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.hits.Hits;
import zesty.signal.core.read.joint.Joint;
import zesty.signal.core.read.motion.Motion;
import zesty.signal.core.read.orders.Orders;
import zesty.signal.core.read.step.StepResponse;
import zesty.signal.core.read.supply.Supply;
import zesty.signal.core.read.tone.Tone;
import zesty.signal.core.read.vibration.Vibration;
import zesty.signal.core.read.wind.Wind;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/** Of each thing on the boat one take in which all is well and one in which something is wrong. */
final class DemoThings {
    private static final String[] ARM = {
        "ax1", "ay1", "az1", "gx1", "gy1", "gz1", "ax2", "ay2", "az2", "gx2", "gy2", "gz2"
    };
    private static final String[] AXES = {"ax", "ay", "az", "gx", "gy", "gz", "mx", "my", "mz"};
    private static final Map<String, String> COUNTS = Map.of("unit", "counts");

    private DemoThings() {}

    /**
     * A take.
     *
     * @param board its words
     * @param columns the ports of its reader, in order; no others are kept
     * @param orders what the board is told, by the second
     */
    private record Plan(
            String title,
            String board,
            long seed,
            double seconds,
            String kind,
            Map<String, String> settings,
            List<String> columns,
            Map<Double, String> orders,
            Map<Double, String> marks) {}

    private static Plan plan(
            String title,
            String board,
            double seconds,
            String kind,
            Map<String, String> settings,
            Map<Double, String> marks,
            String... columns) {
        return new Plan(title, board, 31, seconds, kind, settings, List.of(columns), Map.of(), marks);
    }

    private static final Instant FIRST = Instant.parse("2026-09-05T09:00:00Z");
    private static final long APART_SECONDS = 1800;

    private static final List<Plan> PLANS = List.of(
            plan("Rudder stock, well", "hull", 30, Vibration.NAME, COUNTS, Map.of(1.0, "after the refit"), "ay"),
            plan("Rudder stock, worn", "hull+worn", 30, Vibration.NAME, COUNTS, Map.of(1.0, "a season later"), "ay"),
            plan("Halyard, fresh breeze", "halyard", 20, Hits.NAME, Map.of(), Map.of(8.0, "gust"), "knock"),
            plan("Halyard, strikes twice", "halyard+double", 20, Hits.NAME, Map.of(), Map.of(1.0, "loose"), "knock"),
            plan(
                    "Masthead, gusty",
                    "masthead",
                    180,
                    Wind.NAME,
                    Map.of("factor", "0.8"),
                    Map.of(60.0, "squall"),
                    "cups",
                    "vane"),
            plan(
                    "Masthead, calm",
                    "masthead+calm",
                    180,
                    Wind.NAME,
                    Map.of("factor", "0.8"),
                    Map.of(20.0, "calm"),
                    "cups",
                    "vane"),
            plan("Heel and trim, under way", "motion", 60, Motion.NAME, Map.of(), Map.of(30.0, "tack"), AXES),
            plan(
                    "Heel and trim, magnet near",
                    "motion+magnet",
                    40,
                    Motion.NAME,
                    Map.of(),
                    Map.of(5.0, "a speaker beside it"),
                    AXES),
            plan("Whistle at the start", "whistle", 9, Tone.NAME, Map.of(), Map.of(3.0, "start"), "sound"),
            plan(
                    "Whistle beside a generator",
                    "whistle+rumble",
                    9,
                    Tone.NAME,
                    Map.of(),
                    Map.of(0.5, "generator on"),
                    "sound"),
            heater("Cupboard, heater on", "cupboard"),
            heater("Cupboard, plug forgotten", "cupboard+unpowered"),
            plan("Sheet hand's elbow", "elbow", 40, Joint.NAME, Map.of(), Map.of(12.0, "tired"), ARM),
            plan("Outboard shaft", "shaft", 12, Orders.NAME, Map.of(), Map.of(), "vibration", "mark"),
            plan(
                    "Mark buoy, two minutes",
                    "buoy",
                    120,
                    Supply.NAME,
                    Map.of("capacity", "2.6"),
                    Map.of(),
                    "current",
                    "voltage"));

    private static Plan heater(String title, String board) {
        return new Plan(
                title,
                board,
                31,
                150,
                StepResponse.NAME,
                Map.of(),
                List.of("heat", "air"),
                Map.of(20.0, "heat 60"),
                Map.of(20.0, "heater on"));
    }

    static List<String> titles() {
        return Stream.concat(PLANS.stream().map(Plan::title), Stream.of(DemoFilm.TITLE))
                .toList();
    }

    /** Writes one of the takes. */
    static void write(Path file, String title) throws TakeException {
        if (title.equals(DemoFilm.TITLE)) {
            DemoFilm.write(file, FIRST.plusSeconds(APART_SECONDS * PLANS.size()));
            return;
        }
        Plan plan = PLANS.stream()
                .filter(one -> one.title().equals(title))
                .findFirst()
                .orElseThrow();
        SimulatedBoard board = SimulatedBoards.create(plan.board(), plan.seed());
        double[][] values = values(board, plan);
        List<Column> columns = plan.columns().stream()
                .map(name -> board.columns().stream()
                        .filter(one -> one.name().equals(name))
                        .findFirst()
                        .orElseThrow())
                .toList();
        Map<String, String> settings = plan.settings();
        if (plan.board().equals("hull+worn")) {
            settings = Map.of("unit", "counts", Vibration.GOOD, goodState());
        }
        int at = PLANS.indexOf(plan);
        try (TakeWriter writer =
                TakeWriter.create(file, title, rig(plan, columns, settings), FIRST.plusSeconds(APART_SECONDS * at))) {
            writer.append(
                    new Block(new TimeBase.Steady(0, 1 / board.rowsPerSecond()), values, values[0].length, List.of()));
            for (Map.Entry<Double, String> mark : plan.marks().entrySet()) {
                writer.mark(mark.getKey(), mark.getValue());
            }
            writer.finish();
        }
    }

    private static Rig rig(Plan plan, List<Column> columns, Map<String, String> settings) {
        DelimitedFormat format = new DelimitedFormat(',', false, false, "", columns, null);
        List<Channel> channels = new ArrayList<>();
        for (Column column : columns) {
            // Of nine axes the three of the acceleration are lanes enough.
            boolean shown = columns.size() < AXES.length || column.name().startsWith("a");
            channels.add(
                    new Channel(column.name(), column.name(), Scaling.asItCame(column.unit()), Recipe.NONE, shown));
        }
        return new Rig("Wren, " + plan.kind(), SourceSetup.at("sim:" + plan.board()), format, channels)
                .withReader(new ReaderSetup(plan.kind(), plan.columns(), settings));
    }

    private static double[][] values(SimulatedBoard board, Plan plan) {
        int rows = (int) Math.round(plan.seconds() * board.rowsPerSecond());
        int frames = (int) Math.round(plan.seconds() * board.framesPerSecond());
        List<String> names = board.columns().stream().map(Column::name).toList();
        double[][] values = new double[plan.columns().size()][rows];
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        int n = 0;
        for (int frame = 0; frame < frames; frame++) {
            double t = frame / board.framesPerSecond();
            for (Map.Entry<Double, String> order : plan.orders().entrySet()) {
                if (order.getKey() >= t && order.getKey() < t + 1 / board.framesPerSecond()) {
                    board.receive(order.getValue());
                }
            }
            board.next(bytes);
            bytes.reset();
            for (double[] row : board.newest()) {
                for (int c = 0; c < values.length; c++) {
                    values[c][n] = row[names.indexOf(plan.columns().get(c))];
                }
                n++;
            }
        }
        return values;
    }

    /** How the rudder stock shook while it was well, for the one that is worn to be held against. */
    private static String goodState() {
        Plan well = PLANS.get(0);
        SimulatedBoard board = SimulatedBoards.create(well.board(), well.seed());
        double[][] values = values(board, well);
        Vibration kind = new Vibration();
        Reader reader = kind.reader(Settings.of(kind, COUNTS), board.rowsPerSecond());
        reader.accept(values, values[0].length, new TimeBase.Steady(0, 1 / board.rowsPerSecond()));
        reader.finish();
        return reader.reading().records("state").stream()
                .flatMap(one -> Arrays.stream(one).boxed())
                .map(String::valueOf)
                .collect(Collectors.joining(","));
    }
}
