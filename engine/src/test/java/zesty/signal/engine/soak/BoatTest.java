package zesty.signal.engine.soak;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

class BoatTest {
    @TempDir
    Path folder;

    /**
     * Ten minutes, at twenty times the pace, of what {@code benchmarks/run soak 8h} does for a night, in a process of its
     * own: it is put to sleep, and what grows in it is its own.
     */
    @Test
    @Timeout(240)
    void fiveBoardsWithFaultsLoseNoRowUncountedAndNothingGrows() throws Exception {
        Process process = new ProcessBuilder(
                        ProcessHandle.current().info().command().orElseThrow(),
                        "-Xmx256m",
                        "-XX:+UseSerialGC",
                        "-cp",
                        System.getProperty("java.class.path"),
                        Boat.class.getName(),
                        "10min",
                        folder.toString(),
                        "20")
                .redirectErrorStream(true)
                .start();
        String said = new String(process.getInputStream().readAllBytes());
        assertThat(process.waitFor()).as(said).isZero();
        assertThat(said).contains("source 5: ").doesNotContain("wrong");
    }
}
