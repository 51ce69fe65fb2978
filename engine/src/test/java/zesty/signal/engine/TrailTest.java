package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static zesty.signal.engine.Await.until;

import java.io.ByteArrayOutputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.SimulatedLink;
import zesty.signal.boards.sim.DeckBoard;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.scale.Formula;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.CsvExport;
import zesty.signal.takes.Take;

@Timeout(240)
class TrailTest {
    @TempDir
    Path folder;

    /** A deck board on the far end of a serial cable. It runs on while the cable is out, as a board on a battery does. */
    private static final class FarBoard {
        private final DeckBoard board = new DeckBoard(DeckBoard.Settings.usual(5));
        private final long start = System.nanoTime();
        private long lines;
        final List<String> sent = new ArrayList<>();

        /** Sends the next lines when each is due. */
        void write(OutputStream out, int count) throws Exception {
            for (int i = 0; i < count; i++) {
                byte[] line = next();
                out.write(line);
                sent.add(new String(line, StandardCharsets.US_ASCII).strip());
                TimeUnit.NANOSECONDS.sleep(Math.max(0, start + lines * 5_000_000L - System.nanoTime()));
            }
        }

        /** Lets pass what is due by now. @return how many lines that were */
        int pass() {
            int passed = 0;
            while (start + lines * 5_000_000L < System.nanoTime()) {
                next();
                passed++;
            }
            return passed;
        }

        private byte[] next() {
            ByteArrayOutputStream line = new ByteArrayOutputStream();
            board.next(line);
            lines++;
            return line.toByteArray();
        }
    }

    @Test
    void aSerialPlugPulledAndPutBackLeavesAGapAndNoOtherLoss() throws Exception {
        Path file = folder.resolve("serial.zest");
        PtyPair cable = new PtyPair(folder);
        LinkAddress address = LinkAddress.parse("serial:" + cable.computer + "@115200");
        Rig rig = Rig.blank("test", address.text());
        List<String> sent;
        int passed;
        try (Trail trail = Trail.startRecording(
                rig, address, address.link(), new FromStart(file, "t", RecordingLimit.NONE, Instant.EPOCH))) {
            until(trail, s -> s.health().state() == LinkState.WARMING_UP);
            FarBoard far = new FarBoard();
            try (OutputStream out = cable.boardEnd()) {
                out.write("t_us,pulse,forearm,heel,trim,bilge\n".getBytes(StandardCharsets.US_ASCII));
                far.write(out, 300);
            }
            until(trail, s -> s.health().rows() == 300);
            assertThat(trail.snapshot(System.nanoTime()).health().state()).isIn(LinkState.LIVE, LinkState.HELD);
            cable.close();
            TimeUnit.MILLISECONDS.sleep(1000);
            Snapshot lost = until(trail, s -> s.health().state() == LinkState.LOST);
            assertThat(lost.health().reason()).contains("is not there");
            try (PtyPair again = new PtyPair(folder);
                    OutputStream out = again.boardEnd()) {
                until(trail, s -> s.health().state() == LinkState.HELD);
                // What was half sent when the plug went in is not believed: the first line only ends it.
                out.write("9,514\n".getBytes(StandardCharsets.US_ASCII));
                passed = far.pass();
                far.write(out, 300);
                until(trail, s -> s.health().rows() == 600);
            }
            sent = far.sent;
        }
        long unheard = passed;
        try (Take take = Take.open(file)) {
            assertThat(take.rows()).isEqualTo(600);
            List<String> kept = new ArrayList<>();
            double[][] columns = new double[6][];
            for (int c = 0; c < 6; c++) {
                columns[c] = take.column(c);
            }
            for (int row = 0; row < 600; row++) {
                StringBuilder line = new StringBuilder();
                for (int c = 0; c < 6; c++) {
                    line.append(c == 0 ? "" : ",").append((long) columns[c][row]);
                }
                kept.add(line.toString());
            }
            assertThat(kept).isEqualTo(sent);
            assertThat(take.gaps()).singleElement().satisfies(gap -> {
                // The board's clock tells to the line how many it wrote to nobody.
                assertThat(gap.missing()).isEqualTo(unheard).isGreaterThan(200);
            });
        }
    }

