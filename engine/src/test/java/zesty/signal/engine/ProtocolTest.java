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
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.core.rig.Protocol;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.RecordingSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.exchange.report.Report;
import zesty.signal.takes.Mark;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.Take;

/** A recording that goes through the phases of its rig's protocol and leaves a channel out. */
@Timeout(60)
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
        Protocol protocol = Protocol.parse("rest 3 s, 2 x (pull 2 s, let go 1 s), rest 0.05 min");
        assertThat(protocol.phases().stream().map(Protocol.Phase::name))
                .containsExactly("rest 1", "pull 1", "let go 1", "pull 2", "let go 2", "rest 2");
        Rig rig = Rig.blank("Wren", "file:" + capture(2000))
                .withRecording(new RecordingSetup(List.of("gust"), protocol, List.of("spare")))
                .withReaders(List.of(new ReaderSetup("level", List.of("pull"), Map.of())), List.of());
        assertThat(RigJson.read(RigJson.write(rig), "it")).isEqualTo(rig);
        Path file = folder.resolve("phases.zest");
        LinkAddress address = LinkAddress.parse(rig.source());
        Trail.FromStart order =
                new Trail.FromStart(file, "phases", RecordingPlan.through(protocol), Instant.EPOCH, true);
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
                            new Mark(5, 6, "let go 1"),
                            new Mark(6, 8, "pull 2"),
                            new Mark(8, 9, "let go 2"),
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
}
