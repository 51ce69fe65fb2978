package zesty.signal.core.act;

import zesty.signal.core.text.Messages;

/** When a rule is to be on, sample by sample; hysteresis parts the value that turns it on from the one that turns it off. */
public sealed interface Condition {
    /** On at limit + hysteresis/2 or more, off below limit − hysteresis/2. */
    record Above(double limit) implements Condition {}

    /** On at limit − hysteresis/2 or less, off above limit + hysteresis/2. */
    record Below(double limit) implements Condition {}

    /** On within both by hysteresis/2, off outside either by more than that. */
    record Inside(double low, double high) implements Condition {
        public Inside {
            ordered(low, high);
        }
    }

    /** On outside either by more than hysteresis/2, off within both by as much. */
    record Outside(double low, double high) implements Condition {
        public Outside {
            ordered(low, high);
        }
    }

    /** On where the least-squares slope of the last seconds, in units a second, is the limit + hysteresis/2 or more. */
    record Rising(double limit, double overSeconds) implements Condition {
        public Rising {
            above("over_s", overSeconds);
        }
    }

    /** As rising, of the slope downwards. */
    record Falling(double limit, double overSeconds) implements Condition {
        public Falling {
            above("over_s", overSeconds);
        }
    }

    /** On so long after the last value, off with the next. */
    record Silent(double forSeconds) implements Condition {
        public Silent {
            above("for_s", forSeconds);
        }
    }

    /** On with the count-th event within so many seconds, both ends in; off when the window holds no longer as many. */
    record Events(int count, double withinSeconds) implements Condition {
        public Events {
            if (count < 1 || !(withinSeconds >= 0)) {
                throw new IllegalArgumentException(
                        Messages.of("act.an-event-rule-needs-a-count-of-1", count, withinSeconds));
            }
        }
    }

    private static void ordered(double low, double high) {
        if (!(low < high)) {
            throw new IllegalArgumentException(Messages.of("act.low-must-be-below-high-were", low, high));
        }
    }

    private static void above(String key, double value) {
        if (!(value > 0)) {
            throw new IllegalArgumentException(Messages.of("act.must-be-above-0-was", key, value));
        }
    }
}
