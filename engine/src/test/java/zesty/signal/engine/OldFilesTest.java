package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.act.Band;
import zesty.signal.core.rig.BandSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SensorKind;
import zesty.signal.takes.FormatJson;
import zesty.signal.takes.KindJson;
import zesty.signal.takes.Mark;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.Take;

/** Files written before readers had kinds, kept as they were written. */
class OldFilesTest {
    private static final Path OLD = Path.of("src", "test", "resources", "old");

    @TempDir
    Path folder;

    @Test
    void anOldRigHasItsReaderAndItsBand() throws Exception {
        Rig rig = RigJson.read(Files.readString(OLD.resolve("deck.json")), "deck.json");
        assertThat(rig.readers()).singleElement().satisfies(r -> assertThat(r.id())
                .isEqualTo("pulse(pulse)"));
        assertThat(rig.bands()).containsExactly(new BandSetup("pulse(pulse)", "rate_bpm.mean", new Band(60, 100, 3)));
    }

    @Test
    void anOldTakeOpensAndSaysTheRateItSaidThen() throws Exception {
        Path copy = Files.copy(OLD.resolve("deck.zest"), folder.resolve("deck.zest"));
        try (Take take = Take.open(copy)) {
            assertThat(take.rows()).isEqualTo(4001);
            Snapshot snapshot = StoredTake.load(take).snapshot();
            ReaderSnapshot pulse =
                    snapshot.channel("pulse").orElseThrow().reader().orElseThrow();
            // 76.117 beats/min by the reader of that time, which marked the tops; now the steepest rises are marked.
            assertThat(pulse.headline()).isCloseTo(76.117, within(0.05));
            assertThat(pulse.bands()).singleElement().satisfies(band -> assertThat(band.side())
                    .isEqualTo(Band.Side.INSIDE));
        }
        List<Double> shares = new ArrayList<>();
        try (Take take = Take.open(copy)) {
            StoredTake.load(take, share -> shares.add(share));
            assertThat(shares).isSorted().hasSizeGreaterThan(5).endsWith(1.0);
            assertThatThrownBy(() -> StoredTake.load(take, share -> share < 0.6))
                    .isInstanceOf(CancellationException.class);
        }
        assertThat(copy).hasSameBinaryContentAs(OLD.resolve("deck.zest"));
    }

    /** Takes of two boards, each written and exported by the program of its version: the sums are of those exports. */
    @ParameterizedTest
    @CsvSource({"version2.zest, 152, 82188, 9, 168.75, 57.381494", "version3.zest, 600, 324167, 15, 283, 898.506604"})
    void aTakeOfEachVersionGivesWhatItsOwnProgramExported(
            String name, int rows, double pulses, int others, double degrees, double times) throws Exception {
        Path copy = Files.copy(OLD.resolve(name), folder.resolve(name));
        try (Take take = Take.open(copy)) {
            take.verify();
            assertThat(take.damage()).isEmpty();
            assertThat(take.rows(0)).isEqualTo(rows);
            assertThat(take.rows(1)).isEqualTo(others);
            assertThat(sum(take.column(1))).isEqualTo(pulses);
            assertThat(sum(take.column(6))).isCloseTo(degrees, within(1e-9));
            assertThat(sum(take.times(0))).isCloseTo(times, within(1e-5));
            assertThat(StoredTake.load(take).snapshot().channels()).hasSize(7);
            // Also a span goes into it, and comes back.
            take.marks(List.of(new Mark(0.25, 0.5, "gust"), new Mark(0.5, "tack")));
        }
        try (Take take = Take.open(copy)) {
            take.verify();
            assertThat(take.damage()).isEmpty();
            assertThat(take.marks()).containsExactly(new Mark(0.25, 0.5, "gust"), new Mark(0.5, "tack"));
            assertThat(sum(take.column(1))).isEqualTo(pulses);
        }
    }

    /** Today's version, kept for the day when it is an earlier one. */
    @Test
    void aTakeOfThisVersionGivesWhatItsProgramExported() throws Exception {
        Path copy = Files.copy(OLD.resolve("version4.zest"), folder.resolve("version4.zest"));
        try (Take take = Take.open(copy)) {
            take.verify();
            assertThat(take.damage()).isEmpty();
            assertThat(take.title()).isEqualTo("Masthead, version 4");
            assertThat(take.rows()).isEqualTo(24);
            assertThat(sum(take.times(0))).isCloseTo(69, within(1e-6));
            assertThat(sum(take.column(1))).isEqualTo(60);
            assertThat(sum(take.column(2))).isEqualTo(5345);
            assertThat(take.marks()).containsExactly(new Mark(1.5, "gust"));
        }
    }

    /** What a later version wrote is refused in a sentence that says so, and stays as it is. */
    @Test
    void whatALaterVersionWroteIsRefusedAndNotSpoilt() throws Exception {
        Path take = Files.copy(OLD.resolve("version4.zest"), folder.resolve("later.zest"));
        try (var database = DriverManager.getConnection("jdbc:sqlite:" + take);
                var statement = database.createStatement()) {
            statement.execute("PRAGMA user_version = 99");
        }
        byte[] before = Files.readAllBytes(take);
        assertThatThrownBy(() -> Take.open(take)).hasMessageContaining("written by a later version (format 99");
        assertThat(take).hasBinaryContent(before);
        String rig = Files.readString(OLD.resolve("deck.json")).replace("\"zesty_rig\": 1", "\"zesty_rig\": 99");
        assertThatThrownBy(() -> RigJson.read(rig, "theirs.json"))
                .hasMessage("theirs.json is a rig of a later version");
        String kind = KindJson.write(SensorKind.all().get(1)).replaceFirst("(\"zesty_\\w*kind\" *: *)1", "$199");
        assertThatThrownBy(() -> KindJson.read(kind, "theirs.json"))
                .hasMessageContaining("no sensor kind of version 1");
        String format = FormatJson.write(RigJson.read(Files.readString(OLD.resolve("deck.json")), "deck.json")
                        .format())
                .replaceFirst("(\"zesty_\\w*format\" *: *)1", "$199");
        assertThatThrownBy(() -> FormatJson.read(format, "theirs.json")).hasMessageContaining("no format of version 1");
    }

    private static double sum(double[] values) {
        return Arrays.stream(values).sum();
    }
}
