package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import javafx.event.Event;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Scene;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Profile;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.Watch;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Snapshot;

/** Rules as sentences, limits dragged, outputs that wait for their caution and go safe, thresholds found from true events. */
@Timeout(300)
class ActWindowTest extends RealWindow {
    @TempDir
    Path folder;

    ActWindowTest() {
        super(true);
    }

    /** Opens a menu and takes the entry that holds the part. */
    private void choose(String query, String part) throws Exception {
        awaitNode(query);
        robot.interact(() -> {
            MenuButton menu = robot.lookup(query).queryAs(MenuButton.class);
            if (menu.getOnShowing() != null) {
                menu.getOnShowing().handle(null);
            }
            MenuItem item = menu.getItems().stream()
                    .filter(one -> one.getText() != null && one.getText().contains(part))
                    .findFirst()
                    .orElseThrow(() -> new AssertionError(part + " is none of "
                            + menu.getItems().stream().map(MenuItem::getText).toList()));
            if (item instanceof CheckMenuItem tick) {
                tick.setSelected(!tick.isSelected());
            }
            item.fire();
        });
    }

    private boolean offers(String query, String part) {
        return fx(() -> {
            MenuButton menu = robot.lookup(query).queryAs(MenuButton.class);
            menu.getOnShowing().handle(null);
            return menu.getItems().stream()
                    .anyMatch(one -> one.getText() != null && one.getText().contains(part));
        });
    }

    /** Presses a part of a sentence and writes it anew: again where the sentence was just being made anew itself. */
    private void pill(String query, String text) throws Exception {
        ActSetup before = act();
        for (int i = 0; i < 40 && act().equals(before); i++) {
            press(query);
            if (robot.lookup(query + "-box").tryQuery().isPresent()) {
                write(query + "-box", text);
            }
            for (int k = 0; k < 20 && act().equals(before); k++) {
                TimeUnit.MILLISECONDS.sleep(50);
            }
        }
        assertThat(act()).isNotEqualTo(before);
    }

    /** As {@link #choose}, of an entry that changes a rule or an output. */
    private void change(String query, String part) throws Exception {
        ActSetup before = act();
        for (int i = 0; i < 40 && act().equals(before); i++) {
            choose(query, part);
            TimeUnit.MILLISECONDS.sleep(250);
        }
        assertThat(act()).isNotEqualTo(before);
    }

    private ActSetup act() {
        return fx(() -> workspace().shown().rig().act());
    }

    private Rule.OnSamples rule(int index) {
        return (Rule.OnSamples) act().book().rules().get(index);
    }

    private static double heat(Snapshot snapshot) {
        return snapshot.channel("heat").orElseThrow().latestRaw();
    }

    private void escape(boolean down) {
        Scene scene = robot.lookup("#takes").query().getScene();
        robot.interact(() -> Event.fireEvent(
                scene.getRoot(),
                new KeyEvent(
                        down ? KeyEvent.KEY_PRESSED : KeyEvent.KEY_RELEASED,
                        "",
                        "",
                        KeyCode.ESCAPE,
                        false,
                        false,
                        false,
                        false)));
    }

