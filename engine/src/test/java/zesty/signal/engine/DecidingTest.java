package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.sim.SimulatedBoard;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Controller;
import zesty.signal.core.act.Deed;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Profile;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.RuleBook;
import zesty.signal.core.act.Watch;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.rig.OutputUse;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.takes.Decision;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.Take;

/** What is decided while a recording runs, without a window, is what a replay of the take decides. */
@Timeout(240)
class DecidingTest {
    @TempDir
    Path folder;

    private static final Watch X = new Watch.Column("x");
    private static final Watch MEAN = new Watch.Number("level", "y", Map.of(), "mean", 3);

    /** 200 rows a second of two wanders, with holes in one of them and a break of two seconds. */
    private Path capture(Random random, int rows) throws Exception {
        StringBuilder text = new StringBuilder("t_us,x,y\n");
        double x = 0;
        double y = 0;
        for (int i = 0; i < rows; i++) {
            x = 0.97 * x + random.nextGaussian();
            y = 0.99 * y + random.nextGaussian();
            text.append(String.format(
                    Locale.ROOT,
                    "%d,%s,%.2f%n",
                    5000L * i + (i > rows / 2 ? 2_000_000 : 0),
                    i > 500 && random.nextInt(40) == 0 ? "" : String.format(Locale.ROOT, "%.2f", x),
                    y));
        }
        return Files.writeString(folder.resolve("board-" + random.nextInt(1 << 30) + ".txt"), text);
    }

    private static Condition condition(Random random) {
        double limit = Math.rint(300 * random.nextGaussian()) / 100;
        return switch (random.nextInt(7)) {
            case 0 -> new Condition.Above(limit);
            case 1 -> new Condition.Below(limit);
            case 2 -> new Condition.Inside(limit - 1, limit + 1);
            case 3 -> new Condition.Outside(limit - 2, limit + 2);
            case 4 -> new Condition.Rising(Math.abs(limit), 0.5);
            case 5 -> new Condition.Falling(Math.abs(limit), 0.7);
            default -> new Condition.Silent(0.5 + random.nextDouble());
        };
    }

    private static RuleBook book(Random random) {
        List<Rule> rules = new ArrayList<>();
        for (int r = 0; r < 24; r++) {
            Rule.Holds holds = new Rule.Holds(
                    random.nextInt(3) * 0.15, random.nextInt(3) * 0.1, random.nextInt(3) * 0.4, random.nextInt(9) == 0);
            Watch watch = random.nextInt(3) == 0 ? MEAN : random.nextBoolean() ? X : new Watch.Column("y");
            Condition when = condition(random);
            boolean silent = when instanceof Condition.Silent;
            rules.add(new Rule.OnSamples(
                    "r" + r, silent ? X : watch, when, random.nextInt(3) * 0.5, silent ? Rule.Holds.NONE : holds));
        }
        rules.add(new Rule.InBands("stage", X, new double[] {-2, 0, 2}, 0.5, 0.1));
        rules.add(new Rule.Made("both", Rule.Together.ALL, List.of("r0", "r1"), 0));
        rules.add(new Rule.Made("then", Rule.Together.THEN, List.of("r2", "r3"), 3));
        List<Output> outputs = List.of(
                new Output.ByRule("lamp", "lamp 0", "r4", "lamp 1", "lamp 0", 2),
                new Output.ByValue(
                        "dial", "dial 0", X, new double[][] {{-5, 0}, {5, 100}}, 0.3, 80, 1, 0.1, "dial {value}"));
        return new RuleBook(rules, outputs);
    }

