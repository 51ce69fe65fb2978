package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.scene.control.TextField;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Scaling;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.Snapshot;
import zesty.signal.takes.TakeWriter;

/** Full disks, damage, foreign files and folders that go, in the real window: told in place, and nothing lost. */
@Timeout(400)
class PressureWindowTest extends RealWindow {
    private static final int PIECE = 1000;

    PressureWindowTest() {
        super(false);
    }

    private static Rig rig() {
        DelimitedFormat format = new DelimitedFormat(
                ',', false, false, "", List.of(new Column("load", "kg"), new Column("heat", "°C")), null);
        return new Rig(
                "hoist",
                SourceSetup.at(""),
                format,
                List.of(
                        new Channel("load", "Load", Scaling.asItCame("kg"), Recipe.NONE, true),
                        new Channel("heat", "Heat", Scaling.asItCame("°C"), Recipe.NONE, true)));
    }

    private TakeWriter recorded(Path file) throws Exception {
        TakeWriter writer = TakeWriter.create(file, "Hoist", rig(), Instant.EPOCH);
        for (int at = 0; at < 5 * PIECE; at += PIECE) {
            double[] load = new double[PIECE];
            Arrays.fill(load, 40 + at / PIECE);
            double[] heat = new double[PIECE];
            Arrays.fill(heat, 21.5);
            writer.append(
                    new Block(new TimeBase.Steady(at * 0.01, 0.01), new double[][] {load, heat}, PIECE, List.of()));
        }
        writer.commit();
        return writer;
    }

    private static void sql(Path take, String... statements) throws Exception {
        try (Connection stock = DriverManager.getConnection("jdbc:sqlite:" + take);
                Statement statement = stock.createStatement()) {
            for (String one : statements) {
                statement.executeUpdate(one);
            }
        }
    }

    @Test
    void aDamagedTakeOpensWithoutWhatIsDamagedAndSaysSo() throws Exception {
        Path file = home.resolve("hurt.zest");
        try (TakeWriter writer = recorded(file)) {
            writer.finish();
        }
        sql(
                file,
                "UPDATE block_values SET base = base + 7 WHERE column_id = 1 AND first_row = 2000",
                "UPDATE take SET value = replace(value, 'kg', 'lb') WHERE key = 'rig'");
        robot.interact(() -> workspace().open(file));
        Snapshot stored = until(
                s -> s.health().state() == LinkState.STORED && s.channels().size() == 2);
        awaitText("#notice", "This take is damaged in 3 places, which are left out; the first: ");
        Series load = stored.channels().get(0).raw();
        assertThat(load.value(load.start() + 1999)).isEqualTo(41);
        assertThat(load.value(load.start() + 2000)).isNaN();
        assertThat(load.value(load.start() + 3000)).isEqualTo(43);
        // Its rig is lost: no unit is claimed that the file does not vouch for.
        assertThat(stored.channels().get(0).channel().scaling().unit()).isEqualTo("kg");
    }

    @Test
    void anExportToAFullDiskOrOntoSomebodysFileIsToldAndHarmsNothing() throws Exception {
        Path shelf = Files.createDirectories(workspace().places().takes());
        try (TakeWriter writer = recorded(shelf.resolve("hoist.zest"))) {
            writer.finish();
        }
        Path theirs = Files.writeString(home.resolve("theirs.csv"), "somebody's work");
        Path full = Files.createSymbolicLink(home.resolve("full.csv"), Path.of("/dev/full"));
        click("#takes");
        awaitNode("Export");
        export(theirs);
        awaitText("#notice", "theirs.csv is there already and was not made this way; choose another name");
        assertThat(theirs).hasContent("somebody's work");
        export(full);
        awaitText("#notice", "full.csv cannot be written: the disk is full");
        Path good = home.resolve("good.csv");
        export(good);
        awaitText("#notice", "Exported to");
        assertThat(Files.readAllLines(good))
                .hasSize(5 * PIECE + 1)
                .last()
                .asString()
                .startsWith("49.99,44,21.5");
        try (var left = Files.list(home)) {
            assertThat(left.map(f -> f.getFileName().toString())).noneMatch(name -> name.contains("unfinished"));
        }
    }

    private void export(Path to) throws Exception {
        click("Export");
        awaitNode("#export-path");
        TextField path = robot.lookup("#export-path").query();
        robot.interact(() -> path.setText(to.toString()));
        click("#export-write");
    }

    @Test
    void aTakeThatAnotherProgramRecordsIsNotTouched() throws Exception {
        Path file = home.resolve("live.zest");
        try (TakeWriter writer = recorded(file)) {
            robot.interact(() -> workspace().open(file));
            awaitText("#notice", "live.zest is still being recorded; stop the recording first");
            writer.append(new Block(new TimeBase.Steady(50, 0.01), new double[][] {{1}, {2}}, 1, List.of()));
            writer.finish();
        }
        robot.interact(() -> workspace().open(file));
        until(s -> s.health().state() == LinkState.STORED);
    }

    @Test
    void aFolderThatGoesWhileRecordingStopsItWithWordsAndTheLanesRunOn() throws Exception {
        robot.interact(() -> workspace().live().connect("sim:deck"));
        until(s -> s.health().state() == LinkState.LIVE && s.channels().size() == 5);
        robot.interact(() -> workspace().recordings().start(RecordingLimit.NONE));
        until(s -> s.recording().running() && s.recording().rows() > 100);
        Files.move(workspace().places().takes(), home.resolve("moved"));
        until(s -> !s.recording().running());
        awaitText("#notice", "the take's file or folder is gone");
        long rows = snapshot().health().rows();
        until(s -> s.health().state() == LinkState.LIVE && s.health().rows() > rows + 100);
    }

    @Test
    void aRecordingBeginsAtOnceWhileLongWorkRuns() throws Exception {
        robot.interact(() -> workspace().live().connect("sim:deck"));
        until(s -> s.health().state() == LinkState.LIVE && s.channels().size() == 5);
        CountDownLatch working = new CountDownLatch(1);
        boolean[] gaveUp = {false};
        robot.interact(() -> workspace()
                .tasks()
                .atLength(
                        "Writing a mountain",
                        "it failed",
                        goOn -> {
                            working.countDown();
                            while (goOn.test(0.5)) {
                                TimeUnit.MILLISECONDS.sleep(20);
                            }
                            gaveUp[0] = true;
                            return "done";
                        },
                        said -> workspace().say(said)));
        assertThat(working.await(10, TimeUnit.SECONDS)).isTrue();
        click("#record");
        until(s -> s.recording().running() && s.recording().rows() > 20);
        // The work is still under way, its progress is shown, and it can be given up.
        awaitText("#busy", "Writing a mountain");
        assertThat(fx(() -> workspace().tasks().progress().get())).isEqualTo(0.5);
        // What comes after it is told instead, is given up by itself, and leaves the first as it was.
        robot.interact(() -> workspace()
                .tasks()
                .inOrder(
                        "Digging",
                        "it failed",
                        goOn -> {
                            while (goOn.test(0.25)) {
                                TimeUnit.MILLISECONDS.sleep(20);
                            }
                            throw new CancellationException();
                        },
                        nothing -> workspace().say("dug")));
        awaitText("#busy", "Digging");
        click("Cancel");
        awaitText("#notice", "Digging: given up");
        awaitText("#busy", "Writing a mountain");
        assertThat(gaveUp[0]).isFalse();
        click("Cancel");
        awaitText("#notice", "done");
        assertThat(gaveUp[0]).isTrue();
        assertThat(snapshot().recording().running()).isTrue();
        click("#record");
        until(s -> !s.recording().running());
    }
}
