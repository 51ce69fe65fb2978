package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.app.window.drawing.PlotProbe;
import zesty.signal.app.window.workspace.Places;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.core.act.Band;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.step.StepResponse;
import zesty.signal.core.rig.BandSetup;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Scaling;
import zesty.signal.engine.Snapshot;
import zesty.signal.takes.TakeWriter;

/** Answers other than the pulse in the real window: chosen, set, read live against what the boards know to be true. */
@Timeout(400)
class ReadersWindowTest extends RealWindow {
    ReadersWindowTest() {
        super(false);
    }

    private static List<double[]> lines(Reading reading) {
        return reading.records("peaks");
    }

    @Test
    void theHumOfTheRudderIsNamedByItsLineAndWatchedByABand() throws Exception {
        connect("hull", 3);
        readWith("ay", "vibration");
        // The model hums at 46 Hz with a second harmonic of three tenths.
        Snapshot seen = until(s -> reading(s, "ay") != null
                && lines(reading(s, "ay")).size() >= 2
                && s.channel("ay").orElseThrow().clean().end() > 6000);
        List<double[]> lines = lines(reading(seen, "ay"));
        assertThat(lines.get(0)[0]).isCloseTo(46, within(0.3));
        assertThat(lines.get(1)[0]).isCloseTo(92, within(0.6));
        assertThat(lines.get(1)[1] / lines.get(0)[1]).isCloseTo(0.3, within(0.06));
        awaitText(".number-name", "RMS");
        // The comb of orders is pulled from its first tooth to twice as far.
        robot.interact(() -> workspace()
                .change(rig -> rig.withReader(rig.readersOn("ay").get(0).with("turns", "46"))));
        until(s -> reading(s, "ay").scalar("turning_hz") == 46);
        Node plot = robot.lookup("#spectrum").query();
        PlotProbe probe = new PlotProbe(plot);
        Bounds there = still("#spectrum");
        robot.drag(
                        new Point2D(there.getMinX() + fx(() -> probe.pixelOfFoot(46)), there.getCenterY()),
                        MouseButton.PRIMARY)
                .dropTo(new Point2D(there.getMinX() + fx(() -> probe.pixelOfFoot(92)), there.getCenterY()));
        until(s -> Math.abs(reading(s, "ay").scalar("turning_hz") - 92) < 4);
        key(KeyCode.U);
        until(s -> reading(s, "ay").scalar("turning_hz") == 46);
        write("#setting-peaks", "1");
        until(s -> lines(reading(s, "ay")).size() == 1);
        write("#setting-peaks", "none");
        awaitText(".error", "peaks takes a number from 1 to 50, was 'none'");
        String id = snapshot().rig().readersOn("ay").get(0).id();
        robot.interact(() -> workspace().change(rig -> rig.withBand(new BandSetup(id, "crest", new Band(5, 9, 0.1)))));
        until(s -> s.channel("ay").orElseThrow().reader().orElseThrow().bands().stream()
                .anyMatch(band -> band.side() == Band.Side.BELOW));
    }

