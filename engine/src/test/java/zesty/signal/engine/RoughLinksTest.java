package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static zesty.signal.engine.Await.until;

import java.io.ByteArrayOutputStream;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.boards.link.Link;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.LinkException;
import zesty.signal.boards.sim.DeckBoard;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** Links that behave as badly as real ones do. */
@Timeout(240)
class RoughLinksTest {
    private static final LinkAddress ADDRESS = LinkAddress.parse("tcp:127.0.0.1:1");

    @TempDir
    Path folder;

    /** A link that plays a script: bytes to give, silences, breaks. */
    private static final class Scripted implements Link {
        private final ArrayDeque<Object> script = new ArrayDeque<>();
        private final boolean midStream;
        private byte[] giving = new byte[0];
        private int given;
        int opened;
        private long silentSince;
        private long longestSilence;

        synchronized double longestSilenceSeconds() {
            return longestSilence * 1e-9;
        }

        Scripted(boolean midStream) {
            this.midStream = midStream;
        }

        Scripted give(String text) {
            return give(text.getBytes(StandardCharsets.ISO_8859_1));
        }

        Scripted give(byte[] bytes) {
            script.add(bytes);
            return this;
        }

        Scripted silence(long milliseconds) {
            script.add(milliseconds);
            return this;
        }

        Scripted breaks(String why, boolean hopeless) {
            script.add(new LinkException(why, hopeless));
            return this;
        }

        @Override
        public synchronized void open() throws LinkException {
            opened++;
        }

        @Override
        public synchronized int read(byte[] buffer) throws LinkException {
            if (given == giving.length) {
                Object next = script.poll();
                if (next == null) {
                    return OVER;
                }
                if (next instanceof LinkException broken) {
                    throw broken;
                }
                if (next instanceof Long silence) {
                    if (silentSince == 0) {
                        silentSince = System.nanoTime();
                    }
                    sleep(Math.min(silence, 100));
                    if (silence > 100) {
                        script.addFirst(silence - 100);
                    }
                    return NOTHING;
                }
                if (silentSince != 0) {
                    longestSilence = Math.max(longestSilence, System.nanoTime() - silentSince);
                    silentSince = 0;
                }
                giving = (byte[]) next;
                given = 0;
            }
            int count = Math.min(buffer.length, giving.length - given);
            System.arraycopy(giving, given, buffer, 0, count);
            given += count;
            return count;
        }

        private static void sleep(long milliseconds) {
            try {
                TimeUnit.MILLISECONDS.sleep(milliseconds);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }

        @Override
        public void write(byte[] bytes) {}

        @Override
        public void close() {}

        @Override
        public boolean joinsMidStream() {
            return midStream;
        }
    }

    private static Trail start(Link link, Rig rig) {
        return Trail.start(rig, ADDRESS, link);
    }

    private static Rig blank() {
        return Rig.blank("rough", ADDRESS.text());
    }

    private static String deck(int lines) {
        DeckBoard board = new DeckBoard(DeckBoard.Settings.usual(9));
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        for (int i = 0; i < lines; i++) {
            board.next(bytes);
        }
        return bytes.toString(StandardCharsets.US_ASCII);
    }

    @Test
    void rubbishOfAWrongSpeedIsSaidToBeRubbishAndTheRightOneRecognisedAfterIt() throws Exception {
        Random random = new Random(3);
        Scripted link = new Scripted(true);
        for (int i = 0; i < 40; i++) {
            byte[] rubbish = new byte[10_000];
            random.nextBytes(rubbish);
            link.give(rubbish).silence(2);
        }
        link.silence(300).give("\n" + deck(4000)).silence(400);
        try (Trail trail = start(link, blank())) {
            Snapshot puzzled = until(
                    trail,
                    s -> s.health().bytes() > 200_000 && s.health().reason().contains("wrong speed"));
            assertThat(puzzled.health().state()).isEqualTo(LinkState.WARMING_UP);
            assertThat(puzzled.channels()).isEmpty();
            Snapshot known =
                    until(trail, s -> s.rig().format() != null && s.health().rows() > 3000);
            assertThat(known.rig().format().columns()).hasSize(6);
        }
    }

