package zesty.signal.app.window.workspace;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import zesty.signal.app.report.ReportFile;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.plan.Draft;
import zesty.signal.core.plan.NoiseBudget;
import zesty.signal.core.plan.Plan;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Series;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.PlanReport;
import zesty.signal.engine.PlannedAgainst;
import zesty.signal.engine.PortableProof;
import zesty.signal.exchange.portable.PortableBoard;
import zesty.signal.exchange.portable.PortableException;
import zesty.signal.exchange.portable.SourceFiles;
import zesty.signal.takes.DraftJson;
import zesty.signal.takes.TakeException;

/**
 * The plan of a setup that is not wired yet, and what comes out of it: a simulated board to try, a rig, code, a page; and what goes back
 * to the board of a rig that works. JavaFX thread only.
 */
public final class Planning {
    private static final DateTimeFormatter MOMENT = DateTimeFormatter.ofPattern("yyyy-MM-dd-HHmmss");
    private static final int MOST_UNDOS = 100;
    private static final int MOST_TRIED = 60_000;

    private final Workspace workspace;
    private final Path folder;
    private final ObjectProperty<Draft> draft = new SimpleObjectProperty<>();
    private final ArrayDeque<Draft> before = new ArrayDeque<>();

    Planning(Workspace workspace, Path folder) {
        this.workspace = workspace;
        this.folder = folder;
        ReaderKind first = ReaderKinds.of(Pulse.NAME);
        draft.set(Draft.of(first.name(), first.needs().get(0), recipe(first)));
        draft.addListener((p, was, is) -> save(is));
    }

    /** @return the plan as it stands; never null */
    public ObjectProperty<Draft> draft() {
        return draft;
    }

    /** Goes on with the plan of another day, where there is one. */
    public void load() {
        Path file = file();
        workspace
                .tasks()
                .fetch(
                        Messages.of("workspace.the-plan-of-last-time-could-not-be"),
                        () -> Files.exists(file) ? DraftJson.read(Files.readString(file), file.toString()) : null,
                        read -> {
                            if (read != null && before.isEmpty()) {
                                draft.set(read);
                            }
                        });
    }

    private Path file() {
        return folder.resolve("plan.json");
    }

