package zesty.signal.core.act;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import zesty.signal.core.text.Messages;

/** Something that is decided, under a name. All rules start off. */
public sealed interface Rule {
    String name();

    /**
     * How long a condition must hold, and how long nothing turns.
     *
     * @param forSeconds without break before it turns on; {@code offForSeconds} before it turns off
     * @param deadSeconds no turn sooner than that after the last one
     * @param latch once on, on until acknowledged
     */
    record Holds(double forSeconds, double offForSeconds, double deadSeconds, boolean latch) {
        public static final Holds NONE = new Holds(0, 0, 0, false);

        public Holds {
            atLeastNothing("for_s", forSeconds);
            atLeastNothing("off_for_s", offForSeconds);
            atLeastNothing("dead_s", deadSeconds);
        }
    }

    /** On or off by a condition on what is watched. */
    record OnSamples(String name, Watch watch, Condition when, double hysteresis, Holds holds) implements Rule {
        public OnSamples {
            atLeastNothing("hysteresis", hysteresis);
            boolean events = when instanceof Condition.Events;
            boolean numbered =
                    watch instanceof Watch.Number number && !number.number().isEmpty();
            if (events && !(watch instanceof Watch.Number)) {
                throw new IllegalArgumentException(Messages.of("act.an-event-rule-watches-a-reader"));
            }
            if (!events && watch instanceof Watch.Number && !numbered) {
                throw new IllegalArgumentException(Messages.of("act.which-number-of-the-reader-is"));
            }
        }
    }

    /** Which of several bands a value lies in, counted from 0 below the first edge. */
    record InBands(String name, Watch watch, double[] edges, double hysteresis, double leastSeconds) implements Rule {
        public InBands {
            atLeastNothing("hysteresis", hysteresis);
            atLeastNothing("least_s", leastSeconds);
            for (int e = 1; e < edges.length; e++) {
                if (!(edges[e] > edges[e - 1])) {
                    throw new IllegalArgumentException(Messages.of("act.bands-must-rise-were", Arrays.toString(edges)));
                }
            }
            if (edges.length == 0) {
                throw new IllegalArgumentException(Messages.of("act.bands-need-one-edge-at-least"));
            }
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof InBands one
                    && name.equals(one.name)
                    && watch.equals(one.watch)
                    && Arrays.equals(edges, one.edges)
                    && hysteresis == one.hysteresis
                    && leastSeconds == one.leastSeconds;
        }

        @Override
        public int hashCode() {
            return Objects.hash(name, watch, Arrays.hashCode(edges), hysteresis, leastSeconds);
        }
    }

    /** How rules are put together. */
    enum Together {
        ALL,
        ANY,
        NOT,
        THEN
    }

    /** On by what other rules are: they change at the sample at which their parts do. @param withinSeconds of THEN only */
    record Made(String name, Together how, List<String> parts, double withinSeconds) implements Rule {
        public Made {
            parts = List.copyOf(parts);
            int most = how == Together.NOT ? 1 : how == Together.THEN ? 2 : Integer.MAX_VALUE;
            int least = how == Together.THEN ? 2 : 1;
            if (parts.size() < least || parts.size() > most) {
                throw new IllegalArgumentException(Messages.of(
                        "act.needs-rules-were",
                        how.name().toLowerCase(java.util.Locale.ROOT),
                        (least == most ? least : Messages.of("act.or-more", least)),
                        parts.size()));
            }
            atLeastNothing("within_s", withinSeconds);
        }
    }

    private static void atLeastNothing(String key, double value) {
        if (!(value >= 0) || Double.isInfinite(value)) {
            throw new IllegalArgumentException(Messages.of("act.must-be-0-or-more-was", key, value));
        }
    }
}