    @Test
    void windIsReadFromCountedPulsesInItsOwnUnitAndSpansTheTake() throws Exception {
        connect("masthead", 2);
        readWith("cups", "wind");
        // What is typed and not finished stays, box and all, while another setting comes into force.
        awaitNode("#setting-per_turn");
        unfold("#setting-per_turn");
        TextField perTurn = robot.lookup("#setting-per_turn").query();
        TextField factor = robot.lookup("#setting-factor").query();
        robot.interact(() -> {
            perTurn.requestFocus();
            perTurn.setText("2");
            workspace()
                    .change(rig -> rig.withReader(rig.readersOn("cups").get(0).with("factor", "0.7")));
        });
        until(s -> fx(factor::getText).equals("0.7"));
        assertThat((Object) robot.lookup("#setting-per_turn").query()).isSameAs(perTurn);
        assertThat(perTurn.getText()).isEqualTo("2");
        strike(KeyCode.ENTER);
        Snapshot seen = until(s -> {
            Reading now = reading(s, "cups");
            return now != null
                    && now.trace("series").map(t -> t.seconds().length > 5).orElse(false)
                    && s.rig().readersOn("cups").get(0).settings().equals(Map.of("factor", "0.7", "per_turn", "2"));
        });
        Reading wind = reading(seen, "cups");
        // Pulses over the time they took, by hand: 0.7 m/s a turn a second, two pulses a turn.
        var raw = seen.channel("cups").orElseThrow().raw();
        double pulses = 0;
        for (long i = raw.start(); i < raw.end(); i++) {
            pulses += raw.value(i);
        }
        double seconds = (raw.end() - raw.start()) / 4.0;
        assertThat(wind.scalar("mean_mps")).isCloseTo(0.7 * pulses / 2 / seconds, within(0.25));
        assertThat(wind.scalar("gust_mps")).isGreaterThanOrEqualTo(wind.scalar("mean_mps"));
        awaitText(".number-name", "Gust");
    }

    @Test
    void aKindThatDoesNotSuitSaysWhatWould() throws Exception {
        connect("deck", 5);
        robot.interact(() -> workspace().view().focus().set("forearm"));
        key(KeyCode.DIGIT5);
        awaitText(".kind-fit", "A raw muscle signal needs 400 samples/s or more, not 200");
        robot.interact(() -> workspace()
                .change(rig -> rig.withReader(zesty.signal.core.rig.ReaderSetup.on("forearm", "muscle", Map.of()))));
        awaitText("#reader-words", "a raw muscle signal needs 400 samples/s or more, not 200");
        until(s -> s.rig().channels().stream().anyMatch(c -> c.column().equals("forearm")));
    }

    @Test
    void theBodyLeansWithTheBoardFromNineColumnsFoundByTheirNames() throws Exception {
        connect("motion", 9);
        readWith("gz", "motion", "ax");
        Snapshot seen = until(s -> reading(s, "ax") != null
                && s.channel("ax").orElseThrow().clean().end() > 1500);
        assertThat(seen.rig().readersOn("ax").get(0).columns())
                .containsExactly("ax", "ay", "az", "gx", "gy", "gz", "mx", "my", "mz");
        // The model rolls by 12 ± 9° every 6.1 s and heads 120 ± 15°; its clock is 1.5 s ahead of its first row.
        Reading motion = reading(seen, "ax");
        var times = seen.channel("ax").orElseThrow().stream().times();
        double boardSeconds = times.secondsAt(times.end() - 1) - times.secondsAt(times.start());
        double[] rolls = motion.items().stream()
                .filter(item -> item.key().equals("roll_deg"))
                .map(item -> ((Item.Numbers) item).values())
                .findFirst()
                .orElseThrow();
        double low = java.util.Arrays.stream(rolls).skip(rolls.length / 3).min().orElseThrow();
        double high =
                java.util.Arrays.stream(rolls).skip(rolls.length / 3).max().orElseThrow();
        assertThat(boardSeconds).isGreaterThan(14);
        assertThat(low).isCloseTo(3, within(1.5));
        assertThat(high).isCloseTo(21, within(1.5));
        assertThat(motion.scalar("heading")).isBetween(102.0, 138.0);
        awaitText("#angle-roll", "heel ");
        awaitText("#angle-heading", "heading 1");
        // Two axes that were plugged the wrong way round change places; the reader goes with its first column.
        @SuppressWarnings("unchecked")
        ComboBox<String> first = robot.lookup("#port-ax").queryAs(ComboBox.class);
        robot.interact(() -> first.setValue("ay"));
        until(s -> s.rig().readers().stream()
                .anyMatch(r -> r.columns().subList(0, 2).equals(List.of("ay", "ax"))));
        // Leaning to the right now reads as the bow up, which is below 0.
        Snapshot swapped =
                until(s -> reading(s, "ay") != null && reading(s, "ay").scalar("pitch") < -2);
        assertThat(swapped.rig().readers()).hasSize(1);
        key(KeyCode.U);
        until(s -> s.rig().readersOn("ax").size() == 1);
    }

