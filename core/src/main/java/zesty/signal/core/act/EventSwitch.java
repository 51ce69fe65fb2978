package zesty.signal.core.act;

import java.util.ArrayDeque;
import java.util.Deque;

/** On while enough events lie within a window. */
final class EventSwitch extends RuleState {
    private final Rule.OnSamples rule;
    private final Condition.Events events;
    private final Deque<Double> within = new ArrayDeque<>();

    EventSwitch(int index, Rule.OnSamples rule, Condition.Events events, Turned turned) {
        super(index, rule, rule.watch(), 2, turned);
        this.rule = rule;
        this.events = events;
    }

    @Override
    void happened(double seconds) {
        within.addLast(seconds);
        while (seconds - within.peekFirst() > events.withinSeconds() + Controller.ROUNDING_SECONDS) {
            within.removeFirst();
        }
        if (now == 0
                && within.size() >= events.count()
                && !dead(seconds, rule.holds().deadSeconds())) {
            turn(seconds, 1, within.size());
        }
    }

    double due() {
        if (now == 0 || within.size() < events.count() || rule.holds().latch() && !acknowledged) {
            return Double.POSITIVE_INFINITY;
        }
        // The one that the window can least do without.
        double needed =
                within.stream().skip(within.size() - events.count()).findFirst().orElseThrow();
        return Math.max(
                needed + events.withinSeconds(), turnedSeconds + rule.holds().deadSeconds());
    }

    void dueAt(double seconds) {
        if (seconds >= due() - Controller.ROUNDING_SECONDS) {
            turn(seconds, 0, within.size());
        }
    }
}