    @Test
    void theSimulatedBoardsPulseIsReadLiveAndRecordingsEndAtTheirLimit() throws Exception {
        DeckBoard board = new DeckBoard(DeckBoard.Settings.usual(3));
        Rig rig = new Rig(
                        "test",
                        SourceSetup.at("sim:deck"),
                        null,
                        List.of(new Channel(
                                "pulse", "Pulse", Scaling.asItCame("counts"), Recipe.parse("bandpass:0.5..8@2"), true)))
                .withReader(ReaderSetup.on("pulse", "pulse", Map.of()));
        Path bySamples = folder.resolve("samples.zest");
        try (Trail trail = Trail.startRecording(
                rig,
                LinkAddress.parse("sim:deck"),
                new SimulatedLink(board, 1e6, 200 * 60),
                new FromStart(bySamples, "t", RecordingLimit.ofSamples(777), Instant.EPOCH))) {
            Snapshot over = until(
                    trail,
                    s -> s.health().state() == LinkState.OVER
                            && !Double.isNaN(s.lastSeconds())
                            && s.lastSeconds() > 59.9);
            assertThat(over.rateHz()).isEqualTo(200);
            assertThat(over.channels())
                    .extracting(c -> c.channel().column())
                    .containsExactly("pulse", "forearm", "heel", "trim", "bilge");
            // The reading is over the last 20 s: the truth over the same.
            List<Double> truth =
                    board.pulse().truth().stream().filter(t -> t > 40 && t < 60).toList();
            double trueRate = 60 * (truth.size() - 1) / (truth.get(truth.size() - 1) - truth.get(0));
            until(
                    trail,
                    s -> s.channels().get(0).reader().isPresent()
                            && s.channels().get(0).reader().get().events().size() > 60
                            && Math.abs(s.channels().get(0).reader().get().headline() - trueRate) < 1.0);
            until(trail, s -> !s.recording().running());

            // A changed recipe works the past out again.
            trail.change(RigChange.between(
                    trail.rig(), trail.rig().withChannel("pulse", c -> c.withRecipe(Recipe.parse("offset:1000")))));
            Snapshot changed = until(
                    trail, s -> s.channels().get(0).channel().recipe().text().equals("offset:1000"));
            ChannelSnapshot pulse = changed.channels().get(0);
            assertThat(pulse.clean().end()).isEqualTo(pulse.raw().end());
            assertThat(pulse.clean().value(5000)).isEqualTo(pulse.raw().value(5000) + 1000);
        }
        try (Take take = Take.open(bySamples)) {
            assertThat(take.rows()).isEqualTo(777);
            StoredTake stored = StoredTake.load(take);
            assertThat(stored.snapshot().health().state()).isEqualTo(LinkState.STORED);
            assertThat(stored.snapshot().rateHz()).isCloseTo(200, within(0.1));
        }
    }

    @Test
    void aChannelWorkedOutOfTwoColumnsFollowsBothAndIsTheSameFromTheTake() throws Exception {
        StringBuilder text = new StringBuilder("t_ms,cell volts,amps\n");
        for (int i = 0; i < 500; i++) {
            text.append(i * 10 + "," + (12 + i % 7) + "," + i % 5 + "\n");
        }
        Path capture = Files.writeString(folder.resolve("bytes.txt"), text);
        Path file = folder.resolve("power.zest");
        LinkAddress address = LinkAddress.parse("file:" + capture);
        Formula power = new Formula("x * cell_volts", Map.of(), "W", List.of("cell_volts"));
        Rig rig = Rig.blank("test", address.text())
                .withChannels(List.of(
                        new Channel("cell volts", "volts", Scaling.asItCame("V"), Recipe.parse("mean:3"), true),
                        new Channel("amps", "power", new Scaling(null, power, List.of(), "W"), Recipe.NONE, true)));
        try (Trail trail = Trail.startRecording(
                rig, address, address.link(), new FromStart(file, "t", RecordingLimit.NONE, Instant.EPOCH))) {
            Snapshot over = until(trail, s -> s.health().state() == LinkState.OVER && s.lastSeconds() > 4.98);
            ChannelSnapshot watts = over.channel("amps").orElseThrow();
            for (int i = 0; i < 500; i++) {
                // The other column is taken in by its own scaling, not by its recipe.
                assertThat(watts.clean().value(i)).isEqualTo((12 + i % 7) * (i % 5));
            }
            assertThat(watts.scalingNow().apply(2)).isEqualTo(2 * (12 + 499 % 7));
            trail.change(RigChange.between(
                    trail.rig(),
                    trail.rig()
                            .withChannel(
                                    "cell volts",
                                    c -> c.withScaling(new Scaling(null, new Line(10, 0), List.of(), "V")))));
            Snapshot changed =
                    until(trail, s -> s.channel("amps").orElseThrow().clean().value(1) == 130);
            assertThat(changed.channel("amps").orElseThrow().clean().value(499)).isEqualTo(10 * (12 + 499 % 7) * 4);
            trail.change(RigChange.between(
                    trail.rig(),
                    trail.rig()
                            .withChannel("cell volts", c -> c.withScaling(new Scaling(null, power, List.of(), "V")))));
            until(trail, s -> s.channel("amps").orElseThrow().trouble().contains("is itself worked out"));
        }
        try (Take take = Take.open(file)) {
            assertThat(take.rig().channels().get(1).scaling().columns()).containsExactly("cell_volts");
            StoredTake stored = StoredTake.load(take);
            assertThat(stored.snapshot().channel("amps").orElseThrow().clean().value(1))
                    .isEqualTo(13);
            StoredTake other = stored.with(stored.snapshot()
                    .rig()
                    .withChannel("cell volts", c -> c.withScaling(new Scaling(null, new Line(2, 0), List.of(), "V"))));
            assertThat(other.snapshot().channel("amps").orElseThrow().clean().value(1))
                    .isEqualTo(26);
            CsvExport.write(take, folder.resolve("power.csv"), false, share -> true);
        }
        assertThat(Files.readAllLines(folder.resolve("power.csv")))
                .startsWith("t,t_ms,cell volts,amps,power [W]", "0,0,12,0,0", "0.01,10,13,1,13");
    }

