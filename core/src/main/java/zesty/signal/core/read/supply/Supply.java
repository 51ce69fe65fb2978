package zesty.signal.core.read.supply;

import java.util.List;
import java.util.Optional;
import zesty.signal.core.read.Need;
import zesty.signal.core.read.Port;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.text.Messages;

/** Current, and voltage where there is one: charge, energy, inner resistance, time left. */
public final class Supply implements ReaderKind {
    public static final String NAME = "supply";

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return Messages.of("read.supply.what-a-battery-or-supply-gives");
    }

    @Override
    public String title() {
        return Messages.of("read.supply.power-and-charge");
    }

    @Override
    public String gives() {
        return Messages.of("read.supply.charge-energy-time-left");
    }

    @Override
    public List<Port> ports() {
        return List.of(
                new Port("current", "A", Messages.of("read.supply.the-current-drawn")),
                new Port("voltage", "V", Messages.of("read.supply.the-voltage-under-load")));
    }

    @Override
    public int fewestPorts() {
        return 1;
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                Messages.of("read.supply.shunt-with-an-amplifier-and-a"),
                50,
                1,
                200,
                2,
                Messages.of("read.supply.sleep-currents-are-tiny-beside"),
                List.of(
                        Messages.of("read.supply.fuse-in-the-line"),
                        Messages.of("read.supply.shunt-in-the-return-lead"),
                        Messages.of("read.supply.isolate-before-touching"))));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.number(
                        "cutoff",
                        Setting.AUTO,
                        -1e6,
                        1e6,
                        "V",
                        Messages.of("read.supply.cutoff"),
                        Messages.of("read.supply.the-voltage-at-which-it-counts-as")),
                Setting.number(
                        "capacity",
                        Setting.AUTO,
                        1e-9,
                        1e9,
                        "Ah",
                        Messages.of("read.supply.capacity"),
                        Messages.of("read.supply.what-it-holds-when-it-is-full")));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo(
                        "charge_ah",
                        Messages.of("read.supply.charge"),
                        "Ah",
                        -1,
                        Messages.of("read.supply.current-over-time-by-trapezoids")),
                new ScalarInfo(
                        "energy_wh",
                        Messages.of("read.supply.energy"),
                        "Wh",
                        -1,
                        Messages.of("read.supply.power-over-time-needs-the-voltage")),
                new ScalarInfo(
                        "mean_a",
                        Messages.of("read.supply.mean-current"),
                        "A",
                        -1,
                        Messages.of("read.supply.over-the-time-that-was-measured")),
                new ScalarInfo(
                        "peak_a",
                        Messages.of("read.supply.peak-current"),
                        "A",
                        -1,
                        Messages.of("read.supply.the-highest-sample")),
                new ScalarInfo(
                        "mean_w",
                        Messages.of("read.supply.mean-power"),
                        "W",
                        -1,
                        Messages.of("read.supply.over-the-time-that-was-measured")),
                new ScalarInfo(
                        "peak_w",
                        Messages.of("read.supply.peak-power"),
                        "W",
                        -1,
                        Messages.of("read.supply.the-highest-product-of-a-row")),
                new ScalarInfo(
                        "resistance_ohm",
                        Messages.of("read.supply.inner-resistance"),
                        "Ω",
                        -1,
                        Messages.of("read.supply.the-voltage-s-drop-over-the")),
                new ScalarInfo(
                        "left_s",
                        Messages.of("read.supply.time-left"),
                        "s",
                        0,
                        Messages.of("read.supply.to-the-cutoff-at-the-slope-of-the")),
                new ScalarInfo(
                        "missing_s",
                        Messages.of("read.supply.not-measured"),
                        "s",
                        1,
                        Messages.of("read.supply.gaps-over-which-nothing-is-counted")));
    }

    @Override
    public List<String> otherKeys() {
        return List.of("states");
    }

    @Override
    public double windowSeconds() {
        return 600;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        return Optional.empty();
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        return new SupplyReader(settings, rateHz);
    }
}
