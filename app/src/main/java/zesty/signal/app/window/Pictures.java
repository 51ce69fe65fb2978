package zesty.signal.app.window;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.event.ActionEvent;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.stage.Stage;
import zesty.signal.app.show.Where;
import zesty.signal.app.window.workspace.Look;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Deed;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.StepPlan;
import zesty.signal.core.act.Watch;
import zesty.signal.core.picture.PictureMend;
import zesty.signal.core.picture.PictureSetup;
import zesty.signal.core.picture.Region;
import zesty.signal.core.read.hits.Hits;
import zesty.signal.core.read.joint.Joint;
import zesty.signal.core.read.motion.Motion;
import zesty.signal.core.read.orders.Orders;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.core.read.supply.Supply;
import zesty.signal.core.read.tone.Tone;
import zesty.signal.core.read.vibration.Vibration;
import zesty.signal.core.read.wind.Wind;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.OutputUse;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.SensorKind;
import zesty.signal.takes.Shelf;

/** Draws every main view from the demo data into PNG files, one after the other, and ends the program. Longer than others: a list of scenes. */
final class Pictures {
    /** So long until the lanes are full of live signal. */
    private static final double FILL_SECONDS = 22;

    private static final double SETTLE_SECONDS = 0.9;
    private final Workspace workspace;
    private final MainView view;
    private final SceneRunner scenes;
    private final ZestyApplication.Wish wish;

    Pictures(Workspace workspace, MainView view, Stage stage, ZestyApplication.Wish wish) {
        this.workspace = workspace;
        this.view = view;
        scenes = new SceneRunner(workspace, view, stage, wish);
        this.wish = wish;
    }

    void start() {
        scene(
                "first-start",
                () -> {
                    workspace.live().disconnect();
                    workspace.view().stop().set(Stop.SOURCE);
                },
                1.5);
        step(
                () -> {
                    workspace.view().stop().set(null);
                    workspace.live().connect("sim:deck");
                },
                1);
        scene("bench", () -> workspace.view().focus().set("pulse"), FILL_SECONDS);
        for (Stop stop : List.of(Stop.SOURCE, Stop.DECODE, Stop.SCALE, Stop.CLEAN, Stop.READ)) {
            scene(
                    stop.name().toLowerCase(java.util.Locale.ROOT),
                    () -> workspace.view().stop().set(stop),
                    SETTLE_SECONDS);
        }
        helping();
        step(
                () -> {
                    workspace.view().stop().set(null);
                    workspace.notice().set(null);
                    view.snapshots().press();
                },
                0.5);
        for (String place : List.of("at the mast", "at the tiller")) {
            step(() -> workspace.snapshots().take(place), 4);
        }
        scene("snapshots", () -> workspace.snapshots().take("on the foredeck"), 1.5);
        step(
                () -> {
                    workspace.snapshots().done();
                    view.snapshots().setVisible(false);
                },
                0.5);
        step(
                () -> {
                    view.capture().nextLength();
                    view.capture().nextLength();
                    view.capture().nextLength();
                    view.capture().nextLength();
                    view.capture().toggle();
                },
                1);
        scene("protocol", view.capture()::toggleForm, 22);
        step(
                () -> {
                    view.capture().toggleForm();
                    view.capture().toggle();
                },
                0.5);
        scene(
                "night",
                () -> {
                    workspace.view().stop().set(null);
                    workspace.notice().set(null);
                    workspace.view().look().set(Look.NIGHT);
                },
                1.5);
        scene(
                "takes",
                () -> {
                    workspace.view().look().set(Look.DAY);
                    workspace.notice().set(null);
                    workspace.view().takesOpen().set(true);
                },
                14);
        step(() -> view.logbook().choose(called("Sheet hand, rest to tired")), 3);
        stepOn("#show-phases", phases -> ((Button) phases).fire(), 0.2);
        scene("take-page", () -> {}, 1);
        step(() -> view.logbook().choose(called("Rudder stock, worn", "Rudder stock, well")), 3);
        stepOn("#show-overlay", over -> ((Button) over).fire(), 0.2);
        scene("compare", () -> {}, 3);
        stepOn("#close-wide", close -> ((Button) close).fire(), 0.2);
        stepOn("#take-folders", folders -> ((Button) folders).fire(), 0.2);
        scene("folders", () -> {}, 1);
        importing();
        scene(
                "stored-take",
                () -> {
                    workspace.notice().set(null);
                    workspace.takes().all().get().stream()
                            .filter(entry -> entry.title().startsWith("Long"))
                            .findFirst()
                            .ifPresent(entry -> workspace.open(entry.file()));
                    workspace.view().span().set(new Span(200, 260));
                },
                2.5);
        step(() -> workspace.view().span().set(Span.NONE), 0.2);
        scene(
                "muscle",
                () -> {
                    workspace.notice().set(null);
                    workspace.takes().all().get().stream()
                            .filter(entry -> entry.title().endsWith("tired"))
                            .findFirst()
                            .ifPresent(entry -> workspace.open(entry.file()));
                    workspace.view().stop().set(Stop.READ);
                },
                3);
        step(() -> workspace.view().stop().set(null), 0.5);
        scene("commands", view.sheets()::toggleList, SETTLE_SECONDS);
        scene(
                "sources",
                () -> {
                    view.sheets().toggleList();
                    workspace.backToLive();
                    workspace.view().stop().set(Stop.SOURCE);
                    workspace.live().join("sim:hull");
                    workspace.live().join("sim:masthead");
                },
                6);
        proving();
        planning();
        sharing();
        turning();
        heat();
        doubt();
        answer("spectrum", "hull", "ay", Vibration.NAME, Map.of("unit", "counts", Vibration.TURNS, "46"));
        answer("sound", "whistle+scale", "sound", Tone.NAME, Map.of());
        supply();
        stations();
        windy();
        choosing();
        answer("hits", "halyard", "knock", Hits.NAME, Map.of());
        lean();
        drying();
        knocks();
        stepping();
        trying();
        try {
            Files.createDirectories(wish.folder());
        } catch (IOException e) {
            scenes.fail(e);
            return;
        }
        scenes.next();
    }

