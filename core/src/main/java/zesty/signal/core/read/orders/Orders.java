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
import zesty.signal.core.text.Messages;

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
        return Messages.of("read.orders.how-much-of-a-vibration-comes-once");
    }

    @Override
    public String gives() {
        return Messages.of("read.orders.speed-amplitude-and-phase-by-order");
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
                new Port("vibration", "", Messages.of("read.orders.an-axis-of-an-accelerometer-or-a")),
                new Port("mark", "", Messages.of("read.orders.the-tachometer-one-pulse-a-turn")));
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                Messages.of("read.orders.accelerometer-and-a-tachometer"),
                300,
                0.3,
                60,
                2,
                Messages.of("read.orders.the-mark-must-come-once-a-turn"),
                List.of(
                        Messages.of("read.orders.sensor-screwed-to-the-bearing"),
                        Messages.of("read.orders.mark-on-the-shaft-pick-up-fixed"),
                        Messages.of("read.orders.guard-before-what-spins"))));
    }

    @Override
    public List<Setting> settings() {
        return List.of(
                Setting.number(
                        "marks",
                        "1",
                        1,
                        360,
                        "",
                        Messages.of("read.orders.marks-a-turn"),
                        Messages.of("read.orders.pulses-of-the-tachometer-in-a-turn")),
                Setting.number(
                        "highest",
                        "8",
                        1,
                        60,
                        "",
                        Messages.of("read.orders.orders"),
                        Messages.of("read.orders.up-to-which-order-is-told")));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo(
                        "turning_hz",
                        Messages.of("read.orders.turning-speed"),
                        "Hz",
                        2,
                        Messages.of("read.orders.turns-a-second-the-mean-over-whole")),
                new ScalarInfo(
                        "rpm",
                        Messages.of("read.orders.turns-a-minute"),
                        "rpm",
                        0,
                        Messages.of("read.orders.the-same-in-turns-a-minute")),
                new ScalarInfo(
                        "once",
                        Messages.of("read.orders.once-a-turn"),
                        ScalarInfo.OF_PORT,
                        -1,
                        Messages.of("read.orders.amplitude-of-order-1-what-is-out")),
                new ScalarInfo(
                        "phase_deg",
                        Messages.of("read.orders.phase"),
                        "°",
                        0,
                        Messages.of("read.orders.of-order-1-how-far-after-the-mark")),
                new ScalarInfo(
                        "strongest",
                        Messages.of("read.orders.strongest-order"),
                        "",
                        0,
                        Messages.of("read.orders.the-order-of-the-largest-amplitude")),
                new ScalarInfo(
                        "with_turning",
                        Messages.of("read.orders.turning-s-share"),
                        "%",
                        0,
                        Messages.of("read.orders.share-of-the-vibration-s-power")),
                new ScalarInfo(
                        "unsteady_percent",
                        Messages.of("read.orders.unsteady"),
                        "%",
                        1,
                        Messages.of("read.orders.sd-of-the-speed-from-turn-to-turn")),
                new ScalarInfo(
                        "turns",
                        Messages.of("read.orders.turns-counted"),
                        "",
                        0,
                        Messages.of("read.orders.whole-turns-that-were-averaged")));
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
                : Optional.of(Messages.of(
                        "read.orders.orders-need-samples-s-or-more-not", Digits.of(LEAST_HZ), Digits.of(rateHz)));
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        unsuited(settings, "", rateHz).ifPresent(why -> {
            throw new ReaderException(why);
        });
        for (String key : new String[] {"marks", "highest"}) {
            if (settings.number(key) != Math.rint(settings.number(key))) {
                throw new ReaderException(Messages.of("read.orders.takes-a-whole-number-was", key, settings.text(key)));
            }
        }
        return new OrdersReader((int) settings.number("marks"), (int) settings.number("highest"), rateHz);
    }
}
