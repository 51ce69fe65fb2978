package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static zesty.signal.engine.Await.until;

import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.boards.link.Link;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.LinkException;
import zesty.signal.boards.link.SimulatedLink;
import zesty.signal.boards.sim.SimulatedBoard;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;
import zesty.signal.core.rig.Rig;
import zesty.signal.takes.Take;

/** Every simulated board over every link, all of them at once: nothing typed, columns, names and rate come out right. */
@Timeout(240)
class AnyBoardTest {
    @TempDir
    Path folder;

    private static List<String> boards() {
        return SimulatedBoards.all().stream().map(SimulatedBoards.Entry::name).toList();
    }

    /** Runs the board as a process of its own would, into a stream, until that breaks. */
    private static void pump(String board, OutputStream out) {
        Thread thread = new Thread(
                () -> {
                    try (SimulatedLink link = new SimulatedLink(SimulatedBoards.create(board, 1), 1);
                            out) {
                        link.open();
                        byte[] buffer = new byte[1 << 14];
                        for (int n = link.read(buffer); n >= 0; n = link.read(buffer)) {
                            out.write(buffer, 0, n);
                            out.flush();
                        }
                    } catch (Exception e) {
                        // The other end has what it wanted.
                    }
                },
                "board " + board);
        thread.setDaemon(true);
        thread.start();
    }

    private void assertAllUnderstood(Map<String, Trail> trails) throws InterruptedException {
        for (Map.Entry<String, Trail> entry : trails.entrySet()) {
            SimulatedBoard board = SimulatedBoards.create(entry.getKey(), 1);
            Snapshot snapshot = until(
                    entry.getValue(),
                    s -> s.rig().format() != null
                            && s.hasSamples()
                            && s.health().state() == LinkState.LIVE);
            assertThat(snapshot.rig().format().columns())
                    .isEqualTo(board.columns().stream()
                            .filter(column -> column.role() != Role.PICTURE)
                            .toList());
            long channels = board.columns().stream().filter(Column::isChannel).count();
            boolean stations = entry.getKey().equals("battery");
            if (stations) {
                snapshot = until(
                        entry.getValue(),
                        s -> s.streams().size() == 6 && s.channels().size() == 12);
                channels = 12;
            }
            assertThat(snapshot.channels()).hasSize((int) channels);
            if (!entry.getKey().equals("masthead-edges")) {
                // Arrival tells the rate ever better; where a machine is busy with all these boards it says how well.
                double rate = stations ? 2 : board.rowsPerSecond();
                until(
                        entry.getValue(),
                        s -> Math.abs(s.rateHz() / rate - 1)
                                < Math.max(0.03, 2 * s.health().rateUncertainty()));
            }
        }
        trails.values().forEach(Trail::close);
    }

    @Test
    void inThisProcess() throws Exception {
        Map<String, Trail> trails = new LinkedHashMap<>();
        for (String board : boards()) {
            trails.put(board, Trail.start(Rig.blank("r", "sim:" + board)));
        }
        assertAllUnderstood(trails);
    }

    @Test
    void overTheNetwork() throws Exception {
        Map<String, Trail> trails = new LinkedHashMap<>();
        List<ServerSocket> servers = new ArrayList<>();
        for (String board : boards()) {
            ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
            servers.add(server);
            trails.put(board, Trail.start(Rig.blank("r", "tcp:127.0.0.1:" + server.getLocalPort())));
            pump(board, server.accept().getOutputStream());
        }
        assertAllUnderstood(trails);
        for (ServerSocket server : servers) {
            server.close();
        }
    }

    @Test
    void throughPseudoTerminals() throws Exception {
        Map<String, Trail> trails = new LinkedHashMap<>();
        List<PtyPair> cables = new ArrayList<>();
        for (String board : boards()) {
            Path place = Files.createDirectory(folder.resolve(board));
            PtyPair cable = new PtyPair(place);
            cables.add(cable);
            trails.put(board, Trail.start(Rig.blank("r", "serial:" + cable.computer + "@115200")));
            pump(board, cable.boardEnd());
        }
        assertAllUnderstood(trails);
        cables.forEach(PtyPair::close);
    }

    @Test
    void aBoardThatCallsIsHeardAndHeardAgainWhenItCallsAgain() throws Exception {
        int port;
        try (ServerSocket free = new ServerSocket(0)) {
            port = free.getLocalPort();
        }
        try (Trail trail = Trail.start(Rig.blank("r", "tcp:*:" + port))) {
            until(trail, s -> s.health().reason().contains("no bytes yet"));
            Socket first = new Socket("127.0.0.1", port);
            pump("deck", first.getOutputStream());
            until(trail, s -> s.health().rows() > 50);
            first.close();
            until(trail, s -> s.health().state() == LinkState.LOST);
            pump("deck", calling(port).getOutputStream());
            Snapshot again =
                    until(trail, s -> s.health().reconnects() == 1 && s.health().state() == LinkState.LIVE);
            assertThat(again.rig().format().columns()).hasSize(6);
        }
    }

    /** Boards call again until they are heard. */
    private static Socket calling(int port) throws Exception {
        for (int i = 0; ; i++) {
            try {
                return new Socket("127.0.0.1", port);
            } catch (java.net.ConnectException e) {
                if (i == 50) {
                    throw e;
                }
                Thread.sleep(50);
            }
        }
    }