    /** A reader that was busy finds all at once: what came within a moment is looked at though nothing follows. */
    @ParameterizedTest
    @ValueSource(ints = {6, 100})
    void rowsThatAllComeAtOnceAndThenSilenceAreRecorded(int lines) throws Exception {
        StringBuilder rest = new StringBuilder();
        for (int i = 1; i < lines; i++) {
            rest.append(i % 7)
                    .append(',')
                    .append(20 + i % 5)
                    .append(",x=")
                    .append(i % 3)
                    .append('\n');
        }
        Scripted link = new Scripted(false);
        link.give("0,20,x=0\n").give(rest.toString()).silence(60_000);
        Path file = folder.resolve("burst.zest");
        try (Trail trail = Trail.startRecording(
                blank(), ADDRESS, link, new FromStart(file, "t", RecordingLimit.NONE, Instant.EPOCH))) {
            Snapshot read = until(trail, s -> s.health().rows() == lines);
            assertThat(read.health().lostRows()).isZero();
            assertThat(read.health().rejectedLines()).isZero();
        }
        try (Take take = Take.open(file)) {
            assertThat(take.rows()).isEqualTo(lines);
        }
    }

    @Test
    void aStreamThatGoesOnInAnotherShapeIsReadOnAndTheTakeSaysSo() throws Exception {
        StringBuilder text = new StringBuilder("t_ms,volts,amps\n");
        for (int i = 0; i < 900; i++) {
            boolean third = i >= 300 && i < 600;
            text.append(i * 10).append(',').append(i % 50).append(',').append(i % 30);
            text.append(third ? "," + i % 20 : "").append('\n');
        }
        Scripted link = new Scripted(false);
        for (int at = 0; at < text.length(); at += 300) {
            link.give(text.substring(at, Math.min(text.length(), at + 300))).silence(5);
        }
        Path file = folder.resolve("shape.zest");
        try (Trail trail = Trail.startRecording(
                blank(), ADDRESS, link, new FromStart(file, "t", RecordingLimit.NONE, Instant.EPOCH))) {
            Snapshot over = until(trail, s -> s.health().state() == LinkState.OVER && s.lastSeconds() > 8.98);
            assertThat(over.health().rows()).isEqualTo(900);
            assertThat(over.health().rejectedLines()).isZero();
            assertThat(over.health().reason()).startsWith("the stream changed its shape");
            assertThat(over.channels()).hasSize(2);
        }
        try (Take take = Take.open(file)) {
            StoredTake stored = StoredTake.load(take);
            assertThat(stored.snapshot().channel("amps").orElseThrow().raw().end())
                    .isEqualTo(900);
            assertThat(stored.snapshot().channel("amps").orElseThrow().raw().value(450))
                    .isEqualTo(450 % 30);
            assertThat(take.marks())
                    .extracting(mark -> mark.text())
                    .first()
                    .asString()
                    .startsWith("the stream changed its shape");
        }
    }

    @Test
    void liveHeldAndLostFollowTheSilence() throws Exception {
        Scripted link = new Scripted(false).give("a,b\n");
        for (int i = 0; i < 120; i++) {
            link.give("1,2\n").silence(25);
        }
        link.silence(5000).give("3,4\n3,4\n").silence(900);
        try (Trail trail = start(link, blank())) {
            until(trail, s -> s.health().state() == LinkState.LIVE);
            Snapshot held = until(trail, s -> s.health().state() == LinkState.HELD);
            assertThat(held.health().reason()).isEqualTo("no new data");
            Snapshot lost = until(trail, s -> s.health().state() == LinkState.LOST);
            assertThat(lost.health().reason()).startsWith("silent for ");
            until(trail, s -> s.health().state() == LinkState.LIVE);
            Snapshot after = until(trail, s -> s.health().rows() == 122 && longestGap(s) > 1);
            // The script's own pauses tell how long it really was on a busy machine; such a one may make short gaps,
            // too.
            assertThat(longestGap(after)).isBetween(4.5, link.longestSilenceSeconds() + 0.5);
        }
    }