    /** A plan for a pulse as it is first made: a lamp is aliased into it. */
    private void planning() {
        scene(
                "planner",
                () -> {
                    workspace.notice().set(null);
                    workspace.view().plannerOpen().set(true);
                },
                2);
        step(() -> workspace.view().plannerOpen().set(false), SETTLE_SECONDS);
    }

    /** Help at the place where the window is, and the sockets with a broker's open. */
    private void helping() {
        scene(
                "help",
                () -> {
                    workspace.notice().set(null);
                    workspace.view().stop().set(Stop.CLEAN);
                    view.sheets().toggleHelp();
                },
                2);
        scene(
                "first-hour",
                () -> {
                    view.sheets().toggleHelp();
                    workspace.view().stop().set(Stop.READ);
                    workspace.view().firstHour().set(5);
                    workspace.view().guided().set(true);
                },
                1.5);
        scene(
                "problem-report",
                () -> {
                    workspace.view().guided().set(false);
                    view.sheets().toggleReport();
                },
                1.5);
        step(
                () -> {
                    view.sheets().toggleReport();
                    workspace.view().stop().set(null);
                },
                SETTLE_SECONDS);
    }

    /** The page for a phone, open for a browser on this computer. */
    private void sharing() {
        scene(
                "phone",
                () -> {
                    workspace.notice().set(null);
                    workspace.view().phoneOpen().set(true);
                    workspace.sharing().open(Where.HERE);
                },
                2);
        step(
                () -> {
                    workspace.sharing().close();
                    workspace.view().phoneOpen().set(false);
                },
                SETTLE_SECONDS);
    }

