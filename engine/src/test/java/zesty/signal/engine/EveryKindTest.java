package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.fail;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.Take;

/**
 * Each kind of reader over the whole way: bytes come in, are decoded, dated, scaled, read live and kept; then the take is
 * read, by the window's way and by the command line's, and live everything is worked out again after a change there and
 * back. All four say the same.
 */
@Timeout(240)
class EveryKindTest {
    /** Readings are worked out a few times a second: so many looks later the last one is in. */
    private static final int STILL = 14;

    @TempDir
    Path folder;

    /**
     * A stream that holds something for the kind to find, no longer than its live window.
     *
     * @param expects key of a list, a trace or a number that must not come out empty, so that nothing is not compared to nothing
     */
    record Segment(
            String kind,
            Map<String, String> settings,
            double rateHz,
            double seconds,
            String expects,
            List<DoubleUnaryOperator> columns) {
        @Override
        public String toString() {
            return kind + " at " + rateHz + "/s";
        }
    }

    private static double bump(double t, double at, double width) {
        return Math.exp(-0.5 * Math.pow((t - at) / width, 2));
    }

    private static double train(double t, double every, double width) {
        return bump(t % every, every / 2, width);
    }

    /** Two units that roll about their x, the second by the joint's angle more. */
    private static List<DoubleUnaryOperator> arm(DoubleUnaryOperator noise) {
        List<DoubleUnaryOperator> ports = new ArrayList<>();
        for (double bend : new double[] {0, 0.7}) {
            DoubleUnaryOperator roll = t -> 0.3 * Math.sin(0.9 * t) + bend * Math.sin(2 * t);
            ports.add(t -> 0.01 * noise.applyAsDouble(t));
            ports.add(t -> Math.sin(roll.applyAsDouble(t)) + 0.01 * noise.applyAsDouble(t));
            ports.add(t -> Math.cos(roll.applyAsDouble(t)) + 0.01 * noise.applyAsDouble(t));
            ports.add(t -> Math.toDegrees(0.27 * Math.cos(0.9 * t) + 2 * bend * Math.cos(2 * t)));
            ports.add(t -> 0.3 * noise.applyAsDouble(t));
            ports.add(t -> 0.3 * noise.applyAsDouble(t));
        }
        return ports;
    }

