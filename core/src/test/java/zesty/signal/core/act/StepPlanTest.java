package zesty.signal.core.act;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Plans as they are written, and proposals against a loop of another make. */
class StepPlanTest {
    @Test
    void aPlanIsReadAsItIsWritten() {
        StepPlan plan = StepPlan.parse(" 0 20 s, 40 settled 2 min,80 60s ; stop above 70; stop below -5");
        assertThat(plan.phases())
                .isEqualTo(List.of(
                        new StepPlan.Phase(0, 20, false),
                        new StepPlan.Phase(40, 120, true),
                        new StepPlan.Phase(80, 60, false)));
        assertThat(plan.stopAbove()).isEqualTo(70);
        assertThat(plan.stopBelow()).isEqualTo(-5);
        assertThat(plan.seconds()).isEqualTo(200);
        assertThat(StepPlan.parse(plan.text())).isEqualTo(plan);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "40", "40 s", "x 20 s", "40 20 s; end above 3", "40 0 s", "40 20 s,, 0 3 s"})
    void whatIsNoPlanIsRefusedInWords(String text) {
        assertThatThrownBy(() -> StepPlan.parse(text))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("write for example: 0 20 s, 40 60 s");
    }

    /** A fine loop of another make: small fixed steps, a queue for the dead time, the midpoint rule for the lag. */
    private static double[] run(double gain, double tau, double dead, double p, double i) {
        double dt = dead / 400;
        int n = (int) (25 * (tau + dead) / dt);
        java.util.ArrayDeque<Double> late = new java.util.ArrayDeque<>();
        for (int k = 0; k < 400; k++) {
            late.add(0.0);
        }
        double y = 0;
        double integral = 0;
        double highest = 0;
        double settled = 0;
        for (int k = 0; k < n; k++) {
            integral += (1 - y) * dt / i;
            late.addLast(p * (1 - y + integral));
            double u = late.pollFirst();
            double half = y + dt / 2 / tau * (gain * u - y);
            y += dt / tau * (gain * u - half);
            highest = Math.max(highest, y);
            settled = Math.abs(y - 1) > 0.02 ? (k + 1) * dt : settled;
        }
        return new double[] {highest - 1, settled};
    }

    /** By hand: P is 0.9 τ/(K θ) and τ/(2 K θ), I is 3.33 θ and the lesser of τ and 8 θ. */
    @ParameterizedTest
    @CsvSource({
        "0.4, 20, 2, 22.5, 6.66, 12.5, 16",
        "2, 5, 4, 0.5625, 13.32, 0.3125, 5",
        "-0.4, 20, 2, -22.5, 6.66, -12.5, 16"
    })
    void termsAreThoseOfTheRulesAndDoWhatTheyPromise(
            double gain, double tau, double dead, double quickP, double quickI, double calmP, double calmI) {
        LoopProposal loop = new LoopProposal(gain, tau, dead);
        LoopProposal.Terms quick = loop.terms(LoopProposal.Temper.QUICK);
        LoopProposal.Terms calm = loop.terms(LoopProposal.Temper.CALM);
        assertThat(quick.proportional()).isCloseTo(quickP, within(1e-9));
        assertThat(quick.integralSeconds()).isCloseTo(quickI, within(1e-9));
        assertThat(calm.proportional()).isCloseTo(calmP, within(1e-9));
        assertThat(calm.integralSeconds()).isCloseTo(calmI, within(1e-9));
        for (LoopProposal.Terms terms : loop.both()) {
            double[] other = run(gain, tau, dead, terms.proportional(), terms.integralSeconds());
            assertThat(terms.overshoot()).isCloseTo(Math.max(0, other[0]), within(0.03));
            assertThat(terms.settledSeconds()).isCloseTo(other[1], within(0.15 * other[1]));
        }
        assertThat(calm.overshoot()).isLessThan(Math.max(0.1, quick.overshoot()));
    }

    /** Between switching and answering the dead time passes: by then it has gone on by its slope, up and down. */
    @Test
    void switchingSwingsByTheHysteresisAndWhatTheDeadTimeAdds() {
        LoopProposal loop = new LoopProposal(0.4, 20, 2);
        LoopProposal.OnOff swing = loop.onOff(20, 32, 60, 1);
        // Upwards it makes for 44, downwards for 20: e^(−2/20) of the way is left after the dead time.
        double high = 44 - (44 - 32.5) * Math.exp(-0.1);
        double low = 20 + (31.5 - 20) * Math.exp(-0.1);
        assertThat(swing.swing()).isCloseTo(high - low, within(0.05));
        double up = 20 * Math.log((44 - low) / (44 - high));
        double down = 20 * Math.log((high - 20) / (low - 20));
        assertThat(swing.periodSeconds()).isCloseTo(up + down, within(0.1));
        // Upside down it is the same swing, and without a hysteresis the dead time alone makes it.
        LoopProposal.OnOff cooled = new LoopProposal(-0.4, 20, 2).onOff(44, 32, 60, 1);
        assertThat(cooled.swing()).isCloseTo(swing.swing(), within(1e-9));
        assertThat(cooled.periodSeconds()).isCloseTo(swing.periodSeconds(), within(1e-9));
        LoopProposal.OnOff bare = loop.onOff(20, 32, 60, 0);
        assertThat(bare.swing()).isCloseTo(24 - 24 * Math.exp(-0.1), within(0.05));
        assertThat(bare.hysteresis()).isZero();
        // What never gets there stays on, and does not swing.
        LoopProposal.OnOff weak = loop.onOff(20, 50, 60, 1);
        assertThat(weak.swing()).isCloseTo(0, within(0.05));
        assertThat(weak.periodSeconds()).isNaN();
        assertThatThrownBy(() -> new LoopProposal(0, 20, 2)).isInstanceOf(IllegalArgumentException.class);
    }
}
