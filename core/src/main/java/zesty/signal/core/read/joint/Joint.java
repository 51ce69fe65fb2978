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
import zesty.signal.core.text.Messages;

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
        return Messages.of("read.joint.how-far-a-joint-bends-from-two");
    }

    @Override
    public String gives() {
        return Messages.of("read.joint.angle-range-repetitions");
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
                ports.add(new Port(
                        "a" + axis + unit, "g", Messages.of("read.joint.acceleration-along-of-unit", axis, unit)));
            }
            for (String axis : AXES) {
                ports.add(new Port(
                        "g" + axis + unit, "°/s", Messages.of("read.joint.turning-about-of-unit", axis, unit)));
            }
        }
        return ports;
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                Messages.of("read.joint.two-motion-units-six-axes-each"),
                10,
                1,
                100,
                12,
                Messages.of("read.joint.straps-that-slip-an-axis-that"),
                List.of(
                        Messages.of("read.joint.one-unit-above-one-below-the-joint"),
                        Messages.of("read.joint.straps-tight-on-bone"),
                        Messages.of("read.joint.both-units-on-one-board"),
                        Messages.of("read.joint.body-on-battery-power-only"))));
    }

    @Override
    public List<Setting> settings() {
        return List.of(Setting.number(
                "start",
                "0",
                -180,
                180,
                "°",
                Messages.of("read.joint.angle-at-the-start"),
                Messages.of("read.joint.what-the-joint-s-angle-is-as-the")));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo(
                        "angle_deg",
                        Messages.of("read.joint.angle"),
                        "°",
                        1,
                        Messages.of("read.joint.of-the-joint-now-from-its-pose-at")),
                new ScalarInfo(
                        "range_deg",
                        Messages.of("read.joint.range"),
                        "°",
                        1,
                        Messages.of("read.joint.from-the-most-stretched-to-the")),
                new ScalarInfo(
                        "least_deg",
                        Messages.of("read.joint.least"),
                        "°",
                        1,
                        Messages.of("read.joint.the-most-stretched")),
                new ScalarInfo(
                        "most_deg", Messages.of("read.joint.most"), "°", 1, Messages.of("read.joint.the-most-bent")),
                new ScalarInfo(
                        "repetitions",
                        Messages.of("read.joint.repetitions"),
                        "",
                        0,
                        Messages.of("read.joint.there-and-back")),
                new ScalarInfo(
                        "depth_deg",
                        Messages.of("read.joint.depth"),
                        "°",
                        0,
                        Messages.of("read.joint.of-the-middle-repetition-from-end")),
                new ScalarInfo(
                        "pace_per_min",
                        Messages.of("read.joint.pace"),
                        "times/min",
                        1,
                        Messages.of("read.joint.repetitions-a-minute")));
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
                : Optional.of(Messages.of(
                        "read.joint.a-joint-needs-samples-s-or-more", Digits.of(LEAST_HZ), Digits.of(rateHz)));
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        return new JointReader(settings.number("start"), rateHz);
    }
}
