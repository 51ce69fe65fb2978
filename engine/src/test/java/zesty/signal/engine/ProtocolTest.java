package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.rig.Protocol;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.RecordingSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.exchange.report.Report;
import zesty.signal.takes.Mark;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.Take;

/** A recording that goes through the phases of its rig's protocol and leaves a channel out. */
@Timeout(240)
class ProtocolTest {
    @TempDir
    Path folder;

    /** A board's capture of 100 rows a second: what rises by the hundredth, and what is not wanted. */
    private Path capture(int rows) throws Exception {
        StringBuilder text = new StringBuilder("t_us,pull,spare\n");
        for (int i = 0; i < rows; i++) {
            text.append(10_000L * i)
                    .append(',')
                    .append(i / 100.0)
                    .append(',')
                    .append(i % 7)
                    .append('\n');
        }
        return Files.writeString(folder.resolve("board.txt"), text);
    }

    @Test
    void phasesAreSpansToTheSampleAndEachReaderSaysItsNumbersOfEach() throws Exception {
        Protocol protocol = Protocol.parse("rest 3 s, 2 x (pull 2 s, pause 1 s), rest 0.05 min");
        assertThat(protocol.phases().stream().map(Protocol.Phase::name))
                .containsExactly("rest 1", "pull 1", "pause 1", "pull 2", "pause 2", "rest 2");
        Rig rig = Rig.blank("Wren", "file:" + capture(2000))
                .withRecording(new RecordingSetup(List.of("gust"), protocol, List.of("spare")))
                .withReaders(List.of(new ReaderSetup("level", List.of("pull"), Map.of())), List.of());
        assertThat(RigJson.read(RigJson.write(rig), "it")).isEqualTo(rig);
        Path file = folder.resolve("phases.zest");
        LinkAddress address = LinkAddress.parse(rig.source());
        FromStart order = new FromStart(file, "phases", RecordingPlan.through(protocol), Instant.EPOCH, true);
        try (Trail trail = Trail.startRecording(rig, address, address.link(), order)) {
            for (int i = 0;
                    i < 800 && trail.snapshot(System.nanoTime()).recording().file() == null || trail.recording();
                    i++) {
                TimeUnit.MILLISECONDS.sleep(25);
            }
            assertThat(trail.stopRecording().problem()).isEmpty();
        }
        try (Take take = Take.open(file)) {
            assertThat(take.columns().stream().map(c -> c.name())).containsExactly("t_us", "pull");
            assertThat(take.damage()).isEmpty();
            assertThat(take.rows()).isEqualTo(1200);
            assertThat(take.marks())
                    .containsExactly(
                            new Mark(0, 3, "rest 1"),
                            new Mark(3, 5, "pull 1"),
                            new Mark(5, 6, "pause 1"),
                            new Mark(6, 8, "pull 2"),
                            new Mark(8, 9, "pause 2"),
                            // The last row comes a period before the end.
                            new Mark(9, 11.99, "rest 2"));
            Report.Table table = PhaseTables.of(take).get(0);
            int mean = table.head().indexOf("mean");
            assertThat(table.rows()).hasSize(7);
            // Both ends are held: of 3 to 5 s the rows 300 to 500.
            assertThat(number(table.rows().get(1).get(mean))).isCloseTo(4, within(0.001));
            assertThat(number(table.rows().get(3).get(mean))).isCloseTo(7, within(0.001));
            assertThat(number(table.rows().get(6).get(mean))).isCloseTo(5.995, within(0.001));
        }
    }

    private static double number(String text) {
        return Double.parseDouble(text.split(" ")[0]);
    }

    @Test
    void whatIsNoProtocolIsRefusedInWords() {
        for (String wrong : List.of("rest", "rest 0 s", "3 x (pull 5 s", "pull 5 s, , rest 3 s", "500 x (a 1 s)")) {
            assertThatThrownBy(() -> Protocol.parse(wrong))
                    .as(wrong)
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageContaining("protocol");
        }
        assertThat(Protocol.parse("  ")).isEqualTo(Protocol.NONE);
        assertThat(Protocol.parse("a 90 s").length()).isEqualTo("1 min 30 s");
    }

    private static void until(BooleanSupplier what) throws InterruptedException {
        for (int i = 0; i < 1200 && !what.getAsBoolean(); i++) {
            TimeUnit.MILLISECONDS.sleep(25);
        }
        assertThat(what.getAsBoolean()).isTrue();
    }

    private static boolean has(Trail trail, String column) {
        return trail.snapshot(System.nanoTime()).channel(column).isPresent();
    }