    /** Each as one line; times to the microsecond, since those of a take are counted from its first row. */
    private static String line(double seconds, String name, String what) {
        return String.format(Locale.ROOT, "%.6f %s %s", seconds, name, what);
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
    void liveDecisionsAreThoseOfAReplayToTheSample(long seed) throws Exception {
        Random random = new Random(20_261_130 + seed);
        RuleBook book = book(random);
        Rig rig = Rig.blank("Wren", "file:" + capture(random, 6000)).withAct(ActSetup.NONE.withBook(book));
        assertThat(RigJson.read(RigJson.write(rig), "it")).isEqualTo(rig);
        Path file = folder.resolve("take.zest");
        LinkAddress address = LinkAddress.parse(rig.source());
        FromStart order = new FromStart(file, "decided", RecordingPlan.now(RecordingLimit.NONE), Instant.EPOCH, false);
        try (Trail trail = Trail.startRecording(rig, address, address.link(), order)) {
            Await.until(
                    trail,
                    s -> s.health().state() == LinkState.OVER && s.channels().size() == 2);
            assertThat(trail.stopRecording().problem()).isEmpty();
        }
        List<String> live = new ArrayList<>();
        List<String> replayed = new ArrayList<>();
        try (Take take = Take.open(file)) {
            take.verify();
            assertThat(take.damage()).isEmpty();
            take.decisions().forEach(one -> live.add(line(one.seconds(), one.name(), one.what())));
            TakeChannels channels = TakeChannels.of(take, List.of("x", "y"));
            RuleReplay.run(book, channels::values, channels.seconds(), 200, new Controller.Listener() {
                @Override
                public void decided(double seconds, int rule, int state, double value) {
                    boolean bands = book.rules().get(rule) instanceof Rule.InBands;
                    String what = bands ? "band " + state : state == 1 ? "on" : "off";
                    replayed.add(line(seconds, book.rules().get(rule).name(), what));
                }

                @Override
                public void sent(double seconds, int output, String text, Controller.Why why) {
                    replayed.add(line(seconds, book.outputs().get(output).name(), text));
                }
            });
        }
        assertThat(live).hasSizeGreaterThan(100);
        int same = 0;
        while (same < Math.min(live.size(), replayed.size()) && live.get(same).equals(replayed.get(same))) {
            same++;
        }
        assertThat(live.subList(same, live.size()).stream().limit(5).toList())
                .isEqualTo(replayed.subList(same, replayed.size()).stream()
                        .limit(5)
                        .toList());
    }

    /** A rule changed while it runs ends what it had on; the others go on as they are, points and all. */
    @Test
    void aChangedRuleBeginsAnewAndTheOthersGoOn() throws Exception {
        Rule warm = new Rule.OnSamples("warm", new Watch.Column("air_C"), new Condition.Above(0), 0, Rule.Holds.NONE);
        Rule hot = new Rule.OnSamples("hot", new Watch.Column("air_C"), new Condition.Above(5), 0, Rule.Holds.NONE);
        ActSetup act = ActSetup.NONE
                .withRule(warm)
                .withRule(hot)
                .withDeed("warm", Deed.POINT, true)
                .withOutput(
                        new Output.ByRule("heat", "heat 0", "hot", "heat 40", "heat 0", Double.POSITIVE_INFINITY),
                        OutputUse.DRY.withLive(true));
        int tries = 1;
        while (!changedWhileItRuns(act)) {
            assertThat(tries++).as("it never goes on heating").isLessThan(8);
        }
    }

    /** @return false where a busy machine stood still on the way, which makes its output safe */
    private static boolean changedWhileItRuns(ActSetup act) throws Exception {
        try (Trail trail = Trail.start(Rig.blank("Wren", "sim:cupboard"))) {
            String air = Await.until(trail, s -> s.channels().size() >= 3).channels().stream()
                    .map(one -> one.channel().column())
                    .filter(one -> one.startsWith("air"))
                    .findFirst()
                    .orElseThrow();
            ActSetup own = act.withBook(act.book().watching(any -> new Watch.Column(air)));
            trail.change(RigChange.between(trail.rig(), trail.rig().withAct(own)));
            // Sent for true, answered by the board, and told by what it answered.
            Snapshot on = Await.until(
                    trail,
                    s -> stood(s)
                            || s.act().anyOn()
                                    && s.channel("heat").orElseThrow().latestRaw() == 40
                                    && s.act().outputs().get(0).answer().contains("heat 40"));
            Rule hotter = new Rule.OnSamples("hot", new Watch.Column(air), new Condition.Above(90), 0, Rule.Holds.NONE);
            trail.change(RigChange.between(trail.rig(), trail.rig().withAct(own.withRule(hotter))));
            Snapshot off = Await.until(
                    trail,
                    s -> s.channel("heat").orElseThrow().latestRaw() == 0
                            && !s.act().anyOn());
            if (stood(off)) {
                return false;
            }
            assertThat(on.act().rules()).allMatch(ActSnapshot.RuleNow::isOn);
            assertThat(off.act().rules().get(0).timesOn()).isEqualTo(1);
            assertThat(off.act().rules().get(0).isOn()).isTrue();
            assertThat(off.act().rules().get(1).isOn()).isFalse();
            assertThat(off.act().log().stream().map(Decision::what)).containsExactly("on", "on", "heat 40", "heat 0");
            return true;
        }
    }

    private static boolean stood(Snapshot snapshot) {
        return snapshot.act().log().stream()
                .anyMatch(one ->
                        one.why().startsWith("nothing comes") || one.why().startsWith("the program stood"));
    }

    /** Percents are of the chosen profile; without one nothing is decided by them. */
    @Test
    void aProfileTurnsPercentsIntoValues() {
        Watch envelope = new Watch.Column("envelope");
        Profile helm = new Profile("the helm", List.of(new Profile.Span(envelope, 10, 210)));
        Rule squeeze =
                new Rule.OnSamples("squeeze", envelope, new Condition.Above(40), 5, new Rule.Holds(0, 0, 0, false));
        ActSetup act = ActSetup.NONE.withRule(squeeze).withPercent("squeeze", true);
        assertThat(((Condition.Above) ((Rule.OnSamples) act.inForce().rules().get(0)).when()).limit())
                .isNaN();
        Rule.OnSamples helms =
                (Rule.OnSamples) act.withProfile(helm).inForce().rules().get(0);
        assertThat(helms.when()).isEqualTo(new Condition.Above(90));
        assertThat(helms.hysteresis()).isEqualTo(10);
        ActSetup two = act.withProfile(helm)
                .withProfile(new Profile("the crew", List.of(new Profile.Span(envelope, 20, 1020))));
        assertThat(((Rule.OnSamples) two.inForce().rules().get(0)).when()).isEqualTo(new Condition.Above(420));
        assertThat(two.choosing("the helm").inForce().rules().get(0)).isEqualTo(helms);
        assertThat(two.withoutRule("squeeze").inPercent()).isEqualTo(Set.of());
    }

    /** Each person's own rest and hardest pull, measured on the first half minute; then two minutes of pulls and pauses. */
    @ParameterizedTest
    @ValueSource(longs = {3, 4, 5, 6})
    void aForearmDrivesTheGripperWithoutATwitchAtRest(long person) {
        SimulatedBoard board = SimulatedBoards.create("forearm-envelope", person);
        int n = 50 * 150;
        double[] envelope = new double[n];
        double[] effort = new double[n];
        for (int i = 0; i < n; i++) {
            board.next(new ByteArrayOutputStream());
            envelope[i] = board.newest()[0][0] * (person % 2 == 0 ? 1 : 2.5);
            effort[i] = board.truth().get("effort percent");
        }
        double[] first = Arrays.copyOf(envelope, 50 * 30);
        double[] sorted = first.clone();
        Arrays.sort(sorted);
        Watch watch = new Watch.Column("envelope");
        Profile own = new Profile(
                "person " + person,
                List.of(new Profile.Span(watch, sorted[sorted.length / 4], sorted[sorted.length - 10])));
        ActSetup act = ActSetup.NONE
                .withOutput(
                        new Output.ByValue(
                                "jaws",
                                "grip 0",
                                watch,
                                new double[][] {{20, 0}, {80, 100}},
                                0.2,
                                300,
                                4,
                                0.05,
                                "grip {value}"),
                        OutputUse.DRY)
                .withPercent("jaws", true)
                .withProfile(own);
        List<double[]> sent = new ArrayList<>();
        Controller controller = new Controller(act.inForce(), new Controller.Listener() {
            @Override
            public void decided(double seconds, int rule, int state, double value) {
                throw new AssertionError("there is no rule");
            }

            @Override
            public void sent(double seconds, int output, String line, Controller.Why why) {
                sent.add(new double[] {seconds, Double.parseDouble(line.substring("grip ".length()))});
            }
        });
        for (int i = 0; i < n; i++) {
            controller.samples(i / 50.0, new double[] {envelope[i]});
        }
        int pulls = 0;
        for (int i = 50; i < n; i++) {
            boolean rested = true;
            for (int k = i - 50; k <= i; k++) {
                rested &= effort[k] < 1;
            }
            double grip = grip(sent, i / 50.0);
            if (rested) {
                assertThat(grip).as("at rest, %s s", i / 50.0).isLessThan(5);
            }
            pulls += effort[i] > 60 && grip > 50 ? 1 : 0;
        }
        assertThat(pulls).isGreaterThan(50);
    }

    private static double grip(List<double[]> sent, double seconds) {
        double grip = 0;
        for (double[] one : sent) {
            grip = one[0] <= seconds ? one[1] : grip;
        }
        return grip;
    }
}
