package zesty.signal.core.act;

/** On or off by a value or its slope. */
final class ValueSwitch extends RuleState {
    private final Rule.OnSamples rule;
    private final SlopeWindow slope;
    private final double half;
    private final double low;
    private final double high;
    private final int kind;
    /** Since when what would turn it has held; NaN where it does not. */
    private double turningSince = Double.NaN;

    private static final int ABOVE = 0;
    private static final int BELOW = 1;
    private static final int INSIDE = 2;
    private static final int OUTSIDE = 3;

    ValueSwitch(int index, Rule.OnSamples rule, Turned turned) {
        super(index, rule, rule.watch(), 2, turned);
        this.rule = rule;
        half = rule.hysteresis() / 2;
        Condition when = rule.when();
        SlopeWindow window = null;
        double least = Double.NaN;
        double most = Double.NaN;
        if (when instanceof Condition.Above one) {
            kind = ABOVE;
            least = one.limit();
        } else if (when instanceof Condition.Below one) {
            kind = BELOW;
            least = one.limit();
        } else if (when instanceof Condition.Inside one) {
            kind = INSIDE;
            least = one.low();
            most = one.high();
        } else if (when instanceof Condition.Outside one) {
            kind = OUTSIDE;
            least = one.low();
            most = one.high();
        } else if (when instanceof Condition.Rising one) {
            kind = ABOVE;
            least = one.limit();
            window = new SlopeWindow(one.overSeconds());
        } else {
            kind = BELOW;
            least = -((Condition.Falling) when).limit();
            window = new SlopeWindow(((Condition.Falling) when).overSeconds());
        }
        low = least;
        high = most;
        slope = window;
    }

    private boolean turnsOn(double x) {
        return switch (kind) {
            case ABOVE -> x >= low + half;
            case BELOW -> x <= low - half;
            case INSIDE -> x >= low + half && x <= high - half;
            default -> x < low - half || x > high + half;
        };
    }

    private boolean turnsOff(double x) {
        return switch (kind) {
            case ABOVE -> x < low - half;
            case BELOW -> x > low + half;
            case INSIDE -> x < low - half || x > high + half;
            default -> x >= low + half && x <= high - half;
        };
    }

    @Override
    void sample(double seconds, double value) {
        double x = value;
        if (slope != null) {
            x = slope.add(seconds, value);
            if (x != x) {
                return;
            }
        }
        boolean on = now == 1;
        boolean turning = on ? turnsOff(x) && !(rule.holds().latch() && !acknowledged) : turnsOn(x);
        if (!turning) {
            turningSince = Double.NaN;
            return;
        }
        if (turningSince != turningSince) {
            turningSince = seconds;
        }
        double hold = on ? rule.holds().offForSeconds() : rule.holds().forSeconds();
        if (seconds - turningSince >= hold - Controller.ROUNDING_SECONDS
                && !dead(seconds, rule.holds().deadSeconds())) {
            turn(seconds, on ? 0 : 1, x);
            turningSince = Double.NaN;
            acknowledged = false;
        }
    }
}
