package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.sim.FingerSignal;
import zesty.signal.boards.sim.PulseMode;
import zesty.signal.core.act.Band;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.core.rig.BandSetup;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.Take;

/** What is read live, from a take, again after a change, and by hand. */
@Timeout(240)
class ReadingTest {
    private static final String PULSE = "pulse(pulse)";
    private static final String LEVEL = "level(temp)";

    @TempDir
    Path folder;

    /** Two minutes of a pulse at 200/s with a gap of three seconds, and a temperature with every tenth line only. */
    private Path capture() throws Exception {
        FingerSignal finger = new FingerSignal(4, 200, EnumSet.of(PulseMode.BREATH));
        Random random = new Random(2);
        StringBuilder text = new StringBuilder("t_ms,pulse,temp\n");
        for (int i = 0; i < 24_000; i++) {
            long pulse = Math.round(finger.next());
            if (i >= 11_000 && i < 11_600) {
                continue;
            }
            text.append(i * 5).append(',').append(pulse).append(',');
            if (i % 10 == 0) {
                text.append(Math.round(2000 + 300 * Math.sin(i / 2000.0) + 4 * random.nextGaussian()));
            }
            text.append('\n');
        }
        return Files.writeString(folder.resolve("bytes.txt"), text);
    }

    private static Rig rig(Path capture) {
        return Rig.blank("test", "file:" + capture)
                .withLink(new SourceSetup("file:" + capture, Double.NaN, 2, List.of(), List.of()))
                .withChannels(List.of(
                        new Channel(
                                "pulse", "Pulse", Scaling.asItCame("counts"), Recipe.parse("bandpass:0.5..8@2"), true),
                        new Channel("temp", "Temp", new Scaling(null, 0.01, 0, "°C"), Recipe.parse("mean:4"), true)))
                .withReader(ReaderSetup.on("pulse", "pulse", Map.of()))
                .withReader(ReaderSetup.on("temp", "level", Map.of("bands", "19,21", "hysteresis", "0.2")))
                .withBand(new BandSetup(LEVEL, "mean", new Band(18.5, 21.5, 0.2)));
    }

    private static Snapshot until(Trail trail, Predicate<Snapshot> wanted) throws InterruptedException {
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(60);
        while (true) {
            Snapshot snapshot = trail.snapshot(System.nanoTime());
            if (wanted.test(snapshot)) {
                return snapshot;
            }
            assertThat(System.nanoTime()).as("last seen: %s", snapshot.links()).isLessThan(end);
            TimeUnit.MILLISECONDS.sleep(20);
        }
    }

    private static ReaderSnapshot reader(Snapshot snapshot, String id) {
        return snapshot.channels().stream()
                .flatMap(c -> c.readers().stream())
                .filter(r -> r.setup().id().equals(id))
                .findFirst()
                .orElseThrow();
    }

    private static double[] times(List<Event> events, double from, double to) {
        return events.stream()
                .filter(e -> e.believed() && !e.lasts())
                .mapToDouble(Event::startSeconds)
                .filter(t -> t > from && t < to)
                .toArray();
    }

