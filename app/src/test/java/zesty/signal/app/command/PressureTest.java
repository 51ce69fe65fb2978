package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import org.junit.jupiter.api.parallel.ResourceAccessMode;
import org.junit.jupiter.api.parallel.ResourceLock;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Floods, little memory, full disks, signals and strangers: nothing is lost, nothing is invented, and what is said is so. */
@Timeout(240)
@Execution(ExecutionMode.CONCURRENT)
@ResourceLock(value = "the machine", mode = ResourceAccessMode.READ)
class PressureTest {
    @TempDir
    Path folder;

    /** Rows that tell their own number, and one value that follows from it. */
    private static void rows(OutputStream out, int from, int count) throws IOException {
        StringBuilder text = new StringBuilder();
        for (int i = from; i < from + count; i++) {
            text.append(i)
                    .append(',')
                    .append(i % 1021)
                    .append(',')
                    .append(i % 7 / 8.0)
                    .append('\n');
        }
        out.write(text.toString().getBytes(StandardCharsets.US_ASCII));
    }

    private static void flood(OutputStream out, int count) throws IOException {
        for (int at = 0; at < count; at += 10_000) {
            rows(out, at, 10_000);
        }
        out.flush();
    }

    private Path flooded(String name, int count) throws IOException {
        Path file = folder.resolve(name);
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file))) {
            flood(out, count);
        }
        return file;
    }

    private void waitUntil(BooleanSupplier done) throws InterruptedException {
        for (int i = 0; i < 600 && !done.getAsBoolean(); i++) {
            TimeUnit.MILLISECONDS.sleep(50);
        }
        assertThat(done.getAsBoolean()).as("it came about within 30 s").isTrue();
    }

    private String err() {
        try {
            return Files.readString(folder.resolve("err.txt"));
        } catch (IOException e) {
            return "";
        }
    }

    /** What the take holds is exactly what was sent. */
    private void holdsAll(String take, int count) throws Exception {
        assertThat(Said.in(folder, "export " + take + " --to " + take + ".csv").status())
                .isZero();
        List<String> lines = Files.readAllLines(folder.resolve(take + ".csv"));
        assertThat(lines).hasSize(count + 1);
        for (int i = 0; i < count; i += 997) {
            String row = lines.get(i + 1);
            assertThat(row.substring(row.indexOf(',') + 1)).startsWith(i + "," + i % 1021 + ",");
        }
    }

    @Test
    void aFloodThroughAPipeIsHeldUpAndNotARowIsLost() throws Exception {
        Process recording = Run.start(folder, Run.line("40m", "record", "stdin", "--out", "pipe.zest"));
        try (OutputStream pipe = recording.getOutputStream()) {
            flood(pipe, 300_000);
        }
        Run ran = Run.ended(folder, recording);
        // Where the machine is slow it may have waited long enough to say so.
        assertThat(ran.err().lines().filter(said -> !said.contains("still waiting")))
                .isEmpty();
        assertThat(ran.status()).isZero();
        assertThat(ran.out()).startsWith("pipe.zest: 300000 rows").endsWith(" 0 rejected, 0 lost\n");
        holdsAll("pipe.zest", 300_000);
    }

    @Test
    void aFileAndANetworkBoardThatSendsAsFastAsItCanLoseNothing() throws Exception {
        flooded("big.txt", 200_000);
        Run file = Run.of(folder, Run.line("40m", "record", "file:big.txt", "--out", "file.zest"));
        assertThat(file.out()).startsWith("file.zest: 200000 rows").endsWith(" 0 rejected, 0 lost\n");
        holdsAll("file.zest", 200_000);
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            CompletableFuture<Void> board = CompletableFuture.runAsync(() -> {
                try (Socket client = server.accept()) {
                    flood(client.getOutputStream(), 200_000);
                    // Wait for the other side to go: a board does not hang up.
                    assertThat(client.getInputStream().read()).isNegative();
                } catch (IOException e) {
                    // The recording is over.
                }
            });
            Run net = Run.of(
                    folder,
                    Run.line(
                            "40m",
                            "record",
                            "tcp:127.0.0.1:" + server.getLocalPort(),
                            "--out",
                            "net.zest",
                            "--samples",
                            "199000"));
            assertThat(net.status()).as(net.err()).isZero();
            assertThat(net.out()).startsWith("net.zest: 199000 rows").endsWith(" 0 lost\n");
            board.get(20, TimeUnit.SECONDS);
        }
    }

    @Test
    void aCaptureFarLongerThanTheMemoryIsDecoded() throws Exception {
        Path capture = flooded("capture.txt", 400_000);
        Files.writeString(capture, "not a row\n", java.nio.file.StandardOpenOption.APPEND);
        assertThat(Files.size(capture)).isGreaterThan(5_000_000);
        Run ran = Run.of(folder, Run.line("24m", "decode", "capture.txt", "--json"));
        assertThat(ran.status()).as(ran.err()).isZero();
        JsonNode json = ran.json();
        assertThat(json.path("lines").asInt()).isEqualTo(400_001);
        assertThat(json.path("rejected").asInt()).isEqualTo(1);
        assertThat(json.path("rejects").get(0).path("text").asText()).isEqualTo("not a row");
        JsonNode numbers = json.path("columns").get(0).path("values");
        assertThat(numbers).hasSize(400_000);
        assertThat(numbers.get(399_999).asInt()).isEqualTo(399_999);
        assertThat(json.path("columns").get(2).path("values").get(5).asDouble()).isEqualTo(0.625);
    }

    @Test
    void whereMemoryReallyRunsOutItIsSaidAndTheStatusIsNotZero() throws Exception {
        flooded("wide.csv", 600_000);
        Files.writeString(folder.resolve("named.csv"), "n,a,b\n" + Files.readString(folder.resolve("wide.csv")));
        Run ran = Run.of(
                folder,
                Run.line(
                        "24m",
                        "clean",
                        "named.csv",
                        "--column",
                        "a",
                        "--rate",
                        "100",
                        "--recipe",
                        "mean:3",
                        "--out",
                        "o.csv"));
        assertThat(ran.status()).isEqualTo(1);
        assertThat(ran.err().lines()).singleElement().asString().contains("memory ran out; give it more");
        assertThat(folder.resolve("o.csv")).doesNotExist();
    }

    @ParameterizedTest
    @ValueSource(strings = {"TERM", "INT"})
    void toldToEndInTheFirstSecondTheTakeHasEveryRowThatCame(String signal) throws Exception {
        Run ran = null;
        // Where the machine is busy the process may not have begun to read; such a try says nothing.
        for (int tenths = 8; !begun("early.zest") && tenths < 600; tenths *= 2) {
            Files.deleteIfExists(folder.resolve("early.zest"));
            // Whoever started the tests in the background may have had it ignore the keyboard's interrupt, and that is
            // inherited.
            List<String> line = new ArrayList<>(List.of("env", "--default-signal=INT"));
            line.addAll(Run.line("128m", "record", "stdin", "--out", "early.zest"));
            Process recording = Run.start(folder, line);
            OutputStream pipe = recording.getOutputStream();
            // So few that neither format nor rate is certain yet.
            rows(pipe, 0, 6);
            pipe.flush();
            TimeUnit.MILLISECONDS.sleep(100 * tenths);
            new ProcessBuilder("kill", "-" + signal, String.valueOf(recording.pid()))
                    .start()
                    .waitFor();
            ran = Run.ended(folder, recording);
        }
        // Where the machine is slow it may have waited long enough to say so.
        assertThat(ran.err().lines().filter(said -> !said.contains("still waiting")))
                .isEmpty();
        JsonNode info = Said.in(folder, "info early.zest --json").json();
        assertThat(info.path("rows").asInt()).isEqualTo(6);
        assertThat(info.path("mended").asText()).isEmpty();
        try (var left = Files.list(folder)) {
            assertThat(left.map(f -> f.getFileName().toString()))
                    .containsExactlyInAnyOrder("early.zest", "out.txt", "err.txt");
        }
    }

    private boolean begun(String take) throws Exception {
        return Files.exists(folder.resolve(take))
                && Said.in(folder, "info " + take + " --json")
                                .json()
                                .path("rows")
                                .asInt()
                        > 0;
    }

    @Test
    void aBoardOfALineASecondLosesAtMostItsLastLineWhenKilled() throws Exception {
        Process recording = Run.start(folder, Run.line("128m", "record", "stdin", "--out", "slow.zest"));
        OutputStream pipe = recording.getOutputStream();
        int sent = 0;
        // A busy machine takes its time to begin: what counts is the end of a recording that is under way.
        int last = Integer.MAX_VALUE;
        Path log = folder.resolve("slow.zest-wal");
        for (; sent < Math.min(last, 60); sent++) {
            rows(pipe, sent, 1);
            pipe.flush();
            TimeUnit.SECONDS.sleep(1);
            boolean underWay = Files.exists(log) && Files.size(log) > 100_000;
            last = underWay && last == Integer.MAX_VALUE ? sent + 5 : last;
        }
        recording.destroyForcibly().waitFor();
        JsonNode info = Said.in(folder, "info slow.zest --json").json();
        assertThat(info.path("rows").asInt()).isBetween(sent - 2, sent);
        assertThat(info.path("mended").asText()).startsWith("The recording broke off.");
    }

    @Test
    void waitingIsNotMute() throws Exception {
        Process recording = Run.start(folder, Run.line("128m", "record", "stdin", "--out", "mute.zest"));
        waitUntil(() -> err().contains("no bytes yet"));
        assertThat(err()).startsWith("zesty: still waiting after 5 s: standard input: open, no bytes yet");
        recording.destroy();
        assertThat(Run.ended(folder, recording).out()).isEmpty();
        assertThat(folder.resolve("mute.zest")).doesNotExist();
    }

    @Test
    void aStrangerWhoCallsAndGoesIsNoEndAndASecondCallerIsTold() throws Exception {
        int port = freeTcp();
        Process recording = Run.start(
                folder,
                Run.line("128m", "record", "tcp:*@127.0.0.1:" + port, "--out", "call.zest", "--samples", "400"));
        waitUntil(() -> err().contains("waiting for whoever calls on port " + port + ", from this computer only"));
        TimeUnit.MILLISECONDS.sleep(500);
        InetSocketAddress at = new InetSocketAddress("127.0.0.1", port);
        try (Socket stranger = new Socket()) {
            stranger.connect(at, 2000);
        }
        try (Socket board = new Socket()) {
            waitUntil(() -> {
                try {
                    return board.isConnected() || connected(board, at);
                } catch (IOException e) {
                    return false;
                }
            });
            TimeUnit.MILLISECONDS.sleep(700);
            rows(board.getOutputStream(), 0, 100);
            TimeUnit.MILLISECONDS.sleep(300);
            try (Socket second = new Socket()) {
                second.connect(at, 2000);
                second.setSoTimeout(5000);
                for (int i = 100; i < 200; i++) {
                    rows(board.getOutputStream(), i, 1);
                    TimeUnit.MILLISECONDS.sleep(5);
                }
                assertThat(new String(second.getInputStream().readAllBytes(), StandardCharsets.UTF_8))
                        .startsWith("busy: another board is connected here");
            }
            for (int i = 200; i < 700 && recording.isAlive(); i++) {
                rows(board.getOutputStream(), i, 1);
                TimeUnit.MILLISECONDS.sleep(5);
            }
        } catch (IOException e) {
            // The recording has all it wants and has gone.
        }
        Run ran = Run.ended(folder, recording);
        assertThat(ran.status()).as(ran.err()).isZero();
        assertThat(ran.out()).startsWith("call.zest: 400 rows");
    }

    private static boolean connected(Socket socket, InetSocketAddress at) throws IOException {
        socket.connect(at, 1000);
        return true;
    }

    @Test
    void packetsOfTextAreLinesAlsoWithoutAnEnding() throws Exception {
        int port = freeUdp();
        Process recording =
                Run.start(folder, Run.line("128m", "record", "udp:" + port, "--out", "udp.zest", "--samples", "300"));
        waitUntil(() -> err().contains("packets on port " + port + ", from this computer only"));
        TimeUnit.MILLISECONDS.sleep(300);
        try (DatagramSocket board = new DatagramSocket()) {
            for (int i = 0; i < 1200 && recording.isAlive(); i++) {
                byte[] line = (i + ";" + i % 50).getBytes(StandardCharsets.US_ASCII);
                board.send(new DatagramPacket(line, line.length, InetAddress.getLoopbackAddress(), port));
                TimeUnit.MILLISECONDS.sleep(4);
            }
        }
        Run ran = Run.ended(folder, recording);
        assertThat(ran.status()).as(ran.err()).isZero();
        assertThat(ran.out()).startsWith("udp.zest: 300 rows").contains(" 0 rejected");
    }

    /** A disk that is full stands behind each; none of them may say that it went well. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "info small.zest > /dev/full",
                "decode small.txt --json > /dev/full",
                "readers --json > /dev/full",
                "simulate deck --for 5s --speed 1000 > /dev/full",
                "extract level small.zest --column column2 --json > /dev/full",
                "clean small.csv --column a --rate 10 --recipe mean:3 --out /dev/full",
                "export small.zest --to full.csv"
            })
    void aFullDiskIsToldInWordsAndByTheStatus(String words) throws Exception {
        flooded("small.txt", 10_000);
        if (words.contains("small.zest")) {
            assertThat(Said.in(folder, "record file:small.txt --out small.zest").status())
                    .isZero();
        }
        Files.writeString(folder.resolve("small.csv"), "a\n1\n2\n3\n4\n");
        if (words.contains("full.csv")) {
            Files.createSymbolicLink(folder.resolve("full.csv"), Path.of("/dev/full"));
        }
        List<String> shell = new ArrayList<>(List.of("bash", "-c", "exec \"${@:2}\" " + after(words), "bash", "x"));
        shell.addAll(Run.line("128m", words.split(" > ")[0].split(" ")));
        Run ran = Run.of(folder, shell);
        assertThat(ran.status()).as(ran.err()).isEqualTo(1);
        assertThat(ran.err().lines()).singleElement().asString().containsAnyOf("disk is full", "took no more");
        assertThat(ran.err()).doesNotContain("Exception", "No space");
    }

    private static String after(String words) {
        return words.contains(" > ") ? "> " + words.split(" > ")[1] : "";
    }

    @Test
    void aDamagedTakeIsExportedWithWhatIsLeftAndTheStatusSaysSo() throws Exception {
        flooded("rows.txt", 30_000);
        assertThat(Said.in(folder, "record file:rows.txt --out hurt.zest").status())
                .isZero();
        try (var stock = java.sql.DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("hurt.zest"));
                var statement = stock.createStatement()) {
            statement.executeUpdate("UPDATE block_values SET base = base + 1 WHERE column_id = 2 AND first_row = "
                    + "(SELECT max(first_row) FROM block)");
        }
        Said said = Said.in(folder, "export hurt.zest --to hurt.csv");
        assertThat(said.status()).isEqualTo(1);
        assertThat(said.err())
                .containsPattern(
                        "hurt.csv was written, but .*hurt.zest is damaged: 1 place of it did not check and is left out")
                .contains("column column2");
        List<String> lines = Files.readAllLines(folder.resolve("hurt.csv"));
        assertThat(lines).hasSize(30_001);
        assertThat(lines.get(1)).endsWith(",0,0,0");
        assertThat(lines.get(30_000)).contains(",29999,,");
        Said level = Said.in(folder, "extract level hurt.zest --column column2 --json");
        assertThat(level.status()).isEqualTo(1);
        assertThat(new ObjectMapper().readTree(level.out()).path("max").asDouble())
                .isEqualTo(1020);
        assertThat(Said.in(folder, "info hurt.zest").out()).contains("damaged: column column2");
    }

    /** @return a port that nobody listens at */
    private static int freeTcp() throws IOException {
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            return free.getLocalPort();
        }
    }

    private static int freeUdp() throws IOException {
        try (DatagramSocket free = new DatagramSocket(0, InetAddress.getLoopbackAddress())) {
            return free.getLocalPort();
        }
    }
}
