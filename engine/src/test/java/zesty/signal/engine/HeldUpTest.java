package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.boards.link.Link;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.LinkException;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Protocol;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeWriter;

/** Links that give as fast as they are read, that fail with what nobody foresaw, and that are told to end early. */
@Timeout(240)
class HeldUpTest {
    @TempDir
    Path folder;

    /** Lines that count, in pieces of some kilobytes, until so many; then what is to happen. */
    private static final class Counting implements Link {
        private final int rows;
        private final Error end;
        private int next;

        Counting(int rows, Error end) {
            this.rows = rows;
            this.end = end;
        }

        @Override
        public void open() {}

        @Override
        public synchronized int read(byte[] buffer) throws LinkException {
            if (next >= rows) {
                if (end != null) {
                    throw end;
                }
                return OVER;
            }
            StringBuilder text = new StringBuilder();
            while (next < rows && text.length() < buffer.length - 40) {
                text.append(next).append(',').append(next % 1013).append('\n');
                next++;
            }
            byte[] bytes = text.toString().getBytes(StandardCharsets.US_ASCII);
            System.arraycopy(bytes, 0, buffer, 0, bytes.length);
            return bytes.length;
        }

        @Override
        public void write(byte[] bytes) {}

        @Override
        public void close() {}

        @Override
        public boolean joinsMidStream() {
            return false;
        }

        @Override
        public boolean holdsUp() {
            return true;
        }
    }

    private static Snapshot until(Trail trail, Predicate<Snapshot> condition) throws InterruptedException {
        for (int i = 0; i < 4000; i++) {
            Snapshot snapshot = trail.snapshot(System.nanoTime());
            if (condition.test(snapshot)) {
                return snapshot;
            }
            TimeUnit.MILLISECONDS.sleep(25);
        }
        throw new AssertionError(
                "never came about: " + trail.snapshot(System.nanoTime()).links());
    }

    private Trail recording(Link link, Path file, boolean only) {
        return recording(link, file, RecordingPlan.now(RecordingLimit.NONE), only);
    }

    private Trail recording(Link link, Path file, RecordingPlan plan, boolean only) {
        LinkAddress address = LinkAddress.parse("stdin");
        return Trail.startRecording(
                Rig.blank("r", "stdin"), address, link, new FromStart(file, "t", plan, Instant.EPOCH, only));
    }

    @Test
    void aRecordingOnCueThatEndsByItsPlanIsOneTakeAndCountedOnce() throws Exception {
        RecordingPlan plan = new RecordingPlan(RecordingLimit.ofSamples(1000), Instant.EPOCH, null, 0, null, false);
        try (Trail trail = recording(new Counting(5000, null), folder.resolve("once.zest"), plan, true)) {
            until(trail, s -> s.health().state() == LinkState.OVER);
            RecordingSnapshot last = trail.stopRecording();
            assertThat(last.problem()).isEmpty();
            assertThat(last.made()).singleElement().satisfies(made -> assertThat(made.rows())
                    .isEqualTo(1000));
        }
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void whoCanBeHeldUpLosesNothingWhateverElseIsMadeOfTheRows(boolean only) throws Exception {
        int rows = 400_000;
        Path file = folder.resolve("all.zest");
        try (Trail trail = recording(new Counting(rows, null), file, only)) {
            until(trail, s -> s.health().state() == LinkState.OVER);
            RecordingSnapshot last = trail.stopRecording();
            assertThat(last.problem()).isEmpty();
            assertThat(last.rows()).isEqualTo(rows);
            assertThat(last.lostRows()).isZero();
            assertThat(trail.snapshot(System.nanoTime()).health().lostRows()).isZero();
        }
        try (Take take = Take.open(file)) {
            double[] number = take.column(0);
            assertThat(number).hasSize(rows);
            for (int i = 0; i < rows; i += 1009) {
                assertThat(number[i]).isEqualTo(i);
            }
        }
    }

    /** The disk stands still, until the queue between has long been full: what fits is written, the rest is counted. */
    @Test
    void whoCannotBeHeldUpIsCountedExactly() throws Exception {
        Path file = folder.resolve("some.zest");
        DelimitedFormat format = new DelimitedFormat(',', false, false, "", List.of(new Column("n", "")), null);
        Rig rig = new Rig(
                "r",
                SourceSetup.at("stdin"),
                format,
                List.of(new Channel("n", "Number", Scaling.asItCame(""), Recipe.NONE, true)));
        Recorder recorder = new Recorder(
                TakeWriter.create(file, "t", rig, Instant.EPOCH),
                rig,
                new TakeStations(rig, (source, station) -> ""),
                RecordingLimit.NONE,
                Protocol.NONE,
                false,
                () -> Double.POSITIVE_INFINITY,
                () -> Double.NaN);
        for (int i = 0; i < 1500; i++) {
            double[] number = {2 * i, 2 * i + 1};
            recorder.offer(
                    0, new Block(new TimeBase.Steady(i * 0.02, 0.01), new double[][] {number}, 2, List.of()), false);
        }
        recorder.start();
        recorder.stop();
        RecordingSnapshot last = recorder.snapshot();
        assertThat(last.problem()).isEmpty();
        assertThat(last.rows()).isEqualTo(2 * 1024);
        assertThat(last.lostRows()).isEqualTo(2 * (1500 - 1024));
        try (Take take = Take.open(file)) {
            assertThat(take.column(0)).hasSize(2 * 1024).startsWith(0, 1, 2).endsWith(2046, 2047);
        }
    }

    @Test
    void anErrorNobodyForesawEndsTheSourceWithWordsAndKeepsWhatCame() throws Exception {
        Path file = folder.resolve("kept.zest");
        try (Trail trail = recording(new Counting(50_000, new OutOfMemoryError("for this test")), file, false)) {
            Snapshot refused = until(trail, s -> s.health().state() == LinkState.REFUSED);
            assertThat(refused.health().reason())
                    .contains("standard input: memory ran out; give it more")
                    .doesNotContain("OutOfMemory");
            RecordingSnapshot last = trail.stopRecording();
            assertThat(last.rows()).isGreaterThan(0);
            try (Take take = Take.open(file)) {
                assertThat(take.rows()).isEqualTo(last.rows());
                assertThat(take.mended()).isEmpty();
            }
        }
        Path other = folder.resolve("other.zest");
        try (Trail trail = recording(new Counting(50_000, new AssertionError("who knows")), other, true)) {
            assertThat(until(trail, s -> s.health().state() == LinkState.REFUSED)
                            .health()
                            .reason())
                    .contains("it stopped by a fault of the program itself (AssertionError)");
        }
    }

    @Test
    void closedBeforeItsRateIsKnownItHasAllRowsThatCame() throws Exception {
        Path file = folder.resolve("early.zest");
        // Nothing more comes, and the link stays open.
        Counting link = new Counting(40, null);
        Link open = new Link() {
            @Override
            public void open() throws LinkException {
                link.open();
            }

            @Override
            public int read(byte[] buffer) throws LinkException {
                int count = link.read(buffer);
                if (count >= 0) {
                    return count;
                }
                java.util.concurrent.locks.LockSupport.parkNanos(20_000_000);
                return NOTHING;
            }

            @Override
            public void write(byte[] bytes) {}

            @Override
            public void close() {}

            @Override
            public boolean joinsMidStream() {
                return false;
            }
        };
        Trail trail = recording(open, file, true);
        until(trail, s -> s.health().bytes() > 0);
        trail.close();
        try (Take take = Take.open(file)) {
            assertThat(take.rows()).isEqualTo(40);
            assertThat(take.mended()).isEmpty();
        }
    }
}
