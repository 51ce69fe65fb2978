package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.Reading;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.Take;

/** A reader of several columns that are cleaned differently: what cleaning delays is taken off before they are compared. */
@Timeout(240)
class PortsInLineTest {
    private static final double RATE = 50;
    private static final double DEAD = 1.2;
    private static final double TAU = 3;

    @TempDir
    Path folder;

    /** A drive that is switched on at 10 s and off at 40 s, and a warmth that follows it. */
    private Path capture() throws Exception {
        Random random = new Random(12);
        StringBuilder text = new StringBuilder("t_ms,drive,warm,slow\n");
        double warm = 0;
        for (int i = 0; i < 70 * RATE; i++) {
            double t = i / RATE;
            double then = t - DEAD;
            warm += ((then >= 10 && then < 40 ? 50 : 0) - warm) / (TAU * RATE);
            text.append(Math.round(1000 * t))
                    .append(',')
                    .append(t >= 10 && t < 40 ? 50 : 0)
                    .append(',')
                    .append(Math.round(1000 * (20 + 0.4 * warm + 0.02 * random.nextGaussian())) / 1000.0)
                    .append(',')
                    // This one comes with every fifth line only.
                    .append(i % 5 == 0 ? String.valueOf(i % 7) : "")
                    .append('\n');
        }
        return Files.writeString(folder.resolve("bytes.txt"), text);
    }

    private Path record(Path capture, String drive, String warm) throws Exception {
        Path file = folder.resolve("kept.zest");
        Rig rig = Rig.blank("test", "file:" + capture)
                .withLink(new SourceSetup("file:" + capture, Double.NaN, 0, List.of(), List.of()))
                .withChannels(List.of(
                        new Channel("drive", "Drive", Scaling.asItCame("%"), Recipe.parse(drive), true),
                        new Channel("warm", "Warmth", Scaling.asItCame("°C"), Recipe.parse(warm), true)));
        LinkAddress address = LinkAddress.parse("file:" + capture);
        try (Trail trail = Trail.startRecording(
                rig, address, address.link(), new FromStart(file, "t", RecordingLimit.NONE, Instant.EPOCH))) {
            for (int i = 0; i < 1000; i++) {
                Snapshot snapshot = trail.snapshot(System.nanoTime());
                if (snapshot.health().state() == LinkState.OVER && snapshot.lastSeconds() > 69.9) {
                    break;
                }
                TimeUnit.MILLISECONDS.sleep(20);
            }
        }
        return file;
    }

    @ParameterizedTest(name = "drive {0}, warmth {1}")
    @CsvSource({"'',''", "'',mean:25", "mean:25,''", "mean:15,mean:45", "'',lowpass:1.5@2", "median:5,exp:0.2"})
    void theDeadTimeIsThatOfTheThingAndNotOfItsCleaning(String drive, String warm) throws Exception {
        try (Take take = Take.open(record(capture(), drive, warm))) {
            Reading step = TakeReading.read(take, "step", List.of("Drive", "Warmth"), Map.of());
            // A mean of 45 samples lasts 0.9 s and makes both edges softer; its middle is what is taken off.
            assertThat(step.scalar("dead_s")).isCloseTo(DEAD, within(0.35));
            assertThat(step.scalar("tau_s")).isCloseTo(TAU, within(0.4));
            assertThat(step.scalar("gain")).isCloseTo(0.4, within(0.01));
        }
    }

    @Test
    void columnsThatComeAtDifferentRatesAreNoBody() throws Exception {
        try (Take take = Take.open(record(capture(), "", ""))) {
            assertThatThrownBy(() -> TakeReading.read(take, "step", List.of("drive", "slow"), Map.of()))
                    .isInstanceOf(ReaderException.class)
                    .hasMessageContaining("drive and slow come at different rates");
            assertThatThrownBy(() -> TakeReading.read(take, "step", List.of("drive", "nothing"), Map.of()))
                    .isInstanceOf(ReaderException.class)
                    .hasMessageContaining("has no column 'nothing'; it has drive, warm, slow");
        }
    }
}
