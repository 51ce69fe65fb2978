package zesty.signal.core.read.kinds;

import java.util.List;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.cells.Cells;
import zesty.signal.core.read.hits.Hits;
import zesty.signal.core.read.joint.Joint;
import zesty.signal.core.read.level.Level;
import zesty.signal.core.read.motion.Motion;
import zesty.signal.core.read.muscle.Muscle;
import zesty.signal.core.read.orders.Orders;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.core.read.response.ChangeAfter;
import zesty.signal.core.read.step.StepResponse;
import zesty.signal.core.read.supply.Supply;
import zesty.signal.core.read.tone.Tone;
import zesty.signal.core.read.vibration.Vibration;
import zesty.signal.core.read.wind.Wind;
import zesty.signal.core.text.Messages;

/** All kinds of readers there are: a new one is one more line here. */
public final class ReaderKinds {
    private static final List<ReaderKind> ALL = List.of(
            new Pulse(),
            new Muscle(),
            new Vibration(),
            new Hits(),
            new Tone(),
            new Wind(),
            new Motion(),
            new Joint(),
            new Orders(),
            new StepResponse(),
            new ChangeAfter(),
            new Supply(),
            new Cells(),
            new Level());

    private ReaderKinds() {}

    public static List<ReaderKind> all() {
        return ALL;
    }

    /** @throws ReaderException when there is none of that name, saying which there are */
    public static ReaderKind of(String name) {
        return ALL.stream()
                .filter(kind -> kind.name().equals(name))
                .findFirst()
                .orElseThrow(() -> new ReaderException(Messages.of(
                        "read.kinds.no-reader-is-called-there-are",
                        name,
                        String.join(", ", ALL.stream().map(ReaderKind::name).toList()))));
    }
}
