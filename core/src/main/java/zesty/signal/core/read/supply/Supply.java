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

/** Current, and voltage where there is one: charge, energy, inner resistance, time left. */
public final class Supply implements ReaderKind {
    public static final String NAME = "supply";

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return "what a battery or supply gives: charge, energy, inner resistance, how long it lasts";
    }

    @Override
    public String title() {
        return "Power and charge";
    }

    @Override
    public String gives() {
        return "charge, energy, time left";
    }

    @Override
    public List<Port> ports() {
        return List.of(
                new Port("current", "A", "the current drawn"), new Port("voltage", "V", "the voltage under load"));
    }

    @Override
    public int fewestPorts() {
        return 1;
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                "shunt with an amplifier, and a divider",
                50,
                1,
                200,
                2,
                "Sleep currents are tiny beside sending; the zero moves with the supply.",
                List.of("fuse in the line", "shunt in the return lead", "isolate before touching")));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.number(
                        "cutoff", Setting.AUTO, -1e6, 1e6, "V", "cutoff", "the voltage at which it counts as empty"),
                Setting.number("capacity", Setting.AUTO, 1e-9, 1e9, "Ah", "capacity", "what it holds when it is full"));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo(
                        "charge_ah", "charge", "Ah", -1, "current over time, by trapezoids; nothing across a gap"),
                new ScalarInfo("energy_wh", "energy", "Wh", -1, "power over time; needs the voltage too"),
                new ScalarInfo("mean_a", "mean current", "A", -1, "over the time that was measured"),
                new ScalarInfo("peak_a", "peak current", "A", -1, "the highest sample"),
                new ScalarInfo("mean_w", "mean power", "W", -1, "over the time that was measured"),
                new ScalarInfo("peak_w", "peak power", "W", -1, "the highest product of a row"),
                new ScalarInfo(
                        "resistance_ohm",
                        "inner resistance",
                        "Ω",
                        -1,
                        "the voltage's drop over the current's rise, at steps of the load"),
                new ScalarInfo(
                        "left_s",
                        "time left",
                        "s",
                        0,
                        "to the cutoff at the slope of the last tenth, or by capacity at the mean current"),
                new ScalarInfo("missing_s", "not measured", "s", 1, "gaps, over which nothing is counted"));
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