    /** While it runs: spans by hand, a change of the cleaning, and another limit, which counts the rows of one board. */
    @Test
    void whatIsDoneWhileItRunsIsKeptWithItsTime() throws Exception {
        Rig rig = Rig.blank("Wren", "sim:deck").joined("mast", SourceSetup.at("sim:motion"));
        Path file = folder.resolve("two.zest");
        try (Trail trail = Trail.start(rig)) {
            until(() -> has(trail, "pulse") && has(trail, "mast/ax"));
            trail.record(file, "two", RecordingLimit.NONE, Instant.EPOCH);
            until(() -> trail.snapshot(System.nanoTime()).recording().seconds() > 0.3);
            assertThat(trail.mark("gust", System.nanoTime())).isTrue();
            Rig before = trail.rig();
            trail.change(
                    RigChange.between(before, before.withChannel("heel", c -> c.withRecipe(Recipe.parse("mean:5")))));
            trail.change(RigChange.between(before, before.withChannel("heel", c -> c.withShown(false))));
            until(() -> trail.snapshot(System.nanoTime()).recording().seconds() > 0.8);
            assertThat(trail.markEnd("gust", System.nanoTime())).isTrue();
            double now = trail.snapshot(System.nanoTime()).nowSeconds(System.nanoTime());
            assertThat(trail.mark("slip", System.nanoTime())).isTrue();
            assertThat(trail.changeMark(new Mark(now, "slip"), new Mark(now, "step")))
                    .isTrue();
            assertThat(trail.mark("wrong", System.nanoTime())).isTrue();
            assertThat(trail.changeMark(new Mark(now, "wrong"), null)).isTrue();
            assertThat(trail.changeMark(null, new Mark(now - 0.5, now, "late"))).isTrue();
            // Of another text or another time there is none: nothing is changed.
            trail.changeMark(new Mark(now, "nothing"), new Mark(now, "something"));
            trail.changeMark(new Mark(now + 60, "step"), null);
            trail.limitRecording(RecordingLimit.ofSamples(150, 1));
            until(() -> !trail.recording());
            assertThat(trail.stopRecording().problem()).isEmpty();
            assertThat(trail.markEnd("gust", System.nanoTime())).isFalse();
        }
        try (Take take = Take.open(file)) {
            assertThat(take.damage()).isEmpty();
            assertThat(take.rows(1)).isEqualTo(150);
            assertThat(take.rows(0)).isGreaterThan(150);
            List<Mark> marks = take.marks();
            assertThat(marks)
                    .filteredOn(mark -> mark.text().startsWith("changed:"))
                    .singleElement()
                    .satisfies(mark -> assertThat(mark.text()).isEqualTo("changed: cleaning of heel is now mean:5"));
            assertThat(marks).extracting(Mark::text).contains("step").doesNotContain("slip", "wrong", "something");
            assertThat(marks)
                    .filteredOn(mark -> mark.text().equals("late"))
                    .singleElement()
                    .satisfies(mark ->
                            assertThat(mark.untilSeconds() - mark.seconds()).isCloseTo(0.5, within(1e-6)));
            assertThat(marks)
                    .filteredOn(mark -> mark.isSpan() && mark.text().equals("gust"))
                    .singleElement()
                    .satisfies(mark -> {
                        assertThat(mark.untilSeconds() - mark.seconds()).isBetween(0.3, 30.0);
                    });
        }
    }

    /** A phase that the recording does not outlive ends with its last row; the next one never begins. */
    @Test
    void aProtocolThatIsCutShortEndsWithTheLastRow() throws Exception {
        Protocol protocol = Protocol.parse("rest 2 s, pull 10 s, rest 10 s");
        Rig rig = Rig.blank("Wren", "file:" + capture(500)).withRecording(RecordingSetup.NONE.withProtocol(protocol));
        Path file = folder.resolve("short.zest");
        LinkAddress address = LinkAddress.parse(rig.source());
        FromStart order = new FromStart(file, "short", RecordingPlan.through(protocol), Instant.EPOCH, true);
        try (Trail trail = Trail.startRecording(rig, address, address.link(), order)) {
            until(() -> trail.snapshot(System.nanoTime()).health().state() == LinkState.OVER);
            trail.stopRecording();
        }
        try (Take take = Take.open(file)) {
            assertThat(take.rows()).isEqualTo(500);
            assertThat(take.marks()).containsExactly(new Mark(0, 2, "rest 1"), new Mark(2, 4.99, "pull"));
        }
    }

    @Test
    void aPlanThatMakesNoSenseIsRefused() {
        Protocol protocol = Protocol.parse("rest 2 s");
        RecordingCue cue = RecordingCue.parse("pull > 5");
        assertThatThrownBy(() -> new RecordingPlan(RecordingLimit.NONE, null, cue, 0, null, false, protocol))
                .hasMessageContaining("begins with its recording");
        assertThatThrownBy(() -> RecordingPlan.nextTime("25:10")).hasMessageContaining("a time of day such as 14:30");
        Instant now = Instant.now();
        for (String clock : List.of("7:05", "07:05", "23:59:59", " 0:00 ")) {
            assertThat(RecordingPlan.nextTime(clock)).isBetween(now.minusSeconds(1), now.plusSeconds(86_400 + 3600));
        }
    }
}
