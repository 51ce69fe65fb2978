package zesty.signal.takes;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;

/** What was decided is kept with a take, goes along when it is cut or joined, and is missed when it is gone. */
class DecisionLogTest {
    @TempDir
    Path folder;

    private static final Decision ON = new Decision(1.25, Decision.Kind.RULE, "too hot", "on", 61.5, "");
    private static final Decision SENT =
            new Decision(1.25, Decision.Kind.OUTPUT, "fan", "fan \"100\"", Double.NaN, "rule, dry run");
    private static final Decision OFF = new Decision(3, Decision.Kind.RULE, "too hot", "off", 58.5, "");

    /** Five seconds of 20 rows each, dated from 100 s on. */
    private Path take(String name, double period, String started) throws TakeException {
        DelimitedFormat format = new DelimitedFormat(',', false, false, "", List.of(new Column("air", "")), null);
        Path file = folder.resolve(name);
        Rig rig = new Rig("Wren", SourceSetup.at("sim:locker"), format, List.of());
        try (TakeWriter writer = TakeWriter.create(file, name, rig, Instant.parse(started))) {
            for (int block = 0; block < 5; block++) {
                writer.append(new Block(
                        new TimeBase.Steady(100 + block * 20 * period, period),
                        new double[][] {new double[20]},
                        20,
                        List.of()));
                if (block == 1) {
                    writer.decided(ON.later(100));
                    writer.decided(SENT.later(100));
                }
                writer.commit();
            }
            writer.decided(OFF.later(100));
            writer.setRight(period, 99 * period);
            writer.finish();
        }
        return file;
    }

    private static List<Decision> decisions(Path file) throws TakeException {
        try (Take take = Take.open(file)) {
            take.verify();
            assertThat(take.damage()).isEmpty();
            return take.decisions();
        }
    }

    @Test
    void itComesBackAsItWent() throws Exception {
        assertThat(decisions(take("a.zest", 0.05, "2026-09-12T15:04:00Z"))).containsExactly(ON, SENT, OFF);
    }

    /** The clock of the stream was a fiftieth slow: what was decided stays at its row. */
    @Test
    void itsTimesAreSetRightWithThoseOfTheRows() throws Exception {
        Path file = folder.resolve("slow.zest");
        DelimitedFormat format = new DelimitedFormat(',', false, false, "", List.of(new Column("air", "")), null);
        try (TakeWriter writer = TakeWriter.create(
                file, "slow", new Rig("Wren", SourceSetup.at("sim:locker"), format, List.of()), Instant.EPOCH)) {
            for (int block = 0; block < 5; block++) {
                writer.append(
                        new Block(new TimeBase.Steady(block, 0.05), new double[][] {new double[20]}, 20, List.of()));
            }
            writer.decided(new Decision(3.5, Decision.Kind.RULE, "too hot", "on", 61, ""));
            writer.setRight(0.051, 4.95);
            writer.finish();
        }
        Decision moved = decisions(file).get(0);
        assertThat(moved.seconds()).isCloseTo(3.5 * 1.02, org.assertj.core.api.Assertions.within(1e-9));
        assertThat(moved.value()).isEqualTo(61);
    }

    @Test
    void itGoesAlongWhenATakeIsCutOrJoined() throws Exception {
        Path first = take("first.zest", 0.05, "2026-09-12T15:04:00Z");
        Path second = take("second.zest", 0.05, "2026-09-12T15:05:00Z");
        Path part = folder.resolve("part.zest");
        Path both = folder.resolve("both.zest");
        try (Take one = Take.open(first);
                Take other = Take.open(second)) {
            TakeTrim.write(one, 1, 2, part);
            TakeJoin.write(List.of(other, one), both);
        }
        assertThat(decisions(part)).containsExactly(ON.later(-1), SENT.later(-1));
        assertThat(decisions(both)).containsExactly(ON, SENT, OFF, ON.later(60), SENT.later(60), OFF.later(60));
    }

    @Test
    void aLineThatIsGoneOrAnotherIsToldAndTheRestIsRead() throws Exception {
        for (String damage : List.of(
                "DELETE FROM decision WHERE id = 2",
                "UPDATE decision SET value = 60 WHERE id = 1",
                "UPDATE decision SET kind = 'nobody' WHERE id = 3",
                "INSERT INTO decision SELECT 9, seconds, kind, name, what, value, why, check_sum FROM decision WHERE id = 1",
                "DROP TABLE decision")) {
            Path file = take("d" + damage.hashCode() + ".zest", 0.05, "2026-09-12T15:04:00Z");
            try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file);
                    Statement statement = connection.createStatement()) {
                statement.execute(damage);
            }
            try (Take take = Take.open(file)) {
                take.verify();
                assertThat(take.damage()).as(damage).isNotEmpty();
                assertThat(take.rows()).isEqualTo(100);
                assertThat(take.decisions().size()).as(damage).isBetween(0, 4);
            }
        }
    }

    @Test
    void aTakeWithoutDecisionsHasNoSuchTable() throws Exception {
        Path file = folder.resolve("plain.zest");
        DelimitedFormat format = new DelimitedFormat(',', false, false, "", List.of(new Column("air", "")), null);
        try (TakeWriter writer = TakeWriter.create(
                file, "plain", new Rig("Wren", SourceSetup.at("sim:locker"), format, List.of()), Instant.EPOCH)) {
            writer.append(new Block(new TimeBase.Steady(0, 1), new double[][] {{1, 2}}, 2, List.of()));
            writer.finish();
        }
        assertThat(decisions(file)).isEmpty();
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement statement = connection.createStatement()) {
            assertThat(TakeSchema.hasTable(statement, DecisionTable.NAME)).isFalse();
        }
    }
}