    @Test
    void gapsAreNeverCleanedAcross() throws Exception {
        StringBuilder text = new StringBuilder("t_ms,level\n");
        for (int i = 0; i < 2000; i++) {
            text.append(i < 1000 ? i * 10 : i * 10 + 5000)
                    .append(',')
                    .append(i < 1000 ? 100 : 900)
                    .append('\n');
        }
        Path capture = Files.writeString(folder.resolve("bytes.txt"), text);
        Path file = folder.resolve("gap.zest");
        LinkAddress address = LinkAddress.parse("file:" + capture);
        Rig rig = Rig.blank("test", address.text())
                .withChannels(List.of(
                        new Channel("level", "Level", Scaling.asItCame(""), Recipe.parse("lowpass:1@2"), true)));
        try (Trail trail = Trail.startRecording(
                rig, address, address.link(), new FromStart(file, "t", RecordingLimit.NONE, Instant.EPOCH))) {
            Snapshot over = until(trail, s -> s.health().state() == LinkState.OVER && s.lastSeconds() > 24.9);
            // Settled on each side: a filter that ran across would need seconds to climb from 100 to 900.
            ChannelSnapshot level = over.channels().get(0);
            assertThat(level.clean().value(999)).isCloseTo(100, within(1e-3));
            assertThat(level.clean().value(1000)).isCloseTo(900, within(1e-3));
        }
        try (Take take = Take.open(file)) {
            assertThat(take.gaps()).containsExactly(new Gap(9.99, 15, 500));
            ChannelSnapshot level = StoredTake.load(take).snapshot().channels().get(0);
            assertThat(level.clean().value(1000)).isCloseTo(900, within(1e-3));
        }
    }

    /** A board that speaks only when spoken to: what is marked and sent before its first row lies at the take's beginning. */
    @Test
    void aRecordingThatWaitsForItsFirstRowTakesMarks() throws Exception {
        Path file = folder.resolve("asked.zest");
        try (PtyPair cable = new PtyPair(folder);
                OutputStream out = cable.boardEnd()) {
            Rig rig = Rig.blank("test", "serial:" + cable.computer + "@115200");
            try (Trail trail = Trail.start(rig)) {
                until(trail, s -> s.health().state() == LinkState.WARMING_UP);
                new FarBoard().write(out, 100);
                // All of it is read, so that nothing of it waits in the cable; the first may be half a line.
                until(trail, s -> s.health().rows() + s.health().rejectedLines() == 100);
                rig = trail.rig();
            }
            try (Trail trail = Trail.start(rig)) {
                until(trail, s -> s.health().state() == LinkState.WARMING_UP);
                trail.record(file, "asked", RecordingLimit.NONE, Instant.EPOCH);
                assertThat(trail.mark("ready", System.nanoTime())).isTrue();
                trail.send(0, "start", LineEnding.NEW_LINE, System.nanoTime());
                FarBoard far = new FarBoard();
                far.write(out, 200);
                until(trail, s -> s.recording().rows() >= 199);
                assertThat(trail.mark("later", System.nanoTime())).isTrue();
                assertThat(trail.stopRecording().problem()).isEmpty();
            }
        }
        try (Take take = Take.open(file)) {
            take.verify();
            assertThat(take.damage()).isEmpty();
            assertThat(take.marks().stream().map(mark -> mark.text())).containsExactly("ready", "sent: start", "later");
            assertThat(take.marks().get(1).seconds()).isZero();
            assertThat(take.marks().get(2).seconds()).isBetween(0.9, 240.0);
        }
    }
}
