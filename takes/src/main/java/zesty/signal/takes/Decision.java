package zesty.signal.takes;

/**
 * What was decided or sent while a take was recorded.
 *
 * @param seconds when, from the take's first row
 * @param kind whether a rule turned or a line was meant for a board
 * @param name of the rule or the output
 * @param what "on", "off" or "band 2" of a rule; the line of an output
 * @param value the number behind it; NaN where there is none
 * @param why of an output why it was sent, and whether it was at all; empty for a rule
 */
public record Decision(double seconds, Kind kind, String name, String what, double value, String why) {
    /** Whose line of the log it is. */
    public enum Kind {
        RULE,
        OUTPUT
    }

    /** @return the same so many seconds later */
    public Decision later(double by) {
        return at(seconds + by);
    }

    /** @return the same at another moment */
    public Decision at(double seconds) {
        return new Decision(seconds, kind, name, what, value, why);
    }
}