    @Test
    void slapsOfTheHalyardAreLaidOverEachOtherAndPullsOfTheForearmStandAgainstTheHardest() throws Exception {
        connect("halyard", 1);
        readWith("knock", "hits", "knock");
        Snapshot seen =
                until(s -> reading(s, "knock") != null && reading(s, "knock").scalar("count") > 8);
        double[] hits = reading(seen, "knock").times("hits");
        List<Gap> gaps = seen.streams().get(0).gaps();
        var times = seen.channel("knock").orElseThrow().stream().times();
        for (int i = 1; i < hits.length; i++) {
            double from = hits[i - 1];
            double to = hits[i];
            // The model slaps every 0.25 to 0.75 s, in its own rows: their times by arrival stretch as a busy machine
            // is late.
            double between = (times.firstAtOrAfter(to) - times.firstAtOrAfter(from)) / 4000.0;
            // On a machine that stalls nobody knows how long a gap was.
            if (gaps.stream().noneMatch(gap -> gap.startSeconds() < to && gap.endSeconds() > from)) {
                assertThat(between)
                        .as("of %.3f s after %.3f, gaps %s", to - from, from, gaps)
                        .isBetween(0.24, 0.77);
            }
        }
        awaitNode("#laid");
        eventually(() -> assertThat(fx(() -> robot.lookup("#strengths").query().isVisible()))
                .isTrue());

        connect("forearm", 1);
        readWith("muscle", "muscle", "muscle");
        Snapshot pulled = until(s -> reading(s, "muscle") != null
                && reading(s, "muscle").events("bursts").size() >= 3);
        Reading muscle = reading(pulled, "muscle");
        assertThat(muscle.events("bursts").stream()
                        .mapToDouble(e -> e.values()[4])
                        .max()
                        .orElseThrow())
                .isCloseTo(100, within(1e-6));
        // Pulls take 1 to 3 s and come 1.3 to 3.3 s apart.
        assertThat(muscle.events("bursts").subList(0, 2))
                .allMatch(e -> e.endSeconds() - e.startSeconds() > 0.9 && e.endSeconds() - e.startSeconds() < 3.4);
        awaitText(".number-name", "Signal over noise");
        robot.interact(() -> workspace()
                .change(rig -> rig.withBand(new BandSetup("muscle(muscle)", "percent", new Band(-1000, 50, 5)))));
        until(
                s -> s
                        .channel("muscle")
                        .orElseThrow()
                        .reader()
                        .orElseThrow()
                        .band("percent")
                        .orElseThrow()
                        .decisions()
                        .stream()
                        .anyMatch(d -> d.side() == Band.Side.ABOVE));
    }

    /** A heater switched to 60 % after 20 s, and air that follows after 2 s with 0.4 °C a percent and 20 s. */
    private Path heated() throws Exception {
        Random random = new Random(5);
        int n = 700;
        double[][] rows = new double[2][n];
        for (int i = 0; i < n; i++) {
            double since = i / 5.0 - 22;
            rows[0][i] = i < 100 ? 0 : 60;
            rows[1][i] = 20 + (since < 0 ? 0 : 24 * (1 - Math.exp(-since / 20))) + 0.05 * random.nextGaussian();
        }
        Path file = new Places(home).takes().resolve("heater.zest");
        Files.createDirectories(file.getParent());
        DelimitedFormat format = new DelimitedFormat(
                ',', false, false, "", List.of(new Column("heat", "%"), new Column("air", "°C")), null);
        Rig rig = new Rig(
                        "Wren",
                        SourceSetup.at("stdin"),
                        format,
                        List.of(
                                new Channel("heat", "heat", Scaling.asItCame("%"), Recipe.NONE, true),
                                new Channel("air", "air", Scaling.asItCame("°C"), Recipe.NONE, true)))
                .withReader(new ReaderSetup(StepResponse.NAME, List.of("heat", "air"), Map.of()));
        try (TakeWriter writer = TakeWriter.create(file, "Heater", rig, Instant.parse("2026-09-05T09:00:00Z"))) {
            writer.append(new Block(new TimeBase.Steady(0, 0.2), rows, n, List.of()));
            writer.finish();
        }
        return file;
    }