    @Test
    void aHeaterIsSetUpDrivenAndMadeSafe() throws Exception {
        connect("cupboard", 3);
        robot.interact(() -> workspace().view().focus().set("air"));
        robot.interact(() -> workspace().acting().change(now -> ActSetup.NONE));
        key(KeyCode.DIGIT6);
        awaitText("#act-summary", "No rule on air yet");
        change("#add-rule", "air is above");
        change("#rule-0-when", "is below");
        pill("#rule-0-name", "too cool");
        pill("#rule-0-limit", "100");
        pill("#rule-0-hysteresis", "1");
        awaitText(".rule-state", "ON");
        awaitText("#limit-0", "100 °C ± 1");
        assertThat(rule(0).when()).isEqualTo(new Condition.Below(100));
        assertThat(rule(0).hysteresis()).isEqualTo(2);
        change("#rule-0-deeds", "send lines to a board");
        pill("#output-0-on", "heat 40");
        pill("#output-0-off", "heat 0");
        pill("#output-0-safe", "heat 0");
        change("#output-0-more", "heats");
        // A dry run shows what would be sent, and sends nothing.
        awaitText(".output-line", "heat 40");
        assertThat(heat(snapshot())).isZero();
        fire("#output-live-0");
        awaitText(".output-trouble", "caution above");
        assertThat(heat(snapshot())).isZero();
        press("#acknowledge");
        // It begins safe: the rule must have been off before it drives.
        pill("#rule-0-limit", "0");
        awaitText(".rule-state", "off");
        pill("#rule-0-limit", "100");
        until(s -> heat(s) == 40);
        awaitText("#safe-words", "output: heat 40");
        awaitText(".output-line", "answered");
        Output.ByRule output = (Output.ByRule) act().book().outputs().get(0);
        assertThat(output.on()).isEqualTo("heat 40");

        escape(true);
        awaitText("#safe-words", "Esc held down");
        escape(false);
        until(s -> heat(s) == 0);
        press("#release-outputs");
        awaitThat(() -> fx(() -> !robot.lookup("#safe-bar").query().isVisible()));
        assertThat(heat(snapshot())).isZero();

        // By hand, for as long as it is held.
        if (fx(() -> workspace().view().stop().get() == null)) {
            key(KeyCode.DIGIT6);
        }
        awaitText(".output-trouble", "safe until " + output.rule() + " has been off once");
        Bounds hold = still("#output-hold-0");
        robot.moveTo(hold.getCenterX(), hold.getCenterY()).press(MouseButton.PRIMARY);
        until(s -> heat(s) == 40);
        robot.release(MouseButton.PRIMARY);
        until(s -> heat(s) == 0);
        awaitText(".decision-sent", "heat 40");
        // A bench that is left while its button is held holds nothing any more.
        still("#output-hold-0");
        robot.press(MouseButton.PRIMARY);
        until(s -> heat(s) == 40);
        key(KeyCode.DIGIT4);
        until(s -> heat(s) == 0);
        robot.release(MouseButton.PRIMARY);
        key(KeyCode.DIGIT6);

        write("#plan-text", "20 60 s, 0 20 s; stop above 70");
        until(s -> heat(s) == 20);
        awaitText("#plan-says", "Setting 1 of 2");
        press("#start-plan");
        awaitText("#plan-says", "Plan ended by hand");
        until(s -> heat(s) == 0);

        dragged();
    }

    /** The handle goes with the mouse, and back with one key. */
    private void dragged() throws Exception {
        Bounds handle = still("#limit-0");
        Plot plot = robot.lookup("#act-picture .plot").queryAs(Plot.class);
        Point2D from = fx(() -> plot.localToScreen(plot.getWidth() / 2, plot.pixelY(100)));
        robot.moveTo(from.getX(), from.getY()).press(MouseButton.PRIMARY);
        robot.moveBy(0, 30).release(MouseButton.PRIMARY);
        awaitThat(() -> ((Condition.Below) rule(0).when()).limit() < 99);
        assertThat(((Condition.Below) rule(0).when()).limit()).isGreaterThan(20);
        key(KeyCode.U);
        awaitThat(() -> rule(0).when().equals(new Condition.Below(100)));
        assertThat(handle.getHeight()).isPositive();
    }

    /** Twelve events of 10 in noise of 1, at times known, and nine of 4 that are none. */
    private Path events() throws Exception {
        Random random = new Random(20_261_132);
        StringBuilder text = new StringBuilder("t_us,knock\n");
        for (int i = 0; i < 6000; i++) {
            double t = i / 100.0;
            double since = t % 5 - 2;
            double other = t % 7 - 6;
            double x = random.nextGaussian()
                    + (since >= 0 && since < 0.3 ? 10 : 0)
                    + (other >= 0 && other < 0.3 && !(since > -0.5 && since < 0.8) ? 4 : 0);
            text.append(String.format(Locale.ROOT, "%d,%.2f%n", 10_000L * i, x));
        }
        return Files.writeString(folder.resolve("knocks.txt"), text);
    }

