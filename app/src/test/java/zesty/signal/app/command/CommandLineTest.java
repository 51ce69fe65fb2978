package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import org.junit.jupiter.api.parallel.ResourceAccessMode;
import org.junit.jupiter.api.parallel.ResourceLock;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.boards.sim.DeckBoard;

/** The command line as processes of their own, as a script would use it. */
@Timeout(240)
@Execution(ExecutionMode.CONCURRENT)
@ResourceLock(value = "the machine", mode = ResourceAccessMode.READ)
class CommandLineTest {
    @TempDir
    Path folder;

    private static List<String> line(String... words) {
        return Run.line("256m", words);
    }

    private Run zesty(String... words) throws Exception {
        return Run.of(folder, words);
    }

    private Run run(List<String> line) throws Exception {
        return Run.of(folder, line);
    }

    @Test
    void fromBytesToAPulseRateAndBackToTheSameBytes() throws Exception {
        Run bytes = zesty("simulate", "deck", "--seed", "4", "--for", "60s", "--speed", "1000");
        Path capture = Files.writeString(folder.resolve("deck.txt"), bytes.out());

        JsonNode decoded = zesty("decode", "deck.txt", "--json").json();
        assertThat(decoded.path("format").asText()).isEqualTo("delimited");
        assertThat(decoded.path("lines").asInt()).isEqualTo(12_003);
        assertThat(decoded.path("rejected").asInt()).isEqualTo(2);
        assertThat(decoded.path("columns").get(1).path("name").asText()).isEqualTo("pulse");
        assertThat(decoded.path("columns").get(1).path("values")).hasSize(12_000);

        assertThat(zesty("record", "file:" + capture, "--out", "deck.zest").status())
                .isZero();
        JsonNode info = zesty("info", "deck.zest", "--json").json();
        assertThat(info.path("rows").asInt()).isEqualTo(12_000);
        assertThat(info.path("channels").get(0).path("rate_hz").asDouble()).isCloseTo(200, within(0.1));

        DeckBoard truth = new DeckBoard(DeckBoard.Settings.usual(4));
        for (int i = 0; i < 12_000; i++) {
            truth.next(new ByteArrayOutputStream());
        }
        List<Double> tops = truth.pulse().truth().stream().filter(t -> t < 60).toList();
        double rate = 60 * (tops.size() - 1) / (tops.get(tops.size() - 1) - tops.get(0));
        JsonNode pulse = zesty("extract", "pulse", "deck.zest", "--column", "pulse", "--json")
                .json();
        assertThat(pulse.path("rate_bpm").path("mean").asDouble()).isCloseTo(rate, within(0.5));
        assertThat(pulse.path("quality").asDouble()).isBetween(0.5, 1.0);

        assertThat(zesty("export", "deck.zest", "--to", "deck.csv").status()).isZero();
        List<String> csv = Files.readAllLines(folder.resolve("deck.csv"));
        List<String> sent = bytes.out().lines().skip(3).toList();
        assertThat(csv.get(0)).isEqualTo("t,t_us,pulse,forearm,heel,trim,bilge");
        for (int i = 0; i < sent.size(); i += 97) {
            assertThat(csv.get(i + 1)).endsWith("," + sent.get(i));
        }
    }

    @Test
    void cleaningKeepsTimesAndRowsAndPrintsNothing() throws Exception {
        StringBuilder csv = new StringBuilder("t,x,label\n");
        for (int i = 0; i < 500; i++) {
            csv.append(i / 100.0).append(',').append(i == 0 ? 1 : 0).append(",here\n");
        }
        Files.writeString(folder.resolve("in.csv"), csv);
        Run ran = zesty("clean", "in.csv", "--column", "x", "--recipe", "exp:0.25 | scale:4", "--out", "out.csv");
        assertThat(ran).isEqualTo(new Run(0, "", ""));
        List<String> lines = Files.readAllLines(folder.resolve("out.csv"));
        assertThat(lines).hasSize(501);
        assertThat(lines.subList(0, 4)).containsExactly("t,x", "0.0,1", "0.01,0.75", "0.02,0.5625");
        Run both =
                zesty("clean", "in.csv", "--column", "x", "--recipe", "lowpass:5@2", "--both-ways", "--out", "b.csv");
        assertThat(both.status()).isZero();

        // A steady rate of its own: rows come and go, and the steps behind it run at that rate.
        Run other = zesty(
                "clean", "in.csv", "--column", "x", "--recipe", "offset:2 | resample:20 | scale:3", "--out", "r.csv");
        assertThat(other).isEqualTo(new Run(0, "", ""));
        List<String> steady = Files.readAllLines(folder.resolve("r.csv"));
        assertThat(steady).hasSize(101).first().isEqualTo("t,x");
        assertThat(steady.get(61)).startsWith("3,");
        assertThat(Double.parseDouble(steady.get(61).substring(2))).isCloseTo(6, within(1e-6));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '!',
            value = {
                "record file:words.txt --out o.zest!it ended without a line of numbers",
                "fly!no command is called 'fly'; there are demo, pictures, boards"
            })
    void wrongWordsAreOneLineAndStatusTwoAndWriteNothing(String words, String said) throws Exception {
        Files.writeString(folder.resolve("words.txt"), "hello\nthere\n");
        Run ran = zesty(words.split(" "));
        assertThat(ran.status()).as(ran.err()).isEqualTo(2);
        // On a slow machine it says that it waits.
        assertThat(ran.err().lines().filter(line -> !line.contains("still waiting")))
                .as(ran.err())
                .singleElement()
                .asString()
                .contains(said);
        assertThat(ran.out()).isEmpty();
        assertThat(folder.resolve("o.zest")).doesNotExist();
    }

