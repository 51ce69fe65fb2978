package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.LinkException;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.Watch;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.OutputUse;
import zesty.signal.core.rig.Rig;
import zesty.signal.takes.Decision;

/** What goes to a board and what does not: dry runs, cautions, holding, hands, plans, links that break, boards that do not answer. */
@Timeout(240)
class OutputsTest {
    private final List<String> board = new CopyOnWriteArrayList<>();
    private final List<String> log = new ArrayList<>();
    private final List<Double> moments = new ArrayList<>();
    private final List<String> madeSafe = new ArrayList<>();
    private volatile CountDownLatch stuck = new CountDownLatch(0);
    private volatile boolean broken;
    private volatile String answer = "ok";
    private volatile long askedNanos;

    private final Outputs outputs = new Outputs(
            new Outputs.Boards() {
                @Override
                public SentLine send(String source, String line) throws LinkException {
                    if (broken) {
                        throw new LinkException("the cable is out", false);
                    }
                    try {
                        stuck.await();
                    } catch (InterruptedException e) {
                        throw new LinkException("interrupted", false);
                    }
                    askedNanos = line.startsWith("watch") ? System.nanoTime() : askedNanos;
                    board.add(line);
                    return new SentLine(System.nanoTime(), line, "");
                }

                @Override
                public SentLine answered(String source, SentLine line) {
                    return line.withAnswer(answer);
                }

                @Override
                public boolean confirmed(String source, String line, long sinceNanos) {
                    return askedNanos >= sinceNanos && answer.contains(line);
                }

                @Override
                public void share(String source) {
                    board.add("shared");
                }
            },
            new Outputs.Told() {
                @Override
                public void logged(Decision decision) {
                    moments.add(decision.seconds());
                    log.add(decision.what() + " " + decision.why());
                }

                @Override
                public void madeSafe(String output) {
                    madeSafe.add(output);
                }
            });

    @AfterEach
    void close() {
        outputs.close();
    }

    private static Rig rig(String source, OutputUse use, Set<Caution> read) {
        Rig rig = Rig.blank("Wren", source)
                .withAct(ActSetup.NONE
                        .withRule(new Rule.OnSamples(
                                "cold", new Watch.Column("air"), new Condition.Below(20), 0, Rule.Holds.NONE))
                        .withOutput(new Output.ByRule("heater", "heat 0", "cold", "heat 40", "heat 5", 600), use));
        for (Caution caution : read) {
            rig = rig.acknowledging(caution);
        }
        return rig;
    }

    /** The machine may stand still between a row that turned an output on and the first look at the clock. */
    @Test
    void whatIsMadeSafeBeforeTheFirstLookHasTheMomentOfTheLastOrder() {
        simulated(OutputUse.DRY);
        outputs.tick(Double.NaN, System.nanoTime());
        order("heat 40");
        outputs.stoodStill(System.nanoTime());
        outputs.tick(Double.NaN, System.nanoTime());
        assertThat(moments).containsExactly(1.0, 1.0);
    }

    /** A program that stands still misses what a board says; a file waits, and is decided as if nothing had been. */
    @ParameterizedTest
    @CsvSource({"sim:cupboard,the program stood still", "file:/nowhere/rows.csv,released by hand"})
    void onlyWhatHasATimeOfItsOwnIsMissedWhileTheProgramStands(String source, String why) throws Exception {
        Rig rig = rig(source, OutputUse.DRY, Set.of());
        LinkAddress address = LinkAddress.parse(source);
        Feed feed = new Feed(
                "", new SourceReader(address, address.link(), rig.sources().get(0), null), null);
        TrailQueue queue = new TrailQueue(() -> true);
        Acts acts = new Acts(() -> rig, List.of(feed), queue, new RunningRecording(() -> 0), () -> 3);
        acts.rig(rig);
        acts.byHand("heater", "heat 40");
        ((TrailQueue.Order.Act) queue.next()).what().run();
        long now = System.nanoTime();
        acts.look(now);
        acts.look(now + 5_000_000_000L);
        assertThat(acts.snapshot().log())
                .extracting(Decision::what, Decision::why)
                .containsExactly(tuple("heat 40", "by hand, dry run"), tuple("heat 0", why + ", dry run"));
    }

    private static final OutputUse LIVE = OutputUse.DRY.withLive(true);

    private void simulated(OutputUse use, Caution... read) {
        outputs.change(rig("sim:cupboard", use, Set.of(read)));
    }

    private void order(String line) {
        outputs.order(1, "heater", line, "rule");
    }

