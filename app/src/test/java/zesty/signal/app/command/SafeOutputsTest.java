package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import zesty.signal.boards.link.SimulatedLink;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.takes.Decision;
import zesty.signal.takes.Take;

/**
 * A heater that is on goes off when what drives it can no longer be trusted: a real process, its watchdog, and a board at the other
 * end of a pseudo-terminal. {@code benchmarks/run safe} runs this for the times that it prints.
 */
@Timeout(240)
class SafeOutputsTest {
    @TempDir
    Path folder;

    private DrivenBoard board;
    private Process process;

    /** What happens to what drives the heater. */
    enum End {
        KILLED,
        FROZEN,
        TOLD_TO_END,
        SILENT
    }

    @BeforeEach
    void plug() throws Exception {
        board = new DrivenBoard(folder);
    }

    @AfterEach
    void end() throws Exception {
        if (process != null) {
            process.destroyForcibly().waitFor();
        }
        board.close();
    }

    private static final String NOTHING_COMES = "nothing comes of air";
    private static final String STOOD_STILL = "the program stood still";

    /** Records with a rule that holds from the first row on, and waits until the board was told to heat. */
    private void heating(int steadyMillis, String more, String... words) throws Exception {
        Path rig = folder.resolve("rig.json");
        Files.writeString(
                rig,
                """
                {"zesty_rig": 3, "name": "Wren", "source": {"address": "sim:cupboard"}, "acknowledged": ["heat"],
                 "decide": {"rules": [{"name": "cool", "watch": {"column": "air"}, "when": "below", "limit": 60}%s],
                  "outputs": [{"name": "heater", "safe": "heat 0", "rule": "cool", "on": "heat 40", "off": "heat 5",
                   "longest_on_s": 600, "live": true, "caution": "heat"}]}}"""
                        .formatted(more));
        for (int attempt = 0; attempt < 8; attempt++) {
            Files.deleteIfExists(folder.resolve("it.zest"));
            List<String> line =
                    Run.line("128m", "record", board.address(), "--rig", rig.toString(), "--out", "it.zest");
            line.addAll(List.of(words));
            process = Run.start(folder, line);
            board.until("heat 40", 0);
            TimeUnit.MILLISECONDS.sleep(steadyMillis);
            if (board.heard.size() == 1) {
                return;
            }
            // On a busy machine the program may stand still while it warms up, which makes it safe, too.
            process.destroyForcibly().waitFor();
            board.until("heat 0", 0);
            try (Take take = Take.open(folder.resolve("it.zest"))) {
                System.out.println("not steady: " + take.decisions());
            }
            board.heard.clear();
        }
        throw new AssertionError("it never goes on heating");
    }

    /** On a machine that stands still meanwhile, program and watchdog both make it safe: once more does no harm. */
    private void heatedOnceAndMadeSafe() {
        List<String> heard = board.heard.stream().map(DrivenBoard.Heard::line).toList();
        assertThat(heard).hasSizeBetween(2, 3).startsWith("heat 40", "heat 0");
        assertThat(heard.subList(1, heard.size())).containsOnly("heat 0");
    }

    private void signal(String name) throws Exception {
        new ProcessBuilder("kill", "-" + name, Long.toString(process.pid()))
                .start()
                .waitFor();
    }

    @ParameterizedTest
    @EnumSource(End.class)
    void theHeaterGoesOffWhateverEnds(End how) throws Exception {
        List<String> whys = ended(how);
        for (int more = 0; how == End.FROZEN && whys.contains(NOTHING_COMES) && more < 5; more++) {
            // The board itself had no time on a busy machine, and the heater was off before anything froze.
            process.destroyForcibly().waitFor();
            board.heard.clear();
            whys = ended(how);
        }
        if (how == End.FROZEN) {
            assertThat(whys).contains("the program stood still");
        }
    }