    /** Serves deck lines at 200 a second and counts them. */
    private static CompletableFuture<Void> serve(ServerSocket server, AtomicLong sent) {
        return CompletableFuture.runAsync(() -> {
            DeckBoard board = new DeckBoard(DeckBoard.Settings.usual(6));
            try (Socket client = server.accept()) {
                client.getOutputStream().write(board.greeting());
                long start = System.nanoTime();
                while (true) {
                    ByteArrayOutputStream line = new ByteArrayOutputStream();
                    board.next(line);
                    client.getOutputStream().write(line.toByteArray());
                    long due = start + sent.incrementAndGet() * 5_000_000L;
                    TimeUnit.NANOSECONDS.sleep(Math.max(0, due - System.nanoTime()));
                }
            } catch (IOException | InterruptedException e) {
                // The recording process is gone.
            }
        });
    }

    @Test
    void killedWhileRecordingLosesAtMostTheLastSecondAndSaysSo() throws Exception {
        AtomicLong sent = new AtomicLong();
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            CompletableFuture<Void> serving = serve(server, sent);
            Process recording = new ProcessBuilder(
                            line("record", "tcp:127.0.0.1:" + server.getLocalPort(), "--out", "killed.zest"))
                    .directory(folder.toFile())
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            // Under way is what has rows on the disk; a busy machine takes its time to begin.
            Path log = folder.resolve("killed.zest-wal");
            while (!Files.exists(log) || Files.size(log) < 200_000) {
                assertThat(recording.isAlive()).isTrue();
                TimeUnit.MILLISECONDS.sleep(20);
            }
            long begun = sent.get();
            while (sent.get() < Math.max(1000, begun + 400)) {
                TimeUnit.MILLISECONDS.sleep(20);
            }
            recording.destroyForcibly().waitFor();
            long atDeath = sent.get();
            serving.get();
            JsonNode info = Said.in(folder, "info killed.zest --json").json();
            assertThat(info.path("rows").asLong()).isBetween(atDeath - 200, atDeath);
            assertThat(info.path("mended").asText())
                    .startsWith("The recording broke off. " + info.path("rows").asLong() + " rows");
            assertThat(Said.in(folder, "export killed.zest --to killed.csv").status())
                    .isZero();
            assertThat(Files.readAllLines(folder.resolve("killed.csv")))
                    .hasSize((int) info.path("rows").asLong() + 1);
        }
    }

    /** Java says first what it picked up from the variable; the version is not in that line. */
    @Test
    void theLauncherReadsJavasVersionThroughWhatJavaSaysFirst() throws Exception {
        ProcessBuilder shell =
                new ProcessBuilder("bash", "-c", ". ../scripts/machine.sh; java_version \"$1\"", "bash", line().get(0));
        shell.environment().put("JAVA_TOOL_OPTIONS", "-Dversion=\"8\" -Xshare:auto");
        shell.redirectErrorStream(true);
        Process process = shell.start();
        String said = new String(process.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        assertThat(process.waitFor()).isZero();
        assertThat(said.trim()).isEqualTo(String.valueOf(Runtime.version().feature()));
    }

    @Test
    void aFullDiskStopsTheRecordingWithWordsAndKeepsWhatWasWritten() throws Exception {
        Run bytes = zesty("simulate", "deck", "--for", "1800s", "--speed", "100000");
        Files.writeString(folder.resolve("deck.txt"), bytes.out());
        // The shell's limit on file sizes, in blocks of 1024 bytes, stands in for the end of the disk.
        List<String> limited = new ArrayList<>(List.of("bash", "-c", "ulimit -f 4000; exec \"$@\"", "full"));
        limited.addAll(line("record", "file:deck.txt", "--out", "full.zest"));
        Run ran = run(limited);
        assertThat(ran.status()).isEqualTo(1);
        // Where the machine is slow it may have waited long enough to say so.
        assertThat(ran.err().lines().filter(said -> !said.contains("still waiting")))
                .singleElement()
                .asString()
                .contains("what was written is kept");
        JsonNode info = Said.in(folder, "info full.zest --json").json();
        // What is there is what was sent, from the first row to the last that is told.
        int rows = info.path("rows").asInt();
        assertThat(rows).isGreaterThan(20_000);
        assertThat(Said.in(folder, "export full.zest --to full.csv").status()).isZero();
        List<String> csv = Files.readAllLines(folder.resolve("full.csv"));
        List<String> sent = bytes.out().lines().skip(3).toList();
        assertThat(csv).hasSize(rows + 1);
        assertThat(csv.get(1)).endsWith("," + sent.get(0));
        assertThat(csv.get(rows)).endsWith("," + sent.get(rows - 1));
    }

    @Test
    void aBoardAsAProcessOfItsOwnIsRecordedOverTheNetwork() throws Exception {
        int port;
        try (ServerSocket free = new ServerSocket(0)) {
            port = free.getLocalPort();
        }
        Process board = new ProcessBuilder(line("simulate", "deck", "--tcp", String.valueOf(port)))
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        try {
            Run ran = new Run(1, "", "");
            for (int i = 0; i < 20 && ran.status() != 0; i++) {
                TimeUnit.MILLISECONDS.sleep(200);
                ran = zesty("record", "tcp:127.0.0.1:" + port, "--out", "net.zest", "--samples", "300");
            }
            assertThat(ran.out()).startsWith("net.zest: 300 rows").endsWith(" 0 lost\n");
            assertThat(Said.in(folder, "info net.zest").out()).contains("300 rows, 1.495 s, 200");
        } finally {
            board.destroy();
        }
    }
}
