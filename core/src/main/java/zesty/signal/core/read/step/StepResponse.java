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
        return "how a thing answers when what drives it is switched: gain, dead time, time constant";
    }

    @Override
    public String title() {
        return "Step response";
    }

    @Override
    public String gives() {
        return "gain, dead time, time constant";
    }

    @Override
    public List<Port> ports() {
        return List.of(
                new Port("input", "", "what was set: a duty, a switch, a drive"),
                new Port("response", "", "the response: a temperature, a speed"));
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                "switched output and a sensor",
                2,
                1,
                100,
                2,
                "No power at the actuator; a source of heat from elsewhere.",
                List.of(
                        "actuator on its own supply",
                        "output goes safe when the link stops",
                        "sensor where it counts")));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.number(
                        GAIN, Setting.AUTO, -1e9, 1e9, "", "gain", "set by hand against the curve; auto: fitted"),
                Setting.number(
                        TAU,
                        Setting.AUTO,
                        1e-6,
                        1e7,
                        "s",
                        "time constant",
                        "set by hand against the curve; auto: fitted"),
                Setting.number(
                        DEAD, Setting.AUTO, 0, 1e7, "s", "dead time", "set by hand against the curve; auto: fitted"));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo("gain", "gain", "", -1, "change of the response over change of the input"),
                new ScalarInfo(
                        "tau_s", "time constant", "s", 2, "of a first order: 63 % of the way after the dead time"),
                new ScalarInfo("dead_s", "dead time", "s", 2, "before anything happens"),
                new ScalarInfo("rise_s", "rise", "s", 2, "from 10 to 90 % of the way"),
                new ScalarInfo("gain_up", "gain up", "", -1, "of the steps up alone"),
                new ScalarInfo("gain_down", "gain down", "", -1, "of the steps down alone"),
                new ScalarInfo(
                        "overshoot_percent", "overshoot", "%", 0, "how far it goes beyond where it comes to rest"),
                new ScalarInfo(
                        "slow_lag_s", "slower lag", "s", 2, "of two lags in a row, where they fit clearly better"),
                new ScalarInfo(
                        "fast_lag_s", "faster lag", "s", 2, "of two lags in a row, where they fit clearly better"),
                new ScalarInfo("baseline", "before", "", -1, "the response before the step"),
                new ScalarInfo("rms_residual", "residual", "", -1, "root of the mean square of what the fit leaves"));
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
                : Optional.of("a step needs a rate above 0 samples/s, not " + Digits.of(rateHz));
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        return new StepReader(settings.number(GAIN), settings.number(TAU), settings.number(DEAD), rateHz);
    }
}