    /** @return why the take's outputs were set, where the program comes to itself again */
    private List<String> ended(End how) throws Exception {
        heating(700, "");
        int told = board.heard.size();
        long from = System.nanoTime();
        switch (how) {
            case KILLED -> signal("KILL");
            case FROZEN -> signal("STOP");
            case TOLD_TO_END -> signal("TERM");
            default -> board.fallSilent();
        }
        long safe = board.until("heat 0", told);
        System.out.printf("safe %s: %d ms%n", how, (safe - from) / 1_000_000);
        heatedOnceAndMadeSafe();
        if (how != End.FROZEN) {
            return List.of();
        }
        // It comes back to itself, hears of what was done meanwhile, and does not heat again by itself.
        signal("CONT");
        TimeUnit.MILLISECONDS.sleep(1500);
        assertThat(board.heard).hasSizeLessThan(5).allMatch(one -> !one.line().equals("heat 40") || one.nanos() < from);
        signal("TERM");
        process.waitFor();
        try (Take take = Take.open(folder.resolve("it.zest"))) {
            return take.decisions().stream().map(Decision::why).toList();
        }
    }

    @Test
    void aBoardThatComesBackIsMadeSafeBeforeAnythingElse() throws Exception {
        heating(700, "");
        board.unplug();
        TimeUnit.MILLISECONDS.sleep(700);
        int told = board.heard.size();
        board.plug();
        long from = System.nanoTime();
        long safe = board.until("heat 0", told);
        System.out.printf("safe PLUGGED_IN_AGAIN: %d ms%n", (safe - from) / 1_000_000);
        assertThat(board.heard.get(told).line()).isEqualTo("heat 0");
    }

    @Test
    void aTripMakesAllSafeAndARecordingsEndToo() throws Exception {
        List<String> log = tripped();
        for (int more = 0;
                more < 5 && String.join("", log).matches(".*(" + NOTHING_COMES + "|" + STOOD_STILL + ").*");
                more++) {
            // Board or program had no time on a busy machine, and the heater was off before the air was too hot.
            board.heard.clear();
            log = tripped();
        }
        assertThat(log).containsExactly("cool on", "heater heat 40 rule", "too hot on", "heater heat 0 rule too hot");
        heatedOnceAndMadeSafe();
    }

    /** The air warms by itself: the trip comes while the heater's own rule is still on. @return what was decided */
    private List<String> tripped() throws Exception {
        heating(
                300,
                ", {\"name\": \"too hot\", \"watch\": {\"column\": \"air\"}, \"when\": \"above\", \"limit\": 22, \"do\": [\"safe\"]}",
                "--for",
                "14s");
        board.until("heat 0", 0);
        Run ended = Run.ended(folder, process);
        assertThat(ended.status()).as(ended.err()).isZero();
        try (Take take = Take.open(folder.resolve("it.zest"))) {
            assertThat(take.decisions())
                    .filteredOn(
                            one -> one.name().equals("too hot") && one.what().equals("on"))
                    .allMatch(one -> one.value() >= 22);
            return take.decisions().stream()
                    .map(one -> one.name() + " " + one.what() + " " + one.why())
                    .map(String::strip)
                    .toList();
        }
    }

    @Test
    void nothingIsSentBeforeTheCautionWasRead() throws Exception {
        Path rig = folder.resolve("rig.json");
        Files.writeString(
                rig,
                """
                {"zesty_rig": 3, "name": "Wren", "source": {"address": "sim:cupboard"},
                 "decide": {"rules": [{"name": "cool", "watch": {"column": "air"}, "when": "below", "limit": 60},
                   {"name": "astray", "watch": {"column": "hair"}, "when": "below", "limit": 60}],
                  "outputs": [{"name": "heater", "safe": "heat 0", "rule": "cool", "on": "heat 40", "off": "heat 0",
                   "live": true, "caution": "heat"}]}}""");
        Run run = Run.of(folder, "record", board.address(), "--rig", rig.toString(), "--out", "it.zest", "--for", "3s");
        assertThat(run.status()).as(run.err()).isZero();
        assertThat(run.err()).contains("rule 'astray' decides nothing yet").contains("heat, air, wood");
        assertThat(board.heard).isEmpty();
        try (Take take = Take.open(folder.resolve("it.zest"))) {
            assertThat(take.decisions().stream().map(Decision::why)).contains("rule, dry run");
        }
    }