    @Test
    void oneSilentStationIsLostWhileTheOthersGoOn() throws Exception {
        // At this speed the sixth station falls silent within two seconds.
        SimulatedBoard board = SimulatedBoards.create("battery", 1);
        for (int i = 0; i < 12 * 13; i++) {
            board.next(new java.io.ByteArrayOutputStream());
        }
        Rig rig = Rig.blank("r", "sim:battery");
        Link link = new SimulatedLink(board, 1);
        try (Trail trail = Trail.start(rig, LinkAddress.parse("sim:battery"), link)) {
            Snapshot snapshot = until(
                    trail,
                    s -> s.streams().size() == 6
                            && s.streams().stream()
                                    .anyMatch(
                                            one -> one.state(s.health().state(), System.nanoTime()) == LinkState.LOST));
            long now = System.nanoTime();
            for (StreamSnapshot one : snapshot.streams()) {
                LinkState expected = one.station() == 6 ? LinkState.LOST : LinkState.LIVE;
                assertThat(one.state(snapshot.health().state(), now)).isEqualTo(expected);
            }
        }
    }

    @Test
    void aLineToTheBoardIsAnsweredActedOnAndKeptInTheTake() throws Exception {
        Path file = folder.resolve("heat.zest");
        try (Trail trail = Trail.start(Rig.blank("r", "sim:cupboard"))) {
            until(trail, Snapshot::hasSamples);
            trail.record(file, "heat", RecordingLimit.NONE, java.time.Instant.EPOCH);
            until(trail, s -> s.recording().rows() > 0);
            trail.send(0, "heat 40", LineEnding.NEW_LINE, System.nanoTime());
            trail.send(0, "heat 400", LineEnding.NEW_LINE, System.nanoTime());
            until(trail, s -> s.channel("heat").orElseThrow().latestRaw() == 40);
            until(trail, s -> trail.sent(0).stream()
                    .noneMatch(line -> line.answer().isEmpty()));
            assertThat(trail.sent(0))
                    .extracting(SentLine::answer)
                    .satisfiesExactly(
                            done -> assertThat(done).contains("\"done\":\"heat 40\""),
                            wrong -> assertThat(wrong).contains("\"wrong\":\"heat 400\""));
            trail.stopRecording();
        }
        try (Take take = Take.open(file)) {
            assertThat(take.marks()).extracting(mark -> mark.text()).containsExactly("sent: heat 40", "sent: heat 400");
        }
    }

    @Test
    void whileTheBoardWarmsUpSamplesAreKeptAndNotRead() throws Exception {
        Rig blank = Rig.blank("r", "sim:deck");
        try (Trail trail = Trail.start(blank.withLink(blank.link().withWarmUp(2)))) {
            Snapshot cold = until(
                    trail,
                    s -> s.channel("heel").isPresent()
                            && s.channel("heel").get().raw().end() > 100);
            assertThat(cold.channel("heel").get().warming()).isTrue();
            assertThat(cold.channel("heel").get().latestClean()).isNaN();
            ChannelSnapshot warm = until(trail, s -> !s.channel("heel").get().warming())
                    .channel("heel")
                    .get();
            int read = 0;
            for (long i = 0; i < warm.clean().end(); i++) {
                read += Double.isNaN(warm.clean().value(i)) ? 0 : 1;
            }
            // Two seconds at 200 samples/s are kept in the raw series and left out of the clean one.
            assertThat(warm.raw().end() - read).isBetween(398L, 402L);
        }
    }

    @Test
    void theSpeedThatMakesSenseComesFirst() throws LinkException {
        byte[] sense = sense();
        // At a wrong speed a serial line reads rubbish; at a slow one a little of it.
        SpeedFinder.Plug plug = baud -> new Canned(baud == 57600 ? sense : rubbish(baud));
        List<SpeedFinder.Trial> trials =
                SpeedFinder.rank(plug, List.of(115200, 9600, 57600, 38400), 0.05, share -> true);
        assertThat(trials.get(0).baud()).isEqualTo(57600);
        assertThat(trials.get(0).share()).isGreaterThan(0.9);
        assertThat(trials.get(0).line()).contains(",");
        assertThat(trials.subList(1, 4))
                .allSatisfy(trial -> assertThat(trial.share()).isLessThan(0.3));
    }

    private static byte[] sense() {
        SimulatedBoard board = SimulatedBoards.create("motion", 1);
        java.io.ByteArrayOutputStream out = new java.io.ByteArrayOutputStream();
        for (int i = 0; i < 60; i++) {
            board.next(out);
        }
        return out.toByteArray();
    }

    private static byte[] rubbish(int seed) {
        byte[] bytes = new byte[4000];
        new Random(seed).nextBytes(bytes);
        return bytes;
    }

    /** A link that gives some bytes and then nothing. */
    private static final class Canned implements Link {
        private byte[] bytes;

        Canned(byte[] bytes) {
            this.bytes = bytes;
        }

        @Override
        public void open() {}

        @Override
        public int read(byte[] buffer) {
            int n = Math.min(buffer.length, bytes.length);
            System.arraycopy(bytes, 0, buffer, 0, n);
            bytes = java.util.Arrays.copyOfRange(bytes, n, bytes.length);
            return n;
        }

        @Override
        public void write(byte[] sent) {}

        @Override
        public void close() {}

        @Override
        public boolean joinsMidStream() {
            return true;
        }
    }
}
