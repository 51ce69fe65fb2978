package zesty.signal.core.read.joint;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import zesty.signal.core.read.Nature;
import zesty.signal.core.read.Need;
import zesty.signal.core.read.Port;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.scale.Digits;

/** The angle of a joint that turns like a hinge, from two motion units of six axes, one on each side of it. */
public final class Joint implements ReaderKind {
    public static final String NAME = "joint";
    static final int PORTS = 12;
    private static final double LEAST_HZ = 20;
    private static final String[] AXES = {"x", "y", "z"};

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return "how far a joint bends, from two motion units strapped on either side of it";
    }

    @Override
    public String gives() {
        return "angle, range, repetitions";
    }

    @Override
    public Nature nature() {
        return Nature.NOISE;
    }

    @Override
    public boolean onBody() {
        return true;
    }

    @Override
    public List<Port> ports() {
        List<Port> ports = new ArrayList<>();
        for (int unit = 1; unit <= 2; unit++) {
            for (String axis : AXES) {
                ports.add(new Port("a" + axis + unit, "g", "acceleration along " + axis + " of unit " + unit));
            }
            for (String axis : AXES) {
                ports.add(new Port("g" + axis + unit, "°/s", "turning about " + axis + " of unit " + unit));
            }
        }
        return ports;
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                "two motion units, six axes each",
                10,
                1,
                100,
                12,
                "Straps that slip; an axis that stands upright.",
                List.of(
                        "one unit above, one below the joint",
                        "straps tight on bone",
                        "both units on one board",
                        "body on battery power only")));
    }

    @Override
    public List<Setting> settings() {
        return List.of(Setting.number(
                "start", "0", -180, 180, "°", "angle at the start", "what the joint's angle is as the record begins"));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo("angle_deg", "angle", "°", 1, "of the joint now, from its pose at the start"),
                new ScalarInfo("range_deg", "range", "°", 1, "from the most stretched to the most bent"),
                new ScalarInfo("least_deg", "least", "°", 1, "the most stretched"),
                new ScalarInfo("most_deg", "most", "°", 1, "the most bent"),
                new ScalarInfo("repetitions", "repetitions", "", 0, "there and back"),
                new ScalarInfo("depth_deg", "depth", "°", 0, "of the middle repetition, from end to end"),
                new ScalarInfo("pace_per_min", "pace", "times/min", 1, "repetitions a minute"));
    }

    @Override
    public List<String> otherKeys() {
        return List.of("angle");
    }

    @Override
    public double windowSeconds() {
        return 30;
    }

    @Override
    public double longestHoleSeconds(Settings settings) {
        return 0.1;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        return rateHz >= LEAST_HZ
                ? Optional.empty()
                : Optional.of("a joint needs " + Digits.of(LEAST_HZ) + " samples/s or more, not " + Digits.of(rateHz));
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        return new JointReader(settings.number("start"), rateHz);
    }
}
