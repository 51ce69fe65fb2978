package zesty.signal.core.read.orders;

import java.util.List;
import java.util.Optional;
import zesty.signal.core.clean.Suggestion;
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

/** Vibration by orders of what turns, with a mark once a turn: how much comes once, twice … a turn, and where from the mark. */
public final class Orders implements ReaderKind {
    public static final String NAME = "orders";
    private static final double LEAST_HZ = 20;

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return "how much of a vibration comes once, twice and more often a turn, counted from a tachometer's mark";
    }

    @Override
    public String gives() {
        return "speed, amplitude and phase by order";
    }

    @Override
    public Nature nature() {
        return Nature.TONES;
    }

    @Override
    public List<Suggestion> suggestions() {
        return List.of();
    }

    @Override
    public List<Port> ports() {
        return List.of(
                new Port("vibration", "", "an axis of an accelerometer, or a knock sensor"),
                new Port("mark", "", "the tachometer: one pulse a turn"));
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                "accelerometer and a tachometer",
                300,
                0.3,
                60,
                2,
                "The mark must come once a turn, without bounces.",
                List.of(
                        "sensor screwed to the bearing",
                        "mark on the shaft, pick-up fixed",
                        "guard before what spins")));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.number("marks", "1", 1, 360, "", "marks a turn", "pulses of the tachometer in a turn"),
                Setting.number("highest", "8", 1, 60, "", "orders", "up to which order is told"));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo("turning_hz", "turning speed", "Hz", 2, "turns a second, the mean over whole turns"),
                new ScalarInfo("rpm", "turns a minute", "rpm", 0, "the same in turns a minute"),
                new ScalarInfo(
                        "once", "once a turn", ScalarInfo.OF_PORT, -1, "amplitude of order 1: what is out of balance"),
                new ScalarInfo("phase_deg", "phase", "°", 0, "of order 1: how far after the mark its crest comes"),
                new ScalarInfo("strongest", "strongest order", "", 0, "the order of the largest amplitude"),
                new ScalarInfo(
                        "with_turning",
                        "turning's share",
                        "%",
                        0,
                        "share of the vibration's power that repeats with the turns"),
                new ScalarInfo("unsteady_percent", "unsteady", "%", 1, "SD of the speed from turn to turn"),
                new ScalarInfo("turns", "turns counted", "", 0, "whole turns that were averaged"));
    }

    @Override
    public List<String> otherKeys() {
        return List.of("orders", "speed");
    }

    @Override
    public double windowSeconds() {
        return 10;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        return rateHz >= LEAST_HZ
                ? Optional.empty()
                : Optional.of("orders need " + Digits.of(LEAST_HZ) + " samples/s or more, not " + Digits.of(rateHz));
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        for (String key : new String[] {"marks", "highest"}) {
            if (settings.number(key) != Math.rint(settings.number(key))) {
                throw new ReaderException(key + " takes a whole number, was " + settings.text(key));
            }
        }
        return new OrdersReader((int) settings.number("marks"), (int) settings.number("highest"), rateHz);
    }
}