    /** Drags a line of a plot from one place of its lower axis to another. On a slow machine it may be missed: the hand tries again. */
    private void drag(String plot, double from, double to, BooleanSupplier done) throws Exception {
        PlotProbe probe = new PlotProbe(robot.lookup(plot).query());
        for (int tries = 0; tries < 8 && !done.getAsBoolean(); tries++) {
            Bounds there = still(plot);
            double begin = there.getMinX() + fx(() -> probe.pixelOfFoot(from));
            double end = there.getMinX() + fx(() -> probe.pixelOfFoot(to));
            robot.drag(new Point2D(begin, there.getCenterY()), MouseButton.PRIMARY)
                    .dropTo(new Point2D(end, there.getCenterY()));
            TimeUnit.MILLISECONDS.sleep(400);
        }
    }

    private static Map<String, String> settings(Snapshot snapshot, String column) {
        return snapshot.rig().readersOn(column).get(0).settings();
    }

    @Test
    void aHeatersStepIsFittedAndItsCurveDraggedAndFittedAgain() throws Exception {
        Path take = heated();
        robot.interact(() -> workspace().open(take));
        Snapshot seen = until(s -> s.channel("heat").isPresent() && reading(s, "heat") != null);
        assertThat(reading(seen, "heat").scalar("gain")).isCloseTo(0.4, within(0.01));
        assertThat(reading(seen, "heat").scalar("tau_s")).isCloseTo(20, within(0.6));
        robot.interact(() -> {
            workspace().view().focus().set("heat");
            workspace().view().stop().set(Stop.READ);
        });
        awaitNode("#response-plot");
        drag("#response-plot", 42, 62, () -> settings(snapshot(), "heat").containsKey("tau"));
        Snapshot dragged = until(s -> settings(s, "heat").containsKey("tau"));
        assertThat(Double.parseDouble(settings(dragged, "heat").get("tau"))).isCloseTo(40, within(1.5));
        until(s -> reading(s, "heat").scalar("tau_s") > 38);
        awaitText("#step-by-hand", "The curve is set by hand: it leaves");
        press("#step-fit");
        until(s -> Math.abs(reading(s, "heat").scalar("tau_s") - 20) < 0.6);
    }

    @Test
    void aShaftsOrdersAreReadAtATilesPressAndTheDeadTimeOfItsKnocksIsDragged() throws Exception {
        connect("shaft", 2);
        robot.interact(() -> {
            workspace().view().focus().set("vibration");
            workspace().view().stop().set(Stop.READ);
        });
        tile("orders");
        Snapshot turning = until(
                s -> reading(s, "vibration") != null && reading(s, "vibration").scalar("turns") > 40);
        assertThat(reading(turning, "vibration").scalar("turning_hz")).isCloseTo(23, within(0.8));
        assertThat(reading(turning, "vibration").scalar("phase_deg")).isCloseTo(60, within(8.0));
        awaitNode("#orders-plot");

        connect("halyard", 1);
        readWith("knock", "hits", "knock");
        until(s -> reading(s, "knock") != null && reading(s, "knock").scalar("count") > 2);
        awaitNode("#laid");
        drag("#laid", 0.025, 0.08, () -> settings(snapshot(), "knock").containsKey("dead"));
        Snapshot set = until(s -> settings(s, "knock").containsKey("dead"));
        assertThat(Double.parseDouble(settings(set, "knock").get("dead"))).isCloseTo(0.08, within(0.004));

        connect("hoist", 1);
        robot.interact(() -> workspace().view().focus().set("load"));
        tile("motion");
        awaitText(".error", "Motion needs 3 columns of the same rows; here there are fewer.");
        eventually(() -> assertThat(snapshot().rig().readersOn("load")).isEmpty());
    }
}