    @Test
    void liveFromTheTakeAndWorkedOutAgainIsTheSame() throws Exception {
        Path capture = capture();
        Path file = folder.resolve("kept.zest");
        LinkAddress address = LinkAddress.parse("file:" + capture);
        Rig rig = rig(capture);
        ReaderSnapshot livePulse;
        ReaderSnapshot liveLevel;
        try (Trail trail = Trail.startRecording(
                rig, address, address.link(), new FromStart(file, "t", RecordingLimit.NONE, Instant.EPOCH))) {
            Snapshot over = until(
                    trail,
                    s -> s.health().state() == LinkState.OVER
                            && s.lastSeconds() > 119.99
                            && !s.channels().isEmpty()
                            && reader(s, PULSE).events().size() > 100);
            livePulse = reader(over, PULSE);
            liveLevel = reader(over, LEVEL);
            assertThat(over.channel("temp").orElseThrow().rateHz()).isCloseTo(20, within(0.4));
            // Kept while it warmed up, but not read: at the start and after the silence.
            ChannelSnapshot pulse = over.channel("pulse").orElseThrow();
            assertThat(pulse.clean().value(390)).isNaN();
            assertThat(pulse.clean().value(410)).isNotNaN();
            assertThat(pulse.clean().value(11_100)).isNaN();
            assertThat(times(livePulse.events(), -1, 2)).isEmpty();
            assertThat(times(livePulse.events(), 55, 59.9)).isEmpty();

            // A change there and back works all of it out again from what is at hand: the same to the last digit.
            Rig now = trail.rig();
            RigChange change = RigChange.between(
                    now,
                    now.withChannel("pulse", c -> c.withRecipe(Recipe.parse("mean:3")))
                            .withChannel("temp", c -> c.withRecipe(Recipe.NONE)));
            trail.change(change);
            until(trail, s -> s.channel("pulse")
                    .orElseThrow()
                    .channel()
                    .recipe()
                    .text()
                    .equals("mean:3"));
            trail.change(change.reversed());
            Snapshot again = until(trail, s -> s.channel("temp")
                    .orElseThrow()
                    .channel()
                    .recipe()
                    .text()
                    .equals("mean:4"));
            assertThat(times(reader(again, PULSE).events(), 0, 200)).containsExactly(times(livePulse.events(), 0, 200));
            for (String key : List.of("mean", "noise", "min", "max", "samples")) {
                assertThat(reader(again, LEVEL).reading().scalar(key))
                        .as(key)
                        .isEqualTo(liveLevel.reading().scalar(key));
            }
        }
        try (Take take = Take.open(file)) {
            StoredTake stored = StoredTake.load(take);
            ReaderSnapshot pulse = reader(stored.snapshot(), PULSE);
            double[] live = times(livePulse.events(), 0, 118);
            double[] kept = times(pulse.events(), 0, 118);
            assertThat(kept).hasSameSizeAs(live);
            for (int i = 0; i < live.length; i++) {
                assertThat(kept[i]).isCloseTo(live[i], within(0.002));
            }
            ReaderSnapshot level = reader(stored.snapshot(), LEVEL);
            double[] crossed = times(level.events(), 0, 200);
            assertThat(crossed).hasSizeBetween(3, 30);
            assertThat(crossed).containsExactly(times(liveLevel.events(), 0, 200), within(0.002));
            assertThat(level.band("mean").orElseThrow().decisions())
                    .extracting(BandSnapshot.Decision::side)
                    .isEqualTo(liveLevel.band("mean").orElseThrow().decisions().stream()
                            .map(BandSnapshot.Decision::side)
                            .toList())
                    .contains(Band.Side.ABOVE, Band.Side.BELOW);
            // The command line's way gives the same as the window's.
            double[] extracted =
                    TakeReading.read(take, "pulse", List.of("Pulse"), Map.of()).times("beats");
            assertThat(extracted).containsExactly(pulse.reading().times("beats"));
        }
    }

    @Test
    void aBeatTakenOutByHandIsKeptWithTheTake() throws Exception {
        Path capture = capture();
        Path file = folder.resolve("hand.zest");
        LinkAddress address = LinkAddress.parse("file:" + capture);
        try (Trail trail = Trail.startRecording(
                rig(capture), address, address.link(), new FromStart(file, "t", RecordingLimit.NONE, Instant.EPOCH))) {
            until(trail, s -> s.health().state() == LinkState.OVER && s.lastSeconds() > 119.99);
        }
        double gone;
        double[] before;
        try (Take take = Take.open(file)) {
            StoredTake stored = StoredTake.load(take);
            before = reader(stored.snapshot(), PULSE).reading().times("beats");
            gone = before[20];
            double put = before[40] + 0.31;
            List<HandEdit> edits = List.of(new HandEdit(false, gone), new HandEdit(true, put));
            take.edit(PULSE, edits);
            StoredTake edited = stored.edited(PULSE, edits);
            double[] after = reader(edited.snapshot(), PULSE).reading().times("beats");
            assertThat(after).hasSameSizeAs(before).doesNotContain(gone).contains(put);
            // No interval runs over the beat that is gone: the longest stays that of two neighbours.
            assertThat(reader(edited.snapshot(), PULSE).reading().scalar("rate_bpm.min"))
                    .isEqualTo(reader(stored.snapshot(), PULSE).reading().scalar("rate_bpm.min"));
            // The form that it was made of stays as it was, whatever is asked of it afterwards.
            StoredTake renamed = stored.with(stored.snapshot().rig().withName("Another"));
            assertThat(reader(renamed.snapshot(), PULSE).reading().times("beats"))
                    .containsExactly(before);
            assertThat(edited.snapshot().channel("temp").orElseThrow().clean())
                    .isSameAs(stored.snapshot().channel("temp").orElseThrow().clean());
        }
        try (Take again = Take.open(file)) {
            assertThat(again.edits().get(PULSE)).hasSize(2);
            double[] after =
                    reader(StoredTake.load(again).snapshot(), PULSE).reading().times("beats");
            assertThat(Arrays.stream(after)).hasSize(before.length).doesNotContain(gone);
            assertThat(TakeReading.read(again, "pulse", List.of("pulse"), Map.of(Pulse.SOURCE, "optical"))
                            .times("beats"))
                    .hasSize(before.length);
            again.edit(PULSE, List.of());
            assertThat(again.edits()).isEmpty();
        }
    }
}