    @Test
    void aThresholdIsFoundFromTrueEventsAndCountedOnTheScoreboard() throws Exception {
        Path file = events();
        robot.interact(() -> workspace().acting().change(now -> ActSetup.NONE));
        robot.interact(() -> workspace().live().connect("file:" + file));
        until(s -> s.health().state() == LinkState.OVER && s.channel("knock").isPresent());
        robot.interact(() -> workspace().shown().window().show(0, 60));
        key(KeyCode.DIGIT6);
        change("#add-rule", "knock is above");
        pill("#rule-0-limit", "1.5");
        if (rule(0).hysteresis() > 0) {
            pill("#rule-0-hysteresis", "0");
        }
        awaitText("#act-summary", "It flickers");
        write("#events-count", "12");
        awaitText("#tuning-says", "finds 12 of 12, none of them false");
        awaitText("#tuning-says", "Only their number was known");
        press("#clear-events");
        // Pointed at in the picture: at 2, 7, 12, … s.
        Plot plot = robot.lookup("#act-picture .plot").queryAs(Plot.class);
        double zero = fx(() -> workspace().shown().zero(workspace().shown().snapshot(System.nanoTime())));
        int pointed = 0;
        for (double at : new double[] {2, 7, 12, 17, 22, 27}) {
            Point2D there = fx(() -> plot.localToScreen(plot.pixelX(at + 0.05 - zero), plot.pixelY(9)));
            robot.clickOn(there);
            // Two clicks that a busy machine brings at once would be one of two.
            awaitText("#tuning-says", ++pointed < 3 ? pointed + " true event" : "of " + pointed + ",");
        }
        awaitText("#tuning-says", "finds 6 of 6, none of them false");
        awaitText("#tuning-says", "Checked on the half it was not chosen on: 3 of 3.");
        press("#use-best");
        awaitText("#act-summary", "on 12 times");
        double limit = ((Condition.Above) rule(0).when()).limit();
        assertThat(limit).isBetween(4.5, 9.5);

        // A profile makes percents of it, and another one moves the limit with it.
        robot.interact(() -> {
            MenuButton menu = robot.lookup("#profile").queryAs(MenuButton.class);
            menu.show();
        });
        write("#new-profile", "the helm");
        awaitText("#profile", "the helm");
        choose("#profile", "is rest");
        choose("#profile", "hardest pull");
        change("#rule-0-deeds", "in percent");
        awaitThat(() -> act().inPercent().contains(rule(0).name()));
        double percent = ((Condition.Above) rule(0).when()).limit();
        assertThat(percent).isBetween(30.0, 95.0);
        Rule.OnSamples inForce = (Rule.OnSamples) act().inForce().rules().get(0);
        assertThat(((Condition.Above) inForce.when()).limit()).isBetween(limit - 0.2, limit + 0.2);

        change("#rule-0-deeds", "add a point");
        key(KeyCode.V);
        awaitNode(".score");
        eventually(() -> assertThat(fx(
                        () -> robot.lookup(".score-name").queryAs(Label.class).getText()))
                .isEqualTo(rule(0).name()));
        key(KeyCode.ESCAPE);
        awaitThat(() -> fx(() -> !robot.lookup("#scoreboard").query().isVisible()));
        assertThat(List.copyOf(act().deedsOf(rule(0).name()))).hasSize(1);

        // Another rule's turning on tells the true events, too.
        change("#add-rule", "knock is above");
        awaitText("#act-summary", "In sight it would have been on");
        awaitThat(() -> offers("#events-from", "each time \u201c" + rule(0).name() + "\u201d turns on"));
        choose("#events-from", "each time \u201c" + rule(0).name() + "\u201d turns on");
        awaitText("#tuning-says", "finds 12 of 12, none of them false");
        ActSetup today = act();
        // Over a take of before: what today's rules would have decided.
        Path take = fx(() -> workspace().takes().all().get().get(0).file());
        robot.interact(() -> workspace().open(take));
        awaitThat(() -> !fx(() -> workspace().shown().isLive()));
        assertThat(act()).isNotEqualTo(today);
        press("#todays-rules");
        awaitThat(() -> act().equals(today));
        key(KeyCode.U);
        awaitThat(() -> !act().equals(today));
    }

    private static double grip(Snapshot snapshot) {
        return snapshot.channel("gripper/grip").map(one -> one.latestRaw()).orElse(Double.NaN);
    }