    /** A board on the network has no port to hold: it is asked to watch itself, and opens its jaws when the program is killed. */
    @Test
    void aBoardOnTheNetworkThatWatchesItselfGoesSafeByItself() throws Exception {
        Path rig = folder.resolve("rig.json");
        Files.writeString(
                rig,
                """
                {"zesty_rig": 3, "name": "Wren", "source": {"address": "sim:gripper"}, "acknowledged": ["moving"],
                 "decide": {"rules": [{"name": "hold", "watch": {"column": "force"}, "when": "below", "limit": 60}],
                  "outputs": [{"name": "jaws", "safe": "grip 0", "rule": "hold", "on": "grip 90", "off": "grip 0",
                   "live": true, "caution": "moving", "watchdog": "watch 800"}]}}""");
        boolean held = false;
        for (int attempt = 0; attempt < 8 && !held; attempt++) {
            Files.deleteIfExists(folder.resolve("it.zest"));
            held = heldUntilKilled(rig);
        }
        assertThat(held).as("a program that is well keeps the watch away").isTrue();
    }

    /** @return whether the jaws stayed shut as long as the program lived: on a busy machine it may be late for its board */
    private boolean heldUntilKilled(Path rig) throws Exception {
        SimulatedLink gripper = new SimulatedLink(SimulatedBoards.create("gripper", 1), 1);
        gripper.open();
        StringBuffer said = new StringBuffer();
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            process = Run.start(
                    folder,
                    Run.line(
                            "128m",
                            "record",
                            "tcp:127.0.0.1:" + server.getLocalPort(),
                            "--rig",
                            rig.toString(),
                            "--out",
                            "it.zest"));
            try (Socket client = server.accept()) {
                Thread ear = new Thread(() -> hear(client, gripper));
                ear.setDaemon(true);
                ear.start();
                Thread mouth = new Thread(() -> speak(client, gripper, said));
                mouth.setDaemon(true);
                mouth.start();
                // The rule is on from the first row; it drives once the board has said yes and the rule was off and on
                // again.
                await(said, "ok watch 800");
                await(said, "ok grip 90");
                TimeUnit.MILLISECONDS.sleep(1500);
                boolean held = said.indexOf("watch: grip 0") < 0;
                signal("KILL");
                process.waitFor();
                if (held) {
                    await(said, "watch: grip 0");
                    await(said, "grip=0.0");
                }
                return held;
            }
        } finally {
            process.destroyForcibly().waitFor();
            gripper.close();
        }
    }

    private static void hear(Socket client, SimulatedLink gripper) {
        byte[] buffer = new byte[256];
        try {
            for (int n = client.getInputStream().read(buffer);
                    n >= 0;
                    n = client.getInputStream().read(buffer)) {
                gripper.write(Arrays.copyOf(buffer, n));
            }
        } catch (IOException e) {
            // The program is gone.
        }
    }

    private static void speak(Socket client, SimulatedLink gripper, StringBuffer said) {
        byte[] buffer = new byte[4096];
        try {
            for (int n = gripper.read(buffer); n >= 0; n = gripper.read(buffer)) {
                said.append(new String(buffer, 0, n, StandardCharsets.US_ASCII));
                toProgram(client, buffer, n);
            }
        } catch (IOException e) {
            said.append("[broken off]");
        }
    }

    /** What the board says goes on being heard when the program is gone. */
    private static void toProgram(Socket client, byte[] bytes, int n) {
        try {
            client.getOutputStream().write(bytes, 0, n);
        } catch (IOException e) {
            // The program is gone.
        }
    }

    private static void await(StringBuffer said, String wanted) throws InterruptedException {
        for (int i = 0; i < 3000 && said.indexOf(wanted) < 0; i++) {
            TimeUnit.MILLISECONDS.sleep(10);
        }
        assertThat(said.toString()).contains(wanted);
    }
}
