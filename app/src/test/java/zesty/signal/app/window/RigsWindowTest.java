package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.app.window.workspace.DemoData;
import zesty.signal.core.act.Band;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.rig.BandSetup;
import zesty.signal.core.rig.Limits;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Line;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Snapshot;
import zesty.signal.takes.RigJson;

/** Rigs by name, what was changed taken back and done again, and the window's first minutes, in the real window. */
@Timeout(400)
class RigsWindowTest extends RealWindow {
    RigsWindowTest() {
        super(false);
    }

    private void deck() throws Exception {
        robot.interact(() -> workspace().live().connect("sim:deck"));
        until(s -> s.health().state() == LinkState.LIVE && s.channels().size() == 5 && s.hasSamples());
    }

    /** Presses an entry of the menu that opens from the rig's name. */
    private void menu(String id) throws Exception {
        MenuButton button = robot.lookup("#rig").queryAs(MenuButton.class);
        robot.interact(() -> {
            MenuItem item = all(button.getItems()).stream()
                    .filter(one -> id.equals(one.getId()))
                    .findFirst()
                    .orElseThrow();
            item.fire();
        });
    }

    private static List<MenuItem> all(List<MenuItem> items) {
        List<MenuItem> all = new ArrayList<>();
        for (MenuItem item : items) {
            all.add(item);
            if (item instanceof javafx.scene.control.Menu menu) {
                all.addAll(all(menu.getItems()));
            }
        }
        return all;
    }

    private void named(String name) throws Exception {
        awaitNode("#rig-name");
        TextField field = robot.lookup("#rig-name").query();
        eventually(() -> assertThat(fx(field::isFocused)).isTrue());
        robot.interact(() -> field.setText(name));
        strike(KeyCode.ENTER);
    }

    private void awaitTitle(String title) throws Exception {
        MenuButton button = robot.lookup("#rig").queryAs(MenuButton.class);
        eventually(() -> assertThat(fx(button::getText)).isEqualTo(title));
    }

    @Test
    void aRigIsNamedKeptChangedSharedAndChosenAgain() throws Exception {
        deck();
        menu("rig-rename");
        named("Spring refit");
        awaitTitle("Spring refit");
        robot.interact(() -> workspace().change(rig -> rig.withChannel("heel", c -> c.withName("Heel at the mast"))));
        menu("rig-keep");
        awaitText("#notice", "Saved: Spring refit");
        Path kept = home.resolve("rigs").resolve("spring-refit.json");
        assertThat(RigJson.read(Files.readString(kept), "kept").channels())
                .anyMatch(c -> c.name().equals("Heel at the mast"));

        // Changed after it was kept, shared as a file, and another begun.
        robot.interact(() -> workspace().change(rig -> rig.withChannel("trim", c -> c.withShown(false))));
        Path shared = home.resolve("for a friend.json");
        robot.interact(() -> workspace().rigs().share(shared));
        awaitText("#notice", "for a friend.json");
        menu("rig-new");
        awaitTitle("My rig");
        eventually(() -> assertThat(snapshot().health().state()).isEqualTo(LinkState.IDLE));

        // Chosen again from the name: as it was kept, running, without what was changed since.
        MenuButton button = robot.lookup("#rig").queryAs(MenuButton.class);
        key(KeyCode.G);
        eventually(() -> assertThat(fx(() -> all(button.getItems()).toString())).contains("spring-refit"));
        menu("use-rig-spring-refit.json");
        robot.interact(button::hide);
        awaitTitle("Spring refit");
        until(s -> s.health().state() == LinkState.LIVE
                && s.channel("heel")
                        .filter(c -> c.channel().name().equals("Heel at the mast"))
                        .isPresent());
        eventually(() -> assertThat(
                        snapshot().channel("trim").orElseThrow().channel().shown())
                .isTrue());

        // The friend's file brings the change; U goes back to the rig before.
        robot.interact(() -> workspace().rigs().use(shared));
        until(s -> s.channel("trim").filter(c -> !c.channel().shown()).isPresent());
        key(KeyCode.U);
        until(s -> s.channel("trim").filter(c -> c.channel().shown()).isPresent());

        // A copy under another name, over which another is kept: what lay there can be put back.
        menu("rig-copy");
        named("Race day");
        awaitText("#notice", "Saved: Race day");
        String first = Files.readString(home.resolve("rigs").resolve("race-day.json"));
        robot.interact(() -> workspace().change(rig -> rig.withChannel("bilge", c -> c.withShown(false))));
        menu("rig-keep");
        awaitText("#notice", "Saved over the earlier one");
        click("#undo");
        awaitText("#notice", "Put back");
        assertThat(home.resolve("rigs").resolve("race-day.json")).hasContent(first);
    }

    @Test
    void aFileThatIsNoRigIsNamedAndARecordingHoldsTheRig() throws Exception {
        deck();
        Path rubbish = Files.writeString(home.resolve("rubbish.json"), "{\"rig\": 3");
        robot.interact(() -> workspace().rigs().use(rubbish));
        awaitText("#notice", "rubbish.json");
        assertThat(snapshot().health().state()).isEqualTo(LinkState.LIVE);
        menu("rig-rename");
        named("   ");
        awaitText("#notice", "A rig needs a name");
        click("#record");
        until(s -> s.recording().running());
        menu("rig-new");
        awaitText("#notice", "A recording is running with this rig; stop it first.");
        assertThat(snapshot().recording().running()).isTrue();
    }