    static Stream<Segment> stretches() {
        Random random = new Random(8);
        DoubleUnaryOperator noise = t -> random.nextGaussian();
        DoubleUnaryOperator knocks = t -> 400 * Math.exp(-(t % 0.9) / 0.01) * Math.cos(2 * Math.PI * 300 * (t % 0.9));
        DoubleUnaryOperator effort = t -> (t > 3 && t < 5) || (t > 8 && t < 11) ? 200 : 6;
        DoubleUnaryOperator heater = t -> t < 20 ? 0 : 60;
        DoubleUnaryOperator warms = t -> 20 + (t < 22 ? 0 : 30 * (1 - Math.exp(-(t - 22) / 9)));
        return Stream.of(
                new Segment(
                        "pulse",
                        Map.of("kind", "optical"),
                        200,
                        19,
                        "beats",
                        List.of(t -> 500 + 80 * train(t, 0.8, 0.07) + noise.applyAsDouble(t))),
                new Segment(
                        "pulse",
                        Map.of("kind", "electrical"),
                        500,
                        19,
                        "beats",
                        List.of(t -> 90 * train(t, 0.8, 0.01)
                                + 25 * train(t + 0.55, 0.8, 0.04)
                                + 2 * noise.applyAsDouble(t))),
                new Segment(
                        "muscle",
                        Map.of(),
                        1000,
                        14,
                        "bursts",
                        List.of(t -> effort.applyAsDouble(t) * noise.applyAsDouble(t))),
                new Segment(
                        "vibration",
                        Map.of("peaks", "3"),
                        1600,
                        9,
                        "peaks",
                        List.of(
                                t -> 900 * Math.sin(2 * Math.PI * 61 * t) + 20 * noise.applyAsDouble(t),
                                t -> 300 * Math.sin(2 * Math.PI * 122 * t) + 20 * noise.applyAsDouble(t),
                                t -> 16_384 + 20 * noise.applyAsDouble(t))),
                new Segment(
                        "hits",
                        Map.of(),
                        4000,
                        9,
                        "hits",
                        List.of(t -> 512 + knocks.applyAsDouble(t) + noise.applyAsDouble(t))),
                new Segment(
                        "tone",
                        Map.of("from", "60"),
                        8000,
                        0.95,
                        "hz",
                        List.of(t -> 700 * Math.sin(2 * Math.PI * 311 * t) + 500 * Math.sin(2 * Math.PI * 622 * t))),
                new Segment(
                        "wind",
                        Map.of("per_turn", "2", "factor", "0.7"),
                        4,
                        100,
                        "series",
                        List.of(t -> Math.floor(3 + 2 * Math.sin(t / 7) + 0.3 * noise.applyAsDouble(t)))),
                new Segment(
                        "motion",
                        Map.of(),
                        100,
                        19,
                        "roll_deg",
                        List.of(
                                t -> 0.02 * noise.applyAsDouble(t),
                                t -> Math.sin(0.4 * Math.sin(t)),
                                t -> Math.cos(0.4 * Math.sin(t)),
                                t -> Math.toDegrees(0.4 * Math.cos(t)),
                                t -> 0.3 * noise.applyAsDouble(t),
                                t -> 0.3 * noise.applyAsDouble(t))),
                new Segment("joint", Map.of(), 100, 13, "angle", arm(noise)),
                new Segment(
                        "orders",
                        Map.of(),
                        1000,
                        9,
                        "orders",
                        List.of(
                                t -> 300 * Math.cos(2 * Math.PI * 19 * t - 1) + 20 * noise.applyAsDouble(t),
                                t -> (19 * t) % 1 < 0.1 ? 1 : 0)),
                new Segment(
                        "step",
                        Map.of(),
                        10,
                        80,
                        "tau_s",
                        List.of(heater, t -> warms.applyAsDouble(t) + 0.05 * noise.applyAsDouble(t))),
                new Segment(
                        "response",
                        Map.of("at", "30", "until", "20"),
                        20,
                        80,
                        "change",
                        List.of(t -> 5 + (t < 30 ? 0 : Math.exp(-(t - 30) / 8)) + 0.02 * noise.applyAsDouble(t))),
                new Segment(
                        "supply",
                        Map.of("cutoff", "10"),
                        10,
                        80,
                        "resistance_ohm",
                        List.of(
                                t -> (t % 20 < 10 ? 0.2 : 2) + 0.003 * noise.applyAsDouble(t),
                                t -> 12.5
                                        - 0.15 * (t % 20 < 10 ? 0.2 : 2)
                                        - 1e-4 * t
                                        + 0.003 * noise.applyAsDouble(t))),
                new Segment(
                        "cells",
                        Map.of(),
                        10,
                        80,
                        "spread_v",
                        List.of(
                                t -> 4.1 - 0.05 * (t % 20 < 10 ? 0 : 1) + 0.002 * noise.applyAsDouble(t),
                                t -> 4.05 - 0.12 * (t % 20 < 10 ? 0 : 1) + 0.002 * noise.applyAsDouble(t),
                                t -> 4.08 - 0.05 * (t % 20 < 10 ? 0 : 1) + 0.002 * noise.applyAsDouble(t))),
                new Segment(
                        "level",
                        Map.of("bands", "960,1040", "hysteresis", "10"),
                        50,
                        9.5,
                        "crossings",
                        List.of(t -> 500 + 60 * Math.sin(2 * t) + noise.applyAsDouble(t))));
    }

    private Path capture(Segment stretch) throws Exception {
        StringBuilder text = new StringBuilder("t_us");
        for (int c = 0; c < stretch.columns().size(); c++) {
            text.append(",c").append(c);
        }
        text.append('\n');
        for (int i = 0; i < stretch.seconds() * stretch.rateHz(); i++) {
            double t = i / stretch.rateHz();
            text.append(Math.round(t * 1e6));
            for (DoubleUnaryOperator column : stretch.columns()) {
                text.append(',').append(Math.round(column.applyAsDouble(t) * 1000) / 1000.0);
            }
            text.append('\n');
        }
        return Files.writeString(folder.resolve("bytes.txt"), text);
    }

