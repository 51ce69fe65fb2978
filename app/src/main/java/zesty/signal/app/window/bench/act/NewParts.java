package zesty.signal.app.window.bench.act;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import java.util.function.Predicate;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Profile;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.Watch;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.rig.OutputUse;

/** Rules and outputs as they begin: with names that are free and values that suit what is in sight. */
final class NewParts {
    /** What heats is off after ten minutes unless somebody says otherwise. */
    private static final double LONGEST_SECONDS = 600;

    private NewParts() {}

    private static String free(String wanted, Predicate<String> taken) {
        String name = wanted;
        for (int n = 2; taken.test(name); n++) {
            name = wanted + " " + n;
        }
        return name;
    }

    static String freeRule(ActSetup act, String wanted) {
        return free(wanted, name -> act.book().rules().stream()
                .anyMatch(one -> one.name().equals(name)));
    }

    private static String freeOutput(ActSetup act, String wanted) {
        return free(wanted, name -> act.book().outputs().stream()
                .anyMatch(one -> one.name().equals(name)));
    }

    /** @return with a rule "above" on something. @param limit to begin with */
    static ActSetup above(ActSetup act, WatchChoice choice, double limit, double hysteresis) {
        return act.withRule(new Rule.OnSamples(
                freeRule(act, "high"), choice.watch(), new Condition.Above(limit), hysteresis, Rule.Holds.NONE));
    }

    static ActSetup events(ActSetup act, WatchChoice choice) {
        return act.withRule(new Rule.OnSamples(
                freeRule(act, choice.words()), choice.watch(), new Condition.Events(1, 0.5), 0, Rule.Holds.NONE));
    }

    static ActSetup bands(ActSetup act, WatchChoice choice, double low, double high, double hysteresis) {
        return act.withRule(
                new Rule.InBands(freeRule(act, "bands"), choice.watch(), new double[] {low, high}, hysteresis, 0));
    }

    static ActSetup made(ActSetup act, Rule.Together how, List<String> parts) {
        return act.withRule(new Rule.Made(
                freeRule(act, how.name().toLowerCase(java.util.Locale.ROOT)),
                how,
                parts,
                how == Rule.Together.THEN ? 5 : 0));
    }

    /** @return with an output by a rule, as a dry run */
    static ActSetup output(ActSetup act, String rule) {
        String name = freeOutput(act, "output");
        return act.withOutput(new Output.ByRule(name, "out 0", rule, "out 1", "out 0", LONGEST_SECONDS), OutputUse.DRY);
    }

    /** @return with an output by a value, as a dry run. @param low to {@code high}: what is mapped to 0 to 100 */
    static ActSetup output(ActSetup act, Watch watch, double low, double high) {
        String name = freeOutput(act, "dial");
        return act.withOutput(
                new Output.ByValue(
                        name,
                        "dial 0",
                        watch,
                        new double[][] {{low, 0}, {high, 100}},
                        0.2,
                        Double.POSITIVE_INFINITY,
                        1,
                        0.1,
                        "dial {value}"),
                OutputUse.DRY);
    }

    static Output named(Output output, String name) {
        return with(output, name, output.safe());
    }

    static Output safe(Output output, String line) {
        return with(output, output.name(), line);
    }

    private static Output with(Output output, String name, String safe) {
        if (output instanceof Output.ByRule one) {
            return new Output.ByRule(name, safe, one.rule(), one.on(), one.off(), one.longestOnSeconds());
        }
        Output.ByValue one = (Output.ByValue) output;
        return new Output.ByValue(
                name,
                safe,
                one.watch(),
                one.map(),
                one.smoothSeconds(),
                one.slewPerSecond(),
                one.deadZone(),
                one.periodSeconds(),
                one.line());
    }

    /** @return with a rule's limits in percent of the chosen profile, or in its unit again; the limits stay where they are */
    static ActSetup percent(ActSetup act, Rule.OnSamples rule, boolean percent) {
        Profile.Span span = act.chosen().flatMap(one -> one.of(rule.watch())).orElse(null);
        ActSetup now = act.withPercent(rule.name(), percent);
        if (span == null) {
            return now;
        }
        return now.withRule(percent ? inPercent(rule, span) : inValues(rule, span));
    }

    /** @return a rule whose limits are values, in percent */
    static Rule.OnSamples inPercent(Rule.OnSamples rule, Profile.Span span) {
        double wide = span.full() - span.rest();
        return moved(rule, v -> 100 * (v - span.rest()) / wide, 100 * rule.hysteresis() / Math.abs(wide));
    }

    private static Rule.OnSamples inValues(Rule.OnSamples rule, Profile.Span span) {
        return moved(rule, span::at, span.width(rule.hysteresis()));
    }

    private static Rule.OnSamples moved(Rule.OnSamples rule, DoubleUnaryOperator to, double hysteresis) {
        Rule.OnSamples moved = rule;
        List<Double> limits = RuleEdits.limits(rule.when());
        double[] all = limits.stream()
                .mapToDouble(v -> tidy(to.applyAsDouble(v)))
                .sorted()
                .toArray();
        // The upper one first, so that two never pass each other.
        boolean up = all.length > 1 && all[1] > limits.get(0);
        for (int k = 0; k < all.length; k++) {
            int i = up ? all.length - 1 - k : k;
            moved = RuleEdits.when(moved, RuleEdits.moved(moved.when(), i, all[i]));
        }
        return RuleEdits.hysteresis(moved, tidy(hysteresis));
    }

    /** @return with four digits, as somebody would write it */
    static double tidy(double value) {
        return Double.isFinite(value)
                ? new BigDecimal(value).round(new MathContext(4)).doubleValue()
                : value;
    }
}