    /** The same plan on its simulated board, with a rate at which no lamp is aliased. Last, for it takes another rig. */
    private void trying() {
        scene(
                "planner-tried",
                () -> {
                    workspace
                            .planning()
                            .change(workspace.planning().draft().get().withRate(121));
                    workspace.planning().tryIt();
                },
                25);
    }

    /** The sheet hand's elbow and the outboard's shaft. */
    private void turning() {
        step(
                () -> {
                    workspace.notice().set(null);
                    workspace.view().stop().set(Stop.READ);
                    workspace.live().connect("sim:elbow");
                },
                6);
        scene("kinds", () -> workspace.view().focus().set("ax1"), 6);
        scene(
                "joint",
                () -> {
                    List<String> columns = workspace.live().rig().channels().stream()
                            .map(one -> one.column())
                            .limit(12)
                            .toList();
                    workspace.change(rig ->
                            rig.acknowledging(Caution.BODY).withReader(new ReaderSetup(Joint.NAME, columns, Map.of())));
                },
                FILL_SECONDS);
        step(
                () -> {
                    workspace.notice().set(null);
                    workspace.live().connect("sim:shaft");
                },
                5);
        scene(
                "orders",
                () -> {
                    workspace.view().focus().set("vibration");
                    workspace.change(rig ->
                            rig.withReader(new ReaderSetup(Orders.NAME, List.of("vibration", "mark"), Map.of())));
                },
                12);
    }

    /** The cowling's heat picture as a strip over its lanes, and large with its parts. */
    private void heat() {
        step(
                () -> {
                    workspace.notice().set(null);
                    workspace.view().stop().set(null);
                    workspace.live().connect("sim:cowling");
                },
                6);
        scene("heat-lanes", () -> workspace.view().focus().set("hottest"), FILL_SECONDS);
        scene(
                "heat-picture",
                () -> {
                    PictureSetup setup = PictureSetup.NONE
                            .withRegion(Region.box("exhaust", 14, 9, 26, 18, Region.Measure.HOTTEST))
                            .withRegion(Region.box("cowl", 7, 6, 12, 19, Region.Measure.MEAN))
                            .withMend(PictureMend.NONE.withSurface(0.94, 20));
                    workspace.change(rig -> rig.withPicture(0, none -> setup));
                    workspace.view().focus().set("hottest");
                    workspace.view().stop().set(Stop.READ);
                },
                4);
    }

    private List<Path> called(String... titles) {
        return Stream.of(titles)
                .flatMap(title -> workspace.takes().all().get().stream()
                        .filter(entry -> entry.title().equals(title))
                        .map(Shelf.Entry::file))
                .toList();
    }

    /** A table from a spreadsheet, looked at before it is read. */
    private void importing() {
        scene(
                "import",
                () -> {
                    Path table = workspace.places().takes().resolve("rain gauge.csv");
                    try {
                        Files.writeString(
                                table,
                                "Logged in the shed\nZeit [ms];Regen [mm];Akku [V]\n0;0,0;3,91\n500;0,2;3,91\n1000;0,2;3,90\n"
                                        + "1500;0,4;3,90\n2000;0,4;3,90\n2500;0,6;3,89\n");
                    } catch (IOException e) {
                        scenes.fail(e);
                        return;
                    }
                    view.logbook().choose(List.of());
                    new Dropping(workspace, view).take(table);
                },
                2);
    }

    /** The hoist's load cell against known loads, as they hang on it one after the other. */
    private void proving() {
        step(
                () -> {
                    workspace.live().connect("sim:hoist");
                    workspace.view().stop().set(Stop.SCALE);
                },
                2.5);
        stepOn(
                "#prove",
                prove -> {
                    SensorKind weight = SensorKind.all().stream()
                            .filter(kind -> kind.sensor().takesCare().equals(Optional.of(Caution.LOAD)))
                            .findFirst()
                            .orElseThrow();
                    workspace.change(rig -> rig.withChannel("load", c -> c.withScaling(weight.on(c.scaling()))
                                    .withSensor(weight.sensor()))
                            .acknowledging(Caution.LOAD));
                    ((ToggleButton) prove).fire();
                },
                2.5);
        stepOn("#meter", meter -> hold(meter, "0"), 8);
        stepOn("#meter", meter -> hold(meter, "42"), 8);
        stepOn("#meter", meter -> hold(meter, "61.5"), 1.5);
        scene("prove", () -> {}, SceneRunner.PASS_SECONDS);
    }