    private void heard(String... lines) throws InterruptedException {
        for (int i = 0; i < 400 && board.size() < lines.length; i++) {
            TimeUnit.MILLISECONDS.sleep(10);
        }
        assertThat(board).containsExactly(lines);
    }

    private ActSnapshot.OutputNow now() {
        return outputs.now().get(0);
    }

    @Test
    void aDryRunShowsAndSendsNothing() throws Exception {
        simulated(OutputUse.DRY);
        order("heat 40");
        assertThat(now().line()).isEqualTo("heat 40");
        assertThat(now().safe()).isFalse();
        assertThat(now().drives()).isFalse();
        assertThat(outputs.anyOn()).isFalse();
        order("heat 0");
        assertThat(now().safe()).isTrue();
        TimeUnit.MILLISECONDS.sleep(200);
        assertThat(board).isEmpty();
        assertThat(log).containsExactly("heat 40 rule, dry run", "heat 0 rule, dry run");
    }

    @Test
    void whatHeatsWaitsForItsCautionAndBeginsSafe() throws Exception {
        OutputUse heats = LIVE.withCaution(Caution.HEAT);
        simulated(heats);
        order("heat 40");
        assertThat(now().drives()).isFalse();
        // The caution is read while its rule is on: it does not come on by that.
        simulated(heats, Caution.HEAT);
        assertThat(madeSafe).containsExactly("heater");
        assertThat(now().safe()).isTrue();
        order("heat 40");
        heard("heat 40");
        assertThat(outputs.anyOn()).isTrue();
        assertThat(now().answer()).isEqualTo("ok");
        // Back to a dry run: what was on is made safe for true.
        simulated(heats.withLive(false), Caution.HEAT);
        heard("heat 40", "heat 0");
        assertThat(outputs.anyOn()).isFalse();
    }

    @Test
    void allHeldSafeNothingIsSentUntilReleased() throws Exception {
        simulated(LIVE);
        order("heat 40");
        outputs.hold("Esc held down");
        heard("heat 40", "heat 0");
        order("heat 40");
        order("heat 5");
        assertThat(outputs.held()).isEqualTo("Esc held down");
        TimeUnit.MILLISECONDS.sleep(150);
        heard("heat 40", "heat 0");
        outputs.release();
        assertThat(outputs.held()).isEmpty();
        assertThat(madeSafe).containsExactly("heater", "heater");
        order("heat 40");
        heard("heat 40", "heat 0", "heat 40");
        assertThat(log)
                .containsExactly(
                        "heat 40 rule",
                        "heat 0 Esc held down",
                        "heat 40 not sent: Esc held down",
                        "heat 5 not sent: Esc held down",
                        "heat 40 rule");
        // Releasing what is not held changes nothing.
        outputs.release();
        assertThat(madeSafe).hasSize(2);
    }

    /** One link stands still while lines pile up behind it: the safe line among them is not lost. */
    @Test
    void aSafeLineOutlivesAFloodOfOthers() throws Exception {
        Rig two = rig("sim:cupboard", LIVE, Set.of());
        outputs.change(two.withAct(
                two.act().withOutput(new Output.ByRule("fan", "fan 0", "cold", "fan 1", "fan 0", 600), LIVE)));
        order("heat 40");
        heard("heat 40");
        stuck = new CountDownLatch(1);
        outputs.order(1, "fan", "fan 1", "rule");
        order("heat 0");
        for (int i = 2; i < 600; i++) {
            outputs.order(1, "fan", "fan " + i, "rule");
        }
        stuck.countDown();
        for (int i = 0; i < 400 && !board.contains("heat 0"); i++) {
            outputs.tick(2, System.nanoTime() + 1_000_000_000L);
            TimeUnit.MILLISECONDS.sleep(10);
        }
        assertThat(board).contains("heat 0");
        assertThat(now().safe()).isTrue();
    }

    @Test
    void aHandThatIsNotHeardOfHasLetGo() throws Exception {
        simulated(LIVE);
        long t = 1_000_000_000L;
        outputs.byHand(1, "heater", "heat 60", t);
        outputs.byHand(1, "heater", "heat 60", t + 300_000_000);
        outputs.tick(1.7, t + 700_000_000);
        heard("heat 60");
        outputs.tick(1.9, t + 900_000_000);
        heard("heat 60", "heat 0");
        assertThat(log).containsExactly("heat 60 by hand", "heat 0 released by hand");
    }

    @Test
    void aPlanSpeaksInThePlaceOfTheRule() throws Exception {
        simulated(LIVE);
        outputs.plan("heater", "heat 20", 1);
        outputs.plan("heater", "heat 20", 2);
        order("heat 40");
        outputs.plan("heater", "heat 0", 3);
        order("heat 40");
        heard("heat 20", "heat 0");
        outputs.safe("heater", "plan done");
        order("heat 40");
        heard("heat 20", "heat 0", "heat 40");
    }