    private record Change(String words, UnaryOperator<Rig> change) {}

    @Test
    void tenChangesOfManyKindsGoBackAndForthEachNamed() throws Exception {
        deck();
        String pulse =
                ReaderSetup.on("pulse", "pulse", Map.of("kind", "optical")).id();
        List<Change> changes = List.of(
                new Change(
                        "cleaning of heel", rig -> rig.withChannel("heel", c -> c.withRecipe(Recipe.parse("mean:9")))),
                new Change("the name of trim", rig -> rig.withChannel("trim", c -> c.withName("Trim, bow up"))),
                new Change(
                        "scaling of bilge",
                        rig -> rig.withChannel(
                                "bilge", c -> c.withScaling(c.scaling().withConversion(new Line(0.1, -1), "cm")))),
                new Change("forearm hidden", rig -> rig.withChannel("forearm", c -> c.withShown(false))),
                new Change(
                        "what is read",
                        rig -> rig.withReader(ReaderSetup.on("pulse", "pulse", Map.of("kind", "optical")))),
                new Change("a band", rig -> rig.withBand(new BandSetup(pulse, "rate_bpm.mean", new Band(55, 110, 2)))),
                new Change(
                        "the limits of bilge",
                        rig -> rig.withChannel("bilge", c -> c.withLimits(new Limits(Double.NaN, 40)))),
                new Change("the rig's name", rig -> rig.withName("Ten changes")),
                new Change("cleaning of heel", rig -> rig.withChannel("heel", c -> c.withRecipe(Recipe.NONE))),
                new Change("forearm shown", rig -> rig.withChannel("forearm", c -> c.withShown(true))));
        List<Rig> states = new ArrayList<>();
        states.add(snapshot().rig());
        for (Change change : changes) {
            robot.interact(() -> workspace().change(change.change()));
            Rig before = states.get(states.size() - 1);
            states.add(until(s -> !s.rig().equals(before)).rig());
        }
        for (int i = changes.size() - 1; i >= 0; i--) {
            Rig wanted = states.get(i);
            key(KeyCode.U);
            awaitText("#notice", "Taken back: " + changes.get(i).words());
            same(wanted, changes.get(i).words());
        }
        for (int i = 0; i < changes.size(); i++) {
            Rig wanted = states.get(i + 1);
            key(KeyCode.SHIFT, KeyCode.U);
            awaitText("#notice", "Done again: " + changes.get(i).words());
            same(wanted, changes.get(i).words());
        }
        key(KeyCode.SHIFT, KeyCode.U);
        awaitText("#notice", "Nothing to do again.");
    }

    private void same(Rig wanted, String after) throws Exception {
        eventually(() -> assertThat(snapshot().rig()).as(after).isEqualTo(wanted));
    }

    @Test
    void fromNothingToALiveReadingByKeysAlone() throws Exception {
        awaitText(".welcome-title", "Nothing is plugged in yet");
        Node take = robot.lookup("#take-dinghy").query();
        robot.interact(take::requestFocus);
        strike(KeyCode.SPACE);
        until(s -> s.channels().size() == 5 && s.hasSamples());
        eventually(() -> assertThat(fx(() -> robot.lookup("#welcome").query().isVisible()))
                .isFalse());
        // The bytes are on the ribbon, in their columns.
        awaitText(".ribbon-name", "forearm");
        key(KeyCode.DIGIT5);
        awaitText(".kind-fit", "Looks like one");
        robot.press(KeyCode.SHIFT);
        strike(KeyCode.DIGIT1);
        robot.release(KeyCode.SHIFT);
        until(s -> s.rig().readersOn("pulse").stream().anyMatch(r -> r.kind().equals("pulse")));
        until(s -> s.channel("pulse")
                .orElseThrow()
                .reader()
                .filter(r -> r.headline() > 40)
                .isPresent());
        awaitText(".card-value", "7");
        // With a bench open only the card of the lane in sight stands at its end.
        eventually(() -> assertThat(fx(() -> robot.lookup(".card").queryAll())).hasSize(1));
        key(KeyCode.ESCAPE);
        awaitText(".stop-how", "quality");
        eventually(() -> assertThat(fx(() -> robot.lookup(".card").queryAll())).hasSize(5));
    }

    /** The rig of the whole boat is kept with the demo: five boards at once, each answer within what its board does. */
    @Test
    void theWholeBoatIsReadFromItsFiveBoardsAtOnce() throws Exception {
        Path kept = home.resolve("rigs").resolve("wren-the-whole-boat.json");
        DemoData.keepBoat(kept.getParent());
        robot.interact(() -> workspace().rigs().use(kept));
        Snapshot boat = until(
                s -> s.rig().sources().size() == 5
                        && s.channels().size() == 20
                        && answer(s, "hull/ay", "rms") > 300
                        && answer(s, "halyard/knock", "count") > 6
                        && answer(s, "masthead/cups", "mean_mps") > 1
                        && answer(s, "motion/ax", "roll") > 0
                        && answer(s, "pulse", "rate_bpm.mean") > 40,
                60);
        assertThat(boat.rig().channels().stream().filter(c -> c.shown())).hasSize(6);
        assertThat(answer(boat, "motion/ax", "roll")).isBetween(1.0, 23.0);
    }

    private static double answer(Snapshot snapshot, String column, String scalar) {
        return snapshot.channel(column)
                .flatMap(c -> c.reader())
                .map(r -> r.reading())
                .map(r -> r.scalar(scalar))
                .orElse(Double.NaN);
    }
}
