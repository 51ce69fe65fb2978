package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Labeled;
import javafx.scene.control.MenuButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.app.window.workspace.Places;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.core.plan.Bar;
import zesty.signal.core.plan.Bars;
import zesty.signal.core.plan.Draft;
import zesty.signal.core.scale.Divider;
import zesty.signal.core.scale.Scaling;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.Snapshot;
import zesty.signal.takes.RigJson;

/** A plan for a pulse, over budget, mended by two presses, tried on its simulated board, its code kept, and a take beside it. */
@Timeout(300)
class PlannerWindowTest extends RealWindow {
    PlannerWindowTest() {
        super(false);
    }

    private Draft draft() {
        return fx(() -> workspace().planning().draft().get());
    }

    private List<Path> made(String ending) throws Exception {
        Path folder = new Places(home).plans();
        for (int i = 0; i < 200; i++) {
            if (Files.isDirectory(folder)) {
                try (Stream<Path> all = Files.walk(folder)) {
                    List<Path> found =
                            all.filter(one -> one.toString().endsWith(ending)).toList();
                    if (!found.isEmpty()) {
                        return found;
                    }
                }
            }
            TimeUnit.MILLISECONDS.sleep(50);
        }
        return List.of();
    }

    @Test
    void aPlanIsMendedTriedAndHeldAgainstWhatCameOut() throws Exception {
        key(KeyCode.B);
        awaitNode("#plan-form");
        awaitText("#bar-frequency .hint", "a tone of 100 Hz is aliased to 0 Hz");
        press("#bar-frequency-mend-1");
        press("#bar-resolution-mend-1");
        assertThat(Bars.of(draft())).noneMatch(Bar::over);
        assertThat(draft().rateHz()).isEqualTo(121);

        // The end of a bar is pulled: one change, and it is taken back.
        Node bar = fx(() -> robot.lookup("#bar-line .plan-track").query().getParent());
        Bounds there = fx(() -> bar.localToScreen(bar.getBoundsInLocal()));
        double y = there.getCenterY();
        robot.drag(new Point2D(there.getMinX() + 0.2 * there.getWidth(), y), MouseButton.PRIMARY)
                .dropTo(new Point2D(there.getMinX() + 0.9 * there.getWidth(), y));
        assertThat(draft().rateHz())
                .isCloseTo(0.9 * 11_520 / draft().rowBytes(), within(0.03 * 11_520 / draft().rowBytes()));
        awaitText("#bar-line .hint", "too much");
        key(KeyCode.U);
        assertThat(draft().rateHz()).isEqualTo(121);
        // What cannot be is said, and the plan stays.
        write("#plan-channels", "2.5");
        awaitText("#plan-wrong", "A whole number is needed, was 2.5.");
        write("#plan-channels", "2");
        assertThat(draft().channels()).isEqualTo(2);
        awaitText("#plan-row", "1204512345;120451;");

        press("#plan-code");
        List<Path> code = made("board.c");
        assertThat(code).hasSize(1);
        assertThat(Files.readString(code.get(0))).contains("121");
        press("#plan-print");
        assertThat(Files.size(made(".pdf").get(0))).isGreaterThan(5000);
        press("#plan-rig");
        awaitText("#notice", "Rig saved: Planned: pulse");
        Path rig = new Places(home).rigs().resolve("planned-pulse.json");
        assertThat(RigJson.read(Files.readString(rig), "rig").channels()).hasSize(2);

        press("#plan-try");
        Snapshot tried = until(
                s -> s.channels().size() == 2
                        && s.hasSamples()
                        && s.channel("column3").isPresent()
                        && reading(s, "column3") != null
                        && reading(s, "column3").scalar("rate_bpm.mean") > 0,
                60);
        assertThat(tried.channel("column3").orElseThrow().rateHz()).isCloseTo(121, within(0.5));
        assertThat(tried.channel("column3").orElseThrow().channel().unit()).isEqualTo("V");
        // What was decided goes back onto the board: compiled here, run on what came, and held against the lanes.
        robot.interact(() -> workspace().view().stop().set(Stop.CLEAN));
        press("#portable-code");
        boolean compiler = Stream.of(System.getenv("PATH").split(File.pathSeparator))
                .anyMatch(one -> Files.isExecutable(Path.of(one, "cc")));
        awaitText("#notice", compiler ? "In whole numbers (folder fixed): largest difference 0.00" : "No C compiler");
        assertThat(made("column3.c")).hasSize(2);
        robot.interact(() -> workspace().recordings().start(RecordingLimit.ofSamples(600)));
        until(s -> !s.recording().running() && s.recording().rows() == 600, 30);
        eventually(() -> assertThat(fx(() -> workspace().takes().all().get())).isNotEmpty());
        key(KeyCode.B);
        awaitNode("#plan-form");
        MenuButton compare = robot.lookup("#plan-compare").query();
        robot.interact(compare::show);
        robot.interact(() -> {
            compare.getItems().get(0).fire();
            compare.hide();
        });
        awaitText("#plan-against .mono", "121 rows/s");
        List<String> said = fx(() -> robot.lookup("#plan-against .mono").queryAllAs(Labeled.class).stream()
                .map(Labeled::getText)
                .toList());
        // Planned and real by turns: rate, channels, noise, swing, lost, delay.
        assertThat(said.get(0)).isEqualTo("121 rows/s");
        assertThat(said.get(1)).isEqualTo("121 rows/s");
        assertThat(said.subList(2, 4)).containsExactly("2", "2");
        assertThat(said.get(9)).isEqualTo("0 %");
        // The lamp is a quarter of the swing, which no plan of the converter's noise knows.
        assertThat(said.get(5)).startsWith("▲");
        // A part that was planned becomes the channel's scaling: 25 V through a divider for a converter of 5 V.
        press("#plan-scale");
        Scaling scaled = until(
                        s -> s.channel("column3")
                                        .orElseThrow()
                                        .channel()
                                        .scaling()
                                        .conversion()
                                instanceof Divider,
                        30)
                .channel("column3")
                .orElseThrow()
                .channel()
                .scaling();
        assertThat(scaled.apply(1023)).isBetween(25.0, 30.0);
        assertThat(scaled.unit()).isEqualTo("V");
    }
}