    private static ReaderSnapshot until(Trail trail, double seconds, String recipe) throws Exception {
        int still = 0;
        for (int i = 0; i < 1500; i++) {
            Snapshot snapshot = trail.snapshot(System.nanoTime());
            ChannelSnapshot first = snapshot.channel("c0").orElse(null);
            if (snapshot.health().state() == LinkState.OVER
                    && snapshot.lastSeconds() > seconds
                    && first != null
                    && first.channel().recipe().text().equals(recipe)
                    && first.reader().isPresent()
                    && first.clean().end() == first.raw().end()) {
                if (++still == STILL) {
                    return first.reader().get();
                }
            }
            TimeUnit.MILLISECONDS.sleep(20);
        }
        throw new AssertionError(
                "never read to the end: " + trail.snapshot(System.nanoTime()).health());
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("stretches")
    void liveStoredExtractedAndWorkedOutAgainSayTheSame(Segment stretch) throws Exception {
        Path capture = capture(stretch);
        Path file = folder.resolve("kept.zest");
        List<String> columns = new ArrayList<>();
        List<Channel> channels = new ArrayList<>();
        for (int c = 0; c < stretch.columns().size(); c++) {
            columns.add("c" + c);
            channels.add(new Channel("c" + c, "Column " + c, new Scaling(null, 2, 0, "mV"), Recipe.NONE, true));
        }
        ReaderSetup setup = new ReaderSetup(stretch.kind(), columns, stretch.settings());
        Rig rig = Rig.blank("test", "file:" + capture)
                .withLink(new SourceSetup("file:" + capture, Double.NaN, 0, List.of(), List.of()))
                .withChannels(channels)
                .withReader(setup);
        LinkAddress address = LinkAddress.parse("file:" + capture);
        double last = stretch.seconds() - 2.5 / stretch.rateHz();
        Reading live;
        Reading again;
        try (Trail trail = Trail.startRecording(
                rig, address, address.link(), new FromStart(file, "t", RecordingLimit.NONE, Instant.EPOCH))) {
            live = until(trail, last, "").reading();
            Rig now = trail.rig();
            RigChange change =
                    RigChange.between(now, now.withChannel("c0", c -> c.withRecipe(Recipe.parse("offset:5"))));
            trail.change(change);
            until(trail, last, "offset:5");
            trail.change(change.reversed());
            again = until(trail, last, "").reading();
        }
        assertThat(said(live, stretch.expects())).isTrue();
        same(again, live);
        try (Take take = Take.open(file)) {
            ReaderSnapshot stored = StoredTake.load(take)
                    .snapshot()
                    .channel("c0")
                    .orElseThrow()
                    .reader()
                    .orElseThrow();
            assertThat(stored.setup()).isEqualTo(setup);
            same(stored.reading(), live);
            same(TakeReading.read(take, stretch.kind(), columns, stretch.settings()), live);
        }
    }

    /** @return whether the item of that key holds something */
    private static boolean said(Reading reading, String key) {
        Item found = reading.items().stream()
                .filter(item -> item.key().equals(key))
                .findFirst()
                .orElseThrow();
        if (found instanceof Item.Events events) {
            return events.events().size() > 1;
        } else if (found instanceof Item.Records records) {
            return records.records().size() > 1;
        } else if (found instanceof Item.Trace trace) {
            return trace.values().length > 50;
        } else if (found instanceof Item.Numbers numbers) {
            return numbers.values().length > 50;
        }
        return Double.isFinite(reading.scalar(key));
    }

    /** The samples are the same to the last digit and their times to a rounding: so are the answers. */
    private static void same(Reading one, Reading other) {
        assertThat(one.quality().reasons()).isEqualTo(other.quality().reasons());
        assertThat(one.quality().share()).isCloseTo(other.quality().share(), within(1e-6));
        assertThat(one.items()).hasSameSizeAs(other.items());
        for (int i = 0; i < one.items().size(); i++) {
            Item a = one.items().get(i);
            Item b = other.items().get(i);
            assertThat(a.key()).isEqualTo(b.key());
            if (a instanceof Item.Events events) {
                List<Event> others = ((Item.Events) b).events();
                assertThat(events.events()).as(a.key()).hasSameSizeAs(others);
                for (int e = 0; e < others.size(); e++) {
                    Event event = events.events().get(e);
                    assertThat(event.kind()).isEqualTo(others.get(e).kind());
                    assertThat(event.why()).isEqualTo(others.get(e).why());
                    near(a.key(), new double[] {event.startSeconds(), event.endSeconds(), event.size()}, new double[] {
                        others.get(e).startSeconds(),
                        others.get(e).endSeconds(),
                        others.get(e).size()
                    });
                    near(a.key(), event.values(), others.get(e).values());
                }
            } else if (a instanceof Item.Records records) {
                List<double[]> others = ((Item.Records) b).records();
                assertThat(records.records()).as(a.key()).hasSameSizeAs(others);
                for (int r = 0; r < others.size(); r++) {
                    near(a.key(), records.records().get(r), others.get(r));
                }
            } else if (a instanceof Item.Trace trace) {
                near(a.key(), trace.seconds(), ((Item.Trace) b).seconds());
                near(a.key(), trace.values(), ((Item.Trace) b).values());
            } else if (a instanceof Item.Numbers numbers) {
                near(a.key(), numbers.values(), ((Item.Numbers) b).values());
            } else if (a instanceof Item.Scalar scalar) {
                near(a.key(), new double[] {scalar.value()}, new double[] {((Item.Scalar) b).value()});
            } else {
                assertThat(a).isEqualTo(b);
            }
        }
    }

    private static void near(String key, double[] a, double[] b) {
        assertThat(a).as(key).hasSameSizeAs(b);
        for (int i = 0; i < a.length; i++) {
            boolean near =
                    Double.isNaN(b[i]) ? Double.isNaN(a[i]) : Math.abs(a[i] - b[i]) <= 1e-6 * (1 + Math.abs(b[i]));
            if (!near) {
                // Words of thousands of numbers are made for a failure only.
                fail("%s[%d] is %s, not %s, of %s", key, i, a[i], b[i], Arrays.toString(b));
            }
        }
    }

    @Test
    void noKindIsLeftOut() {
        assertThat(stretches().map(Segment::kind))
                .containsAll(ReaderKinds.all().stream().map(ReaderKind::name).toList());
    }
}