    private void save(Draft now) {
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-plan-could-not-be-saved"),
                        () -> {
                            Files.createDirectories(folder);
                            Settings.writeWhole(file(), DraftJson.write(now));
                        },
                        () -> {});
    }

    /** Begins anew with what answers a question. */
    public void ask(ReaderKind kind, int sensor) {
        change(Draft.of(kind.name(), kind.needs().get(sensor), recipe(kind)));
    }

    private static String recipe(ReaderKind kind) {
        return kind.suggestions().isEmpty() ? "" : kind.suggestions().get(0).recipe();
    }

    /** Takes another plan; {@link #undo()} goes back to the one before. */
    public void change(Draft other) {
        if (!other.equals(draft.get())) {
            before.push(draft.get());
            if (before.size() > MOST_UNDOS) {
                before.removeLast();
            }
            draft.set(other);
        }
    }

    /** Goes back to the plan before the last change. @return whether there was one */
    public boolean undo() {
        if (before.isEmpty()) {
            return false;
        }
        draft.set(before.pop());
        return true;
    }

    /** @return the rig that the plan comes to, on a simulated board that sends just what is planned */
    public Rig rig() {
        Draft plan = draft.get();
        ReaderKind kind = ReaderKinds.of(plan.kind());
        List<String> columns = columns(plan);
        Converter converter =
                new Converter(plan.converter().bits(), plan.converter().ref(), Divisor.STEPS);
        List<Channel> channels = new ArrayList<>();
        for (int c = 0; c < plan.channels(); c++) {
            Recipe recipe = c == 0 ? Recipe.parse(plan.recipe()) : Recipe.NONE;
            channels.add(new Channel(
                    columns.get(c),
                    c == 0 ? kind.title() : columns.get(c),
                    new Scaling(converter, 1, 0, "V"),
                    recipe,
                    true));
        }
        double step = NoiseBudget.of(plan.converter()).stepVolts();
        String board = SimulatedBoards.planned(
                plan.rateHz(),
                plan.channels(),
                plan.converter().bits(),
                plan.converter().noiseCounts() / Math.sqrt(plan.converter().average()),
                plan.swingVolts() / step,
                plan.need().highestHz(),
                plan.tones(),
                plan.kind().equals(Pulse.NAME),
                plan.packets());
        Rig rig = new Rig(
                Messages.of("workspace.planned", Messages.within(kind.title())),
                SourceSetup.at("sim:" + board),
                null,
                channels);
        return columns.size() >= kind.fewestPorts()
                ? rig.withReader(
                        new ReaderSetup(kind.name(), columns.subList(0, kind.fewestPorts()), kind.settingsFor("V")))
                : rig;
    }

    /** @return what the recogniser will call the channels: in text clock and number are the first columns without names, of packets they are called so */
    private static List<String> columns(Draft plan) {
        List<String> names = new ArrayList<>();
        for (int c = 1; c <= plan.channels(); c++) {
            names.add("column" + (plan.packets() ? c : c + 2));
        }
        return names;
    }

    /** Plugs the simulated board in, with the rig that the plan comes to. */
    public void tryIt() {
        Rig rig = rig();
        workspace.live().take(rig);
        workspace.live().connect(rig.source());
        workspace.view().plannerOpen().set(false);
        workspace.view().focus().set(rig.channels().get(0).column());
        workspace.view().stop().set(Stop.READ);
        workspace.say(Messages.of("workspace.a-simulated-board-sends-what-is"));
    }

    private Optional<Channel> focusedChannel() {
        return workspace
                .shown()
                .snapshot(System.nanoTime())
                .focused(workspace.view().focus().get())
                .map(ChannelSnapshot::channel);
    }

    /** @return the name of the channel in focus; empty where there is none */
    public String focused() {
        return focusedChannel().map(Channel::name).orElse("");
    }

    /** Makes a part that was planned, with the plan's converter, the scaling of the channel in focus, and shows it. */
    public void scaleFocused(Conversion conversion, String unit) {
        Plan.Converter planned = draft.get().converter();
        Scaling scaling =
                new Scaling(new Converter(planned.bits(), planned.ref(), Divisor.STEPS), conversion, List.of(), unit);
        String column = focusedChannel().orElseThrow().column();
        workspace.change(rig -> rig.withChannel(column, one -> one.withScaling(scaling)));
        workspace.view().plannerOpen().set(false);
        workspace.view().stop().set(Stop.SCALE);
    }

    /** Saves the rig among the maker's own, for the real board. */
    public void keepRig() {
        Rig rig = rig();
        workspace.rigs().keep(rig);
    }

    private Path made(String what) {
        return folder.resolve(
                what + "-" + draft.get().kind() + "-" + LocalDateTime.now().format(MOMENT));
    }

    /** Writes the program for the board into a folder of its own. */
    public void boardCode() {
        Path to = made("board");
        Draft plan = draft.get();
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-board-s-code-could-not-be"),
                        () -> SourceFiles.write(to, PortableBoard.files(plan.plan())),
                        () -> workspace.say(Messages.of("workspace.board-c-and-board-h-saved", to)));
    }

    /**
     * Writes what the rig decided on a channel as C, compiles it, runs the channel's raw numbers through it, and says how near it comes.
     */
    public void portable(ChannelSnapshot channel) {
        String column = channel.channel().column();
        Path to = folder.resolve("portable-" + column.replaceAll("[^\\p{Alnum}]+", "-") + "-"
                + LocalDateTime.now().format(MOMENT));
        Rig rig = workspace.shown().rig();
        workspace
                .tasks()
                .fetchTold(
                        Messages.of("workspace.trying-the-board-s-code"),
                        Messages.of("workspace.the-board-s-code-could-not-be-made"),
                        () -> {
                            double[] raw = raw(channel);
                            PortableProof proof = PortableProof.of(rig, column, channel.rateHz(), raw, to);
                            return words(proof) + fixed(rig, column, channel.rateHz(), raw, to.resolve("fixed"));
                        },
                        workspace::say);
    }

    /** The same for a board without a float unit, beside it: how far it is off is said before anybody takes it. */
    private static String fixed(Rig rig, String column, double rateHz, double[] raw, Path to)
            throws TakeException, InterruptedException {
        try {
            PortableProof proof = PortableProof.ofFixed(rig, column, rateHz, raw, to);
            if (proof.compiler().isEmpty()) {
                return "";
            }
            return Messages.of("workspace.in-whole-numbers-folder-fixed", difference(proof), decisions(proof));
        } catch (PortableException e) {
            return Messages.of("workspace.not-in-whole-numbers", e.getMessage());
        }
    }

    private static double[] raw(ChannelSnapshot channel) {
        Series raw = channel.raw();
        long from = Math.max(raw.start(), raw.end() - MOST_TRIED);
        double[] x = new double[(int) (raw.end() - from)];
        for (int i = 0; i < x.length; i++) {
            x[i] = raw.value(from + i);
        }
        return x;
    }

    private static String words(PortableProof proof) {
        if (proof.compiler().isEmpty()) {
            return Messages.of("workspace.c-code-saved-no-c-compiler-cc-gcc", proof.folder());
        }
        return Messages.of(
                "workspace.c-code-saved-and-tried-with-on",
                proof.compiler(),
                proof.samples(),
                difference(proof),
                decisions(proof),
                proof.folder());
    }

    private static String difference(PortableProof proof) {
        return Messages.of("workspace.largest-difference-of-full-scale", Digits.about(100 * proof.largest(), 2));
    }

    private static String decisions(PortableProof proof) {
        return proof.decisions() == 0
                ? ""
                : proof.different() == 0
                        ? Messages.of("workspace.all-decisions-are-equal", proof.decisions())
                        : Messages.of("workspace.rows-decide-otherwise", proof.different());
    }

    /** Writes a page to print. */
    public void print() {
        Path to = made("plan").resolveSibling(made("plan").getFileName() + ".pdf");
        Draft plan = draft.get();
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-plan-could-not-be-printed"),
                        () -> {
                            Files.createDirectories(folder);
                            ReportFile.write(PlanReport.of(plan, Instant.now()), to, true);
                        },
                        () -> workspace.say(Messages.of("workspace.page-saved", to)));
    }

    /** Holds a take against the plan. */
    public void compare(Path take, Consumer<List<PlannedAgainst.Row>> after) {
        Draft plan = draft.get();
        workspace
                .tasks()
                .fetchTold(
                        "comparing",
                        Messages.of("workspace.the-take-could-not-be-compared"),
                        () -> PlannedAgainst.of(take, plan),
                        after);
    }
}
