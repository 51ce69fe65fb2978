package zesty.signal.core.act;

import java.util.Map;
import zesty.signal.core.text.Messages;

/** What a rule or an output looks at. */
public sealed interface Watch {
    /** A column's samples. */
    record Column(String name) implements Watch {}

    /**
     * A reader's number, taken once a second over its last seconds; of rules on events the events themselves.
     *
     * @param number its key; empty where events are watched
     * @param windowSeconds how long a stretch each number speaks of, above 0
     */
    record Number(String kind, String column, Map<String, String> settings, String number, double windowSeconds)
            implements Watch {
        public Number {
            settings = Map.copyOf(settings);
            if (!(windowSeconds > 0)) {
                throw new IllegalArgumentException(Messages.of("act.window-s-must-be-above-0-was", windowSeconds));
            }
        }
    }

    /** @return it in words */
    default String words() {
        return this instanceof Column column
                ? column.name()
                : Messages.of("act.of", ((Number) this).kind(), ((Number) this).column(), ((Number) this).number());
    }
}
