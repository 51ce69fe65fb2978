package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.Random;
import java.util.Set;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.StepPlan;
import zesty.signal.core.act.Watch;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.rig.OutputUse;
import zesty.signal.core.rig.Rig;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;

/** Plans of steps: gone through, marked, ended where they must be, and what they tell of a thing that is known. */
@Timeout(240)
class PlanTest {
    @TempDir
    Path folder;

    private static Rig rig(String board) {
        return Rig.blank("Wren", "sim:" + board)
                .withAct(ActSetup.NONE
                        .withRule(new Rule.OnSamples(
                                "cold", new Watch.Column("air"), new Condition.Below(90), 0, Rule.Holds.NONE))
                        .withOutput(
                                new Output.ByRule("heater", "heat 0", "cold", "heat 20", "heat 0", 600),
                                OutputUse.DRY.withLive(true)));
    }

    private static double heat(Snapshot snapshot) {
        return snapshot.channel("heat").map(ChannelSnapshot::latestRaw).orElse(Double.NaN);
    }

    @Test
    void itGoesThroughItsSettingsInThePlaceOfTheRuleAndMarksThem() throws Exception {
        Path file = null;
        ActSnapshot.PlanNow over = null;
        Set<Double> heats = new LinkedHashSet<>();
        // A machine that stands still for most of a second ends a plan, as it must; then it is begun again.
        for (int attempt = 0; attempt < 5 && (over == null || over.ended().startsWith("ended: ")); attempt++) {
            file = folder.resolve("plan" + attempt + ".zest");
            heats.clear();
            try (Trail trail = Trail.start(rig("cupboard"))) {
                Await.until(trail, s -> heat(s) == 20);
                trail.record(file, "plan", RecordingLimit.NONE, Instant.EPOCH);
                trail.acts().plan("heater", "air", StepPlan.parse("0 3 s, 60 5 s, 30 3 s; stop above 89"));
                Snapshot ended = Await.until(trail, s -> {
                    heats.add(heat(s));
                    return s.act().plan() != null && !s.act().plan().ended().isEmpty();
                });
                over = ended.act().plan();
                // It ends safe, and the rule, which was on all the while, drives only after it has been off.
                Await.until(trail, s -> heat(s) == 0);
                trail.stopRecording();
            }
        }
        assertThat(over.ended()).isEqualTo("done");
        assertThat(over.seconds().length).isBetween(48, 60);
        assertThat(heats).containsSubsequence(0.0, 60.0, 30.0);
        try (Take take = Take.open(file)) {
            assertThat(take.marks().stream().map(Mark::text))
                    .containsExactly("heater: heat 0", "heater: heat 60", "heater: heat 30", "heater: plan done");
            assertThat(take.decisions().stream().map(one -> one.what() + " " + one.why()))
                    .containsExactly("heat 0 plan", "heat 60 plan", "heat 30 plan", "heat 0 plan done");
        }
    }

    @Test
    void aLimitEndsItAndSoDoesAPulledPlug() throws Exception {
        try (Trail trail = Trail.start(rig("cupboard"))) {
            Await.until(trail, s -> s.channel("air").isPresent());
            trail.acts().plan("heater", "air", StepPlan.parse("100 60 s; stop above 20"));
            Snapshot stopped = Await.until(
                    trail,
                    s -> s.act().plan() != null && !s.act().plan().ended().isEmpty());
            assertThat(stopped.act().plan().ended()).startsWith("stopped: 20").endsWith("is above 20");
            Await.until(trail, s -> heat(s) == 0);
        }
        // This one is unplugged after seven seconds.
        try (Trail trail = Trail.start(rig("cupboard+unplug"))) {
            Await.until(trail, s -> s.channel("air").isPresent());
            trail.acts().plan("heater", "air", StepPlan.parse("40 60 s"));
            Await.until(trail, s -> heat(s) == 40);
            Snapshot ended = Await.until(trail, s -> !s.act().plan().ended().isEmpty());
            assertThat(ended.act().plan().ended()).startsWith("ended: ");
            Await.until(trail, s -> s.health().reconnects() > 0 && heat(s) == 0);
            assertThat(trail.snapshot(System.nanoTime()).act().anyOn()).isFalse();
        }
    }

    /** A first order with dead time, worked out exactly from step to step, in noise. */
    private static String answer(double gain, double tau, double dead, DoubleUnaryOperator beside, boolean heats) {
        double[] settings = {0, 40, 0, 40, 0};
        double rate = 5;
        int each = (int) (100 * rate);
        int n = settings.length * each;
        double[] t = new double[n];
        double[] u = new double[n];
        double[] y = new double[n];
        Random random = new Random(20_261_133);
        double level = 0;
        for (int i = 0; i < n; i++) {
            t[i] = i / rate;
            u[i] = settings[i / each];
            int late = i - (int) (dead * rate);
            double towards = gain * (late < 0 ? 0 : u[late]);
            level = towards + (level - towards) * Math.exp(-1 / rate / tau);
            y[i] = 20 + level + beside.applyAsDouble(t[i]) + 0.05 * random.nextGaussian();
        }
        StepPlan plan = StepPlan.parse("0 100 s, 40 100 s, 0 100 s, 40 100 s, 0 100 s");
        return PlanAnswer.of(new ActSnapshot.PlanNow("heater", "air", plan, 4, 0, "done", t, u, y), "\u00b0C", heats);
    }

    @Test
    void whatItTellsIsTheThingAsItIs() {
        String said = answer(0.4, 15, 2, t -> 0, true);
        assertThat(said)
                .containsPattern("Gain: 0.(399\\d?|400\\d?|4) \u00b0C for one more \u00b1 0.00")
                .containsPattern("Dead time: (1.[789]\\d?|2) s \u00b1")
                .containsPattern("Time constant: (14.9\\d?|15(.[01])?) s \u00b1")
                .containsPattern("Quick control: P 1[5-9](.\\d)?")
                .containsPattern("Calm control: P (8|9|10)");
        assertThat(answer(0, 15, 2, t -> 0, true)).contains("No response: is the power on");
        assertThat(answer(-0.4, 15, 2, t -> 0, true)).contains("are two leads swapped?");
        assertThat(answer(-0.4, 15, 2, t -> 0, false)).doesNotContain("swapped");
        assertThat(answer(0.4, 15, 2, t -> -30 * Math.exp(-t / 60), true)).contains("let it warm up");
    }
}
