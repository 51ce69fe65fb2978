package zesty.signal.boards.link;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** The watchdog as the process that it is: what it writes into its ports, here files, when the beat stays away or the pipe ends. */
@Timeout(240)
class WatchdogTest {
    @TempDir
    Path folder;

    private Process process;
    private OutputStream to;
    private final List<String> said = new CopyOnWriteArrayList<>();

    @BeforeEach
    void start() throws IOException {
        process = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx16m",
                        "-cp",
                        System.getProperty("java.class.path"),
                        Watchdog.class.getName())
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        to = process.getOutputStream();
        Thread listener = new Thread(() -> {
            try (BufferedReader in =
                    new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))) {
                for (String line = in.readLine(); line != null; line = in.readLine()) {
                    said.add(String.join(" ", Watchdog.words(line)));
                }
            } catch (IOException e) {
                said.add("broken");
            }
        });
        listener.setDaemon(true);
        listener.start();
    }

    @AfterEach
    void end() throws InterruptedException {
        process.destroyForcibly().waitFor();
    }

    private void tell(String... words) throws IOException {
        to.write((Watchdog.line(words) + "\n").getBytes(StandardCharsets.UTF_8));
        to.flush();
    }

    private Path port(String name) throws IOException {
        return Files.createFile(folder.resolve(name));
    }

    private static String in(Path port) throws IOException {
        return Files.readString(port);
    }

    private void heard(String wanted) throws InterruptedException {
        for (int i = 0; i < 1000 && !said.contains(wanted); i++) {
            TimeUnit.MILLISECONDS.sleep(10);
        }
        assertThat(said).contains(wanted);
    }

    private void beatFor(long millis) throws Exception {
        for (long i = 0; i < millis; i += Watchdog.BEAT_MS) {
            tell("beat");
            TimeUnit.MILLISECONDS.sleep(Watchdog.BEAT_MS);
        }
    }

    @Test
    void whatIsOnIsMadeSafeWhenThePipeEndsAndWhatIsOffIsLeftAlone() throws Exception {
        Path heater = port("heater");
        Path fan = port("fan");
        tell("hold", "the heater", heater.toString(), "heat 0\n");
        tell("hold", "fan", fan.toString(), "fan 0\r\n");
        heard("held the heater");
        heard("held fan");
        tell("on", "the heater");
        tell("on", "fan");
        tell("off", "fan");
        to.close();
        assertThat(process.waitFor(30, TimeUnit.SECONDS)).isTrue();
        assertThat(in(heater)).isEqualTo("heat 0\n");
        assertThat(in(fan)).isEmpty();
        heard("safe the heater");
        assertThat(said).doesNotContain("safe fan");
    }

    @Test
    void aBeatThatStaysAwayMakesSafeOnceAndAnotherTimeWhenItIsOnAgain() throws Exception {
        Path heater = port("heater");
        tell("hold", "heater", heater.toString(), "heat 0\n");
        heard("held heater");
        tell("on", "heater");
        beatFor(300);
        heard("safe heater");
        TimeUnit.MILLISECONDS.sleep(2 * Watchdog.FROZEN_MS);
        assertThat(in(heater)).isEqualTo("heat 0\n");
        tell("beat");
        tell("on", "heater");
        to.close();
        assertThat(process.waitFor(30, TimeUnit.SECONDS)).isTrue();
        assertThat(in(heater)).isEqualTo("heat 0\nheat 0\n");
    }

    @Test
    void aPortThatIsNotThereIsSaidAndMayComeLater() throws Exception {
        Path gone = folder.resolve("heater");
        tell("hold", "heater", gone.toString(), "heat 0\n");
        for (int i = 0; i < 1000 && said.stream().noneMatch(one -> one.startsWith("not heater")); i++) {
            TimeUnit.MILLISECONDS.sleep(10);
        }
        assertThat(said).anyMatch(one -> one.startsWith("not heater"));
        assertThat(gone).as("a file in the place of a port that is away").doesNotExist();
        Path there = port("heater");
        tell("hold", "heater", there.toString(), "heat 0\n");
        heard("held heater");
        // Words it does not know, and outputs it does not hold, change nothing.
        tell("on", "nobody");
        tell("dance");
        tell("on");
        tell("on", "heater");
        to.close();
        assertThat(process.waitFor(30, TimeUnit.SECONDS)).isTrue();
        assertThat(in(there)).isEqualTo("heat 0\n");
    }

    @Test
    void itsLanguageCarriesAnyWords() {
        String[] words = {"hold", "the \"heater\"\tof\nWren", "/dev/ü", ""};
        assertThat(Watchdog.words(Watchdog.line(words))).containsExactly(words);
        assertThat(Watchdog.line(words)).doesNotContain("\n").containsOnlyOnce("hold");
    }
}