    /** Two boards: the envelope of one arm moves the gripper of the other board, in percent of whoever wears it. */
    @Test
    void aForearmDrivesTheGripperInPercentOfTwoProfilesAndByHand() throws Exception {
        connect("forearm-envelope", 1);
        robot.interact(() -> workspace().acting().change(now -> ActSetup.NONE));
        robot.interact(() -> workspace().live().join("sim:gripper"));
        until(s -> s.channel("gripper/grip").isPresent());
        robot.interact(() -> workspace().view().focus().set("envelope"));
        key(KeyCode.DIGIT6);
        change("#add-rule", "envelope is above");
        change("#add-output", "following envelope");
        pill("#output-0-name", "jaws");
        pill("#output-0-line", "grip {value}");
        pill("#output-0-safe", "grip 0");
        pill("#output-0-map", "20 > 0; 80 > 100");
        change("#output-0-more", "on the board gripper");
        change("#output-0-more", "moves");
        for (String who : List.of("the helm", "the crew")) {
            robot.interact(
                    () -> robot.lookup("#profile").queryAs(MenuButton.class).show());
            write("#new-profile", who);
            awaitText("#profile", who);
            // The crew pull ten times as hard, so that nothing the helm does moves their jaws.
            double full = who.equals("the helm") ? 300 : 9000;
            robot.interact(() -> workspace()
                    .acting()
                    .change(now -> now.withProfile(now.chosen()
                            .orElseThrow()
                            .with(new Profile.Span(new Watch.Column("envelope"), 12, full)))));
        }
        change("#output-0-more", "percents of a profile");
        awaitText(".rule-words", "in % of the crew");
        fire("#output-live-0");
        press("#acknowledge");
        until(s -> s.channel("envelope").orElseThrow().latestRaw() > 150, 90);
        assertThat(grip(snapshot())).isLessThan(5);
        choose("#profile", "the helm");
        awaitText("#profile", "the helm");
        until(s -> grip(s) > 40, 90);
        awaitText("#safe-words", "jaws: grip ");
        until(s -> grip(s) < 5, 90);
        // By hand it goes where the slider is, as long as it is held.
        robot.interact(() -> workspace().acting().change(now -> now.choosing("the crew")));
        until(s -> grip(s) == 0, 60);
        for (int tries = 1; grip(snapshot()) < 80; tries++) {
            Bounds slider = still("#output-hand-0");
            robot.moveTo(slider.getMaxX() - 8, slider.getCenterY()).press(MouseButton.PRIMARY);
            try {
                until(s -> grip(s) > 80, 20);
            } catch (AssertionError e) {
                // What stands above it may have grown by a line just as the button went down.
                assertThat(tries).as(e.getMessage()).isLessThan(3);
                robot.release(MouseButton.PRIMARY);
            }
        }
        robot.release(MouseButton.PRIMARY);
        until(s -> grip(s) < 5);

        sentences();
    }

    /** Rules of other shapes are written in their sentences, too. */
    private void sentences() throws Exception {
        change("#rule-0-when", "is between");
        assertThat(rule(0).when()).isInstanceOf(Condition.Inside.class);
        pill("#rule-0-limit2", "5000");
        pill("#rule-0-for", "0.5");
        assertThat(((Condition.Inside) rule(0).when()).high()).isEqualTo(5000);
        assertThat(rule(0).holds().forSeconds()).isEqualTo(0.5);
        change("#rule-0-deeds", "a dead time");
        pill("#rule-0-dead", "2");
        assertThat(rule(0).holds().deadSeconds()).isEqualTo(2);
        change("#add-rule", "which of three bands envelope");
        pill("#rule-1-bands", "20; 100; 400");
        assertThat(((Rule.InBands) act().book().rules().get(1)).edges()).containsExactly(20, 100, 400);
        awaitText(".rule-state", "\u25cf");
        change("#add-rule", "is off");
        awaitThat(() -> act().book().rules().get(2) instanceof Rule.Made);
        pill("#rule-2-name", "calm");
        // What cannot be is refused in words, and the old one stays.
        ActSetup before = act();
        press("#rule-0-limit");
        write("#rule-0-limit-box", "high");
        awaitThat(() -> fx(() -> workspace().notice().get().text()).contains("A number such as 60 is needed"));
        press("#rule-1-bands");
        write("#rule-1-bands-box", "20; 10");
        awaitThat(() -> fx(() -> workspace().notice().get().text()).contains("bands must rise"));
        assertThat(act()).isEqualTo(before);
        // Taking the first off takes what is made of it, and comes back with one key.
        press("#rule-off-0");
        awaitThat(() -> act().book().rules().size() == 1);
        key(KeyCode.U);
        awaitThat(() -> act().equals(before));
    }
}
