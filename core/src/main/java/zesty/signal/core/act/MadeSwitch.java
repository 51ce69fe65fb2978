package zesty.signal.core.act;

import java.util.Arrays;

/** On by what others are. */
final class MadeSwitch extends RuleState {
    private final Rule.Made rule;
    private final RuleState[] parts;
    private int firstTurns;
    private double firstOnSeconds = Double.NaN;
    private boolean secondWas;

    MadeSwitch(int index, Rule.Made rule, RuleState[] parts, Turned turned) {
        super(index, rule, null, 2, turned);
        this.rule = rule;
        this.parts = parts;
    }

    @Override
    boolean sameAs(RuleState other) {
        return super.sameAs(other) && Arrays.equals(parts, ((MadeSwitch) other).parts);
    }

    @Override
    void follow(double seconds) {
        int to = together(seconds) ? 1 : 0;
        if (to != now) {
            turn(seconds, to, Double.NaN);
        }
    }

    private boolean together(double seconds) {
        return switch (rule.how()) {
            case ALL -> every();
            case ANY -> some();
            case NOT -> parts[0].now == 0;
            case THEN -> then(seconds);
        };
    }

    private boolean every() {
        for (RuleState part : parts) {
            if (part.now == 0) {
                return false;
            }
        }
        return true;
    }

    private boolean some() {
        for (RuleState part : parts) {
            if (part.now == 1) {
                return true;
            }
        }
        return false;
    }

    private boolean then(double seconds) {
        RuleState first = parts[0];
        RuleState second = parts[1];
        if (first.turns != firstTurns) {
            firstTurns = first.turns;
            firstOnSeconds = first.now == 1 ? first.turnedSeconds : firstOnSeconds;
        }
        boolean turnedOn = second.now == 1 && !secondWas;
        secondWas = second.now == 1;
        if (turnedOn) {
            return seconds - firstOnSeconds <= rule.withinSeconds() + Controller.ROUNDING_SECONDS;
        }
        return now == 1 && second.now == 1;
    }
}