    @Test
    void aBrokenLinkIsSaidAndItsSafeLineOwedUntilItIsBack() throws Exception {
        simulated(LIVE);
        order("heat 40");
        heard("heat 40");
        broken = true;
        outputs.safe("heater", "nothing comes of air");
        for (int i = 0; i < 300 && now().trouble().isEmpty(); i++) {
            TimeUnit.MILLISECONDS.sleep(10);
        }
        assertThat(now().trouble()).isEqualTo("not sent: the cable is out");
        broken = false;
        outputs.tick(9, System.nanoTime() + 1_000_000_000);
        heard("heat 40", "heat 0");
        for (int i = 0; i < 300 && !now().trouble().isEmpty(); i++) {
            TimeUnit.MILLISECONDS.sleep(10);
        }
        assertThat(now().trouble()).isEmpty();
        // Whatever a board did meanwhile: when it is back it hears its safe line, on or not.
        outputs.linkBack("");
        heard("heat 40", "heat 0", "heat 0");
        outputs.linkBack("another board");
        TimeUnit.MILLISECONDS.sleep(100);
        heard("heat 40", "heat 0", "heat 0");
    }

    @Test
    void whereNoWatchdogCanHoldTheLinkNothingIsSent() throws Exception {
        outputs.change(rig("tcp:127.0.0.1:9", LIVE, Set.of()));
        order("heat 40");
        assertThat(now().drives()).isFalse();
        assertThat(now().trouble()).isEqualTo("no watchdog can hold this link, and none on the board is named");
        TimeUnit.MILLISECONDS.sleep(150);
        assertThat(board).isEmpty();
        assertThat(log)
                .containsExactly(
                        "heat 40 rule, not sent: no watchdog can hold this link, and none on the board is named");
    }

    /** It is asked until it says yes; then its line is said again and again while it is on. */
    @Test
    void aBoardThatWatchesItselfIsAskedForItAndKeptAwake() throws Exception {
        answer = "wrong: watch 800";
        Rig rig = rig("tcp:127.0.0.1:9", LIVE.withWatchdog("watch 900"), Set.of());
        outputs.change(rig);
        long t = System.nanoTime();
        outputs.tick(1, t);
        heard("watch 900");
        order("heat 40");
        assertThat(now().drives()).isFalse();
        assertThat(now().trouble()).isEqualTo("the board has not said yes to \"watch 900\"");
        // It says yes: what waited for it is sent, and then said again and again while it is on.
        answer = "ok watch 900";
        assertThat(now().drives()).isTrue();
        outputs.tick(2, t + 300_000_000);
        outputs.tick(2, t + 400_000_000);
        outputs.tick(2, t + 600_000_000);
        heard("watch 900", "heat 40", "heat 40");
        assertThat(log.get(log.size() - 1)).isEqualTo("heat 40 the watchdog stands by");
        // After a break it is asked anew, and hears its safe line first.
        outputs.linkBack("");
        outputs.tick(3, t + 9_000_000_000L);
        heard("watch 900", "heat 40", "heat 40", "heat 0", "heat 0", "watch 900");
    }

    @Test
    void aBoardThatDoesNotAnswerIsSaid() throws Exception {
        answer = "";
        simulated(LIVE);
        order("heat 40");
        heard("heat 40");
        for (int i = 0; i < 500 && now().trouble().isEmpty(); i++) {
            TimeUnit.MILLISECONDS.sleep(10);
        }
        assertThat(now().trouble()).isEqualTo("no answer to heat 40");
    }

    @Test
    void anOutputThatIsTakenOffOrGetsAnotherSafeLineIsMadeSafeFirst() throws Exception {
        simulated(LIVE);
        order("heat 40");
        Rig rig = rig("sim:cupboard", LIVE, Set.of());
        outputs.change(rig.withAct(
                rig.act().withOutput(new Output.ByRule("heater", "heat 1", "cold", "heat 40", "heat 5", 600), LIVE)));
        heard("heat 40", "heat 0");
        order("heat 40");
        outputs.change(rig.withAct(rig.act().withoutOutput("heater")));
        heard("heat 40", "heat 0", "heat 40", "heat 1");
        assertThat(outputs.now()).isEmpty();
        assertThat(log).contains("heat 0 changed", "heat 1 taken off");
        // Of an output that is not there nothing is sent.
        order("heat 40");
        heard("heat 40", "heat 0", "heat 40", "heat 1");
    }
}
