package zesty.signal.core.read.step;

import java.util.List;
import java.util.Optional;
import zesty.signal.core.read.Need;
import zesty.signal.core.read.Port;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** The answer to a step: gain, dead time, time constant, rise, whether it has settled. */
public final class StepResponse implements ReaderKind {
    public static final String NAME = "step";
    /** Settings that a picture captures. */
    public static final String GAIN = "gain";

    public static final String TAU = "tau";
    public static final String DEAD = "dead";

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return Messages.of("read.step.how-a-thing-answers-when-what");
    }

    @Override
    public String title() {
        return Messages.of("read.step.step-response");
    }

    @Override
    public String gives() {
        return Messages.of("read.step.gain-dead-time-time-constant");
    }

    @Override
    public List<Port> ports() {
        return List.of(
                new Port("input", "", Messages.of("read.step.what-was-set-a-duty-a-switch-a")),
                new Port("response", "", Messages.of("read.step.the-response-a-temperature-a-speed")));
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                Messages.of("read.step.switched-output-and-a-sensor"),
                2,
                1,
                100,
                2,
                Messages.of("read.step.no-power-at-the-actuator-a-source"),
                List.of(
                        Messages.of("read.step.actuator-on-its-own-supply"),
                        Messages.of("read.step.output-goes-safe-when-the-link"),
                        Messages.of("read.step.sensor-where-it-counts"))));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.number(
                        GAIN,
                        Setting.AUTO,
                        -1e9,
                        1e9,
                        "",
                        Messages.of("read.step.gain"),
                        Messages.of("read.step.set-by-hand-against-the-curve-auto")),
                Setting.number(
                        TAU,
                        Setting.AUTO,
                        1e-6,
                        1e7,
                        "s",
                        Messages.of("read.step.time-constant"),
                        Messages.of("read.step.set-by-hand-against-the-curve-auto")),
                Setting.number(
                        DEAD,
                        Setting.AUTO,
                        0,
                        1e7,
                        "s",
                        Messages.of("read.step.dead-time"),
                        Messages.of("read.step.set-by-hand-against-the-curve-auto")));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo(
                        "gain",
                        Messages.of("read.step.gain"),
                        "",
                        -1,
                        Messages.of("read.step.change-of-the-response-over-change")),
                new ScalarInfo(
                        "tau_s",
                        Messages.of("read.step.time-constant"),
                        "s",
                        2,
                        Messages.of("read.step.of-a-first-order-63-of-the-way")),
                new ScalarInfo(
                        "dead_s",
                        Messages.of("read.step.dead-time"),
                        "s",
                        2,
                        Messages.of("read.step.before-anything-happens")),
                new ScalarInfo(
                        "rise_s",
                        Messages.of("read.step.rise"),
                        "s",
                        2,
                        Messages.of("read.step.from-10-to-90-of-the-way")),
                new ScalarInfo(
                        "gain_up",
                        Messages.of("read.step.gain-up"),
                        "",
                        -1,
                        Messages.of("read.step.of-the-steps-up-alone")),
                new ScalarInfo(
                        "gain_down",
                        Messages.of("read.step.gain-down"),
                        "",
                        -1,
                        Messages.of("read.step.of-the-steps-down-alone")),
                new ScalarInfo(
                        "overshoot_percent",
                        Messages.of("read.step.overshoot"),
                        "%",
                        0,
                        Messages.of("read.step.how-far-it-goes-beyond-where-it")),
                new ScalarInfo(
                        "slow_lag_s",
                        Messages.of("read.step.slower-lag"),
                        "s",
                        2,
                        Messages.of("read.step.of-two-lags-in-a-row-where-they")),
                new ScalarInfo(
                        "fast_lag_s",
                        Messages.of("read.step.faster-lag"),
                        "s",
                        2,
                        Messages.of("read.step.of-two-lags-in-a-row-where-they")),
                new ScalarInfo(
                        "baseline",
                        Messages.of("read.step.before"),
                        "",
                        -1,
                        Messages.of("read.step.the-response-before-the-step")),
                new ScalarInfo(
                        "rms_residual",
                        Messages.of("read.step.residual"),
                        "",
                        -1,
                        Messages.of("read.step.root-of-the-mean-square-of-what")));
    }

    @Override
    public List<String> otherKeys() {
        return List.of("settled", "each");
    }

    @Override
    public double windowSeconds() {
        return 120;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        return rateHz > 0
                ? Optional.empty()
                : Optional.of(Messages.of("read.step.a-step-needs-a-rate-above-0", Digits.of(rateHz)));
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        return new StepReader(settings.number(GAIN), settings.number(TAU), settings.number(DEAD), rateHz);
    }
}
