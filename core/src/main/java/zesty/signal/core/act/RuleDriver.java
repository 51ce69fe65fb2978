package zesty.signal.core.act;

/** On and off lines by a rule. */
final class RuleDriver extends OutputDriver {
    private final Output.ByRule setup;
    private final RuleState rule;
    private boolean on;
    private boolean overdue;
    private double onSeconds;

    RuleDriver(int index, Output.ByRule setup, RuleState rule, Controller.Listener listener) {
        super(index, setup.safe(), listener);
        this.setup = setup;
        this.rule = rule;
    }

    @Override
    boolean sameAs(OutputDriver other) {
        return other instanceof RuleDriver one && setup.equals(one.setup) && rule == one.rule;
    }

    void follow(double seconds) {
        boolean is = rule.now == 1;
        if (is == on) {
            return;
        }
        on = is;
        if (is) {
            onSeconds = seconds;
            send(seconds, setup.on(), Controller.Why.RULE);
        } else if (!overdue) {
            send(seconds, setup.off(), Controller.Why.RULE);
        }
        overdue = false;
    }

    @Override
    void madeSafe() {
        super.madeSafe();
        overdue = on;
    }

    double due() {
        return on && !overdue ? onSeconds + setup.longestOnSeconds() : Double.POSITIVE_INFINITY;
    }

    @Override
    void dueAt(double seconds) {
        if (seconds >= due() - Controller.ROUNDING_SECONDS) {
            overdue = true;
            send(seconds, safe, Controller.Why.LONGEST);
        }
    }
}
