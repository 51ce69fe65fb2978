package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import javafx.scene.Parent;
import javafx.scene.control.Label;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.app.window.workspace.Places;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.read.response.ChangeAfter;
import zesty.signal.core.read.supply.Supply;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.TakeWriter;

/** A sleepy board's day, the weak one of six batteries, and the pulse after three frights, in the real window. */
@Timeout(300)
class PowerWindowTest extends RealWindow {
    PowerWindowTest() {
        super(false);
    }

    private String said(String query) {
        return fx(() -> robot.lookup(query).queryAllAs(Label.class).stream()
                .map(Label::getText)
                .reduce("", (a, b) -> a + "|" + b));
    }

    @Test
    void aSleepyBoardsDayIsWorkedOutAndTheWeakBatteryIsNamed() throws Exception {
        robot.interact(() -> workspace().live().connect("sim:buoy"));
        until(s -> s.channels().size() == 2 && s.hasSamples());
        robot.interact(() -> {
            workspace()
                    .change(rig -> rig.withReader(
                            new ReaderSetup(Supply.NAME, List.of("current", "voltage"), Map.of("capacity", "2.6"))));
            workspace().view().focus().set("current");
            workspace().view().stop().set(Stop.READ);
        });
        awaitText("#supply-states .label", "sending");
        // By its own model: 0.35 mA for 3.2 s of four, 18 mA for 0.6 s, 94 mA for 0.2 s.
        double share = 0;
        for (int i = 0; i < 600 && !(share > 4 && share < 6.5); i++) {
            String[] row = said("#supply-states .label").split("\\|");
            share = Double.parseDouble(row[7].replace(" %", ""));
            TimeUnit.MILLISECONDS.sleep(100);
        }
        String[] row = said("#supply-states .label").split("\\|");
        assertThat(row[5]).isEqualTo("sending");
        assertThat(Double.parseDouble(row[6].replace(" mA", ""))).isBetween(90.0, 97.0);
        assertThat(share).isBetween(4.0, 6.5);
        awaitText(".bench .hint", "All day like this");
        awaitText(".bench .hint", "days at that");

        robot.interact(() -> workspace().live().connect("sim:battery"));
        until(s -> s.channels().size() == 12);
        robot.interact(() -> workspace().view().focus().set("volts 1"));
        awaitNode("#station-rows");
        awaitText("#stations-said", "volts 4 is weak");
        eventually(() -> assertThat(said("#station-4")).endsWith("|weak"));
        awaitText("#station-6", "lost for");
        awaitText("#stations-said", "volts 6 is silent");
        awaitText("#station-6", "live");
    }

    /** A pulse of 68 that wanders, and goes up by 24 within five seconds of each fright. */
    private static double[] frightened(List<Double> frights, int seconds) {
        Random random = new Random(4);
        double[] rate = new double[seconds];
        double wander = 0;
        for (int i = 0; i < seconds; i++) {
            wander = 0.85 * wander + 1.1 * random.nextGaussian();
            rate[i] = 68 + wander;
            for (double fright : frights) {
                double since = i - fright - 1;
                rate[i] += since <= 0 ? 0 : 24 * (since / 5) * Math.exp(1 - since / 5);
            }
        }
        return rate;
    }

    @Test
    void thePulseAfterThreeFrightsIsLaidOverItselfAndAskedWhetherItIsChance() throws Exception {
        List<Double> frights = List.of(80.0, 210.0, 330.0);
        double[] rate = frightened(frights, 480);
        Path file = new Places(home).takes().resolve("frights.zest");
        Files.createDirectories(file.getParent());
        DelimitedFormat format = new DelimitedFormat(',', false, false, "", List.of(new Column("pulse", "/min")), null);
        Rig rig = new Rig(
                        "Wren",
                        SourceSetup.at("stdin"),
                        format,
                        List.of(new Channel("pulse", "pulse", Scaling.asItCame("/min"), Recipe.NONE, true)))
                .withReader(ReaderSetup.on("pulse", ChangeAfter.NAME, Map.of("mark", "fright", "until", "40")));
        try (TakeWriter writer =
                TakeWriter.create(file, "Helm, three frights", rig, Instant.parse("2026-09-05T09:00:00Z"))) {
            writer.append(new Block(new TimeBase.Steady(0, 1), new double[][] {rate}, rate.length, List.of()));
            for (double fright : frights) {
                writer.mark(fright, "fright");
            }
            writer.mark(150, "tack");
            writer.finish();
        }
        robot.interact(() -> workspace().open(file));
        until(s -> s.channel("pulse").isPresent() && s.hasSamples());
        robot.interact(() -> {
            workspace().view().focus().set("pulse");
            workspace().view().stop().set(Stop.READ);
        });
        awaitText("#repeats-said", "3 repeats: +2");
        awaitText("#repeats-said", ": a response.");
        robot.interact(() -> {
            javafx.scene.control.ComboBox<String> marker =
                    robot.lookup("#repeats-marker").query();
            marker.setValue("tack");
        });
        awaitText("#repeats-said", "1 repeat: ");
        awaitText("#repeats-said", "perhaps no response at all");
        eventually(() -> assertThat(
                        fx(() -> ((Parent) robot.lookup("#repeats-plot").query())
                                .getBoundsInLocal()
                                .getHeight()))
                .isGreaterThan(150));
    }
}
