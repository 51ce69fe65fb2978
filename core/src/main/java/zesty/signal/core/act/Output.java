package zesty.signal.core.act;

import java.util.Arrays;
import java.util.Objects;
import zesty.signal.core.text.Messages;

/** A line to the board by what was decided or measured, and the line that makes it safe. */
public sealed interface Output {
    String name();

    String safe();

    /**
     * A line when a rule turns on, another when it turns off.
     *
     * @param longestOnSeconds after so long the safe line is sent, and no on before the rule was off; infinity for none
     */
    record ByRule(String name, String safe, String rule, String on, String off, double longestOnSeconds)
            implements Output {
        public ByRule {
            if (!(longestOnSeconds > 0)) {
                throw new IllegalArgumentException(
                        Messages.of("act.longest-on-s-must-be-above-0-was", longestOnSeconds));
            }
        }
    }

    /**
     * A value over and over: through a map, smoothed, limited in slope, held within a dead zone, once a period.
     *
     * @param map points of in and out, in rising order of in; straight between, held beyond the ends; none for the value itself
     * @param slewPerSecond infinity for none
     * @param line with {@code {value}} in it
     */
    record ByValue(
            String name,
            String safe,
            Watch watch,
            double[][] map,
            double smoothSeconds,
            double slewPerSecond,
            double deadZone,
            double periodSeconds,
            String line)
            implements Output {
        public ByValue {
            for (int i = 1; i < map.length; i++) {
                if (!(map[i][0] > map[i - 1][0])) {
                    throw new IllegalArgumentException(
                            Messages.of("act.map-must-rise-from-point-to-point", map[i][0], map[i - 1][0]));
                }
            }
            if (!(smoothSeconds >= 0) || !(slewPerSecond > 0) || !(deadZone >= 0) || !(periodSeconds > 0)) {
                throw new IllegalArgumentException(Messages.of(
                        "act.smooth-s-and-dead-zone-must-be-0", smoothSeconds, deadZone, slewPerSecond, periodSeconds));
            }
            if (!line.contains("{value}")) {
                throw new IllegalArgumentException(Messages.of("act.line-must-hold-value-was", line));
            }
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof ByValue one
                    && name.equals(one.name)
                    && safe.equals(one.safe)
                    && watch.equals(one.watch)
                    && Arrays.deepEquals(map, one.map)
                    && smoothSeconds == one.smoothSeconds
                    && slewPerSecond == one.slewPerSecond
                    && deadZone == one.deadZone
                    && periodSeconds == one.periodSeconds
                    && line.equals(one.line);
        }

        @Override
        public int hashCode() {
            return Objects.hash(name, safe, watch, Arrays.deepHashCode(map), line);
        }
    }
}