    /** A heart by electrodes with early beats, and an episode of movement in which nobody can tell. */
    private void doubt() {
        step(
                () -> {
                    workspace.live().connect("sim:chest+early+movement");
                    workspace.view().stop().set(Stop.READ);
                },
                3);
        scene(
                "doubt",
                () -> {
                    workspace.view().focus().set("heart");
                    workspace.change(rig -> rig.acknowledging(Caution.BODY)
                            .withReader(ReaderSetup.on("heart", Pulse.NAME, Map.of(Pulse.SOURCE, "electrical"))));
                },
                30);
    }

    /** What can be read of a channel that nothing is read of. */
    private void choosing() {
        step(
                () -> {
                    workspace.live().connect("sim:halyard");
                    workspace.view().stop().set(null);
                },
                9);
        scene(
                "read-choose",
                () -> {
                    workspace.notice().set(null);
                    workspace.view().focus().set("knock");
                    workspace.view().stop().set(Stop.READ);
                },
                6);
    }

    /** Another answer, live from its board. */
    private void answer(String picture, String board, String column, String kind, Map<String, String> settings) {
        step(
                () -> {
                    workspace.live().connect("sim:" + board);
                    workspace.view().stop().set(Stop.READ);
                },
                3);
        scene(
                picture,
                () -> {
                    workspace.notice().set(null);
                    workspace.view().focus().set(column);
                    workspace.change(rig -> rig.withReader(ReaderSetup.on(column, kind, settings)));
                },
                14);
    }

    /** What the mark buoy draws from its battery. */
    private void supply() {
        step(() -> workspace.live().connect("sim:buoy"), 4);
        scene(
                "supply",
                () -> {
                    workspace.notice().set(null);
                    workspace.view().focus().set("current");
                    workspace.change(rig -> rig.withReader(
                            new ReaderSetup(Supply.NAME, List.of("current", "voltage"), Map.of("capacity", "2.6"))));
                    workspace.view().stop().set(Stop.READ);
                },
                40);
    }

    /** Six batteries side by side, one of them weak, one silent at times. */
    private void stations() {
        scene(
                "stations",
                () -> {
                    workspace.notice().set(null);
                    workspace.live().connect("sim:battery");
                    workspace.view().stop().set(Stop.READ);
                },
                44);
    }

    /** The drying cupboard, kept between two limits by its heater. */
    private void drying() {
        step(
                () -> {
                    workspace.live().connect("sim:cupboard");
                    workspace.view().stop().set(null);
                },
                3);
        step(
                () -> {
                    workspace.view().focus().set("air");
                    Watch air = new Watch.Column("air");
                    ActSetup act = ActSetup.NONE
                            .withRule(new Rule.OnSamples(
                                    "too cool", air, new Condition.Below(30), 2, new Rule.Holds(1, 0, 0, false)))
                            .withRule(new Rule.OnSamples("too hot", air, new Condition.Above(36), 1, Rule.Holds.NONE))
                            .withRule(new Rule.OnSamples("lost", air, new Condition.Silent(3), 0, Rule.Holds.NONE))
                            .withDeed("too hot", Deed.SAFE, true)
                            .withDeed("too hot", Deed.TONE, true)
                            .withDeed("lost", Deed.TONE, true)
                            .withOutput(
                                    new Output.ByRule("heater", "heat 0", "too cool", "heat 60", "heat 0", 600),
                                    new OutputUse("", true, Caution.HEAT));
                    workspace.change(rig -> rig.withAct(act).acknowledging(Caution.HEAT));
                    workspace.view().stop().set(Stop.ACT);
                },
                2);
        scene("act", () -> workspace.notice().set(null), 50);
    }