    private static double longestGap(Snapshot snapshot) {
        return snapshot.streams().stream()
                .flatMap(stream -> stream.gaps().stream())
                .mapToDouble(Gap::seconds)
                .max()
                .orElse(0);
    }

    @Test
    void aByteAtATimeGivesTheSameRowsAsAllAtOnce() throws Exception {
        String text = "board\nt_us,pulse,forearm,heel,trim,bilge\n" + deck(300);
        Scripted link = new Scripted(false);
        for (byte b : text.getBytes(StandardCharsets.US_ASCII)) {
            link.give(new byte[] {b});
        }
        link.silence(200);
        try (Trail trail = start(link, blank())) {
            Snapshot snapshot = until(trail, s -> s.health().state() == LinkState.OVER && s.lastSeconds() > 1.4);
            assertThat(snapshot.health().rows()).isEqualTo(300);
            assertThat(snapshot.health().rejectedLines()).isOne();
            assertThat(snapshot.rateHz()).isEqualTo(200);
            String[] last =
                    deck(300).lines().skip(299).findFirst().orElseThrow().split(",");
            for (int c = 0; c < 5; c++) {
                assertThat(snapshot.channels().get(c).latestRaw()).isEqualTo(Double.parseDouble(last[c + 1]));
            }
        }
    }

    @Test
    void aBrokenLinkIsOpenedAgainButAHopelessOneIsNot() throws Exception {
        Scripted link = new Scripted(true)
                .give("x,y\n" + "1,2\n".repeat(50))
                .silence(100)
                .breaks("the cable came out", false)
                .give("5,6\n7,8\n9,10\n")
                .silence(200)
                .breaks("you may not use this port", true);
        try (Trail trail = start(link, blank())) {
            Snapshot refused = until(trail, s -> s.health().state() == LinkState.REFUSED);
            assertThat(refused.health().reason()).isEqualTo("you may not use this port");
            assertThat(refused.health().reconnects()).isOne();
            // After the first opening the header is believed; after the second the first line is not.
            assertThat(refused.health().rows()).isEqualTo(52);
            assertThat(refused.health().aside()).last().satisfies(item -> assertThat(item.text())
                    .isEqualTo("5,6"));
            assertThat(link.opened).isEqualTo(2);
        }
    }

    @Test
    void aRigMeetsAStreamThatIsNotItsOwn() throws Exception {
        Rig rig = blank().withChannels(List.of(
                new Channel("gone", "Gone", Scaling.asItCame(""), Recipe.NONE, true),
                new Channel("b", "Mine", new Scaling(null, 2, 1, "m"), Recipe.parse("lowpass:400@2"), true)));
        Scripted link = new Scripted(false).give("t,a,b\n");
        StringBuilder rows = new StringBuilder();
        for (int i = 0; i < 200; i++) {
            rows.append(i / 100.0)
                    .append(',')
                    .append(i)
                    .append(',')
                    .append(10 * i)
                    .append('\n');
        }
        link.give(rows.toString()).silence(300);
        try (Trail trail = start(link, rig)) {
            Snapshot snapshot =
                    until(trail, s -> s.channels().size() == 2 && s.health().rows() == 200);
            ChannelSnapshot mine = snapshot.channel("b").orElseThrow();
            assertThat(mine.channel().name()).isEqualTo("Mine");
            // The recipe cannot run at this rate: said so, and the signal is there all the same.
            assertThat(mine.trouble()).contains("must be below 50 Hz");
            assertThat(mine.clean().value(50)).isEqualTo(2 * 500 + 1);
            assertThat(snapshot.channel("gone")).isEmpty();
            assertThat(snapshot.channel("a")).isPresent();
        }
    }