    /** Steps of the cupboard's heater, and what they tell. */
    private void stepping() {
        step(
                () -> {
                    workspace.live().connect("sim:cupboard");
                    workspace.view().stop().set(null);
                },
                3);
        step(
                () -> {
                    workspace.view().focus().set("air");
                    workspace.change(rig -> rig.withAct(ActSetup.NONE
                                    .withRule(new Rule.OnSamples(
                                            "too cool",
                                            new Watch.Column("air"),
                                            new Condition.Below(10),
                                            1,
                                            Rule.Holds.NONE))
                                    .withOutput(
                                            new Output.ByRule("heater", "heat 0", "too cool", "heat 60", "heat 0", 600),
                                            new OutputUse("", true, Caution.HEAT)))
                            .acknowledging(Caution.HEAT));
                    workspace.view().stop().set(Stop.ACT);
                },
                2);
        step(() -> workspace.acting().plan("heater", "air", StepPlan.parse("0 12 s, 40 75 s; stop above 60")), 30);
        scene("act-plan", () -> workspace.notice().set(null), 1);
        scene("act-steps", () -> workspace.notice().set(null), 65);
    }

    /** Knocks of the halyard, tapped along, counted on the scoreboard. */
    private void knocks() {
        step(
                () -> {
                    workspace.live().connect("sim:halyard");
                    workspace.view().stop().set(null);
                },
                9);
        step(
                () -> {
                    workspace.view().focus().set("knock");
                    workspace.change(rig -> rig.withAct(ActSetup.NONE
                            .withRule(new Rule.OnSamples(
                                    "knock",
                                    new Watch.Column("knock"),
                                    new Condition.Above(700),
                                    0,
                                    new Rule.Holds(0, 0, 0.3, false)))
                            .withDeed("knock", Deed.POINT, true)));
                    workspace.view().stop().set(Stop.ACT);
                },
                20);
        stepOn(
                "#events-count",
                count -> {
                    ((TextField) count).setText("12");
                    count.fireEvent(new ActionEvent());
                },
                2);
        scene("act-knocks", () -> workspace.notice().set(null), 2);
        scene("scoreboard", () -> workspace.view().scoreboard().set(true), 6);
        step(() -> workspace.view().scoreboard().set(false), 0.3);
    }

    /** Wind with its vane beside it. */
    private void windy() {
        step(
                () -> {
                    workspace.live().connect("sim:masthead+north");
                    workspace.view().stop().set(Stop.READ);
                },
                3);
        scene(
                "wind",
                () -> {
                    workspace.notice().set(null);
                    workspace.view().focus().set("cups");
                    workspace.change(rig -> rig.withReader(
                            new ReaderSetup(Wind.NAME, List.of("cups", "vane"), Map.of("factor", "0.8"))));
                },
                30);
    }

    /** A body that leans with the board, from nine columns. */
    private void lean() {
        step(
                () -> {
                    workspace.live().connect("sim:motion");
                    workspace.view().stop().set(Stop.READ);
                },
                3);
        scene(
                "lean",
                () -> {
                    workspace.notice().set(null);
                    workspace.view().focus().set("ax");
                    workspace.change(rig -> rig.withReader(new ReaderSetup(
                            Motion.NAME, List.of("ax", "ay", "az", "gx", "gy", "gz", "mx", "my", "mz"), Map.of())));
                },
                14);
    }

    private static void hold(Node meter, String says) {
        TextField field = (TextField) meter;
        field.setText(says);
        field.fireEvent(new ActionEvent());
    }

    private void stepOn(String query, Consumer<Node> set, double waitSeconds) {
        scenes.stepOn(query, set, waitSeconds);
    }

    private void step(Runnable set, double waitSeconds) {
        scenes.step(set, waitSeconds);
    }

    private void scene(String name, Runnable set, double waitSeconds) {
        scenes.scene(name, set, waitSeconds);
    }
}