    @Test
    void recordingsAreRefusedMarkedAndEndedInOrder() throws Exception {
        Scripted link = new Scripted(false).silence(200).give("t_ms,v\n");
        // Far more than is recorded: a machine that has just begun is slow to see the first rows.
        for (int i = 0; i < 3000; i++) {
            link.give(i * 10 + "," + i + "\n").silence(10);
        }
        try (Trail trail = start(link, blank())) {
            Path file = folder.resolve("a.zest");
            assertThatThrownBy(() -> trail.record(file, "a", RecordingLimit.NONE, Instant.EPOCH))
                    .isInstanceOf(TakeException.class)
                    .hasMessageContaining("nothing to record yet");
            assertThat(trail.mark("too early", System.nanoTime())).isFalse();
            until(trail, s -> s.health().rows() > 30);
            trail.record(file, "a", RecordingLimit.ofSeconds(1), Instant.EPOCH);
            assertThatThrownBy(() -> trail.record(folder.resolve("b.zest"), "b", RecordingLimit.NONE, Instant.EPOCH))
                    .hasMessageContaining("a recording is running already");
            until(trail, s -> s.recording().rows() > 20);
            assertThat(trail.mark("here", System.nanoTime())).isTrue();
            Snapshot over = until(trail, s -> !s.recording().running());
            assertThat(over.recording().share()).isEqualTo(1);
            assertThat(over.recording().problem()).isEmpty();
            assertThatThrownBy(() -> trail.record(file, "again", RecordingLimit.NONE, Instant.EPOCH))
                    .hasMessageContaining("is there already");
        }
        try (Take take = Take.open(folder.resolve("a.zest"))) {
            // A hundred rows a second for a second, and none beyond it.
            assertThat(take.rows()).isEqualTo(100);
            assertThat(take.seconds()).isCloseTo(0.99, within(1e-9));
            assertThat(take.marks()).singleElement().satisfies(mark -> {
                assertThat(mark.text()).isEqualTo("here");
                assertThat(mark.seconds()).isBetween(0.15, 0.99);
            });
        }
        assertThat(Files.list(folder).filter(f -> !f.toString().endsWith("a.zest")))
                .isEmpty();
    }

    @Test
    void aStandingClockAndMissingValuesDoNotStopTheStream() throws Exception {
        Scripted link = new Scripted(false).give("t_us,v\n");
        for (int i = 0; i < 400; i++) {
            link.give("1000," + (i % 7 == 0 ? "" : i) + "\n").silence(1);
        }
        link.silence(200);
        try (Trail trail = start(link, blank())) {
            Snapshot snapshot = until(trail, s -> s.health().state() == LinkState.OVER);
            assertThat(snapshot.health().rows()).isEqualTo(400);
            assertThat(snapshot.health().rejectedLines()).isZero();
        }
    }

    /** Closing a port throws away what has not left yet: the last line is often the one that makes a heater safe. */
    @Test
    void whatIsWrittenLastLeavesBeforeThePortCloses() throws Exception {
        String last = "heat 0\n";
        try (PtyPair cable = new PtyPair(folder);
                InputStream board = Files.newInputStream(cable.board)) {
            Link link = LinkAddress.parse("serial:" + cable.computer + "@9600").link();
            link.open();
            cable.hold(true);
            link.write(("#".repeat(6000) + last).getBytes(StandardCharsets.US_ASCII));
            Thread closing = new Thread(link::close);
            closing.start();
            TimeUnit.MILLISECONDS.sleep(100);
            cable.hold(false);
            closing.join();
            StringBuilder heard = new StringBuilder();
            while (!heard.toString().endsWith(last)) {
                heard.append((char) board.read());
            }
            assertThat(heard).hasSize(6000 + last.length());
        }
    }
}
